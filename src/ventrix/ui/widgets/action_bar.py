"""What can be done in a room, at its foot: a button each, with its key before its words."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Final, TypeVar

from PySide6.QtCore import QRect, QSize, Qt
from PySide6.QtGui import QEnterEvent, QFontMetrics, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QSizePolicy, QWidget

from ventrix.ui.look import theme
from ventrix.ui.widgets.command import Command, sign_of
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.words import tr

Part = TypeVar("Part", bound=QWidget)
PAD: Final = 4  # px, around a button's words
BETWEEN: Final = 6  # px, between key and words
LINE: Final = 22  # px, of a button and of what is only told


class ActionButton(QAbstractButton):
    """A command: its key in brass, its words beside; greyed while there is nothing to do it to."""

    def __init__(self) -> None:
        super().__init__()
        self.command: Command | None = None
        self._key = self._words = ""
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)  # a click leaves the keyboard with the room
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAttribute(Qt.WidgetAttribute.WA_Hover)
        self.clicked.connect(self._run)

    def show_command(self, command: Command, *, words: bool) -> None:
        """Stand for a command, of a pair of keys with the words of both only at the last."""
        self.command = command
        self._key, self._words = sign_of(command.keys), command.name if words else ""
        self.setAccessibleName(f"{command.name}, {command.keys}" if command.keys else command.name)
        self.follow()
        self.updateGeometry()
        self.update()

    def follow(self) -> None:
        """Able, or greyed."""
        if self.command is not None:
            able = self.command.able()
            self.setEnabled(able)
            self.setToolTip(self.command.hint if able else tr("{}: nothing to do it to now", self.command.hint))

    def _run(self) -> None:
        if self.command is not None:
            self.command.run()

    def _widths(self) -> tuple[int, int]:
        key = QFontMetrics(theme.font(13, weight=600)).horizontalAdvance(self._key)
        words = QFontMetrics(theme.font(13)).horizontalAdvance(self._words)
        return key, words

    def sizeHint(self) -> QSize:
        key, words = self._widths()
        between = BETWEEN if self._key and self._words else 0
        return QSize(key + between + words + 2 * PAD, max(LINE, QFontMetrics(theme.font(13)).height() + PAD))

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        if self.isEnabled() and (self.underMouse() or self.isDown()):
            painter.fillRect(self.rect(), theme.colour("raised"))
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("brass"), 1.5))
            painter.drawRect(self.rect().adjusted(1, 1, -2, -2))
        key, words = self._widths()
        able = 1.0 if self.isEnabled() else 0.45
        painter.setFont(theme.font(13, weight=600))
        painter.setPen(theme.colour("brass", able))
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.drawText(QRect(PAD, 0, key, self.height()), middle, self._key)
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("text", able))
        left = PAD + key + (BETWEEN if self._key else 0)
        painter.drawText(QRect(left, 0, words + 2, self.height()), middle, self._words)


class ActionBar(QWidget):
    """A room's actions in as many lines as they want. Keys that are no action (digits, arrows in a list) are told."""

    def __init__(self) -> None:
        super().__init__()
        self._flow = FlowLayout()
        self.setLayout(self._flow)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)
        self.buttons: list[ActionButton] = []
        self._told: list[RichLabel] = []

    def show_actions(self, commands: Iterable[Command], told: Sequence[tuple[str, str]] = ()) -> None:
        """A button for each command but Esc's, after the keys that are only told."""
        wanted = [c for c in commands if c.keys != "Esc"]
        self._keep(self._told, len(told), RichLabel)
        for label, (keys, words) in zip(self._told, told, strict=True):
            label.setFixedHeight(LINE)
            label.setText(f"<b style='color:{theme.current().brass}'>{keys}</b> {words}")
        self._keep(self.buttons, len(wanted), ActionButton)
        for i, (button, command) in enumerate(zip(self.buttons, wanted, strict=True)):
            following = wanted[i + 1] if i + 1 < len(wanted) else None
            paired = following is not None and bool(command.one_of) and following.one_of == command.one_of
            same = paired and following is not None and following.name == command.name
            button.show_command(command, words=not same)

    def enterEvent(self, event: QEnterEvent) -> None:
        """What has become able since the room was last drawn is so before it can be clicked."""
        super().enterEvent(event)
        self.follow()

    def follow(self) -> None:
        """What can be done now."""
        for button in self.buttons:
            button.follow()

    def _keep(self, parts: list[Part], count: int, kind: type[Part]) -> None:
        while len(parts) > count:
            gone = parts.pop()
            self._flow.removeWidget(gone)
            gone.hide()
            gone.deleteLater()
        while len(parts) < count:
            parts.append(kind())
            self._flow.addWidget(parts[-1])

    @property
    def words(self) -> str:
        """Everything it says, as it is read."""
        said = [label.text() for label in self._told]
        said += [button.accessibleName() for button in self.buttons]
        return "; ".join(said)
