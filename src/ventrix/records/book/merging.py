"""Edits of two windows brought together: what one changed goes onto what the other left, noun by noun."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any, TypeVar

from ventrix.core.model.noun import Noun, words_of
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.units import from_si
from ventrix.records.bad_input import Conflict
from ventrix.records.book.rows import flatten
from ventrix.records.book.tables import CHILDREN
from ventrix.words import tr

N = TypeVar("N", bound=Noun)


def merged(base: N, mine: N, theirs: N) -> N:
    """What `mine` changed of `base`, done to `theirs`.

    Parameters
    ----------
    base : Noun
        What both windows began from.
    mine, theirs : Noun
        What each made of it.

    Returns
    -------
    Noun
        With both changes; children of both, theirs first.

    Raises
    ------
    Conflict
        Both changed one field to different values, or one took out what the other changed or measured.
    """
    if mine is base or mine == base:
        return theirs
    if theirs is base or theirs == base:
        return mine
    children = CHILDREN.get(type(base), {})
    values: dict[str, Any] = {}
    for each in fields(base):
        had, own, other = (getattr(n, each.name) for n in (base, mine, theirs))
        if each.name in children:
            values[each.name] = _merged_children(had, own, other)
        elif own == had:
            values[each.name] = other
        elif other in (had, own):
            values[each.name] = own
        else:
            unit = each.metadata.get("unit")
            raise Conflict(
                tr(
                    "{}, {}: another window made it {}, here it is {}",
                    name_of(base),
                    each.name.replace("_", " "),
                    _words(other, unit),
                    _words(own, unit),
                )
            )
    return type(base)(**values)


def _merged_children(base: tuple[N, ...], mine: tuple[N, ...], theirs: tuple[N, ...]) -> tuple[N, ...]:
    had, own = {n.id: n for n in base}, {n.id: n for n in mine}
    found: list[N] = []
    for other in theirs:
        if other.id in own:
            if other.id in had:
                found.append(merged(had[other.id], own[other.id], other))
            elif own[other.id] == other:
                found.append(other)
            else:
                raise Conflict(tr("{} was made in another window too, and is not the same there", name_of(other)))
        elif other.id not in had:
            found.append(other)
        elif other != had[other.id]:
            more = _readings(other) - _readings(had[other.id])
            gained = tr("has gained {} reading{}", more, "s" * (more > 1)) if more > 0 else tr("was changed")
            raise Conflict(tr("{} {} in another window, and is not deleted", name_of(other), gained))
    there = {n.id for n in theirs}
    for item in mine:
        if item.id in there:
            continue
        if item.id not in had:
            found.append(item)
        elif item != had[item.id]:
            raise Conflict(tr("{} was deleted in another window", name_of(item)))
    return tuple(found)


def _readings(noun: Noun) -> int:
    return sum(len(f.noun.readings) for f in flatten(noun) if isinstance(f.noun, FlowRun))


def name_of(noun: Noun) -> str:
    """A noun as a person would point at it: "Cut 2", "Port 'Intake 1'"."""
    kind = words_of(type(noun))
    number, name = getattr(noun, "number", None), getattr(noun, "name", "") or getattr(noun, "title", "")
    if number is not None:
        return f"{kind.capitalize()} {number}"
    article = "An" if kind[0] in "aeiou" else "A"
    return f"{kind.capitalize()} '{name}'" if name else f"{article} {kind}"


def _words(value: Any, unit: str | None) -> str:
    if value is None:
        return "nothing"
    if unit is not None and isinstance(value, float | int):
        return f"{from_si(value, unit):.6g}{'' if unit == '-' else ' ' + unit}"
    return f"'{value}'" if isinstance(value, str) else str(value)


def shared(old: N, new: N) -> N:
    """`new`, built of the very objects of `old` wherever they say the same: what was worked out from them holds."""
    if old == new:
        return old
    values: dict[str, Any] = {}
    for name in CHILDREN.get(type(new), {}):
        known = {n.id: n for n in getattr(old, name)}
        values[name] = tuple(shared(known[n.id], n) if n.id in known else n for n in getattr(new, name))
    return replace(new, **values)
