"""What is checked before a head goes out, and why it matters. Common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.job import Job
from ventrix.core.model.school_questions import side_taken
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Check:
    """A line of the list: what is ticked, and what goes wrong without it."""

    item: str
    why: str = ""


CHECKS: Final = (
    Check("blended again after the valve job", tr("no fillet left below the lowest cut, and never past the seat")),
    Check("lapped, contact looked at all round", tr("a seat that does not touch all round leaks and burns")),
    Check("guides sized", tr("a tight guide seizes, a loose one lets the seat wear")),
    Check("guides deburred", tr("a burr scores the stem")),
    Check("pressed inserts and guides looked at", tr("follow the maker's interference; a licensed shop fits them")),
    Check("tubed holes pressure-tested", tr("a tube that weeps puts water or oil into the port")),
    Check("plug boss blended", tr("a boss that sticks out glows and is in the air's way")),
    Check("chamber edges softened", tr("a sharp edge glows")),
    Check(
        "oil and water passages clear", tr("chips and grit from one passage end an engine: blow and brush every one")
    ),
    Check("drilled and tapped holes clean", tr("drill and tap slowly, and get the chips out of every one")),
    Check("threads chased"),
    Check("surface as agreed"),
    Check("washed", tr("abrasive grit stays in corners: hot soap, brushes, then oil")),
    Check("flatness checked again"),
    Check("gasket land wide enough", tr("too thin, and it does not seal")),
    Check("manifold lines up", tr("a milled head sits lower")),
    Check("assembled, springs and locks seated", tr("as the maker's data say")),
)


def surface_agreed(job: Job) -> str:
    """The surface that this job's porter leaves, both kinds of port."""
    intake, exhaust = side_taken(job, "surface").words, side_taken(job, "exhaust_surface").words
    return tr("intake {}; exhaust {}", intake, exhaust)
