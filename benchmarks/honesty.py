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

from ventrix.core.benches.study import study_result
from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.uncertainty import MountSets, Repeats, Scatter, known_scatter
from ventrix.core.judging.checks import witness_check
from ventrix.core.judging.comparing import compare_runs, witness_adjustment
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.shape import shape_change
from ventrix.core.judging.verdict import judge
from ventrix.core.model.bench import ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.model.kinds import School
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run

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
    """What a bench truly does: relative repeat and re-mount scatter, dial zero [m], tilt over the lifts."""

    repeat: float = 0.004
    mount: float = 0.007
    dial: float = DIAL_SD
    tilt: float = 0.0


ALONG = (LIFT - LIFT.mean()) / (LIFT[-1] - LIFT[0])


def flow_of(
    random: Random,
    bench: Bench,
    readings: int = 2,
    factor: float | np.ndarray = 1.0,
    dial: float = 0.0,
    leak: float = 0.0,
    mounted: float | None = None,
    step: float = 0.1,
) -> np.ndarray:
    """Readings of one run [m3/s], shape (readings, lifts), in steps of a readout [CFM]."""
    tilt = bench.tilt * random.standard_normal() * ALONG
    moved = bench.mount * random.standard_normal() if mounted is None else mounted
    zero = bench.dial * random.standard_normal() + dial
    gauge = 0.5 * 0.05 / 28 * random.standard_normal()
    steady = (CURVE + SLOPE * zero) * factor * (1 + moved + tilt) * (1 + gauge) + leak
    noise = 1 + bench.repeat * random.standard_normal((readings, len(LIFT)))
    return np.asarray(np.round(steady * noise / CFM / step) * step * CFM)


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


def studied(random: Random, bench: Bench, mounts: int, readings: int = 1) -> Known:
    """What a study of an untouched head says of a bench."""
    rows = [flow_of(random, bench, readings) for _ in range(mounts)]
    kept = [
        StudyReading(id=f"{m}-{i}-{k}", mount=m, lift=float(LIFT[k]), flow=float(q))
        for m, row in enumerate(rows)
        for i, again in enumerate(row)
        for k, q in enumerate(again)
    ]
    return Known(study_result(ScatterStudy(id="s", readings=tuple(kept))).scatter)


def shape_by_study(n: int, seed: int, bench: Bench, mounts: int = 21, readings: int = 1, **change: object) -> float:
    """A change of shape said on a bench that a study of single readings tells of."""

    def one(r: Random) -> bool:
        known = studied(r, bench, mounts, readings)
        had, has = (flow_of(r, bench, readings), flow_of(r, bench, readings, **change))  # type: ignore[arg-type]
        return shape_change(compare_runs([run_of(had, "1")], [run_of(has, "2")], cam=CAM, known=known)) is not None

    return share(n, seed, one)


def band_of_single_readings(n: int, seed: int, mounts: int) -> float:
    """Mean U(0.05) of a pair of single readings [CFM], by a study of as many mounts; by what is assumed with none."""
    bench, random = Bench(), np.random.default_rng(seed)
    bands = []
    for _ in range(n):
        known = studied(random, bench, mounts) if mounts else Known()
        bands.append(pair(random, bench, known, readings=1).weighted_expanded / CFM)
    return float(np.mean(bands))


def steps_seen(n: int, seed: int, what: str) -> float:
    """Nulls read twice in steps of 5 CFM: whose shape is said to change, or of which a lift is named as odd."""
    bench = Bench()

    def one(r: Random) -> bool:
        had, has = (run_of(flow_of(r, bench, step=5.0), str(i)) for i in (1, 2))
        c = compare_runs([had], [has], cam=CAM)
        return shape_change(c) is not None if what == "shape" else bool(c.lone)

    return share(n, seed, one)


# -- a check between two runs

KNOWN_MOUNT = Bench(0.004, 0.004)
FAKES: dict[str, dict[str, float]] = {
    "a leak of 3 CFM": {"leak": 3 * CFM},
    "the sleeve, 2.5 % high": {"factor": 1.025},
    "clay left off the entry, 3 %": {"factor": 1.03},
    "a drift of 2 %": {"factor": 1.02},
    "a dial 0.006 in out": {"dial": 0.006 * INCH},
}


def kept_plainly(n: int, seed: int, checked: bool, gain: float = 0.0, **fault: float) -> float:
    """After-runs with a fault (or a true gain) on a bench known at 0.4 % a mount, plainly kept; with a witness port
    flowed at both settings-up, the fault in its later run too, or with nothing between."""
    bench = KNOWN_MOUNT

    def one(r: Random) -> bool:
        known = knows(bench, 20.0)
        if checked:
            before, after = run_of(flow_of(r, bench, 1), "w1"), run_of(flow_of(r, bench, 1, **fault), "w2")
            found = witness_adjustment(before, after, known.scatter)
            assert found is not None
            known = replace(known, checks=(witness_check(found),))
        true = {**fault, "factor": fault.get("factor", 1.0) * (1 + gain)}
        return judge(pair(r, bench, known, **true)).is_plain_keep

    return share(n, seed, one)


def marked_in_a_row(n: int, seed: int, steps: int = 8) -> float:
    """Rows of null cuts looked at after each: some plate is marked better, at the row's own level."""
    bench = KNOWN_MOUNT

    def one(r: Random) -> bool:
        runs = [run_of(flow_of(r, bench), str(i)) for i in range(steps + 1)]
        found = (compare_runs([a], [b], cam=CAM, known=knows(bench)) for a, b in pairwise(runs))
        return any(c.result_among(steps) == "better" for c in found)

    return share(n, seed, one)


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
    for mounts in (0, 21):
        said = f"single readings, {mounts} mounts of one state known" if mounts else "single readings, nothing known"
        print(f"{said:<74} ± {band_of_single_readings(min(n, 200), 21, mounts):.1f} CFM (4.0 to about 2.7)")
    low = shape_by_study(n, 22, Bench(), factor=LOW_GAIN)
    row("3 % at low lift alone, single readings, 21 mounts: shape found", low, "nine of ten")
    row("shape of uncut ports, the same", shape_by_study(n, 23, Bench()), "at most 1 %")
    row("shape of uncut ports, mounts that tilt by 1.5 %", shape_by_study(n, 24, Bench(tilt=0.015)), "at most 1 %")
    row("uncut, in steps of 5 CFM: shape said to change", steps_seen(n, 25, "shape"), "at most 1 %")
    row("uncut, in steps of 5 CFM: a lift named as odd", steps_seen(n, 26, "odd"), "about 0.5 %")
    for words, fault in FAKES.items():
        row(f"{words}, unchecked: plain Keep", kept_plainly(n, 27, False, **fault), "never below 4 %")
        row(f"{words}, witness at both: plain Keep", kept_plainly(n, 28, True, **fault), "at most 5 %")
    row("true 3 %, witness at both: plain Keep", kept_plainly(n, 29, True, 0.03), "as without one")
    row("eight uncut in a row: some plate marked better", marked_in_a_row(max(n // 8, 50), 30), "at most 5 %")
    for inches in (10, 15, 20):
        row(f"uncut, 28 against {inches} inH2O", null_other_pressure(n, 17, inches), "at most 5 %")
    row("uncut, top lifts at 24, 21, 19 inH2O", null_out_of_breath(n, 18), "at most 5 %")
    row("a transfer of four parts holds the fifth", transfer_covers(n, 19), "93 to 97 %, or more")
    even, sure = odds_of_further_mounts(n, 20)
    print(f"proven after the mounts said to be even odds {even:.0%}, four in five {sure:.0%} (true gains drawn evenly)")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 1000)
