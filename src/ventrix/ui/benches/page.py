"""What is known of a bench from checks: its plate over time, what it sees, and its way to another bench."""

from __future__ import annotations

from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from ventrix.core.model.bench import Bench, TransferPart
from ventrix.rooms.display_units import Units
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr


def caption_label(words: str = "") -> QLabel:
    label = QLabel(words)
    label.setWordWrap(True)
    label.setObjectName("quiet")
    return label


class HistoryPage(QWidget):
    """A page about one bench. `change` puts an edited bench in the book."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.bench: Bench | None = None
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(8)

    def show_bench(self, bench: Bench) -> None:
        self.bench = bench

    def change(self, name: str, bench: Bench) -> None:
        space = self.open_book.workspace
        if space is not None:
            self.bench = bench
            space.change_bench(name, bench)


def at_lift(part: TransferPart, units: Units) -> str:
    return "" if part.lift is None else tr(" at {}", units.lift.text(part.lift))
