"""Makes numpy.npz, the arrays that FormatsTest writes as numpy itself writes them. Needs numpy."""
import numpy as np

np.savez("numpy.npz", t=np.array([0, 0.5, 1, 1.5]), pull=np.array([1.5, -2.25, np.nan, 1e300]), count=np.array([0.0, 1, 2, 3]))
