"""Which lifts count: the schools of the trade as weights over tested lifts. One speaks, the others may dissent."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas.cam import AnyCam, cam_weights
from ventrix.core.model.kinds import School
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

LOW_SHARE: Final = 0.5  # of the cam's lift: what counts as low
NEAR_PEAK: Final = 0.8


def top_lift(lift: Array, cam: AnyCam | None) -> float:
    """The lift that low and high are counted from: the cam's, no higher than was tested.

    Parameters
    ----------
    lift : ndarray
        Tested lifts, rising [m]. Shape (n,).
    cam : Cam, TabledCam or None
        The job's.

    Returns
    -------
    float
        [m].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project.
    """
    return min(cam.peak_lift, float(lift[-1])) if cam is not None else float(lift[-1])


def school_weights(school: str, lift: Array, flow: Array, cam: AnyCam | None, own: tuple[float, ...] = ()) -> Array:
    """What each tested lift counts in a run's one number.

    Parameters
    ----------
    school : str
        "cam-weighted" takes `cam_weights`; "low lift first" counts the lifts up to half of the cam's lift
        equally, "peak and near-peak" those from eight tenths of it up to it.
    lift : ndarray
        Tested lifts [m], rising, shape (n,).
    flow : ndarray
        Flows there [any unit], shape (n,): the cam's mean depends a little on the curve's own shape.
    cam : Cam, TabledCam or None
        Without one the highest tested lift stands for the cam's.
    own : tuple of float
        The porter's own lifts [m], which "my lifts" counts equally; every tested lift where none of them was reached.

    Returns
    -------
    ndarray
        Weights [-], shape (n,).

    Raises
    ------
    ValueError
        A school that is not one of `School`.

    References
    ----------
    Schools of the trade, common practice, no source; the shares are this project's.
    """
    if school == School.CAM:
        return cam_weights(lift, flow, cam)
    if school not in tuple(School):
        raise Refused("'{}' is not one of {}", school, ", ".join(School))
    if school == School.MINE:
        weights = own_weights(lift, own)
        return weights if np.any(weights) else np.full(len(lift), 1 / len(lift))
    top = top_lift(lift, cam)
    inside = lift <= LOW_SHARE * top * (1 + 1e-9) if school == School.LOW else _near_peak(lift, top)
    if not np.any(inside):
        inside = np.arange(len(lift)) == (0 if school == School.LOW else len(lift) - 1)
    return np.asarray(inside / np.sum(inside))


def own_weights(lift: Array, own: tuple[float, ...]) -> Array:
    """What tested lifts count where a porter's own lifts count equally, by straight line between neighbours.

    Parameters
    ----------
    lift : ndarray
        Tested lifts, rising [m]. Shape (n,).
    own : tuple of float
        [m]. Those outside the tested lifts count nothing.

    Returns
    -------
    ndarray
        Weights [-], shape (n,), summing to one; all zero where none is inside.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project.
    """
    weights = np.zeros(len(lift))
    grain = 1e-6  # m: what is one lift
    for wanted in own:
        if len(lift) == 0 or not lift[0] - grain <= wanted <= lift[-1] + grain:
            continue
        nearest = int(np.argmin(np.abs(lift - wanted)))
        if abs(lift[nearest] - wanted) <= grain:
            weights[nearest] += 1
            continue
        right = int(np.searchsorted(lift, wanted))
        share = (wanted - lift[right - 1]) / (lift[right] - lift[right - 1])
        weights[right - 1] += 1 - share
        weights[right] += share
    total = float(np.sum(weights))
    return weights / total if total else weights


def _near_peak(lift: Array, top: float) -> NDArray[np.bool_]:
    return np.asarray((lift >= NEAR_PEAK * top * (1 - 1e-9)) & (lift <= top * (1 + 1e-9)))


def bands(lift: Array, cam: AnyCam | None) -> tuple[tuple[float, float], ...]:
    """Low, middle and high thirds of the lift that counts.

    Parameters
    ----------
    lift : ndarray
        Tested lifts, rising [m]. Shape (n,).
    cam : Cam, TabledCam or None
        The job's.

    Returns
    -------
    tuple of (float, float)
        Three pairs, from and to [m].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source.
    """
    top = top_lift(lift, cam)
    return (0.0, top / 3), (top / 3, 2 * top / 3), (2 * top / 3, top)
