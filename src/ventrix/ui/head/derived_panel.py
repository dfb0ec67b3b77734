"""What follows from the Head room's figures, while they are typed. Figures come from the core."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QLabel, QWidget

from ventrix.core.formulas import port
from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.core.quantity.words import percent_text, sentence
from ventrix.rooms.display_units import Units
from ventrix.rooms.head.derived import DERIVED, OF_ONE_VALVE, Figures
from ventrix.rooms.shared.plot_values import Line, Picture
from ventrix.rooms.shared.shape_words import taper_words
from ventrix.ui.widgets.plot import Plot
from ventrix.words import tr

CAPTION = 120  # px: a longer caption goes on in a second line


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
            caption.setWordWrap(True)
            caption.setMinimumWidth(CAPTION)
            value = QLabel("–")
            value.setStyleSheet("font-size: 16px; font-weight: 500")
            value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            value.setAccessibleName(each.caption)
            value.setMinimumWidth(84)
            value.setToolTip(each.tip)
            caption.setToolTip(each.tip)
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
            self.captions[each.caption].setText(tr("{}, of one valve", each.caption) if of_one else each.caption)
            given = {name.rstrip("?"): known.get(name.rstrip("?")) for name in each.needs}
            needed = [name for name in each.needs if not name.endswith("?")]
            text = "–"
            if all(given[name] is not None for name in needed):
                try:
                    value = float(each.compute(*(v for v in given.values() if v is not None)))
                    text = percent_text(value) if each.unit == "percent" else units[each.unit].with_unit(value)
                except Refused as error:
                    problems[each.blame] = sentence(str(error))
            self.values[each.caption].setText(text)
        return problems


class AreaCurve(Plot):
    """Area against distance from the opening, with what follows from it in words."""

    def __init__(self) -> None:
        super().__init__(tr("Area of the port against distance from its opening"))
        self.setFixedHeight(150)

    def show_port(self, here: UnrolledPort, kind: Direction, poured: float | None, units: Units) -> str:
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
        self.show_picture(Picture([line], verticals=[mark], x_range=(0.0, float(shown[0][-1])), y_range=(low, high)))
        said = [taper_words(here)]
        if here.has_stations and "length" not in here.guessed:
            volume = port.volume_from_stations(x, here.area(x))
            said.append(tr("By integration {}.", units.volume.with_unit(volume)))
            if poured is not None:
                note = port.volume_note(poured, volume)
                said.append(sentence(note) if note else tr("Agrees with the poured one within 3 %."))
        else:
            said.append(tr("Four sections or more give the volume by integration."))
        if here.guessed:
            said.append(tr("Guessed: {}.", ", ".join(here.guessed)))
        return " ".join(said)
