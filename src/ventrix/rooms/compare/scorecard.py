"""The scorecard of a pair: every figure with its change, its doubt and where it is from."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.core.air.traverse import newest_of
from ventrix.core.formulas import port as port_figures
from ventrix.core.formulas.losses import LossSplit, loss_split
from ventrix.core.judging.air_speed import break_even, speed_change
from ventrix.core.judging.comparison import BandChange, RunComparison
from ventrix.core.judging.exhaust_share import OtherKind, exhaust_share, other_kind
from ventrix.core.judging.expectation import time_worked
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.pours import pour_uncertainty, volumes_of
from ventrix.core.judging.schools import bands
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.bench_kinds import FlowKind, TraverseKind
from ventrix.core.model.cut import OTHER_SIDE, poured_volume
from ventrix.core.model.kinds import Direction, KeptWord, Result, School
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.geometry import geometry_of
from ventrix.core.runs.run_curves import curve_of, turning_of
from ventrix.rooms.compare.curves import beside_of
from ventrix.rooms.compare.thinnest import thinnest, thinnest_place
from ventrix.rooms.display_units import Shown, Units
from ventrix.rooms.shared.gain_words import SHARE, doubt_text, gain_text, shown_of
from ventrix.rooms.shared.probed_fields import field_at, pressure_of
from ventrix.words import tr


class Row(KeptWord):
    """A figure of the scorecard that other pages ask for too."""

    VOLUME = "volume"
    SECTION = "mean section"
    SPEED = "mean air speed"
    PINCH = "speed at the smallest section"
    ENERGY = "energy density"
    SHARE = "exhaust over intake"
    CD = "Cd on valve head"
    SWIRL = "swirl"
    PEAK = "peak"
    STALL = "flow stops"


@dataclass(frozen=True, slots=True)
class Score:
    """One row as text. `result` puts a mark before the change; `source` says what it was computed from, and
    `room` where that is put right. `key` says which figure it is, where another page asks for it."""

    caption: str
    before: str
    after: str
    change: str = ""
    result: str = ""
    band: str = ""
    source: str = ""
    room: str = ""
    key: Row | None = None


INDEX = Shown("-", "index", 4)


def _row(
    caption: str,
    shown: Shown,
    before: float | None,
    after: float | None,
    source: str,
    room: str,
    u: float | None = None,
) -> Score:
    known = before is not None and after is not None
    change = after - before if before is not None and after is not None else None
    result = ""
    if change is not None and u is not None:
        result = Result.BETTER if change > u else Result.WORSE if change < -u else Result.NOT_PROVEN
    words = caption if not shown.label or shown.label == "-" else f"{caption}, {shown.label}"
    return Score(
        words,
        shown.text(before),
        shown.text(after),
        shown.text(change, sign=True) if known else "",
        result,
        f"± {shown.text(u)}" if u is not None else "",
        source,
        room,
    )


def score_rows(
    findings: Findings,
    pair: Pair,
    c: RunComparison,
    verdict: Verdict,
    units: Units,
    chosen: tuple[float, float] | None = None,
) -> list[Score]:
    """Every row that can be worked out; figures whose inputs are missing are left out. `chosen` is a range
    of lifts [m] that the user dragged out."""
    flow = units.flow if c.kind == FlowKind.FLOW else INDEX
    rows: list[Score] = []
    if chosen is not None:
        low, high = (units.lift.text(v) for v in chosen)
        rows += _band_row(
            tr("{} to {}", low, high), c.over(*chosen), flow, tr("mean of the tested lifts you dragged over")
        )
    rows += _shape_rows(pair, flow, units)
    rows += _volume_row(pair, units)
    name = c.school.capitalize() if c.school != School.CAM or c.cam else tr("Mean of lifts")
    gain = findings.gain(pair)
    rows.append(
        Score(
            f"{name}, {flow.label}",
            flow.text(c.weighted_before),
            flow.text(c.weighted_after),
            gain_text(gain, units),
            gain.result if gain is not None else "",
            f"± {doubt_text(gain, units)}" if gain is not None and gain.comparable else "",
            tr("{} lifts tested on both sides, weighted as chosen under Head, Goal", int(np.sum(c.tested))),
            "flow",
        )
    )
    low_name = "Blow-down" if pair.port.kind == Direction.EXHAUST else tr("Low third")
    for caption, band in zip((low_name, tr("Middle third"), tr("High third")), bands(c.lift, c.cam), strict=True):
        rows += _band_row(
            caption,
            c.over(*band, together=3),
            flow,
            tr("mean of the tested lifts in that third of the lift that counts"),
        )
    if c.kind == FlowKind.FLOW and pair.before.id != "other":
        rows += _port_rows(findings, pair, c, units)
    elif c.kind == FlowKind.FLOW:
        rows += _run_rows(findings, pair, units)
    return rows


def _band_row(caption: str, band: BandChange | None, flow: Shown, source: str) -> list[Score]:
    if band is None:
        return []
    row = _row(caption, flow, band.before, band.after, source, "flow", band.expanded)
    if flow is INDEX:
        share, doubt = (SHARE.text(v / band.before, sign=s) for v, s in ((band.change, True), (band.expanded, False)))
        row = replace(row, change=f"{share} %", band=f"± {doubt} %")
    return [replace(row, result=band.result)]


def _shape_rows(pair: Pair, flow: Shown, units: Units) -> list[Score]:
    had, has = pair.before_runs[-1], pair.after_runs[-1]
    source = tr("the last run of each cut")
    at = tr("at {} and {}", units.lift.text(float(had.lift[had.peak])), units.lift.text(float(has.lift[has.peak])))
    peak = _row(tr("Peak"), flow, float(had.flow[had.peak]), float(has.flow[has.peak]), f"{source}, {at}", "flow")
    rows = [replace(peak, key=Row.PEAK)]
    peaks = [units.lift.text(float(r.lift[r.peak])) for r in (had, has)]
    rows.append(Score(tr("… at lift, {}", units.lift.label), peaks[0], peaks[1], "", "", "", source, "flow"))
    stalls = ["–" if r.stall is None else units.lift.text(float(r.lift[r.stall])) for r in (had, has)]
    caption = tr("Flow stops at, {}", units.lift.label)
    rows.append(Score(caption, stalls[0], stalls[1], "", "", "", source, "flow", Row.STALL))
    return rows


def _volume_row(pair: Pair, units: Units) -> list[Score]:
    poured = poured_volume(pair.before), poured_volume(pair.after)
    if pair.before.id == OTHER_SIDE or poured[0] is None or poured[1] is None:
        return []
    doubt = 2 * float(np.hypot(pour_uncertainty(pair.before), pour_uncertainty(pair.after)))
    row = _row(tr("Poured volume"), units.volume, *poured, tr("the pours of each cut"), "cuts", doubt)
    return [replace(row, result="", key=Row.VOLUME)]


def _port_rows(findings: Findings, pair: Pair, c: RunComparison, units: Units) -> list[Score]:
    rows: list[Score] = []
    poured = poured_volume(pair.before), poured_volume(pair.after)
    if poured[0] is not None and poured[1] is not None:
        needed, over = break_even(c, poured[0], poured[1])
        change, met = units.flow.text(over, sign=True), "met" if over >= 0 else "missed"
        source = tr("weighted flow before, times volume after over before")
        rows.append(
            Score(tr("Break-even, {}", units.flow.label), "", units.flow.text(needed), change, "", met, source, "cuts")
        )
        per = [q / (v * 1e6) for q, v in ((c.weighted_before, poured[0]), (c.weighted_after, poured[1]))]
        rows.append(
            _row(
                tr("Flow per cc"),
                Shown(units.flow.unit, f"{units.flow.label}/cc", 3),
                per[0],
                per[1],
                tr("weighted flow over volume"),
                "cuts",
            )
        )
        rows += _speed_rows(findings, pair, c, (poured[0], poured[1]), units)
    rows += _run_rows(findings, pair, units)
    rows += _probed_rows(findings, pair, units)
    rows += _loss_row(pair)
    rows += _work_rows(findings, pair, c, units)
    return rows


def _speed_rows(
    findings: Findings, pair: Pair, c: RunComparison, poured: tuple[float, float], units: Units
) -> list[Score]:
    geometry = [geometry_of(findings.job, pair.port, cut) for cut in (pair.before, pair.after)]
    lengths = [g.port_length for g in geometry]
    if lengths[0] is None or lengths[1] is None:
        return []
    flows = c.weighted_before, c.weighted_after
    sides = list(zip(flows, poured, [x for x in lengths if x is not None], strict=True))
    sections = [float(port_figures.mean_section(v, x)) for _, v, x in sides]
    speeds = [float(port_figures.mean_port_velocity(q, v, x)) for q, v, x in sides]
    energies = [float(port_figures.energy_density(v)) for v in speeds]
    source = tr("weighted flow, poured volume and centerline length")
    volume_source = tr("poured volume over centerline length")
    volumes = volumes_of(pair.before, pair.after)
    doubt = None if volumes is None else speeds[0] * speed_change(c, volumes)[1]  # as the verdict has it
    return [
        replace(row, key=key)
        for key, row in (
            (Row.SECTION, _row(tr("Mean section"), units.area, sections[0], sections[1], volume_source, "head")),
            (Row.SPEED, _row(tr("Mean air speed"), units.speed, speeds[0], speeds[1], source, "head", doubt)),
            (Row.ENERGY, _row(tr("Energy density"), units.energy, energies[0], energies[1], source, "head")),
        )
    ]


_ROW_OF: Final = {"speed_pinch": Row.PINCH, "cd_valve": Row.CD, "swirl": Row.SWIRL, "ratio": Row.SHARE}


def _run_rows(findings: Findings, pair: Pair, units: Units) -> list[Score]:
    """Figures of the last run of each side, at its peak or at its highest common lift."""
    had, has = pair.before_runs[-1], pair.after_runs[-1]
    highest = min(had.curve.highest, has.curve.highest)
    rows = []
    cuts = (pair.before if pair.before.id != "other" else pair.after, pair.after)
    others = [other_kind(findings, pair.port, cut) for cut in cuts]
    besides = [beside_of(findings, pair.port, cut) for cut in cuts]
    marks = tuple(dict.fromkeys(m for o in others if o is not None for m in o.marks))
    for key, caption, shown, room in (
        ("speed_pinch", tr("Speed at the smallest"), units.speed, "cuts"),
        ("speed_throat", tr("Speed at the throat"), units.speed, "head"),
        ("cd_valve", "Cd on valve head", Shown("-", "-", 3), "head"),
        ("swirl", tr("Swirl"), units.swirl, "flow"),
        ("ratio", "Exhaust/intake", Shown("%", "%", 1), "flow"),
    ):
        reach = [o.run.curve.highest for o in others if key == "ratio" and o is not None]
        top = np.array([min([highest, *reach])])
        sides = zip((had, has), besides, strict=True)
        values = [float(curve_of(run, key, top, beside)[0]) for run, beside in sides]
        if all(np.isfinite(v) for v in values):
            where = tr("at {}, the highest lift of both", units.lift.with_unit(float(top[0])))
            if key == "swirl":
                caption = turning_of(has.setup).capitalize()
            if key == "ratio":
                caption = ", ".join((caption, *marks))
                where = tr("{}; beside {}", where, " and ".join(_beside_words(o) for o in others if o is not None))
            rows.append(replace(_row(caption, shown, values[0], values[1], where, room), key=_ROW_OF.get(key)))
    rows += _ratio_row(findings, pair)
    return rows


def _probed_rows(findings: Findings, pair: Pair, units: Units) -> list[Score]:
    """Mean probed speed of every station that both cuts were probed at, at one lift; conversions are marked."""
    rows = []
    for station in dict.fromkeys(t.station for t in pair.after.traverses if t.kind == TraverseKind.PITOT):
        had, has = newest_of(pair.before, station), newest_of(pair.after, station)
        if had is None or has is None or had.lift != has.lift or pair.before.id == "other":
            continue
        pressure = pressure_of(findings, had)
        try:
            before, _ = field_at(findings, pair.port, pair.before, had, None)
            after, converted = field_at(findings, pair.port, pair.after, has, pressure)
        except Refused:  # a reading that makes no sense: the Air room says which
            continue
        if before is None or after is None:
            continue
        at = tr(" at {}", units.lift.with_unit(has.lift)) if has.lift is not None else ""
        source = tr("mean of the probed points{}{}", at, tr(", converted to one test pressure") if converted else "")
        doubt = 1.96 * float(np.hypot(before.mean_uncertainty, after.mean_uncertainty))
        row = _row(tr("Probed, {}", station), units.speed, before.mean, after.mean, source, "air", doubt)
        rows.append(replace(row, result="" if row.result != Result.NOT_PROVEN else row.result))  # faster is not better
    return rows


def _beside_words(other: OtherKind) -> str:
    return tr("{}, cut {}", other.port.name, other.cut.number)


def _ratio_row(findings: Findings, pair: Pair) -> list[Score]:
    """Exhaust over intake by the other three ways, for the cut looked at."""
    share = exhaust_share(findings, pair.port, pair.after, pair.after_runs[-1])
    if share is None:
        return []
    found = share.ratios
    parts = [tr("peak {}", percent_text(found.at_peak, 0))]
    if found.cam_weighted is not None:
        parts.append(tr("cam {}", percent_text(found.cam_weighted, 0)))
    if found.at_lift_ratio is not None and len(found.at_lift_ratio):
        known = found.at_lift_ratio[np.isfinite(found.at_lift_ratio)]
        if len(known):
            parts.append(f"L/D {percent_text(float(known[-1]), 0)}")
    parts += [tr("wanted {}", side_taken(findings.job, "ratio").words), *share.marks]
    source = tr(
        "this cut beside {}: at peak, cam-weighted, at the highest equal L/D; wanted: Head, Goal",
        _beside_words(share.beside),
    )
    return [Score(tr("… by other ways"), "", "", "", "", ", ".join(parts), source, "flow")]


def _loss_row(pair: Pair) -> list[Score]:
    """The port's share of the loss at peak, where the port was flowed with its valve out."""
    runs = pair.before_runs[-1], pair.after_runs[-1]
    shares: list[LossSplit | None] = []
    for run in runs:
        if run.open_flow is None:
            shares.append(None)
            continue
        u = float(run.uncertainty[run.peak])
        shares.append(loss_split(float(run.flow[run.peak]), run.open_flow, u, u))
    if all(s is None for s in shares):
        return []
    texts = ["–" if s is None else percent_text(float(s.port_share), 0) for s in shares]
    band = "" if shares[1] is None else f"± {percent_text(2 * float(shares[1].uncertainty), 0)}"
    return [
        Score(
            tr("Port's share of loss, peak"),
            texts[0],
            texts[1],
            "",
            "",
            band,
            tr("the open-port reading of each run"),
            "flow",
        )
    ]


def _work_rows(findings: Findings, pair: Pair, c: RunComparison, units: Units) -> list[Score]:
    rows = []
    between = _time_between(pair)
    if between:
        hours = between / 3600
        gain = findings.gain(pair)
        shown = shown_of(gain, units)
        per_hour = (
            "" if gain is None or gain.value is None else f"{shown.text(gain.value / hours, sign=True)} {shown.label}/h"
        )
        rows.append(
            Score(
                tr("Minutes worked between"),
                "",
                units.duration.text(between),
                "",
                "",
                per_hour,
                tr("operations of the cuts after the one before; gain per hour of them"),
                "cuts",
            )
        )
    walls = [thinnest(findings, pair, cut) for cut in (pair.before, pair.after)]
    if walls[1] is not None:
        texts = [units.length.text(w) if w is not None else "–" for w in walls]
        place = thinnest_place(findings, pair, pair.after)
        rows.append(
            Score(
                tr("Thinnest wall, {}", units.length.label),
                texts[0],
                texts[1],
                "",
                "",
                place,
                tr("wall readings of this port"),
                "cuts",
            )
        )
    return rows


def _time_between(pair: Pair) -> float:
    """Time worked on the cuts after the earlier of the pair, up to the later [s]."""
    low, high = sorted((pair.before.number, pair.after.number))
    return sum(time_worked(cut) or 0.0 for cut in pair.port.cuts if low < cut.number <= high)
