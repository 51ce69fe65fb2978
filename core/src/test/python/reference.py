#!/usr/bin/env python3
"""Makes the reference vectors of the cleaning tests with a scientific library (scipy 1.10 or later).

    python3 core/src/test/python/reference.py

Writes core/src/test/resources/reference/clean.csv: a row a recipe, with the rate, the way it was run, the indices
and the values there. The input is in input.csv: whole numbers, so that nothing is lost on the way.
"""
import pathlib

import numpy as np
from scipy import interpolate, ndimage, signal

OUT = pathlib.Path(__file__).parents[1] / "resources" / "reference"
N = 2400
rng = np.random.default_rng(20260912)
i = np.arange(N)
x = np.rint(512 + 90 * np.sin(i / 27) + 40 * np.sin(i / 3.1) + 25 * rng.standard_normal(N) + 0.02 * i)
x[1000] += 400

butter = lambda kind, hz, order, fs: signal.butter(order, hz, kind, fs=fs, output="sos")


def sections(sos):
    return (lambda v: signal.sosfilt(sos, v), lambda v: signal.sosfiltfilt(sos, v))


def taps(b):
    def both(v):
        return signal.filtfilt(b, [1.0], v, padlen=3 * len(b))

    return (lambda v: signal.lfilter(b, [1.0], v), both)


def notch(hz, q, fs):
    b, a = signal.iirnotch(hz, q, fs=fs)
    return sections(np.concatenate([b, a])[None, :])


def envelope(hz, fs):
    once, both = sections(butter("lowpass", hz, 2, fs))
    return (lambda v: once(np.abs(v)), lambda v: both(np.abs(v)))


def inner_median(v):
    return ndimage.median_filter(v, 7, mode="nearest")


def hampel(v, half=5, k=3.0):
    out = v.copy()
    for c in range(half, len(v) - half):
        w = v[c - half:c + half + 1]
        m = np.median(w)
        if abs(v[c] - m) > k * 1.4826 * np.median(np.abs(w - m)):
            out[c] = m
    return out


def wavelet(v, levels=4, k=3.0, noise_samples=1001, ahead=100):
    """Smoothed by a B3 spline with holes; behind the ends nothing, so that the rest of the weights counts for all."""
    spline = np.array([1, 4, 6, 4, 1]) / 16

    def holes(j):
        taps = np.zeros(4 * 2**j + 1)
        taps[:: 2**j] = spline
        return taps

    def parts(u, there):
        details = []
        for j in range(levels):
            share = ndimage.convolve1d(there, holes(j), mode="constant")
            below = ndimage.convolve1d(u * there, holes(j), mode="constant") / share
            details.append(u - below)
            u = below
        return details, u

    one = np.zeros(4 * 2**levels + 1)
    one[len(one) // 2] = 1
    spread = []
    u = one
    for j in range(levels):
        below = ndimage.convolve1d(u, holes(j), mode="constant")
        spread.append(np.sqrt(np.sum((u - below) ** 2)))
        u = below
    details, rest = parts(v, np.ones(len(v)))
    reach = max(2 * (2**levels - 1), 2 + ahead) - 2
    out = rest.copy()
    for n in range(len(v)):
        last = min(len(v) - 1, n + reach)
        sizes = np.abs(details[0][max(0, last - noise_samples + 1):last + 1])
        noise = np.median(sizes) / 0.6744897501960817 / spread[0]
        for j in range(levels):
            out[n] += details[j][n] if abs(details[j][n]) > k * noise * spread[j] else 0
    return out


def same(f):
    return (f, f)


CASES = [
    ("lowpass:8@2", 200, sections(butter("lowpass", 8, 2, 200))),
    ("lowpass:8@5", 200, sections(butter("lowpass", 8, 5, 200))),
    ("lowpass:0.5@8", 1000, sections(butter("lowpass", 0.5, 8, 1000))),
    ("highpass:0.5@8", 1000, sections(butter("highpass", 0.5, 8, 1000))),
    ("highpass:2@3", 250, sections(butter("highpass", 2, 3, 250))),
    ("bandpass:0.5..8@4", 200, sections(butter("bandpass", [0.5, 8], 4, 200))),
    ("bandpass:20..80@1", 400, sections(butter("bandpass", [20, 80], 1, 400))),
    ("bandstop:48..52@2", 500, sections(butter("bandstop", [48, 52], 2, 500))),
    ("notch:50@30", 400, notch(50, 30, 400)),
    ("mean:10", 100, taps(np.ones(10) / 10)),
    ("exp:0.2", 100, (lambda v: signal.lfilter([0.2], [1, -0.8], v), lambda v: signal.filtfilt([0.2], [1, -0.8], v))),
    ("envelope:6", 300, envelope(6, 300)),
    ("offset:-512 | rectify | scale:0.5", 100, same(lambda v: 0.5 * np.abs(v - 512))),
    ("detrend", 100, same(signal.detrend)),
    ("median:7", 100, same(inner_median)),
    ("smooth:11@3", 100, same(lambda v: signal.savgol_filter(v, 11, 3))),
    ("despike:5@3", 100, same(hampel)),
    ("wavelet:4@3", 100, same(wavelet)),
    ("wavelet:7@2.5", 100, same(lambda v: wavelet(v, 7, 2.5))),
    ("rms:0.1", 100, (lambda v: np.sqrt(signal.lfilter(np.ones(10) / 10, [1.0], v * v)),
                         lambda v: np.sqrt(signal.filtfilt(np.ones(10) / 10, [1.0], v * v)))),
]

OUT.mkdir(parents=True, exist_ok=True)
np.savetxt(OUT / "input.csv", x[None, :], fmt="%d", delimiter=",")

# A slow curve that came unevenly, and what it is at a steady rate: nothing in it is near half of that rate.
t = np.cumsum(rng.uniform(0.6, 1.4, 800)) * 0.01
slow = np.rint(1000 * np.sin(2 * np.pi * 0.7 * t) + 300 * np.cos(2 * np.pi * 1.9 * t))
t = np.round(t, 6)
grid = np.arange(np.ceil(t[0] * 250), np.floor(t[-1] * 250) + 1) / 250
with open(OUT / "resample.csv", "w", encoding="ascii") as f:
    for row in (t, slow, interpolate.Akima1DInterpolator(t, slow)(grid)[::13]):
        f.write(",".join(f"{float(v):.12g}" for v in row) + "\n")

with open(OUT / "clean.csv", "w", encoding="ascii") as f:
    for recipe, rate, ways in CASES:
        for way, run in zip(("once", "both"), ways):
            if run is None:
                continue
            y = run(x)
            # Windows that shrink at the ends are our own choice: those cases are compared inside.
            edge = 10 if recipe.startswith(("median", "despike")) else 0
            at = np.unique(np.concatenate([np.arange(edge, N - edge, 37), [edge, N - edge - 1]]))
            rms = float(np.sqrt(np.mean(y * y)))
            cells = [f"{k}:{float(y[k])!r}" for k in at]
            f.write(";".join([recipe, str(rate), way, repr(rms)] + cells) + "\n")
