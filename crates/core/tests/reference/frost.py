"""Writes frost.json: frosts of Seattle by year, NumPy's quantiles and means of months, for tests/frost.rs.

The series is seattle-weather.csv of the npm package vega-datasets 3.2.1 (BSD-3-Clause; NOAA data).
Run by hand: python3 crates/core/tests/reference/frost.py (needs numpy).
"""
import csv
import datetime
import json
from pathlib import Path

import numpy as np

here = Path(__file__).parent
days = {
    datetime.date.fromisoformat(row["date"]): float(row["temp_min"])
    for row in csv.DictReader(open(here / "seattle-weather.csv"))
}
out = {}
for threshold in [0.0, -2.0]:
    years, since = [], []
    for year in sorted({day.year for day in days}):
        start = datetime.date(year, 1, 15)
        spring = [start + datetime.timedelta(d) for d in range(182)]
        autumn = [start + datetime.timedelta(d) for d in range(182, 370)
                  if start + datetime.timedelta(d) < datetime.date(year + 1, 1, 15)]
        last = [d for d in spring if days.get(d, 99) <= threshold]
        first = [d for d in autumn if days.get(d, 99) <= threshold]
        years.append({"year": year, "last": str(last[-1]) if last else None,
                      "first": str(first[0]) if first else None})
        since.append((last[-1] - start).days if last else 0)
    out[str(threshold)] = {
        "years": years,
        "quantiles": {str(q): float(np.quantile(since, q)) for q in [0.1, 0.2, 0.5, 0.9]},
    }
rows = list(csv.DictReader(open(here / "seattle-weather.csv")))
out["months"] = [
    {of: float(np.mean([float(row[of]) for row in rows if int(row["date"][5:7]) == month]))
     for of in ["temp_min", "temp_max"]}
    for month in range(1, 13)
]
(here / "frost.json").write_text(json.dumps(out, indent=1) + "\n")
print(json.dumps(out, indent=1))
