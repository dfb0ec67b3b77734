"""What a look is worth before the next cut: by how much it is expected to better the choice."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ventrix.core.quantity.arrays import Array

SEED = 41


class Look(NamedTuple):
    """What would be read in each draw of the truth, shape (draws,), and the spread of the reading itself."""

    expected: Array
    spread: float


def value_of_look(rates: Array, look: Look) -> float:
    """Expected betterment of the best rate by a look.

    .. math:: V = E\\left[\\max_j \\hat r_j(y)\\right] - \\max_j E[r_j],
              \\quad \\hat r_j(y) = b_0 + b_1 y + b_2 y^2

    Parameters
    ----------
    rates : ndarray
        Gain an hour of each candidate in each draw [any unit], shape (draws, candidates).
    look : Look
        What would be read.

    Returns
    -------
    float
        In the unit of the rates, never below zero.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Strong, Oakley, Brennan: Estimating multiparameter partial expected value of perfect information from a
    probabilistic sensitivity analysis sample. *Medical Decision Making* 34 (2014) 311-326 (regression on the data).
    """
    random = np.random.default_rng(SEED)
    y = look.expected + look.spread * random.standard_normal(len(look.expected))
    spread = float(np.std(y))
    if spread == 0:
        return 0.0
    z = (y - y.mean()) / spread
    basis = np.stack([np.ones_like(z), z, z**2], axis=1)
    fitted = basis @ np.linalg.lstsq(basis, rates, rcond=None)[0]
    return max(float(np.mean(fitted.max(axis=1)) - rates.mean(axis=0).max()), 0.0)
