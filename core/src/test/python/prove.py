"""Reference values for conversions and fits, made with NumPy; run it to make prove.csv anew.

Each line: name; inputs by blanks; expected values by blanks.
"""
import numpy as np
from math import exp, log, log10, sqrt

rng = np.random.default_rng(11)
rows = []


def row(name, inputs, outputs):
    rows.append(name + ";" + " ".join(repr(float(v)) for v in inputs) + ";" + " ".join(repr(float(v)) for v in outputs))


for model, degree in (("LINE", 1), ("QUADRATIC", 2), ("CUBIC", 3)):
    for n in (degree + 1, 5, 12):
        if n <= degree:
            continue
        for weighted in (False, True):
            x = np.sort(rng.uniform(0, 1023, n))
            y = -20 + 0.11 * x + 2e-5 * x**2 + rng.normal(0, 0.3, n)
            u = rng.uniform(0.05, 0.6, n) if weighted else np.zeros(n)
            scale = np.max(np.abs(x - x.mean()))
            t = (x - x.mean()) / scale
            c = np.polynomial.polynomial.polyfit(t, y, degree, w=1 / u if weighted else None)
            p = np.polynomial.Polynomial(c)(np.polynomial.Polynomial([-x.mean() / scale, 1 / scale])).coef
            row("fit " + model, np.concatenate([x, y, u]), p)

for counts in (37, 512, 900):
    volts = counts * 5 / 1024
    r_low = 10000 * volts / (5 - volts)
    r_high = 10000 * (5 - volts) / volts
    row("beta low", [counts], [1 / (1 / 298.15 + log(r_low / 10000) / 3950) - 273.15])
    row("beta high", [counts], [1 / (1 / 298.15 + log(r_high / 10000) / 3950) - 273.15])
    a, b, c = 1.009249522e-3, 2.378405444e-4, 2.019202697e-7
    row("three", [counts], [1 / (a + b * log(r_low) + c * log(r_low) ** 3) - 273.15])
for us, t in ((5830, 20), (1000, -5), (23000, 38)):
    row("echo", [us, t], [us * 1e-6 / 2 * 331.3 * sqrt(1 + t / 273.15)])
for p in (1013.25, 900, 500, 226.33, 150):
    n = 8.31432 * 0.0065 / (9.80665 * 0.0289644)
    r11 = ((288.15 - 71.5) / 288.15) ** (1 / n)
    r = p / 1013.25
    h = 288.15 / 0.0065 * (1 - r**n) if r >= r11 else 11000 - 8.31432 * 216.65 / (9.80665 * 0.0289644) * log(r / r11)
    row("height", [p], [h])
row("decibels", [0.25, 0.005], [20 * log10(0.25 / 0.005)])

with open("core/src/test/resources/reference/prove.csv", "w") as out:
    out.write("\n".join(rows) + "\n")
