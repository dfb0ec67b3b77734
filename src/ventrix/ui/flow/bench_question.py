"""What has to be answered at the bench before anything is kept: one question at a time, two buttons."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from ventrix.rooms.flow.at_bench import other_bench, use_connected
from ventrix.ui.flow.control import FlowControl
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr


class BenchQuestion(QWidget):
    """Which bench the readings are of, where one that is not the set-up's is connected; whether the first leak of a
    bench is off its readout already; or, once all lifts are done, the check that the gain hangs on (`check_wanted`)."""

    answered = Signal()
    check_wanted = Signal()

    def __init__(self, open_book: OpenBook, control: FlowControl) -> None:
        super().__init__()
        self._open_book, self._control = open_book, control
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.yes, self.no = QPushButton(), QPushButton()
        self.yes.clicked.connect(lambda: self.answer(True))
        self.no.clicked.connect(lambda: self.answer(False))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.words, 1)
        row.addWidget(self.yes)
        row.addWidget(self.no)
        self.hide()

    def ask(self, *, far: bool) -> None:
        """Ask what is to be asked now, but not from two metres."""
        hand, control = self._control.hand, self._control
        there = self._open_book.workspace is not None
        words = control.which_bench = other_bench(hand, self._open_book.bench) if there else ""
        control.asks_leak = there and not words and hand.asks_leak()
        yes, no = tr("It is the set-up's (Y)"), tr("Flow on the one connected (N)")
        if control.asks_leak:
            leak = self._open_book.units.flow.with_unit(hand.setup.leak)
            words = tr("The leak is {}. Does your readout already take it off?", leak)
            yes, no = tr("Yes, it is off already (Y)"), tr("No, take it off (N)")
        offer = hand.check_offer() if there and not words and hand.test.lift is None else None
        if offer is not None:
            words = tr("Every lift is done. What is seen is so small that a check settles it.")
            yes, no = f"{offer.words} (K)", ""
        self.words.setText(words)
        self.yes.setText(yes)
        self.no.setText(no)
        self.no.setVisible(bool(no))
        self.setVisible(bool(words) and not far)

    def answer(self, yes: bool) -> None:
        """Yes or no to what is asked; yes to a check begins it."""
        control, hand = self._control, self._control.hand
        if control.which_bench:
            self._take_bench(of_setup=yes)
        elif control.asks_leak:
            hand.answer_leak(yes)
        else:
            self.check_wanted.emit()
            return
        self.answered.emit()

    def _take_bench(self, *, of_setup: bool) -> None:
        """The set-up's bench, read as its record says; or the one connected."""
        bench, hand = self._open_book.bench, self._control.hand
        if not of_setup or hand.bench is None:
            use_connected(hand, bench)
            return
        bench.answers_for = hand.bench.name
        if bench.is_simulated:
            bench.connect_simulated(element=hand.bench.element, name=hand.bench.name)
