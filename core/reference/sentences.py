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

broken = []


def toward(f, x, side):
    """What f tends to from one side: a number, "inf", "-inf", or "none" where it swings."""
    steps = [mpf(10) ** -k for k in (36, 44, 52)]
    # Steps that are no round fractions, so that what swings is not met in step.
    seen = [f(x + side * h * mpf("1.2345678")) for h in steps]
    if any(isinstance(v, mpmath.mpc) for v in seen):
        return None
    if abs(seen[2]) > mpf(10) ** 6 and abs(seen[2]) > 2 * abs(seen[0]):
        return "inf" if seen[2] > 0 else "-inf"
    if abs(seen[2]) > 10 and abs(seen[2] - seen[1]) > 1 and abs(seen[1] - seen[0]) > 1:
        return "inf" if seen[2] > 0 else "-inf"
    return float(seen[2]) if abs(seen[2] - seen[1]) < mpf(10) ** -9 else "none"


def add_broken(text, f, x, value=None):
    """What f does at x: both limits, the value there, and what the slopes of secants tend to."""
    x = mpf(x)
    left, right = toward(f, x, -1), toward(f, x, 1)

    def slope(side, limit):
        if value is None or not isinstance(limit, float) or abs(limit - value) > 1e-12:
            return None
        return toward(lambda t: (f(t) - mpf(value)) / (t - x), x, side)

    slopes = [slope(-1, left), slope(1, right)]
    broken.append(
        {"formula": text, "x": float(x), "value": value, "limits": [left, right], "slopes": slopes}
    )


def pieces(low, high, at):
    return lambda t: low(t) if t < at else high(t)


mp.dps = 400
add_broken("(x^2-4)/(x-2) if x!=2; 4 if x=2", lambda t: (t * t - 4) / (t - 2), 2, 4)
add_broken("(x^2-4)/(x-2)", lambda t: (t * t - 4) / (t - 2), 2)
add_broken("sin(x)/x if x!=0; 1 otherwise", lambda t: mpmath.sin(t) / t, 0, 1)
add_broken("(sqrt(x+4)-2)/x if x!=0; 1/4 if x=0", lambda t: (mpmath.sqrt(t + 4) - 2) / t, 0, 0.25)
add_broken("e^(-1/x^2) if x!=0; 0 otherwise", lambda t: mpmath.exp(-1 / t**2), 0, 0)
add_broken("x^2 sin(1/x) if x!=0; 0 otherwise", lambda t: t * t * mpmath.sin(1 / t), 0, 0)
add_broken("x sin(1/x) if x!=0; 0 otherwise", lambda t: t * mpmath.sin(1 / t), 0, 0)
add_broken("1/(x-2) if x<2; 3 otherwise", pieces(lambda t: 1 / (t - 2), lambda t: mpf(3), 2), 2, 3)
add_broken("x^2 if x!=1; 5 if x=1", lambda t: t * t, 1, 5)
add_broken("floor(x)", mpmath.floor, 1, 1)
add_broken("ceil(x)", mpmath.ceil, 1, 1)
add_broken("x - floor(x)", lambda t: t - mpmath.floor(t), 2, 0)
add_broken("sgn(x)", mpmath.sign, 0, 0)
add_broken("|x-1|", lambda t: abs(t - 1), 1, 0)
add_broken("x|x|", lambda t: t * abs(t), 0, 0)
add_broken("sqrt|x|", lambda t: mpmath.sqrt(abs(t)), 0, 0)
add_broken("cbrt(x)", lambda t: mpmath.sign(t) * mpmath.cbrt(abs(t)), 0, 0)
add_broken("cbrt(x^2)", lambda t: mpmath.cbrt(t * t), 0, 0)
add_broken("1/x", lambda t: 1 / t, 0)
add_broken("1/x^2", lambda t: 1 / t**2, 0)
add_broken("x ln|x| if x!=0; 0 otherwise", lambda t: t * mpmath.log(abs(t)), 0, 0)
add_broken("arctan(1/x)", lambda t: mpmath.atan(1 / t), 0)
add_broken("1/(1+e^(1/x))", lambda t: 1 / (1 + mpmath.exp(1 / t)), 0)
add_broken("tan(x)/x if x!=0; 1 otherwise", lambda t: mpmath.tan(t) / t, 0, 1)
add_broken("(1-cos(x))/x^2 if x!=0; 1/2 otherwise", lambda t: (1 - mpmath.cos(t)) / t**2, 0, 0.5)
add_broken("|sin(x)|/x if x!=0; 1 otherwise", lambda t: abs(mpmath.sin(t)) / t, 0, 1)
add_broken("x^2 if x<=3; 6x-9 otherwise", pieces(lambda t: t * t, lambda t: 6 * t - 9, 3), 3, 9)
add_broken("x^2 if x<=3; 6x-8 otherwise", pieces(lambda t: t * t, lambda t: 6 * t - 8, 3), 3, 9)
add_broken("max(x, x^2)", lambda t: max(t, t * t), 1, 1)
add_broken("sin(1/x)", lambda t: mpmath.sin(1 / t), 0)

print(json.dumps({"mpmath": mpmath.__version__, "areas": areas, "broken": broken}, indent=1))
