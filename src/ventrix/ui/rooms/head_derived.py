"""What follows from the Head room's figures, while they are typed. Figures come from the core."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QLabel, QWidget

from ventrix.core.formulas import port, valve
from ventrix.core.formulas.cam import CHECKING_LIFT, Cam
from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.core.quantity.words import percent_text
from ventrix.ui.parts.plot import LiftPlot, Line
from ventrix.ui.units import Units

Figures = dict[str, float | None]


@dataclass(frozen=True, slots=True)
class Derived:
    """A derived figure: its words, its unit, what it needs, how it is computed, and the field to blame."""

    caption: str
    unit: str
    needs: tuple[str, ...]
    compute: Callable[..., Any]
    blame: str


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


def _bowl_percent(head_diameter: float, bowl_diameter: float) -> float:
    return bowl_diameter / head_diameter


def _displacement(bore: float, stroke: float) -> float:
    return math.pi / 4 * bore**2 * stroke


def _turn(port_angle: float) -> float:
    return math.pi / 2 - port_angle


DERIVED: Final = (
    Derived("Throat of valve", "percent", ("head_diameter", "throat_diameter"), valve.throat_ratio, "throat_diameter"),
    Derived("Bowl of valve", "percent", ("head_diameter", "bowl_diameter"), _bowl_percent, "bowl_diameter"),
    Derived("Throat area, gross", "area", ("throat_diameter",), _gross, "throat_diameter"),
    Derived(
        "Throat area, net of stem", "area", ("throat_diameter", "stem_diameter"), valve.throat_area, "stem_diameter"
    ),
    Derived(
        "Seat leaves a throat of",
        "length",
        ("head_diameter", "seat_width", "seat_angle", "seat_margin?"),
        _seat_throat,
        "seat_width",
    ),
    Derived("Valve head area", "area", ("head_diameter",), valve.valve_head_area, "head_diameter"),
    Derived("Curtain is valve head at", "lift", ("head_diameter",), _quarter_lift, "head_diameter"),
    Derived("Centreline length", "length", ("floor_length", "roof_length"), _length, "floor_length"),
    Derived("Mean section", "area", ("volume", "floor_length", "roof_length"), _mean_section, "volume"),
    Derived("Section at the pinch", "area", ("pinch_width", "pinch_height", "pinch_corner?"), _pinch, "pinch_width"),
    Derived("Wall at the pushrod hole", "length", ("hole_spacing", "pinch_width"), port.hole_wall, "hole_spacing"),
    Derived("Port to valve, the air turns", "angle", ("port_angle",), _turn, "port_angle"),
    Derived("Displacement, one cylinder", "volume", ("bore", "stroke"), _displacement, "stroke"),
    Derived("Valve open for, crank", "angle", ("cam_lift", "cam_duration", "checking_lift?"), _cam_open, "cam_lift"),
)
OF_ONE_VALVE: Final = (
    "Throat of valve",
    "Bowl of valve",
    "Throat area, gross",
    "Throat area, net of stem",
    "Seat leaves a throat of",
    "Valve head area",
    "Curtain is valve head at",
)
MEAN_WALL: Final = "Mean of the two sides: core shift makes one thinner. It never answers a wall limit."


class DerivedFigures(QWidget):
    """Derived figures in columns, a dash where something is still to be measured; the area curve beside them."""

    def __init__(self, columns: int = 2) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        grid = QGridLayout(self)
        grid.setContentsMargins(14, 8, 14, 8)
        grid.setHorizontalSpacing(12)
        grid.setVerticalSpacing(0)
        self.values: dict[str, QLabel] = {}
        self.captions: dict[str, QLabel] = {}
        rows = -(-len(DERIVED) // columns)
        for i, each in enumerate(DERIVED):
            row, column = i % rows, (i // rows) * 2
            caption = QLabel(each.caption)
            caption.setObjectName("quiet")
            value = QLabel("–")
            value.setStyleSheet("font-size: 16px; font-weight: 500")
            value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            value.setAccessibleName(each.caption)
            value.setMinimumWidth(84)
            if each.caption.startswith("Wall at"):
                value.setToolTip(MEAN_WALL)
                caption.setToolTip(MEAN_WALL)
            grid.addWidget(caption, row, column)
            grid.addWidget(value, row, column + 1)
            grid.setColumnStretch(column, 1)
            self.values[each.caption] = value
            self.captions[each.caption] = caption
        self.sentence = QLabel()
        self.sentence.setObjectName("caption")
        self.sentence.setWordWrap(True)
        grid.addWidget(self.sentence, rows, 0, 1, 2 * columns)

    def show_figures(self, known: Figures, units: Units, valves: int = 1) -> dict[str, str]:
        """Compute and show; returns field keys with a sentence where figures contradict each other. Figures of one
        valve say so where several open into the port."""
        problems: dict[str, str] = {}
        for each in DERIVED:
            of_one = valves > 1 and each.caption in OF_ONE_VALVE
            self.captions[each.caption].setText(f"{each.caption}, of one valve" if of_one else each.caption)
            given = {name.rstrip("?"): known.get(name.rstrip("?")) for name in each.needs}
            needed = [name for name in each.needs if not name.endswith("?")]
            text = "–"
            if all(given[name] is not None for name in needed):
                try:
                    value = float(each.compute(*(v for v in given.values() if v is not None)))
                    text = percent_text(value) if each.unit == "percent" else units[each.unit].with_unit(value)
                except ValueError as error:
                    problems[each.blame] = f"{str(error)[0].upper()}{str(error)[1:]}."
            self.values[each.caption].setText(text)
        return problems


class AreaCurve(LiftPlot):
    """Area against distance from the opening, with what follows from it in words."""

    def __init__(self) -> None:
        super().__init__("Area of the port against distance from its opening")
        self.setFixedHeight(150)

    def show_port(self, here: UnrolledPort, kind: str, poured: float | None, units: Units) -> str:
        """Draw, and return a sentence: taper, smallest place, volume by integration beside the poured one."""
        x = np.linspace(0.0, here.length, 121)
        shown = from_si_array(x, units.length.unit), from_si_array(here.area(x), units.area.unit)
        at = np.array([s.along for s in here.sections if s.measured])
        points = from_si_array(at, units.length.unit), from_si_array(here.area(at), units.area.unit)
        line = Line(*shown, kind, 2.0, "solid" if not here.guessed else "dashed", points)
        small = here.smallest
        mark = (from_si(small.along, units.length.unit), f"{small.name or 'smallest'} {units.area.text(small.area)}")
        span = float(shown[1].max() - shown[1].min()) or 1.0
        low, high = float(shown[1].min()) - 0.25 * span, float(shown[1].max()) + 0.25 * span
        self.show_values([line], verticals=[mark], x_range=(0.0, float(shown[0][-1])), y_range=(low, high))
        said = [f"Opening to smallest {percent_text(here.taper, 0, sign=True)}."]
        if here.has_stations and "length" not in here.guessed:
            volume = port.volume_from_stations(x, here.area(x))
            said.append(f"By integration {units.volume.with_unit(volume)}.")
            if poured is not None:
                note = port.volume_note(poured, volume)
                said.append(f"{note[0].upper()}{note[1:]}." if note else "Agrees with the poured one within 3 %.")
        else:
            said.append("Four sections or more give the volume by integration.")
        if here.guessed:
            said.append(f"Guessed: {', '.join(here.guessed)}.")
        return " ".join(said)
