"""What a port is worth on the job's engine: filling with its doubt, before and after, and the rev-limit card."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.engine.breathing import Engine, Side, area_at, breathe, engine_of
from ventrix.core.formulas.cam import AnyCam
from ventrix.core.formulas.engine import CHOKED, demand_area, demand_velocity, mach_index
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import smallest_section
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.reduced_run import ReducedRun

PEAK_MACH: Final = 0.55  # of the piston's demand, that a least section is asked for


@dataclass(frozen=True)
class RevLimit:
    """The rev-limit card of a cut beside the one held against, over speeds [rad/s], shape (n,).

    index : Taylor's Z at `speeds`; limit_speed : where it is 0.6 [rad/s]; choke_speed : where the smallest section
        chokes [rad/s]; the `_before` ones are of the cut held against; None where a size is missing
    area, area_before : effective area over the crank while the valve is open [m2 rad]: carries across test pressures
    mean_speed : of the air in the smallest measured section, at `speeds` [m/s], by what the piston displaces
    least_section : what the top of the speed range asks of each port at Mach 0.55 [m2]
    stops_at : the lift from which this port gains no more [m], where the cam lifts past it
    untested_from : the highest tested lift, where the cam lifts past it
    other_cam : the side after has another cam than the job's
    """

    before: Cut
    after: Cut
    speeds: Array
    index: Array | None
    limit_speed: float | None
    choke_speed: float | None
    limit_speed_before: float | None
    choke_speed_before: float | None
    area: float
    area_before: float
    mean_speed: Array | None
    least_section: float
    stops_at: float | None
    untested_from: float | None
    other_cam: bool


@dataclass(frozen=True)
class OnTheEngine(RevLimit):
    """A cut on the engine against another: the card, and filling.

    filling, filling_before, low, high, residual : shares; None without the cam's timing
    difference : change of filling, of the filling before; low and high hold eight in ten
    left_at_bottom : share of the charge left at bottom dead centre after blow-down, at `speeds`
    low_share : share of the exhaust's effective area up to there that lies under `low_lift` [m]; None without both
    manifold : pressure before the port, at `speeds` [Pa]
    missing : what an absolute figure wants; guessed : what was taken as usual
    """

    filling: Array | None
    filling_before: Array | None
    low: Array | None
    high: Array | None
    residual: Array | None
    difference: Array
    difference_low: Array
    difference_high: Array
    left_at_bottom: Array
    low_share: float | None
    low_lift: float | None
    manifold: Array
    missing: tuple[str, ...]
    guessed: tuple[str, ...]


def rev_limit(
    findings: Findings,
    port: Port,
    after: Cut | None = None,
    before: Cut | None = None,
    cam: AnyCam | None = None,
) -> RevLimit:
    """The rev-limit card alone: no cycle is run.

    Parameters
    ----------
    findings, port, after, before, cam : Findings, Port, Cut, Cut, Cam or TabledCam
        As `on_the_engine`.

    Returns
    -------
    RevLimit

    Raises
    ------
    ValueError
        As `on_the_engine`.

    References
    ----------
    Taylor [13] for Z; piston demand by slider and crank.
    """
    return _card(findings, _asked(findings, port, after, before, cam))


def on_the_engine(
    findings: Findings,
    port: Port,
    after: Cut | None = None,
    before: Cut | None = None,
    cam: AnyCam | None = None,
) -> OnTheEngine:
    """Hold a cut of an intake port against another on the job's engine, or one cam against another on the same cut.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        An intake port.
    after, before : Cut, optional
        The last flowed without one, and the first; with `cam` the cut after twice.
    cam : Cam or TabledCam, optional
        Another intake cam for the side after: what changing it would do.

    Returns
    -------
    OnTheEngine
        See there.

    Raises
    ------
    ValueError
        No intake port, nothing flowed in CFM, or a size of the engine that is missing, in words.

    References
    ----------
    `filling.fill`; Taylor [13] for Z; defaults: common practice, no source.
    """
    asked = _asked(findings, port, after, before, cam)
    card, engine = _card(findings, asked), asked.engine
    found = breathe(engine, findings, (asked.had, asked.has))
    known = not engine.missing
    low_share, low_lift = found.low_lifts
    return OnTheEngine(
        **vars(card),
        filling=found.filling[1] if known else None,
        filling_before=found.filling[0] if known else None,
        low=found.low if known else None,
        high=found.high if known else None,
        residual=found.residual if known else None,
        difference=found.difference,
        difference_low=found.difference_low,
        difference_high=found.difference_high,
        left_at_bottom=found.left_at_bottom,
        low_share=low_share,
        low_lift=low_lift,
        manifold=found.manifold,
        missing=engine.missing,
        guessed=engine.guessed,
    )


@dataclass(frozen=True, slots=True)
class _Asked:
    """Both sides that are held against each other, and the engine."""

    port: Port
    before: Cut
    after: Cut
    had: Side
    has: Side
    engine: Engine
    other_cam: bool


def _asked(findings: Findings, port: Port, after: Cut | None, before: Cut | None, cam: AnyCam | None) -> _Asked:
    if port.kind != Direction.INTAKE:
        raise Refused("{} is an exhaust: volumetric efficiency is calculated for an intake port", port.name)
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    if not flowed:
        raise Refused("{} was not flowed", port.name)
    after = after or flowed[-1]
    before = before or (after if cam is not None else flowed[0])
    had, has = (_run(findings, port, c) for c in (before, after))
    engine = engine_of(findings, port, had)
    return _Asked(port, before, after, Side(had, engine.cam), Side(has, cam or engine.cam), engine, cam is not None)


def _card(findings: Findings, asked: _Asked) -> RevLimit:
    job, engine, has, had = findings.job, asked.engine, asked.has, asked.had
    index, limit = _limit(job, has.run, has.cam, engine)
    _, limit_before = _limit(job, had.run, had.cam, engine)
    section, section_before = (smallest_section(job, asked.port, c) for c in (asked.after, asked.before))
    cylinder, speeds = engine.cylinder, engine.speeds
    wanted = demand_area(cylinder.bore, cylinder.stroke, cylinder.rod, float(speeds[-1]), PEAK_MACH)
    return RevLimit(
        before=asked.before,
        after=asked.after,
        speeds=speeds,
        index=index,
        limit_speed=limit,
        choke_speed=_choke(engine, section),
        limit_speed_before=limit_before,
        choke_speed_before=_choke(engine, section_before),
        area=_over_the_cam(has.run, has.cam, engine.intake_lash),
        area_before=_over_the_cam(had.run, had.cam, engine.intake_lash),
        mean_speed=None if section is None else cylinder.swept * speeds / np.pi / (section * engine.ports),
        least_section=float(wanted) / engine.ports,
        stops_at=_stops_at(has.run, has.cam),
        untested_from=_untested(has.run, has.cam),
        other_cam=asked.other_cam,
    )


def _run(findings: Findings, port: Port, cut: Cut) -> ReducedRun:
    found = findings.runs_of(cut, port)
    if not found:
        raise Refused("cut {} of {} was not flowed", cut.number, port.name)
    if found[-1].kind == FlowKind.INDEX:
        raise Refused("{} was flowed on a bench that is not calibrated: volumetric efficiency needs CFM", port.name)
    return found[-1]


def _over_the_cam(run: ReducedRun, cam: AnyCam, lash: float) -> float:
    """Effective area over the crank [m2 rad]."""
    return float(cam.mean(area_at(run, np.maximum(cam.lifts - lash, 0.0))) * cam.open_period)


def _limit(job: Job, run: ReducedRun, cam: AnyCam, engine: Engine) -> tuple[Array | None, float | None]:
    """Z at speeds, and the speed where it is 0.6; None without the valve's head."""
    head, valves = run.geometry.valve_diameter, run.geometry.valves
    if head is None or job.bore is None or job.stroke is None:
        return None, None
    count = valves * engine.ports
    area = engine.ports * _over_the_cam(run, cam, engine.intake_lash) / cam.open_period
    found = mach_index(job.bore, job.stroke, engine.speeds, head, area / (count * np.pi / 4 * head**2), count)
    return found.z, float(found.limit_speed[0])


def _choke(engine: Engine, section: float | None) -> float | None:
    """The speed at which the piston asks for more than the smallest measured section can pass [rad/s]."""
    if section is None:
        return None
    c = engine.cylinder
    return float(CHOKED / demand_velocity(c.bore, c.stroke, c.rod, 1.0, section * engine.ports).peak_mach)


def _stops_at(run: ReducedRun, cam: AnyCam) -> float | None:
    """Where the port gains no more, if the cam lifts past it."""
    stall = run.stall
    if stall is None or cam.peak_lift <= run.lift[stall]:
        return None
    return float(run.lift[stall])


def _untested(run: ReducedRun, cam: AnyCam) -> float | None:
    highest = float(run.lift[-1])
    return highest if cam.peak_lift > highest * (1 + 1e-9) else None
