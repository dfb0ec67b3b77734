"""The record of work: what every stage of a job is at, by what was logged. Written once, read by every room."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port, volume_short
from ventrix.core.model.cut import Cut, Operation, Port, mean_poured
from ventrix.core.model.finish_list import CHECKS
from ventrix.core.model.job import Job, cylinder_of
from ventrix.core.model.job_parts import Head, PartOfJob, StageMark, Wait
from ventrix.core.model.kinds import CutKind, FaultKind, FaultState, KeptWord, PartState, Place, StageUnit
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.quantity.words import listed
from ventrix.core.work.stages import Stage, key_of, stages_of
from ventrix.words import tr

# What a finger finds along the walls, and a stone takes off.
LINES: Final = (FaultKind.FLASH, FaultKind.SLAG, FaultKind.LEDGE, FaultKind.ROUGH)
# Places that a port is usually worked at, and that have a wall.
USUALLY_WORKED: Final = (Place.BOWL, Place.SHORT_SIDE, Place.PINCH)
NO_WALL: Final = (Place.CHAMBER, Place.SEAT, Place.ALL_OVER, Place.GUIDE, Place.THROAT)
CHAMBERS_WITHIN: Final = to_si(1.0, "cc")  # of their middle (common practice, no source)


class WorkState(KeptWord):
    """What a stage of a port, chamber, head or job is at."""

    OPEN = "open"
    RUNNING = "running"
    WAITING = "waiting"
    BEGUN = "begun"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class Worked:
    """A share of an operation at a stage: the port and cut it was logged at, its time [s], and since when it runs."""

    port: Port
    cut: Cut
    seconds: float | None
    running_since: str | None
    at: str


@dataclass(frozen=True, slots=True)
class StageState:
    """A stage of one port, chamber, head or of the job.

    of : the port's name, the cylinder's number, the head's name (a kind of port behind it where it is done a kind at a
        time), or the job's title
    ports : those it is done to
    missing : what is missing, as a sentence; empty where it is done, or nothing was begun and nothing more can be told
    seconds : all time that was logged for it [s], None without any
    """

    stage: Stage
    unit: StageUnit
    of: str
    ports: tuple[Port, ...]
    state: WorkState
    missing: str = ""
    seconds: float | None = None
    running_since: str | None = None
    wait: Wait | None = None
    closed_by: str = ""
    mark: StageMark | None = None

    @property
    def done(self) -> bool:
        """Nothing is left to do."""
        return self.state is WorkState.DONE


@dataclass(frozen=True, slots=True)
class Record:
    """All stages of a job in order, each at everything it is done to. `elsewhere` is time of no stage [s]."""

    job: Job
    stages: tuple[Stage, ...]
    states: tuple[StageState, ...]
    elsewhere: float

    def at(self, key: str, port: Port) -> StageState:
        """What a stage is at for a port: its own state, its chamber's, its head's or the job's.

        Raises
        ------
        KeyError
            The list has no such stage, or the port is none of the head.
        """
        found = self.find(key, port)
        if found is None:
            raise KeyError(key)
        return found

    def find(self, key: str, port: Port) -> StageState | None:
        """The same, None where there is none: a witness port and a manifold's runner have no stages."""
        wanted = key_of(key)
        of_stage = (s for s in self.states if s.stage.key == wanted)
        return next((s for s in of_stage if any(p.id == port.id for p in s.ports)), None)

    def of_stage(self, key: str) -> tuple[StageState, ...]:
        """A stage at everything it is done to."""
        return tuple(s for s in self.states if s.stage.key == key_of(key))

    @property
    def awaited(self) -> tuple[PartOfJob, ...]:
        """Parts that are needed or ordered, and not here."""
        return tuple(p for p in self.job.parts if p.state in (PartState.NEEDED, PartState.ORDERED))

    def waits_for(self, part: PartOfJob) -> Stage | None:
        """The stage that cannot be done before a part is here; None where nobody said one that is on the list."""
        return next((s for s in self.stages if part.stage and s.key == key_of(part.stage)), None)

    @property
    def used(self) -> float:
        """All time that was logged, once [s]."""
        return sum(s.seconds or 0.0 for s in self.states) + self.elsewhere


def record_of(findings: Findings) -> Record:
    """The record of a job's work.

    An operation belongs to the stage that it names; else each place it worked belongs to the first stage that covers it
    and was not worked before, else to the last that does. Bowl and throat after a seat cut are *re-blend*. Its time is
    shared out over its places.

    Parameters
    ----------
    findings : Findings
        Of the job.

    Returns
    -------
    Record

    Raises
    ------
    ValueError
        The job's own list of stages cannot be read.

    References
    ----------
    Definitions of this project; what closes a stage is common practice, no source.
    """
    job = findings.job
    stages = stages_of(job)
    worked, elsewhere = share_out(job, stages)
    states = tuple(
        _state(findings, stage, unit, of, ports, worked) for stage in stages for unit, of, ports in _done_to(job, stage)
    )
    return Record(job, stages, states, elsewhere)


Shares = dict[tuple[str, str], list[Worked]]


def share_out(job: Job, stages: Sequence[Stage]) -> tuple[Shares, float]:
    """What was logged by (stage, port id), in the order it was done; and the time that belongs to no stage [s]."""
    found: Shares = {}
    elsewhere = 0.0
    for port in job.ports:
        for cut in port.cuts:
            for operation in cut.operations:
                parts = _stages_of_operation(operation, cut, port, stages, found)
                if not parts:
                    elsewhere += operation.duration or 0.0
                share = None if operation.duration is None else operation.duration / max(len(parts), 1)
                running = operation.started_at if operation.duration is None else None
                at = operation.at or operation.date or cut.date or ""
                for key in parts:
                    found.setdefault((key, port.id), []).append(Worked(port, cut, share, running, at))
            if cut.number and not cut.operations:  # the cut itself says what was done
                for stage in (s for s in stages if set(s.cuts) & set(cut.kinds)):
                    found.setdefault((stage.key, port.id), []).append(Worked(port, cut, None, None, cut.date or ""))
    return found, elsewhere


def _stages_of_operation(
    operation: Operation, cut: Cut, port: Port, stages: Sequence[Stage], found: Shares
) -> tuple[str, ...]:
    """Keys of the stages that an operation belongs to, one a place that it worked; none where none covers it."""
    keys = {stage.key for stage in stages}
    if operation.stage and key_of(operation.stage) in keys:
        return (key_of(operation.stage),)
    if operation.works:
        per_place = (_stage_of_place(w.place, port, stages, found) for w in operation.works)
        return tuple(key for key in per_place if key is not None)
    by_cut = next((s.key for s in stages if set(s.cuts) & set(cut.kinds)), None)
    if by_cut is not None:
        return (by_cut,)
    if operation.finish and "finish" in keys:
        return ("finish",)
    named = key_of(operation.kind)
    return (named,) if named in keys else ()


def _stage_of_place(place: str, port: Port, stages: Sequence[Stage], found: Shares) -> str | None:
    covering = [stage.key for stage in stages if place in stage.places]
    seat_was_cut = any((stage.key, port.id) in found for stage in stages if CutKind.SEAT in stage.cuts)
    if "re-blend" in covering and place in (Place.BOWL, Place.THROAT):
        if seat_was_cut:
            return "re-blend"
        covering.remove("re-blend")
    untouched = [key for key in covering if (key, port.id) not in found]
    return next(iter(untouched or covering[-1:]), None)


def _done_to(job: Job, stage: Stage) -> Iterator[tuple[StageUnit, str, tuple[Port, ...]]]:
    """Everything that a stage is done to, with its ports."""
    ports = tuple(p for p in job.ports if p.of_head)
    heads: tuple[Head | None, ...] = job.heads or (None,)
    for unit in stage.units:
        if unit is StageUnit.PORT:
            yield from ((unit, p.name, (p,)) for p in ports)
        elif unit is StageUnit.CHAMBER:
            for cylinder in sorted({cylinder_of(p) for p in ports}):
                yield unit, str(cylinder), tuple(p for p in ports if cylinder_of(p) == cylinder)
        elif unit is StageUnit.HEAD:
            for head in heads:
                own = tuple(p for p in ports if head is None or p.head_id in (head.id, None))
                name = head.name if head is not None else job.title
                if not stage.a_kind_at_a_time:
                    yield unit, name, own
                    continue
                for kind in dict.fromkeys(p.kind for p in own):
                    yield unit, f"{name}, {kind}", tuple(p for p in own if p.kind == kind)
        else:
            yield unit, job.title, ports


def _state(
    findings: Findings, stage: Stage, unit: StageUnit, of: str, ports: tuple[Port, ...], worked: Shares
) -> StageState:
    job = findings.job
    logged = [w for port in ports for w in worked.get((stage.key, port.id), ())]
    times = [w.seconds for w in logged if w.seconds is not None]
    seconds = sum(times) if times else None
    running = next((w.running_since for w in logged if w.running_since is not None), None)
    mark = next((m for m in job.stage_marks if _marks(m, stage, unit, of, ports)), None)
    wait = next((w for w in job.waits if w.ended is None and _holds(w, stage, ports)), None)

    def state(found: WorkState, missing: str = "", closed_by: str = "") -> StageState:
        return StageState(stage, unit, of, ports, found, missing, seconds, running, wait, closed_by, mark)

    if running is not None:
        return state(WorkState.RUNNING)
    if mark is not None and (mark.ended_at is not None or mark.started_at is None):
        return state(WorkState.DONE, closed_by=mark.closed_by or stage.closed_by)
    if mark is not None:
        return state(WorkState.RUNNING)
    if wait is not None:
        return state(WorkState.WAITING)
    begun, missing = _missing(findings, stage, unit, ports, logged)
    if begun and not missing:
        return state(WorkState.DONE, closed_by=stage.closed_by)
    return state(WorkState.BEGUN if begun else WorkState.OPEN, missing)


def _marks(mark: StageMark, stage: Stage, unit: StageUnit, of: str, ports: tuple[Port, ...]) -> bool:
    """Whether a closing by hand is of this stage at this unit."""
    if key_of(mark.stage) != stage.key:
        return False
    if mark.port_id:
        return any(p.id == mark.port_id for p in ports)
    return mark.unit == unit and mark.of in ("", of)


def _holds(wait: Wait, stage: Stage, ports: tuple[Port, ...]) -> bool:
    """Whether outside work holds up a stage there."""
    return key_of(wait.stage) == stage.key and (not wait.port_ids or any(p.id in wait.port_ids for p in ports))


def _missing(
    findings: Findings, stage: Stage, unit: StageUnit, ports: tuple[Port, ...], logged: Sequence[Worked]
) -> tuple[bool, str]:
    """Whether a stage was begun, and what is missing until it is done."""
    job, first = findings.job, ports[0] if ports else None
    if stage.key == "clean":
        flat = job.flatness is not None or any(h.flatness is not None for h in job.heads)
        return bool(logged) or flat, ""
    if stage.key == "end list":
        ticked = {mark.item for mark in job.check_marks}
        left = [check.item for check in CHECKS if check.item not in ticked]
        return bool(ticked), tr("not ticked: {}", listed(left)) if left else ""
    if first is None:
        return False, ""
    if stage.key == "faults":
        gone_through = first.faults_looked_at is not None
        return gone_through or bool(first.faults), "" if gone_through else tr(
            "the grid of {} not gone through", first.name
        )
    if stage.key == "walls":
        return _walls_missing(findings, first)
    if stage.key == "casting lines":
        return _lines_missing(first, logged)
    if stage.key == "pour":
        return _chamber_pour_missing(job, ports) if unit is StageUnit.CHAMBER else _pour_missing(findings, first)
    if stage.a_kind_at_a_time:
        there = {w.port.id for w in logged}
        left = [p.name for p in ports if p.id not in there]
        return bool(logged), tr("not on {}", listed(left)) if left else ""
    return bool(logged), ""


def places_to_read(findings: Findings, port: Port) -> tuple[Place, ...]:
    """Places with a wall that are to be worked on a port: what its model was worked at, and the usual ones."""
    model = developed_port(findings, port.kind)
    operations = [op for c in model.cuts for op in c.operations] if model is not None else []
    worked = {place for operation in operations for place in operation.places}
    return tuple(p for p in Place if (p in USUALLY_WORKED or p in worked) and p not in NO_WALL)


def unread(findings: Findings, port: Port) -> tuple[Place, ...]:
    """Those of them that no gauge read on this very port, and that are not known otherwise."""
    read = {wall.place for cut in port.cuts for wall in cut.walls if wall.struck is None}
    return tuple(place for place in places_to_read(findings, port) if place not in read)


def _walls_missing(findings: Findings, port: Port) -> tuple[bool, str]:
    left = unread(findings, port)
    begun = any(cut.walls for cut in port.cuts)
    return begun, tr("{} not read on {}", listed([str(p) for p in left]), port.name) if left else ""


def _lines_missing(port: Port, logged: Sequence[Worked]) -> tuple[bool, str]:
    lines = [fault for fault in port.faults if fault.kind in LINES]
    still = [str(fault.place) for fault in lines if fault.state == FaultState.OPEN]
    begun = bool(logged) or any(f.state != FaultState.OPEN for f in lines)
    begun = begun or (port.faults_looked_at is not None and not lines)
    return begun, tr("{} of {} still open", listed(list(dict.fromkeys(still))), port.name) if still else ""


def _pour_missing(findings: Findings, port: Port) -> tuple[bool, str]:
    poured = [cut for cut in port.cuts if cut.pours]
    if not any(cut.number for cut in poured):
        return False, ""
    return True, volume_short(findings, port)


def _chamber_pour_missing(job: Job, ports: tuple[Port, ...]) -> tuple[bool, str]:
    volumes = {c.id: mean_poured(c.pours) for c in job.chambers if c.pours}
    own = next((c for p in ports if (c := job.chamber_of(p)) is not None and c.pours), None)
    if own is None:
        return False, ""
    known = sorted(v for v in volumes.values() if v is not None)
    middle = known[len(known) // 2]
    off = (mean_poured(own.pours) or 0.0) - middle
    if abs(off) <= CHAMBERS_WITHIN:
        return True, ""
    way = "over" if off > 0 else "under"
    return True, tr("chamber {} {:.1f} cc {} the middle of {}", own.cylinder, from_si(abs(off), "cc"), way, len(known))
