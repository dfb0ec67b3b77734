"""The first minute: an empty book, three questions, the demo head, a file dropped."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QPushButton

from ventrix.core.model.kinds import Use
from ventrix.demo.job import demo_job
from ventrix.records.files.job_document import write_job
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]


def test_three_questions_make_every_port_and_open_in_head(open_window: Open) -> None:
    window = open_window(demo=False)
    window.sheets["new_job"].open()
    sheet = window.sheets["new_job"]
    sheet.name.setText("four cylinders")
    sheet.head.setCurrentIndex(sheet.head.findData(4))
    sheet.cylinders.setText("four")
    sheet.take()
    assert "is not a number of cylinders" in sheet.problem.text() and sheet.name.text() == "four cylinders"
    sheet.cylinders.setText("4")
    sheet.use.setCurrentIndex(sheet.use.findData("truck"))
    assert "exhaust first" in sheet.about.text()
    sheet.take()
    space = window.open_book.workspace
    assert space is not None and window.rooms["head"].isVisible() and sheet.isHidden()
    names = [p.name for p in space.job.ports]
    assert names == [f"{kind} {n}" for n in range(1, 5) for kind in ("Intake", "Exhaust")]
    assert {p.valves for p in space.job.ports} == {2} and space.job.use == Use.TRUCK
    assert "exhaust first" in window.rooms["head"].pages[1].order.text()  # type: ignore[attr-defined]


def test_every_question_may_be_skipped(open_window: Open) -> None:
    window = open_window(demo=False)
    for expected in ("New job", "New job 2"):
        window.sheets["new_job"].open()
        QTest.keyClick(window.sheets["new_job"].name, Qt.Key.Key_Return)
        space = window.open_book.workspace
        assert space is not None and space.job.title == expected
        assert [p.name for p in space.job.ports] == ["Intake 1", "Exhaust 1"] and space.job.use is None


def test_without_a_bench_the_three_answers_give_the_first_stage(open_window: Open) -> None:
    window = open_window(demo=False)
    window.welcome.stages.click()
    sheet = window.sheets["new_job"]
    assert sheet.first.text().startswith("First, intake 1: clean.")
    sheet.use.setCurrentIndex(sheet.use.findData("truck"))
    assert sheet.first.text().startswith("First, exhaust 1: clean."), "a truck's exhaust comes first"
    sheet.bench.setCurrentIndex(sheet.bench.findData(""))
    assert "flow a port as received" in sheet.first.text()
    sheet.bench.setCurrentIndex(sheet.bench.findData("no bench"))
    sheet.take()
    space = window.open_book.workspace
    assert space is not None and space.port is not None and space.port.name == "Exhaust 1"
    assert window.rooms["plan"].isVisible() and window.sheets["route"].isVisible()
    window.sheets["route"].take()
    assert [(m.stage, m.closed_by) for m in space.job.stage_marks] == [("clean", "gauge")]


@pytest.mark.parametrize(("valves", "ports"), [(2, [1, 1]), (3, [2, 1]), (5, [3, 2])])
def test_valves_of_a_cylinder_are_shared_out(open_window: Open, valves: int, ports: list[int]) -> None:
    window = open_window(demo=False)
    sheet = window.sheets["new_job"]
    sheet.open()
    sheet.head.setCurrentIndex(sheet.head.findData(valves))
    sheet.take()
    space = window.open_book.workspace
    assert space is not None and [p.valves for p in space.job.ports] == ports


def test_the_simulated_bench_can_be_chosen_at_once(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.sheets["new_job"].open()
    box = window.sheets["new_job"].bench
    box.setCurrentIndex(box.findData("simulated"))
    window.sheets["new_job"].take()
    qtbot.waitUntil(lambda: window.open_book.bench.connected, timeout=5000)


def test_the_welcome_opens_the_demo_head_and_jobs_of_the_book(open_window: Open) -> None:
    window = open_window(demo=False)
    welcome = window.welcome
    assert welcome.isVisible() and welcome.recent.count() == 0
    welcome.look.click()
    space = window.open_book.workspace
    assert space is not None and space.job.title == demo_job().title and welcome.isHidden()
    welcome.look.click()
    assert len(window.open_book.book.jobs()) == 1, "a second look brings no second copy"
    welcome.show_recent([(space.job.id, space.job.title)])
    buttons = [welcome.recent.itemAt(i).widget() for i in range(welcome.recent.count())]
    assert isinstance(buttons[0], QPushButton) and buttons[0].text() == demo_job().title
    buttons[0].click()


def drop(window: MainWindow, path: Path) -> None:
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    left = Qt.MouseButton.LeftButton
    window.dropEvent(
        QDropEvent(QPointF(400, 300), Qt.DropAction.CopyAction, data, left, Qt.KeyboardModifier.NoModifier)
    )


def test_a_document_or_a_table_dropped_on_the_window_comes_in(
    open_window: Open, tmp_path: Path, write_table: Callable[..., Path]
) -> None:
    window = open_window(demo=False)
    drop(window, write_table("in.csv", "1,31.2\n2,62.0"))
    space = window.open_book.workspace
    assert space is not None and len(list(space.job.runs())) == 1
    path = tmp_path / "head.json"
    write_job(demo_job(), path)
    drop(window, path)
    assert window.open_book.workspace is not None and window.open_book.workspace.job == demo_job()
    (tmp_path / "note.json").write_text("hello", encoding="utf-8")
    drop(window, tmp_path / "note.json")
    assert "note.json" in window.foot.said.toolTip() and window.open_book.workspace.job == demo_job()
