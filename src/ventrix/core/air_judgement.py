"""What air speeds and swirl say, in sentences that the numbers carry; hints are worded as hints. SI."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.air import Array
from ventrix.core.curve import AnyCam
from ventrix.core.engine import CHOKED, demand_velocity
from ventrix.core.figures import curve_of
from ventrix.core.model import Cut, Job, Observation, Port
from ventrix.core.reduction import ReducedRun
from ventrix.core.swirl import paddle_coefficient, swirl_ratio, turning_of
from ventrix.core.traverse import DEAD_SHARE, Field, change_of
from ventrix.core.units import percent_text
from ventrix.core.valve import valve_head_area

SWIRL_SCATTER: Final = 0.03  # relative standard uncertainty of a paddle reading: common practice, no source
DROP_OUT: Final = 0.3  # of the greatest swirl before it


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
            said.append(f"The {slow} carries {percent_text(less, 0)} less than the {fast} at the {field.station}.")
    return said


def evenness_sentence(field: Field) -> str:
    """Spread, fastest over slowest, centre of flow."""
    u, v = field.centre
    where = []
    if abs(v) > 0.05:
        where.append(f"{abs(v) * 50:.0f} % towards the {'roof' if v > 0 else 'floor'}")
    if abs(u) > 0.05:
        where.append(f"{abs(u) * 50:.0f} % towards the {'right' if u > 0 else 'left'}")
    centre = " and ".join(where) or "in the middle"
    ratio = field.fastest_over_slowest
    times = f"fastest over slowest {ratio:.2f}" if np.isfinite(ratio) else "some air does not move"
    return f"Spread {percent_text(field.spread, 0)}, {times}, centre of flow {centre}."


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
    share = sum(p.kind == port.kind and p.cylinder == port.cylinder for p in job.ports) if port.cylinder else 1
    found = demand_velocity(job.bore, job.stroke, job.rod_length, job.speed_high, field.area * max(share, 1))
    nominal = float(found.peak_mach)
    return EngineSpeeds(job.speed_high, nominal, np.asarray(nominal * field.speed / field.mean))


def local_limit_sentences(field: Field, engine: EngineSpeeds | None, limit: float) -> list[str]:
    """Which places of a section are over a local limit (a Mach number) at the top of the engine's speed range."""
    if engine is None:
        return ["A limit of local speed is the engine's: it wants bore, stroke, rod and the speed it is used to."]
    rpm = f"{engine.crank * 30 / np.pi:.0f} rpm"
    if engine.choked:
        return [f"At {rpm} the engine asks for more than the {field.station} can pass: choked."]
    over = [f"{n} {m:.2f}" for n, m in zip(field.names, engine.local, strict=True) if m > limit]
    if not over:
        return [f"At {rpm} no place of it is over Mach {limit:g}: the fastest is {float(engine.local.max()):.2f}."]
    return [f"Over Mach {limit:g} on the engine at {rpm}: {', '.join(over)}."]


def hints(field: Field, engine: EngineSpeeds | None, limit: float) -> list[str]:
    """Shrink here, open there: only where the numbers carry it, and worded as hints."""
    said = []
    if engine is not None and not engine.choked:
        doubt = 1.96 * field.uncertainty / field.speed.clip(1e-9)
        for name, mach, u in zip(field.names, engine.local, doubt, strict=True):
            if mach * (1 - u) > limit:
                said.append(f"Perhaps open at {name}: on the engine its air is faster than your limit.")
    for name in dead_places(field):
        said.append(f"Perhaps fill at {name}: its air hardly moves, and the metal there only adds volume.")
    return said


def change_sentences(before: Field, after: Field) -> list[str]:
    """Which places became faster or slower with the cut, beyond the probe's uncertainty; and the evenness."""
    found = change_of(before, after)
    faster = [n for n, c, u in zip(found.names, found.change, found.expanded, strict=True) if c > u]
    slower = [n for n, c, u in zip(found.names, found.change, found.expanded, strict=True) if c < -u]
    said = []
    if faster:
        said.append(f"Faster beyond the probe's doubt: {', '.join(faster)}.")
    if slower:
        said.append(f"Slower beyond the probe's doubt: {', '.join(slower)}.")
    if not found.names:
        return ["The two traverses have no point in common."]
    if not said:
        said.append("No point changed beyond the probe's doubt.")
    doubt = 2 * float(np.mean(after.uncertainty / after.speed.clip(1e-9)) / np.sqrt(len(after.speed)))
    if abs(after.spread - before.spread) > doubt:
        word = "more even" if after.spread < before.spread else "less even"
        said.append(f"The air is {word}: spread {percent_text(before.spread, 0)} to {percent_text(after.spread, 0)}.")
    return said


def seen_sentences(observations: Sequence[Observation]) -> list[str]:
    """What dye showed at the seat, by kind: "Dry at 5, 6, 7 o'clock"."""
    by_state: dict[str, list[int]] = {}
    for o in sorted((o for o in observations if o.kind == "wet" and o.clock is not None), key=lambda o: o.clock or 0):
        by_state.setdefault(o.text, []).append(round(o.clock or 0))
    return [f"{state.capitalize()} at {', '.join(map(str, hours))} o'clock." for state, hours in by_state.items()]


def seen_where_air_lets_go(cut: Cut) -> list[str]:
    """What dye showed that a dip or a stall may come from: dry places of the seat."""
    said = []
    dry = sorted(
        round(o.clock) for o in cut.observations if o.kind == "wet" and o.text == "dry" and o.clock is not None
    )
    if dry:
        hours = ", ".join(map(str, dry))
        said.append(f"Dye left the seat dry at {hours} o'clock: little air is attached there, which may be why.")
    return said


class SwirlEvents(NamedTuple):
    """Lifts at which swirl turns over, and at which it drops out [m]."""

    reversals: tuple[float, ...]
    drop_outs: tuple[float, ...]


def swirl_events(lift: Array, swirl: Array) -> SwirlEvents:
    """Where a swirl curve changes its sign beyond its scatter, or loses over a third of what it had.

    Parameters
    ----------
    lift, swirl : ndarray
        [m], [rad/s]; NaN where it was not read. Shape (n,).

    Returns
    -------
    SwirlEvents
        Lifts by straight line between readings [m].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project.
    """
    known = np.isfinite(swirl)
    x, s = lift[known], swirl[known]
    if len(s) < 2:
        return SwirlEvents((), ())
    noise = 2 * SWIRL_SCATTER * float(np.max(np.abs(s)))
    turns, drops = [], []
    for i in range(len(s) - 1):
        if s[i] * s[i + 1] < 0 and max(abs(s[i]), abs(s[i + 1])) > noise:
            turns.append(float(x[i] - s[i] * (x[i + 1] - x[i]) / (s[i + 1] - s[i])))
    for i in range(1, len(s)):
        peak = float(np.max(np.abs(s[:i])))
        if peak > 2 * noise and abs(s[i]) < (1 - DROP_OUT) * peak and abs(s[i - 1]) >= (1 - DROP_OUT) * peak:
            drops.append(float(x[i]))
    return SwirlEvents(tuple(turns), tuple(drops))


class SwirlOverStroke(NamedTuple):
    """Swirl ratio over the intake stroke [-] and its relative standard uncertainty."""

    ratio: float
    uncertainty: float


def run_swirl_ratio(run: ReducedRun, cam: AnyCam | None, stroke: float | None) -> SwirlOverStroke | None:
    """Swirl ratio of a run with the job's cam.

    Parameters
    ----------
    run : ReducedRun
        With swirl readings (no tumble), bore and valve diameter.
    cam : Cam, TabledCam or None
        Lift against crank angle.
    stroke : float or None
        [m].

    Returns
    -------
    SwirlOverStroke or None
        None where something is missing.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [3] Heywood (1988), section 8.3.1, as in `swirl.swirl_ratio`.
    """
    bore, g = run.setup.bore, run.geometry
    known = np.isfinite(run.swirl)
    if (
        cam is None
        or stroke is None
        or bore is None
        or g.valve_diameter is None
        or run.kind != "flow"
        or turning_of(run.setup) != "swirl"
        or not np.any(known)
    ):
        return None
    lift = np.clip(cam.lifts, 0.0, run.curve.highest)
    speed = np.interp(lift, np.r_[0.0, run.lift[known]], np.r_[0.0, run.swirl[known]])
    coefficient = paddle_coefficient(speed, bore, run.test_pressure)
    open_ = np.maximum(lift, 1e-6)
    cd = np.nan_to_num(curve_of(run, "cd_valve", open_))
    area = np.where(lift > 1e-6, cd, 0.0) * float(valve_head_area(g.valve_diameter, g.valves))
    angle = np.linspace(0.0, cam.open_period, len(lift))
    return SwirlOverStroke(swirl_ratio(angle, coefficient, area, bore, stroke), SWIRL_SCATTER)


def swirl_change(before: SwirlOverStroke, after: SwirlOverStroke) -> tuple[float, float]:
    """Difference of two swirl ratios and its U(0.05). Source: [6] JCGM 100:2008, 5.1.2."""
    doubt = 1.96 * float(np.hypot(before.uncertainty * before.ratio, after.uncertainty * after.ratio))
    return after.ratio - before.ratio, doubt
