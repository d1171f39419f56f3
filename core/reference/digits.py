"""Writes digits.json: values and slopes of formulas with 32 digits by mpmath, at places at which doubles
lose some of theirs, and at others. Run with mpmath 1.3:

    python3 core/reference/digits.py > core/reference/digits.json

The first formulas are those at which every text on rounding shows cancellation (common practice, no
source); the rest is put together at random from a fixed seed. Each number is worked out twice, with 80
and with 120 digits, and kept only where both agree.
"""

import ast
import json
import random
import sys

import mpmath
from mpmath import mp, mpf

FAMOUS = [
    "(1 - cos(x))/x^2", "(tan(x) - x)/x^3", "(e^x - 1 - x)/x^2", "(x - sin(x))/x^3", "sqrt(x + 1) - sqrt(x)",
    "ln(1 + x) - x", "(e^x - 1)/x", "1/x - 1/(x + 1)", "(x^2 - 1)/(x - 1)", "e^x - e^(-x)", "sin(x)/x",
    "(1 - x)^7 - (1 - 7*x)", "sqrt(1 + x^2) - 1", "arctan(x + 1) - arctan(x)", "ln(x + 1) - ln(x)",
    "(sqrt(4 + x) - 2)/x", "cos(x)^2 - sin(x)^2", "sinh(x) - x", "tanh(x) - x", "x - ln(1 + x)",
    "(1 + x)^3 - 1 - 3*x", "sin(x + 1) - sin(1)", "cbrt(x + 1) - cbrt(x)", "1 - 1/(1 + x)", "(x^3 - 8)/(x - 2)",
]
PLACES = [
    "0.00000001", "0.0000001", "0.00001", "0.001", "0.1", "0.3", "0.7", "1.1", "2", "2.000001", "3.14159", "5.5",
    "10", "31.4159265", "100.1", "1000.5", "12345.678", "1000000", "10000000.3", "123456789.1", "1000000000000",
    "-0.00000001", "-0.001", "-0.1", "-0.9", "-1.7", "-2.5", "-12.25", "-1000.1", "0.999999", "1.0000001", "4",
]

# Beyond this no formula of the table goes: the sine of so large a number takes all the time there is.
LARGEST = mpf(10) ** 25


def kept(f):
    def within(u):
        if abs(u) > LARGEST:
            raise OverflowError
        return f(u)

    return within


NAMES = {
    "e": None, "sin": mpmath.sin, "cos": mpmath.cos, "tan": mpmath.tan, "ln": mpmath.log, "sqrt": mpmath.sqrt,
    "arctan": mpmath.atan, "sinh": mpmath.sinh, "cosh": mpmath.cosh, "tanh": mpmath.tanh, "abs": abs,
    "cbrt": lambda u: mpmath.sign(u) * mpmath.cbrt(abs(u)),
}


NAMES = {name: f and kept(f) for name, f in NAMES.items()}


def real(f, least, strict):
    """Only where the real function has values: mpmath goes on with complex ones."""

    def within(u):
        if u < least or (strict and u == least):
            raise ValueError
        return f(u)

    return within


NAMES["ln"] = real(NAMES["ln"], 0, True)
NAMES["sqrt"] = real(NAMES["sqrt"], 0, False)


def power(base, exponent):
    """A whole power; and e, to no power that is beyond reach."""
    if base is not None:
        return base**exponent
    if abs(exponent) > 10**6:
        raise OverflowError
    return mpmath.exp(exponent)


OPERATORS = {
    ast.Add: lambda a, b: a + b, ast.Sub: lambda a, b: a - b, ast.Mult: lambda a, b: a * b,
    ast.Div: lambda a, b: a / b, ast.Pow: power,
}


def function(text):
    """The formula as a function; decimals are exact numbers: 0.1 is a tenth."""
    text = text.replace("^", "**")
    tree = ast.parse(text, mode="eval").body

    def value(x):
        def worth(part):
            if isinstance(part, ast.BinOp):
                return OPERATORS[type(part.op)](worth(part.left), worth(part.right))
            if isinstance(part, ast.UnaryOp):
                return -worth(part.operand)
            if isinstance(part, ast.Call):
                return NAMES[part.func.id](worth(part.args[0]))
            if isinstance(part, ast.Constant):
                return mpf(ast.get_source_segment(text, part))
            return x if part.id == "x" else NAMES[part.id]

        return worth(tree)

    return value


def at_random(chance, depth):
    if depth == 0 or chance.random() < 0.12:
        return chance.choice(["x", "x", "x", "2", "3", "0.1", "0.5", "1.7"])
    kind = chance.choice(["+", "-", "-", "*", "/", "^", "f", "f", "f"])
    if kind == "f":
        name = chance.choice(["sin", "cos", "tan", "ln", "sqrt", "arctan", "sinh", "tanh", "cbrt", "abs"])
        return f"{name}({at_random(chance, depth - 1)})"
    if kind == "^":
        base = at_random(chance, depth - 1)
        if chance.random() < 0.3:
            return f"e^({base})"
        return f"({base})^{chance.choice(['2', '3'])}"
    return f"({at_random(chance, depth - 1)}) {kind} ({at_random(chance, depth - 1)})"


def worked(make, place):
    found = []
    for digits in (60, 90):
        mp.dps = digits
        try:
            value = make(mpf(place))
        except (ZeroDivisionError, ValueError, OverflowError):
            return None
        if isinstance(value, mpmath.mpc):
            if value.imag != 0:
                return None
            value = value.real
        if not mpmath.isfinite(value):
            return None
        found.append(value)
    first, second = found
    if abs(second) > mpf(10) ** 14 or (second != 0 and abs(second) < mpf(10) ** -40):
        return None
    if abs(first - second) > abs(second) * mpf(10) ** -40:
        return None
    return mpmath.nstr(second, 32)


def slope_of(value):
    def slope(x):
        # A central quotient of differences, with room for what cancels in it.
        digits = mp.dps
        mp.dps = 3 * digits
        h = mpf(10) ** (-digits)
        found = (value(x + h) - value(x - h)) / (2 * h)
        mp.dps = digits
        return +found

    return slope


def main():
    chance = random.Random(20260)
    formulas = list(FAMOUS)
    while len(formulas) < 440:
        text = at_random(chance, 3)
        if "x" in text and text not in formulas and len(text) < 60:
            formulas.append(text)
    rows, total = [], 0
    for text in formulas:
        value = function(text)
        for order, make in ((0, value), (1, slope_of(value))):
            # Beside a value that is missing there is no slope either.
            cases = [(p, worked(make, p)) for p in PLACES if worked(value, p) is not None]
            # A difference that is 0 with all digits may be one that is too small for them.
            cases = [[p, v] for p, v in cases if v is not None and (order == 0 or mpf(v) != 0)]
            # A slope at a kink of a bar or a root is none.
            if order == 1 and ("abs" in text or "cbrt" in text):
                continue
            if cases:
                rows.append({"formula": text, "order": order, "cases": cases})
                total += len(cases)
    print(total, file=sys.stderr)
    print('{"source": "mpmath %s",\n"rows": [' % mpmath.__version__)
    print(",\n".join(json.dumps(row, separators=(",", ":")) for row in rows))
    print("]}")


main()
