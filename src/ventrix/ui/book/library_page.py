"""The book's library: claimed curves, seat recipes, outlines; and whether a ready casting is worth the hours."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.model.kinds import LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.records.book.index import Index
from ventrix.rooms.book.library import ItemRow, claim_picture, item_rows, worth_the_hours
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.ui.widgets.table import Table
from ventrix.words import tr

EMPTY = tr(
    "Nothing here yet. A maker's claim (Cut menu) and a valve job (Ctrl+J) each have a box that keeps them for every "
    "job; what is kept stands here."
)


class LibraryPage(QWidget):
    """A table of what is kept; of a claim its curve over the cut looked at, and what reaching it would take."""

    def __init__(self, open_book: OpenBook, index: Index) -> None:
        super().__init__()
        self._open_book, self._index = open_book, index
        self.rows: list[ItemRow] = []
        self.table = Table(tr("The library"))
        self.table.setSelectionBehavior(self.table.SelectionBehavior.SelectRows)
        self.table.itemSelectionChanged.connect(self.show_worth)
        self.table.verticalHeader().hide()
        self.table.setMaximumHeight(230)
        self.caption = QLabel()
        self.caption.setObjectName("caption")
        self.plot = Plot(tr("The claim over your cut"))
        self.empty = QLabel(EMPTY)
        self.empty.setWordWrap(True)
        self.rate = QuantityField(tr("What an hour of yours costs"), open_book.units.ratio)
        self.rate.edited.connect(self._use_rate)
        self.worth = QLabel()
        self.worth.setWordWrap(True)
        self.castings = QPushButton(tr("Casting files…"))
        self.castings.clicked.connect(lambda: open_book.ways.sheet("casting", self._casting()))
        self.take_out = QPushButton(tr("Delete it from the library"))
        self.take_out.clicked.connect(self._take_out)
        foot = QHBoxLayout()
        foot.addWidget(self.castings)
        foot.addWidget(self.take_out)
        foot.addStretch()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.empty)
        column.addWidget(self.table)
        column.addWidget(self.caption)
        column.addWidget(self.plot, 1)
        column.addWidget(self.rate)
        column.addWidget(self.worth)
        column.addLayout(foot)
        column.addStretch()

    def _casting(self) -> str:
        """The number of the casting file that is chosen, if one is."""
        item = self.item
        return item.name if item is not None and item.kind == LibraryKind.CASTING else ""

    @property
    def item(self) -> LibraryItem | None:
        row = self.table.currentRow()
        return self.rows[row].item if 0 <= row < len(self.rows) else None

    def refresh(self) -> None:
        """Show what the library holds now."""
        had = self.item.id if self.item is not None else ""
        self.rate.use(self._open_book.units.ratio)
        self.rate.set_value(self._rate())
        self.rows = item_rows(self._open_book.book.library(), self._open_book.units)
        for part in (self.table, self.worth, self.take_out):
            part.setVisible(bool(self.rows))
        self.empty.setVisible(not self.rows)
        cells = [[r.kind, r.name, r.says, r.price] for r in self.rows]
        self.table.fill(cells, ["what", "name", "says", "price"], right=range(3, 4))
        self.table.resizeColumnsToContents()
        if self.rows:
            self.table.selectRow(next((i for i, r in enumerate(self.rows) if r.item.id == had), 0))
        self.show_worth()

    def show_worth(self) -> None:
        """A chosen claim over the cut looked at, in a picture and in sentences."""
        item, space, units = self.item, self._open_book.workspace, self._open_book.units
        claim = item is not None and item.kind == LibraryKind.CLAIM
        picture = None
        self.worth.setText("")
        if claim and (space is None or space.port is None or space.real_cut is None):
            self.worth.setText(tr("Open a job: the claim is then compared with the cut that is looked at."))
        elif claim and item is not None and space is not None and space.port is not None and space.real_cut is not None:
            picture = claim_picture(item, space.findings, space.port, space.real_cut, units)
            past = [cut for _, _, cut in self._index.flowed()]
            said = worth_the_hours(item, space.findings, space.port, space.real_cut, past, self._rate(), units)
            self.worth.setText(tr("Worth the hours?  ") + " ".join(said))
        for part in (self.caption, self.plot, self.rate):
            part.setVisible(picture is not None)
        if picture is not None:
            self.caption.setText(
                tr(
                    "{} at your run's pressure against lift, {}; the claim is not measured",
                    units.flow.label,
                    units.lift.label,
                )
            )
            self.plot.show_picture(picture)

    def _rate(self) -> float | None:
        said = str(self._open_book.settings.value("shop_rate", ""))
        return float(said) if said.replace(".", "", 1).isdigit() else None

    def _use_rate(self, value: object) -> None:
        self._open_book.settings.setValue("shop_rate", "" if value is None else str(value))
        self.show_worth()

    def _take_out(self) -> None:
        item = self.item
        if item is None:
            return
        try:
            self._open_book.book.write((item, None))
        except BookError as error:
            self._open_book.not_kept(sentence_of(error))
            return
        self._open_book.say(tr("'{}' deleted from the library. Jobs that used it keep what they took.", item.name))
        self.refresh()
