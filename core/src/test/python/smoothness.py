"""Spectral arc lengths of known movements, for SmoothnessTest: the method of Balasubramanian et al. 2015 with numpy alone.

python3 core/src/test/python/smoothness.py
"""
import numpy as np


def arc(speed, rate, pad=4, highest=10.0, least=0.05):
    size = int(2 ** (np.ceil(np.log2(len(speed))) + pad))
    hz = np.arange(0, rate, rate / size)
    part = np.abs(np.fft.fft(speed, size))
    part = part / part.max()
    chosen = np.nonzero(hz <= highest)[0]
    hz, part = hz[chosen], part[chosen]
    above = np.nonzero(part >= least)[0]
    hz, part = hz[above[0]:above[-1] + 1], part[above[0]:above[-1] + 1]
    return -np.sum(np.sqrt((np.diff(hz) / (hz[-1] - hz[0])) ** 2 + np.diff(part) ** 2))


def stroke(n):
    """The speed of least jerk (Flash and Hogan 1985)."""
    s = np.arange(n) / n
    return 30 * s ** 2 * (1 - s) ** 2


one = stroke(100)
print("one stroke", arc(one, 100))
print("slower stroke", arc(stroke(250), 100))
print("two strokes", arc(np.concatenate([stroke(60), stroke(60)]), 100))
trembling = one * (1 + 0.4 * np.sin(2 * np.pi * 6 * np.arange(100) / 100))
print("a stroke that trembles", arc(trembling, 100))
