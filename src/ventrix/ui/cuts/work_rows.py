"""Depths of a piece of work, asked place by place: side or hours, and how deep or how far."""

from __future__ import annotations

import re

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QVBoxLayout, QWidget

from ventrix.core.model.cut import Work
from ventrix.core.model.kinds import Band, Place, Until
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.kept_choice import offer, taken
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr
from ventrix.workspace.ids import new_id

ALL_ROUND = tr("all of it")
ROUND = (Place.BOWL, Place.SEAT, Place.THROAT)  # told by clock hours as well as by sides
HOURS = re.compile(r"(\d{1,2}(?:\.5)?)\s*(?:-|–|to)\s*(\d{1,2}(?:\.5)?)(?:\s*o'clock)?")


def side_of(text: str) -> tuple[str | None, float | None, float | None]:
    """Side, or first and last hour, from what was typed. ValueError with a sentence for anything else."""
    text = text.strip().lower()
    if text in ("", ALL_ROUND):
        return None, None, None
    if text in tuple(Band):
        return text, None, None
    hours = HOURS.fullmatch(text)
    if hours is None or not all(0 <= float(h) <= 12 for h in hours.groups()):
        raise Refused("'{}' is not a side ({}) or hours like 4-8", text[:20], ", ".join(Band))
    return None, float(hours[1]) % 12, float(hours[2]) % 12


class WorkRow(QWidget):
    """One place: which side of it, how deep, or how far without a depth."""

    edited = Signal()

    def __init__(self, open_book: OpenBook, place: str) -> None:
        super().__init__()
        self.place = place
        self._open_book = open_book
        self.side = QComboBox()
        offer(self.side, [ALL_ROUND, *Band])
        self.side.setEditable(place in ROUND)
        self.side.setAccessibleName(tr("Side of the {}", place))
        self.side.setToolTip(tr("a side; bowl, throat and seat also by clock hours, 12 towards the opening: 4-8"))
        self.until = QComboBox()
        self.until.addItem(tr("by depth"), "")
        for far in Until:
            self.until.addItem(far.words, far)
        self.until.setAccessibleName(tr("How far at the {}", place))
        check = check_of(Work, "depth")
        self.how_deep = QuantityField(tr("{}, depth", place), open_book.units["length"], check, small=True)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        for box in (self.side, self.until):
            row.addWidget(box, 1)
            box.currentTextChanged.connect(lambda _t: self._changed())
        self.how_deep.edited.connect(lambda _v: self.edited.emit())
        self.reach = QLineEdit()
        self.reach.setPlaceholderText(tr("reach past it"))
        self.reach.setAccessibleName(tr("Reach past the {}", place))
        self.reach.setToolTip(tr("How far beyond the zone metal came off; nothing: within it"))
        self.reach.textEdited.connect(lambda _t: self.edited.emit())
        row.addWidget(self.reach, 1)
        self._unit = open_book.units.length.unit
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        self.problem.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 4)
        column.setSpacing(2)
        column.addWidget(self.how_deep)
        column.addLayout(row)
        column.addWidget(self.problem)

    def _changed(self) -> None:
        self.how_deep.setEnabled(not self.until.currentData())
        self.edited.emit()

    def use_units(self) -> None:
        """Depth and reach in the units in force."""
        self.how_deep.use(self._open_book.units["length"])
        self._unit = self._open_book.units.length.unit

    def work(self) -> Work | None:
        """What is said of this place, or None with a sentence at the row."""
        try:
            side, start, end = side_of(taken(self.side))
            text = self.reach.text().strip()
            reach = parse_quantity(text, self._unit) if text else None
            if reach is not None:
                check_of(Work, "reach")(reach)
        except Refused as error:
            self._say(f"{error}.")
            return None
        self._say("")
        until = str(self.until.currentData() or "")
        depth = None if until else self.how_deep.typed()
        return Work(
            id=new_id(),
            place=self.place,
            side=side,
            from_hour=start,
            to_hour=end,
            depth=depth,
            reach=reach,
            until=until,
        )

    def settle(self) -> bool:
        """Take what stands in the box; False where it makes no sense."""
        self.how_deep.box.editingFinished.emit()
        return self.work() is not None and not (self.how_deep.isEnabled() and self.how_deep.box.property("wrong"))

    def _say(self, words: str) -> None:
        self.problem.setText(words)
        self.problem.setVisible(bool(words))


class WorkRows(QWidget):
    """A row for every place named; rows of places that stay keep what was typed."""

    edited = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self.rows: list[WorkRow] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(2)

    def ask_for(self, places: tuple[str, ...]) -> None:
        """One row for each of these places."""
        known = {row.place: row for row in self.rows}
        for place, row in known.items():
            if place not in places:
                self._column.removeWidget(row)
                row.hide()
                row.deleteLater()
        self.rows = [known.get(place) or self._row(place, i) for i, place in enumerate(places)]

    def _row(self, place: str, at: int) -> WorkRow:
        row = WorkRow(self._open_book, place)
        row.edited.connect(self.edited)
        self._column.insertWidget(at, row)
        return row

    def works(self) -> list[Work]:
        """What is said of every place, as far as it makes sense."""
        return [work for row in self.rows if (work := row.work()) is not None]

    def settle(self) -> bool:
        """Take what stands in every box; the first that makes no sense takes the keyboard."""
        wrong = [row for row in self.rows if not row.settle()]
        if wrong:
            wrong[0].how_deep.box.setFocus()
        return not wrong

    def use_units(self) -> None:
        """Depths in the units in force."""
        for row in self.rows:
            row.use_units()


def parse_places(text: str) -> tuple[str, ...]:
    """Places named, each once, in order. ValueError with a sentence for a name that is none."""
    found = tuple(dict.fromkeys(t.strip().lower() for t in text.split(",") if t.strip()))
    unknown = next((p for p in found if p not in tuple(Place)), None)
    if unknown is not None:
        raise Refused("'{}' is not one of {}", unknown[:30], ", ".join(Place))
    return found
