"""Did the shape of the curve change? Bolting down moves the whole curve by a factor; a cut moves part of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas.quantiles import f_quantile
from ventrix.core.formulas.uncertainty import ENOUGH_FREEDOM
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.quantity.units import INCH

FEWEST_LIFTS: Final = 5
SHAPES: Final = 3  # Legendre polynomials of degree one to three
LEVEL: Final = 0.01
DIAL: Final = 0.0017 * INCH  # m: dial zero that a shape must rise above


@dataclass(frozen=True, slots=True)
class ShapeChange:
    """A proven change of shape: where it turns [m], and whether there is more below that lift (else above)."""

    turns_at: float
    more_below: bool


def shape_change(comparison: RunComparison) -> ShapeChange | None:
    """What the curve's shape proves, even where its level cannot be told.

    .. math:: F = \\tfrac13 \\left[ r'C^{-1}X (X'C^{-1}X)^{-1} X'C^{-1}r
              - \\frac{(1'C^{-1}r)^2}{1'C^{-1}1} \\right]

    r are the relative differences by lift, X = [1, P1, P2, P3] Legendre polynomials in twice the scaled lift, and C
    their repeat scatter with a dial zero and the tilt that this bench's bolting down brings; held against F(3, nu) at
    0.01.

    Parameters
    ----------
    comparison : RunComparison
        Five lifts tested on both sides at least, and repeats that give five degrees of freedom; else nothing is said.

    Returns
    -------
    ShapeChange or None
        None where nothing is proven.

    Raises
    ------
    ValueError
        Never for a comparison that `compare_runs` made.

    References
    ----------
    F test of a linear hypothesis (Rao, Linear Statistical Inference, ch. 4); formula book of this
    project.
    """
    c = comparison
    tested = c.tested
    scatter, lift = c.scatter, c.lift[tested]
    if not c.allowed or len(lift) < FEWEST_LIFTS or scatter.repeat_assumed or scatter.repeat_freedom < ENOUGH_FREEDOM:
        return None
    mean = (c.before[tested] + c.after[tested]) / 2
    r = c.change[tested] / mean
    sides = c.difference.sides
    own = sum((s.flow[tested] / mean) ** 2 / s.readings[tested] for s in sides) * scatter.repeat**2
    own = own + c.difference.resolution_variance[tested] / mean**2
    mounts = sum(1 / s.mounts for s in sides)
    slope = (sides[0].slope[tested] + sides[1].slope[tested]) / 2 / mean
    x = (lift - lift.mean()) / (lift[-1] - lift[0])
    covariance = np.diag(own) + mounts * (DIAL**2 * np.outer(slope, slope) + scatter.tilt**2 * np.outer(x, x))
    inverse = np.linalg.inv(covariance)
    columns = np.polynomial.legendre.legvander(2 * x, SHAPES)
    normal = columns.T @ inverse @ columns
    towards = columns.T @ inverse @ r
    fitted = np.linalg.solve(normal, towards)
    one = np.ones(len(x))
    level = float(one @ inverse @ r / (one @ inverse @ one))
    f = (float(towards @ fitted) - float(one @ inverse @ r) ** 2 / float(one @ inverse @ one)) / SHAPES
    if f <= f_quantile(1 - LEVEL, SHAPES, scatter.repeat_freedom):
        return None
    fine = np.linspace(lift[0], lift[-1], 200)
    curve = np.polynomial.legendre.legvander(2 * (fine - lift.mean()) / (lift[-1] - lift[0]), SHAPES) @ fitted - level
    flips = np.flatnonzero(np.sign(curve[1:]) != np.sign(curve[:-1]))
    if not len(flips):
        return None
    # Where it turns several times, the turn that parts most from least is the one to name.
    areas = [abs(float(curve[: i + 1].mean() - curve[i + 1 :].mean())) for i in flips]
    at = int(flips[int(np.argmax(areas))])
    return ShapeChange(float(fine[at]), bool(curve[: at + 1].mean() > curve[at + 1 :].mean()))
