"""Flow's third column: the growing curve, the conditions, or the readings of the run."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtWidgets import QLabel, QStackedWidget, QVBoxLayout, QWidget

from ventrix.rooms.shared.plot_values import Picture
from ventrix.ui.flow.conditions_panel import ConditionsPanel
from ventrix.ui.flow.control import FlowControl
from ventrix.ui.flow.readings_page import ReadingsPage
from ventrix.ui.flow.simulator_panel import SimulatorControl
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.plot import Plot
from ventrix.words import tr

CAUTION: Final = tr(
    "Hearing protection on. Head and springs secured before the valve is opened. Blower and hot motor: hands and "
    "sleeves away, let it cool. Start on the largest range: a small one with the valve wide open spills the gauge."
)
CURVE: Final = 0
CONDITIONS: Final = 1
READINGS: Final = 2


class SideColumn(QStackedWidget):
    """Three pages; the first is what stands there unless another is asked for."""

    def __init__(self, open_book: OpenBook, control: FlowControl) -> None:
        super().__init__()
        self.plot = Plot(tr("Flow against lift, growing over the pinned cut"))
        self._caption = QLabel()
        self._caption.setObjectName("caption")
        self.lines = QLabel()
        self.lines.setWordWrap(True)
        self.lines.setObjectName("quiet")
        caution = QLabel(CAUTION)
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        self.bar = ActionBar()
        self.simulator = SimulatorControl()
        self.conditions = ConditionsPanel(open_book.units)
        self.readings = ReadingsPage(control)
        curve = QWidget()
        column = QVBoxLayout(curve)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        for part in (self._caption, self.plot, self.lines, self.bar, self.simulator, caution):
            column.addWidget(part, 1 if part is self.plot else 0)
        for page in (curve, self.conditions, self.readings):
            self.addWidget(page)

    def show_actions(self, commands: Sequence[Command]) -> None:
        self.bar.show_actions(commands)

    def show_curve(self, picture: Picture, caption: str) -> None:
        self.plot.show_picture(picture)
        self._caption.setText(caption)

    def turn_to(self, page: int) -> None:
        """Show a page, or the curve where that page stood already."""
        self.setCurrentIndex(CURVE if self.currentIndex() == page else page)
