"""What a new job may be begun on, besides the shop's benches by their ids."""

from __future__ import annotations

from typing import Final

from ventrix.words import tr

SIMULATED: Final = "simulated"
BY_HAND: Final = ""
NO_BENCH: Final = tr("no bench")
