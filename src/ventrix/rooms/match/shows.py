"""What the Match room shows: the strip, a cell a port, the stage board, and what may be copied."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.alike import Alike, Difference, ports_alike, worth_flowing
from ventrix.core.matching.copying import Answer, Copy, copies
from ventrix.core.matching.core_shift import NO_CLEARANCE, core_shift, hands, zone_walls
from ventrix.core.matching.paired import chambers_of, paired_ports
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, FacePart, Use
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text
from ventrix.core.work.hours import Hours, Paces, hours_of
from ventrix.core.work.record import Record, record_of
from ventrix.rooms.display_units import Units
from ventrix.rooms.match.board_rows import BoardRow, board_rows
from ventrix.rooms.shared.unrolled_map import shift_words
from ventrix.words import tr

KINDS: Final[tuple[Direction, ...]] = (Direction.INTAKE, Direction.EXHAUST)
MANY: Final = 16  # ports: beyond, cells keep name, one figure and ticks


@dataclass(frozen=True, slots=True)
class Strip:
    """The answer on top: what differs, the reason, and hours used, to go, and the promise."""

    verdict: str
    worse: bool
    reason: str
    used: str
    used_below: str
    to_go: str
    promise: str


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a cell, its change where it differs, its caption; `unit` where the caption has no room."""

    text: str
    change: str
    caption: str
    thin: bool = False  # a wall at its limit
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Cell:
    """A port of the head from above. `ticks` are its stages: done, running, waiting or open."""

    port: Port
    short: str
    word: str
    mark: str  # down, dash, clock, none
    mirrored: bool
    developed: bool
    figures: tuple[Figure, ...]
    brief: str  # the one figure that a small cell keeps
    ticks: tuple[str, ...]
    group: str  # its head, where there are several, and its kind


@dataclass(frozen=True, slots=True)
class CopyLine:
    """A place to be copied: tick, half, cross or diamond, what may be done, and the thinnest wall there."""

    copy: Copy
    mark: str
    place: str
    words: str
    wall: str


@dataclass(frozen=True, slots=True)
class Match:
    """Everything the room shows of a job."""

    strip: Strip
    cells: tuple[Cell, ...]
    rows: tuple[BoardRow, ...]
    hours: Hours
    alike: tuple[Alike, ...]
    flow_these: str
    notes: tuple[str, ...]


def kinds_in_order(job: Job) -> tuple[Direction, ...]:
    """Which kind of port is worked first: a truck's exhausts (common practice, no source)."""
    return KINDS[::-1] if job.use == Use.TRUCK else KINDS


def short_name(port: Port) -> str:
    """A port as a cell names it: "I3", "E1", "I2a" of two intakes of a cylinder."""
    first, _, last = port.name.rpartition(" ")
    return f"{first[:1].upper()}{last}" if last[:1].isdecimal() and len(last) <= 4 else port.name[:6]


def told_name(job: Job, port: Port) -> str:
    """A port as a sentence names it: short, and by its head where there are several."""
    head = next((h.name for h in job.heads if h.id == port.head_id), "")
    ahead = f"{head.rsplit(' ', 1)[-1]} " if len(job.heads) > 1 and head else ""
    return f"{ahead}{short_name(port)}" if ahead else port.name


def bolts_along(job: Job) -> tuple[tuple[float, float], ...]:
    """Bolts of the head's face, where Line-up keeps one: how far along from its first port to its last [-], and up."""
    face = next((f for f in job.faces if f.part == FacePart.HEAD and len(f.outlines) > 1), None)
    if face is None:
        return ()
    xs = [o.centre[0] for o in face.outlines]
    return tuple(((b.at[0] - min(xs)) / (max(xs) - min(xs)), b.at[1]) for b in face.bolts if max(xs) > min(xs))


def match_of(findings: Findings, units: Units, today: date, paces: Paces | None = None) -> Match:
    """Everything of a job's ports; `paces` are those of the shop's finished heads."""
    job = findings.job
    alike = tuple(a for kind in kinds_in_order(job) for a in ports_alike(findings, kind))
    heads = [h.id for h in job.heads]
    alike = tuple(sorted(alike, key=lambda a: heads.index(a.port.head_id) if a.port.head_id in heads else 0))
    record = record_of(findings)
    hours = hours_of(record, today, paces=paces)
    ports = [a.port for a in alike]
    flow = [
        told_name(job, p)
        for kind in kinds_in_order(job)
        for p in worth_flowing(tuple(a for a in alike if a.port.kind == kind))
    ]
    rest = sum(not a.flow for a in alike) - len(flow)
    said = tr("Worth a flow test: {}.", ", ".join(flow)) if flow else tr("No flow test is needed now.")
    if flow and rest > 0:
        said += tr(" The other {} add little.", rest)
    return Match(
        _strip(record, alike, hours, units, today),
        tuple(_cell(record, a, units) for a in alike),
        board_rows(record, ports),
        hours,
        alike,
        said,
        _notes(findings, alike, units),
    )


def _figure(d: Difference, units: Units, flow: float | None) -> str:
    """A difference in the unit it is read in."""
    if d.lift is None:
        return f"{units.volume.text(abs(d.value))} cc"
    if flow is None:
        return f"{100 * abs(d.value):.1f} %"
    return f"{units.flow.text(abs(d.value) * flow / (1 + d.value))} {units.flow.label}"


def _strip(record: Record, alike: Sequence[Alike], hours: Hours, units: Units, today: date) -> Strip:
    job = record.job
    differ = [a for a in alike if a.differs]
    thin = [a for a in alike if a.thin]
    behind = sum(a.behind for a in alike)
    worse = bool(differ)
    if len(differ) == 1 and differ[0].in_row:
        one = differ[0]
        most = max(one.differs, key=lambda d: abs(d.value) / d.expanded)
        way = "under" if most.value < 0 else "over"
        size = f"{units.volume.text(abs(most.value))} cc" if most.lift is None else f"{100 * abs(most.value):.1f} %"
        verdict = tr("{}: {} {} its row, proven", one.port.name, size, way)
    elif len(differ) == 1:
        one = differ[0]
        said = ", ".join(_figure(d, units, _flow_at(one, d)) for d in one.differs)
        way = "short" if one.differs[0].value < 0 else "more"
        verdict = f"{one.port.name}: {said} {way}"
    elif differ:
        verdict = tr("{} of {} differ: {}", len(differ), len(alike), ", ".join(told_name(job, a.port) for a in differ))
    elif any(a.in_row for a in alike):
        verdict = tr("As cast, {}", _alike_words(alike))
    elif sum(1 for a in alike if len(a.port.cuts) > 1) <= 1 and len(alike) > 1:
        first = next((a for a in alike if not a.developed), None)
        verdict = tr("One port worked: start with {}", _first_open(record, first.port)) if first else tr("One port")
    elif len(alike) < 2:
        verdict = tr("One port: nothing to compare it with")
    else:
        verdict = _alike_words(alike).capitalize()
    parts = [_mend(differ[0], units)] if len(differ) == 1 else []
    if thin:
        names = ", ".join(told_name(job, a.port) for a in thin)
        parts.append(tr("{} {} thin", names, "is" if len(thin) == 1 else "are"))
    if behind:
        parts.append(tr("{} not as far yet, held to the developed port at the same stage", behind))
    unknown: dict[str, list[str]] = {}
    for a in alike:
        if a.not_known:
            unknown.setdefault(a.not_known, []).append(told_name(job, a.port))
    parts += [tr("Not known, {}: {}", why, ", ".join(names)) for why, names in unknown.items()]
    if not any(a.developed for a in alike):
        parts.append(tr("No port is developed yet: flow one, cut it, flow it again"))
    reason = ". ".join(p for p in parts if p)
    quoted = "" if job.quoted is None else tr(" of {:.0f} quoted", from_si(job.quoted, "h"))
    return Strip(
        verdict,
        worse,
        f"{reason}." if reason else "",
        f"{from_si(hours.used, 'h'):.1f} h",
        tr("used{}", quoted),
        tr("{:.0f} to {:.0f} h", from_si(hours.low, "h"), from_si(hours.high, "h")),
        promise_words(job, hours),
    )


def _first_open(record: Record, port: Port) -> str:
    """The first stage of a port itself that is still to be done."""
    open_there = (s for s in record.states if s.ports == (port,) and not s.done)
    state = next(open_there, None)
    return tr("{} on {}", state.stage.name, short_name(port)) if state is not None else short_name(port)


def _alike_words(alike: Sequence[Alike]) -> str:
    """What was found alike and how closely, in small letters; only of what was measured on both."""
    known = [a for a in alike if a.differences]
    flow = [d.expanded for a in known for d in a.differences if d.lift is not None]
    said = [tr("in flow within {:.1f} %", 100 * max(flow))] if flow else []
    said += [tr("in volume")] if any(d.lift is None for a in known for d in a.differences) else []
    if not said:
        return tr("not known: no two ports were measured alike")
    return tr("alike {}, {} of {} ports", " and ".join(said), len(known), len(alike))


def promise_words(job: Job, hours: Hours) -> str:
    """The promise as a day and tenths."""
    if job.promise_date is None or hours.holds is None:
        return tr("no due date")
    day = date.fromisoformat(job.promise_date[:10]).strftime("%A")
    return f"{day}: {round(10 * hours.holds)} in 10"


def _flow_at(a: Alike, d: Difference) -> float | None:
    return None if d.lift is None else a.flow.get(d.lift)


def _mend(a: Alike, units: Units) -> str:
    """Whether its walls leave metal to mend a port that is short."""
    if a.thinnest is None:
        return tr("No wall was read there: read it before it is mended")
    place = a.thinnest.reading.place
    return tr("Its thinnest wall, {}, has {} {} left", place, units.length.text(a.thinnest.left), units.length.label)


def _cell(record: Record, a: Alike, units: Units) -> Cell:
    job = record.job
    ticks = tuple(record.at(stage.key, a.port).state.value for stage in record.stages)
    differ = {d.lift for d in a.differs}
    figures = []
    stage = tr("cc, at this stage") if a.behind else "cc"
    if a.poured_at is not None and a.poured_at.number != a.cut.number:
        stage = tr("cc, poured at cut {}", a.poured_at.number)
    if a.volume is not None:
        change = next((d for d in a.differences if d.lift is None), None)
        text = "" if change is None else units.volume.text(change.value, sign=True)
        figures.append(Figure(units.volume.text(a.volume), text, stage, None in differ, units.volume.label))
    if a.flow:
        lift = max(a.flow)
        change = next((d for d in a.differences if d.lift == lift), None)
        flow = a.flow[lift]
        text = "" if change is None else units.flow.text(change.value * flow / (1 + change.value), sign=True)
        figures.append(
            Figure(
                units.flow.text(flow),
                text,
                tr("{} at {}", units.flow.label, units.lift.text(lift)),
                lift in differ,
                units.flow.label,
            )
        )
    else:
        figures.append(Figure("not flowed", "", "", False))
    wall = "–" if a.thinnest is None else units.length.text(a.thinnest.left)
    figures.append(Figure(wall, "", tr("wall, {}", units.length.label), a.thin, units.length.label))
    running = any(t == "running" for t in ticks)
    word, mark = _word(a, running, chosen=a.port.id in job.model_port_ids)
    brief = wall if a.thin else "model" if a.developed else "" if not a.differs else _brief(a, units)
    return Cell(a.port, short_name(a.port), word, mark, a.mirrored, a.developed, tuple(figures), brief, ticks,
                _group(job, a.port))  # fmt: skip


def _group(job: Job, port: Port) -> str:
    head = next((h.name for h in job.heads if h.id == port.head_id), "")
    return f"{head}, {port.kind}" if len(job.heads) > 1 and head else port.kind


def _brief(a: Alike, units: Units) -> str:
    first = a.differs[0]
    return units.volume.text(first.value, sign=True) if first.lift is None else f"{100 * first.value:+z.1f} %"


def _word(a: Alike, running: bool, *, chosen: bool) -> tuple[str, str]:
    if running:
        return "clock", "clock"
    if a.developed:
        return (tr("model, chosen") if chosen else "developed"), "none"
    if a.differs:
        return "odd" if a.in_row else "differs", "down"
    if a.thin:
        return "thin", "down"
    if a.behind:
        return "behind", "none"
    return ("alike", "dash") if a.differences else (tr("not known"), "none")


_MARKS: Final = {Answer.WHOLE: "tick", Answer.PART: "half", Answer.NO: "cross", Answer.READ_FIRST: "diamond"}


def copy_lines(
    findings: Findings, port: Port, units: Units, up_to: int | None = None
) -> tuple[tuple[CopyLine, ...], str]:
    """What may be copied onto a port up to one of the developed port's cuts (its last without one), and the heading;
    empty for the developed port itself."""
    model = developed_port(findings, port.kind)
    if model is None:
        return (), tr("No {} is developed yet: flow one, cut it, flow it again.", port.kind)
    if model.id == port.id:
        return (), tr("{} is the developed one: go to another port for what is copied onto it.", port.name)
    state = next((c for c in model.cuts if c.number == up_to), model.cuts[-1])
    found = copies(findings.job, model, state, port, units.wording)
    lines = []
    for copy in found:
        wall = tr("not read") if copy.left is None else units.length.text(copy.left)
        side = f", {copy.side}" if copy.side else ""
        lines.append(CopyLine(copy, _MARKS[copy.answer], f"{copy.place}{side}", copy.sentence, wall))
    left = tr("nothing is left to copy") if not lines else tr("copy cuts 1 to {} of {}", state.number, model.name)
    return tuple(lines), f"{port.name}: {left}"


def _notes(findings: Findings, alike: tuple[Alike, ...], units: Units) -> tuple[str, ...]:
    """Core shift, balance of paired ports, and chambers, a sentence each."""
    said = []
    for kind in KINDS:
        for (_, mirrored), ports in hands(findings.job, kind).items():
            hand = f"{'mirrored ' if mirrored else ''}{kind}s"
            for wall in zone_walls(ports):
                if wall.bound is not None:
                    bound = units.length.with_unit(max(wall.bound, 0.0))
                    side = f", {wall.band}" if wall.band else ""
                    said.append(
                        tr(
                            "Walls of {} at the {}{}: 95 % lie over {}; {}.",
                            hand,
                            wall.place,
                            side,
                            bound,
                            NO_CLEARANCE,
                        )
                    )
            for shift in core_shift(ports):
                words = shift_words(shift, units)
                if words:
                    said.append(tr("{}'s core lies {} of the mean of {}.", shift.port.name, words, hand))
        for pair in paired_ports(findings, tuple(a for a in alike if a.port.kind == kind)):
            parts = []
            if pair.volume is not None:
                parts.append(f"{units.volume.text(pair.volume, sign=True)} cc")
            if pair.flow is not None:
                parts.append(tr("{} % flow", number_text(100 * pair.flow, 1, sign=True)))
            if pair.swirl is not None:
                parts.append(tr("{} rpm swirl", units.swirl.text(pair.swirl, sign=True)))
            if parts:
                said.append(tr("{} against {}: {}.", pair.second.name, pair.first.name, ", ".join(parts)))
    chambers = chambers_of(findings.job)
    if chambers is not None:
        said.append(tr("Chambers lie {} cc apart.", units.volume.text(chambers.spread)))
    return tuple(said)


def status_sentence(findings: Findings, hours: Hours) -> str:
    """Where the job stands, for its customer."""
    job = findings.job
    states = record_of(findings).states
    done = sum(s.done for s in states)
    said = tr(
        "{}: {} of {} stages are done, {:.0f} hours worked", job.title, done, len(states), from_si(hours.used, "h")
    )
    for wait in (w for w in job.waits if w.ended is None):
        said += tr("; the {} is out", wait.stage) + (tr(" until {}", wait.promised[:10]) if wait.promised else "")
    if job.promise_date is not None and hours.holds is not None:
        said += f". Promised for {job.promise_date[:10]}: that holds {round(10 * hours.holds)} times in 10"
    return f"{said}."
