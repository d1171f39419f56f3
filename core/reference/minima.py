"""Writes minima.json: the lowest values of the one-variable problems of P. Hansen, B. Jaumard,
S.-H. Lu, Global optimization of univariate Lipschitz functions, Mathematical Programming 55, 1992
(problems from memory), by a dense look and Brent's method of SciPy. Run with Debian's
python3-scipy and python3-numpy:

    python3 core/reference/minima.py > core/reference/minima.json
"""

import json

import numpy as np
import scipy
from scipy.optimize import minimize_scalar

S, C, E, L = np.sin, np.cos, np.exp, np.log
PROBLEMS = [
    (2, "sin x + sin(10x/3)", 2.7, 7.5, lambda x: S(x) + S(10 * x / 3)),
    (3, "-(sin(2x + 1) + 2sin(3x + 2) + 3sin(4x + 3) + 4sin(5x + 4) + 5sin(6x + 5))", -10, 10,
     lambda x: -sum(k * S((k + 1) * x + k) for k in range(1, 6))),
    (4, "-(16x^2 - 24x + 5) e^(-x)", 1.9, 3.9, lambda x: -(16 * x**2 - 24 * x + 5) * E(-x)),
    (5, "-(1.4 - 3x) sin(18x)", 0, 1.2, lambda x: -(1.4 - 3 * x) * S(18 * x)),
    (6, "-(x + sin x) e^(-x^2)", -10, 10, lambda x: -(x + S(x)) * E(-(x**2))),
    (7, "sin x + sin(10x/3) + ln x - 0.84x + 3", 2.7, 7.5,
     lambda x: S(x) + S(10 * x / 3) + L(x) - 0.84 * x + 3),
    (8, "-(cos(2x + 1) + 2cos(3x + 2) + 3cos(4x + 3) + 4cos(5x + 4) + 5cos(6x + 5))", -10, 10,
     lambda x: -sum(k * C((k + 1) * x + k) for k in range(1, 6))),
    (9, "sin x + sin(2x/3)", 3.1, 20.4, lambda x: S(x) + S(2 * x / 3)),
    (10, "-x sin x", 0, 10, lambda x: -x * S(x)),
    (11, "2cos x + cos(2x)", -1.57, 6.28, lambda x: 2 * C(x) + C(2 * x)),
    (12, "sin(x)^3 + cos(x)^3", 0, 6.28, lambda x: S(x) ** 3 + C(x) ** 3),
    (13, "-x^(2/3) + (x^2 - 1)^(1/3)", 0.001, 0.99, lambda x: -np.cbrt(x) ** 2 + np.cbrt(x**2 - 1)),
    (14, "-e^(-x) sin(2π x)", 0, 4, lambda x: -E(-x) * S(2 * np.pi * x)),
    (15, "(x^2 - 5x + 6)/(x^2 + 1)", -5, 5, lambda x: (x**2 - 5 * x + 6) / (x**2 + 1)),
    (18, "(x - 2)^2 if x <= 3; 2ln(x - 2) + 1 otherwise", 0, 6,
     lambda x: np.where(x <= 3, (x - 2) ** 2, 2 * L(np.maximum(x - 2, 1e-9)) + 1)),
    (20, "-(x - sin x) e^(-x^2)", -10, 10, lambda x: -(x - S(x)) * E(-(x**2))),
    (21, "x sin x + x cos(2x)", 0, 10, lambda x: x * S(x) + x * C(2 * x)),
    (22, "e^(-3x) - sin(x)^3", 0, 20, lambda x: E(-3 * x) - S(x) ** 3),
]


def main():
    rows = []
    for number, formula, a, b, f in PROBLEMS:
        xs = np.linspace(a, b, 200001)
        ys = f(xs)
        i = int(np.argmin(ys))
        lo, hi = xs[max(0, i - 1)], xs[min(len(xs) - 1, i + 1)]
        found = minimize_scalar(f, bounds=(lo, hi), method="bounded", options={"xatol": 1e-12})
        value = min(float(found.fun), float(ys[i]))
        rows.append({"problem": number, "formula": formula, "from": a, "to": b, "value": value})
    print(json.dumps({"scipy": scipy.__version__, "table": rows}, ensure_ascii=False, indent=1))


if __name__ == "__main__":
    main()
