"""What was typed into the book's search, understood: figures with what they are of, and the words that are left."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Final

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.book.index import Question, Wish
from ventrix.rooms.display_units import Shown, Units
from ventrix.words import tr

# How far off a figure may be and still be what was meant, as a share; "about" doubles it.
MARGIN: Final = {"section": 0.05, "throat": 0.025, "valve": 0.02, "volume": 0.03, "flow": 0.03}
_NAMES: Final = {
    "section": "section",
    "area": "section",
    "throat": "throat",
    "valve": "valve",
    "cc": "volume",
    "volume": "volume",
    "port": "volume",
    "flow": "flow",
    "cfm": "flow",
}
# Words that say what the next one is of: every word is looked for everywhere, so they add nothing.
_FILLERS: Final = frozenset(("casting", "customer", "for", "fault", "note", "date", "about", "at", "with", "and"))
_UNIT_OF: Final = {
    **dict.fromkeys(("in2", "in²", "cm2", "cm²", "mm2", "mm²"), "section"),
    **dict.fromkeys(("cc", "cm3", "ml"), "volume"),
    **dict.fromkeys(("cfm", "l/s", "m3/h"), "flow"),
}
_NUMBER: Final = re.compile(r"[0-9]+(?:[.,][0-9]+)?")
_RANGE: Final = re.compile(r"([0-9]+(?:[.,][0-9]+)?)[-–]([0-9]+(?:[.,][0-9]+)?)")
_WITH_UNIT: Final = re.compile(r"([0-9]+(?:[.,][0-9]+)?)([a-zA-Z²/][a-zA-Z0-9²/]*)")


@dataclass(frozen=True, slots=True)
class Understood:
    """A question, and what is shown of how it was read."""

    question: Question
    said: str


def read_question(text: str, units: Units) -> Understood:
    """Understand what was typed. Figures without a unit are in the units on screen; what is no figure is a word."""
    parts = _split("".join(c for c in text if c.isprintable() or c.isspace()))  # no half characters, no zero bytes
    words: list[str] = []
    wishes: list[Wish] = []
    key, about, i = "", False, 0
    while i < len(parts):
        part = parts[i]
        low = part.lower()
        figure = _figure(parts, i)
        if figure is not None:
            first, second, unit, used = figure
            named = _UNIT_OF.get(unit, key)
            i += used
            lift = None
            if i + 1 < len(parts) and parts[i].lower() == "at" and (at := _figure(parts, i + 1)) is not None:
                lift = _si(at[0], at[2], units.lift)
                i += 1 + at[3]
            if lift is not None:
                named = "flow"
            wish = _wish(named, first, second, unit, lift, about, units) if named else None
            if wish is not None and (named != "flow" or lift is not None):
                wishes.append(wish)
            else:
                words.append(part)
            key, about = "", False
        elif low in _NAMES and _figure(parts, i + 1 + (i + 1 < len(parts) and parts[i + 1].lower() == "about")):
            key, i = _NAMES[low], i + 1
        elif low in _FILLERS or low in _UNIT_OF:
            about, i = about or low == "about", i + 1
        else:
            words.append(part)
            i += 1
    question = Question(tuple(words), tuple(wishes))
    return Understood(question, _said(question, units))


def _split(text: str) -> list[str]:
    return [p for p in re.split(r"\s+", text.strip()) if p]


def _figure(parts: list[str], at: int) -> tuple[str, str | None, str, int] | None:
    """A figure that begins at a part: number, the other end of a range or None, unit, and how many parts it takes."""
    if at >= len(parts):
        return None
    part = parts[at]
    between = _RANGE.fullmatch(part)
    joined = _WITH_UNIT.fullmatch(part)
    if between is not None:
        first, second, used, unit = between[1], between[2], 1, ""
    elif _NUMBER.fullmatch(part) is not None:
        first, second, used, unit = part, None, 1, ""
        if at + 2 < len(parts) and parts[at + 1].lower() == "to" and _NUMBER.fullmatch(parts[at + 2]):
            second, used = parts[at + 2], 3
    elif joined is not None and joined[2].lower() in (*_UNIT_OF, "in", "mm", "cm"):
        return joined[1], None, joined[2].lower(), 1
    else:
        return None
    if at + used < len(parts) and parts[at + used].lower() in (*_UNIT_OF, "in", "mm", "cm"):
        unit, used = parts[at + used].lower(), used + 1
    return first, second, unit, used


def _si(number: str, unit: str, shown: Shown) -> float | None:
    symbol = {"in²": "in2", "cm²": "cm2", "mm²": "mm2", "cm3": "cc", "ml": "cc"}.get(unit, unit)
    try:
        return parse_quantity(f"{number} {symbol}".strip(), shown.unit)
    except Refused:
        return None


def _wish(
    key: str, first: str, second: str | None, unit: str, lift: float | None, about: bool, units: Units
) -> Wish | None:
    shown = shown_for(key, units)
    low = _si(first, unit, shown)
    high = low if second is None else _si(second, unit, shown)
    if low is None or high is None or low <= 0 or high <= 0:
        return None
    if second is not None:
        low, high = sorted((low, high))
        return Wish(key, (low + high) / 2, low, high, lift)
    margin = MARGIN[key] * (2 if about else 1)
    return Wish(key, low, low * (1 - margin), low * (1 + margin), lift)


def shown_for(key: str, units: Units) -> Shown:
    """How a size that is searched for is shown."""
    return {"section": units.area, "volume": units.volume, "flow": units.flow}.get(key, units.length)


def _said(question: Question, units: Units) -> str:
    said = []
    for wish in question.wishes:
        shown = shown_for(wish.key, units)
        at = "" if wish.lift is None else tr(" at {}", units.lift.with_unit(wish.lift))
        said.append(tr("{} {} to {}{}", wish.key, shown.text(wish.low), shown.with_unit(wish.high), at))
    if question.words:
        said.append(" and ".join(f"“{w}”" for w in question.words))
    return tr("read as: {}", ", ".join(said)) if said else ""
