"""What was cut on the developed port brought onto another: whole, in part, not at all, or read the wall first; each by
that port's own walls."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from ventrix.core.judging.model_port import state_of_model
from ventrix.core.judging.wording import Wording
from ventrix.core.metal.walls import limit_at, spare_at
from ventrix.core.model.cut import Cut, Port, Work, carried_figure
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.words import tr

NO_WALL: Final = (Place.CHAMBER, Place.SEAT, Place.ALL_OVER)  # no wall of the port bounds them
LEAST_DEPTH: Final = 0.05e-3  # m: under it a copy is done


class Answer(StrEnum):
    """How much of it may be copied."""

    WHOLE = "whole"
    PART = "part"
    NO = "no"
    READ_FIRST = "read first"


@dataclass(frozen=True, slots=True)
class Copy:
    """A place of the developed port's work onto another port: planned and possible depth [m], why, and which of its
    works it stands for. `depth` is None where the model's own was not said; `left` is the thinnest wall read there."""

    port: Port
    place: str
    side: str | None
    planned: float | None
    depth: float | None
    answer: Answer
    sentence: str
    left: float | None = None


def copies(job: Job, model: Port, state: Cut, port: Port, words: Wording | None = None) -> tuple[Copy, ...]:
    """What is left to copy of the developed port's work, up to one of its states, onto another port.

    Parameters
    ----------
    job, model, state : Job, Port, Cut
        The developed port and the state that is copied.
    port : Port
        The port that it is brought onto, as it stands at its last cut.
    words : Wording, optional
        Units of the sentences; inches without.

    Returns
    -------
    tuple of Copy
        One a place and side, in the order of the work; what the port has already is taken off.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source: nothing is ground to a depth where the wall was not read on this very port.
    """
    words, cut = words or Wording(), port.cuts[-1]
    has = state_of_model(model, cut).number if cut.number else 0
    wanted = _summed([w for c in model.cuts if 0 < c.number <= state.number for op in c.operations for w in op.works])
    done = _summed([w for c in port.cuts for op in c.operations for w in op.works])
    found = []
    for (place, side), depth in wanted.items():
        had = done.get((place, side), 0.0)
        if (place, side) in done and (depth is None or had is None):
            continue
        left = None if depth is None else depth - (had or 0.0)
        if left is not None and left < LEAST_DEPTH:
            continue
        if left is None and has >= state.number:
            continue
        found.append(_one(job, port, cut, place, side, left, words))
    return tuple(found)


def not_copied(model: Port, state: Cut, port: Port) -> tuple[Cut, ...]:
    """Cuts of the model port, up to a state, with work that another port does not have yet.

    Parameters
    ----------
    model, state : Port, Cut
        The developed port, and the state that is copied.
    port : Port
        The port that it is brought onto.

    Returns
    -------
    tuple of Cut
        In their order.
    """
    has = _summed([w for c in port.cuts for op in c.operations for w in op.works])
    came: dict[tuple[str, str | None], float] = {}
    found = []
    for cut in (c for c in model.cuts if 0 < c.number <= state.number):
        missing = False
        for (place, side), depth in _summed([w for op in cut.operations for w in op.works]).items():
            had = has.get((place, side), 0.0)
            came[place, side] = came.get((place, side), 0.0) + (depth or 0.0)
            missing |= (place, side) not in has or (had is not None and came[place, side] - had >= LEAST_DEPTH)
        if missing:
            found.append(cut)
    return tuple(found)


def _summed(works: Sequence[Work]) -> dict[tuple[str, str | None], float | None]:
    """Depth by place and side; None where one of them has none."""
    found: dict[tuple[str, str | None], float | None] = {}
    for work in works:
        key = work.place, work.side
        had = found.get(key, 0.0)
        found[key] = None if had is None or work.depth is None else had + work.depth
    return found


def _one(job: Job, port: Port, cut: Cut, place: str, side: str | None, planned: float | None, words: Wording) -> Copy:
    spare = spare_at(job, port, cut, place)

    def said(depth: float | None, answer: Answer, sentence: str) -> Copy:
        left = None if spare is None else spare + limit_at(job, port, cut, place)
        return Copy(port, place, side, planned, depth, answer, sentence, left)

    def size(value: float) -> str:
        return f"{words.lift(value)} {words.lift_unit}"

    if place in NO_WALL:
        return said(planned, Answer.WHOLE, tr("full depth: no wall limits it here"))
    if place == Place.OPENING:
        land = carried_figure(port, cut, "gasket_land")
        if land is not None and spare is None:
            return said(planned, Answer.WHOLE, tr("to the scribe: {} of land is left now", size(land)))
    if spare is None:
        return said(None, Answer.READ_FIRST, tr("its wall was not read on this port, or was worked since"))
    limit = size(limit_at(job, port, cut, place))
    if spare < LEAST_DEPTH:
        return said(0.0, Answer.NO, tr("leave: its wall is at your limit of {}", limit))
    if planned is None:
        return said(None, Answer.WHOLE, tr("as on the developed port, no deeper than {}", size(spare)))
    if spare >= planned:
        return said(planned, Answer.WHOLE, tr("full depth, {}", size(planned)))
    return said(
        spare, Answer.PART, tr("{} of {}: that leaves the wall at your limit of {}", size(spare), size(planned), limit)
    )
