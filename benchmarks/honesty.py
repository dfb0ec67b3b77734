"""How often nothing is called something, and something found. Every row of the formula book's checks, with counts.

The noise models are this file's own: a typed curve of flows, normal scatters, ports between nozzle and plate by
formulas written out here. Nothing of the simulator is used. ``python -m benchmarks.honesty [N]``.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.uncertainty import MountSets, Repeats, Scatter, known_scatter
from ventrix.core.judging.comparison import RunComparison, compare_runs
from ventrix.core.judging.shape import shape_change
from ventrix.core.judging.verdict import judge
from ventrix.core.model.bench import Transfer, TransferPart
from ventrix.core.model.kinds import School
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.runs.reduction import ReducedRun, reduce_run

INCH, CFM, H2O = 0.0254, 4.719474e-4, 249.08891
LIFT = np.arange(1, 13) * 0.05 * INCH
# A made-up intake port, CFM at 28 inH2O, read off no bench.
CURVE = np.array([31.0, 63.5, 94.0, 121.0, 145.5, 166.5, 183.5, 196.0, 204.5, 210.0, 213.5, 216.0]) * CFM
SLOPE = np.gradient(CURVE, LIFT)
SETUP = SetUp(
    id="s",
    direction="intake",
    test_pressure=28 * H2O,
    bench="b",
    bore=0.089,
    centred=True,
    entry="radius",
    valve="job",
    plug="in",
)
CAM = Cam(0.46 * INCH, np.deg2rad(220))
DIAL_SD = 0.0005 * INCH
Random = np.random.Generator


@dataclass(frozen=True)
class Bench:
    """What a bench truly does: relative repeat and re-mount scatter, dial zero [m]."""

    repeat: float = 0.004
    mount: float = 0.007
    dial: float = DIAL_SD


def flow_of(
    random: Random,
    bench: Bench,
    readings: int = 2,
    factor: float | np.ndarray = 1.0,
    dial: float = 0.0,
    leak: float = 0.0,
    mounted: float | None = None,
) -> np.ndarray:
    """Readings of one run [m3/s], shape (readings, lifts)."""
    moved = bench.mount * random.standard_normal() if mounted is None else mounted
    zero = bench.dial * random.standard_normal() + dial
    gauge = 0.5 * 0.05 / 28 * random.standard_normal()
    steady = (CURVE + SLOPE * zero) * factor * (1 + moved) * (1 + gauge) + leak
    noise = 1 + bench.repeat * random.standard_normal((readings, len(LIFT)))
    return np.asarray(np.round(steady * noise / CFM, 1) * CFM)


def run_of(flow: np.ndarray, mount: str, pressure: np.ndarray | None = None, setup: SetUp = SETUP) -> ReducedRun:
    """A run of these readings; `pressure` [Pa] at each lift where it was off nominal."""
    readings = [
        Reading(
            id=f"{i}-{k}",
            lift=float(LIFT[k]),
            flow=float(q),
            measured_pressure=None if pressure is None else float(pressure[k]),
        )
        for i, row in enumerate(flow)
        for k, q in enumerate(row)
    ]
    return reduce_run(FlowRun(id=f"r{mount}", setup_id="s", readings=tuple(readings)), setup, mount=mount)


def knows(bench: Bench, freedom: float = 1000.0) -> Known:
    """A bench whose scatter is known."""
    return Known(Scatter(bench.repeat, freedom, bench.mount, freedom, False, False, mounts=100))


def pair(
    random: Random,
    bench: Bench,
    known: Known,
    *,
    same_mount: bool = False,
    readings: int = 2,
    school: str = School.CAM,
    **after: object,
) -> RunComparison:
    """An uncut port flowed twice, or once with something done to it."""
    shared = bench.mount * random.standard_normal() if same_mount else None
    had = run_of(flow_of(random, bench, readings, mounted=shared), "1")
    has = run_of(flow_of(random, bench, readings, mounted=shared, **after), "1" if same_mount else "2")  # type: ignore[arg-type]
    return compare_runs([had], [has], cam=CAM, known=known, school=school)


def proven(c: RunComparison) -> bool:
    return judge(c).result in ("better", "worse")


def share(n: int, seed: int, one: Callable[[Random], bool]) -> float:
    random = np.random.default_rng(seed)
    return sum(bool(one(random)) for _ in range(n)) / n


# -- nothings


def null_same_mount(n: int, seed: int, school: str) -> float:
    bench = Bench()
    return share(n, seed, lambda r: proven(pair(r, bench, knows(bench), same_mount=True, school=school)))


def null_remounted(n: int, seed: int, school: str) -> float:
    bench = Bench()
    return share(n, seed, lambda r: proven(pair(r, bench, knows(bench), school=school)))


def null_unknown_benches(n: int, seed: int) -> float:
    """No study, no repeats known: re-mount scatter drawn about 0.7 %, repeat scatter about 0.4 %."""

    def one(r: Random) -> bool:
        bench = Bench(0.004 * np.exp(0.4 * r.standard_normal()), 0.007 * np.exp(0.5 * r.standard_normal()))
        return proven(pair(r, bench, Known()))

    return share(n, seed, one)


def null_row(n: int, seed: int) -> float:
    """Ten uncut steps in a row on a known bench: at least one Keep or gain."""
    bench = Bench()

    def one(r: Random) -> bool:
        runs = [run_of(flow_of(r, bench), str(i)) for i in range(11)]
        found = (judge(compare_runs([a], [b], cam=CAM, known=knows(bench))) for a, b in pairwise(runs))
        return any(v.result == "better" for v in found)

    return share(n, seed, one)


# -- somethings


def power_over_z(n: int, seed: int, gain: float = 0.03) -> float:
    """Share of true gains found with scatters of 20 degrees of freedom, over a z test with the true variances."""
    bench = Bench(0.004, 0.006)
    random = np.random.default_rng(seed)
    found = best = 0
    for _ in range(n):
        repeats = Repeats(np.array([bench.repeat**2 * random.chisquare(20)]), np.array([20.0]))
        seen = MountSets(bench.mount**2 * random.chisquare(20), 20.0, 21)
        known = Known(known_scatter([repeats], None, seen))
        c = pair(random, bench, known, factor=1 + gain)
        found += judge(c).result == "better"
        true = pair_variance(c, bench)
        best += c.weighted > 1.959964 * true
    return found / best


def pair_variance(c: RunComparison, bench: Bench) -> float:
    """True standard deviation of the one number, by this file's own model."""
    w = c.weights
    repeat = bench.repeat**2 * np.sum(w**2 * c.before**2) * 2 / 2
    mount = 2 * (bench.mount * float(w @ c.before)) ** 2
    dial = 2 * (bench.dial * float(w @ SLOPE)) ** 2
    gauge = 2 * (0.5 * 0.05 / 28 * float(w @ c.before)) ** 2
    return float(np.sqrt(repeat + mount + dial + gauge))


def coverage(n: int, seed: int, freedom: float = 200.0) -> float:
    bench = Bench()

    def one(r: Random) -> bool:
        c = pair(r, bench, knows(bench, freedom))
        return abs(c.weighted) <= c.weighted_expanded

    return share(n, seed, one)


# -- mistakes


def kept_on_mistake(n: int, seed: int, **mistake: float) -> float:
    """A mistake made in one of the runs, on a bench known well: a plain Keep."""
    bench = Bench(0.003, 0.003)
    return share(n, seed, lambda r: judge(pair(r, bench, knows(bench, 20.0), **mistake)).kind == "keep")


# -- shape


def shape_found(n: int, seed: int, repeat: float = 0.004, **change: object) -> float:
    bench = Bench(repeat, 0.007)

    def one(r: Random) -> bool:
        had, has = (flow_of(r, bench), flow_of(r, bench, **change))  # type: ignore[arg-type]
        return shape_change(compare_runs([run_of(had, "1")], [run_of(has, "2")], cam=CAM)) is not None

    return share(n, seed, one)


LOW_GAIN = 1 + 0.03 * (LIFT <= 0.2 * INCH)


# -- one reading


def lone_named(n: int, seed: int, factor: np.ndarray | None = None, at: int | None = None, by: float = 0.0) -> float:
    """Pairs in which a lift is named as resting on one reading; `at` is read wrong `by` a share."""
    bench = Bench()

    def one(r: Random) -> bool:
        had, has = flow_of(r, bench, 1), flow_of(r, bench, 1, 1.0 if factor is None else factor)
        if at is not None:
            has[0, at] *= 1 + by
        lone = compare_runs([run_of(had, "1")], [run_of(has, "2")], cam=CAM).lone
        return bool(lone) if at is None else any(abs(x.lift - LIFT[at]) < 1e-6 for x in lone)

    return share(n, seed, one)


# -- another test pressure


def port_ratio(random: Random) -> Callable[[np.ndarray], np.ndarray]:
    """Flow at a pressure drop [Pa] over flow at 28 inH2O of some port: a blend of nozzle and plate, its coefficient
    drifting with speed. Formulas of Bernoulli, St. Venant and ISO 5167-2, written out here."""
    blend, drift = random.uniform(0, 1), 0.005 * random.standard_normal()

    def nozzle(dp: np.ndarray) -> np.ndarray:
        p = 1 - dp / 101325
        return np.sqrt(7 * 287.05 * 288.15 * (1 - p ** (2 / 7))) * p ** (5 / 7)

    def plate(dp: np.ndarray) -> np.ndarray:
        return np.sqrt(2 * dp / 1.225) * (1 - 0.351 * (1 - (1 - dp / 101325) ** (5 / 7)))

    def ratio(dp: np.ndarray) -> np.ndarray:
        full = np.array(28 * H2O)
        mixed = blend * nozzle(dp) / nozzle(full) + (1 - blend) * plate(dp) / plate(full)
        return np.asarray(mixed * (dp / full) ** drift)

    return ratio


def null_other_pressure(n: int, seed: int, inches: float) -> float:
    bench, setup = Bench(), replace(SETUP, id="o", test_pressure=inches * H2O)

    def one(r: Random) -> bool:
        had = run_of(flow_of(r, bench), "1")
        moved = port_ratio(r)(np.array(inches * H2O))
        has = run_of(flow_of(r, bench, factor=float(moved)), "2", setup=setup)
        return proven(compare_runs([had], [has], cam=CAM, known=knows(bench)))

    return share(n, seed, one)


def null_out_of_breath(n: int, seed: int) -> float:
    """The three top lifts of the run after were read at 24, 21 and 19 inH2O."""
    bench = Bench()
    held = np.full(len(LIFT), 28 * H2O)
    held[-3:] = np.array([24, 21, 19]) * H2O

    def one(r: Random) -> bool:
        had = run_of(flow_of(r, bench), "1")
        has = run_of(flow_of(r, bench, factor=port_ratio(r)(held)), "2", held)
        return proven(compare_runs([had], [has], cam=CAM, known=knows(bench)))

    return share(n, seed, one)


# -- two benches


def transfer_covers(n: int, seed: int, parts: int = 4, disagree: float = 0.008) -> float:
    """A transfer's U holds the factor of the next part, which disagrees with the others as they do among themselves."""

    def one(r: Random) -> bool:
        factors = 1.03 + disagree * r.standard_normal(parts + 1)
        here = 150 * (1 + 0.005 * r.standard_normal(parts))
        there = 150 * factors[:-1] * (1 + 0.005 * r.standard_normal(parts))
        made = Transfer(
            id="t",
            other="o",
            parts=tuple(
                TransferPart(id=str(i), here=a, there=b) for i, (a, b) in enumerate(zip(here, there, strict=True))
            ),
        )
        found = transfer_between(made)
        wide = 1.96 * float(found.careful_at(np.zeros(1))[0])
        return abs(np.log(found.factor * factors[-1])) <= wide

    return share(n, seed, one)


# -- further mounts


def odds_of_further_mounts(n: int, seed: int) -> tuple[float, float]:
    """Of pairs that could not tell, the share proven after as many further mounts as were said to be even odds, and
    four in five, the true gain being drawn about what was seen."""
    bench = Bench(0.003, 0.008)
    known = knows(bench)
    random = np.random.default_rng(seed)
    tries, hits = [0, 0], [0, 0]
    for _ in range(n):
        gain = random.uniform(-0.04, 0.04)
        had = [run_of(flow_of(random, bench), "a0")]
        has = [run_of(flow_of(random, bench, factor=1 + gain), "b0")]
        verdict = judge(compare_runs(had, has, cam=CAM, known=known))
        for i, more in enumerate((verdict.further_mounts, verdict.further_mounts_sure)):
            if more is None or more > 8:
                continue
            again = [run_of(flow_of(random, bench), f"a{k + 1}") for k in range(more)]
            cut = [run_of(flow_of(random, bench, factor=1 + gain), f"b{k + 1}") for k in range(more)]
            tries[i] += 1
            hits[i] += proven(compare_runs([*had, *again], [*has, *cut], cam=CAM, known=known))
    return hits[0] / max(tries[0], 1), hits[1] / max(tries[1], 1)


def main(n: int) -> None:
    def row(words: str, found: float, wanted: str) -> None:
        print(f"{words:<74} {found:7.1%}  ({wanted}; n = {n})")

    for school in School:
        row(f"uncut, one mount, {school}: called better or worse", null_same_mount(n, 1, school), "at most 5 %")
        row(f"uncut, re-mounted, {school}: called better or worse", null_remounted(n, 2, school), "at most 5 %")
    row("uncut, benches unknown, lognormal re-mount scatter", null_unknown_benches(n, 3), "at most 5 %")
    row("a row of ten uncut: at least one gain", null_row(max(n // 10, 50), 4), "about one in five")
    row("true 3 % found, over a z test with known variances", power_over_z(n, 5), "at least 90 %")
    row("coverage of U(0.05)", coverage(n, 6), "93 to 97 %")
    row("dial 0.003 in out: plain Keep", kept_on_mistake(n, 7, dial=0.003 * INCH), "at most 5 %")
    row("a factor of 1 %: plain Keep", kept_on_mistake(n, 8, factor=1.01), "at most 5 %")
    row("a leak of 1 CFM: plain Keep", kept_on_mistake(n, 9, leak=1.0 * CFM), "at most 5 %")
    row("shape of uncut ports called changed", shape_found(n, 10), "at most 1 %")
    row("shape with a dial 0.003 in out", shape_found(n, 11, dial=0.003 * INCH), "at most 1 %")
    row("3 % at low lift alone, repeats 0.4 %: shape found", shape_found(n, 12, factor=LOW_GAIN), "at least 95 %")
    row(
        "3 % at low lift alone, repeats 0.6 %: shape found",
        shape_found(n, 13, 0.006, factor=LOW_GAIN),
        "about two in three",
    )
    row("uncut: a lift named as one odd reading", lone_named(n, 14), "about 0.5 %")
    step = 1 + 0.04 * (LIFT > 0.3 * INCH)
    row("a real step of 4 %: a lift named as one odd reading", lone_named(n, 15, factor=step), "about 1 %")
    row("a slip of 8 % at 0.350: named", lone_named(n, 16, at=6, by=0.08), "nine of ten")
    for inches in (10, 15, 20):
        row(f"uncut, 28 against {inches} inH2O", null_other_pressure(n, 17, inches), "at most 5 %")
    row("uncut, top lifts at 24, 21, 19 inH2O", null_out_of_breath(n, 18), "at most 5 %")
    row("a transfer of four parts holds the fifth", transfer_covers(n, 19), "93 to 97 %, or more")
    even, sure = odds_of_further_mounts(n, 20)
    print(f"proven after the mounts said to be even odds {even:.0%}, four in five {sure:.0%} (true gains drawn evenly)")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 1000)
