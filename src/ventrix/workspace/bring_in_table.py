"""Runs of a foreign table into the open job, all in one edit: each to a cut, an existing one or a new one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ventrix.core.edits.cuts import add_cut, add_port
from ventrix.core.edits.runs import start_run
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.book import Book
from ventrix.records.files.layout import Conditions
from ventrix.records.files.layout_reading import ReadRun
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.new_job import new_job, new_port
from ventrix.workspace.workspace import Workspace


@dataclass(frozen=True, slots=True)
class Goal:
    """Where a run goes: a cut; a new cut of a port (`cut_id` None); a new port of a kind (both None); or nowhere."""

    kind: Direction
    port_id: str | None = None
    cut_id: str | None = None
    left_out: bool = False


def default_goals(job: Job, here: Port | None, runs: Sequence[ReadRun]) -> list[Goal]:
    """Where runs most likely go: a cut of their name that was not flowed yet, else the port's next states in order.

    Runs of one kind of port without a port of that kind make one.
    """
    goals: list[Goal] = []
    taken: set[str] = set()
    for run in runs:
        kind = run.kind or (here.kind if here is not None else Direction.INTAKE)
        port = here if here is not None and here.kind == kind and not here.witness else None
        port = port or next((p for p in job.ports if p.kind == kind and p.of_head), None)
        if port is None:
            goals.append(Goal(kind))
            continue
        free = [c for c in port.cuts if not c.runs and c.id not in taken]
        named = next((c for c in free if c.name and c.name.lower() == run.name.lower()), None)
        # Cut 0 is what a port is flowed as first; later states are new ones, unless their names say otherwise.
        chosen = named or next((c for c in free if c.number == 0), None)
        if chosen is not None:
            taken.add(chosen.id)
        goals.append(Goal(kind, port.id, chosen.id if chosen is not None else None))
    return goals


def setup_for(kind: Direction, said: Conditions) -> SetUp:
    """The conditions of a table as a set-up; what nobody said stays not recorded."""
    return SetUp(
        id=new_id(),
        direction=kind,
        test_pressure=said.test_pressure,
        bench=said.bench,
        bore=said.bore,
        entry=said.entry,
        pipe=said.pipe if kind == Direction.EXHAUST else None,
        temperature=said.temperature,
        pressure=said.barometer,
    )


def with_runs(
    job: Job,
    runs: Sequence[ReadRun],
    goals: Sequence[Goal],
    setups: Mapping[Direction, SetUp],
    name: str,
    date: str | None = None,
) -> tuple[Job, str]:
    """A job with the runs where they go, flowed as `setups` tell of each side, and what came in, in a sentence.

    Raises
    ------
    ValueError
        Nothing to bring in, or no test pressure.
    """
    wanted = [(r, g) for r, g in zip(runs, goals, strict=True) if not g.left_out]
    if not wanted:
        raise Refused("every run is left out: there is nothing to bring in")
    if any(setups[g.kind].test_pressure is None for _, g in wanted):
        raise Refused("the table does not say its test pressure: type it")
    count = 0
    made: dict[Direction, str] = {}
    for run, goal in wanted:
        setup = setups[goal.kind]
        job, cut_id = _place(job, goal, run.name, date, made)
        readings = tuple(_readings(run))
        count += len(readings)
        flow = FlowRun(
            id=new_id(),
            setup_id=setup.id,
            date=date or now_text(),
            source=tr("table {}", name)[:120],
            readings=readings,
        )
        job = start_run(job, cut_id, flow, setup, None)
    runs_said = tr("{} run{}", len(wanted), "s" * (len(wanted) != 1))
    return job, tr("{}, {} readings brought in from {}.", runs_said, count, name)


def bring_in(
    book: Book,
    space: Workspace | None,
    runs: Sequence[ReadRun],
    goals: Sequence[Goal],
    setups: Mapping[Direction, SetUp],
    name: str,
    title: str = "",
    date: str | None = None,
) -> Workspace:
    """Put the runs into the open job in one edit, or into a new one called `title`; whose workspace that is.

    Raises
    ------
    ValueError
        As `with_runs`, or figures that the book does not take: nothing has changed then.
    BookError
        The book did not take it: nothing has changed then.
    """
    if space is not None:
        job, words = with_runs(space.job, runs, goals, setups, name, date)
        space.apply(tr("table {}", name)[:80], job, words)
        return space
    job = new_job(title or tr("New job"))
    placed = default_goals(job, None, [replace(r, kind=g.kind) for r, g in zip(runs, goals, strict=True)])
    placed = [replace(p, left_out=g.left_out) for p, g in zip(placed, goals, strict=True)]
    job, words = with_runs(job, runs, placed, setups, name, date)
    if not any(c.runs for c in job.ports[0].cuts) and len(job.ports) > 1:  # all that came in is of the other kind
        job = replace(job, ports=job.ports[1:])
    book.add_job(job, name)
    opened = Workspace.open(book, job.id)
    opened.said = words
    return opened


def _place(job: Job, goal: Goal, name: str, date: str | None, made: dict[Direction, str]) -> tuple[Job, str]:
    """The cut a run goes to, made where it has to be."""
    if goal.cut_id is not None:
        return job, goal.cut_id
    port_id = goal.port_id or made.get(goal.kind)
    if port_id is None:
        count = sum(p.kind == goal.kind for p in job.ports) + 1
        port = new_port(f"{goal.kind.capitalize()} {count}", goal.kind)
        first = replace(port.cuts[0], name=name or port.cuts[0].name)
        port = replace(port, cuts=(first,))
        made[goal.kind] = port.id
        return add_port(job, port), first.id
    cut = Cut(id=new_id(), number=0, name=name, date=date)
    return add_cut(job, port_id, cut), cut.id


def _readings(run: ReadRun) -> list[Reading]:
    return [
        Reading(
            id=new_id(),
            lift=row.lift,
            flow=row.flow,
            percent=row.share,
            full_scale=row.full_scale,
            measured_pressure=row.pressure,
            swirl=row.swirl,
        )
        for row in run.rows
    ]
