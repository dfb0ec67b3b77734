"""A sheet made from a job: the pair, the other kind of port beside it, and all that has to be owned up to."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from typing import Final

import numpy as np

from ventrix.core.formulas.valve import throat_ratio
from ventrix.core.judging.comparability import Level
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.my_lifts import at_my_lifts, lifts_of
from ventrix.core.metal.unrolled import smallest_section
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction, Result
from ventrix.core.quantity.units import from_si_array
from ventrix.core.quantity.words import number_text, percent_text
from ventrix.core.runs.geometry import geometry_of
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.reports.sheet.contents import (
    Choices,
    Curve,
    FigureRow,
    Large,
    LiftFigures,
    Mark,
    PairPart,
    PaperKind,
    Part,
    PhotoPart,
    SectionLine,
    Sheet,
    Shop,
)
from ventrix.rooms.compare.scorecard import Row, score_rows
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.rooms.shared.gain_words import gain_text
from ventrix.rooms.sheet.conditions import bench_words, casting_words, full_conditions
from ventrix.rooms.sheet.engine_part import engine_part
from ventrix.rooms.sheet.metal import fault_lines, wall_lines
from ventrix.rooms.sheet.owned import PRACTICE, owned_by
from ventrix.rooms.sheet.scan_part import scan_part
from ventrix.rooms.sheet.work_and_ports import cut_words, done_lines, hours_rows, ports_head, ports_rows
from ventrix.words import tr

MOST_LARGE: Final = 3
CAUTION: Final = tr(
    "A reading is not a promise that a wall is safe or a part is sound. Follow the maker's data, local law and a "
    "licensed machine shop; check clearances, springs and guides before the engine turns."
)
# Figures that a customer reads, in their order; two are the sheet's own.
_THROAT, _SMALLEST = "throat", tr("smallest section")
_ROWS: Final = (
    Row.VOLUME,
    _SMALLEST,
    _THROAT,
    Row.SECTION,
    Row.SPEED,
    Row.PINCH,
    Row.ENERGY,
    Row.SHARE,
    Row.CD,
    Row.SWIRL,
    Row.PEAK,
    Row.STALL,
)
_NO_MARK: Final = (Row.VOLUME, Row.SECTION, Row.CD)  # no flow goes into them
# What a sheet says was not measured where no row of it can be made.
_WANTED: Final = (
    (Row.VOLUME, "volume"),
    (_SMALLEST, tr("smallest section")),
    (_THROAT, "throat"),
    (Row.SPEED, tr("air speed")),
    (Row.SWIRL, "swirl"),
)
_RESULT: Final = {Result.BETTER: "better", Result.WORSE: "worse"}


@dataclass(frozen=True, slots=True)
class Asked:
    """What a sheet is asked for: the pair (one cut twice where one state is described), how it is made, whose it is,
    the day, and what kind of paper."""

    port: Port
    before: Cut
    after: Cut
    choices: Choices
    shop: Shop
    today: date
    photos: tuple[PhotoPart, ...] = ()
    kind: PaperKind = PaperKind.PAIR

    @property
    def audience_is_shop(self) -> bool:
        return self.choices.audience == "shop"


def usual_pair(findings: Findings, port: Port | None = None) -> tuple[Port, Cut, Cut] | None:
    """The developed port with its first and last flowed cut: the port named, else the one with most flowed cuts."""
    ports = [port] if port is not None else [p for p in findings.job.ports if p.of_head]
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
    if c is not None and c.kind == FlowKind.FLOW and job.test_pressure is None:
        # Every flow of a page stands at one pressure: the pair's own, for the other kind of port too.
        findings = Findings(replace(job, test_pressure=c.pressure), findings, findings.benches, findings.elsewhere)
        main = findings.pair(asked.port, asked.before, asked.after)
    other = _other_pair(findings, asked.port, one_state=asked.before.id == asked.after.id)
    pairs = [p for p in (_pair_part(findings, main, units), _pair_part(findings, other, units) if other else None) if p]
    pairs.sort(key=lambda p: p.kind != "intake")
    by_key = _figures(findings, main, units)
    figures = [by_key[key] for key in _ROWS if key in by_key]
    missing = [words for key, words in _WANTED if key not in by_key]
    wanted_other = "exhaust" if asked.port.kind == Direction.INTAKE else "intake"
    if other is None:
        missing.append(wanted_other)
    faults = fault_lines(asked.port, asked.after, units)
    mount = next((job.mount(r.mount) for r in main.after_runs if r.mount), None)
    conditions = []
    if main.after_runs:
        conditions.append(in_words(main.after_runs[-1].setup, mount.number if mount else None, units))
        conditions.append(bench_words(findings, main, units))
    return Sheet(
        shop=asked.shop,
        title=f"{job.title}, {asked.port.name}",
        port=asked.port.name,
        author=asked.shop.name or "Ventrix",
        customer=job.customer,
        date=asked.today.isoformat(),
        casting=casting_words(findings),
        conditions=tuple(w for w in conditions if w),
        large=_large(findings, main, units),
        pairs=tuple(pairs),
        lift_label=units.lift.label,
        figures=(*figures, *(FigureRow(w.capitalize(), "", tr("not measured"), missing=True) for w in missing)),
        done=done_lines(asked.port, asked.before, asked.after, units, own=asked.audience_is_shop),
        sections={
            Part.ENGINE: tuple(
                SectionLine(s) for s in engine_part(findings, asked.port, asked.before, asked.after, units)
            ),
            Part.HOURS: tuple(SectionLine(*row) for row in hours_rows(asked.port, asked.before, asked.after, units)),
        },
        ports_head=ports_head(units, _sheet_lift(findings, main)),
        ports=ports_rows(findings, units, _sheet_lift(findings, main)),
        photos=asked.photos,
        notes=_notes(findings, [p for p in (main, other) if p is not None], units),
        cautions=(
            *((PRACTICE,) if findings.job.practice else ()),
            *wall_lines(findings, asked.port, asked.after, units),
            CAUTION,
        ),
        faults=faults,
        owned=owned_by(findings, main, other, pairs, missing, units),
        not_ready=_not_ready(main, other, wanted_other),
        choices=asked.choices,
        scan=scan_part(job, asked.port, asked.before, asked.after, units),
    )


def _other_pair(findings: Findings, port: Port, *, one_state: bool) -> Pair | None:
    """The port of the other kind with its first and last flowed cut: on the same cylinder, else the first flowed. With
    one state its last alone."""
    others = [p for p in findings.job.ports if p.kind != port.kind and p.of_head]
    others.sort(key=lambda p: port.cylinder is None or p.cylinder != port.cylinder)
    for each in others:
        flowed = [c for c in each.cuts if findings.runs_of(c, each)]
        if flowed:
            return findings.pair(each, flowed[-1 if one_state else 0], flowed[-1])
    return None


def _not_ready(main: Pair, other: Pair | None, wanted: str) -> str:
    """Why the sheet cannot be handed over yet; empty where it can."""
    if main.comparison is None:
        return main.missing.rstrip(".") or tr("the pair was not flowed")
    if not main.comparison.allowed:
        return tr("the pair is not to be compared")
    if other is not None and other.before.id == other.after.id:
        return tr("{} not re-flowed", wanted)
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
    if c.claimed or any(r.house for r in (*pair.before_runs, *pair.after_runs)):
        found.append(Mark.CLAIMED)
    if bool(np.any(c.interpolated)):
        found.append(Mark.INTERPOLATED)
    if c.comparability.level in (Level.NO, Level.UNKNOWN):
        found.append(Mark.INCOMPARABLE)
    return tuple(found)


def _pair_part(findings: Findings, pair: Pair, units: Units) -> PairPart | None:
    c, verdict = pair.comparison, findings.verdict(pair, units.wording)
    if c is None or verdict is None:
        return None
    share = c.kind == FlowKind.INDEX
    same = pair.before.id == pair.after.id

    def flow(value: float) -> str:
        return f"{value:.4f}" if share else units.flow.text(value)

    rows = []
    for i, x in enumerate(c.lift):
        scale = 100 / c.before[i] if share else 1.0
        change, doubt = float(c.change[i]) * scale, float(c.expanded_together[i]) * scale
        gain = f"{number_text(change, 1, sign=True)} %" if share else units.flow.text(change, sign=True)
        band = f"{doubt:.1f} %" if share else units.flow.text(doubt)
        rows.append(
            LiftFigures(
                units.lift.text(float(x)),
                flow(float(c.before[i])),
                flow(float(c.after[i])),
                "" if same else gain if c.marks[i] != Result.NOT_PROVEN else "–",
                "" if same else f"{gain} ± {band}",
                "" if same else _RESULT.get(c.marks[i], ""),
                Mark.INTERPOLATED.sign if c.interpolated[i] else "",
            )
        )
    runs = pair.before_runs[-1], pair.after_runs[-1]
    headline = tr("Flowed once: nothing to compare it with.") if same else verdict.headline
    return PairPart(
        kind=pair.port.kind,
        port=pair.port.name,
        before_name=cut_words(pair.before),
        after_name=cut_words(pair.after),
        unit="index" if share else units.flow.label,
        verdict=headline if not share or same else tr("{} An uncalibrated bench: gains are percent.", headline),
        sentence="" if same else verdict.sentence,
        comparability="" if same else units.say(c.comparability.sentence),
        conditions=full_conditions(findings, runs, units),
        lifts=tuple(rows),
        before=_curve(runs[0], units),
        after=_curve(runs[1], units),
        warnings=() if same else verdict.warnings,
        marks=_marks(findings, pair),
    )


def _curve(run: ReducedRun, units: Units) -> Curve:
    lifts = np.linspace(0.0, run.curve.highest, 81)
    flows = run.curve.at(lifts)
    y = from_si_array(flows, units.flow.unit) if run.kind == FlowKind.FLOW else flows
    return Curve(tuple(float(v) for v in from_si_array(lifts, units.lift.unit)), tuple(float(v) for v in y))


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
    share = c.kind == FlowKind.INDEX
    found = []
    for figure in at_my_lifts(c, lifts_of(findings.job, pair.port.kind)):
        change = (
            percent_text(figure.change / figure.before, sign=True)
            if share
            else units.flow.text(figure.change, sign=True)
        )
        found.append(
            Large(
                f"{figure.name}, " * bool(figure.name) + tr("at {}", units.lift.with_unit(figure.lift)),
                f"{figure.after:.4f}" if share else units.flow.text(figure.after),
                change if c.allowed else "",
                _RESULT.get(figure.result, ""),
                "was " + (f"{figure.before:.4f}" if share else units.flow.text(figure.before)),
                signs + (Mark.INTERPOLATED.sign if figure.interpolated else ""),
            )
        )
    over = tr("over the cam") if c.cam is not None and c.school == "cam-weighted" else tr("by {}", c.school)
    value = f"{c.weighted_after:.4f}" if share else units.flow.text(c.weighted_after)
    was = f"{c.weighted_before:.4f}" if share else units.flow.text(c.weighted_before)
    result = _RESULT.get(Result(gain.result), "") if gain.result in tuple(Result) else ""
    text = gain_text(gain, units) if gain.comparable else ""
    return (*found[-MOST_LARGE:], Large(over, value, text, result, tr("was {}", was), signs))


def _figures(findings: Findings, pair: Pair, units: Units) -> dict[str, FigureRow]:
    """Volume, sections, throat, speeds, share and swirl before and after, by key, as the scorecard has them."""
    c, verdict = pair.comparison, findings.verdict(pair, units.wording)
    if c is None or verdict is None:
        return {}
    job, rows = findings.job, {}
    sizes = [geometry_of(job, pair.port, cut) for cut in (pair.before, pair.after)]
    throats = [
        percent_text(float(throat_ratio(g.valve_diameter, g.throat_diameter)))
        if g.valve_diameter and g.throat_diameter
        else ""
        for g in sizes
    ]
    if all(throats):
        rows[_THROAT] = FigureRow(tr("Throat, % of valve"), throats[0], throats[1])
    sections = [smallest_section(job, pair.port, cut) for cut in (pair.before, pair.after)]
    if sections[0] is not None and sections[1] is not None:
        texts = [units.area.text(s) for s in sections]
        rows[_SMALLEST] = FigureRow(tr("Smallest section, {}", units.area.label), texts[0], texts[1])
    signs = "".join(m.sign for m in _marks(findings, pair) if m is not Mark.INTERPOLATED)
    for score in score_rows(findings, pair, c, verdict, units):
        if score.key in _ROWS and score.key is not None:
            result = _RESULT.get(Result(score.result), "") if score.result in tuple(Result) else ""
            mark = "" if score.key in _NO_MARK else signs
            rows[score.key] = FigureRow(score.caption, score.before, score.after, result, mark)
    return rows


def _notes(findings: Findings, pairs: list[Pair], units: Units) -> tuple[str, ...]:
    """Runs and readings that do not count, and what the comparison says of itself."""
    said: list[str] = []
    for pair in pairs:
        for cut in dict.fromkeys((pair.before.id, pair.after.id)):
            mine = pair.before if cut == pair.before.id else pair.after
            struck = [r.struck for run in mine.runs for r in run.readings if r.struck]
            if struck:
                reasons = ", ".join(dict.fromkeys(struck))
                said.append(
                    tr(
                        "{}, cut {}: {} reading{} struck ({}).",
                        pair.port.name,
                        mine.number,
                        len(struck),
                        "s" * (len(struck) > 1),
                        reasons[:120],
                    )
                )
        said += [f"{pair.port.name}: {units.say(s)}" for s in findings.left_out(pair)]
        if pair.comparison is not None:
            said += [f"{pair.port.name}: {n}." for n in pair.comparison.notes]
        said += [f"{pair.port.name}: {units.say(n)}." for r in (*pair.before_runs, *pair.after_runs) for n in r.notes]
    return tuple(dict.fromkeys(said))
