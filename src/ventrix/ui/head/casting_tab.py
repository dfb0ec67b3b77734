"""The Head room's tab of the casting: material, numbers, condition, and what else is known of the valve."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any, Final

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import (
    QComboBox,
    QFileDialog,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
)

from ventrix.core.castings.casting_file import look_first
from ventrix.core.edits.cuts import edit_cut, edit_port
from ventrix.core.edits.swap import swapped
from ventrix.core.model.cut import Cut, Photo, Port, carried
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError
from ventrix.records.files.photos import keep_photo
from ventrix.rooms.shared.casting_words import read_first
from ventrix.ui.head.tab import MeasuringSheet, Tab, unless_typing
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

MATERIALS: Final = ((tr("not recorded"), None), ("iron", "iron"), ("aluminium", "aluminium"))
HEAD_CAUTION: Final = tr(
    "The head is heavy: lift with help. Cracks, corrosion and coated castings: look first. Structural and pressure "
    "limits follow the maker's data; a doubtful casting goes to a licensed machine shop."
)


def _whole(text: str) -> int | None:
    if not text.strip():
        return None
    if not text.strip().isdecimal() or not 0 < int(text) < 100:
        raise Refused("'{}' is not a whole number from 1", text)
    return int(text)


class CastingTab(Tab):
    """The casting, its condition, and what else is known of valve and guide."""

    title = tr("Casting")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self.material = QComboBox()
        for words, value in MATERIALS:
            self.material.addItem(words, value)
        self.material.activated.connect(
            lambda _i: room.change_job(
                tr("material {}", self.material.currentText()), material=self.material.currentData()
            )
        )
        self.add_row(tr("Material"), self.material)
        self.numbers: dict[str, QLineEdit] = {}
        for key, caption in (
            ("cylinders", tr("Cylinders of this head")),
            ("engine_cylinders", tr("Cylinders of the engine")),
            ("valves_per_cylinder", tr("Valves a cylinder")),
            ("valves", tr("Valves at this port")),
            ("cylinder", tr("This port's cylinder")),
            ("position_on_head", tr("Its place along the head")),
        ):
            box = QLineEdit()
            box.editingFinished.connect(lambda k=key: self._number_typed(k))
            self.numbers[key] = box
            self.add_row(caption, box, 60)
        self.head = QLineEdit()
        self.head.setPlaceholderText(tr("left bank; the only one"))
        self.head.editingFinished.connect(self._head_typed)
        self.add_row(tr("Which head"), self.head)
        self.mirror = QComboBox()
        self.mirror.activated.connect(
            lambda _i: self._port(tr("mirror of {}", self.mirror.currentText()), mirror_of=self.mirror.currentData())
        )
        self.add_row(tr("Mirror image of"), self.mirror)
        self.add_group("casting")
        self.boss = QLineEdit()
        self.boss.setPlaceholderText(tr("round, fin, cut away"))
        self.boss.editingFinished.connect(self._boss_typed)
        self.add_row(tr("Boss shape"), self.boss)
        self.back = QLineEdit()
        self.back.setPlaceholderText(tr("tulip, flat, undercut stem"))
        self.back.editingFinished.connect(self._back_typed)
        self.add_row(tr("Back of the valve"), self.back)
        self.insert = QComboBox()
        for kind, inserted in ((tr("not recorded"), None), ("inserts", True), (tr("cut in the head"), False)):
            self.insert.addItem(kind, inserted)
        self.insert.activated.connect(
            lambda _i: room.change_valve(tr("seat insert"), seat_insert=self.insert.currentData())
        )
        self.add_row(tr("Seats"), self.insert)
        self.column.addWidget(self.problem)
        self.casting = QLineEdit()
        self.casting.setPlaceholderText(tr("its number, as cast"))
        self.casting.editingFinished.connect(self._casting_typed)
        self.add_row(tr("Casting number"), self.casting)
        self.taught = QLabel()
        self.taught.setWordWrap(True)
        self.taught.setObjectName("caption")
        self.taught.setTextFormat(Qt.TextFormat.PlainText)
        self.column.addWidget(self.taught)
        files = QPushButton(tr("Casting files…"))
        files.clicked.connect(lambda: self.room.open_book.ways.sheet("casting"))
        self.column.addWidget(files)
        self.add_heading(tr("Condition"))
        self.condition = QPlainTextEdit()
        self.condition.setTabChangesFocus(True)
        self.condition.setAccessibleName(tr("Condition"))
        self.condition.setPlaceholderText(tr("cracks, corrosion, earlier repairs"))
        self.condition.setFixedHeight(70)
        self.keep = QPushButton(tr("Keep the note"))
        self.keep.clicked.connect(lambda: room.change_job("condition", condition=self.condition.toPlainText().strip()))
        self.column.addWidget(self.condition)
        self.column.addWidget(self.keep)
        photo = QPushButton(tr("Photo of the head…"))
        photo.clicked.connect(self._choose_photo)
        self.photos = QLabel()
        self.photos.setAccessibleName(tr("Photos of the head"))
        self.column.addWidget(photo)
        self.column.addWidget(self.photos)
        caution = QLabel(HEAD_CAUTION)
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        self.column.addWidget(caution)
        self.column.addStretch()
        self._shown_condition = ""

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        self.material.setCurrentIndex(max(self.material.findData(job.material), 0))
        values = {"cylinders": job.cylinders, "engine_cylinders": job.engine_cylinders}
        values |= {"valves_per_cylinder": job.valves_per_cylinder}
        values |= {"valves": port.valves, "cylinder": port.cylinder, "position_on_head": port.position_on_head}
        unless_typing(self.head, next((h.name for h in job.heads if h.id == port.head_id), ""))
        for key, box in self.numbers.items():
            unless_typing(box, "" if values[key] is None else str(values[key]))
        self.mirror.clear()
        self.mirror.addItem(tr("no other port"), None)
        for other in job.ports:
            if other.id != port.id and other.kind == port.kind:
                self.mirror.addItem(other.name, other.id)
        self.mirror.setCurrentIndex(max(self.mirror.findData(port.mirror_of), 0))
        found = carried(port, cut, "boss_shape")
        unless_typing(self.boss, str(found.value) if found is not None else "")
        valve = job.valve_of(port, cut)
        unless_typing(self.back, valve.back_shape if valve is not None else "")
        self.insert.setCurrentIndex(self.insert.findData(valve.seat_insert if valve is not None else None))
        head = next((h for h in job.heads if h.id == port.head_id), job.heads[0] if len(job.heads) == 1 else None)
        unless_typing(self.casting, head.casting if head is not None else "")
        self._show_taught(port)
        if self.condition.toPlainText().strip() == self._shown_condition:
            self.condition.setPlainText(job.condition)
        self._shown_condition = job.condition
        self._show_photos(job)

    def _show_taught(self, port: Port) -> None:
        """What other heads of this casting had: what to look for, and what to read first."""
        space, units = self.room.open_book.workspace, self.room.open_book.units
        castings = () if space is None else space.shop.castings()
        told = [tr("Look for: {}.", "; ".join(seen)) for seen in [look_first(castings, port.kind)] if seen]
        told += [tr("Read first: {}.", "; ".join(thin)) for thin in [read_first(castings, port.kind, units)] if thin]
        self.taught.setText("\n".join(told))
        self.taught.setVisible(bool(told))

    def _casting_typed(self) -> None:
        """The casting number of the port's head; a head that was not named is made with it."""
        if not self.casting.isModified():
            return
        self.casting.setModified(False)
        number, made = self.casting.text().strip(), new_id()

        def edit(job: Job, port: Port, _cut: Cut) -> Job:
            only = job.heads[0].id if len(job.heads) == 1 else None
            head_id = port.head_id or only
            if head_id is not None:
                return replace(job, heads=swapped(job.heads, head_id, lambda h: replace(h, casting=number)))
            job = replace(job, heads=(*job.heads, Head(id=made, name="head", casting=number)))
            return edit_port(job, port.id, lambda p: replace(p, head_id=made))

        self.room.change(tr("casting number {}", number), edit)

    def _show_photos(self, job: Job) -> None:
        """The last picture of the head, small, and how many there are."""
        space = self.room.open_book.workspace
        if not job.photos or space is None:
            self.photos.clear()
            return
        picture = QPixmap(str(space.book.photo_folder / job.photos[-1].file))
        self.photos.setToolTip(tr("{} kept in the book's own folder", len(job.photos)))
        if picture.isNull():
            self.photos.setText(tr("the last picture is not in the book's folder"))
        else:
            self.photos.setPixmap(picture.scaledToWidth(270, Qt.TransformationMode.SmoothTransformation))

    def _choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Photo of the head"), "", tr("Pictures (*.jpg *.jpeg *.png)"))
        if name:
            self.keep_photo(Path(name))

    def keep_photo(self, path: Path) -> bool:
        """Copy a picture into the book's folder and hang it from the job."""
        space = self.room.open_book.workspace
        if space is None:
            return False
        try:
            file = keep_photo(space.book.photo_folder, path)
        except InputError as error:
            self.room.open_book.say(str(error))
            return False
        photo = Photo(id=new_id(), file=file, date=now_text())
        self.room.change_job(tr("photo of the head"), photos=(*space.job.photos, photo))
        return True

    def _port(self, name: str, **values: Any) -> None:
        self.room.change(name, lambda job, port, _c: edit_port(job, port.id, lambda p: replace(p, **values)))

    def _number_typed(self, key: str) -> None:
        box = self.numbers[key]
        if not box.isModified():
            return
        try:
            value = _whole(box.text())
            if key == "valves" and value is None:
                raise Refused("a port has at least one valve")
        except Refused as error:
            self.say(error)
            return
        self.say(None)
        box.setModified(False)
        if key in ("valves", "cylinder", "position_on_head"):
            self._port(f"{key.replace('_', ' ')} {value}", **{key: value})
        else:
            self.room.change_job(f"{key.replace('_', ' ')} {value}", **{key: value})

    def _head_typed(self) -> None:
        """Say which of the job's heads the port is in; a new name is a new head."""
        if not self.head.isModified():
            return
        self.head.setModified(False)
        name, made = self.head.text().strip(), new_id()

        def edit(job: Job, port: Port, _cut: Cut) -> Job:
            known = next((h for h in job.heads if h.name.lower() == name.lower()), None)
            if name and known is None:
                job = replace(job, heads=(*job.heads, Head(id=made, name=name)))
            chosen = known.id if known is not None else made if name else None
            return edit_port(job, port.id, lambda p: replace(p, head_id=chosen))

        self.room.change(tr("in head '{}'", name) if name else tr("in no head"), edit)

    def _boss_typed(self) -> None:
        if self.boss.isModified():
            self.boss.setModified(False)
            shape = self.boss.text().strip() or None
            self.room.change(
                tr("boss shape"), lambda j, _p, c: edit_cut(j, c.id, lambda x: replace(x, boss_shape=shape))
            )

    def _back_typed(self) -> None:
        if self.back.isModified():
            self.back.setModified(False)
            self.room.change_valve(tr("back of the valve"), back_shape=self.back.text().strip())
