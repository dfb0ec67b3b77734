"""Passes in batches: two or three places worked, then one flow test, which costs as much as a pass."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from ventrix.core.planning.chain import ChainWork
from ventrix.core.planning.moves import Ground, Move, MoveKind
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.words import listed
from ventrix.words import tr

MOST: Final = 3  # places: four are too many
MAY_HURT: Final = 0.2  # chance that a pass loses flow: it is flowed alone


def batches(ground: Ground, moves: Sequence[Move]) -> list[Move]:
    """The best sets of two and of three open passes, by joint draws; none where a set's hour is no better than its best
    pass's. A place whose wall was not read is blocked, and in no set."""
    may = [
        m for m in moves
        if m.kind is MoveKind.CUT and not m.named and not m.blocked_by and m.gain > 0
        and float(np.mean(m.draws < 0)) <= MAY_HURT
    ]  # fmt: skip
    if ground.planned.run is None or len(may) < 2:
        return []
    chosen = [max(may, key=lambda m: m.rate)]
    found: list[Move] = []
    best = chosen[0].rate
    while len(chosen) < min(MOST, len(may)):
        tried = [_together(ground, [*chosen, m]) for m in may if m not in chosen]
        move = max(tried, key=lambda m: m.rate)
        chosen = list(move.passes)
        if move.rate > best:
            found.append(move)
            best = move.rate
    return found


def _together(ground: Ground, passes: Sequence[Move]) -> Move:
    """A set of passes done one after the other, and flowed once."""
    works = [ChainWork(m.place, m.depth or 0.0, m.place in ground.before) for m in passes]
    gains = _as_learned(ground, passes, ground.fit.gain(works, ground.planned.lift))
    seconds = sum(m.seconds - m.flowing for m in passes)
    places = [m.place for m in passes]
    saved = tr("{} flow test{}", len(passes) - 1, "s" * (len(passes) > 2))
    said = tr(
        "Work {}, then flow once: saves {}. The set's gain is what is proven, not each pass's; "
        "flowing between would tell which of them brought it.",
        listed(places),
        saved,
    )
    lefts = [m.wall_left for m in passes if m.wall_left is not None]
    move = ground.move(
        listed(places), MoveKind.BATCH, gains, seconds, said, None, sum(m.volume for m in passes),
        min(lefts, default=None),
    )  # fmt: skip
    return replace(move, passes=tuple(passes), guess=any(m.guess for m in passes))


def _as_learned(ground: Ground, passes: Sequence[Move], gains: Array) -> Array:
    """The porter's own factors, each by its pass's part of the gain."""
    whole = sum(m.gain for m in passes)
    factors = [ground.his[m.place].gain if m.place in ground.his else None for m in passes]
    scale = sum(m.gain / (f or 1.0) for m, f in zip(passes, factors, strict=True))
    return np.asarray(gains * (whole / scale if scale > 0 else 1.0))
