"""The Head room's tabs: engine, goal, casting, stations, and the list for the end of a head."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final

import numpy as np
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.formulas.cam import TabledCam
from ventrix.core.metal.unrolled import ZONE_NAMES
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import CamPoint, CheckMark, Job, Target, WallLimit
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.ui.rooms.head_fields import SPECS
from ventrix.workspace.ids import new_id, now_text

if TYPE_CHECKING:
    from ventrix.ui.rooms.head import HeadRoom

# PRACTICE.md: each question with its sides; the first is the default.
SCHOOLS: Final = (
    ("lifts", "Which lifts count", ("cam-weighted", "low lift first", "peak and near-peak")),
    ("throat", "Throat, of the valve", ("88-90 %", "85-88 %, for speed", "90-93 %, for peak")),
    ("seat", "Seat angle", ("45", "30", "39", "50", "55")),
    ("boss", "Guide boss", ("shape it to a fin", "cut it away")),
    ("bumps", "Cast bumps, exhaust", ("remove", "shape into a vane")),
    ("surface", "Surface, intake", ("60 grit or cutter texture", "80-120 grit", "mirror, for looks")),
    ("floor", "Floor", ("leave it", "worked")),
    ("gasket", "Opening and gasket", ("keep the port smaller", "open to the gasket")),
    ("pipe", "Exhaust flowed", ("without a pipe", "with a stub pipe")),
    ("ratio", "Exhaust over intake", ("75 %", "70 %", "80 %")),
)
CHECKS: Final = (
    "guides deburred",
    "chamber edges softened",
    "oil and water passages clear",
    "threads chased",
    "washed",
    "flatness checked again",
    "gasket land wide enough",
    "manifold lines up",
    "assembled, springs and locks seated",
)


class Tab(QWidget):
    """A page of the Head room."""

    title = ""

    def __init__(self, room: HeadRoom) -> None:
        super().__init__()
        self.room = room
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 4, 8, 0)
        self.column.setSpacing(4)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)

    def add_group(self, group: str) -> None:
        """The figures of a group, in order."""
        for spec in SPECS:
            if spec.group == group:
                self.column.addWidget(self.room.fields[spec.key])

    def add_row(self, caption: str, widget: QWidget, width: int = 150) -> None:
        label = QLabel(caption)
        label.setWordWrap(True)
        label.setBuddy(widget)
        widget.setAccessibleName(caption)
        widget.setFixedWidth(width)
        row = QHBoxLayout()
        row.addWidget(label, 1)
        row.addWidget(widget)
        self.column.addLayout(row)

    def add_heading(self, words: str) -> QLabel:
        label = QLabel(words)
        label.setObjectName("heading")
        self.column.addWidget(label)
        return label

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        raise AssertionError("every tab shows the job")

    def say(self, error: ValueError | None) -> None:
        self.problem.setText("" if error is None else f"{str(error)[0].upper()}{str(error)[1:]}.")


def unless_typing(box: QLineEdit, text: str) -> None:
    if not (box.hasFocus() and box.isModified()):
        box.setText(text)


class EngineTab(Tab):
    """What the engine is."""

    title = "Engine"

    def __init__(self, room: HeadRoom) -> None:
        super().__init__(room)
        self.job_title = QLineEdit()
        self.job_title.editingFinished.connect(self._rename)
        self.add_row("Job", self.job_title, 210)
        self.add_group("engine")
        self.checked_at = QComboBox()
        for words, value in (("not said", None), ("the valve", "valve"), ("the tappet", "tappet")):
            self.checked_at.addItem(words, value)
        self.checked_at.setToolTip("Durations at 0.050 in: read at the valve, or at the tappet with the rocker ratio")
        self.checked_at.activated.connect(
            lambda _i: self.room.change_job("duration's place", cam_checked_at=self.checked_at.currentData())
        )
        self.add_row("Duration is read at", self.checked_at)
        self.table = QLineEdit()
        self.table.setPlaceholderText("cam table: 0 0; 20 0.05; 60 0.31 …")
        self.table.setToolTip(
            "Crank angle and valve lift of this kind of port, pair by pair; it is used in place of lift and duration"
        )
        self.table.editingFinished.connect(self._cam_typed)
        self.add_row("Cam table", self.table, 210)
        self.column.addWidget(self.problem)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        unless_typing(self.job_title, job.title)
        self.checked_at.setCurrentIndex(max(self.checked_at.findData(job.cam_checked_at), 0))
        unit = self.room.session.units.lift.unit
        points = [p for p in job.cam_points if p.kind == port.kind]
        unless_typing(self.table, "; ".join(f"{from_si(p.angle, 'deg'):g} {from_si(p.lift, unit):.4g}" for p in points))

    def _rename(self) -> None:
        title = self.job_title.text().strip()
        space = self.room.session.workspace
        if space is not None and title and title != space.job.title:
            self.job_title.setModified(False)
            self.room.change_job(f"title '{title}'", title=title)

    def _cam_typed(self) -> None:
        space = self.room.session.workspace
        if not self.table.isModified() or space is None or space.port is None:
            return
        kind, unit = space.port.kind, self.room.session.units.lift.unit
        points = []
        try:
            for pair in (p for p in self.table.text().replace("\n", ";").split(";") if p.strip()):
                cells = pair.split()
                if len(cells) != 2:
                    raise ValueError(f"'{pair.strip()}' is not a crank angle and a lift")
                angle, lift = parse_quantity(cells[0], "deg"), parse_quantity(cells[1], unit)
                points.append(CamPoint(id=new_id(), kind=kind, angle=angle, lift=lift))
            if points:
                TabledCam(np.array([p.angle for p in points]), np.array([p.lift for p in points]))
        except ValueError as error:
            self.say(error)
            return
        self.say(None)
        self.table.setModified(False)
        rest = tuple(p for p in space.job.cam_points if p.kind != kind)
        self.room.change_job("cam table", cam_points=(*rest, *points))


class GoalTab(Tab):
    """What the head is for, and which schools its porter belongs to."""

    title = "Goal"

    def __init__(self, room: HeadRoom) -> None:
        super().__init__(room)
        self.add_group("goal")
        self.targets = QLineEdit()
        self.targets.setPlaceholderText("0.3 150; 0.5 210 @ 28")
        self.targets.setToolTip(
            "Lift and flow wanted, pair by pair, for this kind of port, and behind @ the test pressure it is meant at"
        )
        self.targets.editingFinished.connect(self._targets_typed)
        self.add_row("Target flows", self.targets)
        self.limits = QLineEdit()
        self.limits.setPlaceholderText("0.100; short side 0.110")
        self.limits.setToolTip("How thin a wall may get: a figure for everywhere, and for places of their own")
        self.limits.editingFinished.connect(self._limits_typed)
        self.add_row("Wall limits", self.limits)
        self.column.addWidget(self.problem)
        self.add_heading("Schools")
        self.schools: dict[str, QComboBox] = {}
        for key, caption, sides in SCHOOLS:
            box = QComboBox()
            box.addItems(sides)
            box.activated.connect(lambda _i, k=key, b=box: self._choose(k, b.currentText()))
            self.schools[key] = box
            self.add_row(caption, box)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        units = self.room.session.units
        shown = [t for t in job.targets if t.kind == port.kind]
        unless_typing(self.targets, "; ".join(self._target_text(t) for t in shown))
        limits = [f"{w.place} {units.length.text(w.thickness)}".strip() for w in job.wall_limits]
        unless_typing(self.limits, "; ".join(limits))
        for key, _, sides in SCHOOLS:
            self.schools[key].setCurrentText(str(job.schools.get(key, sides[0])))

    def _target_text(self, target: Target) -> str:
        units = self.room.session.units
        text = f"{units.lift.text(target.lift)} {units.flow.text(target.flow)}"
        return text if target.test_pressure is None else f"{text} @ {units.pressure.text(target.test_pressure)}"

    def _choose(self, key: str, side: str) -> None:
        space = self.room.session.workspace
        if space is not None:
            self.room.change_job(f"school: {side}", schools={**space.job.schools, key: side})

    def _targets_typed(self) -> None:
        space = self.room.session.workspace
        if not self.targets.isModified() or space is None or space.port is None:
            return
        units, kind = self.room.session.units, space.port.kind
        found = []
        try:
            for pair in (p for p in self.targets.text().split(";") if p.strip()):
                main, _, at = pair.partition("@")
                cells = main.split()
                if len(cells) != 2:
                    raise ValueError(f"'{pair.strip()}' is not a lift and a flow")
                lift, flow = parse_quantity(cells[0], units.lift.unit), parse_quantity(cells[1], units.flow.unit)
                pressure = parse_quantity(at, units.pressure.unit) if at.strip() else self._usual_pressure()
                if lift <= 0 or flow <= 0:
                    raise ValueError("lift and flow must be above zero")
                found.append(Target(id=new_id(), kind=kind, lift=lift, flow=flow, test_pressure=pressure))
        except ValueError as error:
            self.say(error)
            return
        self.say(None)
        self.targets.setModified(False)
        rest = tuple(t for t in space.job.targets if t.kind != kind)
        self.room.change_job("target flows", targets=(*rest, *sorted(found, key=lambda t: t.lift)))

    def _usual_pressure(self) -> float | None:
        """What a target is meant at where nothing is said: the job's pressure, else that of its last set-up [Pa]."""
        space = self.room.session.workspace
        if space is None:
            return None
        last = next((s.test_pressure for s in reversed(space.job.setups) if s.test_pressure is not None), None)
        return space.job.test_pressure or last

    def _limits_typed(self) -> None:
        if not self.limits.isModified():
            return
        unit = self.room.session.units.length.unit
        found = []
        try:
            for part in (p.strip() for p in self.limits.text().split(";") if p.strip()):
                place, _, figure = part.rpartition(" ")
                place = place.strip().lower()
                if place and place not in ZONE_NAMES:
                    raise ValueError(f"'{place}' is not one of {', '.join(ZONE_NAMES)}")
                thickness = parse_quantity(figure, unit)
                if thickness <= 0:
                    raise ValueError("a limit must be above zero")
                found.append(WallLimit(id=new_id(), place=place, thickness=thickness))
        except ValueError as error:
            self.say(error)
            return
        self.say(None)
        self.limits.setModified(False)
        self.room.change_job("wall limits", wall_limits=tuple(found))


class FinishTab(Tab):
    """The list for the end of a head, ticked with date and initials."""

    title = "Finish"

    def __init__(self, room: HeadRoom) -> None:
        super().__init__(room)
        self.initials = QLineEdit()
        self.initials.setMaxLength(6)
        self.add_row("Your initials", self.initials, 80)
        self.boxes: dict[str, QCheckBox] = {}
        for item in CHECKS:
            box = QCheckBox(item)
            box.clicked.connect(lambda on, i=item: self._tick(i, on))
            self.boxes[item] = box
            self.column.addWidget(box)
        self.column.addWidget(self.problem)
        caution = QLabel(
            "A gasket land left too thin does not seal; milled heads sit lower, so the manifold may not line up; "
            "a sharp chamber edge glows. Assembly follows the maker's data."
        )
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        self.column.addWidget(caution)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        marks = {m.item: m for m in job.check_marks}
        for item, box in self.boxes.items():
            mark = marks.get(item)
            box.setChecked(mark is not None)
            box.setText(item if mark is None else f"{item}   {mark.initials} {(mark.date or '')[:10]}")

    def _tick(self, item: str, on: bool) -> None:
        space = self.room.session.workspace
        if space is None:
            return
        if on and not self.initials.text().strip():
            self.boxes[item].setChecked(False)
            self.problem.setText("Whose tick is it? Type your initials first.")
            self.initials.setFocus()
            return
        self.problem.clear()
        rest = tuple(m for m in space.job.check_marks if m.item != item)
        mark = CheckMark(id=new_id(), item=item, initials=self.initials.text().strip(), date=now_text())
        self.room.change_job(f"{item}{'' if on else ', not done'}", check_marks=(*rest, mark) if on else rest)
