"""The figures of the Head room: what each edits, its name, its unit, and where it is typed."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any, Final

from ventrix.core.edits.cuts import edit_cut, set_chamber, set_volume
from ventrix.core.edits.swap import swapped
from ventrix.core.edits.valves import correct_valve
from ventrix.core.model.cut import Cut, Port, Pour, carried, mean_poured, poured_volume
from ventrix.core.model.job import Job, cylinder_of, fitted_at
from ventrix.core.model.scan import ScannedSize
from ventrix.core.quantity.field_checks import Check, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.rooms.display_units import Units
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class Owner(StrEnum):
    """Whose a figure is."""

    JOB = "job"
    VALVE = "valve"
    CUT = "cut"


@dataclass(frozen=True, slots=True)
class FieldSpec:
    """A figure: the field of the noun it edits, its caption, its unit on screen, whose it is, where it stands."""

    key: str
    caption: str
    unit: str
    owner: Owner
    group: str
    check: Check = positive


def _angle(value: float) -> None:
    if not 0 < value < math.pi / 2:
        raise Refused("must lie between 0 and 90 degrees")


def _cam_duration(value: float) -> None:
    if not 0 < value < 2 * math.pi:
        raise Refused("must lie between 0 and 360 degrees")


def _anything(value: float) -> None:
    """Any figure: a temperature may be below zero."""


def _not_negative(value: float) -> None:
    if value < 0:
        raise Refused("cannot be negative")


SPECS: Final = (
    FieldSpec("bore", tr("Bore it will sit on"), "length", Owner.JOB, "engine"),
    FieldSpec("stroke", tr("Stroke"), "length", Owner.JOB, "engine"),
    FieldSpec("rod_length", tr("Rod, center to center"), "length", Owner.JOB, "engine"),
    FieldSpec("speed_low", tr("Used from"), "speed_of_rotation", Owner.JOB, "engine"),
    FieldSpec("speed_high", tr("… to"), "speed_of_rotation", Owner.JOB, "engine"),
    FieldSpec("power_wanted", tr("Power wanted"), "power", Owner.JOB, "engine"),
    FieldSpec("cam_lift", tr("Cam lift at the valve"), "lift", Owner.JOB, "engine"),
    FieldSpec("rocker_ratio", tr("Rocker ratio"), "ratio", Owner.JOB, "engine"),
    FieldSpec("cam_duration", tr("Duration at 0.050 in"), "angle", Owner.JOB, "engine", _cam_duration),
    FieldSpec("exhaust_cam_lift", tr("Exhaust cam lift"), "lift", Owner.JOB, "engine"),
    FieldSpec("exhaust_cam_duration", tr("Exhaust duration"), "angle", Owner.JOB, "engine", _cam_duration),
    FieldSpec("intake_centreline", tr("Intake centerline, after top"), "angle", Owner.JOB, "engine", _cam_duration),
    FieldSpec("exhaust_centreline", tr("Exhaust centerline, before top"), "angle", Owner.JOB, "engine", _cam_duration),
    FieldSpec("intake_lash", tr("Intake lash"), "length", Owner.JOB, "engine", _not_negative),
    FieldSpec("exhaust_lash", tr("Exhaust lash"), "length", Owner.JOB, "engine", _not_negative),
    FieldSpec("compression_ratio", tr("Compression ratio"), "ratio", Owner.JOB, "engine"),
    FieldSpec("gasket_thickness", tr("Head gasket, as pressed"), "length", Owner.JOB, "engine", _not_negative),
    FieldSpec("deck_clearance", tr("Piston under the deck"), "length", Owner.JOB, "engine", _anything),
    FieldSpec("piston_volume", tr("Piston's dish, a dome negative"), "volume", Owner.JOB, "engine", _anything),
    FieldSpec("induction_flow", tr("Carburetor or throttle body passes"), "flow", Owner.JOB, "engine"),
    FieldSpec("induction_pressure", tr("… rated at"), "vacuum", Owner.JOB, "engine"),
    FieldSpec("manifold_pressure", tr("Manifold pressure, absolute"), "absolute", Owner.JOB, "engine"),
    FieldSpec("manifold_temperature", tr("Manifold temperature"), "temperature", Owner.JOB, "engine", _anything),
    FieldSpec("exhaust_pressure", tr("Exhaust pressure, absolute"), "absolute", Owner.JOB, "engine"),
    FieldSpec("test_pressure", tr("Flows shown at (none: as tested)"), "pressure", Owner.JOB, "goal"),
    FieldSpec("worthwhile_gain", tr("Smallest gain that matters"), "flow", Owner.JOB, "goal"),
    FieldSpec("volume_ceiling", tr("Port no larger than"), "volume", Owner.JOB, "goal"),
    FieldSpec("volume_tolerance", tr("Ports may differ by"), "volume", Owner.JOB, "goal"),
    FieldSpec("flow_tolerance", tr("… and in flow by"), "percent", Owner.JOB, "goal"),
    FieldSpec("lowest_speed", tr("Air speed at the top, at least"), "speed", Owner.JOB, "goal"),
    FieldSpec("stop_below", tr("Stop where an hour gains less than"), "flow", Owner.JOB, "goal"),
    FieldSpec("quoted", tr("Promised hours"), "hours", Owner.JOB, "goal"),
    FieldSpec("flatness", tr("Flatness, straight edge"), "length", Owner.JOB, "casting", _not_negative),
    FieldSpec("back_cut_angle", tr("Back cut angle"), "angle", Owner.VALVE, "casting", _angle),
    FieldSpec("weight", tr("Valve's weight"), "mass", Owner.VALVE, "casting"),
    FieldSpec("chamber", tr("Chamber"), "volume", Owner.CUT, "casting"),
    FieldSpec("spring_height", tr("Spring, installed height"), "length", Owner.VALVE, "train"),
    FieldSpec("coil_bind", tr("Spring, height at coil bind"), "length", Owner.VALVE, "train"),
    FieldSpec("seat_force", tr("Spring's force, closed"), "force", Owner.VALVE, "train"),
    FieldSpec("nose_force", tr("Spring's force, full lift"), "force", Owner.VALVE, "train"),
    FieldSpec("guide_clearance", tr("Stem's clearance in its guide"), "length", Owner.VALVE, "train", _not_negative),
    FieldSpec("lap_width", tr("Lapped contact, width"), "length", Owner.VALVE, "train"),
    FieldSpec("fitted_height", tr("Fitted height of the stem"), "length", Owner.VALVE, "train"),
    FieldSpec("head_diameter", tr("Valve head"), "length", Owner.VALVE, "drawing"),
    FieldSpec("stem_diameter", tr("Stem"), "length", Owner.VALVE, "drawing"),
    FieldSpec("seat_angle", tr("Seat angle"), "angle", Owner.VALVE, "drawing", _angle),
    FieldSpec("seat_width", tr("Seat face"), "length", Owner.CUT, "drawing"),
    FieldSpec("seat_margin", tr("Seat margin"), "length", Owner.CUT, "drawing", _not_negative),
    FieldSpec("throat_diameter", tr("Throat"), "length", Owner.CUT, "drawing"),
    FieldSpec("bowl_diameter", tr("Bowl"), "length", Owner.CUT, "drawing"),
    FieldSpec("guide_diameter", tr("Guide"), "length", Owner.CUT, "drawing"),
    FieldSpec("guide_length", tr("Guide protrusion"), "length", Owner.CUT, "drawing", _not_negative),
    FieldSpec("boss_width", tr("Guide boss"), "length", Owner.CUT, "drawing"),
    FieldSpec("opening_width", tr("Opening, width"), "length", Owner.CUT, "drawing"),
    FieldSpec("opening_height", tr("Opening, height"), "length", Owner.CUT, "drawing"),
    FieldSpec("opening_corner", tr("Corner radius"), "length", Owner.CUT, "drawing", _not_negative),
    FieldSpec("gasket_land", tr("Gasket land"), "length", Owner.CUT, "drawing", _not_negative),
    FieldSpec("pinch_width", tr("Pinch, width"), "length", Owner.CUT, "drawing"),
    FieldSpec("pinch_height", tr("Pinch, height"), "length", Owner.CUT, "drawing"),
    FieldSpec("pinch_corner", tr("Pinch, corner radius"), "length", Owner.CUT, "drawing", _not_negative),
    FieldSpec("hole_spacing", tr("Between the holes"), "length", Owner.CUT, "drawing"),
    FieldSpec("short_side_height", tr("Short side, height"), "length", Owner.CUT, "drawing"),
    FieldSpec("short_side_radius", tr("Short side, radius"), "length", Owner.CUT, "drawing"),
    FieldSpec("floor_length", tr("Wire along the floor"), "length", Owner.CUT, "drawing"),
    FieldSpec("roof_length", tr("Wire along the roof"), "length", Owner.CUT, "drawing"),
    FieldSpec("port_angle", tr("Port angle"), "angle", Owner.CUT, "drawing", _angle),
    FieldSpec("volume", tr("Poured volume"), "volume", Owner.CUT, "volume"),
)
SAME: Final = to_si(0.0005, "mm")
# Figures that a cut may carry of its own and the valve's record holds for the port as received.
OF_SEAT: Final = ("seat_width", "seat_margin")


def scan_note(cut: Cut, spec: FieldSpec, value: float | None, units: Units) -> str:
    """What a scan of this cut has for a figure: where it comes from, or what stands beside it."""
    scanned = scanned_size(cut, spec.key) if spec.owner == Owner.CUT else None
    if scanned is None or scanned.size is None:
        return ""
    length, doubt = units.length, units.length.text(scanned.uncertainty)
    if value is not None and abs(value - scanned.size) < SAME:
        return tr("by scan, ± {} {}", doubt, length.label)
    return tr("a scan has {} ± {} {}", length.text(scanned.size), doubt, length.label)


def scanned_size(cut: Cut, name: str) -> ScannedSize | None:
    """A length of a cut as its newest scan has it."""
    return next((s for scan in reversed(cut.scans) for s in scan.sizes if s.name == name), None)


def stored(job: Job, port: Port, cut: Cut, spec: FieldSpec) -> tuple[float | None, str]:
    """A figure as the book has it, and a note where it is carried from an earlier cut."""
    valve = job.valve_of(port, cut)
    if spec.key == "flatness" and port.head_id is not None:  # each head has its own
        own = next((h.flatness for h in job.heads if h.id == port.head_id), None)
        return (own, "") if own is not None else (job.flatness, tr("of the job: not measured on this head"))
    if spec.owner == Owner.JOB:
        return getattr(job, spec.key), ""
    if spec.owner == Owner.VALVE:
        at = fitted_at(port, cut)[1]
        carried_from = at is not None and at != cut.number
        return (getattr(valve, spec.key) if valve else None), tr("carried from cut {}", at) if carried_from else ""
    if spec.key == "chamber":
        chamber = job.chamber_of(port)
        pours = chamber.pours if chamber is not None else ()
        return mean_poured(pours), tr("mean of {} pours, cylinder {}", len(pours), cylinder_of(port)) if len(
            pours
        ) > 1 else ""
    own = poured_volume(cut) if spec.key == "volume" else getattr(cut, spec.key)
    if own is not None:
        return own, ""
    found = carried(port, cut, spec.key)
    if found is not None:
        return found.value, tr("carried from cut {}, not measured here", found.cut_number)
    if spec.key in OF_SEAT and valve is not None:
        value = getattr(valve, spec.key)
        return value, tr("as received, not measured at a cut") if value is not None else ""
    return None, ""


def edited(job: Job, port: Port, cut: Cut, spec: FieldSpec, value: float | None) -> Job:
    """The job with a figure set, or taken out with None."""
    values: dict[str, Any] = {spec.key: value}
    if spec.key == "flatness" and port.head_id is not None:
        return replace(job, heads=swapped(job.heads, port.head_id, lambda h: replace(h, flatness=value)))
    if spec.owner == Owner.JOB:
        return replace(job, **values)
    if spec.owner == Owner.VALVE:
        return correct_valve(job, port, cut, new_id(), **values)
    if spec.key in ("volume", "chamber"):
        pour = None if value is None else Pour(id=new_id(), volume=value, date=now_text())
        return set_chamber(job, port, pour, new_id()) if spec.key == "chamber" else set_volume(job, cut.id, pour)
    return edit_cut(job, cut.id, lambda c: replace(c, **values))


# Sizes that the trade types in thousandths, besides lifts.
SMALL: Final = (
    "seat_width",
    "seat_margin",
    "gasket_land",
    "intake_lash",
    "exhaust_lash",
    "gasket_thickness",
    "flatness",
    "guide_clearance",
    "lap_width",
)

Accept = Callable[[FieldSpec, float | None], None]
