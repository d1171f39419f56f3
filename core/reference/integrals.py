"""Writes integrals.json: definite integrals with 25 digits, by mpmath, and how many evaluations
SciPy's quad takes for each. Run with Debian's python3-mpmath and python3-scipy:

    python3 core/reference/integrals.py > core/reference/integrals.json

The first 21 are those of D. K. Kahaner, Comparison of numerical quadrature formulas, in J. R. Rice
(ed.), Mathematical Software, Academic Press 1971, from memory.
"""

import json
import math

import mpmath
import scipy
from mpmath import ci, inf, log, mp, mpf, pi, si, sin, sqrt
from scipy.integrate import quad

mp.dps = 30

# Formula as Yperkine reads it, from, to, the integrand, places where to cut it, class.
SET = [
    ("e^x", 0, 1, lambda x: mp.exp(x), [], "smooth"),
    ("floor(x + 0.7)", 0, 1, lambda x: mpf(1) if x > mpf("0.3") else mpf(0), ["0.3"], "smooth"),
    ("sqrt(x)", 0, 1, lambda x: mp.sqrt(x), [], "singular"),
    ("23/25 cosh(x) - cos x", -1, 1, lambda x: mpf(23) / 25 * mp.cosh(x) - mp.cos(x), [], "smooth"),
    ("1/(x^4 + x^2 + 0.9)", -1, 1, lambda x: 1 / (x**4 + x**2 + mpf("0.9")), [], "smooth"),
    ("x sqrt(x)", 0, 1, lambda x: x * mp.sqrt(x), [], "singular"),
    ("1/sqrt(x)", 0, 1, lambda x: 1 / mp.sqrt(x), [], "singular"),
    ("1/(1 + x^4)", 0, 1, lambda x: 1 / (1 + x**4), [], "smooth"),
    ("2/(2 + sin(10π x))", 0, 1, lambda x: 2 / (2 + mp.sin(10 * mp.pi * x)), [k / 10 for k in range(1, 10)], "smooth"),
    ("1/(1 + x)", 0, 1, lambda x: 1 / (1 + x), [], "smooth"),
    ("1/(1 + e^x)", 0, 1, lambda x: 1 / (1 + mp.exp(x)), [], "smooth"),
    ("x/(e^x - 1)", 0, 1, lambda x: x / mp.expm1(x), [], "smooth"),
    ("sin(100π x)/(π x)", 0.1, 1, lambda x: mp.sin(100 * mp.pi * x) / (mp.pi * x), [k / 50 for k in range(6, 50)], "smooth"),
    ("sqrt(50) e^(-50π x^2)", 0, 10, lambda x: mp.sqrt(50) * mp.exp(-50 * mp.pi * x**2), [0.1, 0.2, 0.5, 1], "smooth"),
    ("25 e^(-25x)", 0, 10, lambda x: 25 * mp.exp(-25 * x), [0.1, 0.5, 1], "smooth"),
    ("50/(π(2500x^2 + 1))", 0, 10, lambda x: 50 / (mp.pi * (2500 * x**2 + 1)), [0.01, 0.1, 1], "smooth"),
    ("50 (sin(50π x)/(50π x))^2", 0.01, 1, lambda x: 50 * (mp.sin(50 * mp.pi * x) / (50 * mp.pi * x)) ** 2, [k / 50 for k in range(1, 50)], "smooth"),
    ("cos(cos x + 3sin x + 2cos(2x) + 3cos(3x))", 0, "pi", lambda x: mp.cos(mp.cos(x) + 3 * mp.sin(x) + 2 * mp.cos(2 * x) + 3 * mp.cos(3 * x)), [1, 2], "smooth"),
    ("ln x", 0, 1, lambda x: mp.log(x), [], "singular"),
    ("1/(x^2 + 1.005)", -1, 1, lambda x: 1 / (x**2 + mpf("1.005")), [], "smooth"),
    ("1/cosh(10x - 2)^2 + 1/cosh(100x - 40)^4 + 1/cosh(1000x - 600)^6", 0, 1,
     lambda x: mp.sech(10 * x - 2) ** 2 + mp.sech(100 * x - 40) ** 4 + mp.sech(1000 * x - 600) ** 6,
     [0.1, 0.2, 0.3, 0.37, 0.4, 0.43, 0.597, 0.6, 0.603], "smooth"),
    # More of what lessons meet.
    ("6 + 4 sin(0.9x) - 0.3x", 1, 7, lambda x: 6 + 4 * mp.sin(mpf("0.9") * x) - mpf("0.3") * x, [], "smooth"),
    ("|x^2 - 1|", -2, 2, lambda x: abs(x**2 - 1), [-1, 1], "smooth"),
    ("x if x < 1; 3 - x otherwise", 0, 3, lambda x: x if x < 1 else 3 - x, [1], "smooth"),
    ("sqrt(1 - x^2)", -1, 1, lambda x: mp.sqrt(1 - x**2), [], "singular"),
    ("1/sqrt(1 - x^2)", -1, 1, lambda x: 1 / mp.sqrt(1 - x**2), [], "singular"),
    ("x^(-2/3)", -1, 8, None, lambda: mpf(9), "singular"),
    ("ln(x)/sqrt(x)", 0, 1, lambda x: mp.log(x) / mp.sqrt(x), [], "singular"),
    ("ln(sin x)", 0, "pi", None, lambda: -pi*log(mpf(2)), "singular"),
    ("sin(1/x)", 0, 1, None, lambda: mpf(sin(1)) - ci(1), "singular"),
    ("e^(-1000000(x - 0.512)^2)", 0, 1, None, lambda: sqrt(pi)/1000, "smooth"),
    ("e^(-x^2)", "-inf", "inf", None, lambda: sqrt(pi), "smooth"),
    ("1/(1 + x^2)", "-inf", "inf", None, lambda: pi, "smooth"),
    ("1/x^2", 1, "inf", None, lambda: mpf(1), "smooth"),
    ("e^(-x)", 0, "inf", None, lambda: mpf(1), "smooth"),
    ("x^2 e^(-x)", 0, "inf", None, lambda: mpf(2), "smooth"),
    ("1/(x ln(x)^2)", "e", "inf", None, lambda: mpf(1), "slow"),
    ("e^(-x)/sqrt(x)", 0, "inf", None, lambda: sqrt(pi), "singular"),
    ("sin(x)/x", 1, "inf", None, lambda: pi/2 - si(1), "singular"),
    ("cos(x^2)", 0, "inf", None, lambda: sqrt(pi/2)/2, "singular"),
    ("e^(-(x - 1000)^2)", 0, "inf", None, lambda: sqrt(pi), "smooth"),
    ("e^(-x/5) sin(x)^2", 0, "inf", None, lambda: mpf(5)/2 - mpf(5)/202, "smooth"),
]

NAMED = {"pi": mp.pi, "e": mp.e, "inf": inf, "-inf": -inf}


def number(value):
    return NAMED[value] if isinstance(value, str) else mpf(str(value))


rows = []
for formula, a, b, f, cuts, kind in SET:
    lo, hi = number(a), number(b)
    neval = None
    if f is None:
        value = +cuts()
    else:
        value = mp.quad(f, [lo, *[mpf(str(c)) for c in cuts], hi])
        try:
            neval = quad(lambda x: float(f(mpf(x))), float(lo), float(hi), full_output=1)[2]["neval"]
        except (ZeroDivisionError, ValueError):
            neval = None
    rows.append({"formula": formula, "from": str(a), "to": str(b), "kind": kind,
                 "value": mp.nstr(value, 25), "quad": neval})

print(json.dumps({"mpmath": mpmath.__version__, "scipy": scipy.__version__, "table": rows},
                 ensure_ascii=False, indent=1))
