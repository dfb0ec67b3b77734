"""The engine the head is for."""

from __future__ import annotations

import numpy as np
from PySide6.QtWidgets import (
    QComboBox,
    QLineEdit,
)

from ventrix.core.formulas.cam import TabledCam
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import CamPoint
from ventrix.core.model.kinds import Induction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.ui.head.tab import MeasuringSheet, Tab, unless_typing
from ventrix.words import tr
from ventrix.workspace.ids import new_id


class EngineTab(Tab):
    """What the engine is."""

    title = tr("Engine")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self.job_title = QLineEdit()
        self.job_title.editingFinished.connect(self._rename)
        self.add_row(tr("Job"), self.job_title, 210)
        self.add_group("engine")
        self.checked_at = QComboBox()
        for words, value in ((tr("choose"), None), (tr("the valve"), "valve"), (tr("the tappet"), "tappet")):
            self.checked_at.addItem(words, value)
        self.checked_at.setToolTip(
            tr("Durations at 0.050 in: read at the valve, or at the tappet with the rocker ratio")
        )
        self.checked_at.activated.connect(
            lambda _i: self.room.change_job(tr("duration's place"), cam_checked_at=self.checked_at.currentData())
        )
        self.add_row(tr("Duration is read at"), self.checked_at)
        self.induction = QComboBox()
        self.induction.addItem(tr("choose"), None)
        for kind in Induction:
            self.induction.addItem(kind.words, kind.value)
        self.induction.activated.connect(
            lambda _i: self.room.change_job("induction", induction=self.induction.currentData())
        )
        self.add_row(tr("It breathes through"), self.induction)
        self.table = QLineEdit()
        self.table.setPlaceholderText(tr("cam table: 0 0; 20 0.05; 60 0.31 …"))
        self.table.setToolTip(
            tr(
                "Crank angle and valve lift of this kind of port, pair by pair; it is used in place of lift "
                "and duration"
            )
        )
        self.table.editingFinished.connect(self._cam_typed)
        self.add_row(tr("Cam table"), self.table, 210)
        self.column.addWidget(self.problem)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        unless_typing(self.job_title, job.title)
        self.checked_at.setCurrentIndex(max(self.checked_at.findData(job.cam_checked_at), 0))
        self.induction.setCurrentIndex(max(self.induction.findData(job.induction), 0))
        unit = self.room.open_book.units.lift.unit
        points = [p for p in job.cam_points if p.kind == port.kind]
        unless_typing(self.table, "; ".join(f"{from_si(p.angle, 'deg'):g} {from_si(p.lift, unit):.4g}" for p in points))

    def _rename(self) -> None:
        title = self.job_title.text().strip()
        space = self.room.open_book.workspace
        if space is not None and title and title != space.job.title:
            self.job_title.setModified(False)
            self.room.change_job(tr("title '{}'", title), title=title)

    def _cam_typed(self) -> None:
        space = self.room.open_book.workspace
        if not self.table.isModified() or space is None or space.port is None:
            return
        kind, unit = space.port.kind, self.room.open_book.units.lift.unit
        points = []
        try:
            for pair in (p for p in self.table.text().replace("\n", ";").split(";") if p.strip()):
                cells = pair.split()
                if len(cells) != 2:
                    raise Refused("'{}' is not a crank angle and a lift", pair.strip())
                angle, lift = parse_quantity(cells[0], "deg"), read_small(cells[1], unit).value
                points.append(CamPoint(id=new_id(), kind=kind, angle=angle, lift=lift))
            if points:
                TabledCam(np.array([p.angle for p in points]), np.array([p.lift for p in points]))
        except Refused as error:
            self.say(error)
            return
        rest = tuple(p for p in space.job.cam_points if p.kind != kind)
        self.keep_typed(self.table, tr("cam table"), cam_points=(*rest, *points))
