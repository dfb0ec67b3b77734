"""Another cam, or another rocker ratio, for the same port: what is asked before it is bought."""

from __future__ import annotations

import numpy as np

from ventrix.core.formulas.cam import AnyCam, Cam, TabledCam
from ventrix.core.judging.findings import Findings
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused


def other_cam(
    findings: Findings, lift: float | None = None, duration: float | None = None, rocker: float | None = None
) -> AnyCam:
    """The intake cam that is asked about: another lift at the valve or duration, or the job's with another rocker.

    Parameters
    ----------
    findings : Findings
        Of the job.
    lift : float, optional
        Peak lift at the valve [m]; the job's without one.
    duration : float, optional
        At 0.050 in, read where the job's is [rad]; the job's without one.
    rocker : float, optional
        Rocker ratio [-], against the job's.

    Returns
    -------
    Cam or TabledCam

    Raises
    ------
    ValueError
        The job's own cam or rocker ratio is missing, or such a cam cannot be, in words.

    References
    ----------
    As `Cam`.
    """
    job, now = findings.job, findings.cam_of(Direction.INTAKE)
    if rocker is not None:
        if now is None or job.rocker_ratio is None:
            raise Refused("another rocker needs the job's own cam and rocker ratio (Head)")
        if lift is not None or duration is not None:
            raise Refused("ask about another cam or another rocker, one at a time")
        return rocker_cam(now, rocker, job.rocker_ratio)
    lift, duration = lift or (now.peak_lift if now is not None else None), duration or job.cam_duration
    if lift is None or duration is None:
        raise Refused("another cam needs its lift and its duration")
    return Cam(lift, duration, findings.checking_lift)


def rocker_cam(cam: AnyCam, ratio: float, before: float) -> TabledCam:
    """A cam with another rocker ratio: the same lobe lifts the valve by that much more.

    Parameters
    ----------
    cam : Cam or TabledCam
        Valve lift with the rocker as it is.
    ratio, before : float
        Rocker ratio to be, and as it is [-].

    Returns
    -------
    TabledCam

    Raises
    ------
    ValueError
        A ratio not above zero.

    References
    ----------
    Geometry.
    """
    if not (ratio > 0 and before > 0):
        raise Refused("a rocker ratio must be above zero")
    return TabledCam(np.linspace(0.0, cam.open_period, len(cam.lifts)), np.asarray(cam.lifts * (ratio / before)))
