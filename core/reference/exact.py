"""Writes exact.json: definite integrals, areas between curves, equations and extremes of a first
course, each with its exact form by SymPy and 25 digits of it. Run with SymPy 1.14:

    python3 core/reference/exact.py > core/reference/exact.json

Which ones: the rules that the integration, equation and extremum chapters of a first-year text go
through, chosen for this table (common practice, no source). An area is also integrated by mpmath, so
that a form counts only where two ways agree.
"""

import json
import multiprocessing
import re
import sys

import mpmath
import sympy as sp

X = sp.Symbol("x", real=True)
mpmath.mp.dps = 30
NAMES = {
    "x": X, "e": sp.E, "pi": sp.pi, "ln": sp.log, "arctan": sp.atan, "arcsin": sp.asin,
    "sqrt": sp.sqrt, "abs": sp.Abs, "cbrt": lambda u: u ** sp.Rational(1, 3), "sin": sp.sin,
    "cos": sp.cos, "tan": sp.tan, "sec": sp.sec, "csc": sp.csc, "cot": sp.cot,
    "sinh": sp.sinh, "cosh": sp.cosh, "tanh": sp.tanh, "exp": sp.exp, "max": sp.Max, "min": sp.Min,
}


def read(text):
    return sp.sympify(text.replace("^", "**"), locals=NAMES, rational=True)


# Formula, from, to, by what it is found; fourth: places where the formula changes its form.
INTEGRALS = [
    ("powers", [
        ("x^2", "0", "1/3"), ("3*x^2 - 4*x + 1", "0", "5/3"), ("(x^2 + 1)^2", "0", "1"),
        ("1/x^2", "1", "3"), ("1/x", "1", "7"), ("(x^2 + 1)/x", "1", "2"),
        ("(x + 1)/sqrt(x)", "1", "2"), ("x^3/7 - x", "0", "1"),
    ]),
    ("roots", [
        ("sqrt(x)", "0", "2"), ("cbrt(x)", "0", "2"), ("x^1.5", "0", "2"), ("x^(2/3)", "0", "1"),
        ("1/sqrt(x)", "1", "3"), ("sqrt(2*x + 1)", "0", "1"), ("x*sqrt(x)", "1", "2"),
        ("1/cbrt(x)", "1", "8"), ("x*sqrt(x + 1)", "0", "3"), ("x^2*sqrt(1 - x)", "0", "1"),
        ("x/sqrt(x + 4)", "0", "5"), ("(1 + sqrt(x))^2", "0", "2"), ("1/(1 + sqrt(x))", "0", "4"),
        ("sqrt(x)/(1 + x)", "0", "1"), ("1/(sqrt(x)*(1 + x))", "1", "3"), ("x^0.5*(1 - x)", "0", "1"),
        ("cbrt(x)/(1 + cbrt(x))", "0", "1"), ("1/(x*sqrt(x + 1))", "3", "8"),
    ]),
    ("exponentials", [
        ("e^x", "0", "1"), ("e^(2*x)", "0", "1"), ("2^x", "0", "3"), ("x*e^x", "0", "2"),
        ("x*e^(-x)", "0", "1"), ("x^2*e^x", "0", "1"), ("x^3*e^(-x)", "0", "1"), ("x*e^(x^2)", "0", "1"),
        ("x^3*e^(x^2)", "0", "1"), ("e^x/(1 + e^x)", "0", "1"), ("1/(1 + e^x)", "0", "1"),
        ("1/(e^x + e^(-x))", "0", "1"), ("e^(2*x)/(1 + e^x)", "0", "1"), ("e^(sqrt(x))", "0", "1"),
        ("e^(sqrt(x))/sqrt(x)", "1", "4"), ("x*2^x", "0", "1"), ("(e^x - 1)^2", "0", "1"),
        ("e^x/(1 + e^(2*x))", "0", "1"),
    ]),
    ("logarithms", [
        ("ln(x)", "1", "e"), ("ln(x)", "1", "2"), ("ln(x)^2", "1", "e"), ("ln(x)^2", "1", "2"),
        ("ln(x)^3", "1", "e"), ("x*ln(x)", "1", "2"), ("x^2*ln(x)", "1", "e"), ("ln(x)/x", "1", "3"),
        ("ln(x)/x^2", "1", "2"), ("ln(x)/sqrt(x)", "1", "4"), ("sqrt(x)*ln(x)", "1", "4"),
        ("x*ln(x)^2", "1", "e"), ("ln(x)^2/x", "1", "2"), ("1/(x*ln(x))", "e", "e^2"),
        ("1/(x*ln(x)^2)", "e", "e^2"), ("ln(x + 1)", "0", "1"), ("x*ln(x + 1)", "0", "1"),
        ("ln(x^2 + 1)", "0", "1"), ("x*ln(x^2 + 1)", "0", "1"), ("ln(2*x + 1)", "0", "1"),
    ]),
    ("by parts", [
        ("x*sin(x)", "0", "pi/2"), ("x*cos(x)", "0", "pi/2"), ("x^2*sin(x)", "0", "pi"),
        ("x^2*cos(2*x)", "0", "pi/4"), ("e^x*sin(x)", "0", "pi"), ("e^x*cos(x)", "0", "pi/2"),
        ("e^(-x)*sin(2*x)", "0", "pi"), ("e^(2*x)*cos(3*x)", "0", "pi"), ("x*e^x*sin(x)", "0", "pi"),
        ("arctan(x)", "0", "1"), ("x*arctan(x)", "0", "1"), ("x^2*arctan(x)", "0", "1"),
        ("arcsin(x)", "0", "1/2"), ("x*arcsin(x)", "0", "1"), ("x*sec(x)^2", "0", "pi/4"),
        ("x*sin(x)^2", "0", "pi"), ("x*sin(x)*cos(x)", "0", "pi/4"), ("sin(ln(x))", "1", "e^(pi/2)"),
        ("x*cosh(x)", "0", "1"), ("arctan(x)/x^2", "1", "sqrt(3)"),
    ]),
    ("circular", [
        ("sin(x)^2", "0", "pi/4"), ("cos(x)^2", "0", "pi/3"), ("sin(x)^3", "0", "pi"),
        ("cos(x)^3", "0", "pi/6"), ("sin(x)^4", "0", "pi"), ("cos(x)^4", "0", "pi/2"),
        ("sin(x)^2*cos(x)^2", "0", "pi/2"), ("sin(x)^3*cos(x)^2", "0", "pi/2"),
        ("sin(x)^2*cos(x)^3", "0", "pi/2"), ("sin(x)*cos(x)", "0", "pi/6"), ("sin(3*x)*cos(x)", "0", "pi/4"),
        ("sin(2*x)*sin(3*x)", "0", "pi/3"), ("sin(x)^5", "0", "pi/2"), ("sec(x)^2", "0", "pi/3"),
        ("tan(x)^2", "0", "pi/4"), ("tan(x)", "0", "pi/3"), ("tan(x)^3", "0", "pi/4"),
        ("sec(x)", "0", "pi/4"), ("sec(x)*tan(x)", "0", "pi/3"), ("sec(x)^3", "0", "pi/4"),
        ("sec(x)^4", "0", "pi/4"), ("csc(x)^2", "pi/4", "pi/2"), ("cot(x)", "pi/6", "pi/2"),
        ("csc(x)", "pi/3", "pi/2"), ("1/(1 + cos(x))", "0", "pi/2"), ("1/(1 + sin(x))", "0", "pi/2"),
        ("sin(x)/(1 + cos(x)^2)", "0", "pi/2"), ("cos(x)/(1 + sin(x))", "0", "pi/6"),
        ("cos(x)*sqrt(sin(x))", "0", "pi/2"), ("1/cos(x)^2", "0", "pi/4"), ("sin(x)/cos(x)^2", "0", "pi/3"),
        ("tan(x)^2*sec(x)^2", "0", "pi/4"),
    ]),
    ("partial fractions", [
        ("1/(x^2 - 4)", "0", "1"), ("1/(x^2 + 3*x + 2)", "0", "1"), ("x/(x^2 + 3*x + 2)", "0", "1"),
        ("(3*x + 5)/(x^2 - 2*x - 3)", "0", "2"), ("1/(x*(x + 1))", "1", "2"), ("1/(x^2*(x + 1))", "1", "2"),
        ("x^2/(x + 1)", "0", "1"), ("x^3/(x^2 + 1)", "0", "1"), ("(x^2 + 2)/(x^2 + x)", "1", "2"),
        ("1/(x^3 + x)", "1", "2"), ("1/(x^2 - 2)", "2", "3"), ("1/(x + 1)^3", "0", "1"),
        ("x/(x + 1)^2", "0", "1"), ("(2*x + 1)/(x^2 + 1)", "0", "1"), ("x^4/(x^2 - 9)", "0", "1"),
        ("1/(x^4 - 16)", "0", "1"), ("1/(x^3 + 1)", "0", "1"),
    ]),
    ("completed squares", [
        ("1/(1 + x^2)", "0", "1"), ("1/(4 + x^2)", "0", "2"), ("1/(x^2 + 2*x + 2)", "-1", "0"),
        ("1/(x^2 + 4*x + 13)", "-2", "1"), ("x/(x^2 + 2*x + 2)", "-1", "0"), ("1/(x^2 + x + 1)", "0", "1"),
        ("x^2/(1 + x^2)", "0", "1"), ("1/(1 + x^2)^2", "0", "1"), ("1/sqrt(1 - x^2)", "0", "1/2"),
        ("1/sqrt(2*x - x^2)", "1/2", "1"), ("1/sqrt(x^2 + 1)", "0", "1"), ("1/sqrt(x^2 - 1)", "2", "3"),
    ]),
    ("roots of quadratics", [
        ("sqrt(1 - x^2)", "0", "1"), ("sqrt(4 - x^2)", "0", "1"), ("sqrt(1 - x^2)", "0", "1/2"),
        ("x^2*sqrt(1 - x^2)", "0", "1"), ("sqrt(1 + x^2)", "0", "1"), ("x*sqrt(9 - x^2)", "0", "3"),
        ("x^3/sqrt(1 + x^2)", "0", "1"), ("x^2/sqrt(4 - x^2)", "0", "1"), ("sqrt(2*x - x^2)", "0", "1"),
        ("1/(1 + x^2)^1.5", "0", "1"), ("sqrt(x^2 - 1)", "1", "2"), ("sqrt(3 + 2*x - x^2)", "-1", "1"),
    ]),
    ("absolute values and pieces", [
        ("abs(x - 1)", "0", "5/3", ["1"]), ("abs(x^2 - 1)", "0", "2", ["1"]), ("abs(sin(x))", "0", "5*pi/3", ["pi"]),
        ("abs(x^2 - 2)", "0", "2", ["sqrt(2)"]), ("abs(cos(x))", "0", "2*pi/3", ["pi/2"]),
        ("x*abs(x - 1/3)", "0", "1", ["1/3"]), ("abs(e^x - 2)", "0", "1", ["ln(2)"]), ("abs(ln(x))", "1/2", "2", ["1"]),
        ("max(x, x^2)", "0", "4/3", ["1"]), ("sqrt(abs(x))", "-1", "2", ["0"]), ("abs(x^2 - x - 1)", "0", "2", ["(1 + sqrt(5))/2"]),
    ]),
    ("hyperbolic", [
        ("sinh(x)", "0", "1"), ("cosh(2*x)", "0", "1"), ("tanh(x)", "0", "1"), ("sinh(x)^2", "0", "1"),
        ("x*sinh(x)", "0", "1"),
    ]),
]

# Upper and lower curve: the area between them where they meet.
BETWEEN = [
    ("x", "x^2"), ("2*x - x^2", "x^2"), ("x + 2", "x^2"), ("sqrt(x)", "x^2"), ("4 - x^2", "x - 1"),
    ("x", "x^3"), ("6 - x^2", "x"), ("8 - x^2", "x^2"), ("3*x", "x^3 - x"), ("1 - x^2", "x^2 - 2"),
]

# Left side, right side, from, to.
EQUATIONS = [
    ("x^2", "2", -3, 3), ("x^2 - x", "1", -3, 3), ("2*x^2 + 3*x - 1", "0", -3, 3), ("16*x", "7", -1, 1),
    ("x^2", "49/256", -1, 1), ("3*x^2 - 2*x", "4", -3, 3), ("x^3", "5", -3, 3), ("x^3 - x", "0", -2, 2),
    ("x^3 - 2*x + 1", "0", -3, 3), ("x^4 - 5*x^2 + 6", "0", -3, 3), ("x^4", "3", -3, 3), ("x^4 - x^2 - 1", "0", -3, 3),
    ("x^3 + x^2 - 4*x - 2", "0", -4, 4), ("6*x^3 - 11*x^2 + 6*x - 1", "0", -1, 2), ("(x^2 - 3)*(x - 1/7)", "0", -3, 3),
    ("1/x", "x - 1", -3, 3), ("x/(x + 1)", "2/3", -4, 4), ("1/x + 1/(x + 1)", "3/2", -4, 4),
    ("(x^2 - 2)/(x + 5)", "1", -4, 4), ("x + 1/x", "3", -4, 4), ("sqrt(x)", "x/3", 0, 10), ("sqrt(x + 1)", "x", 0, 4),
    ("sqrt(2*x + 3)", "x", 0, 4), ("x - sqrt(x)", "1", 0, 5), ("sqrt(x)", "7/5", 0, 4), ("cbrt(x)", "5/4", 0, 4),
    ("x^1.5", "3", 0, 4), ("x^(2/3)", "2", 0, 4), ("sqrt(x^2 + 1)", "2", -3, 3), ("abs(x)", "sqrt(2)", -3, 3),
    ("abs(2*x - 1)", "3/4", -3, 3), ("abs(x^2 - 3)", "1", -3, 3), ("e^x", "3", -3, 3), ("e^(2*x)", "5", -3, 3),
    ("2^x", "5", -3, 3), ("e^(2*x) - 3*e^x + 2", "0", -3, 3), ("e^(-x)", "1/4", -3, 3), ("x*e^x - 2*e^x", "0", -3, 3),
    ("e^x", "e^(1 - x)", -3, 3), ("e^x + e^(-x)", "4", -3, 3), ("3^x", "2^(x + 1)", -3, 3), ("ln(x)", "1/2", 1/2, 4),
    ("ln(x)^2", "1", 1/4, 4), ("ln(2*x - 1)", "1/3", 1, 4), ("x*ln(x) - x", "0", 1, 4), ("ln(x) + ln(x + 1)", "ln(3)", 1/2, 4),
    ("sin(x)", "1/2", 0, 6), ("cos(x)", "-1/2", 0, 6), ("tan(x)", "1", -4, 4), ("sin(2*x)", "sqrt(3)/2", 0, 4),
    ("cos(x)^2", "1/2", 0, 4), ("2*sin(x)^2 - sin(x) - 1", "0", 0, 6), ("sin(x)", "cos(x)", 0, 6), ("sin(x)", "1/3", 0, 6),
    ("sin(2*x)", "sin(x)", 0, 6), ("cos(2*x)", "cos(x)", 0, 6), ("tan(x/2)", "sqrt(3)", 0, 6), ("sin(x) + cos(x)", "1", 0, 6),
    ("sin(3*x + 1)", "0", 0, 3), ("arctan(x)", "pi/6", -3, 3), ("2*cos(x)", "sec(x)", 0, 3),
]

# Formula, from, to: its turning points and their values.
EXTREMES = [
    ("x^3 - 3*x", -3, 3), ("x^3 - x", -2, 2), ("x^3 - 2*x^2 + x", -1, 2), ("x^2 - x", -2, 2), ("3*x^2 - 2*x", -1, 1),
    ("x^4 - x^2", -2, 2), ("x^4 - 4*x^3", -1, 4), ("x^5 - 5*x", -2, 2), ("x^3 - x^2 - x", -2, 2), ("x^2*(1 - x)", -1, 1),
    ("x*(1 - x)^3", 0, 2), ("x + 1/x", 0.1, 4), ("x + 2/x", 0.1, 4), ("x^2 + 1/x", 0.1, 4), ("x/(x^2 + 1)", -3, 3),
    ("x/(x^2 + 3)", -4, 4), ("(x^2 - 1)/(x^2 + 1)", -2, 2), ("x^2/(x - 1)", 1.1, 4), ("1/(x^2 - 2*x + 3)", -2, 4), ("(x - 1)/(x^2 + 3)", -4, 4),
    ("x*sqrt(1 - x)", -1, 1), ("x*sqrt(2 - x^2)", -1.4, 1.4), ("sqrt(x) - x", 0, 2), ("x*sqrt(4 - x^2)", -2, 2), ("x - 2*sqrt(x)", 0, 4),
    ("x^(2/3)*(1 - x)", 0.1, 2), ("sqrt(x^2 + 1) - x/2", -2, 2), ("sqrt(x^2 - 2*x + 3)", -1, 3), ("x^1.5 - x", 0.1, 2), ("cbrt(x)*(x - 1)", 0.1, 2),
    ("x*e^x", -3, 1), ("x*e^(-x)", -1, 4), ("x^2*e^(-x)", -1, 4), ("e^x - x", -2, 2), ("e^x - 2*x", -2, 2),
    ("x*e^(-x^2)", -2, 2), ("e^x/x", 0.1, 3), ("e^(-x^2/2)", -2, 2), ("e^(2*x) - 3*e^x", -2, 2), ("e^x + e^(-x)", -2, 2),
    ("(x^2 - 3)*e^x", -5, 2), ("e^x + 2*e^(-x)", -2, 2), ("x*ln(x)", 0.1, 2), ("ln(x)/x", 1, 5), ("x^2*ln(x)", 0.1, 2),
    ("x - ln(x)", 0.1, 4), ("ln(x)^2", 0.2, 4), ("x - 2*ln(x)", 0.5, 4), ("ln(x^2 + 2*x + 3)", -3, 2), ("ln(x)/x^2", 1, 4),
    ("sin(x)", 0, 6), ("cos(2*x)", 0.5, 3), ("sin(x) + cos(x)", 0, 6), ("x - 2*sin(x)", 0, 6), ("x/2 + cos(x)", 0, 6),
    ("sin(x)^2", 0.5, 4), ("sin(x)*cos(x)", 0, 3), ("2*sin(x) + cos(2*x)", 0, 6), ("e^x*sin(x)", -3, 3), ("sqrt(3)*sin(x) + cos(x)", 0, 6),
    ("e^(-x)*cos(x)", 0, 6), ("x - arctan(2*x)", -2, 2),
]


def digits(value):
    return mpmath.nstr(mpmath.mpf(sp.N(value, 30)), 25, strip_zeros=False)


def integral(item):
    family, formula, a, b, cuts = item
    f, lo, hi = read(formula), read(a), read(b)
    places = [lo, *[read(c) for c in cuts], hi]
    g = sp.lambdify(X, f, "mpmath")
    by_mpmath = mpmath.quad(lambda t: mpmath.re(g(t)), [mpmath.mpf(sp.N(p, 30)) for p in places])
    form = None
    try:
        parts = []
        for left, right in zip(places, places[1:]):
            middle = (left + right) / 2
            piece = f.replace(sp.Abs, lambda u: u if u.subs(X, middle) > 0 else -u)
            piece = piece.replace(sp.Max, lambda *u: max(u, key=lambda v: sp.N(v.subs(X, middle))))
            parts.append(sp.integrate(piece, (X, left, right)))
        form = sp.simplify(sum(parts))
        if form.has(sp.Integral) or abs(mpmath.mpf(sp.re(sp.N(form, 30))) - by_mpmath) > mpmath.mpf("1e-15"):
            form = None
    except Exception as error:  # SymPy raises many kinds; which one does not matter here.
        print(formula, type(error).__name__, file=sys.stderr)
    return {
        "family": family, "formula": formula, "from": a, "to": b,
        "form": None if form is None else str(form),
        "value": mpmath.nstr(by_mpmath if form is None else mpmath.mpf(sp.re(sp.N(form, 30))), 25),
    }


def real_roots_of(equation, lo, hi):
    """Its roots on [lo, hi] by SymPy, in order; None where SymPy has none."""
    found = sp.solveset(equation, X, sp.Interval(sp.nsimplify(lo), sp.nsimplify(hi)))
    if isinstance(found, sp.FiniteSet):
        return sorted(found, key=lambda r: float(sp.N(r)))
    return None


def numeric_roots(f, lo, hi):
    g = sp.lambdify(X, f, "mpmath")
    steps = 4001
    at = [lo + (hi - lo) * mpmath.mpf(k) / steps for k in range(steps + 1)]
    values = []
    for t in at:
        try:
            v = g(t)
            values.append(mpmath.re(v) if abs(mpmath.im(v)) < 1e-20 else None)
        except ZeroDivisionError:
            values.append(None)
    roots = []
    for (s, u), (t, v) in zip(zip(at, values), zip(at[1:], values[1:])):
        if u is None or v is None:
            continue
        if u == 0:
            roots.append(s)
        elif u * v < 0 and abs(u) < 50 and abs(v) < 50:
            roots.append(mpmath.findroot(lambda t: mpmath.re(g(t)), (s, t), solver="anderson", tol=1e-40))
    if values[-1] == 0:
        roots.append(at[-1])
    return roots


def equation(item):
    left, right, lo, hi = item
    difference = read(left) - read(right)
    roots = None
    try:
        roots = real_roots_of(difference, lo, hi)
    except Exception as error:
        print(left, type(error).__name__, file=sys.stderr)
    numbers = [mpmath.mpf(sp.re(sp.N(r, 30))) for r in roots or []]
    # SymPy leaves out roots now and then; what a scan finds beside its list counts, without a form.
    others = [r for r in numeric_roots(difference, lo, hi) if all(abs(r - n) > 1e-12 for n in numbers)]
    if others:
        roots, numbers = None, sorted([*numbers, *others])
    return {
        "left": left, "right": right, "from": lo, "to": hi,
        "forms": None if not roots else [str(sp.simplify(r)) for r in roots],
        "values": [mpmath.nstr(v, 25) for v in numbers],
    }


def extreme(item):
    formula, lo, hi = item
    f = read(formula)
    slope = sp.diff(f, X)
    roots = None
    try:
        roots = real_roots_of(slope, lo, hi)
    except Exception as error:
        print(formula, type(error).__name__, file=sys.stderr)
    places = [mpmath.mpf(sp.re(sp.N(r, 30))) for r in roots] if roots else numeric_roots(slope, lo, hi)
    g = sp.lambdify(X, slope, "mpmath")
    h = mpmath.mpf("1e-9")

    def turns(p):
        return lo < p < hi and mpmath.re(g(p - h)) * mpmath.re(g(p + h)) < 0

    kept = [p for p in places if turns(p)]
    forms = None
    if roots:
        forms = [[str(sp.simplify(r)), str(sp.simplify(f.subs(X, r)))] for r, p in zip(roots, places) if turns(p)]
    value = sp.lambdify(X, f, "mpmath")
    return {
        "formula": formula, "from": lo, "to": hi, "forms": forms,
        "places": [mpmath.nstr(p, 25) for p in kept],
        "values": [mpmath.nstr(mpmath.re(value(p)), 25) for p in kept],
    }


def between(item):
    upper, lower = item
    difference = read(upper) - read(lower)
    ends = sp.solveset(difference, X, sp.S.Reals)
    cuts = sorted(ends, key=lambda r: float(sp.N(r)))
    parts = [sp.integrate(difference, (X, p, q)) for p, q in zip(cuts, cuts[1:])]
    area = sp.simplify(sum(sp.Abs(p) for p in parts))
    return {"upper": upper, "lower": lower, "form": str(area), "value": digits(area),
            "ends": [digits(cuts[0]), digits(cuts[-1])]}


def bounded(work, item, seconds):
    with multiprocessing.Pool(1) as pool:
        try:
            return pool.apply_async(work, (item,)).get(seconds)
        except multiprocessing.TimeoutError:
            return None


def main():
    integrals = []
    for family, items in INTEGRALS:
        for formula, a, b, *cuts in items:
            item = (family, formula, a, b, cuts[0] if cuts else [])
            row = bounded(integral, item, 90)
            if row is None:
                f = sp.lambdify(X, read(formula), "mpmath")
                ends = [mpmath.mpf(sp.N(read(t), 30)) for t in (a, b)]
                row = {"family": family, "formula": formula, "from": a, "to": b, "form": None,
                       "value": mpmath.nstr(mpmath.quad(f, ends), 25)}
            integrals.append(row)
    json.dump({
        "source": f"SymPy {sp.__version__}, mpmath {mpmath.__version__}",
        "integrals": integrals,
        "between": [between(item) for item in BETWEEN],
        "equations": [bounded(equation, item, 90) for item in EQUATIONS],
        "extremes": [bounded(extreme, item, 90) for item in EXTREMES],
    }, sys.stdout, indent=1, ensure_ascii=False)
    print()


if __name__ == "__main__":
    main()
