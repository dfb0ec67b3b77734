"""A job and its ports as received."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Use
from ventrix.core.model.noun import Direction
from ventrix.workspace.ids import new_id

KINDS: Final[tuple[Direction, ...]] = ("intake", "exhaust")


def new_job(title: str) -> Job:
    """A job with one intake port, as received."""
    return Job(id=new_id(), title=title, ports=(new_port("Intake 1", "intake"),))


def new_head(
    title: str, cylinders: int | None = None, valves_per_cylinder: int | None = None, use: Use | None = None
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
        valves_per_cylinder=valves_per_cylinder,
        use=use,
        ports=tuple(ports),
    )


def _valves(per_cylinder: int | None, kind: Direction) -> int:
    """Valves of one port: of five, three are intakes; of three, two."""
    if per_cylinder is None or per_cylinder < 3:
        return 1
    return (per_cylinder + 1) // 2 if kind == "intake" else per_cylinder // 2


def new_port(name: str, kind: Direction) -> Port:
    """A port as received."""
    return Port(id=new_id(), name=name, kind=kind, cuts=(Cut(id=new_id(), number=0, name="as received"),))
