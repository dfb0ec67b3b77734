"""Whether to stop, in one sentence with its reason."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.targets import target_reach
from ventrix.core.judging.verdict import Wording
from ventrix.core.model.cut import Port, carried_figure
from ventrix.core.planning.of_job import Planned
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si, to_si

HOUR: Final = 3600.0
# Gain an hour under which one stops, unless the user says another; the same on an uncalibrated bench, of the flow.
DEFAULT_LEAST: Final = to_si(1.0, "cfm") / HOUR
LEAST_SHARE: Final = 0.005 / HOUR
SURE: Final = 0.8
COVERS: Final = 1.96


@dataclass(frozen=True, slots=True)
class Stop:
    """Whether to stop, and why."""

    now: bool
    reason: str


def stop_rule(
    findings: Findings,
    port: Port,
    planned: Planned,
    rates: Sequence[Array],
    blocked: Sequence[str],
    least: float | None,
    words: Wording,
) -> Stop:
    """Whether the next hour is worth it.

    Parameters
    ----------
    findings, port, planned : Findings, Port, Planned
        Whose.
    rates : sequence of ndarray
        Gain per second of every open move in the same draws, shape (400,) each.
    blocked : sequence of str
        What blocks the places that are not open, in words.
    least : float, optional
        Gain per second under which one stops.
    words : Wording
        Units of the sentence.

    Returns
    -------
    Stop
        A target that is met and proven, a volume that is spent, nothing open, or a greatest rate of all that is small
        in four draws of five; in that order.

    Raises
    ------
    ValueError
        A target meant at a pressure no bench has.

    References
    ----------
    Probability of the greatest of all by joint draws; the other reasons are common practice, no source.
    """
    job, run = findings.job, planned.run
    for target in (t for t in job.targets if t.kind == port.kind):
        over = None if run is None else target_reach(run, target, job)
        if run is None or over is None:
            continue
        doubt = COVERS * float(run.uncertainty[int(np.argmin(np.abs(run.lift - target.lift)))])
        if over >= doubt:
            at = f"{words.lift(target.lift)} {words.lift_unit}"
            flow = f"{words.flow(target.flow)} {words.flow_name}"
            return Stop(True, f"the target of {flow} at {at} is met, and proven")
    volume, most = carried_figure(port, planned.cuts[-1], "volume"), job.volume_ceiling
    if most is not None and volume is not None and volume >= most and port.kind == "intake":
        cc = f"{from_si(volume, 'cc'):.1f} cc, and no more than {from_si(most, 'cc'):.0f} cc is wanted"
        return Stop(True, f"the volume is spent: {cc}")
    if not rates:
        return Stop(True, f"nothing is open: {'; '.join(blocked)}")
    index = planned.chain.is_index
    worth = float(planned.weights @ planned.flow)
    limit = least if least is not None else LEAST_SHARE * worth if index else DEFAULT_LEAST
    chance = float(np.mean(np.max(list(rates), axis=0) < limit))
    shown = f"{100 * limit * HOUR / worth:.1f} %" if index else f"{words.flow(limit * HOUR)} {words.flow_name}"
    if chance >= SURE:
        return Stop(True, f"no hour is worth {shown} an hour any more, sure by {100 * chance:.0f} %")
    return Stop(False, f"the best hour is worth {shown} an hour or more, sure by {100 * (1 - chance):.0f} %")
