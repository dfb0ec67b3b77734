"""Whether a job can be opened and judged at all: tried before it is stored, so that no document locks a book."""

from __future__ import annotations

from itertools import pairwise

from ventrix.core.air.traverse import air_of, field_of
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.row_of_cuts import row_of_cuts
from ventrix.core.metal.unrolled import unroll
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.bench import Bench
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused


def try_opening(job: Job, benches: tuple[Bench, ...] = ()) -> None:
    """Open and judge a job as the rooms would.

    Parameters
    ----------
    job : Job
        From outside.
    benches : tuple of Bench
        That came with it.

    Raises
    ------
    ValueError
        With a sentence: no port, a port without a cut, mirrors in a circle, or figures that contradict each other.
    """
    if not job.ports:
        raise Refused("a job needs a port")
    for port in job.ports:
        if not port.cuts:
            raise Refused("port '{}' has no cut: cut 0 is as received", port.name)
        numbers = [c.number for c in port.cuts]
        if numbers != sorted(set(numbers)):
            raise Refused("the cuts of port '{}' are not numbered in order", port.name)
    _check_mirrors(job)
    findings = Findings(job, benches=benches)
    for port in job.ports:
        _look_at(findings, port)


def _check_mirrors(job: Job) -> None:
    of = {p.id: p.mirror_of for p in job.ports} | {p.name: p.mirror_of for p in job.ports}
    for port in job.ports:
        seen, at = {port.id}, port.mirror_of
        while at is not None and at in of:
            found = next(p for p in job.ports if at in (p.id, p.name))
            if found.id in seen:
                raise Refused("port '{}' mirrors itself in a circle", port.name)
            seen.add(found.id)
            at = of[at]


def _look_at(findings: Findings, port: Port) -> None:
    for cut in port.cuts:
        findings.runs_of(cut, port)
        findings.claims_of(cut, port)
        here = unroll(port, cut, findings.job.valve_of(port, cut))
        walls_at(findings.job, port, cut)
        for traverse in cut.traverses:
            if traverse.kind == TraverseKind.PITOT:
                field_of(
                    traverse, *_size(here.width(0.0), here.height(0.0), here.area(0.0)), air_of(findings.job, traverse)
                )
    for before, after in (*pairwise(port.cuts), (port.cuts[0], port.cuts[-1])):
        if before is not after:
            findings.verdict(findings.pair(port, before, after))
    row_of_cuts(findings, port)


def _size(width: object, height: object, area: object) -> tuple[float, float, float]:
    return float(width), float(height), float(area)  # type: ignore[arg-type]
