"""Exhaust flow against intake flow: which states are held together, and what the share rests on.

The one answer for Compare, the row, Match, the sheet and the commands.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.formulas.exhaust_ratio import ExhaustRatios, exhaust_ratios
from ventrix.core.judging.comparability import same_condition
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, state_name
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.moments import came_after
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

# What both kinds must have been flowed under alike, and the mark of a share where they were not.
_ALIKE: Final = (("bench", tr("other bench")), ("bore", tr("other sleeve")))
NOT_THEN: Final = tr("not of the same time")


@dataclass(frozen=True, slots=True)
class OtherKind:
    """The state of the other kind that a cut is held to, by one of its runs. `marks` say what keeps the two from being
    one test: they stand wherever a share of them does."""

    port: Port
    cut: Cut
    run: ReducedRun
    marks: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ExhaustShare:
    """Exhaust over intake by the four ways the trade takes it, of a cut and what stood beside it then."""

    ratios: ExhaustRatios
    beside: OtherKind
    marks: tuple[str, ...]


def other_kind(findings: Findings, port: Port, cut: Cut) -> OtherKind | None:
    """What the other kind of port flowed when a cut was as it is: on the same cylinder where that is named, else on the
    first that was flowed.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port, cut : Port, Cut
        The state that is asked about.

    Returns
    -------
    OtherKind or None
        The state of the same name, else the one that stood at the day of the cut's run, else the last, marked; None
        where none was flowed. `marks` name another bench, another sleeve, and conditions that were not recorded.

    References
    ----------
    Common practice, no source: exhaust and intake are told as one share only of one time and one test.
    """
    others = [p for p in findings.job.ports if p.kind != port.kind and p.of_head]
    cylinder = port.cylinder, port.head_id
    others.sort(key=lambda p: port.cylinder is None or (p.cylinder, p.head_id) != cylinder)
    own = findings.runs_of(cut, port)
    for other in others:
        flowed = [c for c in other.cuts if any(r.kind == FlowKind.FLOW for r in findings.runs_of(c, other))]
        if not flowed:
            continue
        state, then = _state_then(port, cut, other, flowed)
        runs = [r for r in findings.runs_of(state, other) if r.kind == FlowKind.FLOW]
        marked = [(_marks(own[-1], r) if own else (), r) for r in runs]
        marks, run = min(reversed(marked), key=lambda m: len(m[0]))
        return OtherKind(other, state, run, marks if then else (*marks, NOT_THEN))
    return None


def exhaust_share(findings: Findings, port: Port, cut: Cut, run: ReducedRun | None = None) -> ExhaustShare | None:
    """Exhaust over intake of a cut and of what stood beside it then; of one of its runs, the last without.

    Parameters
    ----------
    findings, port, cut : Findings, Port, Cut
        As `other_kind`.
    run : ReducedRun, optional
        At the pressure that the share is taken at.

    Returns
    -------
    ExhaustShare or None
        None where one side was not flowed in CFM, or no lift is common to both.

    References
    ----------
    `exhaust_ratio.exhaust_ratios`.
    """
    beside = other_kind(findings, port, cut)
    runs = findings.runs_of(cut, port)
    mine = run or (runs[-1] if runs else None)
    if beside is None or mine is None or mine.kind != FlowKind.FLOW:
        return None
    theirs = beside.run.at_pressure(mine.test_pressure)
    exhaust, intake = (mine, theirs) if port.kind == Direction.EXHAUST else (theirs, mine)
    try:
        found = exhaust_ratios(
            exhaust.curve,
            intake.curve,
            exhaust.geometry.valve_diameter,
            intake.geometry.valve_diameter,
            findings.cam_of(Direction.EXHAUST),
            findings.cam_of(Direction.INTAKE),
        )
    except Refused:
        return None
    return ExhaustShare(found, beside, beside.marks)


def _state_then(port: Port, cut: Cut, other: Port, flowed: list[Cut]) -> tuple[Cut, bool]:
    """The flowed state of the other port that belongs to a cut, and whether it stood then."""
    same = [c for c in flowed if state_name(c).lower() == state_name(cut).lower() or c.number == cut.number == 0]
    if same:
        return same[-1], True
    when = cut.runs[-1].date if cut.runs else cut.date
    if when is not None and all(c.date for c in other.cuts if c.number):
        stood = [c for c in other.cuts if not c.number or came_after(c.date, when) is not True][-1]
        if stood in flowed:
            return stood, True
    first = next((c for c in port.cuts if c.runs), None)
    return (flowed[0] if first is not None and cut.id == first.id else flowed[-1]), False


def _marks(one: ReducedRun, other: ReducedRun) -> tuple[str, ...]:
    marks = []
    for key, mark in _ALIKE:
        a, b = getattr(one.setup, key), getattr(other.setup, key)
        if a is None or b is None:
            marks.append(tr("{} not recorded", key))
        elif not same_condition(key, a, b):
            marks.append(mark)
    return tuple(marks)
