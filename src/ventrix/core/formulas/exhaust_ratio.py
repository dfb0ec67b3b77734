"""Exhaust flow against intake flow, by the four ways the trade takes the ratio."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ventrix.core.formulas.cam import AnyCam, cam_weighted_flow
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused


class ExhaustRatios(NamedTuple):
    """Exhaust over intake [-]; arrays at the lifts asked for, None where a figure is missing."""

    lift: Array
    at_lift: Array
    at_lift_ratio: Array | None
    at_peak: float
    cam_weighted: float | None


def exhaust_ratios(
    exhaust: FlowCurve,
    intake: FlowCurve,
    exhaust_valve: float | None = None,
    intake_valve: float | None = None,
    exhaust_cam: AnyCam | None = None,
    intake_cam: AnyCam | None = None,
) -> ExhaustRatios:
    """Ratio at equal lift, at equal L/D, at peak, and weighted over each valve's cam.

    Parameters
    ----------
    exhaust, intake : FlowCurve
        At one test pressure.
    exhaust_valve, intake_valve : float, optional
        Valve head diameters [m], for equal L/D.
    exhaust_cam, intake_cam : Cam or TabledCam, optional
        For the cam-weighted ratio.

    Returns
    -------
    ExhaustRatios
        At the exhaust's tested lifts that the intake reaches too; L/D is taken at the intake's, and is
        NaN where that lies past the exhaust's highest lift.

    Raises
    ------
    ValueError
        No exhaust lift that the intake reaches.

    References
    ----------
    Common practice, no source.
    """
    lift = exhaust.lift[exhaust.lift <= intake.highest * (1 + 1e-9)]
    if len(lift) == 0:
        raise Refused("no exhaust lift was reached on the intake")
    by_ratio = None
    if exhaust_valve is not None and intake_valve is not None:
        matching = lift * exhaust_valve / intake_valve  # same L/D on the exhaust as `lift` on the intake
        value = exhaust.at(matching) / intake.at(lift)
        by_ratio = np.where(matching <= exhaust.highest * (1 + 1e-9), value, np.nan)
    weighted = None
    if exhaust_cam is not None and intake_cam is not None:
        weighted = cam_weighted_flow(exhaust, exhaust_cam) / cam_weighted_flow(intake, intake_cam)
    return ExhaustRatios(
        lift,
        np.asarray(exhaust.at(lift) / intake.at(lift)),
        by_ratio,
        float(exhaust.flow.max() / intake.flow.max()),
        weighted,
    )
