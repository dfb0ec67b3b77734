"""A job and its ports as received."""

from __future__ import annotations

from dataclasses import replace
from itertools import count
from typing import Final

from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, JobState, PartState, Use
from ventrix.words import tr
from ventrix.workspace.ids import new_id

KINDS: Final[tuple[Direction, ...]] = (Direction.INTAKE, Direction.EXHAUST)


def new_job(title: str) -> Job:
    """A job with one intake port, as received."""
    return Job(id=new_id(), title=title, ports=(new_port("Intake 1", Direction.INTAKE),))


def new_head(
    title: str,
    cylinders: int | None = None,
    valves_per_cylinder: int | None = None,
    use: Use | None = None,
    engine_cylinders: int | None = None,
) -> Job:
    """A job with an intake and an exhaust port for every cylinder; for one where their number is not said."""
    ports = []
    for n in range(1, (cylinders or 1) + 1):
        for kind in KINDS:
            port = new_port(f"{kind.capitalize()} {n}", kind)
            of = n if cylinders else None
            ports.append(replace(port, cylinder=of, valves=_valves(valves_per_cylinder, kind)))
    return Job(
        id=new_id(),
        title=title,
        cylinders=cylinders,
        engine_cylinders=engine_cylinders,
        valves_per_cylinder=valves_per_cylinder,
        use=use,
        ports=tuple(ports),
    )


def _valves(per_cylinder: int | None, kind: Direction) -> int:
    """Valves of one port: of five, three are intakes; of three, two."""
    if per_cylinder is None or per_cylinder < 3:
        return 1
    return (per_cylinder + 1) // 2 if kind == Direction.INTAKE else per_cylinder // 2


def new_port(name: str, kind: Direction) -> Port:
    """A port as received."""
    return Port(id=new_id(), name=name, kind=kind, cuts=(Cut(id=new_id(), number=0, name=tr("as received")),))


def next_of_its_kind(job: Job, titles: set[str]) -> Job:
    """A job to begin the next head like this one with: castings, valves, ports, cam, goal and conditions are kept;
    what was done to this head and measured on it is not."""
    names = (f"{job.title}, {n}" for n in count(2))
    ports = tuple(
        replace(
            p,
            valve_id=_first_valve(p),
            faults=(),
            faults_looked_at=None,
            slips=(),
            cuts=(Cut(id=new_id(), number=0, name=tr("as received")),),
        )
        for p in job.ports
    )
    used = {v for p in ports if (v := p.valve_id)}
    bare = replace(
        job,
        title=next(n for n in names if n not in titles),
        ports=ports,
        valves=tuple(v for v in job.valves if v.id in used),
        heads=tuple(replace(h, milled=None, flatness=None) for h in job.heads),
        customer="",
        promise_date=None,
        state=JobState.OPEN,
        waits_for="",
        handed_over=None,
        archived=False,
        binned=None,
        condition="",
        flatness=None,
        chambers=(),
        seats=(),
        bin=(),
        mounts=(),
        check_marks=(),
        stage_marks=(),
        waits=(),
        parts=tuple(replace(p, state=PartState.NEEDED, date=None) for p in job.parts if not p.beyond_quote),
        engine_results=(),
        calls=(),
        model_port_ids=(),
        same_house=(),
        photos=(),
    )
    from ventrix.records.files.new_ids import renewed

    return renewed(bare)


def _first_valve(port: Port) -> str | None:
    """The valve a port began with: what a cut fitted belongs to this head."""
    return port.valve_id or next((c.valve_ids[0] for c in port.cuts if c.valve_ids), None)
