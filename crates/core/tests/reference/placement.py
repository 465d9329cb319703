"""The least unplaced and the least cost of an instance of placement, proven by HiGHS through SciPy.

    python placement.py placement-12-trays.json

First the least penalty of what has no place, then with that the least cost. Twelve trays take some two
minutes; for thirty the cost is left within a few percent after four.
"""

import json
import sys

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_matrix

MOVE = 10
SECONDS = 240


def solve(instance, unplaced=None):
    """The least penalty; or with `unplaced` given, the least cost: (value, proven bound)."""
    penalty, cost, rows = [], [], []

    def variable(of_penalty, of_cost):
        penalty.append(of_penalty)
        cost.append(of_cost)
        return len(cost) - 1

    days, capacity = instance["days"], {p["id"]: p["capacity"] for p in instance["places"]}
    lit = {(p, d): variable(0, 1) for p in capacity for d in range(days)}
    inside = {key: [] for key in lit}
    for tray in instance["trays"]:
        before = None
        for stage in tray["stages"]:
            length = stage["to"] - stage["from"]
            out = variable(tray["weight"] * length, 0)
            here = {p: variable(0, misfit * length) for p, misfit in stage["places"].items()}
            rows.append(({**{v: 1 for v in here.values()}, out: 1}, 1, 1))
            for place, v in here.items():
                for day in range(stage["from"], stage["to"]):
                    inside[place, day].append(v)
                    if stage["needs_light"]:
                        rows.append(({lit[place, day]: 1, v: -1}, 0, np.inf))
            if before:
                moved = variable(0, MOVE)
                for place, v in before.items():
                    row = {moved: 1, v: -1, out: 1}
                    if place in here:
                        row[here[place]] = 1
                    rows.append((row, 0, np.inf))
            before = here
    for (place, _), those in inside.items():
        if len(those) > capacity[place]:
            rows.append(({v: 1 for v in those}, -np.inf, capacity[place]))
    if unplaced is not None:
        rows.append(({v: p for v, p in enumerate(penalty) if p}, -np.inf, unplaced))
    matrix = lil_matrix((len(rows), len(cost)))
    for i, (row, _, _) in enumerate(rows):
        for v, factor in row.items():
            matrix[i, v] = factor
    found = milp(
        np.array(penalty if unplaced is None else cost, float),
        constraints=LinearConstraint(matrix.tocsr(), [r[1] for r in rows], [r[2] for r in rows]),
        integrality=np.ones(len(cost)),
        bounds=Bounds(0, 1),
        options={"time_limit": SECONDS},
    )
    return round(found.fun), found.mip_dual_bound


if __name__ == "__main__":
    asked = json.load(open(sys.argv[1]))
    least, bound = solve(asked)
    print("unplaced", least, "proven", bound)
    print("cost", *solve(asked, least))
