"""Makes the files that FormatsTest and ForeignTest compare with and read. Needs numpy, scipy, h5py and the C library libedf."""
import ctypes
import wave

import h5py
import numpy as np
from scipy.io import wavfile

np.savez("numpy.npz", t=np.array([0, 0.5, 1, 1.5]), pull=np.array([1.5, -2.25, np.nan, 1e300]), count=np.array([0.0, 1, 2, 3]))
np.savez_compressed("kinds.npz", t=np.arange(4) / 8, small=np.array([-1, 2, 3, 4], "i2"), byte=np.array([0, 255, 7, 8], "u1"),
                    big=np.array([1.5, -2.5, 3, 4], ">f4"), long=np.array([-(2**40), 1, 2, 3]), flat=np.eye(2))

# Three seconds: a ramp at 100/s, a curve at 10/s, two annotations.
edf = ctypes.CDLL("libedf.so.1")
handle = edf.edfopen_file_writeonly(b"foreign.edf", 1, 2)
for signal, (label, rate, low, high, unit) in enumerate([(b"ramp", 100, -500.0, 500.0, b"uV"), (b"slow", 10, 0.0, 100.0, b"degC")]):
    edf.edf_set_label(handle, signal, label)
    edf.edf_set_samplefrequency(handle, signal, rate)
    edf.edf_set_physical_minimum(handle, signal, ctypes.c_double(low))
    edf.edf_set_physical_maximum(handle, signal, ctypes.c_double(high))
    edf.edf_set_digital_minimum(handle, signal, -32768)
    edf.edf_set_digital_maximum(handle, signal, 32767)
    edf.edf_set_physical_dimension(handle, signal, unit)
edf.edf_set_startdatetime(handle, 2026, 5, 2, 14, 30, 15)
for record in range(3):
    ramp = (record * 100 + np.arange(100) - 150).astype("f8")
    slow = (20 + record + np.arange(10) / 10).astype("f8")
    for block in (ramp, slow):
        edf.edfwrite_physical_samples(handle, block.ctypes.data_as(ctypes.POINTER(ctypes.c_double)))
edf.edfwrite_annotation_utf8(handle, ctypes.c_longlong(12500), ctypes.c_longlong(-1), "bö".encode())
edf.edfwrite_annotation_utf8(handle, ctypes.c_longlong(20000), ctypes.c_longlong(5000), b"reef")
edf.edfclose_file(handle)

with h5py.File("foreign.h5", "w") as h5:
    h5["t"] = np.arange(5) / 4
    h5["pull"] = np.array([1.5, -2.25, np.nan, 4, 5])
    h5["pull"].attrs["unit"] = "N"
    h5["count"] = np.arange(5, dtype="i4")
    h5["masthead/t"] = np.arange(3) / 2
    h5["masthead/wind"] = np.array([3.0, 4, 5], "f4")
    h5["marks/t_s"] = np.array([0.5])
    h5["marks/text"] = ["gust"]

sound = np.array([[0, -100], [100, 50], [32767, -32768]], "i2")
wavfile.write("i16.wav", 8000, sound)
wavfile.write("u8.wav", 8000, np.array([0, 128, 255], "u1"))
wavfile.write("i32.wav", 8000, np.array([-(2**31), 0, 2**30], "i4"))
wavfile.write("f32.wav", 44100, np.array([0.5, -1.25, 3], "f4"))
wavfile.write("f64.wav", 44100, np.array([0.1, -0.2], "f8"))
with wave.open("i24.wav", "wb") as out:
    out.setparams((1, 3, 500, 0, "NONE", ""))
    out.writeframes(b"".join((v & 0xFFFFFF).to_bytes(3, "little") for v in (0, -1, 4194304, -8388608)))
