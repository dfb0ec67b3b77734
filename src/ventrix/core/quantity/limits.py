"""Sentences for inputs that make no sense, said the same way by every function of the core."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray


def positive(value: ArrayLike, name: str) -> NDArray[np.float64]:
    """`value` as an array; ValueError with a sentence unless every element is above zero."""
    array = np.asarray(value, dtype=float)
    if (array <= 0).any():
        raise ValueError(f"{name} must be above zero")
    return array


def not_negative(value: ArrayLike, name: str) -> NDArray[np.float64]:
    """`value` as an array; ValueError with a sentence if any element is below zero."""
    array = np.asarray(value, dtype=float)
    if (array < 0).any():
        raise ValueError(f"{name} cannot be negative")
    return array
