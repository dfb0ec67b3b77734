"""The cam: lift over crank angle, and flow weighted by the time the valve stands at each lift."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from ventrix.core.formulas.flow_curve import FlowCurve, pchip_slopes
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

CHECKING_LIFT = 0.050 * 0.0254  # m: the lift that duration is quoted at

_CAM_STEPS = 2001  # odd, for Simpson's rule over the open period


@dataclass(frozen=True)
class Cam:
    """A cam by its peak valve lift [m] and its duration at a checking lift of the valve [rad of crank]: 0.050 in, or
    0.050 in at the tappet times the rocker ratio.

    .. math:: L(\\phi) = \\tfrac{L_{max}}{2}(1 + \\cos(2\\pi\\phi/D)), \\quad
              D = \\pi d / \\arccos(2 L_c/L_{max} - 1)

    (the arc cosine of twice the checking lift over peak lift, less one, is the angle, of pi, at which that curve
    passes 0.050 in). Raises ValueError where the peak does not pass 0.050 in. Source: a cosine
    lift curve, common practice, no source.
    """

    peak_lift: float
    duration: float
    checking_lift: float = CHECKING_LIFT

    def __post_init__(self) -> None:
        positive(self.duration, "duration")
        positive(self.checking_lift, tr("checking lift"))
        if self.peak_lift <= self.checking_lift:
            raise Refused("cam lift must be more than the 0.050 in where its duration is quoted")

    @property
    def key(self) -> tuple[object, ...]:
        """What makes two cams one."""
        return self.peak_lift, self.duration, self.checking_lift

    @property
    def open_period(self) -> float:
        """Crank angle from opening to closing [rad]."""
        return float(np.pi * self.duration / np.arccos(2 * self.checking_lift / self.peak_lift - 1))

    @cached_property
    def lifts(self) -> Array:
        """Lifts at even steps of the open period [m], shape (2001,)."""
        phi = np.linspace(-0.5, 0.5, _CAM_STEPS)
        return np.asarray(self.peak_lift / 2 * (1 + np.cos(2 * np.pi * phi)))

    def mean(self, values: Array) -> float:
        """Mean over the open period of values given at `lifts`, by Simpson's rule."""
        return float(values @ _SIMPSON)


@dataclass(frozen=True, eq=False)
class TabledCam:
    """A cam by a table of crank angles [rad], rising, and valve lifts [m], shape (n,); used where it is open.

    Raises ValueError where the angles do not rise or the valve never opens. Source: the table's maker.
    """

    angle: Array
    lift: Array

    def __post_init__(self) -> None:
        if len(self.angle) != len(self.lift) or len(self.angle) < 3 or np.any(np.diff(self.angle) <= 0):
            raise Refused("a cam table needs at least three rising crank angles with a lift each")
        if np.any(self.lift < 0) or not np.any(self.lift > 0):
            raise Refused("a cam table needs lifts from zero up, and some above it")

    @property
    def key(self) -> tuple[object, ...]:
        """What makes two cams one."""
        return self.angle.tobytes(), self.lift.tobytes()

    def __eq__(self, other: object) -> bool:
        return isinstance(other, TabledCam) and self.key == other.key

    def __hash__(self) -> int:
        return hash(self.key)

    @cached_property
    def _open(self) -> tuple[float, float]:
        """First and last angle of the open period, by straight lines to where the lift is zero."""
        lifted = np.flatnonzero(self.lift > 0)
        first, last = max(lifted[0] - 1, 0), min(lifted[-1] + 1, len(self.lift) - 1)
        return float(self.angle[first]), float(self.angle[last])

    @property
    def peak_lift(self) -> float:
        return float(self.lift.max())

    @property
    def open_period(self) -> float:
        """Crank angle from opening to closing [rad]."""
        return self._open[1] - self._open[0]

    @cached_property
    def lifts(self) -> Array:
        """Lifts at even steps of the open period [m], shape (2001,)."""
        return np.interp(np.linspace(*self._open, _CAM_STEPS), self.angle, self.lift)

    def mean(self, values: Array) -> float:
        """Mean over the open period of values given at `lifts`, by Simpson's rule."""
        return float(values @ _SIMPSON)


AnyCam = Cam | TabledCam


def _simpson_weights(n: int) -> Array:
    weights = np.full(n, 2.0)
    weights[1::2] = 4.0
    weights[[0, -1]] = 1.0
    return np.asarray(weights / weights.sum())


_SIMPSON = _simpson_weights(_CAM_STEPS)


def cam_weighted_flow(curve: FlowCurve, cam: AnyCam) -> float:
    """Mean flow over the cam's open period.

    Duration cancels in this mean; `flow_integral` keeps it.

    Parameters
    ----------
    curve : FlowCurve
        Flow against lift.
    cam : Cam or TabledCam
        Lift against crank angle.

    Returns
    -------
    float
        [m3/s]. Lifts past the highest tested one count at its flow: see `cam_note`.

    Raises
    ------
    ValueError
        Never, for a curve and cam that could be made.

    References
    ----------
    Definition (common practice); Simpson's rule over 2001 steps.
    """
    return cam.mean(curve.at(cam.lifts))


def flow_integral(curve: FlowCurve, cam: AnyCam) -> float:
    """Integral of flow over crank angle; see `cam_weighted_flow`.

    Parameters
    ----------
    curve : FlowCurve
        Flow against lift.
    cam : Cam or TabledCam
        Lift against crank angle.

    Returns
    -------
    float
        [m3/s rad].

    Raises
    ------
    ValueError
        Never, for a curve and cam that could be made.

    References
    ----------
    Definition (common practice).
    """
    return cam_weighted_flow(curve, cam) * cam.open_period


def cam_note(curve: FlowCurve, cam: AnyCam) -> str | None:
    """A sentence where the cam lifts past the highest tested lift, else None."""
    if cam.peak_lift <= curve.highest * (1 + 1e-9):
        return None
    return tr("the cam lifts higher than was tested: flow beyond is taken as at the highest tested lift")


@lru_cache(maxsize=256)
def _cam_basis(lifts: bytes, cam: AnyCam) -> tuple[Array, Array]:
    """What each knot's value and slope count in the mean over a cam's open period: it is linear in both."""
    knots = np.r_[0.0, np.frombuffer(lifts)]
    at = np.clip(cam.lifts, 0.0, knots[-1])
    i = np.clip(np.searchsorted(knots, at, side="right") - 1, 0, len(knots) - 2)
    width = knots[i + 1] - knots[i]
    t = (at - knots[i]) / width
    values, slopes = np.zeros(len(knots)), np.zeros(len(knots))
    rise = t * t * (3 - 2 * t)
    np.add.at(values, i, (1 - rise) * _SIMPSON)
    np.add.at(values, i + 1, rise * _SIMPSON)
    np.add.at(slopes, i, width * t * (1 - t) ** 2 * _SIMPSON)
    np.add.at(slopes, i + 1, width * t * t * (t - 1) * _SIMPSON)
    return values, slopes


def cam_mean(lift: Array, flow: Array, cam: AnyCam) -> float:
    """`cam_weighted_flow` of the curve through (0, 0) and these lifts, from a table kept for lifts and cam.

    Parameters
    ----------
    lift, flow : ndarray
        Tested lifts [m], rising from above zero, and flows [m3/s], shape (n,).
    cam : Cam or TabledCam
        Lift against crank angle.

    Returns
    -------
    float
        [m3/s].

    Raises
    ------
    ValueError
        Never, for lifts of a curve.

    References
    ----------
    As `cam_weighted_flow`.
    """
    values, slopes = _cam_basis(lift.tobytes(), cam)
    knots, q = np.concatenate(([0.0], lift)), np.concatenate(([0.0], flow))
    return float(values @ q + slopes @ pchip_slopes(knots, q))


def cam_weights(lift: Array, flow: Array, cam: AnyCam | None) -> Array:
    """What each tested lift counts in a run's one number: how much the cam-weighted flow moves with it.

    .. math:: c_k = \\partial \\bar Q / \\partial q_k, \\quad \\sum_k c_k q_k = \\bar Q

    The sum is exact since the monotone curve scales with its flows. The weights sum to under one: a valve near its
    seat passes little. Without a cam, equal weights summing to one.

    Parameters
    ----------
    lift, flow : ndarray
        Tested lifts [m], rising from above zero, and flows [any unit], shape (n,).
    cam : Cam, TabledCam or None
        Equal weights without one.

    Returns
    -------
    ndarray
        Weights [-], shape (n,).

    Raises
    ------
    ValueError
        Never, for lifts of a curve.

    References
    ----------
    Euler's theorem on homogeneous functions; derivatives of the slopes by central differences.
    """
    n = len(lift)
    if cam is None:
        return np.full(n, 1.0 / n)
    values, slopes = _cam_basis(lift.tobytes(), cam)
    knots, q = np.concatenate(([0.0], lift)), np.concatenate(([0.0], flow))
    step = 1e-6 * float(np.max(np.abs(q)))
    nudge = np.eye(n + 1)[1:] * step
    change = pchip_slopes(knots, q + nudge) - pchip_slopes(knots, q - nudge)
    return np.asarray(values[1:] + change @ slopes / (2 * step))
