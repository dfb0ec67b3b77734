"""Eight things that a stranger wants to do, each by keys alone and by mouse alone (figures and words are typed).

Nothing here calls a room: keys go where the keyboard is, clicks to what is on the screen and able.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QKeySequence
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QFileDialog, QMenu, QWidget

from tests.ui.stand_in import Open, counted
from ventrix.demo.job import demo_job
from ventrix.ui.widgets.action_bar import ActionButton
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.ui.window.main_window import MainWindow
from ventrix.ui.window.rooms import ROOMS

MOST_TABS = 120
LEFT = Qt.MouseButton.LeftButton


def has_keyboard(window: MainWindow) -> QWidget:
    QApplication.processEvents()
    return QApplication.focusWidget() or window


def typed(window: MainWindow, text: str) -> None:
    """Type into whatever has the keyboard, and Enter."""
    QTest.keyClicks(has_keyboard(window), text)
    QTest.keyClick(has_keyboard(window), Qt.Key.Key_Return)
    QApplication.processEvents()


def plain(words: str) -> str:
    """A menu's words as they are read."""
    return words.replace("&", "").removesuffix("…")


class Hand(ABC):
    """How a stranger works the window."""

    def __init__(self, window: MainWindow) -> None:
        self.window = window
        window.activateWindow()
        assert QTest.qWaitForWindowActive(window)

    def command(self, key: str) -> Command:
        here = [*self.window.room.commands, *self.window.commands]
        found = next(c for c in here if c.id == key)
        assert found.able(), f"{key} is greyed"
        return found

    @abstractmethod
    def room(self, key: str) -> None: ...
    @abstractmethod
    def do(self, key: str) -> None: ...
    @abstractmethod
    def to(self, part: QWidget) -> None: ...
    @abstractmethod
    def press(self, button: QAbstractButton) -> None: ...
    @abstractmethod
    def choose(self, box: QComboBox, value: object) -> None: ...


class Keys(Hand):
    """The keyboard alone."""

    def strike(self, keys: str) -> None:
        QTest.keySequence(has_keyboard(self.window), QKeySequence(keys))
        QApplication.processEvents()

    def room(self, key: str) -> None:
        self.strike(f"Ctrl+{next(d.digit for d in ROOMS if d.key == key)}")

    def do(self, key: str) -> None:
        command = self.command(key)
        if command.keys:
            self.strike(command.keys)
            return
        self.strike("Ctrl+K")  # what has no key of its own is found by its words
        typed(self.window, plain(command.name))

    def to(self, part: QWidget) -> None:
        for _ in range(MOST_TABS):
            at = has_keyboard(self.window)
            if at is part or part.isAncestorOf(at):
                return
            QTest.keyClick(at, Qt.Key.Key_Tab)
        raise AssertionError(f"Tab never comes to {part.accessibleName() or part}")

    def press(self, button: QAbstractButton) -> None:
        self.to(button)
        QTest.keyClick(has_keyboard(self.window), Qt.Key.Key_Space)
        QApplication.processEvents()

    def choose(self, box: QComboBox, value: object) -> None:
        self.to(box)
        for way in (Qt.Key.Key_Home, *[Qt.Key.Key_Down] * box.count()):
            if box.currentData() == value:
                break
            QTest.keyClick(box, way)
        assert box.currentData() == value


class Mouse(Hand):
    """The mouse alone: rail, actions at the foot, menus, what stands in rooms and sheets."""

    def click(self, part: QWidget, at: QPoint | None = None, *, double: bool = False) -> None:
        assert part.isVisible() and part.isEnabled(), f"{part.accessibleName() or part} cannot be clicked"
        how = QTest.mouseDClick if double else QTest.mouseClick
        how(part, LEFT, Qt.KeyboardModifier.NoModifier, part.rect().center() if at is None else at)
        QApplication.processEvents()

    def room(self, key: str) -> None:
        name = next(d.name for d in ROOMS if d.key == key)
        buttons = self.window.rail.findChildren(QAbstractButton)
        self.click(next(b for b in buttons if b.accessibleName() == f"Room: {name}"))

    def do(self, key: str) -> None:
        command = self.command(key)
        for button in self.window.room.findChildren(QAbstractButton):
            at_foot = isinstance(button, ActionButton) and button.command is not None and button.command.id == key
            named = command.keys and f"  {command.keys}\n" in button.text()  # a large button of its own
            if (at_foot or named) and button.isVisible():
                self.click(button)
                return
        bar = self.window.menuBar()
        for top in bar.actions():
            menu = top.menu()
            assert isinstance(menu, QMenu)
            self.click(bar, bar.actionGeometry(top).center())
            for action in menu.actions():
                if plain(action.text()) == plain(command.name):
                    self.click(menu, menu.actionGeometry(action).center())
                    return
            menu.close()
        raise AssertionError(f"{key}, {command.name} is nowhere to be clicked")

    def to(self, part: QWidget) -> None:
        self.click(part)

    def press(self, button: QAbstractButton) -> None:
        self.click(button)

    def choose(self, box: QComboBox, value: object) -> None:
        self.click(box)
        view, row = box.view(), next(i for i in range(box.count()) if box.itemData(i) == value)
        view.scrollTo(box.model().index(row, 0))
        self.click(view.viewport(), view.visualRect(box.model().index(row, 0)).center())
        assert box.currentData() == value


@pytest.fixture(params=[Keys, Mouse], ids=["keys", "mouse"])
def hand(request: pytest.FixtureRequest) -> Iterator[type[Hand]]:
    had = QApplication.doubleClickInterval()
    QApplication.setDoubleClickInterval(1)  # a list that has just come up takes no click for so long
    found: type[Hand] = request.param
    yield found
    QApplication.setDoubleClickInterval(had)


def sheet_up(window: MainWindow) -> SideSheet:
    """The sheet that stands beside the room."""
    QApplication.processEvents()
    return next(s for s in window.sheets.made() if s.isVisible())


def test_a_first_verdict_from_an_empty_book(open_window: Open, hand: type[Hand]) -> None:
    window = open_window(demo=False)
    by = hand(window)
    by.press(window.welcome.start)
    by.press(sheet_up(window).take_button)
    by.room("flow")
    room = window.rooms["flow"]
    for key, value in (("entry", "radius"), ("valve", "job"), ("plug", "in"), ("centred", True)):
        field = room.asked_first.fields[key]
        assert isinstance(field, QComboBox)
        by.choose(field, value)
    sleeve = room.asked_first.fields["bore"]
    assert isinstance(sleeve, QuantityField)
    by.to(sleeve.box)
    typed(window, "4.0")
    assert not room.asked_first.isVisible()
    by.to(room.entry)
    for figure in (62, 124, 176, 207, 221, 228):
        typed(window, str(figure))
        assert room.control.problem == ""
    first = counted(window)
    assert len(first) == 6
    by.do("cut.new")
    typed(window, "bowl")
    space = window.open_book.workspace
    assert space is not None and space.cut is not None and space.cut.name == "bowl"
    by.room("flow")
    by.to(room.entry)
    for figure in (66, 131, 189, 224, 242, 251):
        typed(window, str(figure))
    assert counted(window).keys() == first.keys()
    by.room("compare")
    compare = window.rooms["compare"]
    assert compare.verdict.headline.text().startswith("Keep"), compare.comparability.text()


def test_a_table_of_ones_own_in(open_window: Open, hand: type[Hand], tmp_path: Path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "mine.csv"
    path.write_text("lift in,intake CFM @ 28 inH2O\n" + "".join(f"{i / 10},{40 * i}\n" for i in range(1, 7)))
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a, **_k: (str(path), ""))
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    had = sum(len(c.runs) for p in space.job.ports for c in p.cuts)
    by = hand(window)
    by.do("run.import")
    sheet = sheet_up(window)
    by.press(sheet.take_button)
    assert not sheet.isVisible(), sheet.problem.text()
    space = window.open_book.workspace
    assert space is not None
    assert sum(len(c.runs) for p in space.job.ports for c in p.cuts) == had + 1


@pytest.fixture
def head(open_window: Open) -> MainWindow:
    """The window on a whole head of eight ports."""
    return open_window(head=True)


def cuts_of(window: MainWindow) -> dict[str, int]:
    """How many cuts each port has."""
    space = window.open_book.workspace
    assert space is not None
    return {p.name: len(p.cuts) for p in space.job.ports}


def test_a_plan_followed(head: MainWindow, hand: type[Hand], qtbot) -> None:  # type: ignore[no-untyped-def]
    """The first of the list, where it is done, with what is known filled in: it is logged, and the list goes on."""
    by = hand(head)
    by.room("plan")
    room = head.rooms["plan"]
    qtbot.waitUntil(lambda: room.head_page.work is not None, timeout=60_000)
    first, had = room.head_page.work.next, cuts_of(head)
    assert first is not None and first.port is not None
    by.do("plan.take")
    assert sheet_up(head) is head.sheets["seat"]
    sheet = head.sheets["seat"]
    for field, words in ((sheet.angles, "30 45 60"), (sheet.widths, "0.040 0.048 0.060")):
        by.to(field)
        QTest.keyClicks(has_keyboard(head), words)
    by.press(sheet.take_button)
    assert not sheet.isVisible(), sheet.problem.text()
    assert cuts_of(head)[first.port.name] == had[first.port.name] + 1, first.what


def test_a_port_copied(head: MainWindow, hand: type[Hand]) -> None:
    """The fourth intake is behind: the model's work is logged on it, as its own walls allow."""
    by = hand(head)
    by.room("match")
    room = head.rooms["match"]
    space = head.open_book.workspace
    assert space is not None
    behind = next(c.port.name for c in room.head_view.cells if c.word.startswith("behind"))
    if isinstance(by, Mouse):
        box = next(box for box, cell in room.head_view.boxes() if cell.port.name == behind)
        by.click(room.head_view, box.center().toPoint())
    else:
        for _ in space.job.ports:
            if space.port is not None and space.port.name != behind:
                by.do("match.right")
    assert space.port is not None and space.port.name == behind
    had = cuts_of(head)
    by.do("match.copy")
    sheet = sheet_up(head)
    assert sheet is head.sheets["copy"]
    by.press(sheet.take_button)
    assert not sheet.isVisible(), sheet.problem.text()
    assert cuts_of(head)[behind] == had[behind] + 1


def test_a_width_scribed_for_cuts(head: MainWindow, hand: type[Hand]) -> None:
    """The first edge that metal has to come off of: its scribe stands in the cut sheet, edge and depth with it."""
    by = hand(head)
    by.room("lineup")
    by.do("lineup.bolts")
    for _ in head.rooms["lineup"].shown.lines:
        by.do("lineup.next")
        by.do("lineup.plan")
        if any(sheet.isVisible() for sheet in head.sheets.made()):
            break
    sheet, had = sheet_up(head), cuts_of(head)
    assert sheet is head.sheets["cut"]
    by.press(sheet.take_button)
    assert not sheet.isVisible(), sheet.problem.text()
    assert sum(cuts_of(head).values()) == sum(had.values()) + 1
    space = head.open_book.workspace
    assert space is not None and space.cut is not None
    (work,) = space.cut.operations[0].works
    assert work.place == "opening" and work.side and work.depth


def test_a_sheet_as_pdf(open_window: Open, hand: type[Hand], tmp_path: Path, monkeypatch, qtbot) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(path), ""))
    window = open_window()
    by = hand(window)
    by.room("sheet")
    by.do("sheet.pdf")
    qtbot.waitUntil(path.exists, timeout=20_000)
    assert path.read_bytes().startswith(b"%PDF")


def test_a_job_found(head: MainWindow, hand: type[Hand]) -> None:
    """By a word of its title that the job in hand does not have."""
    by = hand(head)
    head.files.open_job(demo_job().id)
    by.room("book")
    by.to(head.rooms["book"].line)
    QTest.keyClicks(has_keyboard(head), "all ports")
    QApplication.processEvents()
    by.do("book.open")
    space = head.open_book.workspace
    assert space is not None and space.job.title.endswith("all ports")


def test_a_practice_played(open_window: Open, hand: type[Hand]) -> None:
    window = open_window()
    by = hand(window)
    by.room("practice")
    by.do("practice.enter")
    played = window._practices[-1]
    at = hand(played)
    try:
        at.room("practice")
        at.do("practice.flow")
        at.do("practice.reckon")
        at.do("practice.reckon")
        assert played.rooms["practice"].shown is not None
    finally:
        played.close()
