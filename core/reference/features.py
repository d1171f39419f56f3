"""Zeros of f, f' and f'' on spans, from mpmath with 40 digits; prints JSON.

    python3 core/reference/features.py > core/reference/features.json

Debian: python3-mpmath. Sign changes on a fine grid are bracketed and halved 130 times;
the functions are chosen so that the grid is fine enough (their features are known to lie further
apart), and none of them has a zero that touches.
"""

import json

import mpmath
from mpmath import mp, mpf

mp.dps = 40


def halved(f, a, fa, b):
    for _ in range(130):
        m = (a + b) / 2
        fm = f(m)
        if fm == 0:
            return m
        if (fm < 0) == (fa < 0):
            a = m
        else:
            b = m
    return (a + b) / 2


def roots(f, a, b, steps):
    found = []
    a, b = mpf(a), mpf(b)
    # The grid is shifted a little, so that no zero falls on it.
    xs = [a + (b - a) * (k + mpf("0.1234567")) / steps for k in range(steps)]
    ys = [f(x) for x in xs]
    for x, y, x2, y2 in zip(xs, ys, xs[1:], ys[1:]):
        if (y < 0) != (y2 < 0):
            found.append(halved(f, x, y, x2))
    return found


D = mpf
cases = [
    ("6 + 4 sin(0.9x) - 0.3x", lambda x: 6 + 4 * mpmath.sin(D("0.9") * x) - D("0.3") * x, "0", "10", 400),
    ("x e^(-x) sin(3x)", lambda x: x * mpmath.exp(-x) * mpmath.sin(3 * x), "0.1", "9", 600),
    ("ln(x^2 + 1) - x/3", lambda x: mpmath.log(x * x + 1) - x / 3, "-4", "11", 500),
    ("sin(20x) + x", lambda x: mpmath.sin(20 * x) + x, "0.01", "3", 3000),
    ("sin(1/x)", lambda x: mpmath.sin(1 / x), "0.02", "1", 40000),
    ("cos x cosh x + 1", lambda x: mpmath.cos(x) * mpmath.cosh(x) + 1, "0.5", "12", 800),
    ("tan x - x", lambda x: mpmath.sin(x) - x * mpmath.cos(x), "2", "16", 1400),
    ("e^(-x/2) + 0.002 e^(-((x - 0.2)/0.001)^2)", lambda x: mpmath.exp(-x / 2) + D("0.002") * mpmath.exp(-(((x - D("0.2")) / D("0.001")) ** 2)), "0.15", "0.25", 4000),
    ("x^5 - 5x^3 + 4x + 0.5", lambda x: x**5 - 5 * x**3 + 4 * x + D("0.5"), "-3", "3", 600),
    ("arctan(x) - x/4 + cos(2x)/8", lambda x: mpmath.atan(x) - x / 4 + mpmath.cos(2 * x) / 8, "-5", "5", 900),
]

table = []
for text, f, a, b, steps in cases:
    # For tan x - x the zeros of sin x - x cos x are the ones to find; its derivatives are left out.
    orders = [0] if text.startswith("tan") else [0, 1, 2]
    lists = []
    for order in orders:
        g = f if order == 0 else (lambda x, k=order: mpmath.diff(f, x, k))
        lists.append([mpmath.nstr(r, 25) for r in roots(g, a, b, steps)])
    table.append({"formula": text, "from": a, "to": b, "zeros": lists})

print(json.dumps({"made with": f"mpmath {mpmath.__version__}", "table": table}, indent=1))
