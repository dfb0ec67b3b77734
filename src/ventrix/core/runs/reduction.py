"""A run reduced: from readings as taken to corrected flow and everything derived from it.

Order, as the formula book has it: reading, indicated flow, leak scaled to the pressure measured at
that point and subtracted, normalised to the nominal test pressure, repeats averaged, derived figures
at reference air.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas import bench_element, bench_flow
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.swirl import reference_speed, torque_speed
from ventrix.core.formulas.uncertainty import Repeats
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import RunBasis, StepKind
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Amount, Said
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.element import indicated, mass_flows, scaled, test_densities
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun, correct_readings
from ventrix.words import tr

Indices = NDArray[np.int64]

STEPS_THAT_COUNT = (StepKind.WARM_UP, StepKind.ZERO, StepKind.LEAK, StepKind.PLATE)  # skipping the others costs nothing

PLATE_NOTE = 0.01  # relative: common practice, no source

RETURN_LIMIT = 0.02  # relative: at a low lift that is a dial moved by a few thousandths (common practice)


LEAK_OFF_NOTE = tr("the readout has the leak off already: nothing is subtracted")

STEPS = tuple((step, unit) for step in (10.0, 5.0, 2.5, 2.0, 1.0, 0.5) for unit in ("cfm", "l/s", "m3/h"))

FEWEST_FOR_STEP = 6


def reduce_run(
    run: FlowRun,
    setup: SetUp,
    geometry: Geometry | None = None,
    mount: str | None = None,
    known: Known | None = None,
    step: float = 0.0,
) -> ReducedRun:
    """Reduce a run to corrected flow at each lift.

    Parameters
    ----------
    run, setup : FlowRun, SetUp
        The readings and the conditions they were taken under.
    geometry : Geometry, optional
        For the derived figures.
    mount : str, optional
        Names the bolting-down; two runs of one mount share its scatter.
    known : Known, optional
        What is known of the bench; assumed values otherwise.
    step : float
        The step of the bench's readout, where it is known [m3/s]; a coarser one that the readings show counts.

    Raises
    ------
    ValueError
        No reading that counts, no test pressure, a leak not smaller than a reading.
    """
    counted = [r for r in run.readings if r.struck is None and r.lift > LIFT_GRAIN / 2]
    notes: list[str] = []
    struck = sum(r.struck is not None for r in run.readings)
    if struck:
        notes.append(tr("{} struck reading{} kept and not counted", struck, "s" * (struck > 1)))
    if any(r.struck is None and r.lift <= LIFT_GRAIN / 2 for r in run.readings):
        notes.append(tr("a reading at zero lift is not part of the curve: enter the leak as such"))
    if not counted:
        raise Refused("the run has no reading that counts")
    kind, raw, said = indicated(counted, setup)
    notes += said
    lift = np.round(np.array([r.lift for r in counted]) / LIFT_GRAIN) * LIFT_GRAIN
    if kind == FlowKind.FLOW:
        if setup.test_pressure is None:
            raise Refused("the test pressure is missing")
        measured = np.array([r.measured_pressure or setup.test_pressure for r in counted], dtype=float)
        leak = leak_of(setup)
        corrected = correct_readings(raw, setup.test_pressure, measured, leak, setup.leak_pressure)
        notes += _bench_notes(lift, raw, measured, setup, leak)
        notes += _return_notes(counted, lift, corrected)
    else:
        corrected, measured, leak = raw, np.ones(len(raw)), 0.0
        notes.append(tr("uncalibrated bench: an index, good for ratios on this bench, never a flow"))
    notes += _step_notes(run)
    order = np.argsort(lift, kind="stable")
    lifts, starts, counts = np.unique(lift[order], return_index=True, return_counts=True)
    mean = np.add.reduceat(corrected[order], starts) / counts
    if np.any(mean <= 0):
        raise Refused("the reading at {} lift is zero", Amount(lifts[np.argmin(mean)], "lift", "mm"))
    g = geometry or Geometry()
    step = max(step, reading_step(counted)) if kind == FlowKind.FLOW else 0.0
    unsteady = tuple(sorted({float(r.lift) for r in counted if r.unsteady}))
    return ReducedRun(
        run_id=run.id,
        setup=setup,
        mount=mount,
        geometry=g,
        kind=kind,
        lift=lifts,
        flow=mean,
        readings=counts.astype(float),
        repeats=Repeats.of(corrected[order], starts, step),
        swirl=_mean_swirl(counted, setup, raw, measured, leak, order, starts),
        pressure_at=np.add.reduceat(measured[order], starts) / counts,
        singles=tuple(tuple(float(q) for q in each) for each in np.split(corrected[order], starts[1:])),
        bench_notes=tuple(notes),
        unsteady=unsteady,
        known=known or Known(),
        open_flow=_open_flow(run, setup) if kind == FlowKind.FLOW else None,
        heard=tuple((n.lift, n.kind) for n in run.rung_notes),
        claimed=run.claimed or "",
        house=(run.house.strip() or tr("another shop")) if run.basis == RunBasis.PAPER else "",
        step=step,
        date=run.date,
    )


def reading_step(readings: Sequence[Reading]) -> float:
    """The step that readings of flow come in [m3/s]: the largest usual one that all of them are multiples of, where
    that is coarser than a tenth of a unit; nought where they show none.

    Six readings at least: of fewer, round figures may be chance. Source: common practice, no source.
    """
    flows = [r.flow for r in readings if r.flow is not None]
    if len(flows) < FEWEST_FOR_STEP or len(flows) < len(readings):
        return 0.0
    for step, symbol in STEPS:
        size = to_si(step, symbol)
        shares = np.array(flows) / size
        if np.all(np.abs(shares - np.round(shares)) < 1e-3) and len(set(np.round(shares))) > 2:
            return size
    return 0.0


def leak_of(setup: SetUp) -> float:
    """The leak to take off a set-up's readings [m3/s], as its own element read it in the air of its own pressure.

    Nought where the readout has it off already, or none was read. Source: formula book of this project.
    """
    return scaled(setup.leak, setup, setup.leak_pressure)[0] if setup.leak and not setup.leak_taken_off else 0.0


def _open_flow(run: FlowRun, setup: SetUp) -> float | None:
    """The open-port reading of a run, leak off and at nominal pressure; None without one."""
    step = run.step("open port")
    if step is None or step.flow is None or setup.test_pressure is None:
        return None
    flow = scaled(step.flow, setup, step.pressure)[0]
    leak = leak_of(setup)
    try:
        measured = None if step.pressure is None else [step.pressure]
        return float(correct_readings([flow], setup.test_pressure, measured, leak, setup.leak_pressure)[0])
    except Refused:
        return None


def _step_notes(run: FlowRun) -> list[str]:
    """What was skipped before the lifts, and a plate that was out of its usual."""
    done = {s.kind for s in run.steps if s.skipped is None}
    notes = [
        tr("{} skipped: {}", s.kind, s.skipped)
        for s in run.steps
        if s.skipped is not None and s.kind not in done and s.kind in STEPS_THAT_COUNT
    ]
    plate = run.step(StepKind.PLATE)
    if plate is not None and plate.drift is not None and abs(plate.drift) > PLATE_NOTE:
        notes.append(tr("the reference plate read {} of nominal that day", percent_text(plate.drift, sign=True)))
    return notes


def _mean_swirl(
    readings: Sequence[Reading],
    setup: SetUp,
    indicated_flow: Array,
    measured: Array,
    leak: float,
    order: Indices,
    starts: Indices,
) -> Array:
    """Swirl of each lift [rad/s] at the nominal pressure in reference air; NaN where none was read.

    A paddle's speed as it is; an impulse meter's torque as the speed that a paddle would show, by the corrected mass
    flow of the same reading.
    """
    paddle = np.array([np.nan if r.swirl is None else r.swirl for r in readings])
    torque = np.array([np.nan if r.swirl_torque is None else r.swirl_torque for r in readings])
    nominal = setup.test_pressure
    speed = np.full(len(readings), np.nan)
    if nominal is not None and np.any(np.isfinite(paddle) | np.isfinite(torque)):
        density = test_densities(measured, setup)
        speed = reference_speed(paddle, measured, density, nominal)
        if setup.bore is not None and np.any(np.isfinite(torque)):
            through = bench_element.leak_correct(indicated_flow, leak, measured, setup.leak_pressure or nominal)
            mass = mass_flows(through, measured, setup)
            by_torque = torque_speed(torque, mass, setup.bore, measured, density, nominal)
            speed = np.where(np.isfinite(speed), speed, by_torque)
    elif nominal is None:
        speed = paddle  # two columns of water: no pressure to refer it to
    ordered = speed[order]
    counts = np.diff(np.r_[starts, len(ordered)])
    return np.asarray(np.add.reduceat(ordered, starts) / counts)


def _bench_notes(lift: Array, raw: Array, measured: Array, setup: SetUp, leak: float) -> list[str]:
    notes = []
    nominal = setup.test_pressure or np.nan
    if setup.leak_taken_off:
        notes.append(LEAK_OFF_NOTE)
    if leak:
        notes += bench_element.leak_notes(float(raw.min()), leak, nominal, setup.leak_pressure or nominal)
    off = np.abs(measured / nominal - 1)
    for i in np.flatnonzero(off > bench_flow.PRESSURE_FLAG + 1e-9):
        notes.append(
            Said(
                "pressure at {} lift was {} off the test pressure: over 3 %",
                Amount(lift[i], "lift", "mm"),
                percent_text(float(off[i])),
            )
        )
    return notes


def _return_notes(readings: Sequence[Reading], lift: Array, corrected: Array) -> list[str]:
    """Where coming back to a low lift read something else: the head or the dial has moved."""
    back = np.array([r.returned for r in readings])
    notes: list[str] = []
    for x in np.unique(lift[back]):
        up, down = corrected[(lift == x) & ~back], corrected[(lift == x) & back]
        if not len(up):
            continue
        off = float(down.mean() / up.mean() - 1)
        if abs(off) > RETURN_LIMIT:
            notes.append(
                Said(
                    "coming back to {} read {} of the way up: the head or the dial has moved",
                    Amount(x, "lift", "mm"),
                    percent_text(off, sign=True),
                )
            )
    return notes
