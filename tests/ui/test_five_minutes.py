"""README's five minutes, step by step: what it promises is what the window says."""

from __future__ import annotations

import re
from pathlib import Path

import numpy as np
import pytest
from PySide6.QtCore import QSettings, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.ui.stand_in import Open
from ventrix.core.calculators.answer import calculate
from ventrix.records.book.index import Index
from ventrix.ui import launch
from ventrix.ui.window.cut_plates import Plate
from ventrix.ui.window.demo_shelf import DemoShelf
from ventrix.ui.window.main_window import MainWindow

README = (Path(__file__).parents[2] / "README.md").read_text(encoding="utf-8")


@pytest.fixture
def demo(open_window: Open) -> MainWindow:
    """The demo as it opens: cut 2 looked at, held against cut 1."""
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    cuts = space.job.ports[0].cuts
    space.look_at(cuts[2].id)
    space.hold_against(cuts[1].id)
    window.go_to_named("compare")
    return window


def plate(window: MainWindow, number: int) -> Plate:
    return next(p for p in window.cut_row.findChildren(Plate) if p._cut.number == number)


def headline(window: MainWindow) -> str:
    space = window.open_book.workspace
    assert space is not None
    assert space.pair is not None
    verdict = space.findings.verdict(space.pair)
    assert verdict is not None
    return verdict.headline


def test_the_demo_opens_on_the_pair_that_the_readme_names(styled: QApplication, tmp_path: Path) -> None:
    settings = QSettings(str(tmp_path / "s.ini"), QSettings.Format.IniFormat)
    open_book = launch._open_book(launch.Start(demo=True), tmp_path, settings)
    space = open_book.workspace
    assert space is not None
    assert space.cut is not None
    assert space.against is not None
    assert (space.cut.number, space.against.number) == (2, 1)
    open_book.close()


def test_the_earlier_jobs_come_in_once_the_first_picture_stands(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    book = window.open_book.book
    before = len(book.jobs())
    DemoShelf(window).start()
    assert len(book.jobs()) == before, "nothing before the window breathes"
    qtbot.waitUntil(lambda: len(book.jobs()) == before + 9 and len(book.library()) == 1, timeout=20_000)
    qtbot.waitUntil(lambda: not window.indexer.active and not Index(book).behind(), timeout=20_000)
    assert "Ostrey twin, left" in [e.title for e in book.jobs()]


def test_a_window_closed_meanwhile_takes_no_more_of_them(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    before = len(window.open_book.book.jobs())
    DemoShelf(window).start()
    window.close()
    qtbot.wait(50)
    assert len(window.open_book.book.jobs()) == before


def test_first_and_second_a_trade_a_keep_and_a_bench_that_cannot_tell(demo: MainWindow) -> None:
    assert headline(demo) == "A trade."
    assert "*a trade*" in README
    QTest.mouseClick(plate(demo, 1), Qt.MouseButton.LeftButton)
    QTest.mouseClick(plate(demo, 0), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier)
    assert headline(demo) == "Keep."
    assert "*Keep.*" in README
    QTest.mouseClick(plate(demo, 3), Qt.MouseButton.LeftButton)
    QTest.mouseClick(plate(demo, 2), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier)
    assert headline(demo) == "This bench can't tell."
    assert "*This bench can't tell*" in README
    space = demo.open_book.workspace
    assert space is not None
    assert space.pair is not None
    verdict = space.findings.verdict(space.pair)
    assert verdict is not None
    assert "re-mounts of each cut" in verdict.sentence  # "and how many more mounts would"


@pytest.mark.parametrize(("room", "keys"), re.findall(r"\*\*(Head|Flow|Cuts|Air)\*\* \((Ctrl\+\d)\)", README))
def test_every_room_is_reached_by_the_keys_that_are_named(demo: MainWindow, room: str, keys: str) -> None:
    QTest.keyClick(demo, Qt.Key(ord(keys[-1])), Qt.KeyboardModifier.ControlModifier)
    assert demo.room.name == room


def test_fifth_without_a_bench_a_typed_reading_is_kept(demo: MainWindow) -> None:
    QTest.keyClick(demo, Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier)
    assert demo.sheets["cut"].isVisible()
    QTest.keyClick(demo.sheets["cut"], Qt.Key.Key_Escape)
    demo.go_to_named("flow")
    space = demo.open_book.workspace
    assert space is not None
    space.look_at(space.job.ports[0].cuts[3].id)
    QTest.keyClick(demo.rooms["flow"], Qt.Key.Key_M)  # a new mount begins at the first lift
    demo.rooms["flow"].control.stand_on(0)
    QTest.keyClicks(demo.rooms["flow"], "24.5")
    QTest.keyClick(demo.rooms["flow"].entry, Qt.Key.Key_Return)
    assert demo.rooms["flow"].far.far.phase.startswith("KEPT 0.050")


def test_ninth_the_finder_finds_by_any_word_and_the_reckoner_takes_fractions(demo: MainWindow) -> None:
    finder = demo.finder
    for words, found in (("throat percent", "Throat"), ("bowl blend", "bowl blend"), ("corvane", "Corvane")):
        finder.open()
        QTest.keyClicks(finder.box, words)
        assert any(found.lower() in finder.list.item(i).text().lower() for i in range(finder.list.count())), words
        QTest.keyClick(finder.box, Qt.Key.Key_Escape)
    for text, inches in (("1 29/64", 1 + 29 / 64), ("36.8 mm", 36.8 / 25.4)):
        area, unit = calculate("throat_area", {"throat_diameter": text}).outputs["area"]
        assert (unit, area) == ("in2", pytest.approx(np.pi / 4 * inches**2))


def test_every_picture_and_page_that_is_linked_is_there() -> None:
    root = Path(__file__).parents[2]
    for target in re.findall(r"\]\(([^)#]+)\)", README):
        if not target.startswith("http"):
            assert (root / target).exists(), target
