"""How often nothing is called something, and a true 5 % gain is found. Prints both rates.

Uncut pairs of one simulated port: 1 % re-mount and 0.3 % repeat scatter, both known to the program.
"""

from __future__ import annotations

import numpy as np

from ventrix.bench.simulator.heads import HEADS
from ventrix.core.compare import compare_runs
from ventrix.core.model import FlowRun, Reading, SetUp
from ventrix.core.reduction import ReducedRun, reduce_run
from ventrix.core.uncertainty import Scatter
from ventrix.core.units import INCH, to_si
from ventrix.core.verdict import judge

MOUNT, REPEAT = 0.010, 0.003
KNOWN = Scatter(REPEAT, 20.0, MOUNT, 20.0, repeat_assumed=False, mount_assumed=False)  # as from 21 mounts
LIFT = np.arange(1, 13) * 0.05 * INCH
DP = to_si(28, "inH2O")
SETUP = SetUp(
    id="s",
    direction="intake",
    test_pressure=DP,
    bench="b",
    bore=0.089,
    centred=True,
    entry="radius",
    valve="job",
    plug="in",
)


def simulated_run(random: np.random.Generator, mount: int, gain: float = 0.0) -> ReducedRun:
    """A run of the as-cast intake port, its dial zero and pressure gauge drawn with it."""
    zero = random.uniform(-0.5, 0.5) * 0.001 * INCH
    flow = HEADS["intake"][0].truth.flow(LIFT + zero, DP) * (1 + gain)
    flow = flow * (1 + MOUNT * random.standard_normal()) * (1 + REPEAT * random.standard_normal(len(LIFT)))
    readings = tuple(
        Reading(id=str(i), lift=float(x), flow=float(q)) for i, (x, q) in enumerate(zip(LIFT, flow, strict=True))
    )
    return reduce_run(FlowRun(id="r", setup_id="s", readings=readings), SETUP, mount=str(mount))


def rates(pairs: int, seed: int) -> tuple[float, float]:
    """Share of uncut pairs called better or worse, and share of true 5 % gains called better."""
    random = np.random.default_rng(seed)
    fooled = found = 0
    for i in range(pairs):
        before, after = simulated_run(random, 2 * i), simulated_run(random, 2 * i + 1)
        fooled += judge(compare_runs([before], [after], scatter=KNOWN)).result in ("better", "worse")
        gained = simulated_run(random, 2 * i + 1, gain=0.05)
        found += judge(compare_runs([before], [gained], scatter=KNOWN)).result == "better"
    return fooled / pairs, found / pairs


if __name__ == "__main__":
    fooled, found = rates(1000, seed=2)
    print(f"uncut pairs called better or worse: {fooled:.1%} (at most 5 %)")
    print(f"true 5 % gains found: {found:.1%} (at least 80 %)")
