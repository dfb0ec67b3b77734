"""The job's engine as filling wants it, and one port's two sides run through it with their doubt."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.core.engine.cylinder import Cylinder, R
from ventrix.core.engine.filling import Around, Contents, Valves, fill
from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.cam import AnyCam
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, Induction
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

SEED: Final = 23
DRAWS: Final = 40
SPEEDS: Final = 12
STEP: Final = np.radians(1.0)
COARSE: Final = np.radians(3.0)  # of the cycles that only lead up to where the fine ones begin
SETTLED: Final = 6e-4  # from there on: what is left then is a fifth of it, and a draw differs by far more
# Taken where a job does not say (common practice, no source).
USUAL_INTAKE, USUAL_EXHAUST = np.radians(108.0), np.radians(112.0)
USUAL_COMPRESSION: Final = 10.0
USUAL_ROD: Final = 1.7  # strokes
USUAL_SPEEDS: Final = to_si(1500.0, "rpm"), to_si(7000.0, "rpm")
USUAL_RATING: Final = to_si(1.5, "inHg")  # that carburettors are rated at
EXHAUST_SHARE: Final = 0.75  # of the intake's flow, where no exhaust was flowed
EXHAUST_DOUBT, GUESSED_DOUBT = 0.01, 0.08
LOW: Final = 0.15  # of the valve's diameter: lifts that blow-down goes through first


@dataclass(frozen=True, slots=True)
class Side:
    """A port's run with the cam that opens it."""

    run: ReducedRun
    cam: AnyCam


@dataclass(frozen=True, slots=True)
class Engine:
    """One cylinder of the job's engine, its cams and their centrelines [rad], lash [m], what it breathes; `ports` of a
    kind open into it. `throttle` is the effective area of what all cylinders breathe through [m2]. `missing` is what an
    absolute figure wants, `guessed` what was taken as usual."""

    cylinder: Cylinder
    cam: AnyCam
    exhaust_cam: AnyCam
    intake_centreline: float
    exhaust_centreline: float
    intake_lash: float
    exhaust_lash: float
    speeds: Array
    ports: int
    around: Around
    throttle: float | None
    cylinders: int
    exhaust: ReducedRun
    exhaust_part: float
    exhaust_doubt: float
    missing: tuple[str, ...]
    guessed: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Breathing:
    """Filling of both sides over speeds, shape (2, n), and of the second its doubt and residual; their difference with
    eight in ten; what blow-down leaves, and the share of the exhaust's area under a low lift until bottom dead centre
    with that lift [m]; the pressure in the manifold of the second [Pa]."""

    filling: Array
    low: Array
    high: Array
    residual: Array
    difference: Array
    difference_low: Array
    difference_high: Array
    left_at_bottom: Array
    low_lifts: tuple[float | None, float | None]
    manifold: Array


def area_at(run: ReducedRun, lift: Array) -> Array:
    """CdA at lifts [m2]: what a perfect nozzle of that area would pass at the run's pressure. Beyond the highest
    tested lift it stays as it was there."""
    return np.interp(lift, np.r_[0.0, run.lift], np.r_[0.0, run.effective_area])


def engine_of(findings: Findings, port: Port, intake: ReducedRun) -> Engine:
    """The engine that a job's intake port breathes for.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        An intake.
    intake : ReducedRun
        What an exhaust that nobody flowed is guessed from.

    Returns
    -------
    Engine

    Raises
    ------
    ValueError
        Bore, stroke or the intake's cam is missing, in words.

    References
    ----------
    Defaults: common practice, no source.
    """
    job, cam = findings.job, findings.cam_of(Direction.INTAKE)
    absent = [w for w, v in (("bore", job.bore), ("stroke", job.stroke), (tr("intake cam"), cam)) if v is None]
    if absent:
        raise Refused("volumetric efficiency needs {} (Head)", ", ".join(absent))
    assert cam is not None
    guessed: list[str] = []
    cylinder = _cylinder(job, guessed)
    missing = [w for w, v in ((tr("intake centerline"), job.intake_centreline),
                              (tr("exhaust centerline"), job.exhaust_centreline)) if v is None]  # fmt: skip
    if job.speed_low is None or job.speed_high is None:
        guessed.append("speeds")
    exhaust, part, doubt = _exhaust(findings, port, intake, guessed)
    around, throttle = _around(job, guessed)
    return Engine(
        cylinder,
        cam,
        findings.cam_of(Direction.EXHAUST) or cam,
        USUAL_INTAKE if job.intake_centreline is None else job.intake_centreline,
        USUAL_EXHAUST if job.exhaust_centreline is None else job.exhaust_centreline,
        job.intake_lash or 0.0,
        job.exhaust_lash or 0.0,
        np.linspace(job.speed_low or USUAL_SPEEDS[0], job.speed_high or USUAL_SPEEDS[1], SPEEDS),
        job.ports_beside(port),
        around,
        throttle,
        job.engine_cylinders or 1,
        exhaust,
        part,
        doubt,
        tuple(missing),
        tuple(guessed),
    )


def breathe(engine: Engine, findings: Findings, sides: tuple[Side, Side]) -> Breathing:
    """Run both sides through the engine, as read and in draws of their doubt.

    Parameters
    ----------
    engine : Engine
        See there.
    findings : Findings
        Of the job: what its benches scatter by.
    sides : (Side, Side)
        Before and after.

    Returns
    -------
    Breathing
        Filling is of the air before a carburettor or throttle body, where there is one.

    Raises
    ------
    ValueError
        The cycles do not settle.

    References
    ----------
    `filling.fill`. A throttle passes its rated flow at its rated pressure, and as the root of the pressure elsewhere.
    """
    first, last = opens_at(engine), max(closes_at(engine, s.cam) for s in sides)
    n, count = len(engine.speeds), DRAWS + 1
    manifold, start = _begun(engine, sides, first, last)
    angle, middle = steps(first, last, STEP)
    random = np.random.default_rng(SEED)
    lifts_out, out = outlet(engine, middle)
    outs = out[:, None] * np.r_[1.0, 1 + engine.exhaust_doubt * random.standard_normal(DRAWS)]
    ins = [engine.ports * _drawn(s.run, findings, intake_lift(engine, s, middle), random) for s in sides]
    # Columns by side, then as read and in draws, then by speed.
    wide = np.hstack([np.repeat(i, n, axis=1) for i in ins])
    valves = Valves(angle, wide, np.hstack(2 * [np.repeat(outs, n, axis=1)]))
    where = np.tile(np.arange(2 * n).reshape(2, 1, n), (1, count, 1)).ravel()
    found = fill(
        engine.cylinder,
        valves,
        np.tile(engine.speeds, 2 * count),
        replace(engine.around, manifold=manifold.ravel()[where]),
        start.columns(where),
        SETTLED,
    )
    share = manifold / float(np.mean(engine.around.manifold))
    every = found.filling.reshape(2, count, n) * share[:, None, :]
    as_read, both = every[:, 0], every[:, 1:]
    change, spread = as_read[1] / as_read[0] - 1, both[1] / both[0] - 1
    low, high = np.quantile(both[1], [0.1, 0.9], axis=0)
    less, more = np.quantile(spread, [0.1, 0.9], axis=0)
    return Breathing(
        as_read,
        np.minimum(low, as_read[1]),
        np.maximum(high, as_read[1]),
        found.residual.reshape(2, count, n)[1, 0],
        change,
        np.minimum(less, change),
        np.maximum(more, change),
        found.left_at_bottom.reshape(2, count, n)[1, 0],
        _low_lifts(engine, lifts_out, out, middle),
        manifold[1],
    )


def _begun(engine: Engine, sides: tuple[Side, Side], first: float, last: float) -> tuple[Array, Contents]:
    """Where a cycle of both sides as read begins, by coarse steps, shape (2 n,); and the pressure in the manifold,
    shape (2, n): behind a throttle it is first reckoned without one."""
    n = len(engine.speeds)
    angle, middle = steps(first, last, COARSE)
    out = outlet(engine, middle)[1]
    ins = [engine.ports * area_at(s.run, intake_lift(engine, s, middle)) for s in sides]
    valves = Valves(angle, np.repeat(np.stack(ins, axis=1), n, axis=1), np.repeat(out[:, None], 2 * n, axis=1))
    speeds = np.tile(engine.speeds, 2)
    found = fill(engine.cylinder, valves, speeds, engine.around, settled=SETTLED)
    manifold = np.full(2 * n, float(np.mean(engine.around.manifold)))
    if engine.throttle is not None:
        taken = found.filling * engine.cylinder.swept * engine.cylinders * speeds / (4 * np.pi)
        manifold = behind_throttle(engine.throttle, engine.around, taken)
    return manifold.reshape(2, n), found.end


def steps(first: float, last: float, step: float) -> tuple[Array, Array]:
    """Even steps of the crank, and their middles."""
    angle = np.linspace(first, last, int(np.ceil((last - first) / step)) + 1)
    return angle, (angle[1:] + angle[:-1]) / 2


def intake_lift(engine: Engine, side: Side, middle: Array) -> Array:
    """Intake lift over the crank [m]."""
    return _lift(side.cam, middle - 2 * np.pi - engine.intake_centreline, engine.intake_lash)


def outlet(engine: Engine, middle: Array) -> tuple[Array, Array]:
    """Exhaust lift [m] and effective area [m2] over the crank."""
    lifts = _lift(engine.exhaust_cam, middle - 2 * np.pi + engine.exhaust_centreline, engine.exhaust_lash)
    return lifts, engine.exhaust_part * area_at(engine.exhaust, lifts)


def behind_throttle(area: float, around: Around, taken: Array) -> Array:
    """Pressure behind a throttle that the engine's mean flow goes through.

    .. math:: p_0 - p = \\frac{\\dot m^2}{2 \\rho_0 A^2}, \\quad \\dot m = \\frac{p}{R T} \\dot V

    Parameters
    ----------
    area : float
        Effective area [m2].
    around : Around
        Pressure and temperature before it.
    taken : ndarray
        What all cylinders take in of the air as it is behind the throttle [m3/s].

    Returns
    -------
    ndarray
        [Pa].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Bernoulli's equation, incompressible: the drop is a few percent. The mean flow stands for the flow: a plenum.
    """
    before = float(np.mean(around.manifold))
    k = taken**2 / (2 * before * R * around.manifold_temperature * area**2)
    return np.asarray((np.sqrt(1 + 4 * k * before) - 1) / (2 * np.maximum(k, 1e-30)))


def opens_at(engine: Engine) -> float:
    """Exhaust opening, after the firing top [rad]."""
    return 2 * np.pi - engine.exhaust_centreline - engine.exhaust_cam.open_period / 2


def closes_at(engine: Engine, cam: AnyCam) -> float:
    """Intake closing, after the firing top [rad]."""
    return 2 * np.pi + engine.intake_centreline + cam.open_period / 2


def _lift(cam: AnyCam, from_centre: Array, lash: float) -> Array:
    """Valve lift at angles from the lobe's centre [m]; zero where it is shut."""
    phase = from_centre / cam.open_period + 0.5
    lifts = cam.lifts
    found = np.interp(phase, np.linspace(0, 1, len(lifts)), lifts, left=0.0, right=0.0)
    return np.maximum(found - lash, 0.0)


def _drawn(run: ReducedRun, findings: Findings, lift: Array, random: np.random.Generator) -> Array:
    """CdA over the crank as read, then in draws of its doubt, shape (n, 1 + draws): bolting-down is one factor, the
    dial's zero one shift of every lift, and each reading has its own."""
    known = findings.known(run.setup.bench)
    base = run.effective_area
    common = 1 + known.scatter.mount * random.standard_normal(DRAWS)
    own = 1 + known.scatter.repeat * random.standard_normal((DRAWS, len(base)))
    zero = np.r_[0.0, known.instrument.lift * random.standard_normal(DRAWS)]
    curves = np.vstack([base, base * own * common[:, None]])
    return np.array(
        [
            np.interp(lift, np.r_[0.0, np.maximum(run.lift + off, 1e-6)], np.r_[0.0, curve])
            for curve, off in zip(curves, zero, strict=True)
        ]
    ).T


def _low_lifts(engine: Engine, lift: Array, area: Array, angle: Array) -> tuple[float | None, float | None]:
    """How much of the exhaust's effective area until bottom dead centre lies under a low lift, and that lift."""
    head = engine.exhaust.geometry.valve_diameter
    until = angle <= np.pi
    whole = float(np.sum(area[until]))
    if head is None or whole <= 0:
        return None, None
    return float(np.sum(area[until & (lift <= LOW * head)])) / whole, LOW * head


def _exhaust(findings: Findings, port: Port, intake: ReducedRun, guessed: list[str]) -> tuple[ReducedRun, float, float]:
    """The run that the exhaust is taken from, what its flow is multiplied by, and the doubt of that."""
    job = findings.job
    mine = [p for p in job.ports if p.kind == Direction.EXHAUST and p.of_head and p.cylinder == port.cylinder]
    others = [p for p in job.ports if p.kind == Direction.EXHAUST and p.of_head and p not in mine]
    for other in (*mine, *others):
        runs = [r for c in other.cuts for r in findings.runs_of(c, other) if r.kind == FlowKind.FLOW]
        if runs:
            if other not in mine:
                guessed.append(tr("exhaust as {}", other.name))
            return runs[-1], float(job.ports_beside(other)), EXHAUST_DOUBT
    guessed.append(tr("exhaust: 75 % of the intake"))
    return intake, EXHAUST_SHARE * job.ports_beside(port), GUESSED_DOUBT


def _cylinder(job: Job, guessed: list[str]) -> Cylinder:
    assert job.bore is not None
    assert job.stroke is not None
    if job.rod_length is None:
        guessed.append(tr("rod: 1.7 strokes"))
    if job.compression_ratio is None:
        guessed.append(tr("compression: 10"))
    return Cylinder(
        job.bore, job.stroke, job.rod_length or USUAL_ROD * job.stroke, job.compression_ratio or USUAL_COMPRESSION
    )


def _around(job: Job, guessed: list[str]) -> tuple[Around, float | None]:
    """What the engine breathes, and the effective area of what all its cylinders breathe through [m2]."""
    usual = Around()
    around = Around(
        usual.manifold if job.manifold_pressure is None else job.manifold_pressure,
        usual.manifold_temperature if job.manifold_temperature is None else job.manifold_temperature,
        usual.exhaust if job.exhaust_pressure is None else job.exhaust_pressure,
    )
    if job.induction == Induction.BOOSTED and job.manifold_pressure is None:
        guessed.append(tr("manifold pressure: as without boost"))
    if job.induction_flow is None:
        return around, None
    if job.engine_cylinders is None:
        guessed.append(
            tr("induction left out: how many cylinders the whole engine has was not entered (Head, Casting)")
        )
        return around, None
    rated = job.induction_pressure
    if rated is None:
        rated = USUAL_RATING
        guessed.append(tr("induction rated at {:.1f} inHg", from_si(rated, "inHg")))
    return around, job.induction_flow / float(ideal_flux(rated))
