"""What the book's index keeps of a job, so that it is found, listed and held beside others without being opened."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ventrix.core.benches.study import Evidence
from ventrix.core.judging.calls import called_outcomes
from ventrix.core.judging.engine_results import powers_for_flow
from ventrix.core.judging.expectation import Outcome, time_worked
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import smallest_section
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, FaultKind
from ventrix.core.model.run import SetUp


@dataclass(frozen=True, slots=True)
class CutSummary:
    """A flowed cut by its last run. SI; None where it was not measured. `gain` is over the flowed cut before, where the
    two may be compared; an uncalibrated bench's curve is a share (`is_share`)."""

    cut_id: str
    port_name: str
    direction: Direction
    number: int
    name: str
    newest: bool
    section: float | None
    throat: float | None
    valve: float | None
    volume: float | None
    is_share: bool
    setup: SetUp
    gain: float | None
    seconds: float | None
    lifts: tuple[float, ...]
    flows: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class JobSummary:
    """A job's line in the index. `text` is every word it can be found by, in small letters; `seconds` what was worked,
    None where no time was noted; `evidence` what it has seen of each bench's scatter, `outcomes` what was said of its
    cuts before the work, and came; `powers` what its engine made for its flow."""

    text: str
    casting: str
    date: str | None
    cuts: int
    runs: int
    seconds: float | None
    flowed: tuple[CutSummary, ...]
    evidence: Mapping[str, Evidence]
    outcomes: tuple[Outcome, ...]
    powers: tuple[float, ...]


def summary_of(findings: Findings) -> JobSummary:
    """The index entry of a job.

    Parameters
    ----------
    findings : Findings
        Of the job, with the shop's benches.

    Returns
    -------
    JobSummary

    Raises
    ------
    ValueError
        Never: a cut whose readings make no sense is left out, as it is in Compare.
    """
    job = findings.job
    flowed = [s for port in job.ports for s in _flowed(findings, port)]
    dates = sorted(d for d in _dates(job) if d)
    times = [t for p in job.ports for c in p.cuts if (t := time_worked(c)) is not None]
    casting = ", ".join(dict.fromkeys(h.casting for h in job.heads if h.casting))
    return JobSummary(
        text="\n".join(w.lower() for w in _words(job) if w),
        casting=casting,
        date=dates[-1] if dates else None,
        cuts=sum(len(p.cuts) for p in job.ports),
        runs=sum(1 for r in job.runs() if r.claimed is None),
        seconds=sum(times) if times else None,
        flowed=() if job.practice else tuple(flowed),  # a head that does not exist is no figure of the shop's
        evidence={} if job.practice else findings.evidence(),
        outcomes=() if job.practice else (*findings.outcomes(), *called_outcomes(findings)),
        powers=() if job.practice else tuple(powers_for_flow(findings)),
    )


def _flowed(findings: Findings, port: Port) -> Iterator[CutSummary]:
    cuts = [c for c in port.cuts if findings.runs_of(c, port)]
    for i, cut in enumerate(cuts):
        run = findings.runs_of(cut, port)[-1]
        gain = findings.gain(findings.pair(port, cuts[i - 1], cut)) if i else None
        comparable = gain is not None and gain.comparable and not gain.is_share
        yield CutSummary(
            cut_id=cut.id,
            port_name=port.name,
            direction=port.kind,
            number=cut.number,
            name=cut.name,
            newest=i == len(cuts) - 1,
            section=smallest_section(findings.job, port, cut),
            throat=run.geometry.throat_diameter,
            valve=run.geometry.valve_diameter,
            volume=run.geometry.port_volume,
            is_share=run.kind == FlowKind.INDEX,
            setup=run.setup,
            gain=gain.value if gain is not None and comparable else None,
            seconds=time_worked(cut),
            lifts=tuple(float(x) for x in run.lift),
            flows=tuple(float(q) for q in run.flow),
        )


def _dates(job: Job) -> Iterator[str | None]:
    yield from (job.promise_date, job.handed_over)
    yield from (r.date for r in job.runs())
    for port in job.ports:
        yield from (c.date for c in port.cuts)
        yield from (op.date for c in port.cuts for op in c.operations)


def _words(job: Job) -> Iterator[str]:
    yield from (job.title, job.customer, job.note, job.material or "", job.condition, job.waits_for, job.use or "")
    for head in job.heads:
        yield from (head.name, head.casting)
    for valve in job.valves:
        yield valve.name
    for seat in job.seats:
        yield from (seat.recipe, seat.note)
    for setup in job.setups:
        yield setup.bench or ""
    for port in job.ports:
        yield port.name
        for fault in port.faults:
            kind = FaultKind(fault.kind).words if fault.kind in tuple(FaultKind) else fault.kind
            yield from (kind, fault.place, fault.note)
        yield from (tube.work.value for cut in port.cuts for tube in cut.tubes)
        if any(cut.scans for cut in port.cuts):
            yield "scan"
        for cut in port.cuts:
            yield from (cut.name, cut.note)
            for op in cut.operations:
                yield from (op.tool, op.finish, op.note, *op.places)
            for trial in cut.trials:
                yield from (trial.name, trial.kind, trial.note)
    yield from dict.fromkeys(d[:10] for d in _dates(job) if d)
