"""A survey of total head: how much of the test pressure is lost up to a station."""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np

from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.job import Job
from ventrix.core.model.traverse import Traverse
from ventrix.core.quantity.units import to_si

LEAST: Final = to_si(0.05, "inH2O")  # of a mean: less is the gauge's own nought


class LostUpTo(NamedTuple):
    """Share of the test pressure [-] that is lost up to a station, and that pressure [Pa]."""

    share: float
    pressure: float


def share_lost(job: Job, traverse: Traverse) -> LostUpTo | None:
    """What a total tube read at a station, by the mean of its points.

    Parameters
    ----------
    job, traverse : Job, Traverse
        A traverse of kind total head: its readings are how far the total head there is under the room's [Pa].

    Returns
    -------
    LostUpTo or None
        None for another kind, before anything was read, without a test pressure, and where the mean lies outside what
        can be.
    """
    if traverse.kind != TraverseKind.TOTAL_HEAD or traverse.setup_id is None:
        return None
    pressure = job.setup(traverse.setup_id).test_pressure
    read = [p.reading for p in traverse.points if p.struck is None and p.reading is not None]
    if not pressure or not read or not LEAST <= float(np.mean(read)) < pressure:
        return None
    return LostUpTo(float(np.mean(read)) / pressure, pressure)
