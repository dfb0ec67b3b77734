"""What the Cuts room shows, made from the job: the map's picture and the card's lines. No widget."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.edits.faults import state_at
from ventrix.core.formulas.seat import recut_depth, seat_width_lost
from ventrix.core.judging.air_speed import break_even
from ventrix.core.judging.expectation import Outcome, Scored, time_worked
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.verdict import DEFAULT_WORTHWHILE
from ventrix.core.metal.clay import ClayResult, ClayVerdict, clay_verdict
from ventrix.core.metal.unrolled import unroll, zone_named
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, Trial, Work, mean_poured, poured_volume, trial_as_cut
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, ExpectedAs, FaultState, Place, Result, Until
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.cuts.fault_grid import fault_words
from ventrix.rooms.cuts.slip_words import slip_words
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.scan_words import found_lines
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class CardLine:
    """A line of the card: caption, text, and a result that gives it a mark."""

    caption: str
    text: str
    result: str = ""


DISAGREE = 0.01  # of the mean: pours of one chamber further apart than that are said


def work_words(work: Work, units: Units) -> str:
    """What was taken off a place: side or hours, and depth or how far."""
    words = [work.side] if work.side else []
    if work.from_hour is not None and work.to_hour is not None:
        words.append(tr("{:g} to {:g} o'clock", work.from_hour or 12, work.to_hour or 12))
    if work.depth is not None:
        words.append(tr("{} deep", units.length.text(work.depth)))
    elif work.until in tuple(Until):
        words.append(Until(work.until).words)
    return " ".join(words)


def operation_lines(cut: Cut, units: Units) -> list[CardLine]:
    """What was done, one line an operation. Where several places were worked, each says its own depth."""
    lines = []
    for op in cut.operations:
        several = len(op.works) > 1
        depths = [f"{w.place} {said}" if several else said for w in op.works if (said := work_words(w, units))]
        minutes = units.duration.with_unit(op.duration) if op.duration is not None else ""
        if op.started_at is not None and op.duration is None:
            minutes = tr("since {}", op.started_at[11:16])
        shared = tr(" (shared by {} ports)", len(op.port_ids)) if len(op.port_ids) > 1 else ""
        where = ", ".join(op.places) or op.kind
        words = ", ".join(w for w in (op.tool, *depths, op.finish) if w) or op.kind
        lines.append(CardLine(where, f"{'' if words == where else words}{shared}".strip(), minutes))
    return lines


def scan_lines(cut: Cut, units: Units) -> list[CardLine]:
    """What two scans say came off, beside what was told."""
    return [CardLine(tr("By scan") if n == 0 else "", words) for n, words in enumerate(found_lines(cut, units))]


def outcome_lines(found: Outcome, units: Units) -> list[CardLine]:
    """Predicted and actual, where something was predicted."""
    if all(s.said is None for s in (found.gain, found.growth, found.time)):
        return []

    def words(pick: int) -> str:
        parts = []
        for scored, shown, label in (
            (found.gain, units.flow, units.flow.label),
            (found.growth, units.volume, "cc"),
            (found.time, units.duration, "min"),
        ):
            value = scored[pick]
            if scored.said is not None:
                signed = shown is not units.duration
                doubt = f" ± {shown.text(scored.doubt)}" if pick == 1 and value is not None and scored.doubt else ""
                if scored is found.gain and found.meant != ExpectedAs.WEIGHTED:
                    at = found.meant.words if found.lift is None else tr("at {}", units.lift.with_unit(found.lift))
                    label = f"{label} {at}"
                parts.append("–" if value is None else f"{shown.text(value, sign=signed)}{doubt} {label}")
        return ", ".join(parts)

    return [CardLine(tr("Predicted"), words(0)), CardLine(tr("Actual"), words(1), _score(found.gain))]


def _score(gain: Scored) -> str:
    """More or less than was said, where the doubt of what came leaves that open to no chance."""
    if gain.said is None or gain.came is None:
        return ""
    over = gain.came - gain.said
    return "" if abs(over) <= gain.doubt else Result.BETTER if over > 0 else Result.WORSE


def volume_lines(findings: Findings, port: Port, cut: Cut, against: Cut | None, units: Units) -> list[CardLine]:
    """Poured volume with its repeats, volume by stations beside it, and break-even against the pinned cut."""
    lines = []
    volume = poured_volume(cut)
    if volume is not None:
        apart = max(p.volume for p in cut.pours) - min(p.volume for p in cut.pours)
        how = cut.pours[-1].how
        several = (
            tr("{} pours, {} apart", len(cut.pours), units.volume.text(apart)) if len(cut.pours) > 1 else tr("one pour")
        )
        lines.append(
            CardLine(tr("Poured"), f"{units.volume.with_unit(volume)}   {several}{', ' + tr(how) if how else ''}")
        )
    time = time_worked(cut)
    if time is not None:
        lines.append(CardLine(tr("Time"), units.duration.with_unit(time)))
    before = poured_volume(against) if against is not None else None
    if against is not None and before is not None and volume is not None and against.runs and cut.runs:
        pair = findings.pair(port, against, cut)
        if pair.comparison is not None and pair.comparison.kind == FlowKind.FLOW:
            needed, over = break_even(pair.comparison, before, volume)
            met = "met" if over >= 0 else "missed"
            flowed = units.flow.text(pair.comparison.weighted_after)
            lines.append(
                CardLine(
                    tr("Break-even"),
                    tr("needed {}, flowed {}: {}", units.flow.with_unit(needed), flowed, met),
                    Result.BETTER if over >= 0 else Result.WORSE,
                )
            )
    return lines


def seat_lines(job: Job, port: Port, cut: Cut, units: Units) -> list[CardLine]:
    """The seat's face before and after: narrowed on purpose by a valve job, or lost, and what a recut would need."""
    at = next((i for i, c in enumerate(port.cuts) if c.id == cut.id), 0)
    valve = job.valve_of(port, cut)
    earlier = [c.seat_width for c in port.cuts[:at] if c.seat_width is not None]
    first = earlier[-1] if earlier else (valve.seat_width if valve is not None else None)
    if cut.seat_width is None or first is None or at == 0:
        return []
    size = tr("{} to {}", units.length.text(first), units.length.with_unit(cut.seat_width))
    if CutKind.SEAT in cut.kinds:
        return [CardLine(tr("Seat face"), tr("{}, cut by the valve job", size))]
    lost = float(seat_width_lost(first, cut.seat_width))
    words = tr("{}, {:.0f} % lost", size, 100 * lost)
    if lost > 0 and valve is not None and valve.seat_angle is not None:
        depth = float(recut_depth(cut.seat_width, first, valve.seat_angle))
        words += tr("; a recut sinks the valve {}", units.length.text(depth))
    return [CardLine(tr("Seat face"), words, "worse" if lost > 0.2 else "")]


def trial_verdict(findings: Findings, port: Port, cut: Cut, trial: Trial) -> ClayVerdict | None:
    """What clay says, None for other trials and where cut or trial was not flowed."""
    if trial.kind != "clay" or not trial.runs or not cut.runs:
        return None
    comparison = findings.pair(port, cut, trial_as_cut(cut, trial)).comparison
    if comparison is None:
        return None
    base = comparison.weighted_before
    least = findings.job.worthwhile_gain
    matters = least / base if least is not None and comparison.kind == FlowKind.FLOW else DEFAULT_WORTHWHILE
    here = unroll(port, cut, findings.job.valve_of(port, cut))
    zone = zone_named(trial.place)
    area = float(here.area((zone.start + zone.end) / 2 * here.length)) if zone is not None else None
    try:
        return clay_verdict(
            trial.place,
            comparison.weighted / base,
            comparison.weighted_expanded / base,
            matters,
            trial.area_taken,
            area,
            trial.area_uncertainty,
        )
    except Refused as error:
        said = sentence(str(error))
        return ClayVerdict(
            ClayResult.TOO_SMALL_TO_TELL, said, comparison.weighted / base, comparison.weighted_expanded / base
        )


def zone_history(port: Port, cut: Cut, zone: str, units: Units) -> list[CardLine]:
    """Everything done, read and tried in a zone, up to a cut."""
    lines = []
    for each in port.cuts:
        if each.number > cut.number:
            break
        for op in each.operations:
            for work in (w for w in op.works if w.place in (zone, Place.ALL_OVER)):
                said = ", ".join(w for w in (op.tool or op.kind, work_words(work, units)) if w)
                lines.append(CardLine(tr("cut {}", each.number), said))
        for wall in each.walls:
            if wall.place == zone and wall.struck is None:
                words = tr("wall {}", units.length.with_unit(wall.thickness))
                lines.append(
                    CardLine(tr("cut {}", each.number), words + (tr(", {} behind", wall.behind) if wall.behind else ""))
                )
        for trial in each.trials:
            if trial.place == zone:
                lines.append(CardLine(tr("cut {}", each.number), tr("trial: {} {}", trial.kind, trial.name)))
    return lines


def fault_lines(port: Port, cut: Cut, units: Units) -> list[CardLine]:
    """Faults of the casting as they stand at a cut."""
    lines = []
    for fault in port.faults:
        state = state_at(fault, cut)
        if state is not None:
            lines.append(CardLine(state.words, fault_words(fault, units), "worse" if state is FaultState.OPEN else ""))
    return lines


def slip_lines(port: Port, units: Units) -> list[CardLine]:
    """What went wrong on a port: marked until the customer was told."""
    return [
        CardLine(
            "told" if slip.customer_told else tr("not told yet"),
            slip_words(port, slip, units).partition(", ")[2],
            "" if slip.customer_told else "worse",
        )
        for slip in port.slips
    ]


def chamber_lines(job: Job, units: Units) -> list[CardLine]:
    """The chambers poured: mean, how many pours, and how far the largest and smallest of the head are apart."""
    lines, means = [], []
    for chamber in sorted(job.chambers, key=lambda c: (c.head_id or "", c.cylinder)):
        volumes = [p.volume for p in chamber.pours]
        mean = mean_poured(chamber.pours)
        if mean is None:
            continue
        means.append(mean)
        head = next((f", {h.name}" for h in job.heads if h.id == chamber.head_id), "")
        pours = tr("   {} pours", len(volumes)) if len(volumes) > 1 else ""
        if max(volumes) - min(volumes) > DISAGREE * mean:
            told = ", ".join(f"{units.volume.text(p.volume)}{' ' + tr(p.how) if p.how else ''}" for p in chamber.pours)
            pours += tr(" that disagree: {}", told)
        lines.append(CardLine(tr("cylinder {}{}", chamber.cylinder, head), f"{units.volume.with_unit(mean)}{pours}"))
    if len(means) > 1:
        lines.append(CardLine(tr("apart"), units.volume.with_unit(max(means) - min(means))))
    return lines
