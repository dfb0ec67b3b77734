"""What a comparison stands on, in words: which runs, at which mounts, judged how, and what the runs say themselves."""

from __future__ import annotations

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.findings import Pair
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import School
from ventrix.core.quantity.words import percent_text
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def side_name(pair: Pair, side: int) -> str:
    """What a side of a pair is called: its cut's number, or "other"."""
    cut = (pair.before, pair.after)[side]
    return "other" if cut.id == "other" else tr("cut {}", cut.number)


def judged_by(c: RunComparison, verdict: Verdict) -> str:
    """By which preference, over what scatter, and whether the other preferences agree."""
    s = c.scatter
    scatter = tr("repeat scatter {} assumed", percent_text(s.repeat))
    if not s.repeat_assumed:
        scatter = tr("repeat scatter {}, {} degrees of freedom", percent_text(s.repeat, 2), int(s.repeat_freedom))
    school = str(c.school)
    if c.school == School.CAM:
        school = tr("cam-weighted flow") if c.cam else tr("the mean of the lifts")
    return " · ".join([tr("by {}", school), scatter, *(verdict.dissent or [tr("the other preferences agree")])])


def based_on(pair: Pair, c: RunComparison, job: Job, other: str) -> str:
    """Which runs it is based on, and what taking the head off is counted as; `other` is what a side from elsewhere is
    called, if one is."""
    told: list[str] = []
    for side, runs in ((0, pair.before_runs), (1, pair.after_runs)):
        mounts = [job.mount(r.mount) for r in runs]
        numbers = ", ".join(str(m.number) for m in mounts if m is not None)
        name = side_name(pair, side) if told else side_name(pair, side).capitalize()
        mounted = tr(" (mount{} {})", "s" * (len(runs) > 1), numbers) if numbers else ""
        told.append(
            f"{name}: {tr('based on 1 run') if len(runs) == 1 else tr('average of {} runs', len(runs))}{mounted}"
        )
    who = "; ".join(told) + "."
    if len(pair.before_runs) == len(pair.after_runs) == 1:
        who += tr(" One run against one.")
    if other:
        who = tr("Compared with {}. {}", other, who)
    if c.difference.same_mount:
        return tr("{} Flowed without taking the head off, so no re-mounting error is added.", who)
    share = percent_text(c.difference.scatter.mount)
    seen = c.difference.scatter.mounts
    rests = tr("assumed, and {} mounts seen", seen) if seen else "assumed"
    if not c.difference.scatter.mount_assumed:
        rests = tr("from {} mounts", seen) if seen else tr("from the bench's study")
    return tr("{} {} of re-mounting error counted ({}).", who, share, rests)


def run_notes(pair: Pair, units: Units) -> list[str]:
    """What the runs of both sides say of themselves."""
    return [
        f"{side_name(pair, side).capitalize()}: {units.say(note)}."
        for side, runs in ((0, pair.before_runs), (1, pair.after_runs))
        for run in runs
        for note in run.notes
    ]
