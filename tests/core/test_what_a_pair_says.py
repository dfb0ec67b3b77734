"""What a pair says is one function: an index in percent, nothing beside "not comparable", dips, targets."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.row_of_cuts import row_of_cuts
from ventrix.core.judging.targets import target_at, target_reach
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import CFM, INCH, to_si

DP = to_si(28, "inH2O")
LIFT = np.arange(1, 11) * 0.050 * INCH
FLOW = np.array([24.0, 48, 75, 101, 126, 149, 169, 182, 191, 199]) * CFM
FULL = SetUp(
    id="s",
    direction="intake",
    test_pressure=DP,
    bench="one",
    bore=0.089,
    centred=True,
    entry="radius",
    valve="job",
    plug="in",
)


def readings(flow: np.ndarray, name: str) -> tuple[Reading, ...]:
    return tuple(
        Reading(id=f"{name}{i}", lift=float(x), flow=float(q)) for i, (x, q) in enumerate(zip(LIFT, flow, strict=True))
    )


def columns(share: np.ndarray, name: str) -> tuple[Reading, ...]:
    """Two columns of water whose root of the ratio is the share of the element's scale."""
    return tuple(
        Reading(id=f"{name}{i}", lift=float(x), element_column=float(900 * s**2), port_column=900.0)
        for i, (x, s) in enumerate(zip(LIFT, share, strict=True))
    )


def job_of(*cuts: tuple[tuple[Reading, ...], SetUp]) -> Job:
    setups = tuple({s.id: s for _, s in cuts}.values())
    made = tuple(
        Cut(id=f"c{n}", number=n, runs=(FlowRun(id=f"r{n}", setup_id=s.id, mount_id=f"m{n}", readings=r),))
        for n, (r, s) in enumerate(cuts)
    )
    mounts = tuple(Mount(id=f"m{n}", number=n + 1) for n in range(len(cuts)))
    port = Port(id="p", name="Intake 1", kind="intake", cuts=made)
    return Job(id="j", title="t", setups=setups, mounts=mounts, ports=(port,))


def test_an_index_is_said_in_percent_of_the_cut_held_against() -> None:
    share = np.linspace(0.2, 0.8, 10)
    findings = Findings(job_of((columns(share, "a"), FULL), (columns(share * 1.08, "b"), FULL)))
    port = findings.job.ports[0]
    pair = findings.pair(port, port.cuts[0], port.cuts[1])
    gain = findings.gain(pair)
    assert gain is not None
    assert gain.is_share
    assert gain.value == pytest.approx(0.08, abs=1e-9)  # eight percent were put in
    row = row_of_cuts(findings, port)
    step = row.steps[-1]
    assert step.own is not None
    assert step.total is not None
    assert step.own.value == step.total.value == gain.value


def test_nothing_is_said_beside_not_comparable() -> None:
    other = replace(FULL, id="t", bore=0.1)
    findings = Findings(job_of((readings(FLOW, "a"), FULL), (readings(FLOW * 1.05, "b"), other)))
    port = findings.job.ports[0]
    gain = findings.gain(findings.pair(port, port.cuts[0], port.cuts[1]))
    assert gain is not None
    assert not gain.comparable
    assert gain.value is gain.expanded is None
    assert all(s.own is None or s.own.value is None for s in row_of_cuts(findings, port).steps)


def test_a_dip_that_a_second_bench_does_not_show_is_the_benchs() -> None:
    dented = FLOW.copy()
    dented[5] *= 0.80
    two = replace(FULL, id="t", bench="two")
    job = job_of((readings(dented, "a"), FULL))
    port = job.ports[0]
    assert Findings(job).dip_of_the_bench(port, "one", float(LIFT[5])) is None  # one bench alone says nothing
    second = FlowRun(id="r9", setup_id="t", mount_id="m0", readings=readings(FLOW * 1.02, "z"))
    cut = replace(port.cuts[0], runs=(*port.cuts[0].runs, second))
    port = replace(port, cuts=(cut,))
    findings = Findings(replace(job, setups=(FULL, two), ports=(port,)))
    assert findings.dip_of_the_bench(port, "one", float(LIFT[5])) == "two"
    assert findings.dip_of_the_bench(port, "one", float(LIFT[2])) is None
    shared = replace(second, readings=readings(dented * 1.02, "y"))
    port = replace(port, cuts=(replace(cut, runs=(cut.runs[0], shared)),))
    assert Findings(replace(findings.job, ports=(port,))).dip_of_the_bench(port, "one", float(LIFT[5])) is None


def test_a_target_carries_the_pressure_it_is_meant_at() -> None:
    """ENGINEERING.md's table: 10 inH2O stands to 28 as 1 to 1.6432, the mean of nozzle and plate."""
    flowed = job_of((readings(FLOW, "a"), FULL))
    run = Findings(flowed).runs_of(flowed.ports[0].cuts[0], flowed.ports[0])[0]
    job = Job(id="j", title="t", test_pressure=DP)
    at28 = Target(id="t", kind="intake", lift=float(LIFT[7]), flow=180 * CFM)
    at10 = replace(at28, flow=180 * CFM / 1.6432, test_pressure=to_si(10, "inH2O"))
    assert target_at(at28, job, run) == pytest.approx(180 * CFM)
    assert target_at(at10, job, run) == pytest.approx(180 * CFM, rel=2e-4)
    assert target_reach(run, at28, job) == pytest.approx(2 * CFM, rel=1e-6)
    assert target_reach(run, replace(at28, lift=0.02), job) is None
