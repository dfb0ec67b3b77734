"""The shelf: heads that do not exist, lessons, practices that were begun, and how what was said first came out."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import Final

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from ventrix.bench.simulator.practice.catalogue import HEADS
from ventrix.bench.simulator.practice.lessons.catalogue import LESSONS
from ventrix.bench.simulator.practice.lessons.lesson import BEST, Lesson
from ventrix.records.files.lesson_progress import read_progress
from ventrix.rooms.practice.calls import call_lines
from ventrix.ui.open_book import OpenBook
from ventrix.ui.practice.shelf import Row, RowList
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr
from ventrix.workspace.practice import SUFFIX, practices_in

HEAD, LESSON, BEGUN = range(3)
IN_ORDER: Final = (HEAD, BEGUN, LESSON)  # from left to right
MOST: Final = 6  # practices that stand there
WAYS: Final = {
    Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1),
}  # fmt: skip


class ShelfPage(QWidget):
    """Three lists that arrows walk; `taken` where a row is double-clicked."""

    picked = Signal()
    taken = Signal()

    def __init__(self, open_book: OpenBook, folder: Path) -> None:
        super().__init__()
        self.open_book, self.folder = open_book, folder
        self.lists = (
            RowList(tr("Heads that do not exist")),
            RowList(tr("Lessons, ten minutes each")),
            RowList(tr("Begun before")),
        )
        self.at = [0, 0, 0]
        self.column = HEAD
        self.scores = QLabel()
        self.scores.setWordWrap(True)
        for i, each in enumerate(self.lists):
            each.picked.connect(partial(self.pick, i))
            each.taken.connect(partial(self._take, i))
        self._areas: list[QScrollArea] = []  # left and right
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(24)
        for widgets in ((self.lists[HEAD], self.lists[BEGUN], self.scores), (self.lists[LESSON],)):
            side = QWidget()
            column = QVBoxLayout(side)
            column.setContentsMargins(0, 0, 0, 0)
            for widget in widgets:
                column.addWidget(widget)
            column.addStretch()
            area = ScrollArea(side, sideways=False)
            self._areas.append(area)
            row.addWidget(area, 1)

    @property
    def row(self) -> int:
        """The chosen row of the list in hand."""
        return self.at[self.column]

    def show_shelf(self) -> int:
        """Draw it; returns how many lessons were answered best."""
        progress = read_progress(self.folder)
        heads = [Row(h.title, h.teaches, f"{h.hours:g} h") for h in HEADS]
        lessons = [Row(each.title, "", _points(progress, each)) for each in LESSONS]
        names = (p.name.removesuffix(SUFFIX).replace("-", " ") for p in practices_in(self.folder)[:MOST])
        begun = [Row(name, "", tr("go on")) for name in names]
        for i, rows in enumerate((heads, lessons, begun)):
            self.at[i] = min(self.at[i], max(len(rows) - 1, 0))
            self.lists[i].show_rows(rows, self.at[i], i == self.column)
        self.lists[BEGUN].setVisible(bool(begun))
        active = self.lists[self.column]
        area = self._areas[1 if self.column == LESSON else 0]
        area.ensureVisible(0, active.y() + active.middle_of(self.row), 0, 40)
        space = self.open_book.workspace
        self.scores.setText("\n".join(call_lines(space.findings)) if space is not None else "")
        return sum(best == BEST for best, _ in progress.values())

    def walk(self, across: int, down: int) -> None:
        """Arrows: another list, or another row."""
        if across:
            open_ones = [i for i in IN_ORDER if self.lists[i].rows]
            self.column = open_ones[(open_ones.index(self.column) + across) % len(open_ones)]
        rows = len(self.lists[self.column].rows)
        self.at[self.column] = (self.at[self.column] + down) % max(rows, 1)
        self.picked.emit()

    def pick(self, column: int, row: int) -> None:
        self.column, self.at[column] = column, row
        self.picked.emit()

    def _take(self, column: int, row: int) -> None:
        self.pick(column, row)
        self.taken.emit()


def _points(progress: dict[str, tuple[int, int]], lesson: Lesson) -> str:
    found = progress.get(lesson.id)
    first = "deep" if lesson.deep else ""
    return first if found is None else tr("{} of {}", found[0], BEST)
