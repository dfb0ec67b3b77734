"""Slips: what went wrong on a port, what it took, what was decided, and whether the customer was told."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QListWidget, QListWidgetItem, QPushButton

from ventrix.core.edits.slips import record_slip
from ventrix.core.metal.slips import seat_left, seat_width_before
from ventrix.core.model.cut import Slip
from ventrix.core.model.kinds import Band, Place, SlipDecision, SlipKind
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.refused import Refused
from ventrix.rooms.cuts.slip_words import seat_left_words, slip_words
from ventrix.ui.cuts.work_rows import ALL_ROUND, side_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose, taken
from ventrix.ui.widgets.photo_button import PhotoButton
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class SlipSheet(FormSheet):
    """Records a slip of the port in hand; one chosen from the list is set right and decided about."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Record the slip"), 420)
        self.kind = self.add_choice(tr("What happened"), [(k.words, k) for k in SlipKind])
        self.kind.currentIndexChanged.connect(lambda _i: self._of_a_seat())
        self.place = self.add_choice(tr("Where"), [(tr("choose"), ""), *((p, p) for p in Place)])
        self.side = self.add_choice(tr("Side, or hours"), [(s, s) for s in (ALL_ROUND, *Band)])
        self.side.setEditable(True)
        self.deep = self.add_figure(tr("How deep"), "length", check_of(Slip, "depth"), small=True)
        self.width_left = self.add_figure(tr("Face width left"), "length", check_of(Slip, "width_left"), small=True)
        self.volume = self.add_figure(tr("Volume it took"), "volume", check_of(Slip, "volume"))
        self.seat = QLabel()
        self.seat.setWordWrap(True)
        self.column.addWidget(self.seat)
        self.decision = self.add_choice(
            tr("Decided"), [(tr("nothing yet"), ""), *((d.words, d.value) for d in SlipDecision)]
        )
        self.decided_by = self.add_text(tr("By whom"), tr("initials"))
        self.told = self.add_check(tr("the customer was told"))
        self.note = self.add_text(tr("Note"))
        self.photo = PhotoButton(open_book, tr("the damage"))
        self.photo.refused.connect(self.problem.setText)
        self.column.addWidget(self.photo)
        self.finish()
        self.caution.setText(
            tr(
                "A damaged seat, guide or wall is for a licensed machine shop to judge. Until the customer is told, "
                "it is the first limit that the Sheet prints."
            )
        )
        heading = QLabel(tr("At this port"))
        heading.setObjectName("heading")
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Slips of this port"))
        self.list.setFixedHeight(110)
        self.list.itemClicked.connect(lambda _i: self._load())
        self.list.itemActivated.connect(lambda _i: self._load())
        self.new = QPushButton(tr("Another slip"))
        self.new.clicked.connect(self._start_new)
        at = self.column.count() - 1  # before the stretch
        for i, widget in enumerate((heading, self.list, self.new)):
            self.column.insertWidget(at + i, widget)
        self._slip = ""  # the one that is set right; empty for a new one
        self.edited.connect(self._say_seat)
        open_book.job_changed.connect(self._show)

    def open(self, slip_id: str = "") -> None:
        """Show the slips of the port in hand, one of them to be set right where it is named."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about(space.port.id)
        self.title.setText(tr("Something went wrong on {}", space.port.name.lower()))
        self._slip = slip_id
        self._show()
        self._of_a_seat()
        self.come_up()
        if slip_id:
            self._load()
        self.kind.setFocus()

    def _show(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.list.clear()
        for slip in space.port.slips:
            item = QListWidgetItem(slip_words(space.port, slip, self.open_book.units).partition(", ")[2])
            item.setData(Qt.ItemDataRole.UserRole, slip.id)
            self.list.addItem(item)
            if slip.id == self._slip:
                self.list.setCurrentItem(item)
        self.take_button.setText(tr("Record the slip") if not self._slip else tr("Keep the correction"))

    def _known(self) -> Slip | None:
        space = self.open_book.workspace
        slips = space.port.slips if space is not None and space.port is not None else ()
        return next((s for s in slips if s.id == self._slip), None)

    def _load(self) -> None:
        item = self.list.currentItem()
        self._slip = str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else self._slip
        slip = self._known()
        if slip is None:
            return
        self.kind.setCurrentIndex(max(self.kind.findData(slip.kind), 0))
        self.place.setCurrentIndex(max(self.place.findData(slip.place), 0))
        hours = slip.from_hour is not None and slip.to_hour is not None
        choose(self.side, f"{slip.from_hour:g}-{slip.to_hour:g}" if hours else slip.side or ALL_ROUND)
        for field, value in ((self.deep, slip.depth), (self.width_left, slip.width_left), (self.volume, slip.volume)):
            field.forget()
            field.set_value(value)
        self.decision.setCurrentIndex(max(self.decision.findData(slip.decision), 0))
        self.decided_by.setText(slip.decided_by)
        self.told.setChecked(slip.customer_told)
        self.note.setText(slip.note)
        self.photo.use(slip.photo)
        self.take_button.setText(tr("Keep the correction"))
        self._say_seat()

    def _start_new(self) -> None:
        self._slip = ""
        self.clear_fields()
        self.photo.use("")
        self.told.setChecked(False)
        self.decision.setCurrentIndex(0)
        self._show()
        self.kind.setFocus()

    def _of_a_seat(self) -> None:
        """A width that is left is asked of a seat alone."""
        self.width_left.setVisible(self.kind.currentData() == SlipKind.SEAT)
        self._say_seat()

    def _typed(self) -> Slip:
        side, start, end = side_of(taken(self.side))
        known = self._known()
        of_seat = self.kind.currentData() == SlipKind.SEAT
        values: dict[str, Any] = {
            "kind": SlipKind(self.kind.currentData()),
            "place": str(self.place.currentData() or ""),
            "side": side,
            "from_hour": start,
            "to_hour": end,
            "depth": self.deep.typed(),
            "width_left": self.width_left.typed() if of_seat else None,
            "volume": self.volume.typed(),
            "decision": str(self.decision.currentData() or ""),
            "decided_by": self.decided_by.text().strip(),
            "customer_told": self.told.isChecked(),
            "note": self.note.text().strip(),
            "photo": self.photo.file,
        }
        date = known.date if known is not None else now_text()
        return Slip(id=known.id if known is not None else new_id(), date=date, **values)

    def _say_seat(self) -> None:
        """What is left of a seat, and what a recut sinks."""
        space = self.open_book.workspace
        self.seat.clear()
        if space is None or space.port is None or space.real_cut is None:
            return
        try:
            slip = self._typed()
        except Refused:
            return
        width = seat_width_before(space.job, space.port, space.real_cut)
        valve = space.job.valve_of(space.port, space.real_cut)
        left = None if width is None else seat_left(width, slip, valve.seat_angle if valve is not None else None)
        if left is not None:
            self.seat.setText(seat_left_words(left, self.open_book.units))
        elif slip.kind == SlipKind.SEAT and width is None:
            self.seat.setText(tr("The seat's width before is not known (Head): what is lost can't be told."))

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or not self.settle_fields():
            return
        slip = self._typed()
        if slip.decision and not slip.decided_by:
            raise Refused("say who decided it: your initials, or the shop's name")
        space.apply("slip", record_slip(space.job, space.port.id, slip))
        self._start_new()
