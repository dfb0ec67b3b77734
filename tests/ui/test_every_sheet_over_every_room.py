"""With a sheet over any room, in every usual window: no room scrolls sideways, no text is cut or overlaid."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from PySide6.QtWidgets import QAbstractButton, QApplication, QLabel, QWidget

from tests.ui.stand_in import Open
from tests.ui.test_small_windows import assert_apart
from ventrix.ui.window.main_window import MainWindow
from ventrix.ui.window.rooms import ROOMS
from ventrix.ui.window.sheets import SHEETS

SIZES = ((1280, 800), (1280, 781), (1024, 700), (853, 533), (1920, 1080))  # 853x533: 1280x800 at a scale of 1.5
WITH_SOMETHING = ("correct", "details", "gaps", "reckoner")  # opened with a run, a shelf, a gap, a calculator
FEW = ("pour", "cut", "benches")  # of each width one


def cut_off(owner: QWidget) -> Iterator[str]:
    """Words on the screen that have less room than they take, and no ellipsis."""
    for label in owner.findChildren(QLabel):
        if not label.isVisibleTo(owner) or label.visibleRegion().isEmpty() or not label.text() or "…" in label.text():
            continue
        whole = label.visibleRegion().boundingRect().height() >= label.height() - 1  # what scrolls is cut by its page
        if label.wordWrap():
            cut = whole and label.heightForWidth(label.width()) > label.height() + 2
        else:
            cut = label.sizeHint().width() > label.width() + 2
        if cut:
            yield label.text()
    for button in owner.findChildren(QAbstractButton):
        lines = button.text().splitlines()
        wide = max((button.fontMetrics().horizontalAdvance(line) for line in lines), default=0)
        if button.isVisibleTo(owner) and not button.visibleRegion().isEmpty() and wide > button.width() + 1:
            yield button.text()


def settle() -> None:
    for _ in range(3):
        QApplication.processEvents()


def look(window: MainWindow, sheet: str) -> list[str]:
    """What is wrong with a room and the sheet beside it."""
    found = []
    room, beside = window.room, window.sheets[sheet]
    frame = window._frames[room]
    for owner in (room, beside):
        if not owner.isVisible():
            continue  # a sheet has the smallest windows to itself
        found += [f"cut off: {text}" for text in cut_off(owner)]
        try:
            assert_apart(owner)
        except AssertionError as error:
            found.append(f"overlaid: {error}")
    if room.isVisible() and frame.horizontalScrollBar().maximum():
        found.append(f"{frame.horizontalScrollBar().maximum()} px sideways")
    return found


def one_a_width(window: MainWindow, keys: list[str]) -> list[str]:
    """To a room a sheet is its width, and a sheet is the same in every room."""
    for key in keys:
        window.open_sheet(key)
    return list({window.sheets[key].width(): key for key in keys}.values())


@pytest.mark.parametrize("size", SIZES, ids=lambda s: f"{s[0]}x{s[1]}")
def test_nothing_is_cut_off_beside_a_sheet(open_window: Open, qtbot, long: bool, size: tuple[int, int]) -> None:
    window = open_window()
    window.resize(*size)
    found = []
    every = [s.key for s in SHEETS if s.key not in WITH_SOMETHING] if long else list(FEW)
    widths = one_a_width(window, every)
    for room in (door.key for door in ROOMS):
        window.go_to_named(room)
        qtbot.waitUntil(lambda: not window.room.busy, timeout=30_000)
        for key in every if room == "compare" else widths:
            window.open_sheet(key)
            settle()
            problems = look(window, key)
            if problems:  # an answer that came in just now is laid out at the next turn
                settle()
                problems = look(window, key)
            found += [f"{room} with {key}: {problem}" for problem in problems]
        window.put_sheet_away()
    assert found == []
