"""Commands of the menus, the window's memory, and starting from the command line."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QImage
from PySide6.QtWidgets import QApplication, QMessageBox

from ventrix.core.model.kinds import CutKind
from ventrix.demo.job import demo_job
from ventrix.records.book.book import Book
from ventrix.records.files.job_document import read_job, write_job
from ventrix.ui import launch
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]


def action(window: MainWindow, words: str) -> QAction:
    for head in window.menuBar().actions():
        menu = head.menu()
        for each in menu.actions():  # type: ignore[union-attr]
            if words in each.text().replace("&", ""):
                return each
    raise AssertionError(words)


def test_every_command_with_a_shortcut_shows_it_once(open_window: Open) -> None:
    window = open_window()
    keys = [
        each.shortcut().toString()
        for head in window.menuBar().actions()
        for each in head.menu().actions()  # type: ignore[union-attr]
        if not each.shortcut().isEmpty()
    ]
    assert len(keys) == len(set(keys))
    assert {"Ctrl+K", "F1", "Ctrl+T", "Ctrl+Z"} <= set(keys)


def test_walking_the_row_by_keyboard(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    action(window, "Look at the cut before").trigger()
    assert space.cut is not None
    assert space.cut.number == 2
    action(window, "Compare with the cut before").trigger()
    assert space.against is not None
    first = space.against.number
    action(window, "Compare with the next cut").trigger()
    assert space.against.number != first
    action(window, "Look at the next cut").trigger()
    assert space.cut.number == 3
    action(window, "Look at the next cut").trigger()
    assert space.cut.number == 3  # the end of the row


def test_ports_come_and_are_walked(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    action(window, "Next port").trigger()
    assert space.port is not None
    assert space.port.kind == "exhaust"
    action(window, "New intake port").trigger()
    assert space.port.name == "Intake 2"
    assert [c.name for c in space.port.cuts] == ["as received"]
    assert "new port 'Intake 2'" in (space.undo_name or "")
    space.undo()
    assert [p.name for p in space.job.ports] == ["Intake 1", "Exhaust 1", "Intake 4", "Intake 3"]


def test_commands_with_nothing_to_act_on_do_no_harm(open_window: Open) -> None:
    window = open_window(demo=False)
    for words in (
        "Undo",
        "Redo",
        "Next port",
        "Look at the next cut",
        "Compare with the next cut",
        "New intake port",
        "New cut",
    ):
        action(window, words).trigger()
    assert window.open_book.workspace is None
    assert not window.sheets["cut"].isVisible()


def test_a_cut_needs_a_name(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    action(window, "New cut").trigger()
    assert window.sheets["cut"].isVisible()
    window.sheets["cut"].log()
    assert "short name" in window.sheets["cut"].problem.text()
    window.sheets["cut"].minutes.box.setText("30")
    qtbot.keyClick(window.sheets["cut"], Qt.Key.Key_Escape)
    assert not window.sheets["cut"].isVisible()
    action(window, "New cut").trigger()
    assert window.sheets["cut"].minutes.box.text() == "30"  # nothing typed is lost


@pytest.mark.parametrize("kind", ["port", "valve", "chamber", "clean", "finish"])
def test_every_kind_of_cut_has_its_caution(open_window: Open, kind: str) -> None:
    window = open_window()
    window.sheets["cut"].open()
    window.sheets["cut"].kinds.choose((CutKind(kind),))
    assert len(window.sheets["cut"].caution.text()) > 40
    window.sheets["cut"].name.setText("x")
    window.sheets["cut"].log()
    assert window.open_book.workspace is not None
    assert window.open_book.workspace.cut is not None
    assert window.open_book.workspace.cut.kinds == (kind,)


def test_the_window_remembers_itself(open_window: Open) -> None:
    window = open_window()
    window.open_book.use_units("metric")
    window.go_to(1)
    settings = window.open_book.settings
    assert settings.value("units") == "metric"
    assert settings.value("room") == "flow"
    window.close()
    assert settings.value("window") is not None


def test_jobs_in_and_out_of_the_window(open_window: Open, tmp_path: Path) -> None:
    window = open_window(demo=False)
    write_job(demo_job(), tmp_path / "job.json")
    assert window.files.bring_in_job(tmp_path / "job.json")
    assert window.open_book.workspace is not None
    assert window.open_book.workspace.job == demo_job()
    assert window.files.bring_in_job(tmp_path / "job.json")  # a second time opens the book's own
    assert "in the book already" in window.foot.said.toolTip()
    (tmp_path / "bad.json").write_text("{", encoding="utf-8")
    assert not window.files.bring_in_job(tmp_path / "bad.json")
    assert "line 1" in window.foot.said.toolTip()
    assert window.open_book.workspace.job == demo_job()
    assert read_job(tmp_path / "job.json") == demo_job()


def test_wide_book_names_do_not_push_the_bar(open_window: Open) -> None:
    from dataclasses import replace

    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.apply("title", replace(space.job, title="A head with a name far too long for any bar " * 4))
    assert window.job_bar.title.text().endswith("…")
    assert window.width() <= 1280


@pytest.mark.parametrize("room", ["head", "compare"])
def test_shots_from_the_command_line(tmp_path: Path, room: str) -> None:
    path = tmp_path / "room.png"
    done = subprocess.run(
        [sys.executable, "-m", "ventrix", "--demo", "--shot", f"{room}={path}"],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0
    assert "Traceback" not in done.stderr
    image = QImage(str(path))
    assert (image.width(), image.height()) == (1280, 800)


def test_a_run_table_opens_in_a_new_job(tmp_path: Path, write_table: Callable[..., Path]) -> None:
    table = write_table("mine.csv", "1,31.2\n2,62")
    path = tmp_path / "room.png"
    command = [sys.executable, "-m", "ventrix", str(table), "--shot", f"flow={path}"]
    assert subprocess.run(command, capture_output=True, check=False).returncode == 0
    assert path.exists()
    bad = write_table("bad.csv", "1,abc")
    done = subprocess.run([*command[:3], str(bad), *command[4:]], capture_output=True, text=True, check=False)
    assert done.returncode == 2
    assert "line 11, reading_cfm" in done.stderr


def test_ids_and_keys_are_one_command_each(open_window: Open) -> None:
    window = open_window()
    everywhere = window.commands
    assert len({c.id for c in everywhere}) == len(everywhere)
    keys = [c.keys for c in everywhere if c.keys]
    assert len(set(keys)) == len(keys)
    for room in window.rooms.values():
        own = [c.keys for c in room.commands if c.keys]
        assert len(set(own)) == len(own), room.name
        assert set(own) & set(keys) == set(room.overrides), f"{room.name} says which menu keys it takes"


def test_a_command_that_was_greyed_hears_its_keys_when_the_time_has_come(open_window: Open, tmp_path: Path) -> None:
    window = open_window(demo=False)
    export = action(window, "Write job document")
    menu = next(head.menu() for head in window.menuBar().actions() if "File" in head.text())
    menu.aboutToShow.emit()  # type: ignore[union-attr]
    assert not export.isEnabled()
    menu.aboutToHide.emit()  # type: ignore[union-attr]
    assert export.isEnabled()
    export.trigger()  # no job: nothing happens, and nothing is asked


def test_the_manual_lists_every_key_there_is(open_window: Open) -> None:
    window = open_window()
    window.open_manual("keys")
    assert window.manual is not None
    text = window.manual.browser.toPlainText()
    for command in (*window.commands, *(c for room in window.rooms.values() for c in room.commands)):
        if command.keys:
            assert command.name in text, command.id


def test_rooms_keys_are_found_and_done_from_the_finder(open_window: Open) -> None:
    window = open_window()
    window.go_to_named("compare")
    was = window.rooms["compare"].over_ratio
    next(f for f in window._findable() if f.name == "lift or L/D").do()
    assert window.rooms["compare"].over_ratio != was


def test_every_menu_fits_a_window_700_px_high(open_window: Open) -> None:
    window = open_window()
    for action in window.menuBar().actions():
        menu = action.menu()
        assert menu.sizeHint().height() <= 640, f"{action.text()} is {menu.sizeHint().height()} px"


def test_the_book_is_copied_and_put_back_from_its_menu(
    open_window: Open, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    window = open_window()
    book, space = window.open_book.book, window.open_book.workspace
    assert book.path is not None and space is not None
    was = space.job.title
    next(c for c in window.commands if c.id == "book.backup").run()
    assert "is copied to" in window.open_book.last_said
    space.apply("title", replace(space.job, title="spoilt"))
    copies = next(c for c in window.commands if c.id == "book.restore").below
    assert copies is not None
    (copy,) = copies()
    leave, put_back = "Leave it", "Put it back"
    pressed = leave
    monkeypatch.setattr(QMessageBox, "exec", lambda _self: 0)
    monkeypatch.setattr(
        QMessageBox, "clickedButton", lambda self: next(b for b in self.buttons() if b.text() == pressed)
    )
    copy.run()
    assert not window.closed and not window.open_book.put_back_to
    pressed = put_back
    copy.run()
    assert window.closed
    launch._put_back(book.path, window.open_book.put_back_to)
    assert "what it was lies at" in capsys.readouterr().out
    with Book.open(book.path) as again:
        assert again.load(space.job.id).title == was


def test_about_is_copied_for_a_report(open_window: Open, monkeypatch: pytest.MonkeyPatch) -> None:
    window = open_window(demo=False)
    monkeypatch.setattr(QMessageBox, "exec", lambda _self: 0)
    copy = "Copy for a report"
    monkeypatch.setattr(QMessageBox, "clickedButton", lambda self: next(b for b in self.buttons() if b.text() == copy))
    window.run_command("about")
    assert QApplication.clipboard().text().startswith("Ventrix ")
