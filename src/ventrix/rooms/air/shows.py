"""What the Air room shows, made from the job: sections with their fields, sentences, the path of swirl. No widget."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ventrix.core.air.field_change import change_of, flux_note, half_areas
from ventrix.core.air.hints import (
    balance_sentences,
    dead_places,
    engine_speeds,
    evenness_sentence,
    hints,
    local_limit_sentences,
)
from ventrix.core.air.layouts import layout_named, usual_layout
from ventrix.core.air.sections import Size, corner_of, places_on, station_share
from ventrix.core.air.swirl_over_lift import run_swirl_ratio, swirl_change, swirl_events
from ventrix.core.air.total_head import share_lost
from ventrix.core.air.traverse import Field
from ventrix.core.formulas.pitot import ball_drop
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import unroll, zone_named
from ventrix.core.model.bench_kinds import FlowKind, TraverseKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction, Result
from ventrix.core.model.traverse import Traverse
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text, percent_text, sentence
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import curve_of, turning_of
from ventrix.rooms.air.pictures import SectionSpot, SectionView
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.probed_fields import pressure_of
from ventrix.rooms.shared.unrolled_map import MapSpot
from ventrix.words import tr


def section_view(
    title: str, traverse: Traverse | None, found: Field | None, size: Size, station: str, scale: tuple[float, float],
    units: Units, wanted: str = "", guessed: bool = False,
) -> SectionView:  # fmt: skip
    """A section with its points: read ones with their speed, open ones as rings. `guessed` where nobody measured it."""
    layout = layout_named(traverse.layout) if traverse is not None else usual_layout(station)
    places = [(p.name, p.u, p.v) for p in places_on(layout, size)] if layout is not None else []
    if traverse is not None:
        own = {p.name: (p.name, p.u, p.v) for p in traverse.points if p.struck is None}
        places = [own.pop(name, (name, u, v)) for name, u, v in places]
        places += list(own.values())
    known = {} if found is None else dict(zip(found.names, found.speed, strict=True))
    low, high = scale
    spots = []
    for name, u, v in places:
        if name in known:
            share = (float(known[name]) - low) / max(high - low, 1e-9)
            spots.append(SectionSpot(name, u, v, units.speed.text(float(known[name])), share))
        else:
            spots.append(SectionSpot(name, u, v))
    ring = layout.ring if layout is not None else False
    if guessed:
        title = tr("{}, size guessed", title)
    return SectionView(title, size[0], size[1], ring, tuple(spots), found, scale, wanted, corner_of(size), guessed)


def survey_view(
    title: str, traverse: Traverse, size: Size, station: str, units: Units, wanted: str = ""
) -> SectionView:
    """A section with how far the total head is under the room's at each point."""
    view = section_view(title, traverse, None, size, station, (0.0, 1.0), units, wanted)
    read = {p.name: p.reading for p in traverse.points if p.struck is None and p.reading is not None}
    spots = tuple(replace(s, text=units.pressure.text(read[s.name])) if s.name in read else s for s in view.spots)
    return replace(view, spots=spots)


def survey_sentences(findings: Findings, cut: Cut, units: Units) -> list[str]:
    """How much of the test pressure is lost up to each surveyed station, in the air's order."""
    said = []
    for traverse in sorted(cut.traverses, key=lambda t: (t.lift or 0.0, station_share(t.station))):
        lost = share_lost(findings.job, traverse)
        if lost is not None and traverse.lift is not None:
            at = tr("{} at {}", traverse.station, units.lift.with_unit(traverse.lift))
            said.append(
                tr("{} of {} up to the {}", percent_text(lost.share, 0), units.pressure.with_unit(lost.pressure), at)
            )
    return [tr("Lost by total head: {}. Plan's What limits counts it.", "; ".join(said))] if said else []


def difference_view(before: Field, after: Field, size: tuple[float, float, float], units: Units) -> SectionView:
    """What changed at each point, with a mark where it is beyond the probe's doubt."""
    change = change_of(before, after)
    spots = []
    for name, u, v, d, doubt in zip(change.names, change.u, change.v, change.change, change.expanded, strict=True):
        result = Result.BETTER if d > doubt else Result.WORSE if d < -doubt else Result.NOT_PROVEN
        spots.append(SectionSpot(name, float(u), float(v), units.speed.text(float(d), sign=True), None, result))
    return SectionView("difference", size[0], size[1], after.ring, tuple(spots), corner=corner_of(size))


def scale_of(*fields: Field | None) -> tuple[float, float]:
    """One scale for all: from nought, or just under the slowest, to the fastest [m/s]."""
    speeds = (
        np.concatenate([f.speed for f in fields if f is not None])
        if any(f is not None for f in fields)
        else np.array([0.0, 1.0])
    )
    low, high = float(speeds.min()), float(speeds.max())
    return (0.0 if low < 0.4 * high else 0.9 * low), high


def run_at(findings: Findings, port: Port, cut: Cut) -> ReducedRun | None:
    """The cut's last run."""
    runs = findings.runs_of(cut, port)
    return runs[-1] if runs and runs[-1].kind == FlowKind.FLOW else None


def field_sentences(
    findings: Findings, port: Port, cut: Cut, traverse: Traverse, found: Field, units: Units, limit_mach: float
) -> list[str]:
    """Everything the numbers of one traverse carry."""
    said = [
        tr("Mean {} (± {}). ", units.speed.with_unit(found.mean), units.speed.text(2 * found.mean_uncertainty))
        + evenness_sentence(found)
    ]
    said += balance_sentences(found)
    dead = dead_places(found)
    if dead:
        said.append(tr("Hardly any air at {}.", ", ".join(dead)))
    run, pressure = run_at(findings, port, cut), pressure_of(findings, traverse)
    if pressure is not None:
        share = found.dynamic_pressure / pressure
        said.append(tr("Its dynamic pressure is {} of the test pressure.", percent_text(share, 0)))
    if run is not None and traverse.lift is not None and traverse.lift <= run.curve.highest * (1 + 1e-9):
        off, note = flux_note(found, float(run.curve.at(traverse.lift)))
        said.append(
            sentence(note) if note else tr("Flux check: {} of the run's flow.", percent_text(off, 0, sign=True))
        )
    halves = half_areas(found)
    if halves is not None:
        area = units.area.with_unit(halves.upper)
        mark = tr(" (guessed: this section was not measured)") if found.guessed else ""
        said.append(
            tr(
                "Upper and lower half {} each{}, {} and {}.",
                area,
                mark,
                units.speed.text(halves.upper_speed),
                units.speed.with_unit(halves.lower_speed),
            )
        )
        if halves.width_needed is not None:
            needed = units.length.with_unit(halves.width_needed)
            said.append(tr("The lower half needs {} of width to be as slow as the upper{}.", needed, mark))
    if found.blockage:
        said.append(
            tr(
                "The probe stands in {} of this section and reads high: it is over the 0.02 "
                "of the section's size that a probe should have, and its uncertainty counts that.",
                percent_text(found.blockage),
            )
        )
    engine = engine_speeds(findings.job, port, found)
    return said + local_limit_sentences(found, engine, limit_mach) + hints(found, engine, limit_mach)


def ball_spots(findings: Findings, port: Port, cut: Cut, units: Units) -> tuple[MapSpot, ...]:
    """Drop in flow per place, on the unrolled port: busy places large."""
    here = unroll(port, cut, findings.job.valve_of(port, cut))
    rows = []
    for t in (t for t in cut.traverses if t.kind == TraverseKind.BALL and t.base_flow):
        for p in t.points:
            if p.flow is None or p.struck is not None or t.base_flow is None:
                continue
            if max(abs(p.u), abs(p.v)) < 0.1:
                continue  # the middle is no wall's
            band, across = band_of(p.u, p.v)
            zone = zone_named(t.station)
            along = (zone.start + zone.end) / 2 if zone is not None else station_share(t.station)
            rows.append(
                (band, along * here.length, across, float(ball_drop(t.base_flow, p.flow)), t.base_flow - p.flow)
            )
    most = max((r[3] for r in rows), default=0.0)
    return tuple(
        MapSpot(
            band,
            along,
            across,
            max(drop / most, 0.0) if most > 0 else 0.0,
            f"−{units.flow.text(lost)}",
        )
        for band, along, across, drop, lost in rows
    )


def band_of(u: float, v: float) -> tuple[str, float]:
    """The side of the map that a place of a section is nearest to, and where across it."""
    if abs(v) >= abs(u):
        return ("roof" if v >= 0 else "floor"), u
    return ("right" if u > 0 else "left"), -v


def swirl_sentences(findings: Findings, port: Port, before: Cut | None, after: Cut, units: Units) -> list[str]:
    """Direction, reversals, drop-outs, ratio over the stroke, and what the cut did to it."""
    run = run_at(findings, port, after)
    if run is None or not np.any(np.isfinite(run.swirl)):
        return [tr("No swirl was read with this cut's run.")]
    events = swirl_events(run.lift, run.swirl)
    top = run.swirl[np.isfinite(run.swirl)][-1]
    if turning_of(run.setup) == "tumble":
        said = [tr("Tumble, end over end, read behind an adapter: {} at the highest lift.", "+" if top >= 0 else "−")]
        said += [tr("It turns over at {}.", units.lift.with_unit(x)) for x in events.reversals]
        said += [tr("It drops out at {}.", units.lift.with_unit(x)) for x in events.drop_outs]
        return [
            *said,
            tr("A ratio over the stroke is worked out for swirl alone: tumble's axis moves with the piston."),
        ]
    said = [
        tr(
            "Seen from above, the swirl turns {} at the highest lift.",
            tr("counterclockwise (+)") if top >= 0 else tr("clockwise (−)"),
        )
    ]
    if (findings.job.valves_per_cylinder or 2) >= 4:
        said.append(
            tr("With two intake valves most of it is tumble, end over end: this is only what is left as swirl.")
        )
    said += [tr("It turns over at {}.", units.lift.with_unit(x)) for x in events.reversals]
    said += [tr("It drops out at {}.", units.lift.with_unit(x)) for x in events.drop_outs]
    highest = run.lift[np.isfinite(run.swirl)][-1]
    coefficient = float(curve_of(run, "swirl_cs", np.array([highest]))[0])
    if np.isfinite(coefficient):
        told = number_text(coefficient, 2, sign=True)
        said.append(tr("Swirl coefficient {} at {}.", told, units.lift.with_unit(float(highest))))
    ratio = run_swirl_ratio(run, findings.cam_of(Direction.INTAKE), findings.job.stroke)
    if ratio is None:
        said.append(tr("Swirl ratio over the stroke needs cam, stroke, bore and valve diameter."))
        return said
    said.append(
        tr(
            "Swirl ratio over the intake stroke {:.2f} (± {:.2f}).",
            ratio.ratio,
            2 * ratio.uncertainty * abs(ratio.ratio),
        )
    )
    had_run = run_at(findings, port, before) if before is not None else None
    had = (
        run_swirl_ratio(had_run, findings.cam_of(Direction.INTAKE), findings.job.stroke)
        if had_run is not None
        else None
    )
    if had is not None and before is not None:
        change, doubt = swirl_change(had, ratio)
        word = "more" if change > doubt else "less" if change < -doubt else tr("no proven change of")
        told = number_text(change, 2, sign=True)
        said.append(tr("Against cut {}: {} swirl, {} (± {:.2f}).", before.number, word, told, doubt))
    return said


def swirl_path(findings: Findings, port: Port, units: Units) -> tuple[list[tuple[int, float, float]], str]:
    """Cut number, peak flow in the user's unit and swirl, for every cut that has both; and which swirl it is:
    the ratio over the stroke where the job's cam is known, else rpm at the peak."""
    cam, stroke = findings.cam_of(Direction.INTAKE), findings.job.stroke
    path, ratios, what = [], [], "swirl"
    for cut in port.cuts:
        run = run_at(findings, port, cut)
        if run is None or not np.isfinite(run.swirl[run.peak]):
            continue
        what = turning_of(run.setup)
        peak = from_si(float(run.flow[run.peak]), units.flow.unit)
        path.append((cut.number, peak, from_si(float(run.swirl[run.peak]), "rpm")))
        ratio = run_swirl_ratio(run, cam, stroke)
        if ratio is not None:
            ratios.append((cut.number, peak, ratio.ratio))
    if ratios and len(ratios) == len(path):
        return ratios, tr("swirl ratio over the stroke")
    return path, tr("{} at the peak, rpm", what)
