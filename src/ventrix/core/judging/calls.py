"""What was said before a state was flowed against what came: scored over time, and by place with bias and spread."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from ventrix.core.judging.expectation import Outcome, Scored, places_of
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job_parts import Call
from ventrix.core.model.kinds import Result
from ventrix.core.runs.reduced_run import ReducedRun


@dataclass(frozen=True, slots=True)
class CallScore:
    """One call: where the state had been worked, how far the flows said lay off those that came (share, mean over the
    lifts), the change that was said and the one that came at those lifts [m3/s], and whether "gains" and the place
    were right; None where that was not said, or cannot be told yet."""

    date: str
    cut_id: str
    places: tuple[str, ...]
    off: float | None
    said_change: float | None
    came_change: float | None
    gains_right: bool | None
    place_right: bool | None


@dataclass(frozen=True, slots=True)
class EyeRecord:
    """How calls at a place came out: by how much they lie too high on average and how they scatter (shares), and how
    many there are. `spread` is None under two."""

    place: str
    bias: float
    spread: float | None
    calls: int


def scored_calls(findings: Findings) -> tuple[CallScore, ...]:
    """Every call whose state was flowed after it was said, oldest first.

    Parameters
    ----------
    findings : Findings
        Of the job.

    Returns
    -------
    tuple of CallScore

    Raises
    ------
    ValueError
        Never: a run that makes no sense scores nothing.

    References
    ----------
    Definitions of this project. A gain is right where Compare's verdict is: better for yes, anything else for no.
    """
    found = []
    for call in sorted(findings.job.calls, key=lambda c: c.date):
        for port in findings.job.ports:
            for cut in port.cuts:
                if cut.id == call.cut_id and (score := _scored(findings, call, port, cut)) is not None:
                    found.append(score)
    return tuple(found)


def _scored(findings: Findings, call: Call, port: Port, cut: Cut) -> CallScore | None:
    run = _run_after(findings, call, port, cut)
    if run is None:
        return None
    before = _before(findings, port, cut)
    off = said = came = None
    if call.lifts and run.kind == FlowKind.FLOW:
        flows, then = np.asarray(call.flows), run.curve.at(np.asarray(call.lifts))
        off = float(np.mean(flows / then - 1))
        if before is not None and before[1].kind == FlowKind.FLOW:
            was = before[1].at_pressure(run.test_pressure).curve.at(np.asarray(call.lifts))
            said, came = float(np.mean(flows - was)), float(np.mean(then - was))
    gains = None
    if call.gains and before is not None:
        gain = findings.gain(findings.pair(port, before[0], cut))
        if gain is not None and gain.comparable:
            gains = (gain.result == Result.BETTER) == (call.gains == "yes")
    return CallScore(call.date, cut.id, places_of(cut), off, said, came, gains, _place_right(findings, call, port, cut))


def _run_after(findings: Findings, call: Call, port: Port, cut: Cut) -> ReducedRun | None:
    """The first run of the cut that was made after the call."""
    later = {r.id for r in cut.runs if (r.date or "") >= call.date}
    return next((r for r in findings.runs_of(cut, port) if r.run_id in later), None)


def _before(findings: Findings, port: Port, cut: Cut) -> tuple[Cut, ReducedRun] | None:
    flowed = [c for c in port.cuts if c.number < cut.number and findings.runs_of(c, port)]
    return (flowed[-1], findings.runs_of(flowed[-1], port)[-1]) if flowed else None


def _place_right(findings: Findings, call: Call, port: Port, cut: Cut) -> bool | None:
    """Whether, of the places that were cut afterwards and flowed, the one that was named gained most; None where fewer
    than two were."""
    gains: dict[str, float] = {}
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    for was, now in pairwise(flowed):
        places = places_of(now)
        if now.number <= cut.number or len(places) != 1:
            continue
        gain = findings.gain(findings.pair(port, was, now))
        if gain is not None and gain.value is not None:
            gains[places[0]] = gains.get(places[0], 0.0) + gain.value
    if not call.best_place or len(gains) < 2:
        return None
    return max(gains, key=lambda p: gains[p]) == call.best_place


def eye_record(scores: Iterable[CallScore]) -> tuple[EyeRecord, ...]:
    """Calls of flow by the place that had been worked, most calls first; as cast is a place of its own."""
    by_place: dict[str, list[float]] = {}
    for score in scores:
        if score.off is not None:
            for place in score.places or ("as cast",):
                by_place.setdefault(place, []).append(score.off)
    rows = [
        EyeRecord(place, float(np.mean(offs)), float(np.std(offs, ddof=1)) if len(offs) > 1 else None, len(offs))
        for place, offs in by_place.items()
    ]
    return tuple(sorted(rows, key=lambda r: -r.calls))


def called_outcomes(findings: Findings) -> list[Outcome]:
    """Calls of a change as outcomes: so the eye's own record feeds the porter's own factors, and with them the plan.
    A cut whose gain was said on its own card is left to that."""
    nothing = Scored(None, None)
    carded = {c.id for p in findings.job.ports for c in p.cuts if c.expected_gain is not None}
    return [
        Outcome(s.places, Scored(s.said_change, s.came_change), nothing, nothing)
        for s in scored_calls(findings)
        if s.said_change is not None and s.places and s.cut_id not in carded
    ]
