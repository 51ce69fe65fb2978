"""Values of parts, worked out by other ways than the product's, for PartsTest: writes ../resources/reference/parts.csv.

python3 core/src/test/python/parts.py
"""
import itertools
import math
import os
import random

E24 = [1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1]
E12 = E24[::2]
ALL24 = [m * 10 ** p for p in range(-6, 9) for m in E24]
ALL12 = [m * 10 ** p for p in range(-6, 9) for m in E12]


def near(values, wanted):
    return min(values, key=lambda v: abs(math.log(v / wanted)))


def divider(volts, ref):
    """All pairs, both 1 % at their worst at once; the highest voltage at the pin that stays within."""
    best = 0.0
    for top, bottom in itertools.product([v for v in ALL24 if 100 <= v <= 1e7], [v for v in ALL24 if 1000 * 0.999 <= v <= 1e5 * 1.001]):
        seen = top * bottom / (top + bottom)
        if not 1000 <= seen <= 10000:
            continue
        usual = bottom / (top + bottom)
        high = bottom * 1.01 / (top * 0.99 + bottom * 1.01)
        low = bottom * 0.99 / (top * 1.01 + bottom * 0.99)
        worst = max(high / usual - 1, 1 - low / usual)
        if volts * usual * (1 + worst) <= ref * (1 + 1e-9):
            best = max(best, volts * usual)
    return best


random.seed(7)
rows = []
for volts, ref in [(12, 5), (25, 5), (25, 3.3), (14.4, 3.3), (60, 5), (6, 5), (4.2, 3.3), (100, 3.3), (8.4, 1.1), (30, 2.5)]:
    rows.append(["divider", volts, ref, "", "", divider(volts, ref)])
for amps, gain, drop, ref in [(3, 20, 0.3, 5), (10, 50, 0.1, 5), (0.5, 1, 0.5, 3.3), (0.02, 100, 0.1, 3.3), (30, 20, 0.075, 5), (1, 50, 1, 5), (5, 10, 0.2, 3.3), (0.1, 20, 0.2, 5), (2, 200, 0.05, 3.3), (15, 100, 0.05, 5)]:
    most = min(0.95 * ref / gain / amps, drop / amps)
    rows.append(["shunt", amps, gain, drop, ref, max(v for v in ALL12 if v <= most * (1 + 1e-9))])
for highest, rate in [(20, 100), (20, 200), (40, 500), (450, 2000), (500, 1600), (4000, 16000), (1, 10), (5, 50), (1500, 8000), (10, 25)]:
    corner = math.sqrt(highest * (rate - highest))
    farads = 100e-9
    while 1 / (2 * math.pi * corner * farads) > 20000:
        farads *= 10
    while 1 / (2 * math.pi * corner * farads) < 200:
        farads /= 10
    ohms = near(ALL24, 1 / (2 * math.pi * corner * farads))
    h = abs(1 / (1 + 2j * math.pi * (rate - highest) * ohms * farads))
    rows.append(["filter", highest, rate, "", "", h])
for r0, beta, low, high in [(1e4, 3950, 0, 60), (1e4, 3435, -20, 40), (1e5, 3950, 20, 120), (4.7e3, 3977, 0, 100), (1e4, 3950, 30, 42), (2.2e3, 3560, -10, 50), (1e4, 3380, -40, 85), (4.7e4, 4050, 10, 200), (1e3, 3528, 0, 30), (1e4, 4300, 50, 150)]:
    r = [r0 * math.exp(beta * (1 / (t + 273.15) - 1 / 298.15)) for t in (low, high)]
    rows.append(["thermistor", r0, beta, low, high, near(ALL24, math.sqrt(r[0] * r[1]))])
for volts, pf, ns in [(3.3, 100, 1000), (5, 200, 1000), (3.3, 400, 1000), (5, 50, 300), (3.3, 20, 300), (5, 400, 1000), (1.8, 100, 1000), (3.3, 150, 1000), (2.5, 80, 300), (5, 30, 120)]:
    # Simulated: a capacitor charged through a resistor, from 0.3 to 0.7 of the supply; the largest that is in time.
    most = ns * 1e-9 / (-math.log(1 - 0.7) + math.log(1 - 0.3)) / (pf * 1e-12)
    rows.append(["pullup", volts, pf, ns, "", most])
for mv, excitation, full, ref in [(2, 5, 200, 5), (1, 3.3, 10, 3.3), (3, 10, 1000, 5), (2, 5, 5, 1.2), (1.5, 5, 50, 2.5), (2, 3, 100, 3.3), (2.5, 8, 20, 5), (0.8, 5, 1, 5), (2, 12, 500, 10), (1, 5, 100, 1.8)]:
    rows.append(["bridge", mv, excitation, full, ref, 0.9 * ref / (mv * 1e-3 * excitation)])
for pixels, degrees, metres in [(32, 55, 1), (160, 57, 0.5), (8, 60, 2), (80, 110, 3), (24, 35, 0.2)]:
    half = metres * math.sin(math.radians(degrees) / 2) / math.cos(math.radians(degrees) / 2)
    rows.append(["spot", pixels, degrees, metres, "", 2 * half / pixels * 3])
out = os.path.join(os.path.dirname(__file__), "..", "resources", "reference", "parts.csv")
with open(out, "w") as f:
    f.write("part,a,b,c,d,result\n")
    for row in rows:
        f.write(",".join(str(x) for x in row) + "\n")
print(len(rows))
