"""Chambers against each other, and how their valves are shrouded by bore and outline: round the clock, and by lift."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QLabel, QLineEdit, QWidget

from ventrix.core.lineup.shrouding import needed_gap
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job, cylinder_of
from ventrix.core.model.job_parts import Outline
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import sentence
from ventrix.rooms.lineup.chamber_shows import (
    Shrouded,
    ValveSpot,
    chamber_outlines,
    chamber_rows,
    shroud_rows,
    shrouded,
    valve_middle,
)
from ventrix.rooms.lineup.typed_faces import typed_point
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr

DRAWN: Final = to_si(0.5, "in")
EACH: Final = 3  # degrees from one drawn line to the next


class ShroudPicture(QWidget):
    """Both valves in their bore and chamber; lines where a wall stands too close at the lift, with the least gap."""

    def __init__(self) -> None:
        super().__init__()
        self.found: Shrouded | None = None
        self.lift = DRAWN
        self.setMinimumHeight(210)
        self.setAccessibleName(tr("Shrouding round the clock"))

    def sizeHint(self) -> QSize:
        return QSize(320, 220)

    def show_shroud(self, found: Shrouded | None, lift: float) -> None:
        self.found, self.lift = found, lift
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.found is None or not self.found.walls:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        bounds = np.array([wall.bounds for _, wall in self.found.walls])
        low, high = bounds[:, :2].min(axis=0), bounds[:, 2:].max(axis=0)
        scale = min((self.width() - 16) / (high[0] - low[0]), (self.height() - 16) / (high[1] - low[1]))
        middle = (low + high) / 2

        def point(x: float, y: float) -> QPointF:
            return QPointF(
                self.width() / 2 + scale * (x - float(middle[0])), self.height() / 2 - scale * (y - float(middle[1]))
            )

        for name, wall in self.found.walls:
            style = Qt.PenStyle.SolidLine if name == "chamber" else Qt.PenStyle.DashLine
            painter.setPen(QPen(theme.colour("scribe"), 1.5, style))
            painter.drawPolygon(QPolygonF([point(float(x), float(y)) for x, y in wall.exterior.coords]))
        for valve, shroud in self.found.valves:
            painter.setPen(QPen(theme.colour(valve.kind), 2))
            at = point(*valve.centre)
            painter.drawEllipse(at, scale * valve.radius, scale * valve.radius)
            painter.drawText(QPointF(at.x() - 4, at.y() + 4), valve.kind[0].upper())
            painter.setPen(QPen(theme.colour("worse"), 2))
            needs = float(needed_gap(valve.radius, self.lift))
            for i in np.flatnonzero(shroud.gap < needs)[::EACH]:
                way = np.array([np.cos(shroud.angle[i]), np.sin(shroud.angle[i])])
                start = np.array(valve.centre) + valve.radius * way
                end = start + float(shroud.gap[i]) * way
                painter.drawLine(point(*start.tolist()), point(*end.tolist()))


class ChamberSheet(FormSheet):
    """Chambers are poured in Cuts, valves and bore stand in Head, outlines are faces (N); gasket, deck and piston are
    kept with the engine."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep"))
        self.title.setText(tr("Shrouding, and chambers"))
        self.picture = ShroudPicture()
        self.column.addWidget(self.picture)
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.column.addWidget(self.told)
        self.outline = self.add_choice(tr("Chamber's outline"), [(tr("not known, the bore alone"), None)])
        self.outline.activated.connect(lambda _i: self._use_outline())
        self.bore = self.add_figure(tr("Bore"), "length")
        self.heads: dict[str, QuantityField] = {}
        self.middles: dict[str, QLineEdit] = {}
        for kind in Direction:
            self.heads[kind] = self.add_figure(tr("{} valve's head", kind.capitalize()), "length")
            self.middles[kind] = self.add_text(tr("{}'s middle, x y", kind.capitalize()), tr("0 0, from the bore's"))
        self.lift = self.add_figure(tr("Drawn for a lift of"), "lift")
        heading = QLabel(tr("Chamber against chamber"))
        heading.setObjectName("heading")
        self.column.addWidget(heading)
        self.chambers = QLabel()
        self.chambers.setWordWrap(True)
        self.column.addWidget(self.chambers)
        self.gasket = self.add_figure(tr("Gasket, as pressed"), "length", small=True)
        self.deck = self.add_figure(tr("Piston under the deck"), "length", None, small=True)
        self.dish = self.add_figure(tr("Piston's dish (dome negative)"), "volume", None)
        self.finish()
        self.caution.setText(
            tr(
                "Old valves in the seats while a wall is cut. A chamber's edge that is left sharp glows; compression "
                "changes with every cc. Valve to piston is measured, by the maker's data."
            )
        )
        self.edited.connect(self.reckon)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        for kind, port in self._pair(space.job, space.port).items():
            valve = None if port is None else space.job.valve_of(port)
            self.heads[kind].set_value(valve.head_diameter if valve is not None else None)
        self.bore.set_value(space.job.bore)
        self.gasket.set_value(space.job.gasket_thickness)
        self.deck.set_value(space.job.deck_clearance)
        self.dish.set_value(space.job.piston_volume)
        self.lift.set_value(self.lift.value or DRAWN)
        self.outline.clear()
        self.outline.addItem(tr("not known, the bore alone"), None)
        for name, face, outline in chamber_outlines(space.job):
            self.outline.addItem(name, (face, outline))
        self.outline.setCurrentIndex(min(1, self.outline.count() - 1))
        self.come_up()
        self._use_outline()
        self.middles["intake"].setFocus()

    @staticmethod
    def _pair(job: Job, port: Port) -> dict[str, Port | None]:
        """The intake and the exhaust of a port's cylinder, or of the head where cylinders are not said."""
        found: dict[str, Port | None] = {port.kind: port}
        other = "exhaust" if port.kind == Direction.INTAKE else "intake"
        there = [p for p in job.ports if p.kind == other and p.of_head]
        same = [p for p in there if cylinder_of(p) == cylinder_of(port)]
        found[other] = next(iter(same or there), None)
        return found

    def _use_outline(self) -> None:
        """The valves' middles as the chamber's face keeps them."""
        chosen = self.outline.currentData()
        length = self.open_book.units.length
        for kind, box in self.middles.items():
            at = valve_middle(chosen[0], kind) if chosen is not None else None
            if at is not None:
                box.setText(" ".join(length.text(v) for v in at))
        self.reckon()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        parts = self._with_parts(space.job)
        if parts != space.job:
            space.apply(tr("gasket, deck and piston"), parts)
        self.reckon()

    def _with_parts(self, job: Job) -> Job:
        """The job with what stands in the boxes for its compression."""
        return replace(
            job,
            gasket_thickness=self.gasket.typed(),
            deck_clearance=self.deck.typed(),
            piston_volume=self.dish.typed(),
        )

    def reckon(self) -> None:
        """Answer what stands in the boxes."""
        self.problem.clear()
        space, units = self.open_book.workspace, self.open_book.units
        try:
            rows = chamber_rows(self._with_parts(space.job), units) if space is not None else ()
            self.chambers.setText("\n".join(rows) or tr("No chamber was poured yet: Cuts, Pour."))
            found = self._shrouded()
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.picture.show_shroud(found, self.lift.typed() or DRAWN)
        wants = tr("Shrouding needs a valve's head with its center, and the bore or the chamber's outline.")
        self.told.setText(wants if found is None else "\n".join(shroud_rows(found, units)))

    def _shrouded(self) -> Shrouded | None:
        unit = self.open_book.units.length.unit
        valves = []
        for kind, box in self.middles.items():
            head = self.heads[kind].typed()
            if head is not None and box.text().strip():
                valves.append(
                    ValveSpot(kind, head / 2, typed_point(box.text(), unit, tr("the {} valve's middle", kind)))
                )
        chosen = self.outline.currentData()
        outline: Outline | None = None if chosen is None else chosen[1]
        bore = self.bore.typed()
        return shrouded(valves, bore, outline) if valves and (bore or outline) else None
