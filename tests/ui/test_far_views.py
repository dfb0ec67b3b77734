"""Every room that is used at the bench, read at two metres: F11 in and out, Esc out, large, and said on the screen."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt

from tests.ui.stand_in import Open
from ventrix.ui.widgets.far_page import BACK, FarPage


@pytest.mark.parametrize(
    ("key", "words"), [("cuts", "read the wall first"), ("plan", "Next: "), ("match", "Intake 1: ")]
)
def test_the_far_view_takes_the_window_and_gives_it_back(key: str, words: str, open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.resize(1024, 700)
    window.go_to_named(key)
    room = window.rooms[key]
    if key == "plan":
        qtbot.waitUntil(lambda: not room.planner.busy, timeout=30_000)
    far = next(c for c in window.commands if c.id == "far")
    assert far.keys == "F11"
    far.run()
    page = room.findChild(FarPage)
    assert room.alone and page is not None and page.isVisible() and page.size() == room.size()
    assert not window.rail.isVisible() and not window.menuBar().isVisible()
    assert words in page.accessibleDescription()
    assert page.type_size() * max(line.large for line in page.lines) >= 32, "a thumb's breadth of type at two metres"
    assert page._height(page.type_size()) <= page.height(), "all of it is there"
    assert "Esc" in BACK
    qtbot.keyClick(room, Qt.Key.Key_Escape)
    assert not room.alone and not page.isVisible() and window.rail.isVisible()
    far.run()
    far.run()
    assert not room.alone and window.rail.isVisible()
