"""Writes seeds.json: exact binomial and Beta figures from SciPy, for tests/seeds.rs.

Run by hand: python3 crates/core/tests/reference/seeds.py (needs scipy).
"""
import json
import math
from pathlib import Path

from scipy.stats import beta, binom

cells = []
for wanted in [1, 2, 6, 12, 24, 72, 500, 20000]:
    for q in [0.001, 0.02, 0.1, 0.35, 0.65, 0.85, 0.97, 0.9999]:
        for sure in [0.8, 0.95, 0.999]:
            if wanted * 1.2 / q > 4e6:
                continue
            low, high = wanted - 1, wanted
            while binom.sf(wanted - 1, high, q) < sure:
                high *= 2
            while high - low > 1:
                middle = (low + high) // 2
                if binom.sf(wanted - 1, middle, q) >= sure:
                    high = middle
                else:
                    low = middle
            cells.append(
                {"wanted": wanted, "q": q, "sure": sure, "cells": high,
                 "chance": float(binom.sf(wanted - 1, high, q))})

per_cell = []
for p in [0.1, 0.25, 0.5, 0.65, 0.78, 0.9, 0.97]:
    for empty in [0.01, 0.05, 0.1, 0.3]:
        k = 1
        while binom.pmf(0, k, p) > empty + 1e-12:
            k += 1
        if k <= 50:
            per_cell.append({"p": p, "most_empty": empty, "seeds": k})

tests = [
    {"sprouted": k, "of": n, "mean": float(beta.mean(1 + k, 1 + n - k)),
     "low": float(beta.ppf(0.05, 1 + k, 1 + n - k)),
     "high": float(beta.ppf(0.95, 1 + k, 1 + n - k))}
    for k, n in [(0, 1), (1, 1), (0, 10), (8, 10), (10, 10), (13, 20), (85, 100), (1, 1000), (999, 1000)]
]
out = Path(__file__).with_name("seeds.json")
out.write_text(json.dumps({"cells": cells, "per_cell": per_cell, "tests": tests}, indent=0) + "\n")
print(len(cells), len(per_cell), len(tests))
