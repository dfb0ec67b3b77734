"""Every practice head, easiest first."""

from __future__ import annotations

from typing import Final

from ventrix.bench.simulator.practice import (
    cast_bump,
    easy_two_valve,
    four_valve,
    home_built,
    shifted_core,
    thin_short_side,
    whole_head,
)
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.core.quantity.refused import Refused

HEADS: Final[tuple[PracticeHead, ...]] = tuple(
    m.HEAD for m in (easy_two_valve, thin_short_side, shifted_core, four_valve, cast_bump, home_built, whole_head)
)


def head_named(wanted: str) -> PracticeHead:
    """A head by its id. ValueError where there is none."""
    found = next((h for h in HEADS if h.id == wanted), None)
    if found is None:
        raise Refused("'{}' is not one of {}", wanted[:40], ", ".join(h.id for h in HEADS))
    return found
