"""A sheet made from a job: the pair, the other kind of port beside it, and all that has to be owned up to."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from typing import Final

import numpy as np

from ventrix.core.edits.faults import state_at
from ventrix.core.formulas.valve import throat_ratio
from ventrix.core.judging.expectation import time_worked
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.job_summary import smallest_section
from ventrix.core.judging.like_sizes import flow_of_run
from ventrix.core.judging.my_lifts import at_my_lifts, lifts_of
from ventrix.core.metal.walls import limit_for, wall_sentence, walls_at
from ventrix.core.model.cut import Cut, Port, poured_volume
from ventrix.core.model.kinds import FaultState, Result
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.geometry import geometry_of
from ventrix.core.runs.reduction import ReducedRun
from ventrix.reports.sheet.contents import (
    Choices,
    Curve,
    FigureRow,
    Large,
    LiftFigures,
    Mark,
    Owned,
    PairPart,
    PhotoPart,
    Sheet,
    Shop,
)
from ventrix.rooms.compare.scorecard import score_rows
from ventrix.rooms.cuts.card import operation_lines
from ventrix.rooms.cuts.fault_grid import fault_words
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.rooms.shared.gain_words import doubt_text, gain_text

MOST_DONE: Final = 36  # lines of work on a sheet; what goes beyond is counted
MOST_LARGE: Final = 3
CAUTION: Final = (
    "A reading is not a promise that a wall is safe or a part is sound. Follow the maker's data, local law and a "
    "licensed machine shop; check clearances, springs and guides before the engine turns."
)
# Rows of the scorecard that a customer reads, by the beginning of their captions.
_ROWS: Final = (
    "Poured volume",
    "Mean section",
    "Mean air speed",
    "Speed at the smallest",
    "Energy density",
    "Exhaust/intake",
    "Cd on valve head",
    "Swirl",
    "Tumble",
    "Peak",
    "Flow stops at",
)
# What a sheet says was not measured where no row of it can be made.
_WANTED: Final = (
    ("Poured volume", "volume"),
    ("Smallest section", "smallest section"),
    ("Throat of valve", "throat"),
    ("Mean air speed", "air speed"),
    ("Swirl", "swirl"),
)
_RESULT: Final = {Result.BETTER: "better", Result.WORSE: "worse"}


@dataclass(frozen=True, slots=True)
class Asked:
    """What a sheet is asked for: the pair, how it is made, whose it is, and the day."""

    port: Port
    before: Cut
    after: Cut
    choices: Choices
    shop: Shop
    today: date
    photos: tuple[PhotoPart, ...] = ()


def usual_pair(findings: Findings, port: Port | None = None) -> tuple[Port, Cut, Cut] | None:
    """The developed port with its first and last flowed cut: the port named, else the one with most flowed cuts."""
    ports = [port] if port is not None else [p for p in findings.job.ports if not p.witness]
    best: tuple[Port, Cut, Cut] | None = None
    most = 1
    for each in ports:
        flowed = [c for c in each.cuts if findings.runs_of(c, each)]
        if len(flowed) > most:
            best, most = (each, flowed[0], flowed[-1]), len(flowed)
    return best


def sheet_of(findings: Findings, asked: Asked, units: Units) -> Sheet:
    """Everything the sheet says of a pair."""
    job = findings.job
    main = findings.pair(asked.port, asked.before, asked.after)
    c = main.comparison
    if c is not None and c.kind == "flow" and job.test_pressure is None:
        # Every flow of a page stands at one pressure: the pair's own, for the other kind of port too.
        findings = Findings(replace(job, test_pressure=c.pressure), findings, findings.benches, findings.elsewhere)
        main = findings.pair(asked.port, asked.before, asked.after)
    other = _other_pair(findings, asked.port)
    pairs = [p for p in (_pair_part(findings, main, units), _pair_part(findings, other, units) if other else None) if p]
    pairs.sort(key=lambda p: p.kind != "intake")
    figures = _figures(findings, main, units)
    missing = [words for caption, words in _WANTED if not any(f.caption.startswith(caption) for f in figures)]
    wanted_other = "exhaust" if asked.port.kind == "intake" else "intake"
    if other is None:
        missing.append(wanted_other)
    faults = _faults(asked.port, asked.after, units)
    mount = next((job.mount(r.mount) for r in main.after_runs if r.mount), None)
    conditions = []
    if main.after_runs:
        conditions.append(in_words(main.after_runs[-1].setup, mount.number if mount else None, units))
        conditions.append(_bench_words(findings, main, units))
    return Sheet(
        shop=asked.shop,
        title=f"{job.title}, {asked.port.name}",
        author=asked.shop.name or "Ventrix",
        customer=job.customer,
        date=asked.today.isoformat(),
        casting=_casting(findings),
        conditions=tuple(w for w in conditions if w),
        large=_large(findings, main, units),
        pairs=tuple(pairs),
        lift_label=units.lift.label,
        figures=(*figures, *(FigureRow(w.capitalize(), "", "not measured", missing=True) for w in missing)),
        done=_done(asked, units),
        hours=_hours(asked.port, asked.before, asked.after, units),
        ports_head=_ports_head(units, _sheet_lift(findings, main)),
        ports=_ports(findings, units, _sheet_lift(findings, main)),
        photos=asked.photos,
        notes=_notes(findings, [p for p in (main, other) if p is not None]),
        cautions=(*_walls(findings, asked.port, asked.after, units), CAUTION),
        faults=faults,
        owned=_owned(findings, main, other, pairs, missing, units),
        not_ready=_not_ready(main, other, wanted_other),
        choices=asked.choices,
    )


def _other_pair(findings: Findings, port: Port) -> Pair | None:
    """The port of the other kind with its first and last flowed cut: on the same cylinder, else the first flowed."""
    others = [p for p in findings.job.ports if p.kind != port.kind and not p.witness]
    others.sort(key=lambda p: port.cylinder is None or p.cylinder != port.cylinder)
    for each in others:
        flowed = [c for c in each.cuts if findings.runs_of(c, each)]
        if flowed:
            return findings.pair(each, flowed[0], flowed[-1])
    return None


def _not_ready(main: Pair, other: Pair | None, wanted: str) -> str:
    """Why the sheet cannot be handed over yet; empty where it can."""
    if main.comparison is None:
        return main.missing.rstrip(".") or "the pair was not flowed"
    if not main.comparison.allowed:
        return "the pair is not to be compared"
    if other is not None and other.before.id == other.after.id:
        return f"{wanted} has no after"
    return ""


def _marks(findings: Findings, pair: Pair) -> tuple[Mark, ...]:
    c = pair.comparison
    if c is None:
        return ()
    found = []
    if any(r.converted for r in (*pair.before_runs, *pair.after_runs)):
        found.append(Mark.CONVERTED)
    if c.adjustments:
        found.append(Mark.CARRIED)
    if c.claimed:
        found.append(Mark.CLAIMED)
    if bool(np.any(c.interpolated)):
        found.append(Mark.INTERPOLATED)
    if c.comparability.level in ("no", "unknown"):
        found.append(Mark.INCOMPARABLE)
    return tuple(found)


def _name(cut: Cut) -> str:
    return f"cut {cut.number}" + (f", {cut.name}" if cut.name else "")


def _pair_part(findings: Findings, pair: Pair, units: Units) -> PairPart | None:
    c, verdict = pair.comparison, findings.verdict(pair, units.wording)
    if c is None or verdict is None:
        return None
    share = c.kind == "index"
    same = pair.before.id == pair.after.id

    def flow(value: float) -> str:
        return f"{value:.4f}" if share else units.flow.text(value)

    rows = []
    for i, x in enumerate(c.lift):
        scale = 100 / c.before[i] if share else 1.0
        change, doubt = float(c.change[i]) * scale, float(c.expanded[i]) * scale
        gain = f"{change:+.1f} %".replace("-", "−") if share else units.flow.text(change, sign=True)
        band = f"{doubt:.1f} %" if share else units.flow.text(doubt)
        rows.append(
            LiftFigures(
                units.lift.text(float(x)),
                flow(float(c.before[i])),
                flow(float(c.after[i])),
                "" if same else gain if c.results[i] != Result.NOT_PROVEN else "–",
                "" if same else f"{gain} ± {band}",
                "" if same else _RESULT.get(c.results[i], ""),
                Mark.INTERPOLATED.sign if c.interpolated[i] else "",
            )
        )
    runs = pair.before_runs[-1], pair.after_runs[-1]
    headline = "Flowed once: nothing to hold it against." if same else verdict.headline
    return PairPart(
        kind=pair.port.kind,
        port=pair.port.name,
        before_name=_name(pair.before),
        after_name=_name(pair.after),
        unit="index" if share else units.flow.label,
        verdict=headline if not share or same else f"{headline} An uncalibrated bench: gains are percent.",
        sentence="" if same else verdict.sentence,
        comparability="" if same else c.comparability.sentence,
        conditions=_full_conditions(findings, runs, units),
        lifts=tuple(rows),
        before=_curve(runs[0], units),
        after=_curve(runs[1], units),
        warnings=() if same else verdict.warnings,
        marks=_marks(findings, pair),
    )


def _curve(run: ReducedRun, units: Units) -> Curve:
    lifts = np.linspace(0.0, run.curve.highest, 81)
    flows = run.curve.at(lifts)
    y = from_si_array(flows, units.flow.unit) if run.kind == "flow" else flows
    return Curve(tuple(float(v) for v in from_si_array(lifts, units.lift.unit)), tuple(float(v) for v in y))


def _casting(findings: Findings) -> str:
    job = findings.job
    parts = [h.casting for h in job.heads if h.casting]
    parts += [f"{job.cylinders} cylinders"] if job.cylinders else []
    parts += [f"{job.valves_per_cylinder} valves each"] if job.valves_per_cylinder else []
    parts += [job.material] if job.material else []
    return ", ".join(parts)


def _bench_words(findings: Findings, pair: Pair, units: Units) -> str:
    """Valve, bench, plate, air, leak and mounts of the side after, in one line."""
    run = pair.after_runs[-1]
    setup, g = run.setup, run.geometry
    parts = []
    if g.valve_diameter is not None:
        angle = f", {from_si(g.seat_angle, 'deg'):.0f}°" if g.seat_angle is not None else ""
        parts.append(f"{units.length.with_unit(g.valve_diameter)} valve{angle}")
    if setup.bench:
        bench = next((b for b in findings.benches if b.name.lower() == setup.bench.lower()), None)
        plate = bench.plates[-1] if bench is not None and bench.plates else None
        held = (
            f", plate {units.flow.text(plate.flow)} of {units.flow.text(plate.nominal)}"
            if plate is not None and plate.nominal is not None and plate.flow is not None
            else ""
        )
        parts.append(f"bench {setup.bench}{held}")
    if setup.temperature is not None:
        parts.append(units.temperature.with_unit(setup.temperature))
    if setup.leak is not None:
        parts.append(f"leak {units.flow.with_unit(setup.leak)} taken off")
    mounts = [findings.job.mount(r.mount) for r in (*pair.before_runs, *pair.after_runs)]
    numbers = sorted({m.number for m in mounts if m is not None})
    if numbers:
        parts.append(f"mount{'s' * (len(numbers) > 1)} {', '.join(str(n) for n in numbers)}")
    return " · ".join(parts)


# Conditions in the order a reader asks for them: caption, field, unit of the screen or None.
_CONDITIONS: Final = (
    ("Test pressure", "test_pressure", "pressure"),
    ("Bore sleeve", "bore", "length"),
    ("Centred on it", "centred", None),
    ("Entry", "entry", None),
    ("Pipe", "pipe", None),
    ("Valve fitted", "valve", None),
    ("Valves opened", "valves_open", None),
    ("Plug", "plug", None),
    ("Clean", "clean", None),
    ("Bench", "bench", None),
    ("Air", "temperature", "temperature"),
    ("Barometer", "pressure", "barometer"),
    ("Humidity", "humidity", "humidity"),
    ("Leak, taken off", "leak", "flow"),
    ("Seat leak, not taken off", "seat_leak", "flow"),
)
_ALSO_UNSAID: Final = ("pipe", "valves_open", "seat_leak")  # said only where they were recorded


def _full_conditions(findings: Findings, runs: tuple[ReducedRun, ReducedRun], units: Units) -> tuple[str, ...]:
    """Every condition, before and after where they differ; "not recorded" where nobody said."""
    said = []
    for caption, key, unit in _CONDITIONS:
        values = [_condition(r.setup, key, unit, units) for r in runs]
        if key in _ALSO_UNSAID and values == [NOT_RECORDED, NOT_RECORDED]:
            continue
        words = values[1] if values[0] == values[1] else f"{values[0]} before, {values[1]} after"
        said.append(f"{caption}: {words}")
    dates = [_date_of(findings, r) for r in runs]
    if any(dates):
        said.append("Flowed: " + (dates[1] if dates[0] == dates[1] else f"{dates[0]} before, {dates[1]} after"))
    return tuple(said)


NOT_RECORDED: Final = "not recorded"


def _condition(setup: SetUp, key: str, unit: str | None, units: Units) -> str:
    value = getattr(setup, key)
    if value is None:
        return NOT_RECORDED
    if unit is not None:
        return units[unit].with_unit(value)
    return {True: "yes", False: "no"}.get(value, str(value))


def _date_of(findings: Findings, run: ReducedRun) -> str:
    return next((r.date[:10] for r in findings.job.runs() if r.id == run.run_id and r.date), NOT_RECORDED)


def _sheet_lift(findings: Findings, pair: Pair) -> float | None:
    """The one lift that a row of all ports is said at: the highest own one that the pair reaches, else its cam's."""
    c = pair.comparison
    if c is None:
        return None
    reached = at_my_lifts(c, lifts_of(findings.job, pair.port.kind))
    return reached[-1].lift if reached else float(c.lift[-1])


def _large(findings: Findings, pair: Pair, units: Units) -> tuple[Large, ...]:
    """My lifts and the one number, as large figures."""
    c = pair.comparison
    gain = findings.gain(pair)
    if c is None or gain is None:
        return ()
    signs = "".join(m.sign for m in _marks(findings, pair) if m is not Mark.INTERPOLATED)
    share = c.kind == "index"
    found = []
    for figure in at_my_lifts(c, lifts_of(findings.job, pair.port.kind)):
        change = (
            f"{100 * figure.change / figure.before:+.1f} %".replace("-", "−")
            if share
            else units.flow.text(figure.change, sign=True)
        )
        found.append(
            Large(
                f"{figure.name}, " * bool(figure.name) + f"at {units.lift.with_unit(figure.lift)}",
                f"{figure.after:.4f}" if share else units.flow.text(figure.after),
                change if c.allowed else "",
                _RESULT.get(figure.result, ""),
                "was " + (f"{figure.before:.4f}" if share else units.flow.text(figure.before)),
                signs + (Mark.INTERPOLATED.sign if figure.interpolated else ""),
            )
        )
    over = "over the cam" if c.cam is not None and c.school == "cam-weighted" else f"by {c.school}"
    value = f"{c.weighted_after:.4f}" if share else units.flow.text(c.weighted_after)
    was = f"{c.weighted_before:.4f}" if share else units.flow.text(c.weighted_before)
    result = _RESULT.get(Result(gain.result), "") if gain.result in tuple(Result) else ""
    text = gain_text(gain, units) if gain.comparable else ""
    return (*found[-MOST_LARGE:], Large(over, value, text, result, f"was {was}", signs))


def _figures(findings: Findings, pair: Pair, units: Units) -> list[FigureRow]:
    """Volume, sections, throat, speeds, ratio and swirl before and after, as the scorecard has them."""
    c, verdict = pair.comparison, findings.verdict(pair, units.wording)
    if c is None or verdict is None:
        return []
    job, rows = findings.job, []
    sizes = [geometry_of(job, pair.port, cut) for cut in (pair.before, pair.after)]
    throats = [
        percent_text(float(throat_ratio(g.valve_diameter, g.throat_diameter)))
        if g.valve_diameter and g.throat_diameter
        else ""
        for g in sizes
    ]
    if all(throats):
        rows.append(FigureRow("Throat of valve", throats[0], throats[1]))
    sections = [smallest_section(job, pair.port, cut) for cut in (pair.before, pair.after)]
    if sections[0] is not None and sections[1] is not None:
        texts = [units.area.text(s) for s in sections]
        rows.append(FigureRow(f"Smallest section, {units.area.label}", texts[0], texts[1]))
    signs = "".join(m.sign for m in _marks(findings, pair) if m is not Mark.INTERPOLATED)
    for score in score_rows(findings, pair, c, verdict, units):
        if score.caption.startswith(_ROWS):
            flows = not score.caption.startswith(("Poured", "Mean section", "Cd"))
            rows.append(
                FigureRow(score.caption, score.before, score.after, _RESULT.get(Result(score.result), "")
                          if score.result in tuple(Result) else "", signs if flows else "")
            )  # fmt: skip
    order = {caption: i for i, caption in enumerate(("Poured volume", "Smallest section", "Throat of valve", *_ROWS))}
    rows.sort(key=lambda r: next((i for start, i in order.items() if r.caption.startswith(start)), len(order)))
    return rows


def _done(asked: Asked, units: Units) -> tuple[str, ...]:
    """What was done to the metal between the two, a line an operation; for the shop with minutes and its own notes."""
    low, high = sorted((asked.before.number, asked.after.number))
    own = asked.choices.audience == "shop"
    lines = []
    for cut in (c for c in asked.port.cuts if low < c.number <= high):
        worked = operation_lines(cut, units)
        for line in worked:
            lines.append(f"{line.caption}: {line.text}" + (f", {line.result}" if own and line.result else ""))
        if not worked:
            lines.append(cut.name or f"cut {cut.number}, not described")
        if own and cut.note:
            lines.append(f"cut {cut.number}, note: {cut.note}")
    more = len(lines) - MOST_DONE
    return (*lines[:MOST_DONE], *((f"and {more} operations more",) if more > 0 else ()))


def _hours(port: Port, before: Cut, after: Cut, units: Units) -> tuple[tuple[str, str], ...]:
    low, high = sorted((before.number, after.number))
    rows, total = [], 0.0
    for cut in (c for c in port.cuts if low < c.number <= high):
        time = time_worked(cut)
        total += time or 0.0
        rows.append((_name(cut), units.duration.with_unit(time) if time is not None else "not noted"))
    return (*rows, ("together", units.duration.with_unit(total))) if rows else ()


def _ports_head(units: Units, lift: float | None) -> tuple[str, ...]:
    at = f"{units.flow.label} at {units.lift.text(lift)}" if lift is not None else units.flow.label
    return ("port", "state", "cc", at, "gain", "thinnest wall")


def _ports(findings: Findings, units: Units, lift: float | None) -> tuple[tuple[str, ...], ...]:
    """Every port in a line: its last flowed state, volume, flow, what it gained, and its thinnest wall."""
    rows = []
    for port in findings.job.ports:
        if not port.cuts:
            continue
        flowed = [c for c in port.cuts if findings.runs_of(c, port)]
        cut = flowed[-1] if flowed else port.cuts[-1]
        flow = "not flowed"
        if flowed and lift is not None:
            run = findings.runs_of(cut, port)[-1]
            pressure = findings.job.test_pressure or run.test_pressure
            shown = run.at_pressure(pressure)
            value = flow_of_run(shown, lift)
            sign = Mark.CONVERTED.sign if shown.converted else ""
            flow = f"{units.flow.text(value)}{sign}" if run.kind == "flow" else "index"
        stands = _flowed_for(findings, port)
        if not flowed and stands:
            flow = f"like {stands[0]}{Mark.NOT_FLOWED.sign}"
        gain = findings.gain(findings.pair(port, flowed[0], cut)) if len(flowed) > 1 else None
        walls = walls_at(findings.job, port, cut)
        known = next((w for w in walls if not w.unknown), None)
        rows.append(
            (
                port.name + (", witness" if port.witness else ""),
                _name(cut),
                units.volume.text(poured_volume(cut)) if poured_volume(cut) is not None else "–",
                flow,
                (gain_text(gain, units) + (f" ± {doubt_text(gain, units)}" if gain and gain.comparable else ""))
                if gain is not None
                else "–",
                units.length.text(max(known.left, 0.0)) if known is not None else "not read",
            )
        )
    return tuple(rows)


def _flowed_for(findings: Findings, port: Port) -> list[str]:
    """Names of ports whose test is taken to speak for this one."""
    ports = findings.job.ports
    return [p.name for p in ports for c in p.cuts for r in c.runs if port.id in r.stands_for_port_ids]


def _notes(findings: Findings, pairs: list[Pair]) -> tuple[str, ...]:
    """Runs and readings that do not count, and what the comparison says of itself."""
    said: list[str] = []
    for pair in pairs:
        for cut in dict.fromkeys((pair.before.id, pair.after.id)):
            mine = pair.before if cut == pair.before.id else pair.after
            struck = [r.struck for run in mine.runs for r in run.readings if r.struck]
            if struck:
                reasons = ", ".join(dict.fromkeys(struck))
                said.append(
                    f"{pair.port.name}, cut {mine.number}: {len(struck)} reading{'s' * (len(struck) > 1)} struck "
                    f"({reasons[:120]})."
                )
        said += [f"{pair.port.name}: {s}" for s in findings.left_out(pair)]
        if pair.comparison is not None:
            said += [f"{pair.port.name}: {n}." for n in pair.comparison.notes]
        said += [f"{pair.port.name}: {n}." for r in (*pair.before_runs, *pair.after_runs) for n in r.notes]
    return tuple(dict.fromkeys(said))


def _walls(findings: Findings, port: Port, cut: Cut, units: Units) -> tuple[str, ...]:
    """The thinnest wall read, and the day; or that none was."""
    walls = walls_at(findings.job, port, cut)
    if not walls:
        return (f"No wall of {port.name} was read.",)
    job = findings.job
    worst = min(walls, key=lambda w: (not w.unknown, w.left - limit_for(job, w.reading.place)))
    return (f"{port.name}, thinnest read: {wall_sentence(job, worst, units.length.unit)}",)


def _faults(port: Port, cut: Cut, units: Units) -> tuple[str, ...]:
    return tuple(
        f"{state.words}: {fault_words(fault, units)}"
        for fault in port.faults
        if (state := state_at(fault, cut)) is not None and state is not FaultState.GONE
    )


def _owned(
    findings: Findings, main: Pair, other: Pair | None, parts: list[PairPart], missing: list[str], units: Units
) -> tuple[Owned, ...]:
    """What the page must own up to, beside it on screen; the same is on the page itself."""
    found = []
    for mark in Mark:
        marked = [p for p in parts if mark in p.marks]
        if marked:
            names = ", ".join(p.port for p in marked)
            found.append(Owned("converted", f"{mark.value}: {len(marked)}", f"{names}: {mark.words}"))
    if missing:
        found.append(Owned("missing", f"not measured: {len(missing)}", ", ".join(missing)))
    for part in parts:
        lifts = [r.lift for r in part.lifts if r.gain == "–"]
        if lifts:
            span = lifts[0] if len(lifts) == 1 else f"{lifts[0]} to {lifts[-1]}"
            found.append(Owned("unproven", f"not proven: {len(lifts)}", f"{part.port}, gains within {span}"))
    left = [s for p in (main, other) if p is not None for s in findings.left_out(p)]
    if left:
        found.append(Owned("left", f"left out: {len(left)} run{'s' * (len(left) > 1)}", left[0]))
    struck = sum(
        r.struck is not None
        for pair in (main, other)
        if pair is not None
        for cut in {pair.before.id: pair.before, pair.after.id: pair.after}.values()
        for run in cut.runs
        for r in run.readings
    )
    if struck:
        found.append(Owned("left", f"struck: {struck}", "readings that were taken and do not count"))
    if main.comparison is not None and main.comparison.comparability.level == "yes":
        found.append(Owned("same", "same conditions", "bore, entry, valve, plug, bench"))
    return tuple(found)
