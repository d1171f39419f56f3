"""What sentences about areas, limits and strips claim, from mpmath with 30 digits; prints JSON.

    python3 core/reference/sentences.py > core/reference/sentences.json

Debian: python3-mpmath. Areas are integrated by tanh-sinh between the places where the integrand
breaks, zeros are found by bisection from the signs on a grid that no zero falls on.
"""

import json

import mpmath
from mpmath import mp, mpf

mp.dps = 30


def area(f, breaks, lower):
    """The area under f from `lower` to x, cut where f breaks."""

    def value(x):
        x = mpf(x)
        inner = sorted(b for b in map(mpf, breaks) if min(lower, x) < b < max(lower, x))
        cuts = [mpf(lower)] + (inner if x > lower else inner[::-1]) + [x]
        return mpmath.quad(f, cuts)

    return value


def roots(f, a, b, steps=240):
    a, b = mpf(a), mpf(b)
    inner = [a + (b - a) * (k + mpf("0.1234567")) / steps for k in range(steps)]
    xs = inner + [b - (b - a) / 10**6]
    ys = [f(x) for x in xs]
    found = []
    for x, y, x2, y2 in zip(xs, ys, xs[1:], ys[1:]):
        if (y < 0) != (y2 < 0):
            for _ in range(70):
                m = (x + x2) / 2
                if (f(m) < 0) == (y < 0):
                    x = m
                else:
                    x2 = m
            found.append((x + x2) / 2)
    return found


areas = []


def add_area(text, f, breaks, lower, span, level):
    value = area(f, breaks, lower)
    turning = [x for x in roots(f, *span) if f(x - mpf("1e-9")) * f(x + mpf("1e-9")) < 0]
    candidates = [value(x) for x in [*span, *turning, *(b for b in breaks if span[0] < b < span[1])]]
    areas.append(
        {
            "formula": text,
            "lower": lower,
            "span": span,
            "level": str(level),
            "solutions": [float(x) for x in roots(lambda x: value(x) - mpf(level), *span)],
            "turning": [[float(x), float(value(x))] for x in turning],
            "highest": float(max(candidates)),
            "lowest": float(min(candidates)),
        }
    )


add_area("e^(-x^2) - 1/2", lambda t: mpmath.exp(-t * t) - mpf(1) / 2, [], 0, [-2, 2], "0.1")
add_area("sin(x)/x", lambda t: mpmath.sinc(t), [], 0, [-10, 10], "1.5")
add_area("floor(x) - 1", lambda t: mpmath.floor(t) - 1, [1, 2, 3], 0, [0, 4], "0.7")
add_area("cos(x^2)", lambda t: mpmath.cos(t * t), [], 0, [0, 3], "0.75")
add_area("1/sqrt|x| - 2", lambda t: 1 / mpmath.sqrt(abs(t)) - 2, [0], -1, [-1, 1], "0.3")
add_area(
    "x^2 if x < 1; -x otherwise", lambda t: t * t if t < 1 else -t, [1], 0, [0, 3], "-0.5"
)
add_area("|x - 1| - 1/2", lambda t: abs(t - 1) - mpf(1) / 2, [1], 0, [-1, 3], "0.2")
add_area("ln x", mpmath.log, [], 1, [0.25, 4], "0.25")
add_area("arctan(x) - x/3", lambda t: mpmath.atan(t) - t / 3, [], 0, [-4, 4], "0.6")
add_area("sgn(sin(x))", lambda t: mpmath.sign(mpmath.sin(t)), [mpmath.pi, 2 * mpmath.pi], 0, [0, 8], "2")

print(json.dumps({"mpmath": mpmath.__version__, "areas": areas}, indent=1))
