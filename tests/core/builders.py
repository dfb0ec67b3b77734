"""Runs that several tests are made from."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.model.job import Job
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.demo.job import demo_job

DP28 = to_si(28, "inH2O")
FULL = SetUp(
    id="s",
    direction="intake",
    test_pressure=DP28,
    bench="back-room",
    bore=0.089,
    centred=True,
    entry="radius",
    valve="job",
    plug="in",
)
BASE = np.array([31.1, 62, 90, 115, 140, 160, 175, 185, 190, 192])  # not all in whole CFM: no step is seen
SHARP = Scatter(0.002, 50.0, 0.002, 50.0, False, False)


def run(flow: np.ndarray, setup: SetUp = FULL, mount: str | None = None, lifts: np.ndarray | None = None) -> ReducedRun:
    x = np.arange(1, len(flow) + 1) * 1e-3 if lifts is None else lifts
    readings = tuple(
        Reading(id=str(i), lift=float(lift), flow=float(q) * CFM)
        for i, (lift, q) in enumerate(zip(x, flow, strict=True))
    )
    return reduce_run(FlowRun(id="r", setup_id="s", readings=readings), setup, Geometry(), mount)


def index_job() -> Job:
    """A port on an uncalibrated bench: two columns of water, half as high again after the cut."""
    job = demo_job()
    setup = replace(next(s for s in job.setups if s.direction == "intake"), id="columns", bench="home-built", leak=None)
    cuts = []
    for number, rise in ((0, 1.0), (1, 1.5)):
        readings = tuple(
            Reading(id=f"c{number}-{i}", lift=0.0025 * (i + 1), element_column=0.1 * rise * (i + 1), port_column=0.7)
            for i in range(5)
        )
        run = FlowRun(id=f"columns-{number}", setup_id="columns", readings=readings)
        cuts.append(replace(job.ports[0].cuts[number], runs=(run,)))
    return replace(job, setups=(*job.setups, setup), ports=(replace(job.ports[0], cuts=tuple(cuts)),))
