"""With a sheet open beside it, no room that is used with one scrolls sideways."""

from __future__ import annotations

import pytest
from PySide6.QtWidgets import QApplication

from tests.ui.stand_in import Open
from ventrix.ui.cuts.room import LEAST_BESIDE


@pytest.mark.parametrize("size", [(1280, 800), (1280, 781), (1024, 700), (853, 533)])
def test_cuts_folds_its_card_and_needs_no_bar_below(open_window: Open, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.resize(*size)
    window.go_to_named("cuts")
    room = window.rooms["cuts"]
    frame = window._frames[room]
    for sheet in ("wall", "cut", "fault", "pour", "seat"):
        window.open_sheet(sheet)
        for _ in range(3):
            QApplication.processEvents()
        if frame.isVisible():  # in the smallest windows a sheet has them to itself
            assert frame.horizontalScrollBar().maximum() == 0, (size, sheet)
            assert room.card.geometry().right() <= room.width()
            assert room.keys.geometry().top() >= room.map.geometry().bottom(), "nothing lies over the map"
        window.put_sheet_away()
    qtbot.waitUntil(lambda: (room.card.x() > room.map.x()) == (room.width() >= LEAST_BESIDE))
