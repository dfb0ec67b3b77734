"""Wall limits as they are typed: "exhaust bowl to water 0.125; 0.110"."""

from __future__ import annotations

from ventrix.core.metal.unrolled import ZONE_NAMES
from ventrix.core.model.job_parts import WallLimit
from ventrix.core.model.kept_words import Behind
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.words import tr

KINDS = tuple(Direction)


def limit_text(limit: WallLimit, figure: str) -> str:
    """A limit as it is typed."""
    behind = tr("to {}", limit.behind) if limit.behind else ""
    return " ".join(part for part in (limit.kind, limit.place, behind, figure) if part)


def limit_typed(text: str, unit: str, limit_id: str) -> WallLimit:
    """A limit from "[intake|exhaust] [place] [to what lies behind] figure".

    Raises
    ------
    ValueError
        With a sentence: a place or a thing behind that there is none of, or no figure above zero.
    """
    words, _, figure = text.strip().lower().rpartition(" ")
    kind = next((k for k in KINDS if words.split()[:1] == [k]), "")
    rest = words.removeprefix(kind).strip()
    place, to, behind = rest.partition("to ") if rest.startswith("to ") else rest.partition(" to ")
    place, behind = place.strip(), behind.strip()
    if place and place not in ZONE_NAMES:
        raise Refused("'{}' is not one of {}", place, ", ".join(ZONE_NAMES))
    known = tuple(Behind)[1:]
    if to and behind not in known:
        raise Refused("'{}' is not one of {}", behind, ", ".join(known))
    thickness = read_small(figure, unit).value
    if thickness <= 0:
        raise Refused("a limit must be above zero")
    return WallLimit(id=limit_id, place=place, kind=kind, behind=behind, thickness=thickness)
