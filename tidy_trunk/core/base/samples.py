"""Sound as arrays."""

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float32] | NDArray[np.float64]
"""One channel, shape (sample_count,), full scale 1.0. [AES17]"""
