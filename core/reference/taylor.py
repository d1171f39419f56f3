"""Writes taylor.json: Taylor coefficients and errors of Taylor polynomials, by mpmath with 60 digits.
Run with python3-mpmath:

    python3 core/reference/taylor.py > core/reference/taylor.json
"""

import json

import mpmath as mp

mp.mp.dps = 60
ORDER = 12
CASES = [
    ("e^x", mp.exp, "0.5"), ("sin x", mp.sin, "1.25"), ("cos(2x)", lambda x: mp.cos(2 * x), "0.75"),
    ("ln(1 + x)", lambda x: mp.log(1 + x), "0"), ("1/(1 + x^2)", lambda x: 1 / (1 + x**2), "0.5"),
    ("sqrt(x + 2)", lambda x: mp.sqrt(x + 2), "1"), ("e^(-x^2)", lambda x: mp.exp(-x * x), "0"),
    ("e^(-x^2)", lambda x: mp.exp(-x * x), "0.25"), ("arctan x", mp.atan, "0.5"),
    ("tan x", mp.tan, "0.25"), ("x sin x/(x + 3)", lambda x: x * mp.sin(x) / (x + 3), "1"),
    ("6 + 4 sin(0.9x) - 0.3x", lambda x: 6 + 4 * mp.sin(mp.mpf("0.9") * x) - mp.mpf("0.3") * x, "2"),
    ("cosh x", mp.cosh, "-1"), ("e^(sin x)", lambda x: mp.exp(mp.sin(x)), "0"),
]

rows = []
for formula, f, at in CASES:
    a = mp.mpf(at)
    # taylor() differentiates by differences in 60 digits and more.
    mp.mp.dps = 120
    coefficients = mp.taylor(f, a, ORDER)
    mp.mp.dps = 60
    errors = []
    for degree in (1, 3, 6, 10):
        for run in ("-0.5", "0.125", "0.5"):
            b = a + mp.mpf(run)
            p = sum(c * (b - a) ** k for k, c in enumerate(coefficients[: degree + 1]))
            errors.append({"degree": degree, "b": float(b), "error": float(f(b) - p)})
    rows.append({
        "formula": formula, "at": at,
        "coefficients": [float(c) for c in coefficients], "errors": errors,
    })
print(json.dumps({"mpmath": mp.__version__, "table": rows}, indent=1))
