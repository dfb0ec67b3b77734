"""What a comparison stands on, in words: which runs, at which mounts, judged how, and what the runs say themselves."""

from __future__ import annotations

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.findings import Pair
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import School
from ventrix.core.quantity.words import percent_text
from ventrix.rooms.display_units import Units


def side_name(pair: Pair, side: int) -> str:
    """What a side of a pair is called: its cut's number, or "other"."""
    cut = (pair.before, pair.after)[side]
    return "other" if cut.id == "other" else f"cut {cut.number}"


def judged_by(c: RunComparison, verdict: Verdict) -> str:
    """By which preference, over what scatter, and whether the other preferences agree."""
    s = c.scatter
    scatter = f"repeat scatter {percent_text(s.repeat)} assumed"
    if not s.repeat_assumed:
        scatter = f"repeat scatter {percent_text(s.repeat, 2)}, {int(s.repeat_freedom)} degrees of freedom"
    school = str(c.school)
    if c.school == School.CAM:
        school = "cam-weighted flow" if c.cam else "the mean of the lifts"
    return " · ".join([f"by {school}", scatter, *(verdict.dissent or ["the other preferences agree"])])


def based_on(pair: Pair, c: RunComparison, job: Job, other: str) -> str:
    """Which runs it is based on, and what taking the head off is counted as; `other` is what a side from elsewhere is
    called, if one is."""
    told: list[str] = []
    for side, runs in ((0, pair.before_runs), (1, pair.after_runs)):
        mounts = [job.mount(r.mount) for r in runs]
        numbers = ", ".join(str(m.number) for m in mounts if m is not None)
        name = side_name(pair, side) if told else side_name(pair, side).capitalize()
        mounted = f" (mount{'s' * (len(runs) > 1)} {numbers})" if numbers else ""
        told.append(f"{name}: {'based on 1 run' if len(runs) == 1 else f'average of {len(runs)} runs'}{mounted}")
    who = "; ".join(told) + "."
    if len(pair.before_runs) == len(pair.after_runs) == 1:
        who += " One run against one."
    if other:
        who = f"Compared with {other}. {who}"
    if c.difference.same_mount:
        return f"{who} Flowed without taking the head off, so no re-mounting error is added."
    share = percent_text(c.difference.scatter.mount)
    seen = c.difference.scatter.mounts
    rests = f"assumed, and {seen} mounts seen" if seen else "assumed"
    if not c.difference.scatter.mount_assumed:
        rests = f"from {seen} mounts" if seen else "from the bench's study"
    return f"{who} {share} of re-mounting error counted ({rests})."


def run_notes(pair: Pair, units: Units) -> list[str]:
    """What the runs of both sides say of themselves."""
    return [
        f"{side_name(pair, side).capitalize()}: {units.say(note)}."
        for side, runs in ((0, pair.before_runs), (1, pair.after_runs))
        for run in runs
        for note in run.notes
    ]
