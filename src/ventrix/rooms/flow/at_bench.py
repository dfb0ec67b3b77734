"""What happens at the bench before the lifts: which bench it is, and each step's outcome put in the book. No widget."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from ventrix.bench.procedure.preparation import StepDone, StepSkipped
from ventrix.core.benches.plate import plate_sentence
from ventrix.core.model.bench import Bench, PlateCheck, bench_named, same_name
from ventrix.core.model.bench_kinds import LinkKind
from ventrix.core.model.kinds import StepKind
from ventrix.core.model.run import StepRecord
from ventrix.core.quantity.units import tidy
from ventrix.core.quantity.words import sentence
from ventrix.core.runs.reduced_run import correct_readings
from ventrix.rooms.flow.element_in_hand import DEFAULT_PRESSURE
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class Connected(Protocol):
    """The bench that is connected: the record it stands for, whether it is the simulated one, what it says of
    itself."""

    connected: bool
    is_simulated: bool
    answers_for: str
    sentence: str


def other_bench(hand: RunInHand, bench: Connected) -> str:
    """What is asked where the bench connected is not the set-up's; nothing where it is, or none is."""
    record = hand.bench
    if not bench.connected or record is None:
        return ""
    name = bench.answers_for
    same = same_name(name, record.name) if name else (record.link == LinkKind.SIMULATED and bench.is_simulated)
    if same:
        return ""
    theirs = name or (tr("the simulated bench") if bench.is_simulated else bench.sentence)
    return tr("Which bench is this? The set-up says {}, and {} is connected.", record.name, theirs)


def use_connected(hand: RunInHand, bench: Connected) -> None:
    """Flow on the bench that is connected: its record where the shop has one, else its name alone."""
    record = bench_named(hand.space.benches, bench.answers_for)
    if record is None and bench.is_simulated:
        record = next((b for b in hand.space.benches if b.link == LinkKind.SIMULATED), None)
    if record is not None:
        hand.use_bench(record)
        return
    name = bench.answers_for or ("simulated bench" if bench.is_simulated else bench.sentence)
    plain = replace(hand.setup, element=None, scale_density=None, orifice_diameter=None, leak=None, seat_leak=None)
    hand.use_setup(replace(plain, bench=name[:60], test_pressure=plain.test_pressure or DEFAULT_PRESSURE))


def record_step(hand: RunInHand, outcome: StepDone | StepSkipped, source: str) -> tuple[tuple[str, ...], bool]:
    """Put a step's outcome in the book, and what follows from it in place. Returns sentences about it, and whether
    it lies out of its limits."""
    notes: tuple[str, ...] = ()
    outside = False
    benches = None
    record = StepRecord(id=new_id(), kind=outcome.step.value, time=now_text())
    if isinstance(outcome, StepSkipped):
        record = replace(record, skipped=outcome.reason)
    else:
        flow = None if outcome.flow is None else hand.element.step_flow(outcome.flow, outcome.pressure)
        record = replace(record, flow=flow, pressure=outcome.pressure, drift=outcome.drift)
        notes, outside = outcome.notes, outcome.out_of_limits
        if outcome.step is StepKind.PLATE and flow is not None:
            benches, said, off, inside = _plate_checked(hand, flow, outcome.pressure)
            outside = not inside
            record = replace(record, drift=off)
            notes = (*notes, said)
    hand.space.runs.record_step(hand.setup, hand.mount, record, source, benches)
    if isinstance(outcome, StepDone) and record.flow is not None:
        at = outcome.pressure or hand.nominal
        if outcome.step is StepKind.LEAK:
            hand.use_setup(replace(hand.setup, leak=record.flow, leak_pressure=at))
        elif outcome.step is StepKind.SEAT_LEAK:
            through_seat = max(record.flow - (hand.setup.leak or 0.0), 0.0)
            hand.use_setup(replace(hand.setup, seat_leak=tidy(through_seat)))
    return notes, outside


def _plate_checked(
    hand: RunInHand, flow: float, pressure: float | None
) -> tuple[tuple[Bench, ...] | None, str, float | None, bool]:
    """The benches with one more plate check, the sentence about it, how far off nominal it is, and whether that is
    in its limits."""
    bench = hand.bench
    nominal = hand.setup.test_pressure
    if bench is None or bench.plate_flow is None:
        return None, "", None, True
    at_nominal = flow
    if nominal is not None and pressure:
        at_nominal = float(correct_readings([flow], nominal, [pressure])[0])
    check = PlateCheck(id=new_id(), nominal=bench.plate_flow, flow=tidy(at_nominal), pressure=nominal, date=now_text())
    grown = replace(bench, plates=(*bench.plates, check))
    inside, said = plate_sentence(grown.plates)
    benches = tuple(grown if b.id == bench.id else b for b in hand.space.benches)
    return benches, sentence(said), tidy(at_nominal / bench.plate_flow - 1), inside
