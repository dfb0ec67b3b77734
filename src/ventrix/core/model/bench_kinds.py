"""The closed vocabularies of benches: how they are read, what their runs hold, and what a learner does at one."""

from __future__ import annotations

from enum import StrEnum

from ventrix.core.model.kinds import KeptWord


class ElementKind(StrEnum):
    """What a bench's element is read as."""

    FLOW = "flow"
    PERCENT = "percent"
    ORIFICE = "orifice"
    MASS = "mass"
    COLUMNS = "columns"
    COLUMN = "column"


class LinkKind(StrEnum):
    """How a bench's readings come in."""

    TYPED = "typed"
    SIMULATED = "simulated"
    TCP = "tcp"
    SERIAL = "serial"


class FlowKind(StrEnum):
    """What a run's flow is: a flow, or an index that means something on its own bench only."""

    FLOW = "flow"
    INDEX = "index"


class ActKind(StrEnum):
    """What a learner does at practice."""

    FLOW = "flow"
    LIVE = "live"
    WALL = "wall"
    CUT = "cut"
    POUR = "pour"
    CLAY = "clay"


class TraverseKind(KeptWord):
    """What is held in the air of a port, and what is read with it."""

    PITOT = "pitot"
    BALL = "ball"
    TOTAL_HEAD = "total head"
