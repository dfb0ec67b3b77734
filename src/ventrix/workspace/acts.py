"""What a person does to the open job from anywhere: walk the row, add ports, name a witness. Answers are sentences."""

from __future__ import annotations

from dataclasses import replace
from itertools import count

from ventrix.core.edits.cuts import add_port, edit_port
from ventrix.core.edits.several_ports import choose_model, let_stand_for, straight_to
from ventrix.core.model.kinds import Direction, Piece
from ventrix.core.model.port_names import ports_named
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.new_job import new_port
from ventrix.workspace.workspace import Workspace


def step_along_row(space: Workspace, by: int) -> None:
    """Look at the next cut, or the one before."""
    if space.port is None or space.real_cut is None:
        return
    cuts = space.port.cuts
    at = cuts.index(space.real_cut) + by
    if 0 <= at < len(cuts):
        space.look_at(cuts[at].id)


def pin_along_row(space: Workspace, by: int) -> None:
    """Compare with the next cut cut, or the one before."""
    if space.port is None or space.cut is None:
        return
    cuts = [c for c in space.port.cuts if c.id != space.cut.id]
    if not cuts:
        return
    at = cuts.index(space.against) + by if space.against is not None else 0
    if 0 <= at < len(cuts):
        space.hold_against(cuts[at].id)


def next_port(space: Workspace) -> None:
    """Look at the next port of the head; after the last, the first."""
    if space.port is not None:
        ports = space.job.ports
        space.look_at_port(ports[(ports.index(space.port) + 1) % len(ports)].id)


def make_port(space: Workspace, kind: Direction) -> None:
    """One more port of a kind, as received, and look at it."""
    taken = {p.name for p in space.job.ports}
    names = (f"{kind.capitalize()} {n}" for n in count(1))
    port = new_port(next(n for n in names if n not in taken), kind)
    space.apply(tr("new port '{}'", port.name), add_port(space.job, port))
    space.look_at_port(port.id)


def make_piece(space: Workspace, piece: Piece) -> None:
    """A runner, spacer or primary as a row of its own, of the kind of the port in hand, and look at it."""
    kind: Direction = Direction.EXHAUST if piece is Piece.HEADER else Direction.INTAKE
    taken = {p.name for p in space.job.ports}
    names = (f"{piece.value.capitalize()} {n}" for n in count(1))
    port = replace(new_port(next(n for n in names if n not in taken), kind), piece=piece.value)
    space.apply(tr("new piece '{}'", port.name), add_port(space.job, port))
    space.look_at_port(port.id)


def make_all_ports(space: Workspace) -> str:
    """A port of each kind for every cylinder that has none yet, in one edit; a sentence where that cannot be."""
    if not space.job.cylinders:
        return tr("Say in the Head room, Casting, how many cylinders the head has.")
    job, made = space.job, 0
    kinds: tuple[Direction, ...] = (Direction.INTAKE, Direction.EXHAUST)
    for kind in kinds:
        for cylinder in range(1, space.job.cylinders + 1):
            name = f"{kind.capitalize()} {cylinder}"
            if all(p.name != name for p in job.ports):
                job = add_port(job, replace(new_port(name, kind), cylinder=cylinder))
                made += 1
    if made:
        space.apply(tr("{} ports", made), job)
    return ""


def toggle_witness(space: Workspace) -> str:
    """Make the port in hand the witness, or no longer; a sentence where it cannot be one."""
    if space.port is None:
        return ""
    port, on = space.port, not space.port.witness
    if on and len(port.cuts) > 1:
        return tr("{} has been cut: a witness is a port that nobody touches.", port.name)
    name = tr("{} {} the witness", port.name, "is" if on else tr("is no longer"))
    space.apply(name, edit_port(space.job, port.id, lambda p: replace(p, witness=on)))
    return ""


def toggle_judging_by_witness(space: Workspace) -> str:
    """Judge against the witness port's own change, or leave it out; says which."""
    on = not space.findings.judge_by_witness
    space.judge_by_witness(on)
    return tr("Judged against the witness port's own change.") if on else tr("The witness is left out of verdicts.")


def go_straight_to(space: Workspace, model_id: str, cut_id: str) -> str:
    """Bring the port in hand in one cut to a state of another; a sentence where that cannot be."""
    if space.port is None:
        return ""
    model = space.job.port(model_id)
    state = next(c for c in model.cuts if c.id == cut_id)
    try:
        job = straight_to(space.job, space.port.id, model, state, new_id, now_text())
    except Refused as error:
        return sentence(str(error))
    space.apply(tr("straight to cut {} of {}", state.number, model.name), job)
    if space.port is not None:
        space.look_at(space.port.cuts[-1].id)
    return ""


def stand_for(space: Workspace, names: str) -> str:
    """Let the last test of the cut looked at stand for ports named, or for none; a sentence where one is not there."""
    if space.real_cut is None or not space.real_cut.runs:
        return tr("This cut has not been flowed: there is no test to use for others.")
    try:
        ports = ports_named(space.job.ports, names, space.port)
    except Refused as error:
        return sentence(str(error))
    job = let_stand_for(space.job, space.real_cut.runs[-1].id, tuple(p.id for p in ports))
    space.apply(tr("test used for {}", ", ".join(p.name for p in ports) or tr("itself alone")), job)
    return ""


def choose_model_port(space: Workspace) -> None:
    """The port in hand is the model of its kind; or is it no longer by choice."""
    port = space.port
    if port is None or not port.of_head:
        space.say(tr("Only a port of the head can be its model."))
        return
    chosen = port.id not in space.job.model_port_ids
    said = (
        tr("{} is the model of the {}s", port.name, port.kind)
        if chosen
        else tr("{} is the model by choice no more", port.name)
    )
    space.apply(said, choose_model(space.job, port))
