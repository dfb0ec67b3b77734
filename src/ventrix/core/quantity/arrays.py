"""What formulas take and answer: arrays of floats."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
