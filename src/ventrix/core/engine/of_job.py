"""What a port is worth on the job's engine: filling with its doubt, before and after, and the rev-limit card."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.engine.cylinder import Cylinder
from ventrix.core.engine.filling import Around, Valves, fill
from ventrix.core.formulas.cam import AnyCam
from ventrix.core.formulas.engine import CHOKED, demand_area, demand_velocity, mach_index
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import smallest_section
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.reduction import ReducedRun

SEED: Final = 23
DRAWS: Final = 40
SPEEDS: Final = 12
STEP: Final = np.radians(1.0)
# Taken where a job does not say (common practice, no source).
USUAL_CENTRE, USUAL_SEPARATION = np.radians(108.0), np.radians(110.0)
USUAL_COMPRESSION: Final = 10.0
USUAL_ROD: Final = 1.7  # strokes
USUAL_SPEEDS: Final = to_si(1500.0, "rpm"), to_si(7000.0, "rpm")
EXHAUST_SHARE: Final = 0.75  # of the intake's flow, where no exhaust was flowed
EXHAUST_DOUBT, GUESSED_DOUBT = 0.01, 0.08


@dataclass(frozen=True, slots=True)
class OnTheEngine:
    """A cut on the engine against another, over speeds [rad/s], shape (n,).

    filling, filling_before, low, high, residual : shares; None without the cam's timing
    difference : change of filling, of the filling before; low and high hold eight in ten
    limit_speed, choke_speed : where Z is 0.6, and where the smallest section chokes [rad/s]; index : Z at `speeds`
    least_section : what the top of the speed range asks for at Mach 0.55 [m2]
    missing : what an absolute figure wants; guessed : what was taken as usual
    """

    before: Cut
    after: Cut
    speeds: Array
    filling: Array | None
    filling_before: Array | None
    low: Array | None
    high: Array | None
    residual: Array | None
    difference: Array
    difference_low: Array
    difference_high: Array
    left_at_bottom: Array
    index: Array | None
    limit_speed: float | None
    choke_speed: float | None
    least_section: float
    missing: tuple[str, ...]
    guessed: tuple[str, ...]


def on_the_engine(findings: Findings, port: Port, after: Cut | None = None, before: Cut | None = None) -> OnTheEngine:
    """Hold a cut of an intake port against another on the job's engine.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        An intake port.
    after, before : Cut, optional
        The last flowed without one, and the first.

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
    job = findings.job
    if port.kind != "intake":
        raise ValueError(f"{port.name} is an exhaust: filling is asked of an intake port")
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    if not flowed:
        raise ValueError(f"{port.name} was not flowed")
    after, before = after or flowed[-1], before or flowed[0]
    runs = [_run(findings, port, c) for c in (before, after)]
    cam = findings.cam_of("intake")
    absent = [w for w, v in (("bore", job.bore), ("stroke", job.stroke), ("intake cam", cam)) if v is None]
    if absent:
        raise ValueError(f"filling wants {', '.join(absent)} (Head)")
    assert job.bore is not None
    assert job.stroke is not None
    assert cam is not None
    guessed: list[str] = []
    cylinder = _cylinder(job, guessed)
    exhaust_cam = findings.cam_of("exhaust") or cam
    missing = [w for w, v in (("intake lobe centre", job.lobe_centre), ("lobe separation", job.lobe_separation))
               if v is None]  # fmt: skip
    speeds = np.linspace(job.speed_low or USUAL_SPEEDS[0], job.speed_high or USUAL_SPEEDS[1], SPEEDS)
    if job.speed_low is None or job.speed_high is None:
        guessed.append("speeds")
    timing = _timing(job, cam, exhaust_cam)
    exhaust, part, doubt = _exhaust(findings, port, runs[0], guessed)
    lifts_in, lifts_out = _lift(cam, timing.intake), _lift(exhaust_cam, timing.exhaust)
    share = job.ports_beside(port)
    random = np.random.default_rng(SEED)
    out = part * effective_area(exhaust, lifts_out)[:, None] * np.r_[1.0, 1 + doubt * random.standard_normal(DRAWS)]
    into = [share * _drawn(run, findings, lifts_in, random) for run in runs]
    columns = SPEEDS * (DRAWS + 1)
    wide = [np.repeat(a, SPEEDS, axis=1) for a in (*into, out)]
    valves = Valves(timing.angle, np.hstack(wide[:2]), np.hstack([wide[2], wide[2]]))
    found = fill(cylinder, valves, np.tile(speeds, 2 * (DRAWS + 1)), Around())
    both = found.filling.reshape(2, DRAWS + 1, SPEEDS)
    change = both[1] / both[0] - 1
    low, high = np.quantile(both[1, 1:], [0.1, 0.9], axis=0)
    less, more = np.quantile(change[1:], [0.1, 0.9], axis=0)
    known = not missing
    index, limit = _limit(job, runs[1], cam, speeds, share)
    return OnTheEngine(
        before, after, speeds,
        both[1, 0] if known else None, both[0, 0] if known else None,
        np.minimum(low, both[1, 0]) if known else None, np.maximum(high, both[1, 0]) if known else None,
        found.residual[columns : columns + SPEEDS] if known else None,
        change[0], np.minimum(less, change[0]), np.maximum(more, change[0]),
        found.left_at_bottom[columns : columns + SPEEDS],
        index, limit, _choke(job, port, after, cylinder),
        float(demand_area(cylinder.bore, cylinder.stroke, cylinder.rod, float(speeds[-1]))),
        tuple(missing), tuple(guessed),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Timing:
    angle: Array  # after the firing top [rad], from exhaust opening to intake closing
    intake: Array  # of mid-steps from each lobe's centre [rad]
    exhaust: Array


def _timing(job: Job, cam: AnyCam, exhaust_cam: AnyCam) -> _Timing:
    centre = job.lobe_centre if job.lobe_centre is not None else USUAL_CENTRE
    apart = job.lobe_separation if job.lobe_separation is not None else USUAL_SEPARATION
    at_intake, at_exhaust = 2 * np.pi + centre, 2 * np.pi - (2 * apart - centre)
    first, last = at_exhaust - exhaust_cam.open_period / 2, at_intake + cam.open_period / 2
    angle = np.linspace(first, last, int(np.ceil((last - first) / STEP)) + 1)
    middle = (angle[1:] + angle[:-1]) / 2
    return _Timing(angle, middle - at_intake, middle - at_exhaust)


def _lift(cam: AnyCam, from_centre: Array) -> Array:
    """Valve lift at angles from the lobe's centre [m]; zero where it is shut."""
    phase = from_centre / cam.open_period + 0.5
    lifts = cam.lifts
    return np.interp(phase, np.linspace(0, 1, len(lifts)), lifts, left=0.0, right=0.0)


def _run(findings: Findings, port: Port, cut: Cut) -> ReducedRun:
    found = findings.runs_of(cut, port)
    if not found:
        raise ValueError(f"cut {cut.number} of {port.name} was not flowed")
    if found[-1].kind == "index":
        raise ValueError(f"{port.name} was flowed on a bench that is not calibrated: filling wants CFM")
    return found[-1]


def effective_area(run: ReducedRun, lift: Array) -> Array:
    """CdA at lifts [m2]: what a perfect nozzle of that area would pass at the run's pressure. Beyond the highest
    tested lift it stays as it was there."""
    return np.interp(lift, np.r_[0.0, run.lift], np.r_[0.0, run.effective_area])


def _drawn(run: ReducedRun, findings: Findings, lift: Array, random: np.random.Generator) -> Array:
    """CdA over the crank as read, then in draws of its doubt, shape (n, 1 + draws): bolting-down is one factor, each
    reading has its own."""
    scatter = findings.scatter(run.setup.bench)
    base = run.effective_area
    common = 1 + scatter.mount * random.standard_normal(DRAWS)
    own = 1 + scatter.repeat * random.standard_normal((DRAWS, len(base)))
    curves = np.vstack([base, base * own * common[:, None]])
    x = np.r_[0.0, run.lift]
    return np.array([np.interp(lift, x, np.r_[0.0, curve]) for curve in curves]).T


def _exhaust(findings: Findings, port: Port, intake: ReducedRun, guessed: list[str]) -> tuple[ReducedRun, float, float]:
    """The run that the exhaust is taken from, what its flow is multiplied by, and the doubt of that."""
    job = findings.job
    mine = [p for p in job.ports if p.kind == "exhaust" and p.cylinder == port.cylinder]
    others = [p for p in job.ports if p.kind == "exhaust" and p not in mine]
    for other in (*mine, *others):
        runs = [r for c in other.cuts for r in findings.runs_of(c, other) if r.kind == "flow"]
        if runs:
            if other not in mine:
                guessed.append(f"exhaust as {other.name}")
            return runs[-1], float(job.ports_beside(other)), EXHAUST_DOUBT
    guessed.append("exhaust: 75 % of the intake")
    return intake, EXHAUST_SHARE * job.ports_beside(port), GUESSED_DOUBT


def _cylinder(job: Job, guessed: list[str]) -> Cylinder:
    assert job.bore is not None
    assert job.stroke is not None
    if job.rod_length is None:
        guessed.append("rod: 1.7 strokes")
    if job.compression is None:
        guessed.append("compression: 10")
    return Cylinder(
        job.bore, job.stroke, job.rod_length or USUAL_ROD * job.stroke, job.compression or USUAL_COMPRESSION
    )


def _limit(job: Job, run: ReducedRun, cam: AnyCam, speeds: Array, share: int) -> tuple[Array | None, float | None]:
    """Z at speeds, and the speed where it is 0.6; None without the valve's head."""
    head, valves = run.geometry.valve_diameter, run.geometry.valves
    if head is None or job.bore is None or job.stroke is None:
        return None, None
    count = valves * share
    mean = share * cam.mean(effective_area(run, cam.lifts)) / (count * np.pi / 4 * head**2)
    found = mach_index(job.bore, job.stroke, speeds, head, mean, count)
    return found.z, float(found.limit_speed[0])


def _choke(job: Job, port: Port, cut: Cut, cylinder: Cylinder) -> float | None:
    """The speed at which the piston asks for more than the smallest measured section can pass [rad/s]."""
    area = smallest_section(job, port, cut)
    if area is None:
        return None
    one = demand_velocity(cylinder.bore, cylinder.stroke, cylinder.rod, 1.0, area * job.ports_beside(port))
    return float(CHOKED / one.peak_mach)
