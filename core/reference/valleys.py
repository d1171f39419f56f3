"""Writes valleys.json: every smooth valley of some of the problems of minima.py, with a bracket about
it, by a dense look and the bounded method of SciPy (R. P. Brent). Run with python3-scipy:

    python3 core/reference/valleys.py > core/reference/valleys.json
"""

import json

import numpy as np
import scipy
from minima import PROBLEMS
from scipy.optimize import minimize_scalar

rows = []
for number, formula, lo, hi, f in PROBLEMS:
    if number in (13, 18):
        continue
    xs = np.linspace(lo, hi, 4001)
    ys = f(xs)
    for i in range(1, len(xs) - 1):
        if not (ys[i] < ys[i - 1] and ys[i] < ys[i + 1]):
            continue
        # As far as it rises on both sides.
        a = i
        while a > 0 and ys[a - 1] > ys[a]:
            a -= 1
        b = i
        while b < len(xs) - 1 and ys[b + 1] > ys[b]:
            b += 1
        found = minimize_scalar(
            lambda x, f=f: float(f(x)), bounds=(xs[i - 1], xs[i + 1]), method="bounded",
            options={"xatol": 1e-13, "maxiter": 500},
        )
        rows.append({
            "problem": number, "formula": formula, "from": lo, "to": hi,
            "left": float(xs[a]), "right": float(xs[b]),
            "x": float(found.x), "value": float(found.fun),
        })
print(json.dumps({"by": f"SciPy {scipy.__version__}", "table": rows}, indent=1))
