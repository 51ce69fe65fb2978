#!/usr/bin/env python3
"""Times a compiled array library on what BesideBench timed, in the same run, and says how many times as fast ours was.

Usage: beside.py JMH.json. Needs python3-scipy as Debian has it. One thread."""
import json
import os
import sys
import time

os.environ["OMP_NUM_THREADS"] = "1"
import numpy as np
from scipy import ndimage, signal

N, RATE = 1 << 18, 1000.0
x = np.random.default_rng(1).uniform(-1, 1, N)


def band(kind, edge, order):
    return signal.butter(order, edge, kind, fs=RATE, output="sos")


def hampel(v):
    middle = ndimage.median_filter(v, 51, mode="nearest")
    off = np.abs(v - middle)
    spread = 1.4826 * ndimage.median_filter(off, 51, mode="nearest")
    return np.where(off > 3 * spread, middle, v)


low, around, notch = band("low", 40, 4), band("band", [0.5, 40], 4), signal.iirnotch(50, 30, RATE)
THEIRS = {
    "welch": lambda: signal.welch(x, RATE, "hann", 4096, 2048),
    "lowpass:40@4": lambda: signal.sosfilt(low, x),
    "bandpass:0.5..40@4": lambda: signal.sosfilt(around, x),
    "notch:50@30": lambda: signal.lfilter(*notch, x),
    "smooth:31@3": lambda: signal.savgol_filter(x, 31, 3),
    "mean:51": lambda: ndimage.uniform_filter1d(x, 51),
    "median:51": lambda: ndimage.median_filter(x, 51),
    "despike:25@3": lambda: hampel(x),
    "rms:0.1": lambda: np.sqrt(ndimage.uniform_filter1d(x * x, 100)),
}


def cost(work):
    """The best of seven, in ns a sample: what disturbs only makes it longer."""
    best = float("inf")
    for _ in range(7):
        begin = time.perf_counter()
        work()
        best = min(best, time.perf_counter() - begin)
    return 1e9 * best / N


for run in json.load(open(sys.argv[1])):
    name = run["benchmark"].rsplit(".", 1)[1]
    what = (run.get("params") or {}).get("step", name)
    ours = run["primaryMetric"]["score"]
    if what in THEIRS:
        theirs = cost(THEIRS[what])
        print(f"{what:20} ours {ours:8.2f} ns a sample, the library {theirs:8.2f}: {theirs / ours:5.1f} times as fast")
    else:
        print(f"{what:20} ours {ours:8.2f} ns a sample, {1e3 / ours:6.1f} million a second")
