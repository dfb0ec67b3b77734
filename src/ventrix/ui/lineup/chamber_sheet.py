"""Chambers against each other, and how a valve is shrouded by its bore: round the clock, and by lift."""

from __future__ import annotations

from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QSize
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QLabel, QWidget
from shapely.geometry import Point

from ventrix.core.lineup.chambers import chamber_lines
from ventrix.core.lineup.shrouding import Shroud, needed_gap, shrouding
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import sentence
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet

LIFTS: Final = tuple(to_si(x, "in") for x in (0.2, 0.3, 0.4, 0.5, 0.6))


class ShroudPicture(QWidget):
    """The valve, its wall, and in the worse shade where it stands too close at half an inch."""

    def __init__(self) -> None:
        super().__init__()
        self.found: Shroud | None = None
        self.radius = 0.0
        self.lift = LIFTS[3]
        self.setMinimumHeight(190)
        self.setAccessibleName("Shrouding round the clock")

    def sizeHint(self) -> QSize:
        return QSize(320, 200)

    def show_shroud(self, found: Shroud | None, radius: float, lift: float) -> None:
        self.found, self.radius, self.lift = found, radius, lift
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.found is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        reach = self.radius + np.minimum(self.found.gap, 1.5 * self.radius)
        scale = (min(self.width(), self.height()) / 2 - 8) / float(reach.max())
        c, s = np.cos(self.found.angle), np.sin(self.found.angle)
        at = QPointF(self.width() / 2, self.height() / 2)

        def point(r: float, i: int) -> QPointF:
            return QPointF(at.x() + scale * r * float(c[i]), at.y() - scale * r * float(s[i]))

        needs = float(needed_gap(self.radius, self.lift))
        painter.setPen(QPen(theme.colour("scribe"), 1.5))
        painter.drawPolygon(QPolygonF([point(float(r), i) for i, r in enumerate(reach)]))
        painter.setPen(QPen(theme.colour("intake"), 2))
        painter.drawEllipse(at, scale * self.radius, scale * self.radius)
        painter.setPen(QPen(theme.colour("worse"), 2))
        for i in range(0, len(reach), 3):
            if self.found.gap[i] < needs:
                painter.drawLine(point(self.radius, i), point(float(reach[i]), i))


class ChamberSheet(FormSheet):
    """Nothing is kept here: chambers are poured in Cuts, valves and bore stand in Head."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Reckon")
        self.title.setText("Chambers and shrouding")
        self.chambers = QLabel()
        self.chambers.setWordWrap(True)
        self.column.addWidget(self.chambers)
        self.gasket = self.add_figure("Gasket, as pressed", "length")
        self.deck = self.add_figure("Piston under the deck", "length", None)
        self.dish = self.add_figure("Piston's dish (dome negative)", "volume", None)
        heading = QLabel("How near the bore stands to the valve")
        heading.setObjectName("heading")
        self.column.addWidget(heading)
        self.off = self.add_figure("Valve's middle off the bore's", "length", None)
        self.valve = self.add_figure("Valve's head", "length")
        self.bore = self.add_figure("Bore", "length")
        self.lift = self.add_figure("Drawn for a lift of", "lift")
        self.picture = ShroudPicture()
        self.column.addWidget(self.picture)
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.column.addWidget(self.told)
        self.finish()
        self.caution.setText(
            "Old valves in the seats while a wall is cut. A chamber's edge that is left sharp glows; compression "
            "changes with every cc. Valve to piston is measured, by the maker's data."
        )
        for field in (self.gasket, self.deck, self.dish, self.off, self.valve, self.bore, self.lift):
            field.edited.connect(lambda _v: self.reckon())

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        valve = space.job.valve_of(space.port, space.real_cut)
        self.valve.set_value(valve.head_diameter if valve is not None else None)
        self.bore.set_value(space.job.bore)
        self.lift.set_value(LIFTS[3])
        self.come_up()
        self.reckon()
        self.off.box.setFocus()

    def take(self) -> None:
        if self.settle_fields():
            self.reckon()

    def reckon(self) -> None:
        """Answer what stands in the boxes."""
        self.problem.clear()
        try:
            self._chambers()
            self._shroud()
        except ValueError as error:
            self.problem.setText(sentence(str(error)))

    def _chambers(self) -> None:
        space, units = self.open_book.workspace, self.open_book.units
        figures = (field.typed() or 0.0 for field in (self.gasket, self.deck, self.dish))
        lines = () if space is None else chamber_lines(space.job, *figures)
        if not lines:
            self.chambers.setText("No chamber was poured yet: Cuts, Pour.")
            return
        rows = []
        for line in lines:
            more = f", take {units.volume.text(line.take_out)} cc out" if line.take_out > 5e-8 else ", the largest"
            ratio = "" if line.compression is None else f", {line.compression:.2f} to 1"
            rows.append(f"Cylinder {line.cylinder}: {units.volume.text(line.volume)} cc{more}{ratio}")
        self.chambers.setText("<br>".join(rows))

    def _shroud(self) -> None:
        valve, bore, units = self.valve.typed(), self.bore.typed(), self.open_book.units
        if valve is None or bore is None:
            self.picture.show_shroud(None, 0.0, LIFTS[3])
            self.told.setText("Shrouding wants the valve's head and the bore.")
            return
        wall = Point(0.0, 0.0).buffer(bore / 2, 128)
        found = shrouding((self.off.typed() or 0.0, 0.0), valve / 2, wall, np.array(LIFTS))
        self.picture.show_shroud(found, valve / 2, self.lift.typed() or LIFTS[3])
        least = units.length.with_unit(float(np.min(found.gap)))
        rows = [f"Least gap {least}."]
        for lift, share in zip(found.lift, found.share, strict=True):
            needs = units.length.text(float(needed_gap(valve / 2, lift)))
            at = units.lift.with_unit(float(lift))
            rows.append(f"At {at}: {100 * share:.0f} % of the curtain is too close (needs {needs}).")
        self.told.setText("<br>".join(rows))
