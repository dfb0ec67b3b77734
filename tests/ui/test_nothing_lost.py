"""Nothing is shown as kept that is not on disk; two windows on one book; a bench that falls silent."""

from __future__ import annotations

import sqlite3
import sys
from collections.abc import Iterator
from dataclasses import replace
from datetime import date
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QSettings, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication

from tests.at_work import record
from tests.ui.stand_in import Open, counted
from ventrix.bench.links.tcp import host_and_port
from ventrix.bench.procedure.flow_procedure import Phase
from ventrix.core.edits.cuts import edit_cut, edit_port
from ventrix.core.edits.runs import add_reading
from ventrix.core.edits.stages import mark_stage
from ventrix.core.model.bench import Bench
from ventrix.core.model.job_parts import Face
from ventrix.core.model.run import Reading
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.whole_head import whole_head
from ventrix.records.bad_input import BookError, Conflict
from ventrix.records.book.book import Book
from ventrix.ui.log_file import log_path
from ventrix.ui.match.room import HELD
from ventrix.ui.window.main_window import MainWindow
from ventrix.ui.window.safety import Safety
from ventrix.workspace.workspace import Workspace


def fill(book: Book) -> None:
    """Leave the disk no page more than the book has: what a full disk does."""
    with book.store.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
        connection.exec_driver_sql(f"PRAGMA max_page_count={pages}")
    book.store.engine.pool.dispose()
    from sqlalchemy import event

    @event.listens_for(book.store.engine, "connect")
    def _full(connection: sqlite3.Connection, _record: object) -> None:
        connection.execute(f"PRAGMA max_page_count={pages}")


def grow_until_refused(space: Workspace) -> None:
    for i in range(400):
        space.apply("note", replace(space.job, note="x" * 15_000 + str(i), condition="y" * 15_000))


def refuse_writing(book: Book, monkeypatch: pytest.MonkeyPatch, sentence: str = "the disk is full") -> None:
    def refused(*_pairs: object, **_more: object) -> None:
        raise BookError(sentence)

    monkeypatch.setattr(book, "write", refused)


def test_a_full_disk_is_said_in_words(tmp_path: Path) -> None:
    book = Book.open(tmp_path / "book.sqlite")
    book.add_job(demo_job())
    space = Workspace.open(book, demo_job().id)
    fill(book)
    had = space.job
    with pytest.raises(BookError, match="the disk is full"):
        grow_until_refused(space)
    with Book.open(tmp_path / "book.sqlite") as again:
        assert again.load(had.id) == space.job  # what the window holds is what is on disk
    book.close()


def test_kept_is_not_shown_before_it_is_on_disk(foot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    lift, flow = to_si(0.05, "in"), to_si(24, "cfm")
    bench.feed(lift, flow)
    real = window.open_book.book.write
    refuse_writing(window.open_book.book, monkeypatch)
    step("press")
    assert window.rooms["flow"].far.far.phase.startswith("NOT KEPT 0.050. The disk is full.")
    assert window.rooms["flow"].far.far.ground == "refused"
    assert window.foot.said.text().startswith("▼ 0.050 is not kept")
    assert window.rooms["flow"].hand.test.lift == pytest.approx(lift)  # the plan stands still
    assert counted(window) == {}
    bench.feed(lift, 2 * flow)  # the reading in hand stays what it was
    step("press")
    assert counted(window) == {}
    monkeypatch.setattr(window.open_book.book, "write", real)
    step("press")
    assert window.rooms["flow"].far.far.phase == "KEPT 0.050"
    space = window.open_book.workspace
    assert space is not None
    kept = window.open_book.book.load(space.job.id).ports[0].cuts[0].runs[0].readings
    assert [round(r.flow / flow, 2) for r in kept if r.flow] == [1.0]
    assert not window.foot.said.text().startswith("▼")


def test_what_was_typed_stays_in_its_field(foot, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    window.open_book.bench.connected = False
    window.rooms["flow"].refresh()
    real = window.open_book.book.write
    refuse_writing(window.open_book.book, monkeypatch)
    qtbot.keyClicks(window.rooms["flow"], "2")
    qtbot.keyClicks(window.rooms["flow"].entry, "4.5")
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert window.rooms["flow"].entry.text() == "24.5"
    assert "NOT KEPT" in window.rooms["flow"].far.far.phase
    monkeypatch.setattr(window.open_book.book, "write", real)
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert counted(window) == {50: 1}
    assert window.rooms["flow"].entry.text() == ""


@pytest.fixture
def safety(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> Iterator[Safety]:
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    had = sys.excepthook
    made = Safety()
    made.install()
    yield made
    made.remove()
    sys.excepthook = had


def test_an_edit_of_any_room_that_is_refused_is_said_and_the_field_keeps_it(  # type: ignore[no-untyped-def]
    open_window: Open, safety: Safety, qtbot, monkeypatch
) -> None:
    window = open_window()
    safety.watch(window.open_book)
    window.go_to_named("head")
    field = window.rooms["head"].fields["throat_diameter"]
    refuse_writing(window.open_book.book, monkeypatch)
    field.box.setFocus()
    field.box.selectAll()
    qtbot.keyClicks(field.box, "1.6")
    qtbot.keyClick(field.box, Qt.Key.Key_Return)
    assert field.box.text() == "1.6"
    assert "The disk is full" in window.foot.said.text()


@pytest.fixture
def whole(open_window: Open, safety: Safety) -> MainWindow:
    """The Match room on a head of eight ports, at a box of the board that is open."""
    window = open_window(head=True, room="match")
    safety.watch(window.open_book)
    space = window.open_book.workspace
    assert space is not None
    space.look_at_port("whole-exhaust-3")
    while window.rooms["match"].stage_name != "guide":
        window.rooms["match"].step_stage(1)
    window.rooms["match"].setFocus()
    return window


@pytest.mark.parametrize("held", [False, True])
def test_a_stage_that_is_refused_is_not_shown_as_done(  # type: ignore[no-untyped-def]
    whole: MainWindow, qtbot, monkeypatch, held: bool
) -> None:
    room, space = whole.rooms["match"], whole.open_book.workspace
    assert space is not None and room.match is not None
    had, cells = space.job, room.match.cells
    refuse_writing(whole.open_book.book, monkeypatch)
    qtbot.keyPress(room, Qt.Key.Key_M)
    if held:
        qtbot.wait(HELD + 150)
    release = QKeyEvent(QEvent.Type.KeyRelease, Qt.Key.Key_M, Qt.KeyboardModifier.NoModifier)
    QApplication.postEvent(room, release)  # through the loop, where the window catches what a key was refused
    qtbot.wait(50)
    assert space.job is had
    assert room.match.cells == cells and room.board.clock == ""
    assert "The disk is full" in whole.foot.said.text()


def test_a_refused_face_stays_in_its_sheet(whole: MainWindow, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    whole.go_to_named("lineup")
    assert whole.rooms["lineup"].shown is not None
    lines = whole.rooms["lineup"].shown.lines
    sheet = whole.sheets["face"]
    sheet.open()
    typed = "Intake 1 -2 0; Intake 2 2 0"
    sheet.name.setText("own gasket")
    sheet.ports.setText(typed)
    for field, text in ((sheet.wide, "1.2"), (sheet.high, "1.9")):
        field.box.setText(text)
        field.box.setModified(True)
    refuse_writing(whole.open_book.book, monkeypatch)
    qtbot.keyClick(sheet.take_button, Qt.Key.Key_Space)
    assert sheet.isVisible() and sheet.ports.text() == typed
    assert "the disk is full" in sheet.problem.text().lower()
    assert whole.rooms["lineup"].shown.lines == lines


def test_a_fault_of_ours_is_logged_and_said(open_window: Open, safety: Safety) -> None:
    window = open_window()
    safety.watch(window.open_book)
    try:
        raise ZeroDivisionError("a fault")
    except ZeroDivisionError as error:
        safety.caught(type(error), error, error.__traceback__)
    assert "Something went wrong" in window.foot.said.toolTip()
    assert "ZeroDivisionError: a fault" in log_path().read_text(encoding="utf-8")


# -- two windows on one book


@pytest.fixture
def two(tmp_path: Path) -> Iterator[tuple[Workspace, Workspace]]:
    path = tmp_path / "book.sqlite"
    books = Book.open(path), Book.open(path)
    books[0].add_job(demo_job(), benches=demo_benches())
    yield tuple(Workspace.open(b, demo_job().id) for b in books)  # type: ignore[misc]
    for book in books:
        book.close()


def test_both_windows_edits_are_there(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    cut, port = one.job.ports[0].cuts[1], one.job.ports[0]
    one.apply("bore", replace(one.job, bore=0.090))
    other.apply("name", edit_cut(other.job, cut.id, lambda c: replace(c, name="deeper bowl")))
    other.apply("stroke", replace(other.job, stroke=0.091))
    disk = one.book.load(one.job.id)
    assert (disk.bore, disk.stroke, disk.port(port.id).cuts[1].name) == (0.090, 0.091, "deeper bowl")
    assert one.look_for_changes()
    assert one.job == other.job == disk
    assert not one.look_for_changes()


def test_the_same_figure_changed_in_both_is_refused_with_both_values(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    one.apply("bore", replace(one.job, bore=0.090))
    with pytest.raises(Conflict, match=r"bore: another window made it 90 mm, here it is 91 mm"):
        other.apply("bore", replace(other.job, bore=0.091))
    assert one.book.load(one.job.id).bore == 0.090
    assert other.job.bore == demo_job().bore  # nothing happened here


def reading(name: str) -> Reading:
    return Reading(id=name, lift=0.003, flow=0.03)


def test_what_gained_readings_meanwhile_is_not_taken_out(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    last = one.job.ports[0].cuts[-1]
    run = last.runs[0]
    one.apply("keep", add_reading(one.job, run.id, reading("late")))
    port = other.job.ports[0]
    with pytest.raises(Conflict, match="has gained 1 reading in another window"):
        other.apply("take out", edit_port(other.job, port.id, lambda p: replace(p, cuts=p.cuts[:-1])))
    assert "late" in {r.id for r in other.book.load(other.job.id).ports[0].cuts[-1].runs[0].readings}


def test_an_undo_takes_no_reading_of_another_window_along(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    cut = one.job.ports[0].cuts[-1]
    setup = one.job.setup(cut.runs[0].setup_id)
    one.look_at(cut.id)
    other.look_at(cut.id)
    run = one.runs.keep(setup, 40, reading("mine"), "0.118", "typed")
    other.look_for_changes()
    other.apply("keep", add_reading(other.job, run.id, reading("theirs")))
    one.look_for_changes()
    assert one.undo()
    found = {r.id: r.struck for x in one.book.load(one.job.id).runs() if x.id == run.id for r in x.readings}
    assert found == {"mine": "undone", "theirs": None}
    assert one.redo()
    found = {r.id: r.struck for x in one.book.load(one.job.id).runs() if x.id == run.id for r in x.readings}
    assert found == {"mine": None, "theirs": None}


def test_an_undo_over_another_windows_change_is_refused(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    one.apply("bore", replace(one.job, bore=0.090))
    other.look_for_changes()
    other.apply("bore", replace(other.job, bore=0.095))
    one.look_for_changes()
    with pytest.raises(Conflict, match="95 mm"):
        one.undo()
    assert one.job.bore == 0.095


def test_benches_are_brought_together_too(two: tuple[Workspace, Workspace]) -> None:
    one, other = two
    one.change_bench("new", Bench(id="x", name="loft"))
    other.change_bench("barn", replace(other.benches[1], plate_name="steel"))
    assert one.look_for_changes()
    assert {b.name: b.plate_name for b in one.benches} == {"back-room": "brass plate", "loft": "", "the barn": "steel"}
    one.undo()
    assert {b.name for b in one.book.benches()} == {"back-room", "the barn"}


def test_stages_faces_and_waits_of_both_windows_are_kept(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    with Book.open(path) as mine, Book.open(path) as theirs:
        mine.add_job(whole_head(date.today()), benches=())
        one, other = (Workspace.open(b, "demo-whole-head") for b in (mine, theirs))
        port = one.job.port("whole-exhaust-3")
        ids = iter(f"made-{i}" for i in range(9))
        for space, stage in ((one, "guide"), (other, "short side")):
            marked = mark_stage(space.job, [port], stage, lambda: next(ids), "2026-11-25T09:00:00", 600.0)
            space.apply(stage, marked)
        for space, name in ((one, "spare gasket"), (other, "spare header")):
            face = Face(id=name, name=name, part="gasket")
            space.apply(name, replace(space.job, faces=(*space.job.faces, face)))
        one.look_for_changes()
        disk = mine.load("demo-whole-head")
        assert one.job == other.job == disk
        boxes = record(disk)
        assert boxes.at("guide", port).seconds == boxes.at("short side", port).seconds == 600.0
        assert {"spare gasket", "spare header"} <= {f.name for f in disk.faces}
        assert other.undo()  # the face; then the stage, and nothing of the other window's
        assert other.undo()
        boxes = record(mine.load("demo-whole-head"))
        assert boxes.at("guide", port).done and not boxes.at("short side", port).done


def test_the_other_windows_changes_arrive_by_themselves(open_window: Open, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    with Book.open(tmp_path / "book.sqlite") as book:
        there = Workspace.open(book, demo_job().id)
        there.apply("title", replace(there.job, title="Renamed next door"))
        qtbot.waitUntil(lambda: "Renamed next door" in window.windowTitle(), timeout=1000)


def test_a_lock_is_waited_for_and_the_window_lives_on(open_window: Open, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    other = sqlite3.connect(tmp_path / "book.sqlite", isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    ticks: list[int] = []
    from PySide6.QtCore import QTimer

    timer = QTimer(window)
    timer.timeout.connect(lambda: ticks.append(1))
    timer.start(20)
    with pytest.raises(BookError, match="another program is writing"):
        space.apply("bore", replace(space.job, bore=0.090))
    assert len(ticks) > 30  # two seconds, and the window drew all the while
    QTimer.singleShot(300, lambda: other.execute("COMMIT"))
    space.apply("bore", replace(space.job, bore=0.090))
    timer.stop()
    assert window.open_book.book.load(space.job.id).bore == 0.090
    other.close()


def test_a_last_job_that_cannot_be_opened_leaves_a_window_that_says_so(tmp_path: Path, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    from ventrix.ui import launch

    path = tmp_path / "book.sqlite"
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    book = Book.open(tmp_path / "ventrix" / "book.sqlite")
    book.add_job(demo_job())
    book.close()
    raw = sqlite3.connect(tmp_path / "ventrix" / "book.sqlite")
    raw.execute("UPDATE pour SET volume = 0")
    raw.execute("UPDATE port SET valves = 0")
    raw.commit()
    raw.close()
    settings = QSettings(str(path.with_suffix(".ini")), QSettings.Format.IniFormat)
    open_book = launch._open_book(launch.Start(), None, settings)
    assert open_book.workspace is None
    assert "could not be opened" in open_book.opening_failed
    open_book.close()


def test_what_changed_is_shown_once_after_an_update(tmp_path: Path) -> None:
    from ventrix.ui import launch

    settings = QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat)
    assert not launch._is_updated(settings), "a new user has nothing to catch up with"
    settings.setValue("version", "0.1")
    assert launch._is_updated(settings)
    assert not launch._is_updated(settings)
    settings.clear()
    settings.setValue("theme", "paper")  # of a version that did not write its own down
    assert launch._is_updated(settings)


@pytest.mark.parametrize(
    "kept",
    [
        {"units": "metric", "theme": "paper", "room": "flow", "job": "head", "pedal": "32", "still": "no"},
        {"units": "metric", "theme": "paper", "room": "air", "far_px": "180", "shop_name": "A shop", "shop_rate": "60",
         "sheet_parts": '{"order": ["curves", "nobody knows"], "on": ["curves"]}', "layouts": "{}"},
        {"units": "furlongs", "theme": "stripes", "room": "of old", "job": "gone", "far_px": "tall", "pedal": "x",
         "mach": "no", "layouts": "[", "window": "nothing", "sheet_parts": "{", "template/paper": "a9"},
    ],
    ids=["first", "later", "nonsense"],
)  # fmt: skip
def test_settings_of_every_older_version_are_read(open_window: Open, tmp_path: Path, kept: dict[str, str]) -> None:
    """As earlier programs wrote them, and as nobody did: what makes sense counts, the rest is as for a new user."""
    settings = QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat)
    for key, value in kept.items():
        settings.setValue(key, value)
    settings.sync()
    window = open_window()
    known = kept["units"] == "metric"
    assert window.open_book.units.name == ("metric" if known else "us")
    assert not known or window.room is window.rooms[kept["room"]]
    for room in ("sheet", "flow", "book", "compare"):
        window.go_to_named(room)
    assert (window.open_book.settings.value("shop_name") == "A shop") == ("shop_name" in kept)


# -- the bench on the wire, and the Flow room's slips


def test_a_silent_bench_says_so_and_nothing_old_is_kept(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    bridge = window.open_book.bench
    bench.feed(to_si(0.05, "in"), to_si(24, "cfm"))
    assert window.rooms["flow"].hand.test.phase is Phase.KEEP
    bridge._name, bridge._sampler = "bench of the test", object()  # type: ignore[assignment]
    bridge._last_sample -= 10.0
    bridge.drain()
    bridge._sampler = None
    assert not bridge.connected
    assert "silent" in bridge.sentence
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_Space)
    assert counted(window) == {}
    assert window.rooms["flow"].hand.test.live is None


@pytest.mark.parametrize(
    "text", ["no port", "host:0", "a b:80", "-x:80", "x..y:80", "300.300.300.300:80", "x" * 70 + ":80", ":80"]
)
def test_an_impossible_host_is_refused_at_the_field(text: str) -> None:
    with pytest.raises(ValueError):
        host_and_port(text)


def test_possible_hosts_are_taken() -> None:
    assert host_and_port("bench-2.shop.lan:5025") == ("bench-2.shop.lan", 5025)
    assert host_and_port("[::1]:5025") == ("::1", 5025)
    assert host_and_port("192.168.1.20:5025") == ("192.168.1.20", 5025)


def test_letters_in_the_entry_are_text_and_ctrl_z_undoes_while_it_is_empty(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    window.open_book.bench.connected = False
    window.rooms["flow"].refresh()
    room = window.rooms["flow"]
    room.entry.setFocus()
    qtbot.keyClicks(room.entry, "m")
    assert room.entry.text() == "m"
    assert room.hand.mount == 1  # M did not re-mount the head
    room.entry.clear()
    qtbot.keyClicks(room.entry, "24")
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)
    assert counted(window) == {50: 1}
    room.entry.setFocus()
    qtbot.keyClick(room.entry, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert counted(window) == {}


def test_a_refused_figure_is_selected_and_a_far_one_asked_about(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    space = window.open_book.workspace
    assert space is not None
    space.change_bench("bench", replace(demo_benches()[1], corrected=True, link="typed"))
    window.open_book.bench.connected = False
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.rooms["flow"].refresh()
    room = window.rooms["flow"]
    assert "the barn, range to 75.0, at 0.050 in: type %" in room.entry_row.caption.text()
    room.entry.setFocus()
    qtbot.keyClicks(room.entry, "x9")
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)
    assert room.entry.selectedText() == "x9"
    qtbot.keyClicks(room.entry, "130")
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)
    assert "past the end of the range" in room.entry_row.problem.text()
    assert counted(window) == {}
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)
    assert counted(window) == {50: 1}


def test_any_reading_can_be_struck_and_taken_up_again(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    for lift, flow in ((0.05, 24), (0.10, 48), (0.15, 75)):
        bench.feed(to_si(lift, "in"), to_si(flow, "cfm"))
        step("press")
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_V)
    page = window.rooms["flow"].readings
    assert page.list.count() == 3
    page.list.setCurrentRow(0)
    page.reason.setText("clay had slipped")
    qtbot.keyClick(page.reason, Qt.Key.Key_Return)
    assert counted(window) == {100: 1, 150: 1}
    assert "struck: clay had slipped" in page.list.item(0).text()
    page.list.setCurrentRow(0)
    qtbot.keyClick(page.list, Qt.Key.Key_Return)
    assert counted(window) == {50: 1, 100: 1, 150: 1}
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_Escape)
    assert window.rooms["flow"].side.currentIndex() == 0


def test_another_bench_than_the_set_ups_is_asked_about(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    space = window.open_book.workspace
    assert space is not None
    space.change_bench("bench", replace(demo_benches()[1], link="typed"))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.rooms["flow"]._bench_changed()
    assert "Which bench is this? The set-up says the barn" in window.rooms["flow"].control.which_bench
    bench.feed(to_si(0.05, "in"), to_si(50.8, "cfm"))
    step("press")
    assert counted(window) == {}
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_N)
    assert window.rooms["flow"].hand.setup.bench == "bench of the test"
    assert window.rooms["flow"].control.which_bench == ""


def test_thousandths_in_a_plan_and_in_a_paste_are_read_as_such_and_said(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    panel = window.rooms["flow"].conditions
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_C)
    for text, lifts in (
        ("50 100 150", ["0.050", "0.100", "0.150"]),
        ("100 to 300 by 100", ["0.100", "0.200", "0.300"]),
    ):
        panel.plan.setText(text)
        panel.plan.setModified(True)
        panel._plan_typed()
        assert [r.lift for r in window.rooms["flow"].ladder.rungs] == lifts
        assert "thousandths" in panel.plan_problem.text()
    panel.plan.setText("1.5")
    panel.plan.setModified(True)
    panel._plan_typed()
    assert "past 1.181 in" in panel.plan_problem.text()
    assert len(window.rooms["flow"].ladder.rungs) == 3
    QApplication.clipboard().setText("50\t24.1\n100\t48.2\n")
    window.rooms["flow"].paste()
    assert counted(window) == {50: 1, 100: 1}
    assert "thousandths" in window.open_book.workspace.said
    window.open_book.undo()  # one paste is one edit
    assert counted(window) == {}


def test_a_new_bench_is_the_set_ups_at_once(foot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    window.sheets["benches"].open()
    assert window.rooms["flow"].hand.setup.bench is None
    window.sheets["benches"].new.click()
    assert window.rooms["flow"].hand.setup.bench == "bench 1"


def test_the_plan_goes_as_far_as_the_cam_and_a_step(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.apply("cut 0 alone", space.job)
    assert window.rooms["flow"].hand._usual_lifts()[-1] == pytest.approx(
        to_si(0.55, "in")
    )  # 0.46 of cam: 0.50 and one more
