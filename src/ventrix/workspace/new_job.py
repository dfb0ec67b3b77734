"""A job and a port as received."""

from __future__ import annotations

from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.noun import Direction
from ventrix.workspace.ids import new_id


def new_job(title: str) -> Job:
    """A job with one intake port, as received."""
    return Job(id=new_id(), title=title, ports=(new_port("Intake 1", "intake"),))


def new_port(name: str, kind: Direction) -> Port:
    """A port as received."""
    return Port(id=new_id(), name=name, kind=kind, cuts=(Cut(id=new_id(), number=0, name="as received"),))
