"""A job's head face and another laid on it: the fit, the joints, what to take off."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.lineup.fitting import Crooked, Fit, by_bolts, by_ports, crookedness, middles
from ventrix.core.lineup.steps import Joint, Proposal, joints, proposals
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Face
from ventrix.core.model.kinds import FacePart
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class LineUp:
    """Everything of two faces that meet. `by` says what the fit rests on: bolts, ports or hand; `left` is how far each
    port of the head stands off the other's then [m]."""

    head: Face
    other: Face
    fit: Fit
    by: str
    left: dict[str, tuple[float, float]]
    crooked: Crooked
    joints: tuple[Joint, ...]
    proposals: tuple[Proposal, ...]


def meets_the_head(job: Job) -> tuple[Face, ...]:
    """Faces of a job that can be laid on its head's."""
    return tuple(f for f in job.faces if f.part not in (FacePart.HEAD, FacePart.CHAMBER))


def line_up(job: Job, name: str | None = None, by: str | None = None, moved: Fit | None = None) -> LineUp:
    """The head's face with another on it.

    Parameters
    ----------
    job : Job
        With faces.
    name : str, optional
        The other face; the first that is not the head's without it.
    by : str, optional
        "bolts" or "ports"; by bolts where the two share any.
    moved : Fit, optional
        As it was moved by hand.

    Returns
    -------
    LineUp

    Raises
    ------
    ValueError
        No face of the head, none other, or nothing that they share, in words.

    References
    ----------
    `fitting`, `steps`.
    """
    heads = [f for f in job.faces if f.part == FacePart.HEAD]
    others = list(meets_the_head(job))
    if name is not None:
        named = [f for f in job.faces if f.name.lower() == name.strip().lower()]
        if not named:
            raise Refused("'{}' is not one of {}", name[:40], ", ".join(f.name for f in job.faces) or tr("no face"))
        if named[0].part == FacePart.CHAMBER:
            raise Refused("'{}' is a chamber: it is not laid on the ports' face", named[0].name)
        others = [f for f in named if f not in heads[:1]] or others
    if not heads:
        raise Refused("line-up needs a face of the head")
    if not others:
        raise Refused("line-up needs a face to lay on the head's: gasket, manifold or header")
    head, other = heads[0], others[0]
    fit = by_bolts(other, head) if by != "ports" else None
    rests = "bolts"
    if fit is None:
        fit, rests = by_ports(other, head), "ports"
    if moved is not None:
        fit, rests = moved, "hand"
    here, there = middles(head), middles(other)
    left = {}
    for port, (x, y) in here.items():
        if port in there:
            placed = fit.place([there[port]])[0]  # type: ignore[arg-type]
            left[port] = (float(x - placed[0]), float(y - placed[1]))
    found = joints(job, head, other, fit)
    return LineUp(
        head, other, fit, rests, left, crookedness(other, head, fit), found, proposals(job, head, other, found)
    )
