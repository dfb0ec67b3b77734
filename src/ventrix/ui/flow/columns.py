"""The three columns of the Flow room, and how they share a small window."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QLayout, QTabWidget, QVBoxLayout, QWidget

from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.flow.side_column import CURVE, SideColumn
from ventrix.ui.flow.step_strip import StepStrip
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

LEFT, SIDE = 252, 372  # px, of the outer columns
TABS: Final = 240  # px of height, of the one under the far view
WIDE: Final = 1090  # px: below, the outer columns share one
STACKED: Final = 780  # px: below, that one stands under the far view


class FlowColumns(QHBoxLayout):
    """Steps and lifts on the left, the far view and what is asked in the middle, the curve on the right."""

    def __init__(self, strip: StepStrip, ladder: LiftLadder, middle: QLayout, side: SideColumn) -> None:
        super().__init__()
        self._narrow = self._only_middle = False
        self._side = side
        scroll = ScrollArea(ladder, sideways=False)
        self._left = QWidget()
        self._left.setFixedWidth(LEFT)
        steps = QVBoxLayout(self._left)
        steps.setContentsMargins(0, 0, 0, 0)
        steps.setSpacing(4)
        steps.addWidget(strip)
        steps.addWidget(scroll, 1)
        side.setFixedWidth(SIDE)
        self._tabs = QTabWidget()
        self._tabs.setDocumentMode(True)
        self._tabs.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._tabs.tabBar().setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._tabs.setFixedWidth(SIDE)
        self._tabs.hide()
        self.setContentsMargins(16, 10, 16, 10)
        self.setSpacing(20)
        self.addWidget(self._tabs)
        self.addWidget(self._left)
        self.addLayout(middle, 1)
        self.addWidget(side)

    def fit(self, there: QSize) -> bool:
        """In a small window the curve, the conditions and the readings share a column with the lifts; whether that
        stands under the far view."""
        narrow, stacked = there.width() < WIDE, there.width() < STACKED
        self.setDirection(QBoxLayout.Direction.BottomToTop if stacked else QBoxLayout.Direction.LeftToRight)
        self._tabs.setMinimumWidth(0 if stacked else SIDE)
        self._tabs.setMaximumWidth(QWIDGETSIZE_MAX if stacked else SIDE)
        self._tabs.setMinimumHeight(TABS if stacked else 0)
        if narrow != self._narrow:
            self._narrow = narrow
            if narrow:
                self._tabs.addTab(self._left, tr("Lifts"))
                self._tabs.addTab(self._side, tr("Curve and keys"))
                self._left.setFixedWidth(SIDE)
            else:
                self._left.setFixedWidth(LEFT)
                self.insertWidget(1, self._left)
                self.addWidget(self._side)
            self._show_parts()
        return stacked

    def show_only_middle(self, only: bool) -> None:
        """The far view and nothing beside it, or all of it again."""
        self._only_middle = only
        self._show_parts()

    def _show_parts(self) -> None:
        self._tabs.setVisible(self._narrow and not self._only_middle)
        if not self._narrow:
            for part in (self._left, self._side):
                part.setVisible(not self._only_middle)

    def turn_side(self, page: int) -> None:
        """Show a page of the third column, or its curve where that page stood already."""
        self._side.turn_to(page)
        if self._narrow:
            self._tabs.setCurrentIndex(1 if self._side.currentIndex() != CURVE else 0)
