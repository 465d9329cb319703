"""Fisher's exact test, Wilson's and Newcombe's intervals and Welch's t test by SciPy, for tests/batches.rs.

    python3 batches.py > batches.json
"""

import json
import random

from scipy import stats

shares = []
for a, n, b, m in [
    (18, 24, 11, 24),
    (40, 50, 13, 50),
    (0, 12, 0, 12),
    (12, 12, 0, 12),
    (5, 6, 3, 8),
    (64, 72, 61, 72),
    (499, 1000, 520, 1000),
    (1, 50, 9, 40),
]:
    one = stats.binomtest(a, n).proportion_ci(method="wilson")
    two = stats.binomtest(b, m).proportion_ci(method="wilson")
    pa, pb = a / n, b / m
    shares.append(
        {
            "a": [a, n],
            "b": [b, m],
            "wilson_a": [one.low, one.high],
            "wilson_b": [two.low, two.high],
            "newcombe": [
                pa - pb - ((pa - one.low) ** 2 + (two.high - pb) ** 2) ** 0.5,
                pa - pb + ((one.high - pa) ** 2 + (pb - two.low) ** 2) ** 0.5,
            ],
            "fisher": stats.fisher_exact([[a, n - a], [b, m - b]]).pvalue,
        }
    )

chance = random.Random(20)
means = []
for mean_a, sd_a, n, mean_b, sd_b, m in [
    (7.0, 1.0, 20, 9.0, 1.5, 18),
    (5.0, 0.3, 4, 5.1, 0.9, 30),
    (0.0, 0.2, 3, 0.3, 0.2, 3),
]:
    a = [round(chance.gauss(mean_a, sd_a), 3) for _ in range(n)]
    b = [round(chance.gauss(mean_b, sd_b), 3) for _ in range(m)]
    test = stats.ttest_ind(a, b, equal_var=False)
    interval = test.confidence_interval(0.95)
    means.append(
        {"a": a, "b": b, "p": test.pvalue, "interval": [interval.low, interval.high]}
    )

# The posterior of a mean with a scaled inverse chi-squared prior on the variance, and of a share on a grid.
values = [0.12, -0.05, 0.2, 0.07, 0.01]
usual, known = 0.12, 4
n = len(values)
mean = sum(values) / n
freedom = known + n - 1
variance = (known * usual**2 + sum((v - mean) ** 2 for v in values)) / freedom
low, high = stats.t.interval(0.95, freedom, loc=mean, scale=(variance / n) ** 0.5)
posterior = {"values": values, "usual_sd": usual, "mean": mean, "interval": [low, high]}
beta = stats.beta(1 + 13, 1 + 7)
test = {"of": 20, "sprouted": 13, "middle_95": [beta.ppf(0.025), beta.ppf(0.975)], "median": beta.ppf(0.5)}

print(json.dumps({"shares": shares, "means": means, "posterior": posterior, "beta": test}, indent=1))
