"""What a porter types is shown as it was typed: no name is taken for markup, wherever it is told."""

from __future__ import annotations

from dataclasses import replace

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QLabel, QToolTip

from tests.ui.stand_in import Open
from ventrix.ui.widgets.rich_label import RichLabel

MARKED = '<img src="gone.png"><b>Bo</b>'


@pytest.mark.parametrize(
    "name", [MARKED, MARKED + "long" * 2500, f"\u202e{MARKED}\u0007"], ids=["short", "long", "odd"]
)
def test_no_label_takes_a_name_for_markup(open_window: Open, qtbot: object, name: str) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    ports = tuple(
        replace(p, name=name + p.name, cuts=tuple(replace(c, name=name, note=name) for c in p.cuts))
        for p in space.job.ports
    )
    space.apply("names", replace(space.job, title=name, note=name, condition=name, ports=ports), "Named.")
    told = 0
    for room in window.rooms:
        window.open_book.ways.room(room)
        QApplication.processEvents()
        for label in window.findChildren(QLabel):
            if "<img" in label.text() and label.isVisible():
                told += 1
                assert label.textFormat() == Qt.TextFormat.PlainText, (room, label.text()[:200])
            elif isinstance(label, RichLabel):
                assert label.textFormat() == Qt.TextFormat.RichText
    assert told >= 10, "the name stands in most rooms"


@pytest.mark.parametrize("words", [MARKED, "2 < 3"])
def test_a_tip_is_plain_too(open_window: Open, words: str) -> None:
    window = open_window(demo=False)
    QToolTip.showText(window.mapToGlobal(QPoint(40, 40)), words, window)
    QApplication.processEvents()
    (tip,) = (w for w in QApplication.topLevelWidgets() if isinstance(w, QLabel) and w.text() == words)
    assert tip.textFormat() == Qt.TextFormat.PlainText
    QToolTip.hideText()
