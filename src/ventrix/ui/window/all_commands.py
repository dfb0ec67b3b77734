"""Every command of the window, in the order the menus have them. Rooms and sheets are made when they are needed."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.pedal import choose_pedal
from ventrix.ui.window.book_copies import BookCopies
from ventrix.ui.window.commands import (
    BENCH,
    CUT,
    FILE,
    PORT,
    VIEW,
    bench_commands,
    edit_commands,
    look_commands,
    row_commands,
)
from ventrix.ui.window.report import choose_report
from ventrix.ui.window.rooms import AIR, FLOW, ROOMS, SHEET
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.ui.window.main_window import MainWindow


def all_commands(window: MainWindow) -> tuple[Command, ...]:
    """Every command, in the order the menus have them. Rooms and sheets are made when they are first needed."""
    page = window.open_manual

    def cut(id_: str, words: str, do: Callable[[], object], keys: str = "", line: bool = False) -> Command:
        return Command(id_, words, do, keys, CUT, window.has_job, line=line)

    def sheet(key: str, *what: object, **named: object) -> Callable[[], object]:
        return partial(window.open_sheet, key, what, named)

    def manual(id_: str, words: str, do: Callable[[], object], keys: str = "") -> Command:
        return Command(id_, words, do, keys, tr("&Help"))

    rooms = (
        Command(f"room.{d.key}", f"&{d.digit} {d.name}", partial(window.go_to, i), f"Ctrl+{d.digit}", VIEW)
        for i, d in enumerate(ROOMS)
    )
    return (
        *window.files.commands(sheet("new_job")),
        Command(
            "picture.copy",
            tr("Copy the &picture of this room"),
            lambda: window.room.copy_picture(),
            "",
            FILE,
            line=True,
        ),
        Command(
            "picture.save", tr("Save the picture of this room…"), lambda: window.room.choose_picture_file(), "", FILE
        ),
        Command(
            "cards",
            tr("&Grinder cards of every port…"),
            lambda: window.rooms.of(SHEET).hand_over.choose_every_card(),
            "",
            FILE,
            window.has_job,
        ),
        *BookCopies(window.open_book, window).commands(),
        Command("book.where", tr("Where the boo&k lies…"), sheet("station"), "", FILE, line=True),
        Command("quit", tr("&Quit"), window.close, "Ctrl+Q", FILE, line=True),
        *edit_commands(window.open_book),
        cut("cut.new", tr("&New cut…"), sheet("cut"), "Ctrl+T"),
        cut("cut.operation", tr("One more &operation…"), sheet("cut", operation=True)),
        cut("cut.seat", tr("&Valve job…"), sheet("seat"), "Ctrl+J"),
        cut("cut.valves", tr("Valves fitted from this cut on…"), sheet("valves")),
        cut("cut.fault", tr("&Fault of the casting…"), sheet("fault")),
        cut("cut.slip", tr("Something went &wrong…"), sheet("slip"), "Ctrl+Shift+W"),
        cut("cut.tube", tr("Hole tu&bed, plugged, moved…"), sheet("tube")),
        cut("cut.wall", tr("&Wall reading…"), sheet("wall")),
        cut("cut.pour", tr("&Pour…"), sheet("pour")),
        cut("cut.scan", tr("&Scan of the port…"), sheet("scan")),
        cut("cut.trial", tr("&Trial…"), sheet("trial"), "Ctrl+Shift+T"),
        cut("cut.straight", tr("Copy a cut from another p&ort…"), window.across.straight_to),
        cut("call", tr("Predict &first…"), sheet("call"), "F4"),
        cut("cut.stands", tr("Use this test for other ports…"), window.across.stand_for),
        cut("cut.parts", tr("Correct or dele&te…"), sheet("parts"), "F2"),
        cut("air.limit", tr("Limit of local air speed…"), lambda: window.rooms.of(AIR).choose_limit(), line=True),
        cut("air.traverse.new", tr("Tra&verse…"), window.across.begin_traverse, "Ctrl+Shift+V"),
        cut("claim", tr("A claim, or another shop's sheet…"), sheet("claim")),
        cut("other", tr("Compare with an&y run of the book…"), window.across.hold_against_any, "Ctrl+Shift+H"),
        *row_commands(window.open_book),
        Command("port.casting", tr("Castin&g files…"), sheet("casting"), "", PORT),
        Command(
            "benches",
            tr("&Benches…"),
            window.across.open_benches,
            "Ctrl+Shift+B",
            BENCH,
            window.has_job,
        ),
        Command(
            "practice.flow",
            tr("Have it &flowed (practice)"),
            window.at_practice.flow,
            "F5",
            BENCH,
            window.at_practice.able,
        ),
        Command("pedal", tr("&Pedal…"), lambda: choose_pedal(window.rooms.of(FLOW).pedal, window.open_book), "", BENCH),
        *bench_commands(window.open_book, window),
        *rooms,
        Command("far", tr("&Far view alone"), window.toggle_far, "F11", VIEW, line=True),
        Command("distance", tr("&Reading distance…"), window.set_reading_distance, "", VIEW),
        *look_commands(window.open_book),
        manual("find", tr("&Find anything…"), lambda: window.finder.open(), "Ctrl+K"),
        manual("manual.figures", tr("What the &figures mean"), lambda: page("figures")),
        manual("manual.bench", tr("&Benches and what they see"), lambda: page("bench")),
        manual("manual.calculators", tr("&Calculators"), lambda: page("calculators")),
        manual("manual.keys", tr("Every &key"), lambda: page("keys")),
        manual("manual", tr("&Manual: this room"), page, "F1"),
        manual("manual.index", tr("Manual: &contents"), lambda: page("index"), "Shift+F1"),
        manual("manual.changes", tr("What has c&hanged"), lambda: page("changes")),
        manual("report.save", tr("Save a &report…"), lambda: choose_report(window, window.open_book)),
        manual("about", tr("&About Ventrix"), window.across.show_about),
    )
