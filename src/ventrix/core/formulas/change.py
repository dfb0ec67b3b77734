"""How much a figure changed, as the trade says it."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive


def relative_change(before: ArrayLike, after: ArrayLike) -> Array:
    """Change of a figure over what it was [-], as a share; below zero where it got smaller.

    Parameters
    ----------
    before, after : array_like
        The figure in one unit of any kind [-].

    Returns
    -------
    ndarray
        Share [-].

    Raises
    ------
    ValueError
        Figures not above zero.

    References
    ----------
    Common practice, no source: 181 to 208.9 CFM is 15.4 %; a guide of 0.502 narrowed to a stem of 0.343 is 32 %.
    """
    return np.asarray(positive(after, "after") / positive(before, "before") - 1)
