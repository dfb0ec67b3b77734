"""After a click on a plate, a bar or the rail, and after a sheet, the finder or a menu, a room's single keys work."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QAbstractSpinBox, QApplication, QComboBox, QLabel, QWidget

from tests.ui.stand_in import Open
from ventrix.ui.window.main_window import MainWindow

K = Qt.Key


def key(window: MainWindow, which: Qt.Key) -> None:
    QApplication.processEvents()
    QTest.keyClick(QApplication.focusWidget() or window, which)


def sheet_up(name: str) -> Callable[[MainWindow], bool]:
    return lambda window: window.sheets[name].isVisible()


SHOWS = {
    "flow": (K.Key_C, lambda w: w.rooms["flow"].side.currentIndex() == 1),
    "cuts": (K.Key_O, sheet_up("cut")),
    "compare": (K.Key_W, lambda w: w.rooms["compare"].whole_row),
    "air": (K.Key_N, sheet_up("traverse")),
    "plan": (K.Key_S, sheet_up("route")),
    "match": (K.Key_P, sheet_up("job_parts")),
    "lineup": (K.Key_N, sheet_up("face")),
    "sheet": (K.Key_N, sheet_up("shop")),
}


def click_a_plate(window: MainWindow) -> None:
    QTest.mouseClick(window.cut_row.columns[1].plate, Qt.MouseButton.LeftButton)


def tab_to_a_plate(window: MainWindow) -> None:
    window.cut_row.columns[1].plate.setFocus(Qt.FocusReason.TabFocusReason)


def open_a_sheet_and_leave_it(window: MainWindow) -> None:
    window.open_sheet("pour")
    key(window, K.Key_Escape)


def find_and_leave(window: MainWindow) -> None:
    window.finder.open()
    key(window, K.Key_Escape)


@pytest.mark.parametrize("away", [click_a_plate, tab_to_a_plate, open_a_sheet_and_leave_it, find_and_leave])
def test_a_room_s_key_works_after(open_window: Open, away: Callable[[MainWindow], None]) -> None:
    window = open_window()
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)
    for name, (which, shows) in SHOWS.items():
        window.go_to_named(name)
        window.room.setFocus()
        away(window)
        key(window, which)
        QApplication.processEvents()
        assert shows(window), f"{name}: {type(QApplication.focusWidget()).__name__} has the keyboard"
        window.put_sheet_away()


def test_what_is_typed_in_a_sheet_is_never_the_room_s(open_window: Open) -> None:
    window = open_window(room="cuts")
    window.open_sheet("pour")
    sheet: QWidget = window.sheets["pour"]
    sheet.setFocus()
    QTest.keyClick(sheet, K.Key_W)
    assert window.sheets.if_made("wall") is None


def nameless(root: QWidget) -> list[str]:
    """What Tab stops at inside of a part that says neither a name nor words."""
    found = []
    for part in root.findChildren(QWidget):
        stops = part.isVisibleTo(root) and part.isEnabled() and part.focusPolicy() & Qt.FocusPolicy.TabFocus
        own = isinstance(part.parent(), QComboBox | QAbstractSpinBox)
        words = part.text() if isinstance(part, QAbstractButton | QLabel) else ""
        if stops and not own and not part.accessibleName() and not words:
            found.append(f"{type(part).__name__} in {type(part.parent()).__name__}")
    return found


def test_no_stop_of_tab_is_nameless_in_any_room_or_sheet(open_window: Open) -> None:
    window = open_window(head=True)
    for name, room in window.rooms.items():
        window.go_to_named(name)
        QApplication.processEvents()
        assert not nameless(room), name
    for name, sheet in window.sheets.items():
        sheet.show()
        QApplication.processEvents()
        assert not nameless(sheet), name
        sheet.hide()
    assert not nameless(window)
