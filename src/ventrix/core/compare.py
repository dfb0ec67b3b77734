"""Two runs or cuts held against each other: may they be compared, and what is proven.

The one place that decides comparability. All SI; sources as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Final, Literal

import numpy as np
from numpy.typing import NDArray

from ventrix.core import bench_flow
from ventrix.core.air import Array
from ventrix.core.curve import AnyCam, cam_weights
from ventrix.core.model import CutKind, SetUp
from ventrix.core.reduction import LIFT_GRAIN, ReducedRun, instrument_for
from ventrix.core.uncertainty import Difference, Repeats, Scatter, Side, known_scatter, scatter_by_lift
from ventrix.core.units import from_si

Level = Literal["yes", "converted", "unknown", "no"]
PointResult = Literal["better", "worse", "not proven"]

CONVERSION_UNCERTAINTY: Final = 0.01  # times ln of the pressure ratio, relative


def _plain(value: Any) -> str:
    return str(value)


def _millimetres(value: Any) -> str:
    return f"{from_si(value, 'mm'):g} mm"


def _inches_of_water(value: Any) -> str:
    return f"{from_si(value, 'inH2O'):.4g} inH2O"


def _yes_no(value: Any) -> str:
    return "yes" if value else "no"


@dataclass(frozen=True, slots=True)
class Condition:
    """A condition two runs must share: its field of `SetUp`, its name, and which way it moves flow."""

    key: str
    name: str
    moves: str
    words: Callable[[Any], str] = _plain
    exhaust_only: bool = False
    optional: bool = False  # not recording it is no gap


CONDITIONS: Final = (
    Condition("direction", "direction", "draw and blow are different tests"),
    Condition("bench", "bench", "two benches differ by several CFM on the very same head"),
    Condition("bore", "bore sleeve", "a bigger bore unshrouds the valve and reads high", _millimetres),
    Condition("entry", "entry", "a bare edge reads several percent below a radius"),
    Condition("pipe", "pipe", "a stub pipe usually reads high", exhaust_only=True),
    Condition("valve", "valve fitted", "another valve or no valve is another test"),
    Condition("plug", "plug", "an open plug hole lets air past the port"),
    Condition(
        "centred",
        "head centred on the bore",
        "an off-centre head unshrouds the valve and reads high",
        _yes_no,
    ),
    Condition("clean", "clean", "carbon on valve and chamber costs flow", _yes_no, optional=True),
)
_ALLOWED: Final[dict[CutKind, str]] = {"valve": "valve", "clean": "clean"}


@dataclass(frozen=True, slots=True)
class ConditionDifference:
    """One condition that differs or is missing; before and after in words, None where not recorded."""

    key: str
    level: Level
    before: str | None
    after: str | None
    sentence: str


@dataclass(frozen=True, slots=True)
class Comparability:
    """Whether two set-ups may be compared, and everything that differs."""

    level: Level
    differences: tuple[ConditionDifference, ...]

    @property
    def sentence(self) -> str:
        """The line above the curves."""
        if self.level == "yes":
            return "May be compared: bench, bore, entry, valve, plug and centring agree."
        said = " ".join(d.sentence for d in self.differences if d.level == self.level)
        start = {
            "no": "Not to be compared.",
            "unknown": "Can't be said: not recorded is not the same as same.",
            "converted": "Compared after conversion.",
        }[self.level]
        return f"{start} {said}"


_ORDER: Final[dict[Level, int]] = {"yes": 0, "converted": 1, "unknown": 2, "no": 3}


def _same(key: str, a: Any, b: Any) -> bool:
    if key == "bore":
        return bool(abs(a - b) <= 5e-5)  # m: half a tenth of a millimetre, the rounding of an inch sleeve
    if isinstance(a, str):
        return a.strip().lower() == str(b).strip().lower()
    return bool(a == b)


def comparability(before: SetUp, after: SetUp, change: CutKind = "port") -> Comparability:
    """May runs under these two set-ups be compared, when the cut between them was a `change`?

    A known difference is *no*; one missing on either side is *unknown*; another test pressure is
    *converted*. No beats unknown beats converted. A valve or cleaning cut allows its own key.
    """
    found: list[ConditionDifference] = []
    exhaust = "exhaust" in (before.direction, after.direction)
    for c in CONDITIONS:
        if (c.exhaust_only and not exhaust) or _ALLOWED.get(change) == c.key:
            continue
        a, b = getattr(before, c.key), getattr(after, c.key)
        a_words = None if a is None else c.words(a)
        b_words = None if b is None else c.words(b)
        if a is None or b is None:
            if c.optional:
                continue
            where = "on either side" if a is None and b is None else ("before" if a is None else "after")
            said = f"{c.name.capitalize()} was not recorded {where}: {c.moves}."
            found.append(ConditionDifference(c.key, "unknown", a_words, b_words, said))
        elif not _same(c.key, a, b):
            said = f"{c.name.capitalize()} differs, {a_words} before and {b_words} after: {c.moves}."
            found.append(ConditionDifference(c.key, "no", a_words, b_words, said))
    pressure = _pressure_difference(before, after)
    if pressure is not None:
        found.append(pressure)
    levels: list[Level] = ["yes", *(d.level for d in found)]
    level = max(levels, key=_ORDER.__getitem__)
    return Comparability(level, tuple(found))


def _pressure_difference(before: SetUp, after: SetUp) -> ConditionDifference | None:
    a, b = before.test_pressure, after.test_pressure
    if a is None or b is None or abs(a / b - 1) < 1e-3:
        return None
    said = (
        f"Test pressure differs, {_inches_of_water(a)} before and {_inches_of_water(b)} after: the second is converted."
    )
    note = bench_flow.conversion_note(b, a)
    return ConditionDifference(
        "test_pressure",
        "converted",
        _inches_of_water(a),
        _inches_of_water(b),
        f"{said} {note}." if note else said,
    )


@dataclass(frozen=True)
class RunComparison:
    """Two sides at every lift both reach. Arrays have shape (k,); flows in the unit of the runs."""

    comparability: Comparability
    kind: Literal["flow", "index"]
    lift: Array
    before: Array
    after: Array
    interpolated: NDArray[np.bool_]
    difference: Difference
    cam: AnyCam | None
    scatter: Scatter
    notes: tuple[str, ...] = ()

    @property
    def tested(self) -> NDArray[np.bool_]:
        """Lifts that were tested on both sides: the only ones anything is proven at."""
        return ~self.interpolated

    @property
    def change(self) -> Array:
        return self.after - self.before

    @cached_property
    def expanded(self) -> Array:
        """U(0.05) of the difference at each lift."""
        return self.difference.expanded()

    @property
    def allowed(self) -> bool:
        return self.comparability.level in ("yes", "converted")

    def _signs(self, expanded: Array) -> NDArray[np.int64]:
        sign = np.where(self.change > expanded, 1, np.where(self.change < -expanded, -1, 0))
        return np.where(self.tested & self.allowed, sign, 0)

    @cached_property
    def results(self) -> tuple[PointResult, ...]:
        """Better, worse or not proven at each lift, taken alone."""
        names: dict[int, PointResult] = {1: "better", -1: "worse", 0: "not proven"}
        return tuple(names[int(s)] for s in self._signs(self.expanded))

    @cached_property
    def nameable(self) -> NDArray[np.int64]:
        """+1, -1 or 0 by lift, strict enough that a verdict may name lifts: U(0.05 / K)."""
        k = max(int(np.sum(self.tested)), 1)
        return self._signs(self.difference.expanded(0.05 / k))

    @cached_property
    def weights(self) -> Array:
        """What each lift counts in the one number, shape (k,); zero where interpolated."""
        weights = np.zeros(len(self.lift))
        if np.any(self.tested):
            weights[self.tested] = cam_weights(self.lift[self.tested], self.cam)
        return weights

    @cached_property
    def weighted(self) -> float:
        return self.difference.weighted(self.weights)

    @cached_property
    def weighted_expanded(self) -> float:
        return self.difference.weighted_expanded(self.weights)

    @property
    def weighted_before(self) -> float:
        return float(self.weights @ self.before)

    @property
    def weighted_after(self) -> float:
        return float(self.weights @ self.after)


def _mounts(runs: Sequence[ReducedRun]) -> int:
    """How many bolting-downs speak; a run without one counts as its own."""
    return len({r.mount if r.mount is not None else f"?{i}" for i, r in enumerate(runs)})


def _lift_ids(runs: Sequence[ReducedRun]) -> NDArray[np.int64]:
    """Lifts tested in every run of one side, in grains of a micrometre."""
    sets = [set(np.round(r.lift / LIFT_GRAIN).astype(int).tolist()) for r in runs]
    return np.array(sorted(set.intersection(*sets)), dtype=np.int64)


def _side(runs: Sequence[ReducedRun], lift: Array, pressure: float) -> Side:
    flows, slopes, counts = [], [], np.zeros(len(lift))
    conversion = 0.0
    for run in runs:
        factor = 1.0
        if run.kind == "flow" and abs(run.test_pressure / pressure - 1) >= 1e-3:
            factor = float(bench_flow.convert_pressure(1.0, run.test_pressure, pressure))
            conversion = max(conversion, CONVERSION_UNCERTAINTY * abs(float(np.log(pressure / run.test_pressure))))
        flows.append(run.curve.at(lift) * factor)
        slopes.append(run.curve.slope(lift) * factor)
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        counts += np.where(here.any(axis=1), here @ run.readings, 1.0)
    return Side(
        flow=np.mean(flows, axis=0),
        slope=np.mean(slopes, axis=0),
        readings=counts,
        pressure=pressure,
        mounts=_mounts(runs),
        conversion=conversion,
    )


def _repeats(runs: Sequence[ReducedRun], lift: Array) -> Repeats:
    """The repeats of all runs together at each of the lifts."""
    squares, freedom = np.zeros(len(lift)), np.zeros(len(lift))
    for run in runs:
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        squares += here @ run.repeats.squares
        freedom += here @ run.repeats.freedom
    return Repeats(squares, freedom)


def _grains(lift: Array) -> Array:
    return np.round(lift / LIFT_GRAIN)


def compare_runs(
    before: Sequence[ReducedRun],
    after: Sequence[ReducedRun],
    change: CutKind = "port",
    cam: AnyCam | None = None,
    scatter: Scatter | None = None,
) -> RunComparison:
    """Hold the runs of one cut against those of another, mounts averaged.

    Parameters
    ----------
    before, after : sequence of ReducedRun
        Runs of each side, under one set-up a side (the first's set-up speaks for the side).
    change : CutKind
        What the cut was: a valve or cleaning cut allows its own condition to differ.
    cam : Cam or TabledCam, optional
        Weights the run's one number; equal weights without.
    scatter : Scatter, optional
        What the bench is known to scatter by.

    Raises
    ------
    ValueError
        No run on a side, or a flow held against an index.
    """
    if not before or not after:
        raise ValueError("both sides need a run")
    kinds = {r.kind for r in (*before, *after)}
    if len(kinds) > 1:
        raise ValueError("an index of an uncalibrated bench cannot be held against a flow")
    kind = before[0].kind
    verdict = comparability(before[0].setup, after[0].setup, change)
    ids_before, ids_after = _lift_ids(before), _lift_ids(after)
    reach = int(min(r.highest for r in (c.curve for c in (*before, *after))) / LIFT_GRAIN + 0.5)
    union = np.union1d(ids_before, ids_after)
    left_out = int(np.sum(union > reach))
    union = union[union <= reach]
    lift = np.asarray(union * LIFT_GRAIN, dtype=np.float64)
    interpolated = ~(np.isin(union, ids_before) & np.isin(union, ids_after))
    pressure = before[0].test_pressure
    sides = _side(before, lift, pressure), _side(after, lift, pressure)
    every = [*before, *after]
    known = known_scatter([r.repeats for r in every], scatter)
    mounts = {r.mount for r in every}
    difference = Difference(
        before=sides[0],
        after=sides[1],
        lift_scatter=scatter_by_lift(_repeats(every, lift), known),
        scatter=known,
        instrument=instrument_for(kind),
        same_mount=len(mounts) == 1 and None not in mounts,
    )
    notes = []
    if left_out:
        notes.append(f"{left_out} lift{'s' * (left_out > 1)} past the other side's highest tested lift: left out")
    if np.any(interpolated):
        notes.append(f"{int(np.sum(interpolated))} interpolated on one side: never proven, not in the verdict")
    return RunComparison(
        verdict, kind, lift, sides[0].flow, sides[1].flow, interpolated, difference, cam, known, tuple(notes)
    )
