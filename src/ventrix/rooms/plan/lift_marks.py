"""What stands at the tested lifts of a planned port: where its flow separates, and what was noticed there."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from ventrix.core.model.job import Job
from ventrix.core.model.kinds import RungNoteKind
from ventrix.core.planning.next_moves import Plan
from ventrix.rooms.display_units import Units
from ventrix.words import tr

NOTICED: Final = (RungNoteKind.NOISE, RungNoteKind.DIP)
UNSTEADY: Final = "~"


@dataclass(frozen=True, slots=True)
class LiftMarks:
    """Tested lifts [m]; low, middle and high of where the flow separates [m], None where the data do not tell it; a
    letter for what was noticed at a lift; all of it in words."""

    lifts: tuple[float, ...]
    separates: tuple[float, float, float] | None
    noticed: tuple[tuple[float, str], ...]
    said: str


def lift_marks(job: Job, plan: Plan, units: Units) -> LiftMarks:
    """Marks of the state that is planned from."""
    parting = plan.fit.separation
    heard = sorted({(round(lift, 6), kind) for lift, kind in _noticed(job, plan)})
    letters: dict[float, str] = {}
    for lift, kind in heard:
        letter = UNSTEADY if kind == "unsteady" else RungNoteKind(kind).letter
        letters[lift] = letters.get(lift, "") + letter
    said = [tr("{} at {}", kind, units.lift.with_unit(lift)) for lift, kind in heard]
    if parting is not None:
        low, high = (units.lift.text(v) for v in (parting.low, parting.high))
        said.insert(
            0, tr("the flow separates from {} (8 in 10: {} to {})", units.lift.with_unit(parting.lift), low, high)
        )
    words = "; ".join(said) or tr("nothing was noticed at a lift")
    return LiftMarks(
        tuple(float(x) for x in plan.planned.lift),
        None if parting is None else (parting.low, parting.lift, parting.high),
        tuple(letters.items()),
        f"{words[:1].upper()}{words[1:]}.",
    )


def _noticed(job: Job, plan: Plan) -> Iterator[tuple[float, str]]:
    """Dips and noises noted at the bench or in Air, and readings that were not steady."""
    run, cut = plan.planned.run, plan.planned.cuts[-1]
    if run is None:
        return
    for lift in run.unsteady:
        yield lift, "unsteady"
    for own in (r for r in cut.runs if r.id == run.run_id):
        for note in own.rung_notes:
            if note.kind in NOTICED:
                yield note.lift, note.kind
    for seen in cut.observations:
        if seen.kind in NOTICED and seen.lift is not None:
            yield seen.lift, seen.kind
