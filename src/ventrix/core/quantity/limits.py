"""Sentences for inputs that make no sense, said the same way by every function of the core."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.quantity.refused import Refused


def positive(value: ArrayLike, name: str) -> NDArray[np.float64]:
    """`value` as an array; ValueError with a sentence unless every element is above zero."""
    array = np.asarray(value, dtype=float)
    if (array <= 0).any():
        raise Refused("{} must be above zero", name)
    return array


def not_negative(value: ArrayLike, name: str) -> NDArray[np.float64]:
    """`value` as an array; ValueError with a sentence if any element is below zero."""
    array = np.asarray(value, dtype=float)
    if (array < 0).any():
        raise Refused("{} cannot be negative", name)
    return array
