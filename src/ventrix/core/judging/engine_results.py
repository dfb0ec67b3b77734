"""What the engine did with the head on: power against the head's flow, and which change may be laid at the work's
door."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import convert_pressure
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import EngineResult
from ventrix.core.model.kinds import Direction, ResultKind
from ventrix.core.quantity.units import CFM, HORSEPOWER, to_si
from ventrix.words import tr

NOTHING: Final = "nothing"  # of `also_changed`: all else was left alone
FEWEST: Final = 3  # results before the shop has a figure of its own
AT: Final = to_si(28, "inH2O")


@dataclass(frozen=True, slots=True)
class ShopPower:
    """The shop's own power for flow, in horsepower a CFM at 28 inH2O a cylinder [-]: mean, spread, of how many."""

    mean: float
    spread: float
    count: int


def powers_for_flow(findings: Findings) -> list[float]:
    """Peak power of each dyno result after the work, for the flow of the job's best intake.

    Parameters
    ----------
    findings : Findings
        Of the job.

    Returns
    -------
    list of float
        Horsepower a CFM at 28 inH2O a cylinder of the engine [-]; none without their number, a flowed intake or a
        dyno table.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source: what `formulas.engine.horsepower_potential` takes as 0.257.
    """
    job = findings.job
    flow = best_intake_flow(findings)
    if flow is None or not job.engine_cylinders:
        return []
    powers = [r.peak_power for r in job.engine_results if r.kind == ResultKind.DYNO and r.moment == "after"]
    return [p / HORSEPOWER / (flow / CFM * job.engine_cylinders) for p in powers if p is not None]


def best_intake_flow(findings: Findings) -> float | None:
    """Peak flow of the job's best intake as it now is, at 28 inH2O [m3/s]; None where none was flowed in CFM."""
    found = []
    for port in findings.job.ports:
        runs = [r for c in port.cuts for r in findings.runs_of(c, port) if r.kind == FlowKind.FLOW]
        if port.kind == Direction.INTAKE and port.of_head and runs:
            last = runs[-1]
            beside = findings.job.ports_beside(port)
            found.append(beside * float(convert_pressure(last.flow[last.peak], last.test_pressure, AT)))
    return max(found, default=None)


def shop_power(powers: Sequence[float]) -> ShopPower | None:
    """The shop's own figure, from three results on.

    Parameters
    ----------
    powers : sequence of float
        As `powers_for_flow`, of every job.

    Returns
    -------
    ShopPower or None

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Mean and standard deviation.
    """
    if len(powers) < FEWEST:
        return None
    return ShopPower(float(np.mean(powers)), float(np.std(powers, ddof=1)), len(powers))


@dataclass(frozen=True, slots=True)
class Change:
    """A result against the one of its kind before the work: what changed [W, s, m/s or m3/m], and why it may or may not
    be laid at the work's door."""

    before: EngineResult
    after: EngineResult
    value: float
    what: str  # power, time, speed, fuel
    attributed: bool
    reason: str


_FIGURES: Final = ("peak_power", "time", "speed", "fuel")


def changes_on_the_engine(job: Job) -> tuple[Change, ...]:
    """Each result after the work against the last of its kind before it.

    Parameters
    ----------
    job : Job
        Whose.

    Returns
    -------
    tuple of Change
        One a figure that both have. Never attributed where something else was changed, where nobody said whether, or
        where conditions or the stated correction differ.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source.
    """
    found = []
    for after in (r for r in job.engine_results if r.moment == "after"):
        before = [r for r in job.engine_results if r.moment == "before" and r.kind == after.kind]
        if not before:
            continue
        had = before[-1]
        attributed, reason = _attribution(had, after)
        for name in _FIGURES:
            was, now = getattr(had, name), getattr(after, name)
            if was is not None and now is not None:
                what = "power" if name == "peak_power" else name
                found.append(Change(had, after, now - was, what, attributed, reason))
    return tuple(found)


def _attribution(had: EngineResult, has: EngineResult) -> tuple[bool, str]:
    also = has.also_changed.strip()
    if not also:
        return False, tr("nobody said whether anything else was changed")
    if also.lower() != NOTHING:
        return False, tr("also changed: {}", also)
    if had.correction.strip().lower() != has.correction.strip().lower():
        return (
            False,
            tr(
                "corrected differently: {} and {}",
                had.correction or tr("not recorded"),
                has.correction or tr("not recorded"),
            ),
        )
    return True, tr("nothing else was changed")
