"""Which papers a job can fill, and the one of them that is made: a pair, or one state described."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.reports.sheet.contents import Choices, PaperKind, PhotoPart, Sheet, Shop
from ventrix.rooms.display_units import Units
from ventrix.rooms.sheet.contents import Asked, sheet_of, usual_pair
from ventrix.rooms.sheet.one_state import baseline, head_judged, work_done
from ventrix.words import tr

# What a job has to have before it fills a paper; a head that was judged needs nothing.
LACKS: Final = {
    PaperKind.PAIR: tr("two cuts of one port have to be flowed"),
    PaperKind.BASELINE: tr("a port has to be flowed"),
    PaperKind.WORK: tr("some work has to be logged on a port"),
}


@dataclass(frozen=True, slots=True)
class Paper:
    """What a paper is about: its kind, the port and its two states (one twice where one is described); no port where
    the job has none that was touched."""

    kind: PaperKind
    port: Port | None = None
    before: Cut | None = None
    after: Cut | None = None


def paper_for(findings: Findings, kind: PaperKind, port: Port | None = None) -> Paper | None:
    """The paper of a kind that a job can fill, of a port or of the one that has most of it; None where it cannot.

    A head that was judged can always be printed: what is not known stands on it as not known.
    """
    if kind is PaperKind.PAIR:
        pair = usual_pair(findings, port)
        return None if pair is None else Paper(kind, *pair)
    ports = [port] if port is not None else [p for p in findings.job.ports if p.of_head]
    ports = [p for p in ports if p.cuts]
    if kind is PaperKind.BASELINE:
        states = [(p, [c for c in p.cuts if findings.runs_of(c, p)]) for p in ports]
        best, flowed = max(states, key=lambda s: (len(s[1]), s[0].kind == "intake"), default=(None, []))
        return Paper(kind, best, flowed[-1], flowed[-1]) if flowed else None
    if kind is PaperKind.WORK:
        worked = [p for p in ports if _worked(p)]
        best = max(worked, key=lambda p: len(p.cuts), default=None)
        return Paper(kind, best, best.cuts[0], best.cuts[-1]) if best is not None else None
    first = next(iter(ports), None)
    return Paper(kind) if first is None else Paper(kind, first, first.cuts[-1], first.cuts[-1])


def _worked(port: Port) -> bool:
    cuts = port.cuts
    return bool(port.faults or port.slips) or any(c.operations or c.walls or c.pours for c in cuts)


def best_paper(findings: Findings, port: Port | None = None) -> Paper:
    """The first kind of paper that a job can fill: pair, one flowed state, work, and else the head as it is known."""
    kinds = (PaperKind.PAIR, PaperKind.BASELINE, PaperKind.WORK)
    found = (paper_for(findings, kind, port) for kind in kinds)
    return (
        next((p for p in found if p is not None), None)
        or paper_for(findings, PaperKind.JUDGED)
        or Paper(PaperKind.JUDGED)
    )


def made_paper(
    findings: Findings,
    paper: Paper,
    choices: Choices,
    shop: Shop,
    today: date,
    units: Units,
    photos: tuple[PhotoPart, ...] = (),
) -> Sheet:
    """A paper with everything it says."""
    port, before, after = paper.port, paper.before, paper.after
    if port is None or before is None or after is None:
        return head_judged(findings, None, choices, shop, today, units)
    asked = Asked(port, before, after, choices, shop, today, photos, paper.kind)
    if paper.kind is PaperKind.BASELINE:
        return baseline(findings, asked, units)
    if paper.kind is PaperKind.WORK:
        return work_done(findings, asked, units)
    if paper.kind is PaperKind.JUDGED:
        return replace(head_judged(findings, asked, choices, shop, today, units), photos=photos)
    return sheet_of(findings, asked, units)
