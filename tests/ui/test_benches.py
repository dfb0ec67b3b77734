"""The Benches sheet as a shop uses it: a bench told, a plate watched, a head studied, parts flowed on two benches."""

from __future__ import annotations

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit

from tests.ui.stand_in import Open
from ventrix.core.benches.study import study_result
from ventrix.core.model.bench import Bench
from ventrix.core.quantity.units import CFM, INCH, to_si
from ventrix.ui.benches.sheet import BenchSheet
from ventrix.ui.window.main_window import MainWindow


def put(box: QLineEdit, text: str) -> None:
    """Type into a field and press Enter."""
    box.setFocus()
    box.selectAll()
    QTest.keyClicks(box, text)
    QTest.keyClick(box, Qt.Key.Key_Return)


@pytest.fixture
def shop(open_window: Open) -> tuple[MainWindow, BenchSheet]:
    """The window on the demo job, the sheet on a bench that was just made."""
    window = open_window(room="cuts")
    window.sheets["benches"].open()
    window.sheets["benches"].new_bench()
    return window, window.sheets["benches"]


def bench_of(window: MainWindow) -> Bench:
    """The bench on the sheet, as it is on disk."""
    return next(b for b in window.open_book.book.benches() if b.id == window.sheets["benches"]._bench_id)


# -- the form


def test_what_a_bench_is_told_is_in_the_book_at_once(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    form = sheet.form
    put(form.name, "the loft")
    for key, text in (
        ("test_pressure", "25"),
        ("blower_limit", "300"),
        ("dial_resolution", "0.0005"),
        ("easy_dial", "0.002"),
        ("easy_factor", "1.5"),
        ("easy_leak", "0.8"),
        ("plate_flow", "152"),
    ):
        put(form.fields[key].box, text)
    told = bench_of(window)
    assert told.name == "the loft"
    assert told.test_pressure == pytest.approx(to_si(25, "inH2O"))
    assert told.blower_limit == pytest.approx(300 * CFM)
    assert told.dial_resolution == pytest.approx(0.0005 * INCH)
    assert told.easy_dial == pytest.approx(0.002 * INCH)
    assert told.easy_factor == pytest.approx(0.015)
    assert told.easy_leak == pytest.approx(0.8 * CFM)
    assert told.plate_flow == pytest.approx(152 * CFM)
    assert form.fields["dial_resolution"].box.text() == "0.0005"  # four digits: it is not a thousandth


def test_what_is_not_said_stands_grey_in_its_field(shop: tuple[MainWindow, BenchSheet]) -> None:
    _, sheet = shop
    grey = {key: sheet.form.fields[key].box.placeholderText() for key in ("dial_resolution", "easy_dial", "easy_leak")}
    assert grey == {"dial_resolution": "0.0005", "easy_dial": "0.0030", "easy_leak": "1.0"}  # the formula book's
    assert sheet.form.fields["easy_dial"].box.text() == ""


@pytest.mark.parametrize(
    ("key", "text", "words"),
    [
        ("test_pressure", "-5", "above zero"),
        ("blower_limit", "lots", "not a number"),
        ("plate_flow", "5 mm", "a flow is needed"),
        ("dial_resolution", "40", "graduation lies between"),
        ("blower_limit", "1e9", "flow lies between"),
    ],
)
def test_a_figure_that_cannot_be_is_refused_at_its_field(
    shop: tuple[MainWindow, BenchSheet], key: str, text: str, words: str
) -> None:
    window, sheet = shop
    field = sheet.form.fields[key]
    put(field.box, text)
    assert field.box.text() == text  # nothing typed is lost
    assert words in field.box.accessibleDescription()
    assert getattr(bench_of(window), key) is None


def test_ranges_are_asked_of_a_bench_that_reads_percent(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    form = sheet.form
    assert not form.ranges.isVisibleTo(form)
    form.element.setCurrentIndex(form.element.findData("percent"))
    form.element.activated.emit(form.element.currentIndex())
    assert form.ranges.isVisibleTo(form)
    put(form.ranges, "75, 150, 300")
    assert bench_of(window).ranges == pytest.approx((75 * CFM, 150 * CFM, 300 * CFM))
    put(form.ranges, "75, many")
    assert "many" in form.problem.text()
    assert bench_of(window).ranges == pytest.approx((75 * CFM, 150 * CFM, 300 * CFM))


def test_two_benches_of_one_name_are_refused(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    put(sheet.form.name, "Back-Room ")
    assert bench_of(window).name == "bench 3"
    assert sheet.form.problem.text()


def test_the_columns_of_a_streaming_bench_are_checked_as_they_are_typed(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    form = sheet.form
    form.link.setCurrentIndex(form.link.findData("serial"))
    form.link.activated.emit(form.link.currentIndex())
    assert form.columns.isVisibleTo(form)
    put(form.columns, "flow 1 cfm; flow 2 cfm")
    assert form.problem.text()
    put(form.columns, "flow 1 cfm; pressure 2 inH2O x 1.02 + 0.5; lift 3 mm")
    assert form.problem.text() == ""
    assert "flow" in str(bench_of(window).text_format)
    assert "1.02" in str(bench_of(window).text_format)


# -- the plate


def test_the_plate_is_watched_against_its_own_limits(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    page = sheet.plate
    assert "Say on the first page" in page.said.text()
    put(sheet.form.fields["plate_flow"].box, "150")
    assert "Not flowed yet" in page.said.text()
    for flow in ("150.2", "149.9", "150.4", "149.8", "150.1", "150.0"):
        put(page.flowed.box, flow)
        assert page.said.text().startswith("✓")
    assert [round(p.flow / CFM, 1) for p in bench_of(window).plates] == [150.2, 149.9, 150.4, 149.8, 150.1, 150.0]
    # nominal ± 1 % would hold 151.2; the bench's own three sigma (0.3 % moving range) do not
    put(page.flowed.box, "153.0")
    assert page.said.text().startswith("▼")
    assert len(bench_of(window).plates) == 7  # said, and kept all the same


# -- know your bench


def answers(sheet: BenchSheet, flows: np.ndarray) -> None:
    for flow in flows:
        put(sheet.study.reading, f"{flow:.3f}")


def drawn(seed: int = 2) -> np.ndarray:
    """Five mounts of three lifts read twice: 0.4 % a mount, 0.2 % a reading."""
    rng = np.random.default_rng(seed)
    true = np.array([60.0, 120.0, 150.0])
    mounts = 1 + 0.004 * rng.standard_normal((5, 1, 1))
    return (true * mounts * (1 + 0.002 * rng.standard_normal((5, 2, 3)))).ravel()


def test_a_study_ends_in_what_the_bench_sees(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    page = sheet.study
    assert "1.0 % repeat and 0.7 % re-mounting error are assumed" in page.said.text()
    page.start()
    assert "name the lifts" in page.problem.text().lower()
    page.lifts.setText("0.1, 0.3, 0.5")
    page.start()
    assert page.asks.text().startswith("Mount 1 of 5: set 0.100 in")
    put(page.reading, "nothing")
    assert "not a number" in page.problem.text()
    flows = drawn()
    answers(sheet, flows)
    assert not page.reading.isVisibleTo(page)
    study = bench_of(window).studies[-1]
    assert len(study.readings) == 30
    assert [r.mount for r in study.readings] == [m for m in range(1, 6) for _ in range(6)]
    # NumPy by itself: two-way layout, mounts over what the repeats alone would scatter
    table = flows.reshape(5, 2, 3)
    repeat = np.sqrt(np.mean(np.var(table, axis=1, ddof=1) / table.mean(axis=(0, 1)) ** 2))
    assert study_result(study).scatter.repeat == pytest.approx(repeat, rel=0.05)
    assert page.said.text().startswith("This bench sees")


def test_a_study_goes_on_after_an_undo_another_bench_and_a_closed_sheet(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    mine = sheet._bench_id
    page = sheet.study
    page.lifts.setText("0.1, 0.3, 0.5")
    page.start()
    answers(sheet, np.array([60.0, 120.0]))
    assert page.asks.text().startswith("Mount 1 of 5: set 0.500 in")
    window.open_book.undo()
    assert len(bench_of(window).studies[-1].readings) == 1
    assert page.asks.text().startswith("Mount 1 of 5: set 0.300 in")
    sheet._choose(next(b.id for b in window.open_book.book.benches() if b.name == "back-room"))
    assert not page.reading.isVisibleTo(page)
    sheet._choose(mine)
    assert page.asks.text().startswith("Mount 1 of 5: set 0.300 in")
    QTest.keyClick(sheet, Qt.Key.Key_Escape)
    sheet.open(bench_of(window).name)
    assert page.asks.text().startswith("Mount 1 of 5: set 0.300 in")
    answers(sheet, np.full(29, 100.0))
    assert len(bench_of(window).studies[-1].readings) == 30


# -- two benches


def add_part(sheet: BenchSheet, name: str, here: str, there: str, lift: str = "") -> None:
    page = sheet.transfer
    page.part.setText(name)
    for field, text in ((page.here, here), (page.there, there), (page.lift, lift)):
        if text:
            put(field.box, text)
    page.add()


def test_parts_flowed_on_both_carry_numbers_over(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    page = sheet.transfer
    page.other.setCurrentText("back-room")
    page.add()
    assert "Both figures" in page.problem.text()
    ratios = []
    for name, here, there in (("plate", 152.0, 149.0), ("head, 0.300", 120.0, 117.9), ("head, 0.500", 180.0, 176.2)):
        add_part(sheet, name, f"{here}", f"{there}")
        ratios.append(here / there)
    assert page.problem.text() == ""
    assert f"{np.mean(ratios):.4f}"[:5] in page.said.text()  # the mean of the ratios, worked out here
    assert len(bench_of(window).transfers) == 1
    assert [p.name for p in bench_of(window).transfers[0].parts] == ["plate", "head, 0.300", "head, 0.500"]
    assert "120.0 here, 117.9 there" in page.parts.text()
    page.other.setCurrentText("bench 3")
    page.add()
    assert "Name the other bench" in page.problem.text()


def test_parts_at_lifts_carry_over_lift_by_lift(shop: tuple[MainWindow, BenchSheet]) -> None:
    window, sheet = shop
    sheet.transfer.other.setCurrentText("back-room")
    for lift, ratio in (("0.1", 1.00), ("0.3", 1.02), ("0.5", 1.04)):
        for part in ("one", "two", "three"):
            add_part(sheet, part, f"{100 * ratio:.2f}", "100", lift)
    parts = bench_of(window).transfers[0].parts
    assert {round(p.lift / INCH, 3) for p in parts if p.lift is not None} == {0.1, 0.3, 0.5}
    assert "lift by lift" in sheet.transfer.said.text()
    assert "at 0.300" in sheet.transfer.parts.text()


def test_what_a_bench_flowed_is_no_figure_once_it_is_disconnected(open_window: Open) -> None:
    bench = open_window().open_book.bench
    bench.connected = True
    bench.tell_flow(0.05)
    assert bench.live_flow == 0.05
    bench.connected = False
    assert bench.live_flow is None
    bench.disconnect_bench()
    bench.connected = True
    assert bench.live_flow is None, "nothing that an earlier bench said"
    bench.connected = False
