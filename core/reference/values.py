"""Values and derivatives to order 6 from mpmath, with 50 digits; prints JSON.

    python3 core/reference/values.py > core/reference/values.json

Debian: python3-mpmath. Each entry pairs a formula as Yperkine reads it with the same function in
mpmath. Derivatives come from mpmath's Taylor expansion at high precision, none from Yperkine.
"""

import json

import mpmath
from mpmath import mp, mpf

mp.dps = 50

third = mpf(1) / 3


def root(x, n, d):
    """The real root x^(n/d) for odd d."""
    size = mpmath.power(abs(x), mpf(n) / d)
    return size if x >= 0 or n % 2 == 0 else -size


D = mpf  # decimals are read exactly from their text

formulas = [
    ("x^5 - 4x^3 + 2x - 7", lambda x: x**5 - 4 * x**3 + 2 * x - 7, ["-2.5", "0.3", "1.1", "40"]),
    ("(x^2 - 1)/(x^2 + 1)", lambda x: (x**2 - 1) / (x**2 + 1), ["-3", "0.2", "1.5", "100"]),
    ("6 + 4 sin(0.9x) - 0.3x", lambda x: 6 + 4 * mpmath.sin(D("0.9") * x) - D("0.3") * x, ["0", "1.7", "8.6", "-40"]),
    ("sin x", mpmath.sin, ["0.1", "3.1", "-22.5", "1000"]),
    ("cos x", mpmath.cos, ["0.1", "1.5", "-11", "1000"]),
    ("tan x", mpmath.tan, ["0.1", "1.2", "-2.5"]),
    ("sec x", mpmath.sec, ["0.1", "1.2", "-2.5"]),
    ("csc x", mpmath.csc, ["0.1", "1.2", "-2.5"]),
    ("cot x", mpmath.cot, ["0.1", "1.2", "-2.5"]),
    ("arcsin x", mpmath.asin, ["-0.9", "0.01", "0.5"]),
    ("arccos x", mpmath.acos, ["-0.9", "0.01", "0.5"]),
    ("arctan x", mpmath.atan, ["-7", "0.01", "0.5", "300"]),
    ("arcsec x", mpmath.asec, ["1.2", "5", "-3"]),
    ("arccsc x", mpmath.acsc, ["1.2", "5", "-3"]),
    ("arccot x", lambda x: mpmath.pi / 2 - mpmath.atan(x), ["-2", "0.4", "3"]),
    ("sinh x", mpmath.sinh, ["-3", "0.1", "9"]),
    ("cosh x", mpmath.cosh, ["-3", "0.1", "9"]),
    ("tanh x", mpmath.tanh, ["-1.5", "0.1", "3"]),
    ("exp x", mpmath.exp, ["-20", "0.3", "12"]),
    ("e^(-x^2/8)", lambda x: mpmath.exp(-(x**2) / 8), ["-4", "0.5", "9"]),
    ("ln x", mpmath.log, ["0.001", "0.99", "1.01", "500"]),
    ("log x", mpmath.log10, ["0.001", "0.5", "3", "500"]),
    ("log_2(3x)", lambda x: mpmath.log(3 * x, 2), ["0.1", "2.5", "80"]),
    ("sqrt(x^3 + 1)", lambda x: mpmath.sqrt(x**3 + 1), ["-0.5", "0.7", "20"]),
    ("cbrt x", lambda x: root(x, 1, 3), ["0.008", "2", "-5"]),
    ("x^(2/3)", lambda x: root(x, 2, 3), ["0.5", "7", "-5"]),
    ("x^(3/5) - x^(1/3)", lambda x: root(x, 3, 5) - root(x, 1, 3), ["0.5", "7", "-5"]),
    ("x^2.5", lambda x: x ** D("2.5"), ["0.1", "3"]),
    ("x^x", lambda x: x**x, ["0.2", "1.5", "6"]),
    ("2^x", lambda x: mpf(2) ** x, ["-8", "0.5", "11"]),
    ("x^-3", lambda x: x**-3, ["-2", "0.1", "14"]),
    ("1/(1 + e^-x)", lambda x: 1 / (1 + mpmath.exp(-x)), ["-6", "0", "7"]),
    ("x e^(-x) sin(3x)", lambda x: x * mpmath.exp(-x) * mpmath.sin(3 * x), ["0.2", "2", "7"]),
    ("sin(x)/x", lambda x: mpmath.sin(x) / x, ["0.3", "4", "-25"]),
    ("(1 - cos x)/x^2", lambda x: (1 - mpmath.cos(x)) / x**2, ["0.5", "3", "-8"]),
    ("ln(x + sqrt(x^2 + 1))", lambda x: mpmath.log(x + mpmath.sqrt(x**2 + 1)), ["0.2", "3", "60"]),
    ("arctan(e^x) - sqrt(1 + x^2)", lambda x: mpmath.atan(mpmath.exp(x)) - mpmath.sqrt(1 + x**2), ["-2", "0.4", "5"]),
    ("cos(x^2) tan(x/5)", lambda x: mpmath.cos(x**2) * mpmath.tan(x / 5), ["0.5", "2.2", "-3"]),
    ("sin(cos(sin x))", lambda x: mpmath.sin(mpmath.cos(mpmath.sin(x))), ["0.5", "2.2", "-3"]),
    ("(3x - 2)^7", lambda x: (3 * x - 2) ** 7, ["0.1", "0.7", "2"]),
    ("x^2 if x < 1; 3 - x if 1 <= x < 4; 0 otherwise", lambda x: x**2 if x < 1 else 3 - x if x < 4 else mpf(0) * x, ["0.5", "2.5"]),
    ("|x - 3| sin x", lambda x: abs(x - 3) * mpmath.sin(x), ["1", "4"]),
    ("max(x, x^2) + min(x, 2)", lambda x: max(x, x**2) + min(x, mpf(2)), ["-1.5", "0.5", "1.5", "3"]),
]

orders = 6
table = []
for text, f, points in formulas:
    for point in points:
        at = mpf(point)
        mp.dps = 80
        coefficients = mpmath.taylor(f, at, orders)
        mp.dps = 50
        derivatives = [c * mpmath.factorial(k) for k, c in enumerate(coefficients)]
        # A derivative that differentiation with 80 digits leaves below 1e-40 is zero.
        values = [mpmath.nstr(d, 25) if abs(d) > mpf("1e-40") else "0.0" for d in derivatives]
        # The functions are called with the double next to the decimal, so that is said as well.
        table.append({"formula": text, "x": point, "derivatives": values})

print(json.dumps({"made with": f"mpmath {mpmath.__version__}", "table": table}, indent=1))
