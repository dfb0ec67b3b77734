"""Commands that need no more than the open book: undo, the row, ports, witness, bench, how things are shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from PySide6.QtWidgets import QInputDialog, QWidget

from ventrix.bench.links.tcp import host_and_port
from ventrix.core.model.kinds import Direction, Piece
from ventrix.core.quantity.refused import Refused
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command
from ventrix.words import tr
from ventrix.workspace import acts
from ventrix.workspace.workspace import Workspace

FILE, EDIT, CUT, PORT, BENCH, VIEW = tr("&File"), tr("&Edit"), tr("&Cut"), tr("&Port"), tr("&Bench"), tr("&View")


def _on_job(open_book: OpenBook, act: Callable[[Workspace], object]) -> Callable[[], None]:
    """An act on the open job; what it answers stands at the foot."""

    def do() -> None:
        if open_book.workspace is not None and (said := act(open_book.workspace)):
            open_book.say(str(said))

    return do


def has_job(open_book: OpenBook) -> Callable[[], bool]:
    """Whether a job is open."""
    return lambda: open_book.workspace is not None


def edit_commands(open_book: OpenBook) -> tuple[Command, ...]:
    """Undo and redo, by the name of what they would turn back."""

    def says(word: str, name: Callable[[Workspace], str | None]) -> Callable[[], str]:
        def now() -> str:
            found = name(open_book.workspace) if open_book.workspace is not None else None
            return f"{word}: {found}" if found else word

        return now

    job = has_job(open_book)
    undo, redo = says(tr("&Undo"), lambda s: s.undo_name), says(tr("&Redo"), lambda s: s.redo_name)
    return (
        Command("undo", tr("&Undo"), open_book.undo, "Ctrl+Z", EDIT, job, says=undo),
        Command("redo", tr("&Redo"), open_book.redo, "Ctrl+Shift+Z", EDIT, job, says=redo),
    )


def row_commands(open_book: OpenBook) -> tuple[Command, ...]:
    """Walking the row of cuts and the ports, and adding ports."""
    on, job = partial(_on_job, open_book), has_job(open_book)

    def row(id_: str, words: str, act: Callable[[Workspace], object], keys: str = "", line: bool = False) -> Command:
        menu = CUT if id_.startswith(("cut.", "pin.")) else PORT
        return Command(id_, words, on(act), keys, menu, job, line=line)

    return (
        row("cut.next", tr("Look at the &next cut"), lambda s: acts.step_along_row(s, 1), "Ctrl+Right", line=True),
        row("cut.before", tr("Look at the &cut before"), lambda s: acts.step_along_row(s, -1), "Ctrl+Left"),
        row("pin.next", tr("Compare with the next cut"), lambda s: acts.pin_along_row(s, 1), "Ctrl+Shift+Right"),
        row("pin.before", tr("Compare with the cut before"), lambda s: acts.pin_along_row(s, -1), "Ctrl+Shift+Left"),
        row("port.next", tr("&Next port"), acts.next_port, "Ctrl+P"),
        row("port.model", tr("Make it the &model port, or no more"), acts.choose_model_port),
        row("port.intake", tr("New &intake port"), lambda s: acts.make_port(s, Direction.INTAKE), line=True),
        row("port.exhaust", tr("New &exhaust port"), lambda s: acts.make_port(s, Direction.EXHAUST)),
        row("piece.runner", tr("New piece: manifold &runner"), lambda s: acts.make_piece(s, Piece.RUNNER), line=True),
        row("piece.spacer", tr("New piece: &spacer"), lambda s: acts.make_piece(s, Piece.SPACER)),
        row("piece.header", tr("New piece: &header primary"), lambda s: acts.make_piece(s, Piece.HEADER)),
        row("port.all", tr("Ports for &all cylinders"), acts.make_all_ports),
    )


def bench_commands(open_book: OpenBook, asks: QWidget) -> tuple[Command, ...]:
    """The witness port, and what bench is read."""
    bench, on = open_book.bench, partial(_on_job, open_book)

    def ask_address() -> None:
        text, ok = QInputDialog.getText(asks, tr("Bench over TCP"), tr("Host and port of an SCPI bench, as host:port"))
        if not ok:
            return
        try:
            bench.connect_tcp(*host_and_port(text))
        except Refused as error:
            open_book.say(f"{error}.")

    def space() -> Workspace | None:
        return open_book.workspace

    def is_witness() -> bool:
        here = space()
        return here is not None and here.port is not None and here.port.witness

    def has_witness() -> bool:
        here = space()
        return here is not None and any(p.witness for p in here.job.ports)

    def by_witness() -> bool:
        here = space()
        return here is not None and here.findings.judge_by_witness

    def simulate() -> None:
        at_work = open_book.practice
        if at_work is None:
            bench.connect_simulated()
        else:
            from ventrix.bench.simulator.practice.virtual_job import BENCH as PRACTICE_BENCH

            bench.connect_simulated(name=PRACTICE_BENCH, practice=lambda: at_work.practice)

    def real() -> bool:
        return open_book.practice is None  # a practice's head stands on no bench

    this, judge = on(acts.toggle_witness), on(acts.toggle_judging_by_witness)
    return (
        Command(
            "witness",
            tr("This port is the &witness"),
            this,
            "",
            BENCH,
            has_job(open_book),
            checked=is_witness,
            line=True,
        ),
        Command("witness.judge", tr("&Judge by the witness port"), judge, "", BENCH, has_witness, checked=by_witness),
        Command("bench.simulated", tr("&Simulated bench"), simulate, "Ctrl+B", BENCH, line=True),
        Command("bench.tcp", tr("Bench over &TCP…"), ask_address, "", BENCH, real),
        Command(
            "bench.leave",
            tr("&Disconnect, type by hand"),
            bench.disconnect_bench,
            "Ctrl+D",
            BENCH,
            able=lambda: bench.active,
        ),
    )


def look_commands(open_book: OpenBook) -> tuple[Command, ...]:
    """Motion, units and theme."""

    def still() -> None:
        open_book.use_reduced_motion(not open_book.reduced_motion)

    def choice(id_: str, words: str, one_of: str, use: Callable[[str], None], now: Callable[[], str]) -> Command:
        name = id_.rpartition(".")[2]
        return Command(id_, words, partial(use, name), "", VIEW, checked=lambda: now() == name, one_of=one_of)

    def units() -> str:
        return open_book.units.name

    def theme() -> str:
        return str(open_book.settings.value("theme", "dye"))

    us, metric = (
        choice(f"units.{name}", words, "units", open_book.use_units, units)
        for name, words in (("us", tr("US shop units")), ("metric", tr("Metric")))
    )
    dye, paper = (
        choice(f"theme.{name}", words, "theme", open_book.use_theme, theme)
        for name, words in (("dye", tr("Dye, dark")), ("paper", tr("Paper, light")))
    )
    motion = Command("motion", tr("Reduced &motion"), still, "", VIEW, checked=lambda: open_book.reduced_motion)
    return motion, _below_line(us), metric, _below_line(dye), paper


def _below_line(command: Command) -> Command:
    return replace(command, line=True)
