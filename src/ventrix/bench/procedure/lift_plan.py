"""The plan of a run: which lifts, in which order, and coming back to a low one at the end."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, NamedTuple

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.runs.lifts import as_thousandths
from ventrix.words import tr

MOST_RUNGS: Final = 60
GRAIN: Final = 1e6  # rungs closer than a micrometre are one


@dataclass(frozen=True, slots=True)
class Rung:
    """One rung: lift [m], a test pressure of its own [Pa] or None, and whether it is the coming back."""

    lift: float
    pressure: float | None = None
    returns: bool = False

    @property
    def key(self) -> tuple[int, bool]:
        """What makes two rungs the same one."""
        return round(self.lift * GRAIN), self.returns


def rungs(lifts: Iterable[float], *, come_back: bool = False) -> list[Rung]:
    """Rungs at these lifts [m], lowest first, and the second lowest once more at the end if asked for."""
    up = [Rung(x) for x in sorted({round(x, 9) for x in lifts}) if x > 0]
    if come_back and len(up) > 2:
        up.append(Rung(up[1].lift, returns=True))
    return up


class Lifts(NamedTuple):
    """Lifts [m], rising, and whether whole numbers were read as thousandths of an inch."""

    lifts: list[float]
    thousandths: bool = False


def parse_lifts(text: str, unit: str) -> Lifts:
    """Lifts [m] from what a person types: "0.05 to 0.6 by 0.05", a list, or both: "0.1, 0.2, 0.3 to 0.6 by 0.1".

    A list may be parted by spaces alone. Whole numbers in inches that only make sense as thousandths, "50 100 150",
    are read as such.

    Raises
    ------
    ValueError
        With a sentence: nothing there, not a number, steps that do not rise, or more than 60 rungs.
    """
    found: list[float] = []
    for part in (p.strip() for p in re.split(r"[;\n]|,(?=\s|$)|,(?=\S*[;,])", text)):
        if not part:
            continue
        words = re.split(r"\s*\b(?:to|by)\b\s*", part)
        if len(words) == 1:
            found += _listed(part, unit)
            continue
        if len(words) != 3:
            raise Refused("'{}' needs a first lift, a last and a step: 0.05 to 0.6 by 0.05", part[:40])
        first, last, step = (parse_quantity(w, unit) for w in words)
        if step <= 0 or last < first:
            raise Refused("'{}' does not rise", part[:40])
        if (last - first) / step > MOST_RUNGS:
            raise Refused("that would be more than {} lifts", MOST_RUNGS)
        count = int((last - first) / step + 1e-6) + 1
        found += [first + i * step for i in range(count)]
    meant = as_thousandths(found, unit)
    lifts = sorted({round(x, 9) for x in (meant or found)})
    if not lifts:
        raise Refused("a plan needs at least one lift")
    if lifts[0] <= 0:
        raise Refused("lifts start above zero")
    if len(lifts) > MOST_RUNGS:
        raise Refused("a plan has at most {} lifts", MOST_RUNGS)
    return Lifts(lifts, meant is not None)


def _listed(part: str, unit: str) -> list[float]:
    """One lift, or several parted by spaces or commas alone."""
    cells = part.split()
    if len(cells) > 1 and all(_PLAIN.fullmatch(c) for c in cells):
        return [parse_quantity(c, unit) for c in cells]
    if part.count(",") > 1 or ("," in part and "." in part):
        return [parse_quantity(c, unit) for c in part.split(",") if c.strip()]
    return [parse_quantity(part, unit)]


_PLAIN: Final = re.compile(r"\d+(?:[.,]\d*)?|[.,]\d+")


def lifts_in_words(lifts: Sequence[float], text: object) -> str:
    """A plan as it would be typed: even steps as "a to b by c", others as a list. `text` formats one lift."""
    assert callable(text)
    steps = {round((b - a) * GRAIN) for a, b in pairwise(lifts)}
    if len(lifts) > 2 and max(steps) - min(steps) <= 1:
        return tr("{} to {} by {}", text(lifts[0]), text(lifts[-1]), text(lifts[1] - lifts[0]))
    return ", ".join(text(x) for x in lifts)
