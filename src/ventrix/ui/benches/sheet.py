"""The shop's benches: a sheet over the rooms with a page for each thing that is known of a bench."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QPushButton, QTabWidget, QVBoxLayout

from ventrix.core.model.bench import Bench, bench_named
from ventrix.ui.benches.form import BenchForm
from ventrix.ui.benches.plate_page import PlatePage
from ventrix.ui.benches.study_page import StudyPage
from ventrix.ui.benches.transfer_page import TransferPage
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id


class BenchSheet(SideSheet):
    """Chooses a bench and shows its pages."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(580)
        self._open_book = open_book
        self._bench_id = ""
        self.choice = QComboBox()
        self.choice.setAccessibleName(tr("Bench"))
        self.choice.activated.connect(lambda _i: self._choose(self.choice.currentData()))
        self._wanted = ""
        self.new = QPushButton(tr("New bench"))
        self.new.clicked.connect(lambda: self.new_bench())
        away = QPushButton(tr("Done (Esc)"))
        away.clicked.connect(self.closed)
        self.form = BenchForm(open_book)
        self.plate = PlatePage(open_book)
        self.study = StudyPage(open_book)
        self.transfer = TransferPage(open_book)
        self.pages = QTabWidget()
        self.pages.setDocumentMode(True)
        self.pages.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.pages.tabBar().setAccessibleName(tr("Pages of the bench"))
        for words, page in (
            ("Bench", self.form),
            (tr("Plate"), self.plate),
            (tr("Know your bench"), self.study),
            (tr("Two benches"), self.transfer),
        ):
            scroll = ScrollArea(page)
            self.pages.addTab(scroll, words)
        top = QHBoxLayout()
        top.addWidget(self.choice, 1)
        top.addWidget(self.new)
        top.addWidget(away)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 20, 16)
        column.setSpacing(10)
        column.addLayout(top)
        column.addWidget(self.pages, 1)
        self.none = QLabel(
            tr("No bench is in this shop's list yet. New bench makes one; readings can be typed without.")
        )
        self.none.setWordWrap(True)
        column.addWidget(self.none, 1)
        open_book.job_changed.connect(self._refresh)
        open_book.look_changed.connect(self._refresh)

    def open(self, name: str | None = None) -> None:
        """Show the sheet at the bench of that name, else the first; a shop without one is told how to make it."""
        space = self._open_book.workspace
        if space is None:
            self._open_book.say(tr("Open a job first: benches are changed beside one."))
            return
        found = bench_named(space.benches, name) or next(iter(space.benches), None)
        self._wanted = name or ""
        self._bench_id = found.id if found is not None else ""
        self._refresh()
        self.come_up()
        (self.choice if space.benches else self.new).setFocus()

    def new_bench(self) -> None:
        """Add a bench to the shop's list, under the set-up's name where that has no record."""
        space = self._open_book.workspace
        if space is None:
            return
        number = len(space.benches) + 1
        words = self._wanted or tr("bench {}", number)
        self._wanted = ""
        while bench_named(space.benches, words) is not None:
            number += 1
            words = tr("bench {}", number)
        bench = Bench(id=new_id(), name=words)
        self._bench_id = bench.id
        space.change_bench(tr("new bench '{}'", words), bench)
        self._open_book.ways.bench_made.emit(bench)

    def _choose(self, bench_id: str) -> None:
        self._bench_id = bench_id
        self._refresh()

    def _refresh(self) -> None:
        space = self._open_book.workspace
        benches = () if space is None else space.benches
        self.pages.setVisible(bool(benches))
        self.none.setVisible(not benches)
        self.choice.clear()
        if space is None or not benches:
            return
        bench = next((b for b in space.benches if b.id == self._bench_id), space.benches[0])
        self._bench_id = bench.id
        for each in space.benches:
            self.choice.addItem(each.name, each.id)
        self.choice.setCurrentIndex(self.choice.findData(bench.id))
        for page in (self.form, self.plate, self.study, self.transfer):
            page.show_bench(bench)
