"""The Book: every job of the shop, found by anything as you type; and what a size flowed before."""

from __future__ import annotations

from datetime import date
from functools import partial
from typing import Final

from PySide6.QtCore import QItemSelectionModel, QSize, Qt, QTimer
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.judging.job_summary import CutSummary
from ventrix.records.book.backups import backups_of
from ventrix.records.book.index import Entry, Index, Question
from ventrix.rooms.book.before import before_of
from ventrix.rooms.book.plates import (
    SORTS,
    Plate,
    lift_of_plates,
    plate_of,
    sorted_entries,
    speaking_cut,
    why_empty,
    why_no_size,
)
from ventrix.rooms.book.question import read_question
from ventrix.rooms.book.summaries import Summaries
from ventrix.ui.book.before_panel import BeforePanel
from ventrix.ui.book.indexing_row import IndexingRow
from ventrix.ui.book.library_page import LibraryPage
from ventrix.ui.book.plate_list import PlateList, PlateModel, PlatePainter
from ventrix.ui.book.question_line import QuestionLine
from ventrix.ui.book.shelf_acts import ShelfActs
from ventrix.ui.book.state_choice import StateChoice
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.room import Room
from ventrix.words import tr
from ventrix.workspace.shelf import Shelf

SIDE: Final = 380  # px
TIGHT: Final = 1100  # px of room
TIGHT_SIDE: Final = 356
NARROW: Final = 820  # px of room: below, the panel gives way to the plates
TYPING: Final = 120  # ms after the last letter


class BookRoom(Room):
    """A question on top, plates beneath it, and beside them what that size flowed before."""

    name = tr("Book")
    manual = "book"
    apart = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        open_book.shelf_changed.connect(self._changed)
        self.index = Index(open_book.book)
        self.shelf = Shelf(open_book.book, lambda: self.open_book.workspace)
        self.question = Question()
        self.show_left_out = False
        self.summaries = Summaries(self.index)
        self.acts = ShelfActs(open_book, self.shelf, self)
        self.indexing = IndexingRow(open_book, self.index)
        self.indexing.went_on.connect(self.search)
        self.commands = (
            Command("book.up", tr("pick"), partial(self._step, 0, -1), "Up", one_of="pick"),
            Command("book.down", tr("pick"), partial(self._step, 0, 1), "Down", one_of="pick"),
            Command("book.page.up", tr("a page up"), partial(self._page, -1), "PgUp", one_of="page"),
            Command("book.page.down", tr("a page down"), partial(self._page, 1), "PgDown", one_of="page"),
            Command("book.open", tr("open"), self.open_chosen, "Return"),
            Command("book.next", tr("next of its kind"), self.duplicate, "Ctrl+D"),
            Command("book.state", tr("state, customer, due date"), self.edit_details, "F2"),
            Command("book.archive", tr("archive, or out of it"), self.archive, "Ctrl+E"),
            Command("book.bin", tr("bin, or out of it"), self.bin, "Ctrl+Del"),
            Command("book.remove", tr("delete it for good"), self.remove, "Ctrl+Shift+Del"),
            Command("book.left", tr("show those left out"), self.toggle_left_out, "Ctrl+U"),
            Command("book.library", tr("library, or jobs"), self.toggle_library, "Ctrl+L"),
            Command("book.undo", tr("undo"), self.undo, "Ctrl+Z"),
        )
        self.overrides = frozenset(("Ctrl+D", "Ctrl+E", "Ctrl+Z", "F2"))
        self._make_parts()
        self._lay_out()
        self._typing = QTimer(self)
        self._typing.setSingleShot(True)
        self._typing.setInterval(TYPING)
        self._typing.timeout.connect(self.search)

    # -- its parts

    def _make_parts(self) -> None:
        self.line = QuestionLine(frozenset(c.keys for c in self.commands))
        self.line.setPlaceholderText(tr("section 1.7 throat 1.65 · 190 at 0.450 · a name, a fault, 2026-05"))
        self.line.setAccessibleName(tr("Search the book"))
        self.line.textEdited.connect(lambda _t: self._typing.start())
        self.line.pressed.connect(self._press)
        self.count = QLabel()
        self.read_as = QLabel()
        self.read_as.setObjectName("caption")
        for label in (self.count, self.read_as):
            label.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.states = StateChoice()
        self.states.chosen.connect(self.use_filter)
        self.sort = QComboBox()
        self.sort.setAccessibleName(tr("Order"))
        for key, words in SORTS:
            self.sort.addItem(words, key)
        self.sort.setCurrentIndex(1)
        self.sort.activated.connect(lambda _i: self.show_entries())
        self.model = PlateModel(self._plate)
        self.plates = PlateList(self.model)
        self.plates.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.plates.doubleClicked.connect(lambda _i: self.open_chosen())
        self.plates.selectionModel().currentChanged.connect(lambda _a, _b: self._show_before())
        self.empty = QLabel()
        self.empty.setWordWrap(True)
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.begin = QPushButton(tr("New job (Ctrl+N)"))
        self.begin.clicked.connect(lambda: self.ways.sheet("new_job"))
        self.before = BeforePanel()
        self.before.said.connect(self.open_book.say)
        self.library = LibraryPage(self.open_book, self.index)
        self.keys = ActionBar()

    def _lay_out(self) -> None:
        said = QVBoxLayout()
        said.setSpacing(0)
        said.addWidget(self.count)
        said.addWidget(self.read_as)
        self._top = QWidget()
        self._top.setObjectName("asked")
        self._top.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        top = QHBoxLayout(self._top)
        top.setContentsMargins(14, 4, 14, 4)
        top.addWidget(self.line, 1)
        top.addLayout(said)
        self._above = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self._above.setSpacing(4)
        self._above.addWidget(self.states, 1)
        self._above.addWidget(self.sort, 0, Qt.AlignmentFlag.AlignRight)
        jobs = QWidget()
        column = QVBoxLayout(jobs)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        column.addLayout(self._above)
        column.addWidget(self.plates, 1)
        column.addWidget(self.empty, 1)
        column.addWidget(self.begin, 0, Qt.AlignmentFlag.AlignCenter)
        column.addWidget(self.indexing)
        self.pages = QStackedWidget()
        self.pages.addWidget(jobs)
        self.pages.addWidget(self.library)
        middle = QHBoxLayout()
        middle.setSpacing(8)
        middle.addWidget(self.pages, 1)
        middle.addWidget(self.before)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 12, 16, 6)
        outer.setSpacing(8)
        outer.addWidget(self._top)
        outer.addLayout(middle, 1)
        outer.addWidget(self.keys)

    def fit(self, there: QSize) -> None:
        """In a small window the panel gets narrow and the order goes below the states; then the panel gives way."""
        tight = there.width() < TIGHT
        self._above.setDirection(QBoxLayout.Direction.TopToBottom if tight else QBoxLayout.Direction.LeftToRight)
        self.before.setFixedWidth(TIGHT_SIDE if tight else SIDE)
        self.before.setVisible(there.width() >= NARROW)
        self.keys.setVisible(there.height() >= 500)

    def focus_first(self) -> None:
        """Letters go to the question from the moment the room is entered."""
        self.line.setFocus()
        self.line.selectAll()

    # -- showing

    def refresh(self) -> None:
        t = theme.current()
        self.plates.setStyleSheet(f"#plates {{ background: {t.ground}; border: none; }}")
        self._top.setStyleSheet(
            f"#asked {{ background: {t.raised}; border: 2px solid {t.brass}; }}"
            "#question { border: none; background: transparent; font-size: 28px; font-weight: 500; min-height: 40px; }"
        )
        self.count.setStyleSheet("font-size: 15px; font-weight: 600")
        self.empty.setStyleSheet("font-size: 15px")
        self.keys.show_actions(*_actions(self.commands))
        self.search()
        self.indexing.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self.indexing.stop()
        super().hideEvent(event)

    def search(self) -> None:
        """Ask the index what stands in the line."""
        understood = read_question(self.line.text(), self.open_book.units)
        was = bool(self.question.wishes)
        self.question = understood.question
        self.read_as.setText(understood.said)
        if bool(self.question.wishes) != was:
            self.sort.setCurrentIndex(0 if self.question.wishes else 1)
        try:
            self._found = self.index.find(self.question)
            self._known = self.index.counts()
        except Exception as error:  # whatever the store says, the room stays
            self.open_book.not_kept(tr("The book does not answer: {}.", type(error).__name__))
            return
        self.summaries.forget()
        self.show_entries()
        if self.pages.currentWidget() is self.library:
            self.library.refresh()

    def show_entries(self) -> None:
        """The plates of the filter and order chosen."""
        today = date.today()
        self.states.show_counts(self._found, today)
        had = self.chosen.id if self.chosen is not None else self._open_id
        entries = sorted_entries(
            [e for e in self._found if self.states.filter.takes(e, today)], str(self.sort.currentData())
        )
        painter = self.plates.itemDelegate()
        assert isinstance(painter, PlatePainter)
        painter.reach = self.summaries.reach(entries)
        painter.open_id = self._open_id
        self.model.show_entries(entries)
        at = next((i for i, e in enumerate(entries) if e.id == had), 0)
        if entries:
            self._choose(at)
        order = tr(", nearest first") if self.sort.currentData() == "nearest" and self.question.wishes else ""
        jobs, runs = self._known
        self.count.setText(tr("{} of {} job{}{}", len(entries), jobs, "s" * (jobs != 1), order))
        self.plates.setVisible(bool(entries))
        self.empty.setVisible(not entries)
        self.begin.setVisible(not entries and jobs == 0)
        self.empty.setText(why_empty(jobs, self.question))
        copies = backups_of(self.open_book.book.path) if self.open_book.book.path is not None else []
        backed = tr(" · backed up {}", copies[0].day) if copies else ""
        place = self.open_book.book.name
        self.ways.book_counted.emit(tr("{} job{} · {:,} runs{} · {}", jobs, "s" * (jobs != 1), runs, backed, place))
        self._show_before()

    @property
    def _open_id(self) -> str:
        return self.open_book.workspace.job.id if self.open_book.workspace is not None else ""

    def _newest_of(self, entry: Entry) -> list[CutSummary]:
        return self.summaries.newest_of(entry, self.model.entries)

    @property
    def lift(self) -> float:
        """The lift [m] that plates say flow at."""
        space = self.open_book.workspace
        return lift_of_plates(self.question, None if space is None else space.job)

    def _plate(self, entry: Entry) -> Plate:
        return plate_of(
            entry,
            self._newest_of(entry),
            self.summaries.best_of(entry),
            self.question,
            self.lift,
            self.open_book.units,
            date.today(),
        )

    @property
    def chosen(self) -> Entry | None:
        if self._typing.isActive():  # what was typed is asked before anything is done to what was found
            self._typing.stop()
            self.search()
        row = self.plates.currentIndex().row()
        return self.model.entries[row] if 0 <= row < len(self.model.entries) else None

    def _choose(self, row: int) -> None:
        index = self.model.index(row, 0)
        self.plates.selectionModel().setCurrentIndex(index, QItemSelectionModel.SelectionFlag.ClearAndSelect)
        self.plates.scrollTo(index)

    def _show_before(self) -> None:
        entry = self.chosen
        if entry is None:
            self.before.say_nothing(tr("Pick a plate, or ask for a size: what it flowed before stands here."))
            return
        cut = speaking_cut(self._newest_of(entry), self.summaries.best_of(entry))
        nothing = why_no_size(entry.title, cut)
        if cut is None or nothing:
            self.before.say_nothing(nothing)
            return
        found, mine = self.index.neighbours(cut), self.summaries.in_hand(self.open_book.workspace)
        units, all_of_it = self.open_book.units, self.show_left_out
        shown = before_of(cut, entry.title, found, self.lift, units, mine, show_left_out=all_of_it)
        self.before.show_before(shown, self.show_left_out)

    # -- hands and keys

    def _press(self, keys: str) -> None:
        for command in self.commands:
            if command.keys == keys:
                command.run()
                return

    def _step(self, _across: int, by: int) -> None:
        if self.pages.currentWidget() is self.library:
            table = self.library.table
            table.selectRow(max(0, min(table.currentRow() + by, table.rowCount() - 1)))
            return
        if self.model.entries:
            row = max(0, min(self.plates.currentIndex().row() + by, len(self.model.entries) - 1))
            self._choose(row)

    def _page(self, by: int) -> None:
        rows = max(1, self.plates.viewport().height() // max(self.plates.gridSize().height(), 1))
        self._step(0, by * rows * self.plates.columns)

    def use_filter(self, key: str) -> None:
        self.states.choose(key)
        self.show_entries()
        self.line.setFocus()

    def open_chosen(self) -> None:
        if self.chosen is not None:
            self.ways.job_wanted.emit(self.chosen.id)

    def edit_details(self) -> None:
        if self.chosen is not None:
            self.ways.sheet("details", self.shelf, self.chosen.id)

    def after_act(self, job_id: str) -> None:
        """Bring a job's plate up to date."""
        self.index.renew(job_id)
        self.search()

    def archive(self) -> None:
        if (entry := self.chosen) is not None:
            self.acts.archive(entry)
            self.after_act(entry.id)

    def bin(self) -> None:
        if (entry := self.chosen) is not None:
            self.acts.bin(entry)
            self.after_act(entry.id)

    def remove(self) -> None:
        self.acts.remove(self.chosen)
        self.search()

    def duplicate(self) -> None:
        job = self.acts.duplicate(self.chosen) if self.chosen is not None else None
        if job is None:
            return
        self.index.renew(job.id)
        self.line.clear()
        self.states.choose("all")
        self.search()
        self._choose(next((i for i, e in enumerate(self.model.entries) if e.id == job.id), 0))

    def undo(self) -> None:
        if self.shelf.undo_name is None and self.line.isUndoAvailable():
            self.line.undo()
            self.search()
        elif self.acts.undo():
            self.search()
            self.indexing.start()

    def toggle_left_out(self) -> None:
        self.show_left_out = not self.show_left_out
        self._show_before()

    # -- the library

    def toggle_library(self) -> None:
        """The library, or the jobs again."""
        jobs = self.pages.currentWidget() is self.library
        self.pages.setCurrentIndex(0 if jobs else 1)
        if not jobs:
            self.library.refresh()


def _actions(commands: tuple[Command, ...]) -> tuple[list[Command], list[tuple[str, str]]]:
    """The actions of the room, and the keys of its list."""
    return [c for c in commands if not c.one_of], [(tr("type"), tr("narrow")), ("↑ ↓", tr("pick"))]
