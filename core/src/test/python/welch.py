#!/usr/bin/env python3
"""Makes the reference vectors of the spectrum: power spectral densities by a scientific library.

    python3 core/src/test/python/welch.py > core/src/test/resources/welch.csv

Each line: window, segment, overlap in samples, rate, then the density of the signal x[i] = sin(i²/700) + (i % 7)/5 − i/400,
301 samples.
"""
import numpy as np
from scipy import signal

i = np.arange(301)
x = np.sin(i ** 2 / 700) + (i % 7) / 5 - i / 400
for window, segment, overlap, rate in [
    ("hann", 64, 0.5, 100.0), ("hann", 63, 0.5, 200.0), ("hann", 301, 0.0, 1.0), ("boxcar", 50, 0.3, 10.0),
    ("blackmanharris", 128, 0.75, 1000.0), ("flattop", 100, 0.5, 500.0), ("hann", 2, 0.0, 4.0), ("hann", 1, 0.0, 4.0),
]:
    common = int(np.floor(overlap * segment))
    _, density = signal.welch(x, rate, window, segment, common, detrend="constant")
    name = "none" if window == "boxcar" else window
    print(",".join([name, str(segment), str(overlap), repr(rate)] + [repr(float(v)) for v in density]))
