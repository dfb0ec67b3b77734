"""The figures of the Head room: what each edits, its name, its unit, and where it is typed."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Final, Literal

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
from ventrix.workspace.ids import new_id, now_text

Owner = Literal["job", "valve", "cut"]


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
    FieldSpec("bore", "Bore it will sit on", "length", "job", "engine"),
    FieldSpec("stroke", "Stroke", "length", "job", "engine"),
    FieldSpec("rod_length", "Rod, centre to centre", "length", "job", "engine"),
    FieldSpec("speed_low", "Used from", "speed_of_rotation", "job", "engine"),
    FieldSpec("speed_high", "… to", "speed_of_rotation", "job", "engine"),
    FieldSpec("power_wanted", "Power wanted", "power", "job", "engine"),
    FieldSpec("cam_lift", "Cam lift at the valve", "lift", "job", "engine"),
    FieldSpec("rocker_ratio", "Rocker ratio", "ratio", "job", "engine"),
    FieldSpec("cam_duration", "Duration at 0.050 in", "angle", "job", "engine", _cam_duration),
    FieldSpec("exhaust_cam_lift", "Exhaust cam lift", "lift", "job", "engine"),
    FieldSpec("exhaust_cam_duration", "Exhaust duration", "angle", "job", "engine", _cam_duration),
    FieldSpec("intake_centreline", "Intake centreline, after top", "angle", "job", "engine", _cam_duration),
    FieldSpec("exhaust_centreline", "Exhaust centreline, before top", "angle", "job", "engine", _cam_duration),
    FieldSpec("intake_lash", "Intake lash", "length", "job", "engine", _not_negative),
    FieldSpec("exhaust_lash", "Exhaust lash", "length", "job", "engine", _not_negative),
    FieldSpec("compression_ratio", "Compression ratio", "ratio", "job", "engine"),
    FieldSpec("gasket_thickness", "Head gasket, as pressed", "length", "job", "engine", _not_negative),
    FieldSpec("deck_clearance", "Piston under the deck", "length", "job", "engine", _anything),
    FieldSpec("piston_volume", "Piston's dish, a dome negative", "volume", "job", "engine", _anything),
    FieldSpec("induction_flow", "Carburettor or throttle body passes", "flow", "job", "engine"),
    FieldSpec("induction_pressure", "… rated at", "vacuum", "job", "engine"),
    FieldSpec("manifold_pressure", "Manifold pressure, absolute", "absolute", "job", "engine"),
    FieldSpec("manifold_temperature", "Manifold temperature", "temperature", "job", "engine", _anything),
    FieldSpec("exhaust_pressure", "Exhaust pressure, absolute", "absolute", "job", "engine"),
    FieldSpec("test_pressure", "Flows shown at (none: as tested)", "pressure", "job", "goal"),
    FieldSpec("worthwhile_gain", "Smallest gain that matters", "flow", "job", "goal"),
    FieldSpec("volume_ceiling", "Port no larger than", "volume", "job", "goal"),
    FieldSpec("volume_tolerance", "Ports may differ by", "volume", "job", "goal"),
    FieldSpec("flow_tolerance", "… and in flow by", "percent", "job", "goal"),
    FieldSpec("lowest_speed", "Air speed at the top, at least", "speed", "job", "goal"),
    FieldSpec("stop_below", "Stop where an hour gains less than", "flow", "job", "goal"),
    FieldSpec("quoted", "Promised hours", "hours", "job", "goal"),
    FieldSpec("flatness", "Flatness, straight edge", "length", "job", "casting", _not_negative),
    FieldSpec("back_cut_angle", "Back cut angle", "angle", "valve", "casting", _angle),
    FieldSpec("weight", "Valve's weight", "mass", "valve", "casting"),
    FieldSpec("chamber", "Chamber", "volume", "cut", "casting"),
    FieldSpec("spring_height", "Spring, installed height", "length", "valve", "train"),
    FieldSpec("coil_bind", "Spring, height at coil bind", "length", "valve", "train"),
    FieldSpec("seat_force", "Spring's force, closed", "force", "valve", "train"),
    FieldSpec("nose_force", "Spring's force, full lift", "force", "valve", "train"),
    FieldSpec("guide_clearance", "Stem's clearance in its guide", "length", "valve", "train", _not_negative),
    FieldSpec("lap_width", "Lapped contact, width", "length", "valve", "train"),
    FieldSpec("fitted_height", "Fitted height of the stem", "length", "valve", "train"),
    FieldSpec("head_diameter", "Valve head", "length", "valve", "drawing"),
    FieldSpec("stem_diameter", "Stem", "length", "valve", "drawing"),
    FieldSpec("seat_angle", "Seat angle", "angle", "valve", "drawing", _angle),
    FieldSpec("seat_width", "Seat face", "length", "cut", "drawing"),
    FieldSpec("seat_margin", "Seat margin", "length", "cut", "drawing", _not_negative),
    FieldSpec("throat_diameter", "Throat", "length", "cut", "drawing"),
    FieldSpec("bowl_diameter", "Bowl", "length", "cut", "drawing"),
    FieldSpec("guide_diameter", "Guide", "length", "cut", "drawing"),
    FieldSpec("guide_length", "Guide protrusion", "length", "cut", "drawing", _not_negative),
    FieldSpec("boss_width", "Guide boss", "length", "cut", "drawing"),
    FieldSpec("opening_width", "Opening, width", "length", "cut", "drawing"),
    FieldSpec("opening_height", "Opening, height", "length", "cut", "drawing"),
    FieldSpec("opening_corner", "Corner radius", "length", "cut", "drawing", _not_negative),
    FieldSpec("gasket_land", "Gasket land", "length", "cut", "drawing", _not_negative),
    FieldSpec("pinch_width", "Pinch, width", "length", "cut", "drawing"),
    FieldSpec("pinch_height", "Pinch, height", "length", "cut", "drawing"),
    FieldSpec("pinch_corner", "Pinch, corner radius", "length", "cut", "drawing", _not_negative),
    FieldSpec("hole_spacing", "Between the holes", "length", "cut", "drawing"),
    FieldSpec("short_side_height", "Short side, height", "length", "cut", "drawing"),
    FieldSpec("short_side_radius", "Short side, radius", "length", "cut", "drawing"),
    FieldSpec("floor_length", "Wire along the floor", "length", "cut", "drawing"),
    FieldSpec("roof_length", "Wire along the roof", "length", "cut", "drawing"),
    FieldSpec("port_angle", "Port angle", "angle", "cut", "drawing", _angle),
    FieldSpec("volume", "Poured volume", "volume", "cut", "volume"),
)
SAME: Final = to_si(0.0005, "mm")
# Figures that a cut may carry of its own and the valve's record holds for the port as received.
OF_SEAT: Final = ("seat_width", "seat_margin")


def scan_note(cut: Cut, spec: FieldSpec, value: float | None, units: Units) -> str:
    """What a scan of this cut has for a figure: where it comes from, or what stands beside it."""
    scanned = scanned_size(cut, spec.key) if spec.owner == "cut" else None
    if scanned is None or scanned.size is None:
        return ""
    length, doubt = units.length, units.length.text(scanned.uncertainty)
    if value is not None and abs(value - scanned.size) < SAME:
        return f"by scan, ± {doubt} {length.label}"
    return f"a scan has {length.text(scanned.size)} ± {doubt} {length.label}"


def scanned_size(cut: Cut, name: str) -> ScannedSize | None:
    """A length of a cut as its newest scan has it."""
    return next((s for scan in reversed(cut.scans) for s in scan.sizes if s.name == name), None)


def stored(job: Job, port: Port, cut: Cut, spec: FieldSpec) -> tuple[float | None, str]:
    """A figure as the book has it, and a note where it is carried from an earlier cut."""
    valve = job.valve_of(port, cut)
    if spec.key == "flatness" and port.head_id is not None:  # each head has its own
        own = next((h.flatness for h in job.heads if h.id == port.head_id), None)
        return (own, "") if own is not None else (job.flatness, "of the job: not measured on this head")
    if spec.owner == "job":
        return getattr(job, spec.key), ""
    if spec.owner == "valve":
        at = fitted_at(port, cut)[1]
        carried_from = at is not None and at != cut.number
        return (getattr(valve, spec.key) if valve else None), f"carried from cut {at}" if carried_from else ""
    if spec.key == "chamber":
        chamber = job.chamber_of(port)
        pours = chamber.pours if chamber is not None else ()
        return mean_poured(pours), f"mean of {len(pours)} pours, cylinder {cylinder_of(port)}" if len(pours) > 1 else ""
    own = poured_volume(cut) if spec.key == "volume" else getattr(cut, spec.key)
    if own is not None:
        return own, ""
    found = carried(port, cut, spec.key)
    if found is not None:
        return found.value, f"carried from cut {found.cut_number}, not measured here"
    if spec.key in OF_SEAT and valve is not None:
        value = getattr(valve, spec.key)
        return value, "as received, not measured at a cut" if value is not None else ""
    return None, ""


def edited(job: Job, port: Port, cut: Cut, spec: FieldSpec, value: float | None) -> Job:
    """The job with a figure set, or taken out with None."""
    values: dict[str, Any] = {spec.key: value}
    if spec.key == "flatness" and port.head_id is not None:
        return replace(job, heads=swapped(job.heads, port.head_id, lambda h: replace(h, flatness=value)))
    if spec.owner == "job":
        return replace(job, **values)
    if spec.owner == "valve":
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
