"""What a command does that takes more than one room, sheet or window."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QApplication, QInputDialog, QMessageBox

from ventrix.ui.window.bench_choices import BY_HAND, NO_BENCH, SIMULATED
from ventrix.ui.window.found import other_sides, states_to_reach
from ventrix.ui.window.rooms import FLOW
from ventrix.words import tr
from ventrix.workspace.acts import stand_for

if TYPE_CHECKING:
    from ventrix.ui.window.main_window import MainWindow


class AcrossRooms:
    """Of one window."""

    def __init__(self, window: MainWindow) -> None:
        self._window = window
        self._open_book = window.open_book

    def begin_job(self, bench: str) -> None:
        """A new job opens in Head, on the bench that was chosen for it; without a bench at its first stage."""
        self._window.go_to_named("plan" if bench == NO_BENCH else "head")
        space = self._open_book.workspace
        if bench == NO_BENCH and space is not None:
            from ventrix.core.work.route import ports_in_order

            space.look_at(ports_in_order(space.job)[0].cuts[0].id)
            self._window.open_sheet("route")
        elif bench == SIMULATED:
            self._open_book.bench.connect_simulated()
        elif bench == BY_HAND:
            self._window.rooms.of(FLOW).type_readings()
        elif self._open_book.workspace is not None:
            chosen = next((b for b in self._open_book.workspace.benches if b.id == bench), None)
            if chosen is not None:
                self._window.rooms.of(FLOW).take_bench(chosen)

    def begin_traverse(self) -> None:
        self._window.go_to_named("air")
        self._window.open_sheet("traverse")

    def straight_to(self) -> None:
        """Find a state of another port, and bring the port in hand there in one cut."""
        self._window.finder.open(lambda: states_to_reach(self._open_book))

    def stand_for(self) -> None:
        space = self._open_book.workspace
        if space is None or space.port is None:
            return
        here = space.port
        others = ", ".join(p.name for p in space.job.ports if p is not here and p.kind == here.kind)
        text, ok = QInputDialog.getText(
            self._window,
            tr("Stands for"),
            tr("Ports that were not flowed and that this test is used for as well:"),
            text=others,
        )
        if ok and (said := stand_for(space, text)):
            self._open_book.say(said)

    def hold_against_any(self) -> None:
        self._window.go_to_named("compare")
        self._window.finder.open(lambda: other_sides(self._open_book))

    def open_benches(self) -> None:
        self._window.open_sheet("benches", (self._window.rooms.of(FLOW).hand.setup.bench,))

    def show_about(self) -> None:
        """What is installed; copied for a report where that is asked."""
        from ventrix.records.about import version_words

        box = QMessageBox(QMessageBox.Icon.NoIcon, tr("About Ventrix"), version_words(), parent=self._window)
        copy = box.addButton(tr("Copy for a report"), QMessageBox.ButtonRole.ActionRole)
        box.addButton(QMessageBox.StandardButton.Close)
        box.exec()
        if box.clickedButton() is copy:
            QApplication.clipboard().setText(version_words())
            self._open_book.say(tr("Copied for a report."))
        box.deleteLater()
