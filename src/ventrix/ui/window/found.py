"""What the finder finds: commands, calculators, ports, cuts and jobs, and runs to hold against."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

from ventrix.core.calculators.answer import registry
from ventrix.core.calculators.contract import Calculator
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command
from ventrix.ui.window.finder import Found
from ventrix.words import tr
from ventrix.workspace.acts import go_straight_to


def found_commands(commands: Iterable[Command]) -> list[Found]:
    """Every command that can be done now, with its keys; a sub-menu's are found as what they open."""
    return [
        Found(c.name, tr("command, {}", c.keys) if c.keys else "command", c.menu.replace("&", ""), c.run)
        for c in commands
        if c.below is None and c.able()
    ]


def found_in_book(
    open_book: OpenBook, reckon: Callable[[Calculator], object], open_job: Callable[[str], object]
) -> list[Found]:
    """Calculators, the open job's ports and cuts, and the book's jobs."""
    entries = [Found(c.title, "calculator", f"{c.id} {c.words}", partial(reckon, c)) for c in registry().values()]
    space = open_book.workspace
    if space is not None:
        for port in space.job.ports:
            entries.append(Found(port.name, "port", port.kind, partial(space.look_at_port, port.id)))
            for cut in port.cuts:
                name = tr("{}, cut {} {}", port.name, cut.number, cut.name)
                entries.append(Found(name, "cut", "", partial(space.look_at, cut.id)))
    for entry in open_book.book.jobs():
        entries.append(Found(entry.title, "job", "open", partial(open_job, entry.id)))
    return entries


def other_sides(open_book: OpenBook) -> list[Found]:
    """Every flowed cut and claim of the book to hold against, and the way back to the pinned cut."""
    space = open_book.workspace
    if space is None:
        return []
    entries = [Found(tr("the pinned cut again"), "back", "", space.let_go_of_other)] if space.other is not None else []
    for entry in open_book.book.jobs():
        job = space.job if entry.id == space.job.id else open_book.book.load(entry.id)
        for port in job.ports:
            for cut in port.cuts:
                name = tr("{}, {}, cut {} {}", job.title, port.name, cut.number, cut.name)
                if any(not r.claimed and r.readings for r in cut.runs):
                    hold = partial(space.hold_against_other, job.id, cut.id)
                    entries.append(Found(name, tr("compare with"), "measured", hold))
                if any(r.claimed for r in cut.runs):
                    hold = partial(space.hold_against_other, job.id, cut.id, claimed=True)
                    entries.append(Found(tr("claimed: {}", name), tr("compare with"), "claim", hold))
    return entries


def states_to_reach(open_book: OpenBook) -> list[Found]:
    """States of the other ports that the port in hand can be brought to in one cut."""
    space = open_book.workspace
    if space is None or space.port is None:
        return []

    def go(model_id: str, cut_id: str) -> None:
        if space is not None and (said := go_straight_to(space, model_id, cut_id)):
            open_book.say(said)

    return [
        Found(
            tr("{}, cut {} {}", port.name, cut.number, cut.name),
            tr("straight to"),
            port.kind,
            partial(go, port.id, cut.id),
        )
        for port in space.job.ports
        if port.id != space.port.id and port.kind == space.port.kind
        for cut in port.cuts
        if cut.number > 0
    ]
