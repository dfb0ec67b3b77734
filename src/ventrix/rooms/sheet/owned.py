"""What a sheet owns up to: limits that are printed on the page, and listed beside it on the screen."""

from __future__ import annotations

from ventrix.core.judging.comparability import Level
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.fits import fit_checks
from ventrix.core.judging.targets import TargetState, judged_targets
from ventrix.core.metal.slips import not_told
from ventrix.core.model.job import Job
from ventrix.reports.sheet.contents import Mark, Owned, PairPart
from ventrix.rooms.cuts.slip_words import slip_words
from ventrix.rooms.display_units import Units
from ventrix.words import tr

PRACTICE = tr("A head that does not exist: nobody measured any of this. It is practice.")


def fits_out(job: Job, units: Units) -> list[Owned]:
    """Springs, guides, contacts, heights and faces that are out of their limits."""
    return [
        Owned("missing", tr("out of its limit"), c.says) for c in fit_checks(job, units.wording) if c.holds is False
    ]


def owned_by(
    findings: Findings, main: Pair, other: Pair | None, parts: list[PairPart], missing: list[str], units: Units
) -> tuple[Owned, ...]:
    """Limits printed on the page, beside it on screen; the same is on the page itself."""
    found = []
    if findings.job.practice:
        found.append(Owned("missing", "practice", PRACTICE))
    for mark in Mark:
        marked = [p for p in parts if mark in p.marks]
        if marked:
            names = ", ".join(p.port for p in marked)
            found.append(Owned("converted", f"{mark.value}: {len(marked)}", f"{names}: {mark.words}"))
    for each in (p for p in (main, other) if p is not None and p.after_runs):
        for judged in judged_targets(each.after_runs[-1], findings.job, each.port.kind):
            at = tr("{}, target at {}", each.port.name, units.lift.with_unit(judged.target.lift))
            kind = "same" if judged.state is TargetState.PROVEN else "unproven"
            found.append(Owned(kind, at, judged.words(units.wording)))
    for port, slip in not_told(findings.job):
        found.append(Owned("missing", tr("slip, not told yet"), slip_words(port, slip, units)))
    found += fits_out(findings.job, units)
    if missing:
        found.append(Owned("missing", tr("not measured: {}", len(missing)), ", ".join(missing)))
    for part in parts:
        lifts = [r.lift for r in part.lifts if r.gain == "–"]
        if lifts:
            span = lifts[0] if len(lifts) == 1 else tr("{} to {}", lifts[0], lifts[-1])
            found.append(
                Owned("unproven", tr("not proven: {}", len(lifts)), tr("{}, gains within {}", part.port, span))
            )
    left = [units.say(s) for p in (main, other) if p is not None for s in findings.left_out(p)]
    if left:
        found.append(Owned("left", tr("left out: {} run{}", len(left), "s" * (len(left) > 1)), left[0]))
    struck = sum(
        r.struck is not None
        for pair in (main, other)
        if pair is not None
        for cut in {pair.before.id: pair.before, pair.after.id: pair.after}.values()
        for run in cut.runs
        for r in run.readings
    )
    if struck:
        found.append(Owned("left", tr("struck: {}", struck), tr("readings that were taken and do not count")))
    if main.comparison is not None and main.comparison.comparability.level == Level.YES:
        found.append(Owned("same", tr("same conditions"), tr("bore, entry, valve, plug, bench")))
    return tuple(found)
