"""Small windows: nothing of a room lies over another part of it, and nothing leaves the window."""

from __future__ import annotations

from itertools import combinations

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QTabBar, QWidget

from tests.ui.stand_in import Open
from ventrix.rooms.display_units import US
from ventrix.rooms.shared.gain_words import gain_text
from ventrix.ui.window.main_window import ROOMS, Shell
from ventrix.ui.window.room_frame import RoomFrame

SIZES = ((1280, 800), (1024, 700), (853, 533))  # the last is 1280x800 at a scale of 1.5


def parts_of(owner: QWidget) -> list[tuple[QWidget, QRect]]:
    """What can be read or pressed in a room, and where it lies there."""
    found = []
    for kind in (QLabel, QLineEdit, QAbstractButton, QComboBox):
        for each in owner.findChildren(kind):
            inside = each.parentWidget()
            scrolled = isinstance(inside, QComboBox | QTabBar) or each.visibleRegion().isEmpty()
            if each.isVisibleTo(owner) and not scrolled and (not isinstance(each, QLabel) or each.text()):
                found.append((each, QRect(each.mapTo(owner, QPoint(0, 0)), each.size())))
    return found


def assert_apart(owner: QWidget) -> None:
    for (a, where), (b, there) in combinations(parts_of(owner), 2):
        if a.isAncestorOf(b) or b.isAncestorOf(a):
            continue
        shared = where.intersected(there)
        assert shared.width() <= 1 or shared.height() <= 1, (a, b, where, there)


def framed(shell: Shell) -> RoomFrame:
    frame = shell.room.parentWidget().parentWidget()
    assert isinstance(frame, RoomFrame)
    return frame


@pytest.mark.parametrize("size", SIZES, ids=lambda s: f"{s[0]}x{s[1]}")
def test_every_room_gives_way(open_window: Open, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    shell = open_window()
    shell.resize(*size)
    assert (shell.width(), shell.height()) == size
    for key, _ in ROOMS:
        shell.go_to_named(key)
        qtbot.wait(20)
        frame = framed(shell)
        assert_apart(shell.room)
        right = frame.mapTo(shell, QPoint(frame.width(), frame.height()))
        assert right.x() <= shell.width()
        assert right.y() <= shell.height()
        bar = frame.horizontalScrollBar()
        assert not bar.isVisible() or size[0] < 1024 or bar.maximum() <= 40, key


@pytest.mark.parametrize("first", SIZES)
@pytest.mark.parametrize("then", SIZES)
def test_a_room_comes_back_from_every_size(
    open_window: Open,
    qtbot,  # type: ignore[no-untyped-def]
    first: tuple[int, int],
    then: tuple[int, int],
) -> None:
    shell = open_window()
    for size in (first, then):
        shell.resize(*size)
        for key in ("head", "flow"):
            shell.go_to_named(key)
            qtbot.wait(5)
    narrow = then[0] < 1280
    assert shell.head.tabs.count() == (7 if narrow else 5)
    assert shell.head.drawing.isVisibleTo(shell.head) or shell.head.tabs.currentIndex() != 0
    assert shell.flow.ladder.isVisibleTo(shell.flow)
    shell.go_to_named("head")
    qtbot.wait(5)
    assert shell.head.derived.isVisibleTo(shell.head) is not narrow
    if narrow:
        shell.head.tabs.setCurrentIndex(6)
        assert shell.head.derived.isVisibleTo(shell.head)


def test_readings_and_conditions_are_reached_in_a_small_window(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    shell = open_window()
    shell.resize(1024, 700)
    shell.go_to_named("flow")
    qtbot.wait(5)
    for key, page in ((Qt.Key.Key_V, shell.flow.readings), (Qt.Key.Key_C, shell.flow.conditions)):
        qtbot.keyClick(shell.flow, key)
        assert page.isVisibleTo(shell.flow)
        qtbot.keyClick(shell.flow, key)
        assert not page.isVisibleTo(shell.flow)
        assert shell.flow.ladder.isVisibleTo(shell.flow)
    qtbot.keyClick(shell.flow, Qt.Key.Key_F11)
    assert not shell.flow.ladder.isVisibleTo(shell.flow)
    shell.resize(1280, 800)
    qtbot.keyClick(shell.flow, Qt.Key.Key_Escape)
    assert shell.flow.ladder.isVisibleTo(shell.flow)
    assert shell.flow.plot.isVisibleTo(shell.flow)


def test_a_sheet_stands_beside_the_room_or_has_a_small_window_to_itself(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    shell = open_window()
    shell.go_to_named("compare")
    shell.pour_sheet.open()
    qtbot.wait(5)
    sheet = shell.pour_sheet
    room = framed(shell)
    assert room.mapTo(shell, QPoint(room.width(), 0)).x() <= sheet.mapTo(shell, QPoint(0, 0)).x()
    shell.benches.open("back-room")
    qtbot.wait(5)
    assert not sheet.isVisible()  # one at a time
    shell.resize(853, 533)
    qtbot.wait(5)
    assert not room.isVisible()
    assert shell.benches.mapTo(shell, QPoint(shell.benches.width(), 0)).x() <= shell.width()
    qtbot.keyClick(shell.benches, Qt.Key.Key_Escape)
    qtbot.wait(5)
    assert room.isVisible()
    shell.benches.open("back-room")
    shell.go_to_named("head")  # leaving for another room puts it away
    assert not shell.benches.isVisible()
    assert framed(shell).isVisible()


def test_beside_a_wide_sheet_the_verdict_stands_above_the_curves(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    shell = open_window()
    shell.go_to_named("compare")
    room = shell.compare
    shell.benches.open("back-room")
    qtbot.wait(5)
    verdict, curves = (w.mapTo(room, QPoint(0, 0)) for w in (room.verdict, room.curves))
    assert verdict.y() + room.verdict.height() <= curves.y()
    assert room.curves.width() > 400
    assert not room.scorecard.isVisibleTo(room)
    qtbot.keyClick(shell.benches, Qt.Key.Key_Escape)
    qtbot.wait(5)
    verdict, curves = (w.mapTo(room, QPoint(0, 0)) for w in (room.verdict, room.curves))
    assert verdict.x() >= curves.x() + room.curves.width()
    assert room.scorecard.isVisibleTo(room)
    assert room.sentences.isVisibleTo(room)


def test_after_the_last_lift_the_far_view_says_what_the_cut_did(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    shell = open_window()
    shell.go_to_named("flow")
    qtbot.wait(5)
    far = shell.flow.far.far
    space = shell.session.workspace
    assert space is not None
    assert space.pair is not None
    gain = space.analysis.gain(space.pair)
    assert gain is not None
    assert far.phase == "ALL LIFTS DONE"
    assert far.sentence == gain.verdict.headline
    assert far.flow == gain_text(gain, US)
    assert "R repeats" in far.hint
