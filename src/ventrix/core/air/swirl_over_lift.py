"""Swirl over a run: where it turns over or drops out, its ratio over the stroke, and what a cut did to it."""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np

from ventrix.core.formulas.cam import AnyCam
from ventrix.core.formulas.swirl import paddle_coefficient, swirl_ratio
from ventrix.core.formulas.valve import valve_head_area
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.quantity.arrays import Array
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import curve_of, turning_of

SWIRL_SCATTER: Final = 0.03  # relative standard uncertainty of a paddle reading: common practice, no source

DROP_OUT: Final = 0.3  # of the greatest swirl before it


class SwirlEvents(NamedTuple):
    """Lifts at which swirl turns over, and at which it drops out [m]."""

    reversals: tuple[float, ...]
    drop_outs: tuple[float, ...]


def swirl_events(lift: Array, swirl: Array) -> SwirlEvents:
    """Where a swirl curve changes its sign beyond its scatter, or loses over a third of what it had.

    Parameters
    ----------
    lift, swirl : ndarray
        [m], [rad/s]; NaN where it was not read. Shape (n,).

    Returns
    -------
    SwirlEvents
        Lifts by straight line between readings [m].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project.
    """
    known = np.isfinite(swirl)
    x, s = lift[known], swirl[known]
    if len(s) < 2:
        return SwirlEvents((), ())
    noise = 2 * SWIRL_SCATTER * float(np.max(np.abs(s)))
    turns, drops = [], []
    for i in range(len(s) - 1):
        if s[i] * s[i + 1] < 0 and max(abs(s[i]), abs(s[i + 1])) > noise:
            turns.append(float(x[i] - s[i] * (x[i + 1] - x[i]) / (s[i + 1] - s[i])))
    for i in range(1, len(s)):
        peak = float(np.max(np.abs(s[:i])))
        if peak > 2 * noise and abs(s[i]) < (1 - DROP_OUT) * peak and abs(s[i - 1]) >= (1 - DROP_OUT) * peak:
            drops.append(float(x[i]))
    return SwirlEvents(tuple(turns), tuple(drops))


class SwirlOverStroke(NamedTuple):
    """Swirl ratio over the intake stroke [-] and its relative standard uncertainty."""

    ratio: float
    uncertainty: float


def run_swirl_ratio(run: ReducedRun, cam: AnyCam | None, stroke: float | None) -> SwirlOverStroke | None:
    """Swirl ratio of a run with the job's cam.

    Parameters
    ----------
    run : ReducedRun
        With swirl readings (no tumble), bore and valve diameter.
    cam : Cam, TabledCam or None
        Lift against crank angle.
    stroke : float or None
        [m].

    Returns
    -------
    SwirlOverStroke or None
        None where something is missing.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [3] Heywood (1988), section 8.3.1, as in `swirl.swirl_ratio`.
    """
    bore, g = run.setup.bore, run.geometry
    known = np.isfinite(run.swirl)
    if (
        cam is None
        or stroke is None
        or bore is None
        or g.valve_diameter is None
        or run.kind != FlowKind.FLOW
        or turning_of(run.setup) != "swirl"
        or not np.any(known)
    ):
        return None
    lift = np.clip(cam.lifts, 0.0, run.curve.highest)
    speed = np.interp(lift, np.r_[0.0, run.lift[known]], np.r_[0.0, run.swirl[known]])
    coefficient = paddle_coefficient(speed, bore, run.test_pressure)
    open_ = np.maximum(lift, 1e-6)
    cd = np.nan_to_num(curve_of(run, "cd_valve", open_))
    area = np.where(lift > 1e-6, cd, 0.0) * float(valve_head_area(g.valve_diameter, g.valves))
    angle = np.linspace(0.0, cam.open_period, len(lift))
    return SwirlOverStroke(swirl_ratio(angle, coefficient, area, bore, stroke), SWIRL_SCATTER)


def swirl_change(before: SwirlOverStroke, after: SwirlOverStroke) -> tuple[float, float]:
    """Difference of two swirl ratios and its U(0.05). Source: [6] JCGM 100:2008, 5.1.2."""
    doubt = 1.96 * float(np.hypot(before.uncertainty * before.ratio, after.uncertainty * after.ratio))
    return after.ratio - before.ratio, doubt
