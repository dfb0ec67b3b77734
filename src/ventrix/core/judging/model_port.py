"""The model port of a kind: the one that is developed first, and what the others are held to."""

from __future__ import annotations

from typing import Final

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port, carried_figure, poured_volume, state_name
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.moments import came_after
from ventrix.core.quantity.units import from_si, to_si

# What ports may differ by unless the job says (common practice, no source): the larger of the two for volume.
VOLUME_TOLERANCE: Final = to_si(1.0, "cc"), 0.01


def developed_port(findings: Findings, kind: Direction) -> Port | None:
    """The port of a kind that the others are held to: the one chosen for the job, else the one with most flowed cuts
    since something last went wrong on it, then with fewest slips and most cuts; None where none was cut."""
    job = findings.job
    ports = [p for p in job.ports if p.of_head and p.kind == kind]
    chosen = next((p for p in ports if p.id in job.model_port_ids and p.cuts), None)
    worked = [p for p in ports if len(p.cuts) > 1]

    def rank(port: Port) -> tuple[int, int, int]:
        since = cuts_since_slip(port)
        return sum(bool(findings.runs_of(c, port)) for c in since), -len(port.slips), len(since)

    return chosen or max(worked, key=rank, default=None)


def cuts_since_slip(port: Port) -> tuple[Cut, ...]:
    """The states of a port that came after its last slip; all of them where nothing went wrong."""
    slips = [s.date for s in port.slips]
    return tuple(c for c in port.cuts if all(came_after(c.date, day) is True for day in slips))


def state_of_model(model: Port, cut: Cut) -> Cut:
    """The developed port's state that a cut is held to: the one of the same name, else of the same number, else its
    last."""
    named = [c for c in model.cuts if state_name(c).lower() == state_name(cut).lower()]
    numbered = [c for c in model.cuts if c.number == cut.number]
    return (named or numbered or [model.cuts[-1]])[-1]


def volume_tolerance(job: Job, volume: float) -> float:
    """What ports of a kind may differ by [m3]: the job's own, else the larger of the usual two."""
    return job.volume_tolerance or max(VOLUME_TOLERANCE[0], VOLUME_TOLERANCE[1] * volume)


def volume_short(findings: Findings, port: Port) -> str:
    """By how much a port's last pour is off its model at the same stage, in words; empty within the tolerance, for the
    model port itself, and where the model was not poured."""
    model = developed_port(findings, port.kind)
    poured = next((cut for cut in reversed(port.cuts) if cut.pours), None)
    if model is None or model.id == port.id or poured is None:
        return ""
    own, theirs = poured_volume(poured), carried_figure(model, state_of_model(model, poured), "volume")
    if own is None or theirs is None or abs(own - theirs) <= volume_tolerance(findings.job, theirs):
        return ""
    way = "over" if own > theirs else "under"
    return f"{port.name} {from_si(abs(own - theirs), 'cc'):.1f} cc {way} {model.name}"
