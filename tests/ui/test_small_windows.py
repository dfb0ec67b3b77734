"""Small windows: nothing of a room lies over another part of it, and nothing leaves the window."""

from __future__ import annotations

from functools import partial
from itertools import combinations

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QTabBar, QWidget

from tests.ui.stand_in import Open
from ventrix.core.edits.cuts import add_cut
from ventrix.core.model.cut import Cut
from ventrix.rooms.display_units import US
from ventrix.rooms.shared.gain_words import gain_text
from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.plan.move_list import MoveList
from ventrix.ui.sheet.parts_list import PartsList
from ventrix.ui.window.main_window import ROOMS, MainWindow
from ventrix.ui.window.room_frame import RoomFrame

SIZES = ((1280, 800), (1024, 700), (853, 533))  # the last is 1280x800 at a scale of 1.5


def parts_of(owner: QWidget) -> list[tuple[QWidget, QRect]]:
    """What can be read or pressed in a room, and where it lies there."""
    found = []
    for kind in (QLabel, QLineEdit, QAbstractButton, QComboBox, LiftLadder, MoveList, PartsList):
        for each in owner.findChildren(kind):
            inside = each.parentWidget()
            scrolled = isinstance(inside, QComboBox | QTabBar) or each.visibleRegion().isEmpty()
            if each.isVisibleTo(owner) and not scrolled and (not isinstance(each, QLabel) or each.text()):
                seen = each.visibleRegion().boundingRect()  # what scrolls is cut off where its page ends
                found.append((each, seen.translated(each.mapTo(owner, QPoint(0, 0)))))
    return found


def assert_apart(owner: QWidget) -> None:
    for (a, where), (b, there) in combinations(parts_of(owner), 2):
        if a.isAncestorOf(b) or b.isAncestorOf(a):
            continue
        shared = where.intersected(there)
        assert shared.width() <= 1 or shared.height() <= 1, (a, b, where, there)


def framed(window: MainWindow) -> RoomFrame:
    frame = window.room.parentWidget().parentWidget()
    assert isinstance(frame, RoomFrame)
    return frame


@pytest.mark.parametrize("size", SIZES, ids=lambda s: f"{s[0]}x{s[1]}")
def test_every_room_gives_way(open_window: Open, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.resize(*size)
    assert (window.width(), window.height()) == size
    for key in (door.key for door in ROOMS):
        window.go_to_named(key)
        qtbot.wait(20)
        frame = framed(window)
        qtbot.waitUntil(lambda: assert_apart(window.room) is None)  # a page drawn just now is laid out at the next turn
        right = frame.mapTo(window, QPoint(frame.width(), frame.height()))
        assert right.x() <= window.width()
        assert right.y() <= window.height()
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
    window = open_window()
    for size in (first, then):
        window.resize(*size)
        for key in ("head", "flow"):
            window.go_to_named(key)
            qtbot.wait(5)
    narrow = then[0] < 1280
    assert window.rooms["head"].tabs.count() == (8 if narrow else 6)
    assert (
        window.rooms["head"].drawing.isVisibleTo(window.rooms["head"]) or window.rooms["head"].tabs.currentIndex() != 0
    )
    assert window.rooms["flow"].ladder.isVisibleTo(window.rooms["flow"])
    window.go_to_named("head")
    qtbot.wait(5)
    assert window.rooms["head"].derived.isVisibleTo(window.rooms["head"]) is not narrow
    if narrow:
        window.rooms["head"].tabs.setCurrentIndex(7)
        assert window.rooms["head"].derived.isVisibleTo(window.rooms["head"])


def test_readings_and_conditions_are_reached_in_a_small_window(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.resize(1024, 700)
    window.go_to_named("flow")
    qtbot.wait(5)
    for key, page in ((Qt.Key.Key_V, window.rooms["flow"].readings), (Qt.Key.Key_C, window.rooms["flow"].conditions)):
        qtbot.keyClick(window.rooms["flow"], key)
        assert page.isVisibleTo(window.rooms["flow"])
        qtbot.keyClick(window.rooms["flow"], key)
        assert not page.isVisibleTo(window.rooms["flow"])
        assert window.rooms["flow"].ladder.isVisibleTo(window.rooms["flow"])
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_F11)
    assert not window.rooms["flow"].ladder.isVisibleTo(window.rooms["flow"])
    window.resize(1280, 800)
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_Escape)
    assert window.rooms["flow"].ladder.isVisibleTo(window.rooms["flow"])
    assert window.rooms["flow"].plot.isVisibleTo(window.rooms["flow"])


def test_a_sheet_stands_beside_the_room_or_has_a_small_window_to_itself(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to_named("compare")
    window.sheets["pour"].open()
    qtbot.wait(5)
    sheet = window.sheets["pour"]
    room = framed(window)
    assert room.mapTo(window, QPoint(room.width(), 0)).x() <= sheet.mapTo(window, QPoint(0, 0)).x()
    window.sheets["benches"].open("back-room")
    qtbot.wait(5)
    assert not sheet.isVisible()  # one at a time
    window.resize(853, 533)
    qtbot.wait(5)
    assert not room.isVisible()
    assert window.sheets["benches"].mapTo(window, QPoint(window.sheets["benches"].width(), 0)).x() <= window.width()
    qtbot.keyClick(window.sheets["benches"], Qt.Key.Key_Escape)
    qtbot.wait(5)
    assert room.isVisible()
    window.sheets["benches"].open("back-room")
    window.go_to_named("head")  # leaving for another room puts it away
    assert not window.sheets["benches"].isVisible()
    assert framed(window).isVisible()


def test_beside_a_wide_sheet_the_verdict_stands_above_the_curves(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to_named("compare")
    room = window.rooms["compare"]
    window.sheets["benches"].open("back-room")
    qtbot.wait(5)
    verdict, curves = (w.mapTo(room, QPoint(0, 0)) for w in (room.verdict, room.curves))
    assert verdict.y() + room.verdict.height() <= curves.y()
    assert room.curves.width() > 400
    scores, table = (w.mapTo(room, QPoint(0, 0)) for w in (room.scorecard, room.table))
    assert scores.y() >= table.y() + room.table.height(), "below the lifts, not gone"
    qtbot.keyClick(window.sheets["benches"], Qt.Key.Key_Escape)
    qtbot.wait(5)
    verdict, curves = (w.mapTo(room, QPoint(0, 0)) for w in (room.verdict, room.curves))
    assert verdict.x() >= curves.x() + room.curves.width()
    assert room.scorecard.isVisibleTo(room)
    assert room.sentences.isVisibleTo(room)


def test_after_the_last_lift_the_far_view_says_what_the_cut_did(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(room="flow")
    qtbot.wait(5)
    far = window.rooms["flow"].far.far
    space = window.open_book.workspace
    assert space is not None
    assert space.pair is not None
    gain = space.findings.gain(space.pair)
    assert gain is not None
    assert far.phase == "ALL LIFTS DONE"
    assert far.sentence == gain.verdict.headline
    assert far.flow == gain_text(gain, US)
    assert "R repeats" in far.hint


@pytest.mark.parametrize("size", [(1280, 800), (1024, 700), (853, 533)])
def test_of_25_cuts_the_plates_looked_at_and_held_against_are_on_the_screen(
    open_window, qtbot, size: tuple[int, int]
) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    space = window.open_book.workspace
    job = space.job
    for number in range(len(space.port.cuts), 25):
        job = add_cut(job, space.port.id, Cut(id=f"more-{number}", number=0, name=f"pass {number}"))
    space.apply("many cuts", job)
    window.resize(*size)
    row = window.cut_row
    for looked, held in ((24, 23), (12, 11), (3, 2), (24, 23)):
        cuts = space.port.cuts
        space.look_at(cuts[looked].id)
        space.hold_against(cuts[held].id)

        def in_sight(*numbers: int) -> bool:
            plates = [row.plates[n] for n in numbers if n < len(row.plates)]
            whole = [p.visibleRegion().boundingRect().width() >= p.width() - 4 for p in plates]
            return len(plates) == len(numbers) and all(whole)

        qtbot.waitUntil(partial(in_sight, looked, held))
