"""What a percent of the exhaust's flow is worth beside a percent of the intake's, on the job's engine."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.engine.breathing import (
    COARSE,
    SETTLED,
    Engine,
    Side,
    area_at,
    closes_at,
    intake_lift,
    opens_at,
    outlet,
    steps,
)
from ventrix.core.engine.filling import Valves, fill

MORE: Final = 0.1  # of the flow: far enough over what the cycles settle to
MOST: Final = 2.0  # a weight that says more than this says only that the intake is not what limits


def exhaust_weight(engine: Engine, intake: Side) -> float:
    """Change of filling by the exhaust's flow over that by the intake's, the mean over the upper half of the job's
    speeds [-]: under it flow hardly limits filling, and their quotient is noise.

    .. math:: w = \\partial\\eta/\\partial\\ln Q_{ex} \\,/\\, \\partial\\eta/\\partial\\ln Q_{in}

    Parameters
    ----------
    engine, intake : Engine, Side
        The engine that the intake breathes for.

    Returns
    -------
    float
        From zero to two; the intake's own weight is 1.

    Raises
    ------
    ValueError
        The cycles do not settle.

    References
    ----------
    `filling.fill`; a finite difference.
    """
    angle, middle = steps(opens_at(engine), closes_at(engine, intake.cam), COARSE)
    out = outlet(engine, middle)[1]
    into = engine.ports * area_at(intake.run, intake_lift(engine, intake, middle))
    speeds = engine.speeds[len(engine.speeds) // 2 :]
    n = len(speeds)
    ins = np.stack([into, into * (1 + MORE), into], axis=1)
    outs = np.stack([out, out, out * (1 + MORE)], axis=1)
    valves = Valves(angle, np.repeat(ins, n, axis=1), np.repeat(outs, n, axis=1))
    found = fill(engine.cylinder, valves, np.tile(speeds, 3), engine.around, settled=SETTLED)
    as_is, more_in, more_out = found.filling.reshape(3, n).mean(axis=1)
    gained = float(more_in - as_is)
    return min(max(float(more_out - as_is) / gained, 0.0), MOST) if gained > 0 else MOST
