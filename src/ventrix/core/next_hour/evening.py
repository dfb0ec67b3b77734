"""An evening filled from the list: what fits into the hours there are, in an order that can be worked."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.quantity.refused import Refused

SETTING_UP: Final = 20 * 60.0  # s, of the bench: once an evening (common practice, no source)


def evening(items: Sequence[WorkItem], seconds: float) -> tuple[WorkItem, ...]:
    """What fits into so much time.

    Parameters
    ----------
    items : sequence of WorkItem
        In their order; what waits for another of them may follow it.
    seconds : float
        That there are [s].

    Returns
    -------
    tuple of WorkItem
        In the order to be worked. Setting up the bench counts once, for the first that is flowed.

    Raises
    ------
    ValueError
        No time.

    References
    ----------
    Greedy by the order of the list; definition of this project.
    """
    if seconds <= 0:
        raise Refused("an evening has some time in it")
    chosen: list[WorkItem] = []
    left, bench_stands = seconds, False
    while True:
        done = {item.key for item in chosen}
        ready = [i for i in items if i.key not in done and all(w.key in done for w in i.waits)]
        ready.sort(key=lambda item: item.place_in_line)
        fits = next((i for i in ready if i.seconds + _setting_up(i, bench_stands) <= left), None)
        if fits is None:
            return tuple(chosen)
        left -= fits.seconds + _setting_up(fits, bench_stands)
        bench_stands = bench_stands or fits.flowing > 0
        chosen.append(fits)


def _setting_up(item: WorkItem, stands: bool) -> float:
    return SETTING_UP if item.flowing > 0 and not stands else 0.0
