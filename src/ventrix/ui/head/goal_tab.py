"""What is wanted of the head."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Final

from PySide6.QtWidgets import (
    QComboBox,
    QLabel,
    QLineEdit,
)

from ventrix.core.judging.my_lifts import lifts_of
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import MyLift, SwirlWish, Target
from ventrix.core.model.kinds import Use
from ventrix.core.model.plausible import check_of
from ventrix.core.model.school_questions import QUESTIONS, side_taken
from ventrix.core.quantity.field_checks import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.core.work.stages import USUAL, stages_of
from ventrix.rooms.head.wall_limits import limit_text, limit_typed
from ventrix.ui.head.tab import MeasuringSheet, Tab, unless_typing
from ventrix.ui.widgets.kept_choice import choose, offer, taken
from ventrix.words import tr
from ventrix.workspace.ids import new_id

MOST_LIFTS: Final = 5


class GoalTab(Tab):
    """What the head is for, and which schools its porter belongs to."""

    title = tr("Goal")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self.use = QComboBox()
        self.use.addItem(tr("choose"), None)
        for use in Use:
            self.use.addItem(use.words, use)
        self.use.activated.connect(lambda _i: room.change_job(tr("what it is for"), use=self.use.currentData()))
        self.add_row(tr("What it is for"), self.use)
        self.order = QLabel()
        self.order.setObjectName("caption")
        self.order.setWordWrap(True)
        self.column.addWidget(self.order)
        self.add_group("goal")
        self.targets = QLineEdit()
        self.targets.setPlaceholderText("0.3 150; 0.5 210 @ 28")
        self.targets.setToolTip(
            tr(
                "Lift and flow wanted, pair by pair, for this kind of port, and behind @ the test pressure it "
                "is meant at"
            )
        )
        self.targets.editingFinished.connect(self._targets_typed)
        self.add_row(tr("Target flows"), self.targets)
        self.my_lifts = self._line(tr("My lifts"), tr("0.200 low; 0.500 half inch"), self._my_lifts_typed)
        self.my_lifts.setToolTip(tr("Two to five lifts that are shown first and large, each with a name if wanted"))
        self.swirl = self._line(tr("Swirl wished"), "0.2 0.4 300", self._swirl_typed)
        self.swirl.setToolTip(tr("From lift, to lift, and rpm; several with ; between: a gain that costs it is said"))
        self.limits = QLineEdit()
        self.limits.setPlaceholderText(tr("0.100; short side 0.110"))
        self.limits.setToolTip(
            tr(
                "How thin a wall may get: everywhere, at a place, on a kind of port, or to what lies behind: "
                "exhaust bowl to water 0.125"
            )
        )
        self.limits.editingFinished.connect(self._limits_typed)
        self.add_row(tr("Wall limits"), self.limits)
        self.stages = self._line(
            tr("Stages of the board"), "; ".join(stage.name for stage in USUAL[:4]) + " …", self._stages_typed
        )
        self.stages.setToolTip(tr("The job's own list, in order; the usual one where it is empty"))
        self.column.addWidget(self.problem)
        self.add_heading(tr("Preferences"))
        self.schools: dict[str, QComboBox] = {}
        for question in QUESTIONS:
            box = QComboBox()
            offer(box, [side.words for side in question.sides])
            box.activated.connect(lambda _i, k=question.key, b=box: self._choose(k, taken(b)))
            self.schools[question.key] = box
            self.add_row(question.caption, box)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        units = self.room.open_book.units
        self.use.setCurrentIndex(max(self.use.findData(job.use), 0))
        self.order.setText(Use(job.use).order if job.use in tuple(Use) else "")
        shown = [t for t in job.targets if t.kind == port.kind]
        unless_typing(self.targets, "; ".join(self._target_text(t) for t in shown))
        mine = [f"{units.lift.text(m.lift)} {m.name}".strip() for m in lifts_of(job, port.kind)]
        unless_typing(self.my_lifts, "; ".join(mine))
        wishes = [w for w in job.swirl_wishes if w.kind == port.kind]
        spans = [f"{units.lift.text(w.low)} {units.lift.text(w.high)} {units.swirl.text(w.swirl)}" for w in wishes]
        unless_typing(self.swirl, "; ".join(spans))
        limits = [limit_text(w, units.length.text(w.thickness)) for w in job.wall_limits]
        unless_typing(self.limits, "; ".join(limits))
        unless_typing(self.stages, "; ".join(job.stages))
        for key, box in self.schools.items():
            choose(box, side_taken(job, key).words)

    def _target_text(self, target: Target) -> str:
        units = self.room.open_book.units
        text = f"{units.lift.text(target.lift)} {units.flow.text(target.flow)}"
        return text if target.test_pressure is None else f"{text} @ {units.pressure.text(target.test_pressure)}"

    def _line(self, caption: str, hint: str, typed: Callable[[], None]) -> QLineEdit:
        box = QLineEdit()
        box.setPlaceholderText(hint)
        box.editingFinished.connect(typed)
        self.add_row(caption, box)
        return box

    def _stages_typed(self) -> None:
        if not self.stages.isModified():
            return
        space = self.room.open_book.workspace
        found = tuple(s.strip() for s in self.stages.text().split(";") if s.strip())
        try:
            if space is not None:
                stages_of(replace(space.job, stages=found))
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.problem.clear()
        self.stages.setModified(False)
        self.room.change_job(tr("stages of the board"), stages=found)

    def _choose(self, key: str, side: str) -> None:
        space = self.room.open_book.workspace
        if space is not None:
            self.room.change_job(tr("preference: {}", side), schools={**space.job.schools, key: side})

    def _targets_typed(self) -> None:
        space = self.room.open_book.workspace
        if not self.targets.isModified() or space is None or space.port is None:
            return
        units, kind = self.room.open_book.units, space.port.kind
        found = []
        try:
            for pair in (p for p in self.targets.text().split(";") if p.strip()):
                main, _, at = pair.partition("@")
                cells = main.split()
                if len(cells) != 2:
                    raise Refused("'{}' is not a lift and a flow", pair.strip())
                lift, flow = read_small(cells[0], units.lift.unit).value, parse_quantity(cells[1], units.flow.unit)
                pressure = parse_quantity(at, units.pressure.unit) if at.strip() else self._usual_pressure()
                if lift <= 0 or flow <= 0:
                    raise Refused("lift and flow must be above zero")
                found.append(Target(id=new_id(), kind=kind, lift=lift, flow=flow, test_pressure=pressure))
        except Refused as error:
            self.say(error)
            return
        rest = tuple(t for t in space.job.targets if t.kind != kind)
        self.keep_typed(self.targets, tr("target flows"), targets=(*rest, *sorted(found, key=lambda t: t.lift)))

    def _usual_pressure(self) -> float | None:
        """What a target is meant at where nothing is said: the job's pressure, else that of its last set-up [Pa]."""
        space = self.room.open_book.workspace
        if space is None:
            return None
        last = next((s.test_pressure for s in reversed(space.job.setups) if s.test_pressure is not None), None)
        return space.job.test_pressure or last

    def _my_lifts_typed(self) -> None:
        space = self.room.open_book.workspace
        if not self.my_lifts.isModified() or space is None or space.port is None:
            return
        kind, unit = space.port.kind, self.room.open_book.units.lift.unit
        found: list[MyLift] = []
        try:
            for part in (p.strip() for p in self.my_lifts.text().split(";") if p.strip()):
                figure, _, name = part.partition(" ")
                lift = read_small(figure, unit).value
                check_of(MyLift, "lift", positive)(lift)
                found.append(MyLift(id=new_id(), kind=kind, lift=lift, name=name.strip()))
            if len(found) > MOST_LIFTS:
                raise Refused("{} lifts at most: they are to be read at arm's length", MOST_LIFTS)
        except Refused as error:
            self.say(error)
            return
        rest = tuple(m for m in space.job.my_lifts if m.kind != kind)
        self.keep_typed(self.my_lifts, "my lifts", my_lifts=(*rest, *found))

    def _swirl_typed(self) -> None:
        space = self.room.open_book.workspace
        if not self.swirl.isModified() or space is None or space.port is None:
            return
        kind, units = space.port.kind, self.room.open_book.units
        found: list[SwirlWish] = []
        try:
            for part in (p.split() for p in self.swirl.text().split(";") if p.strip()):
                if len(part) != 3:
                    raise Refused("'{}' is not two lifts and a swirl", " ".join(part))
                low, high = (read_small(t, units.lift.unit).value for t in part[:2])
                swirl = parse_quantity(part[2], units.swirl.unit)
                if not 0 < low < high or swirl <= 0:
                    raise Refused("the first lift must be the lower one, and the swirl above zero")
                found.append(SwirlWish(id=new_id(), kind=kind, low=low, high=high, swirl=swirl))
        except Refused as error:
            self.say(error)
            return
        rest = tuple(w for w in space.job.swirl_wishes if w.kind != kind)
        self.keep_typed(self.swirl, tr("swirl wished"), swirl_wishes=(*rest, *found))

    def _limits_typed(self) -> None:
        if not self.limits.isModified():
            return
        unit = self.room.open_book.units.length.unit
        found = []
        try:
            for part in (p.strip() for p in self.limits.text().split(";") if p.strip()):
                found.append(limit_typed(part, unit, new_id()))
        except Refused as error:
            self.say(error)
            return
        self.keep_typed(self.limits, tr("wall limits"), wall_limits=tuple(found))
