"""What flowing a port again takes in this shop, by the clock of its own tests."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta
from typing import Final

import numpy as np

from ventrix.core.model.job import Job

BOLTING: Final = 600.0  # s to take it off, bolt it down and open the valve (common practice, no source)
SPAN: Final = 120.0, 7200.0  # s from first to last reading: less is a table typed in, more was a meal between
FEWEST: Final = 3  # tests


def reflow_time(spans: Sequence[float]) -> float | None:
    """What a flow test takes, bolting down with it [s]; None from fewer than three.

    Parameters
    ----------
    spans : sequence of float
        From the first to the last reading of each test [s].

    Returns
    -------
    float or None

    References
    ----------
    The median, as one long test says nothing; definition of this project.
    """
    counted = [s for s in spans if SPAN[0] <= s <= SPAN[1]]
    return float(np.median(counted)) + BOLTING if len(counted) >= FEWEST else None


def flow_spans(job: Job) -> Iterator[float]:
    """From the first to the last reading of each run of a job that tells its times [s]."""
    for run in job.runs():
        times = sorted(r.time for r in run.readings if r.time)
        if len(times) > 1:
            span = span_of(times[0], times[-1])
            if span is not None:
                yield span


def span_of(first: str, last: str) -> float | None:
    """Between two ISO moments [s]; None where one of them is none, or only one says its zone."""
    try:
        begun, ended = datetime.fromisoformat(first), datetime.fromisoformat(last)
        return (ended - begun) / timedelta(seconds=1)
    except (ValueError, TypeError):
        return None
