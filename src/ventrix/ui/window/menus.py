"""The menus: every command with its shortcut. Commands that have nothing to act on are greyed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtGui import QAction, QActionGroup, QKeySequence
from PySide6.QtWidgets import QInputDialog, QMenu, QMenuBar

from ventrix.core.edits.cuts import add_port, edit_port
from ventrix.core.model.noun import Direction
from ventrix.ui.bench_bridge import host_and_port
from ventrix.ui.window.finder import Found
from ventrix.workspace.new_job import new_port

if TYPE_CHECKING:
    from ventrix.ui.window.main_window import Shell

Keys = QKeySequence.StandardKey | str | None


def _add(menu: QMenu, words: str, keys: Keys, do: Callable[[], object], tip: str = "") -> QAction:
    action = menu.addAction(words)
    if keys is not None:
        action.setShortcut(QKeySequence(keys))
    action.triggered.connect(lambda _checked=False: do())
    action.setToolTip(tip or words.replace("&", ""))
    return action


def build_menus(shell: Shell) -> None:
    """Fill the menu bar of the window."""
    bar = shell.menuBar()
    _file_menu(shell, bar.addMenu("&File"))
    _edit_menu(shell, bar.addMenu("&Edit"))
    _cut_menu(shell, bar.addMenu("&Cut"))
    _bench_menu(shell, bar.addMenu("&Bench"))
    _view_menu(shell, bar.addMenu("&View"))
    help_menu = bar.addMenu("&Help")
    _add(help_menu, "&Find anything…", "Ctrl+K", lambda: shell.finder.open())
    _add(help_menu, "What the &figures mean", None, lambda: shell.open_manual("figures"))
    _add(help_menu, "&Benches and what they see", None, lambda: shell.open_manual("bench"))
    _add(help_menu, "&Calculators", None, lambda: shell.open_manual("calculators"))
    _add(help_menu, "&Manual: this room", "F1", shell.open_manual)
    _add(help_menu, "Manual: &contents", "Shift+F1", lambda: shell.open_manual("index"))


def commands_of(bar: QMenuBar) -> list[Found]:
    """Every command of the menus as something to find, with its shortcut."""
    found = []
    for head in bar.actions():
        menu = head.menu()
        if not isinstance(menu, QMenu):
            continue
        for action in menu.actions():
            if action.text() and action.menu() is None and action.isEnabled():
                keys = action.shortcut().toString()
                name = action.text().replace("&", "").rstrip("…")
                found.append(
                    Found(name, f"command{', ' + keys if keys else ''}", head.text().strip("&"), action.trigger)
                )
    return found


def _file_menu(shell: Shell, menu: QMenu) -> None:
    files = shell.files
    _add(menu, "&New job", QKeySequence.StandardKey.New, files.new_job)
    jobs = menu.addMenu("&Open job")
    jobs.aboutToShow.connect(lambda: files.fill_jobs(jobs))
    menu.addSeparator()
    _add(menu, "&Bring in a job document…", QKeySequence.StandardKey.Open, files.import_job)
    export = _add(menu, "&Write job document…", QKeySequence.StandardKey.SaveAs, files.export_job)
    menu.addSeparator()
    table = _add(menu, "Bring in a &run table…", "Ctrl+I", files.import_run)
    write = _add(menu, "Wr&ite run table…", "Ctrl+E", files.export_run)
    air_in = _add(menu, "Bring in &air speeds…", None, files.import_air)
    air_out = _add(menu, "Write air speeds…", None, files.export_air)
    menu.addSeparator()
    _add(menu, "Copy the &picture of Compare", None, lambda: shell.compare.copy_picture())
    _add(menu, "Save the picture of Compare…", None, lambda: shell.compare.choose_picture_file())
    menu.addSeparator()
    _add(menu, "&Quit", QKeySequence.StandardKey.Quit, shell.close)

    def able() -> None:
        space = shell.session.workspace
        for action in (export, table):
            action.setEnabled(space is not None)
        air_in.setEnabled(space is not None and space.real_cut is not None)
        air_out.setEnabled(space is not None and space.real_cut is not None and bool(space.real_cut.traverses))
        write.setEnabled(space is not None and space.cut is not None and bool(space.cut.runs))

    menu.aboutToShow.connect(able)


def _edit_menu(shell: Shell, menu: QMenu) -> None:
    def undo() -> None:
        if shell.session.workspace is not None:
            shell.session.undo()

    def redo() -> None:
        if shell.session.workspace is not None:
            shell.session.redo()

    undo_action = _add(menu, "&Undo", QKeySequence.StandardKey.Undo, undo)
    redo_action = _add(menu, "&Redo", "Ctrl+Shift+Z", redo)

    def name() -> None:
        space = shell.session.workspace
        undoes = space.undo_name if space else None
        redoes = space.redo_name if space else None
        undo_action.setText(f"&Undo: {undoes}" if undoes else "&Undo")
        redo_action.setText(f"&Redo: {redoes}" if redoes else "&Redo")

    menu.aboutToShow.connect(name)


def _cut_menu(shell: Shell, menu: QMenu) -> None:
    _add(menu, "&New cut…", "Ctrl+T", lambda: shell.new_cut.open())
    _add(menu, "One more &operation…", None, lambda: shell.new_cut.open_operation())
    _add(menu, "&Wall reading…", None, lambda: shell.wall_sheet.open())
    _add(menu, "&Pour…", None, lambda: shell.pour_sheet.open())
    _add(menu, "&Trial…", "Ctrl+Shift+T", lambda: shell.trial_sheet.open())
    menu.addSeparator()
    _add(menu, "Limit of local air speed…", None, shell.choose_speed_limit)
    _add(menu, "Tra&verse…", "Ctrl+Shift+V", lambda: _traverse(shell))
    _add(menu, "A maker's &claim…", None, lambda: shell.claim_sheet.open())
    _add(menu, "Hold against an&y run of the book…", "Ctrl+Shift+H", lambda: _other_side(shell))
    menu.addSeparator()
    _add(menu, "Look at the &next cut", "Ctrl+Right", lambda: _step(shell, 1))
    _add(menu, "Look at the &cut before", "Ctrl+Left", lambda: _step(shell, -1))
    _add(menu, "Hold against the next", "Ctrl+Shift+Right", lambda: _pin(shell, 1))
    _add(menu, "Hold against the one before", "Ctrl+Shift+Left", lambda: _pin(shell, -1))
    menu.addSeparator()
    _add(menu, "Next &port", "Ctrl+P", lambda: _next_port(shell))
    _add(menu, "New &intake port", None, lambda: _new_port(shell, "intake"))
    _add(menu, "New &exhaust port", None, lambda: _new_port(shell, "exhaust"))
    _add(menu, "Ports for &all cylinders", None, lambda: _all_ports(shell))


def _other_side(shell: Shell) -> None:
    shell.go_to_named("compare")
    shell.choose_other_side()


def _traverse(shell: Shell) -> None:
    shell.go_to_named("air")
    shell.traverse_sheet.open()


def _step(shell: Shell, by: int) -> None:
    space = shell.session.workspace
    if space is None or space.port is None or space.real_cut is None:
        return
    cuts = space.port.cuts
    at = cuts.index(space.real_cut) + by
    if 0 <= at < len(cuts):
        space.look_at(cuts[at].id)


def _pin(shell: Shell, by: int) -> None:
    space = shell.session.workspace
    if space is None or space.port is None or space.cut is None:
        return
    cuts = [c for c in space.port.cuts if c.id != space.cut.id]
    if not cuts:
        return
    at = cuts.index(space.against) + by if space.against is not None else 0
    if 0 <= at < len(cuts):
        space.hold_against(cuts[at].id)


def _next_port(shell: Shell) -> None:
    space = shell.session.workspace
    if space is None or space.port is None:
        return
    ports = space.job.ports
    space.look_at_port(ports[(ports.index(space.port) + 1) % len(ports)].id)


def _new_port(shell: Shell, kind: Direction) -> None:
    space = shell.session.workspace
    if space is None:
        return
    count = sum(p.kind == kind for p in space.job.ports) + 1
    port = new_port(f"{kind.capitalize()} {count}", kind)
    space.apply(f"new port '{port.name}'", add_port(space.job, port))
    space.look_at_port(port.id)


def _all_ports(shell: Shell) -> None:
    """A port of each kind for every cylinder that has none yet, in one edit."""
    space = shell.session.workspace
    if space is None:
        return
    if not space.job.cylinders:
        shell.session.say("Say in the Head room, Casting, how many cylinders the head has.")
        return
    job, made = space.job, 0
    kinds: tuple[Direction, ...] = ("intake", "exhaust")
    for kind in kinds:
        for cylinder in range(1, space.job.cylinders + 1):
            name = f"{kind.capitalize()} {cylinder}"
            if all(p.name != name for p in job.ports):
                job = add_port(job, replace(new_port(name, kind), cylinder=cylinder))
                made += 1
    if made:
        space.apply(f"{made} ports", job)


def _bench_menu(shell: Shell, menu: QMenu) -> None:
    bench = shell.session.bench

    def ask_address() -> None:
        text, ok = QInputDialog.getText(shell, "Bench over TCP", "Host and port of an SCPI bench, as host:port")
        if not ok:
            return
        try:
            bench.connect_tcp(*host_and_port(text))
        except ValueError as error:
            shell.session.say(f"{error}.")

    _add(menu, "&Benches…", "Ctrl+Shift+B", lambda: shell.benches.open(shell.flow.hand.setup.bench))
    _add(menu, "&Pedal…", None, shell.choose_pedal)
    menu.addSeparator()
    witness = _add(menu, "This port is the &witness", None, lambda: _toggle_witness(shell))
    witness.setCheckable(True)
    by_witness = _add(menu, "&Judge by the witness port", None, lambda: _judge_by_witness(shell))
    by_witness.setCheckable(True)
    menu.addSeparator()
    _add(menu, "&Simulated bench", "Ctrl+B", bench.connect_simulated)
    _add(menu, "Bench over &TCP…", None, ask_address)
    leave = _add(menu, "&Disconnect, type by hand", "Ctrl+D", bench.disconnect_bench)

    def able() -> None:
        space = shell.session.workspace
        leave.setEnabled(bench.active)
        witness.setEnabled(space is not None and space.port is not None)
        witness.setChecked(space is not None and space.port is not None and space.port.witness)
        by_witness.setEnabled(space is not None and any(p.witness for p in space.job.ports))
        by_witness.setChecked(space is not None and space.analysis.judge_by_witness)

    menu.aboutToShow.connect(able)


def _toggle_witness(shell: Shell) -> None:
    space = shell.session.workspace
    if space is None or space.port is None:
        return
    port, on = space.port, not space.port.witness
    if on and len(port.cuts) > 1:
        shell.session.say(f"{port.name} has been cut: a witness is a port that nobody touches.")
        return
    name = f"{port.name} {'is' if on else 'is no longer'} the witness"
    space.apply(name, edit_port(space.job, port.id, lambda p: replace(p, witness=on)))


def _judge_by_witness(shell: Shell) -> None:
    space = shell.session.workspace
    if space is None:
        return
    on = not space.analysis.judge_by_witness
    space.judge_by_witness(on)
    shell.session.say("Judged against the witness port's own change." if on else "The witness is left out of verdicts.")


def _room_opener(shell: Shell, index: int) -> Callable[[], None]:
    return lambda: shell.go_to(index)


def _view_menu(shell: Shell, menu: QMenu) -> None:
    session = shell.session
    for i, name in enumerate(shell.rail.names):
        _add(menu, f"&{i + 1} {name}", f"Ctrl+{i + 1}", _room_opener(shell, i))
    menu.addSeparator()
    _add(menu, "&Far view alone", "F11", shell.toggle_far)
    _add(menu, "&Reading distance…", None, shell.set_reading_distance)
    still = _add(menu, "Reduced &motion", None, lambda: session.use_reduced_motion(still.isChecked()))
    still.setCheckable(True)
    still.setChecked(session.reduced_motion)
    menu.addSeparator()
    _chooser(menu, (("US shop units", "us"), ("Metric", "metric")), session.units.name, session.use_units)
    menu.addSeparator()
    theme_name = str(session.settings.value("theme", "dye"))
    _chooser(menu, (("Dye, dark", "dye"), ("Paper, light", "paper")), theme_name, session.use_theme)


def _chooser(menu: QMenu, options: tuple[tuple[str, str], ...], chosen: str, use: Callable[[str], None]) -> None:
    group = QActionGroup(menu)
    for words, name in options:
        action = menu.addAction(words)
        action.setCheckable(True)
        action.setChecked(name == chosen)
        group.addAction(action)
        action.triggered.connect(lambda _checked=False, n=name: use(n))
