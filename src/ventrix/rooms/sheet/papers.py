"""Which papers a job can fill, and the one of them that is made: a pair, or one state described."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import date
from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction
from ventrix.reports.sheet.contents import (
    ALWAYS,
    Choices,
    PairPart,
    PaperKind,
    Part,
    PhotoPart,
    Sheet,
    Shop,
    offered,
    usual_parts,
)
from ventrix.rooms.display_units import Units
from ventrix.rooms.sheet.contents import Asked, sheet_of, usual_pair
from ventrix.rooms.sheet.one_state import baseline, head_judged, work_done
from ventrix.words import tr
from ventrix.workspace.workspace import Workspace

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
        best, flowed = max(states, key=lambda s: (len(s[1]), s[0].kind == Direction.INTAKE), default=(None, []))
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


def papers_to_fill(findings: Findings) -> list[PaperKind]:
    """The papers that the job can fill."""
    return [k for k in PaperKind if paper_for(findings, k) is not None]


def paper_in_hand(space: Workspace, kind: PaperKind | None) -> Paper:
    """What was chosen where the job can fill it, else the best that it can; a pair is the cut row's."""
    pair = _pair_in_hand(space) if kind in (None, PaperKind.PAIR) else None
    if pair is not None:
        return pair
    kind = kind or PaperKind.PAIR
    found = paper_for(space.findings, kind, space.port) or paper_for(space.findings, kind)
    return found or best_paper(space.findings, space.port)


def _pair_in_hand(space: Workspace) -> Paper | None:
    """The pair that the cut row has chosen, where both were flowed; else first against last."""
    if space.port is None:
        return None
    cut, against = space.real_cut, space.against
    if cut is not None and against is not None and cut.id != against.id and space.trial is None:
        before, after = sorted((against, cut), key=lambda c: c.number)
        if space.findings.runs_of(before, space.port) and space.findings.runs_of(after, space.port):
            return Paper(PaperKind.PAIR, space.port, before, after)
    pair = usual_pair(space.findings, space.port) or usual_pair(space.findings)
    return None if pair is None else Paper(PaperKind.PAIR, *pair)


def kept_parts(kind: PaperKind, kept: str) -> tuple[list[Part], set[Part]]:
    """The parts of a kind of paper in their order, and those that go on it, as they were left; else the usual ones."""
    there = offered(kind)
    try:
        said = json.loads(kept)
        order = [Part(p) for p in said["order"] if p in there]
        on = {Part(p) for p in said["on"] if p in there}
    except (ValueError, KeyError, TypeError):
        order, on = [], set(usual_parts(kind))
    rest = [p for p in there if p not in order]
    return [p for p in (*order, *rest) if p not in ALWAYS], on - set(ALWAYS)


def about_pair(kind: PaperKind, main: PairPart | None) -> str:
    """What a paper is about, in words."""
    if main is None:
        return kind.words
    if main.before_name == main.after_name:
        return f"{main.after_name}, {kind.words}"
    return tr("{} to {}", main.before_name, main.after_name)
