"""Figures that follow from measured ones: what each needs, and how it is worked out."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

from ventrix.core.formulas import port, valve
from ventrix.core.formulas.cam import CHECKING_LIFT, Cam
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

Figures = dict[str, float | None]


@dataclass(frozen=True, slots=True)
class Derived:
    """A derived figure: its words, its unit, what it needs, how it is computed, the field to blame, and its tip."""

    caption: str
    unit: str
    needs: tuple[str, ...]
    compute: Callable[..., Any]
    blame: str
    tip: str = ""


MEAN_WALL: Final = tr("Mean of the two sides: core shift makes one thinner. It never answers a wall limit.")


def _quarter_lift(head_diameter: float) -> float:
    return head_diameter / 4


def _length(floor_length: float, roof_length: float) -> Any:
    return port.centreline_length(floor_length, roof_length)


def _mean_section(volume: float, floor_length: float, roof_length: float) -> Any:
    return port.mean_section(volume, port.centreline_length(floor_length, roof_length))


def _cam_open(cam_lift: float, cam_duration: float, checking_lift: float = CHECKING_LIFT) -> float:
    return Cam(cam_lift, cam_duration, checking_lift).open_period


def _pinch(pinch_width: float, pinch_height: float, pinch_corner: float = 0.0) -> Any:
    return port.section_area(pinch_width, pinch_height, pinch_corner)


def _gross(throat_diameter: float) -> Any:
    return valve.throat_area(throat_diameter, 0.0)


def _seat_throat(head_diameter: float, seat_width: float, seat_angle: float, seat_margin: float = 0.0) -> Any:
    return valve.seat_throat(head_diameter, seat_width, seat_angle, seat_margin)


def _throat(head_diameter: float, throat_diameter: float) -> Any:
    if throat_diameter >= head_diameter:
        raise Refused("the throat must be smaller than the valve")
    return valve.throat_ratio(head_diameter, throat_diameter)


def _bowl_percent(head_diameter: float, bowl_diameter: float) -> float:
    return bowl_diameter / head_diameter


def _displacement(bore: float, stroke: float) -> float:
    return math.pi / 4 * bore**2 * stroke


def _turn(port_angle: float) -> float:
    return math.pi / 2 - port_angle


DERIVED: Final = (
    Derived(tr("Throat, % of valve"), "percent", ("head_diameter", "throat_diameter"), _throat, "throat_diameter"),
    Derived(tr("Bowl, % of valve"), "percent", ("head_diameter", "bowl_diameter"), _bowl_percent, "bowl_diameter"),
    Derived(tr("Throat area, gross"), "area", ("throat_diameter",), _gross, "throat_diameter"),
    Derived(
        tr("Throat area, net of stem"), "area", ("throat_diameter", "stem_diameter"), valve.throat_area, "stem_diameter"
    ),
    Derived(
        tr("Largest throat the seat allows"),
        "length",
        ("head_diameter", "seat_width", "seat_angle", "seat_margin?"),
        _seat_throat,
        "seat_width",
    ),
    Derived(tr("Valve head area"), "area", ("head_diameter",), valve.valve_head_area, "head_diameter"),
    Derived(
        tr("Lift where curtain area equals valve area"), "lift", ("head_diameter",), _quarter_lift, "head_diameter"
    ),
    Derived(tr("Centerline length"), "length", ("floor_length", "roof_length"), _length, "floor_length"),
    Derived(tr("Mean section"), "area", ("volume", "floor_length", "roof_length"), _mean_section, "volume"),
    Derived(
        tr("Section at the pinch"), "area", ("pinch_width", "pinch_height", "pinch_corner?"), _pinch, "pinch_width"
    ),
    Derived(
        tr("Wall at the pushrod hole"),
        "length",
        ("hole_spacing", "pinch_width"),
        port.hole_wall,
        "hole_spacing",
        MEAN_WALL,
    ),
    Derived(tr("Turning angle, port to valve"), "angle", ("port_angle",), _turn, "port_angle"),
    Derived(tr("Displacement, one cylinder"), "volume", ("bore", "stroke"), _displacement, "stroke"),
    Derived(
        tr("Valve open for, crank"), "angle", ("cam_lift", "cam_duration", "checking_lift?"), _cam_open, "cam_lift"
    ),
)

OF_ONE_VALVE: Final = (
    tr("Throat, % of valve"),
    tr("Bowl, % of valve"),
    tr("Throat area, gross"),
    tr("Throat area, net of stem"),
    tr("Largest throat the seat allows"),
    tr("Valve head area"),
    tr("Lift where curtain area equals valve area"),
)
