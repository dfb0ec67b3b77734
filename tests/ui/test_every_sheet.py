"""Every sheet as a stranger treats it: opened by its command, small, with nonsense in each field, on a full disk, put
away with Esc. Nothing typed is lost, nothing wrong is stored, and every figure's sentence stands at its field."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
import shiboken6
from PySide6.QtCore import QPoint, QSettings, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QFileDialog, QLineEdit, QPlainTextEdit, QPushButton, QWidget

from tests.ui.conftest import DEMO, HEAD
from tests.ui.test_nothing_lost import refuse_writing
from ventrix.records.book.book import Book
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.ui.widgets.side_sheet import SideSheet, next_owner
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

Open = Callable[..., MainWindow]

# Command, and the key of its sheet.
SHEETS = {
    "job.new": "new_job",
    "cut.new": "cut",
    "cut.operation": "cut",
    "cut.seat": "seat",
    "cut.valves": "valves",
    "cut.fault": "fault",
    "cut.tube": "tube",
    "cut.wall": "wall",
    "cut.pour": "pour",
    "cut.scan": "scan",
    "cut.trial": "trial",
    "cut.parts": "parts",
    "air.traverse.new": "traverse",
    "claim": "claim",
    "call": "call",
    "benches": "benches",
}
# Sheets that rooms of a whole head open by a key of their own.
OF_ROOMS = (
    "engine", "result", "route", "stage", "wait", "copy", "job_parts", "quote", "face", "milling", "chamber", "template"
)  # fmt: skip
SHEETS |= {name: name for name in OF_ROOMS}
RECKON_ONLY = {"milling", "chamber", "template"}  # nothing of theirs is kept
FORMS = {key: name for key, name in SHEETS.items() if name != "benches"}
NONSENSE = ("twelve", "1e999", "-5", "0,0,0", "1/0", "9" * 40, "½½", "\t", "<b>x</b>", "=1+1", "nan in", "45 parsecs")


@pytest.fixture(autouse=True)
def no_dialogs(monkeypatch: pytest.MonkeyPatch) -> None:
    """A sheet that asks for a file is told: none."""
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: ("", ""))


@pytest.fixture(scope="module")
def standing(styled: QApplication, head_book: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[MainWindow]:
    """One window for tests that change nothing."""
    folder = tmp_path_factory.mktemp("standing")
    shutil.copy(head_book, folder / "book.sqlite")
    book = Book.open(folder / "book.sqlite")
    settings = QSettings(str(folder / "settings.ini"), QSettings.Format.IniFormat)
    window = MainWindow(OpenBook(book, Workspace.open(book, DEMO), settings))
    yield window
    window.close()
    shiboken6.delete(window)


@pytest.fixture
def shared(standing: MainWindow, qtbot) -> Iterator[MainWindow]:  # type: ignore[no-untyped-def]
    """It, as it opens, but for the keyboard: a window that is shown once more offscreen does not get it."""
    standing.resize(1280, 800)
    standing.show()
    qtbot.waitExposed(standing)
    yield standing
    standing.put_sheet_away()
    standing.hide()


def opened(window: MainWindow, command: str) -> SideSheet:
    wanted = HEAD if command in OF_ROOMS else DEMO
    space = window.open_book.workspace
    if space is not None and space.job.id != wanted:
        window.files.open_job(wanted)
    if command in OF_ROOMS:
        space_of(window).look_at_port("whole-intake-4")
        window.open_sheet(command)
    else:
        next(c for c in window.commands if c.id == command).run()
    QApplication.processEvents()
    sheet = window.sheets[SHEETS[command]]
    assert isinstance(sheet, SideSheet) and sheet.isVisible()
    return sheet


def space_of(window: MainWindow) -> Workspace:
    space = window.open_book.workspace
    assert space is not None
    return space


def lines(sheet: QWidget) -> Iterator[QLineEdit]:
    """Boxes that can be typed in, but for those inside of choices."""
    for box in sheet.findChildren(QLineEdit):
        if box.isVisibleTo(sheet) and box.isEnabled() and not isinstance(box.parent(), QComboBox):
            yield box


@pytest.mark.parametrize("command", SHEETS)
def test_it_fits_small_windows_and_goes_with_esc(shared: MainWindow, command: str) -> None:
    window = shared
    for size in ((1280, 800), (1024, 700), (853, 533)):
        window.resize(*size)
        sheet = opened(window, command)
        QApplication.processEvents()
        right, bottom = window.width(), window.height()
        corner = sheet.mapTo(window, QPoint(sheet.width(), sheet.height()))
        assert corner.x() <= right and corner.y() <= bottom, size
        if isinstance(sheet, FormSheet):
            direct = Qt.FindChildOption.FindDirectChildrenOnly
            for button in (sheet.take_button, *sheet.findChildren(QPushButton, options=direct)):
                end = button.mapTo(window, QPoint(button.width(), button.height()))
                assert button.isVisible() and end.x() <= right and end.y() <= bottom, (size, button.text())
    room = window.room
    QTest.keyClick(sheet, Qt.Key.Key_Escape)
    assert sheet.isHidden() and room.isVisible()


@pytest.mark.parametrize("command", FORMS)
def test_every_box_has_a_name_that_is_read_out(shared: MainWindow, command: str) -> None:
    window = shared
    sheet = opened(window, command)
    boxes = [*lines(sheet), *(b for b in sheet.findChildren(QComboBox) if b.isVisibleTo(sheet))]
    assert boxes
    for box in boxes:
        assert box.accessibleName(), f"{command}: {type(box).__name__} after {[b.accessibleName() for b in boxes]}"


@pytest.mark.parametrize("command", sorted(set(FORMS) - {"job.new"}))
def test_nonsense_in_every_figure_is_said_and_never_stored(open_window: Open, command: str) -> None:
    window = open_window(head=command in OF_ROOMS)
    for text in NONSENSE:
        sheet = opened(window, command)
        assert isinstance(sheet, FormSheet)
        before = space_of(window).job
        fields = [f for f in sheet.findChildren(QuantityField) if f.isEnabled()]
        for field in fields:
            field.box.setText(text)
            field.box.setModified(True)
            field.box.textEdited.emit(text)
            field.box.editingFinished.emit()
        sheet.try_taking()
        wrong = [f for f in fields if f.box.property("wrong")]
        for field in wrong:
            assert field.box.text() == text, "what was typed stays"
            assert field.box.accessibleDescription()
        if wrong:
            assert space_of(window).job == before, text
            assert sheet.isVisible() and sheet.problem.text()


@pytest.mark.parametrize("command", sorted(set(FORMS) - {"job.new"}))
def test_nonsense_in_every_text_harms_nothing(open_window: Open, command: str) -> None:
    window = open_window(head=command in OF_ROOMS)
    for text in ("\u202e\u0000 x".replace("\u0000", ""), "a" * 500, "<img src=x>", "'; DROP TABLE job; --", "🙂" * 20):
        sheet = opened(window, command)
        assert isinstance(sheet, FormSheet)
        for box in lines(sheet):
            if not isinstance(box.parent(), QuantityField):
                box.setText(text)
                box.textEdited.emit(text)
        for area in sheet.findChildren(QPlainTextEdit):
            area.setPlainText(text)
        sheet.try_taking()
        window.go_to_named("cuts")
        assert not window.grab().isNull()
    stored = space_of(window).book.load(space_of(window).job.id)
    assert stored == space_of(window).job, "what is shown is what is on disk"


@pytest.mark.parametrize("command", sorted(set(FORMS) - {"job.new"} - RECKON_ONLY))
def test_on_a_full_disk_it_says_so_and_keeps_what_was_typed(
    open_window: Open, command: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(head=command in OF_ROOMS)
    sheet = opened(window, command)
    assert isinstance(sheet, FormSheet)
    before = space_of(window).job
    for box in lines(sheet):
        if not box.text() and not isinstance(box.parent(), QuantityField):
            box.setText({"Where": "bowl", "Angles, chamber to throat": "45"}.get(box.accessibleName(), "0.3 40"))
    for area in sheet.findChildren(QPlainTextEdit):
        area.setPlainText("0.1 60\n0.2 110")
    for field in sheet.findChildren(QuantityField):
        if field.isEnabled() and not field.box.text():
            field.box.setText("0.1" if field.caption != "Poured volume" else "120")
            field.box.setModified(True)
    typed = [(box, box.text()) for box in lines(sheet)]
    refuse_writing(space_of(window).book, monkeypatch)
    QTest.keyClick(sheet.take_button, Qt.Key.Key_Space)
    assert space_of(window).job == before
    if sheet.isVisible():
        assert sheet.problem.text()
        # A figure is written anew in its unit when it is taken: "0.1" becomes "0.100".
        assert all(box.text() and (box.text() == was or box.text().startswith(was)) for box, was in typed if was)


def test_sheets_take_turns(shared: MainWindow) -> None:
    window = shared
    for command in SHEETS:
        opened(window, command)
        shown = [s for s in window.findChildren(SideSheet) if s.isVisible()]
        assert len(shown) == 1, command


def test_without_a_job_no_sheet_but_the_new_job_comes_up(open_window: Open) -> None:
    window = open_window(demo=False)
    for command in (c for c in window.commands if c.id in SHEETS and c.id != "job.new"):
        assert not command.run(), command.id
    assert not [s for s in window.findChildren(SideSheet) if s.isVisible()]
    opened(window, "job.new")


@pytest.mark.parametrize("command", sorted(SHEETS))
def test_tab_walks_every_field_of_a_sheet_and_wraps_inside(command: str, open_window: Open) -> None:
    """Down as it is read, each stop once, then from the top again; nothing hidden is stood on, nothing left out."""
    sheet = opened(open_window(head=command in OF_ROOMS, room="cuts"), command)
    stops = sheet.tab_stops()
    assert len(stops) > 1
    stops[0].setFocus()
    walked = []
    for _ in stops:
        here = QApplication.focusWidget()
        assert here is not None and (here is sheet or sheet.isAncestorOf(here)), command
        walked.append(next_owner(here, stops))
        sheet.focusNextPrevChild(True)
    assert walked == stops
    assert next_owner(QApplication.focusWidget(), stops) is stops[0], "and round"  # type: ignore[arg-type]
    sheet.focusNextPrevChild(False)
    assert next_owner(QApplication.focusWidget(), stops) is stops[-1]  # type: ignore[arg-type]
    fields = [w for w in (*lines(sheet), *sheet.findChildren(QComboBox)) if w.isVisibleTo(sheet) and w.isEnabled()]
    for field in fields:
        if not isinstance(field.parentWidget(), QComboBox):
            assert next_owner(field, stops) is not None, field.accessibleName()
