"""Route cards: what to look at, measure, cut and leave at each stage of a head, and what closes it.

What they say is common practice, no source. No measurement is required: one that is missing would sharpen its stage.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import limit_for
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, Place, Use
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Amount, Said, joined
from ventrix.core.work.record import Record, record_of
from ventrix.core.work.stages import Stage
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Card:
    """One stage at one port: what to look at, what to measure (it would sharpen the stage), what to cut and what to
    leave, when to stop, the usual caution, what closes it, and whether the record shows it done."""

    stage: str
    port: str
    look: str
    measure: str
    cut: str
    leave: str
    stop_when: str
    caution: str
    closed_by: str
    done: bool


def route(
    findings: Findings, port: Port | None = None, look_first: Sequence[str] = (), read_first: Sequence[str] = ()
) -> tuple[Card, ...]:
    """The cards of a job in order: one port finished first, then stage by stage over all others.

    Parameters
    ----------
    findings : Findings
        Of the job: its use puts exhausts or intakes first, its preferences say how.
    port : Port, optional
        Of this port alone.
    look_first, read_first : sequence of str
        Faults and thin walls that other heads of this casting had, in words.

    Returns
    -------
    tuple of Card
        One a stage and port.

    Raises
    ------
    ValueError
        No port.

    References
    ----------
    Common practice, no source.
    """
    job, record = findings.job, record_of(findings)
    ports = [port] if port is not None else ports_in_order(job)
    if not ports:
        raise Refused("a route needs a port")
    if port is not None and not port.of_head:
        raise Refused("{} is not worked on: it has no stages", port.name)
    first, rest = ports[0], ports[1:]
    usual = {"faults": look_first, "walls": read_first}
    cards = [_card(record, first, stage, usual) for stage in record.stages]
    cards += [_card(record, each, stage, usual) for stage in record.stages for each in rest]
    return tuple(cards)


def next_card(cards: tuple[Card, ...]) -> Card | None:
    """The first that is not done."""
    return next((c for c in cards if not c.done), None)


def ports_in_order(job: Job) -> list[Port]:
    """A truck's exhausts come first, otherwise intakes; witness ports are never cut."""
    kinds = ("exhaust", "intake") if job.use == Use.TRUCK else ("intake", "exhaust")
    return sorted((p for p in job.ports if p.of_head), key=lambda p: kinds.index(p.kind))


def _card(record: Record, port: Port, stage: Stage, usual: Mapping[str, Sequence[str]]) -> Card:
    own = _own(record.job, port, stage)
    if usual.get(stage.key):
        own.setdefault("look", []).append(tr("Usual on this casting: {}.", "; ".join(usual[stage.key])))
    state = record.at(stage.key, port)

    def words(name: str, text: str) -> str:
        return joined([part for part in (text, *own.get(name, ())) if part])

    return Card(
        stage.key,
        port.name,
        words("look", stage.look),
        words("measure", stage.measure),
        words("cut", stage.cut),
        words("leave", stage.leave),
        words("stop_when", stage.stop_when),
        words("caution", stage.caution),
        state.closed_by or stage.closed_by,
        state.done,
    )


def _own(job: Job, port: Port, stage: Stage) -> dict[str, list[str]]:
    """What this job's use and schools add to a stage, by the field of the card."""
    added: dict[str, list[str]] = {}

    def say(where: str, what: str) -> None:
        if what:
            added.setdefault(where, []).append(what)

    for where, question in _asks(port, stage.key):
        say(where, side_taken(job, question).says)
    if stage.key in _LIMITED:
        limit = Amount(limit_for(job, _LIMITED[stage.key]), "length", "in", ".3f")
        say("stop_when", Said("Your limit here is {}.", limit))
    small = job.use == Use.TRUCK and port.kind == Direction.INTAKE
    if small and stage.key in ("short side", "walls and roof", "guide"):
        say("leave", tr("For a truck the intake is left small, for speed: cleaned, its ridge blended."))
    if job.use == Use.OVAL and stage.key == "walls and roof":
        say("leave", tr("For an oval the section stays small: it is the middle lifts that count."))
    if job.use == Use.DRAG and stage.key == "walls and roof":
        say("cut", tr("For drag area comes first, as far as the walls let it."))
    return added


_LIMITED: Final = {"ridge": Place.BOWL, "short side": Place.SHORT_SIDE, "walls and roof": Place.PINCH}


def _asks(port: Port, stage: str) -> Iterator[tuple[str, str]]:
    """Questions of the schools that a stage rests on, and the field of the card they speak in."""
    exhaust = port.kind == Direction.EXHAUST
    yield from {
        "scribe": [("leave", "gasket")],
        "casting lines": [("cut", "bumps"), ("leave", "floor")] if exhaust else [("leave", "floor")],
        "ridge": [("stop_when", "throat")],
        "guide": [("cut", "boss")],
        "valve job": [("cut", "seat"), ("cut", "seat_form"), *([("leave", "back_cut")] if exhaust else [])],
        "finish": [("stop_when", "exhaust_surface" if exhaust else "surface")],
    }.get(stage, [])
