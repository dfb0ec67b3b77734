"""No sentence stands twice on a screen: in any room, and in any sheet beside one, with the demo's job and with none."""

from __future__ import annotations

import re
from collections import Counter

import pytest
from PySide6.QtWidgets import QApplication, QLabel

from tests.ui.stand_in import Open
from ventrix.ui.window.main_window import MainWindow

A_FEW_WORDS = 4  # fewer are an answer or a caption: "Yes.", "Not read yet."


def _twice(window: MainWindow) -> list[str]:
    QApplication.processEvents()
    shown = (re.sub("<[^>]*>", " ", x.text()) for x in window.findChildren(QLabel) if x.isVisible())
    said = Counter(s.strip() for text in shown for s in re.split(r"(?<=[.?!])\s+|\n", text))
    return [
        s for s, count in said.items() if count > 1 and s.endswith((".", "?", "!")) and len(s.split()) >= A_FEW_WORDS
    ]


@pytest.mark.parametrize("demo", [True, False], ids=["the demo's job", "an empty book"])
def test_no_sentence_stands_twice(open_window: Open, demo: bool) -> None:
    window = open_window(demo=demo)
    for name in window.rooms:
        window.open_book.ways.room(name)
        assert _twice(window) == [], name
    window.open_book.ways.room("flow")
    for name in window.sheets:
        window.sheets[name].come_up()
        assert _twice(window) == [], name
