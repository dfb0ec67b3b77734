"""Cuts of other jobs beside one: how alike their sizes are, whether their flows may stand side by side, and what that
size flowed before."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.judging.comparability import Level, comparability
from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.quantity.arrays import Array
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

# How far apart two sizes may be and still be "that size", as a share: a section is judged less closely than a diameter
# (common practice, no source).
CLOSE: Final = {"section": 0.05, "throat": 0.025, "valve": 0.02}
FAR: Final = 2.5  # in these
FEWEST: Final = 4  # cuts before a middle half is named

_WHY: Final = {
    "bench": tr("other bench"),
    "bore": tr("other bore"),
    "entry": tr("other entry"),
    "pipe": tr("other pipe"),
    "valve": tr("other valve fitted"),
    "plug": tr("other plug"),
    "centred": tr("off center"),
    "test_pressure": tr("other pressure"),
}


def size_distance(a: CutSummary, b: CutSummary) -> float | None:
    """How unlike two cuts are in size: root mean square of relative differences, each over what is close.

    Parameters
    ----------
    a, b : CutSummary
        Two flowed cuts.

    Returns
    -------
    float or None
        [-]; 1 is just close. None where neither section nor throat nor valve is known of both.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    What counts as close: common practice, no source.
    """
    parts = []
    for key, close in CLOSE.items():
        mine, other = getattr(a, key), getattr(b, key)
        if mine and other:
            parts.append((np.log(other / mine) / close) ** 2)
    return float(np.sqrt(np.mean(parts))) if parts else None


def why_left_out(of: CutSummary, cut: CutSummary) -> str:
    """Why the flow of one cut cannot stand beside another's, in two words; empty where it can.

    The rules are those of every comparison; another test pressure is left out here and not converted.
    """
    if cut.is_share or of.is_share:
        return tr("uncalibrated bench")
    found = comparability(of.setup, cut.setup)
    for each in found.differences:
        if each.level in (Level.NO, Level.CONVERTED):
            return _WHY.get(each.key, f"other {each.key}")
    return "" if found.level == Level.YES else tr("conditions not recorded")


def flow_at(cut: CutSummary, lift: float) -> float | None:
    """Flow of a cut at a lift [m], on straight lines between its tested lifts; None past its ends."""
    return between_lifts(lift, cut.lifts, cut.flows) if cut.lifts else None


def flow_of_run(run: ReducedRun, lift: float) -> float | None:
    """Flow of a run at a lift [m], on straight lines between its tested lifts; None past its ends."""
    return between_lifts(lift, run.lift, run.flow)


def between_lifts(lift: float, lifts: Sequence[float] | Array, flows: Sequence[float] | Array) -> float | None:
    """Flow at a lift on straight lines between tested lifts, all in one unit each; None past the ends."""
    inside = lifts[0] * (1 - 1e-9) <= lift <= lifts[-1] * (1 + 1e-9)
    return float(np.interp(lift, lifts, flows)) if inside else None


@dataclass(frozen=True, slots=True)
class Middle:
    """The middle half of flows at a lift: from the lower to the upper quartile, and of how many cuts."""

    low: float
    high: float
    count: int


def middle_half(cuts: Sequence[CutSummary], lift: float) -> Middle | None:
    """What these cuts flowed at a lift [m]; None where fewer than four reach it.

    Parameters
    ----------
    cuts : sequence of CutSummary
        Cuts that may stand side by side.
    lift : float
        [m].

    Returns
    -------
    Middle or None
        [m3/s].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Quartiles by linear interpolation, Hyndman & Fan (1996), definition 7.
    """
    flows = [q for c in cuts if (q := flow_at(c, lift)) is not None]
    if len(flows) < FEWEST:
        return None
    low, high = np.quantile(flows, [0.25, 0.75])
    return Middle(float(low), float(high), len(flows))
