"""The one table: copy, paste, sort, CSV, and Tab that goes on."""

from __future__ import annotations

import csv
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit, QVBoxLayout, QWidget

from ventrix.ui.widgets.table import Table
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]


@pytest.fixture
def table(qtbot) -> Table:  # type: ignore[no-untyped-def]
    found = Table("Cuts", sorts=True)
    qtbot.addWidget(found)
    found.verticalHeader().hide()
    found.fill([["b", "▲ +9.5", "=1+1"], ["a", "▼ −12.0", "x"], ["c", "+2", "-"]], ["name", "gain", "note"])
    return found


def test_copies_without_marks_and_with_a_plain_minus(table: Table) -> None:
    table.copy()
    lines = QApplication.clipboard().text().split("\n")
    assert lines[0] == "name\tgain\tnote" and lines[2] == "a\t-12.0\tx"


def test_sorts_figures_as_figures(table: Table) -> None:
    table.sortItems(1)
    assert [table.text_at(r, 0) for r in range(3)] == ["a", "c", "b"]


def test_csv_keeps_figures_and_takes_the_sting_out_of_formulas(table: Table, tmp_path: Path) -> None:
    path = tmp_path / "out.csv"
    assert table.write(path)
    rows = list(csv.reader(path.read_text(encoding="utf-8").splitlines()))
    assert rows[1] == ["b", "+9.5", "'=1+1"] and float(rows[2][1]) == -12.0


def test_a_folder_in_the_way_is_said(table: Table, tmp_path: Path) -> None:
    said: list[str] = []
    table.said.connect(said.append)
    assert not table.write(tmp_path)
    assert said


@pytest.mark.parametrize("edits", [False, True])
def test_tab_goes_on_to_the_next_field(qtbot, edits: bool) -> None:  # type: ignore[no-untyped-def]
    page = QWidget()
    qtbot.addWidget(page)
    table, after = Table("Cuts", edits=edits), QLineEdit()
    column = QVBoxLayout(page)
    column.addWidget(table)
    column.addWidget(after)
    table.fill([["1", "2"], ["3", "4"]], ["a", "b"])
    page.show()
    qtbot.waitExposed(page)
    table.setFocus()
    table.setCurrentCell(0, 0)
    QTest.keyClick(table, Qt.Key.Key_Tab)
    assert page.focusWidget() is after


def test_condition_lets_tab_pass_and_drawing_fields_open_no_window(open_window: Open) -> None:
    window = open_window(room="head")
    casting = window.rooms["head"].pages[2]
    assert casting.condition.tabChangesFocus()  # type: ignore[attr-defined]
    field = window.rooms["head"].fields["throat_diameter"]
    field.set_value(0.03, note="carried from cut 0")
    field.show_beside(0.04, differs=True)
    field.refuse("That is larger than the valve.")
    assert [w for w in QApplication.topLevelWidgets() if w.isVisible() and w is not window] == []


@pytest.mark.parametrize("where", ["name", "places", "minutes", "volume"])
def test_enter_takes_a_sheet_from_any_of_its_fields_once(open_window: Open, where: str) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None and space.port is not None
    before = len(space.port.cuts)
    window.sheets["cut"].open("bowl")
    window.sheets["cut"].name.setText("bowl blended")
    widget = getattr(window.sheets["cut"], where)
    QTest.keyClick(getattr(widget, "box", widget), Qt.Key.Key_Return)
    assert len(space.port.cuts) == before + 1
    assert window.sheets["cut"].isHidden()
