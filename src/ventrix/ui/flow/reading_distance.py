"""Step back until you can just read this: fixes the size of the far view for the user's own screen and eyes."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ventrix.ui.look import theme
from ventrix.words import tr

# A letter that is only just read spans about 5 minutes of arc (the 20/20 line of an eye chart); what
# has to be read at a glance wants 16. Both common practice, no source.
GLANCE = 16 / 5
LEAST, MOST = 6, 60  # px of the just-readable line
WORDS = "0.350   217.4"


class ReadingDistance(QWidget):
    """Lies over the window. Up and down change the line's size, Enter takes it, Esc leaves."""

    taken = Signal(float)  # px that everything in the far view has at least
    closed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.size_px = 14.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Reading distance"))
        self.hide()

    def open(self, owner: QWidget, far_px: float) -> None:
        """Show over `owner`, beginning from the size in force."""
        self.setParent(owner)
        self.size_px = min(max(far_px / GLANCE, LEAST), MOST)
        self.setGeometry(owner.rect())
        self.show()
        self.raise_()
        self.setFocus()

    @property
    def far_px(self) -> float:
        """The size that reads at a glance where the line is only just read."""
        return round(self.size_px * GLANCE)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in (Qt.Key.Key_Up, Qt.Key.Key_Plus):
            self.size_px = min(self.size_px + 1, MOST)
        elif key in (Qt.Key.Key_Down, Qt.Key.Key_Minus):
            self.size_px = max(self.size_px - 1, LEAST)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.hide()
            self.taken.emit(float(self.far_px))
            self.closed.emit()
        elif key == Qt.Key.Key_Escape:
            self.hide()
            self.closed.emit()
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("ground"))
        centre = Qt.AlignmentFlag.AlignCenter
        painter.setPen(theme.colour("text"))
        painter.setFont(theme.font(22, weight=600))
        upper = self.rect().adjusted(60, 40, -60, 0)
        painter.drawText(
            upper,
            int(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap),
            tr(
                "Stand where you flow. Up and Down change the line below until you can only just read it; "
                "Enter takes it."
            ),
        )
        painter.setFont(theme.font(self.size_px, narrow=True, weight=600))
        painter.drawText(self.rect(), centre, WORDS)
        painter.setPen(theme.colour("quiet"))
        painter.setFont(theme.font(15))
        lower = self.rect().adjusted(0, 0, 0, -40)
        painter.drawText(
            lower,
            int(Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom),
            tr(
                "line {:.0f} px: the far view will show nothing under {:.0f} px   (Esc leaves)",
                self.size_px,
                self.far_px,
            ),
        )
