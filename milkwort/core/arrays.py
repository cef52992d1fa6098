"""Names for the arrays of the core."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

__all__ = ["Floats", "Ints"]

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
