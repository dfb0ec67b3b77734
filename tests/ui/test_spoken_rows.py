"""Painted lists have rows that a screen reader hears, by Qt's own accessibility interface."""

from __future__ import annotations

from PySide6.QtGui import QAccessible
from PySide6.QtWidgets import QApplication, QWidget

from tests.ui.stand_in import Open
from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.lineup.views import EdgeList
from ventrix.ui.match.board_view import BoardView
from ventrix.ui.match.head_view import HeadView
from ventrix.ui.practice.shelf import RowList
from ventrix.ui.sheet.parts_list import PartsList


def heard(of: QWidget) -> list[str]:
    """What a reader finds below a part."""
    seen = QAccessible.queryAccessibleInterface(of)
    return [seen.child(i).text(QAccessible.Text.Name) for i in range(seen.childCount())]


def test_every_row_is_heard_and_none_is_in_the_way(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(head=True)

    def part(room: str, kind: type[QWidget]) -> QWidget:
        window.go_to_named(room)
        QApplication.processEvents()
        return window.room.findChildren(kind)[0]

    ladder = part("flow", LiftLadder)
    assert isinstance(ladder, LiftLadder) and len(heard(ladder)) == len(ladder.rungs) > 3
    head, board = part("match", HeadView), part("match", BoardView)
    assert isinstance(head, HeadView) and isinstance(board, BoardView)
    assert [words.split(",")[0] for words in heard(head)] == [cell.port.name for _, cell in head.boxes()]
    assert len(heard(board)) == len(board.rows) and "Intake 1" in heard(board)[0]
    edges = part("lineup", EdgeList)
    assert isinstance(edges, EdgeList) and len(heard(edges)) == len(edges.lines) > 0
    parts = part("sheet", PartsList)
    assert isinstance(parts, PartsList) and any("on the sheet" in words for words in heard(parts))
    shelf = part("practice", RowList)
    assert isinstance(shelf, RowList) and any("Four intakes of one casting" in words for words in heard(shelf))
    box, cell = head.boxes()[2]
    window.go_to_named("match")
    over = head.childAt(box.center().toPoint())
    assert over is None, "a click goes to the picture"
    window.rooms["match"]._pick_port(cell.port.id)
    assert head.chosen == cell.port.id
