"""What air speeds and swirl say, in sentences that the numbers carry; hints are worded as hints. SI."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ventrix.core.air.field_change import change_of
from ventrix.core.air.traverse import DEAD_SHARE, Field
from ventrix.core.formulas.engine import CHOKED, demand_velocity
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.traverse import Observation
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


def balance_sentences(field: Field) -> list[str]:
    """Which side carries less, beyond the probe's own uncertainty: "the floor carries 38 % less than the roof"."""
    said = []
    for slow, fast in (("floor", "roof"), ("left", "right")):
        a, b = field.side(slow), field.side(fast)
        if a is None or b is None:
            continue
        if a > b:
            slow, fast, a, b = fast, slow, b, a
        doubt = 1.96 * float(np.hypot(*(np.mean(field.uncertainty),) * 2)) / max(b, 1e-9)
        less = 1 - a / b
        if less > doubt:
            said.append(
                tr("The {} carries {} less than the {} at the {}.", slow, percent_text(less, 0), fast, field.station)
            )
    return said


def evenness_sentence(field: Field) -> str:
    """Spread, fastest over slowest, centre of flow."""
    u, v = field.centre
    where = []
    if abs(v) > 0.05:
        where.append(tr("{:.0f} % towards the {}", abs(v) * 50, "roof" if v > 0 else "floor"))
    if abs(u) > 0.05:
        where.append(tr("{:.0f} % towards the {}", abs(u) * 50, "right" if u > 0 else "left"))
    centre = " and ".join(where) or tr("in the middle")
    ratio = field.fastest_over_slowest
    times = tr("fastest over slowest {:.2f}", ratio) if np.isfinite(ratio) else tr("some air does not move")
    return tr("Spread {}, {}, center of flow {}.", percent_text(field.spread, 0), times, centre)


def dead_places(field: Field) -> tuple[str, ...]:
    """Points whose air hardly moves."""
    return tuple(n for n, s in zip(field.names, field.speed, strict=True) if s < DEAD_SHARE * field.mean)


class EngineSpeeds(NamedTuple):
    """What the running engine asks of a section at the top of its speed range: crank speed [rad/s], the greatest mean
    speed by the piston's own motion over the speed of sound [-], and that of each point of a field, shape (n,)."""

    crank: float
    nominal: float
    local: Array

    @property
    def choked(self) -> bool:
        """More is asked for than the section can pass at all."""
        return self.nominal > CHOKED


def engine_speeds(job: Job, port: Port, field: Field) -> EngineSpeeds | None:
    """Speeds of the engine's own air in a section, in the proportions that the traverse found.

    Bench air cannot reach a running engine's speeds at 28 inH2O: a limit taken from an engine is held against the
    engine's.

    Parameters
    ----------
    job : Job
        With bore, stroke, rod and the top of its speed range.
    port : Port
        Ports of its kind on the same cylinder share what the cylinder asks for.
    field : Field
        Of a section.

    Returns
    -------
    EngineSpeeds or None
        None where a figure of the engine is missing.

    Raises
    ------
    ValueError
        A rod not longer than half the stroke.

    References
    ----------
    `engine.demand_velocity`.
    """
    if job.bore is None or job.stroke is None or job.rod_length is None or job.speed_high is None or field.mean <= 0:
        return None
    found = demand_velocity(job.bore, job.stroke, job.rod_length, job.speed_high, field.area * job.ports_beside(port))
    nominal = float(found.peak_mach)
    return EngineSpeeds(job.speed_high, nominal, np.asarray(nominal * field.speed / field.mean))


def local_limit_sentences(field: Field, engine: EngineSpeeds | None, limit: float) -> list[str]:
    """Which places of a section are over a local limit (a Mach number) at the top of the engine's speed range."""
    if engine is None:
        return [tr("A limit of local speed is the engine's: it needs bore, stroke, rod and its highest speed.")]
    rpm = f"{engine.crank * 30 / np.pi:.0f} rpm"
    if engine.choked:
        return [tr("At {} the engine asks for more than the {} can pass: choked.", rpm, field.station)]
    over = [f"{n} {m:.2f}" for n, m in zip(field.names, engine.local, strict=True) if m > limit]
    if not over:
        return [
            tr("At {} no place of it is over Mach {:g}: the fastest is {:.2f}.", rpm, limit, float(engine.local.max()))
        ]
    return [tr("Over Mach {:g} on the engine at {}: {}.", limit, rpm, ", ".join(over))]


def hints(field: Field, engine: EngineSpeeds | None, limit: float) -> list[str]:
    """Shrink here, open there: only where the numbers carry it, and worded as hints."""
    said = []
    if engine is not None and not engine.choked:
        doubt = 1.96 * field.uncertainty / field.speed.clip(1e-9)
        for name, mach, u in zip(field.names, engine.local, doubt, strict=True):
            if mach * (1 - u) > limit:
                said.append(tr("Perhaps open at {}: on the engine its air is faster than your limit.", name))
    for name in dead_places(field):
        said.append(tr("Perhaps fill at {}: its air hardly moves, and the metal there only adds volume.", name))
    return said


def change_sentences(before: Field, after: Field) -> list[str]:
    """Which places became faster or slower with the cut, beyond the probe's uncertainty; and the evenness."""
    found = change_of(before, after)
    faster = [n for n, c, u in zip(found.names, found.change, found.expanded, strict=True) if c > u]
    slower = [n for n, c, u in zip(found.names, found.change, found.expanded, strict=True) if c < -u]
    said = []
    if faster:
        said.append(tr("Faster by more than the probe's uncertainty: {}.", ", ".join(faster)))
    if slower:
        said.append(tr("Slower by more than the probe's uncertainty: {}.", ", ".join(slower)))
    if not found.names:
        return [tr("The two traverses have no point in common.")]
    if not said:
        said.append(tr("No point changed by more than the probe's uncertainty."))
    doubt = 2 * float(np.mean(after.uncertainty / after.speed.clip(1e-9)) / np.sqrt(len(after.speed)))
    if abs(after.spread - before.spread) > doubt:
        word = tr("more even") if after.spread < before.spread else tr("less even")
        said.append(
            tr("The air is {}: spread {} to {}.", word, percent_text(before.spread, 0), percent_text(after.spread, 0))
        )
    return said


def seen_sentences(observations: Sequence[Observation]) -> list[str]:
    """What dye showed at the seat, by kind: "Dry at 5, 6, 7 o'clock"."""
    by_state: dict[str, list[int]] = {}
    for o in sorted((o for o in observations if o.kind == "wet" and o.clock is not None), key=lambda o: o.clock or 0):
        by_state.setdefault(o.text, []).append(round(o.clock or 0))
    return [
        tr("{} at {} o'clock.", state.capitalize(), ", ".join(map(str, hours))) for state, hours in by_state.items()
    ]


def seen_where_air_lets_go(cut: Cut) -> list[str]:
    """What dye showed that a dip or a stall may come from: dry places of the seat."""
    said = []
    dry = sorted(
        round(o.clock) for o in cut.observations if o.kind == "wet" and o.text == "dry" and o.clock is not None
    )
    if dry:
        hours = ", ".join(map(str, dry))
        said.append(tr("Dye left the seat dry at {} o'clock: little air is attached there, which may be why.", hours))
    return said
