"""Writes seeds.json: exact binomial and Beta figures from SciPy, and sums of clumps from NumPy, exact and
by a Monte Carlo of 400,000 sowings each, for tests/seeds.rs.

Run by hand: python3 crates/core/tests/reference/seeds.py (needs scipy and numpy).
"""
import json
import math
from pathlib import Path

import numpy as np
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

def cell(p, more, seeds, kept, losses):
    """Chances of 0, 1, 2 ... plants in a cell: each seed gives 0, or 1 and up to 2 more seedlings."""
    one = np.array([1 - p, p * (1 - more) ** 2, 2 * p * more * (1 - more), p * more ** 2])
    all_up = np.array([1.0])
    for _ in range(seeds):
        all_up = np.convolve(all_up, one)
    up = np.zeros(kept + 1)
    for k, chance in enumerate(all_up):
        up[min(k, kept)] += chance
    return sum(chance * np.pad(binom.pmf(range(n + 1), n, 1 - losses), (0, kept - n))
               for n, chance in enumerate(up))


rng = np.random.default_rng(20270309)
clumps = []
for p, each, seeds, kept, losses, cells_, wanted in [
        (0.55, 1.0, 8, 4, 0.1, 29, 90), (0.52, 1.0, 8, 4, 0.1, 29, 90), (0.72, 1.0, 6, 4, 0.1, 29, 90),
        (0.7, 2.0, 3, 4, 0.05, 12, 40), (0.8, 2.0, 2, 4, 0.05, 15, 40), (0.6, 1.5, 4, 3, 0.1, 40, 100),
        (0.3, 1.0, 10, 3, 0.2, 60, 130), (0.9, 2.5, 2, 2, 0.1, 30, 50), (0.65, 1.0, 12, 8, 0.1, 20, 130),
        (0.78, 1.0, 2, 1, 0.1, 72, 60)]:
    more = (each - 1) / 2
    plants = cell(p, more, seeds, kept, losses)
    total = np.array([1.0])
    for _ in range(cells_):
        total = np.convolve(total, plants)
    runs = 400_000
    hits = 0
    for _ in range(20):
        n = runs // 20
        up = rng.random((n, cells_, seeds), dtype=np.float32) < p
        extra = rng.binomial(2, more, size=up.shape) if more > 0 else 0
        seedlings = np.minimum((up * (1 + extra)).sum(axis=2), kept)
        hits += int((rng.binomial(seedlings, 1 - losses).sum(axis=1) >= wanted).sum())
    clumps.append({"per_seed": p, "seedlings_per_seed": each, "seeds": seeds, "kept": kept,
                   "losses": losses, "cells": cells_, "wanted": wanted,
                   "exact": float(total[wanted:].sum()), "monte_carlo": hits / runs})

out = Path(__file__).with_name("seeds.json")
out.write_text(json.dumps({"cells": cells, "per_cell": per_cell, "tests": tests, "clumps": clumps}, indent=0) + "\n")
print(len(cells), len(per_cell), len(tests))
