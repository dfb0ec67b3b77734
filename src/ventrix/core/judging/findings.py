"""What the readings of a job say: runs of a cut reduced, two cuts held against each other, judged.

One is made for each state of a job and answers from memory what was asked before.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.core.benches.study import Evidence
from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.flow_curve import dips
from ventrix.core.formulas.knowledge import Adjustment, Check, Known
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.judging.bridge import bridge_adjustment, under, wants_bridge
from ventrix.core.judging.checks import (
    CheckKind,
    Offer,
    again_check,
    check_offer,
    plate_check,
    witness_check,
    witness_of,
)
from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.comparing import compare_runs, witness_adjustment
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.expectation import BY_PLAN, Outcome, outcome_of
from ventrix.core.judging.my_lifts import swirl_wish_sentences
from ventrix.core.judging.paper import same_house
from ventrix.core.judging.pours import volumes_of
from ventrix.core.judging.reduced_runs import Compared, ReducedRuns, Runs, bench_key
from ventrix.core.judging.speaking_runs import across_weather, speaking_runs
from ventrix.core.judging.verdict import Verdict, judge
from ventrix.core.judging.wording import Wording
from ventrix.core.model.bench import Bench, bench_named, same_name
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import OTHER_SIDE, Cut, Port, changes_between, poured_volume
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, Result
from ventrix.core.model.run import UNDONE, SetUp
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Said
from ventrix.core.quantity.words import listed, sentence
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Pair:
    """Two cuts held against each other, through the runs whose set-ups match best.

    `comparison` is None where it cannot be made, and `missing` says why in a sentence.
    """

    port: Port
    before: Cut
    after: Cut
    before_runs: tuple[ReducedRun, ...]
    after_runs: tuple[ReducedRun, ...]
    comparison: RunComparison | None
    missing: str = ""


@dataclass(frozen=True, slots=True)
class Gain:
    """What a cut did, as every place shows it: gain and U(0.05) in flow [m3/s], or as a share of the cut held against
    where the bench is uncalibrated (`is_share`); both None where the two may not be compared. `result` is the pair's
    own; `mark` is what its plate shows, which is one of a row."""

    value: float | None
    expanded: float | None
    is_share: bool
    result: str
    mark: str
    comparable: bool
    verdict: Verdict


class Findings(ReducedRuns):
    """Answers about one state of a job: its reduced runs, and what any two of them say of what lies between."""

    def __init__(
        self,
        job: Job,
        earlier: Findings | None = None,
        benches: tuple[Bench, ...] = (),
        elsewhere: Mapping[str, Evidence] | None = None,
        judge_by_witness: bool | None = None,
    ) -> None:
        super().__init__(job, earlier, benches, elsewhere, judge_by_witness)
        self._pairs: dict[tuple[str, str], Pair] = {}

    @property
    def school(self) -> str:
        """Whose number verdicts rest on: the job's own side of the question which lifts count."""
        return str(side_taken(self.job, "lifts").value)

    def compare_across(self, before: tuple[ReducedRun, ...], port: Port, after: Cut) -> Pair:
        """Hold a cut against runs from anywhere: another port, head or bench, or a claim."""
        with self._memory.lock:
            return self._across(before, port, after)

    def _across(self, before: tuple[ReducedRun, ...], port: Port, after: Cut) -> Pair:
        has = self.runs_of(after, port)
        stand_in = Cut(id=OTHER_SIDE, number=0, name=tr("the other side"))
        if not before or not has:
            said = (
                tr("Cut {} has not been flowed yet.", after.number) if not has else tr("The other side was not flowed.")
            )
            return Pair(port, stand_in, after, before, has, None, said)
        had, has = speaking_runs(before, has, frozenset(after.kinds))
        return self._made(Pair(port, stand_in, after, had, has, None))

    def between(self, had: Runs, has: Runs, port: Port | None = None) -> Known:
        """What is known of the bench after, and of what lies between two sides; of one port, its bridges too."""
        first, last = had[-1], has[-1]
        known = self.known(last.setup.bench)
        seen = self.witness(first, last, known.scatter)
        bridge = self.bridge(first.setup, last.setup, port) if port is not None else None
        return replace(
            known,
            transfer=self.transfer(first.setup, last.setup),
            witness=seen if self.judge_by_witness else None,
            bridge=bridge,
            house=same_house((*had, *has), self.job.same_house),
            checks=tuple(self._checks(had, has, seen, known.scatter)),
        )

    def _checks(self, had: Runs, has: Runs, witness: Adjustment | None, scatter: Scatter) -> Iterator[Check]:
        """What was flowed at both settings-up to see whether the bench changed."""
        runs = {r.id: r for r in self.job.runs()}
        first, last = runs.get(had[-1].run_id), runs.get(has[-1].run_id)
        if witness is not None and self.judge_by_witness:
            yield Check(CheckKind.WITNESS, 0.0, 0.0, witness.freedom)  # what it says is taken out, and counted there
        elif witness is not None:
            yield witness_check(witness)
        if first is not None and last is not None and same_name(had[-1].setup.bench, has[-1].setup.bench):
            plate = plate_check(first, last, bench_named(self.benches, has[-1].setup.bench), scatter)
            if plate is not None:
                yield plate
        again = again_check(had, has, scatter)
        if again is not None:
            yield again

    def bridge(self, before: SetUp, after: SetUp, port: Port) -> Adjustment | None:
        """What carries runs of a port under one set of conditions over to another: its last cut flowed both ways."""
        if not wants_bridge(before, after):
            return None
        for cut in reversed(port.cuts):
            runs = self.runs_of(cut, port)
            old, new = under(before, runs), under(after, runs)
            if old and new:
                found = bridge_adjustment(old, new, self.scatter(after.bench), tr("cut {}", cut.number))
                if found is not None:
                    return found
        return None

    def transfer(self, here: SetUp, there: SetUp) -> Adjustment | None:
        """What carries flows of the bench `there` over to the bench `here`, from parts flowed on both."""
        if here.bench is None or there.bench is None or same_name(here.bench, there.bench):
            return None
        for owner, other, back in ((here.bench, there.bench, False), (there.bench, here.bench, True)):
            bench = bench_named(self.benches, owner)
            for transfer in reversed(bench.transfers) if bench is not None else ():
                if same_name(transfer.other, other) and transfer.parts:
                    found = transfer_between(transfer, self.scatter(owner))
                    return across_weather(found.turned() if back else found, here, there)
        return None

    def witness(self, before: ReducedRun, after: ReducedRun, scatter: Scatter) -> Adjustment | None:
        """What the witness port says of two settings-up of the bench, where it was flowed at both."""
        runs = {r.id: r for r in self.job.runs()}
        named = [witness_of(self.job, runs[r.run_id]) if r.run_id in runs else None for r in (before, after)]
        if named[0] is None or named[1] is None or named[0].id == named[1].id:
            return None
        try:
            had, has = (self._reduce(r, Geometry()) for r in named if r is not None)
        except Refused:
            return None
        return witness_adjustment(had, has, scatter)

    def check_offer(self, pair: Pair, today: str) -> Offer | None:
        """The check that would settle a pair's small gain, where its verdict hangs on one and it can be made today."""
        verdict = self.verdict(pair)
        if verdict is None or not verdict.needs_check or not (pair.before.runs and pair.after.runs):
            return None
        bench = bench_named(self.benches, self.job.setup(pair.after.runs[-1].setup_id).bench)
        return check_offer(self.job, pair.port, pair.before, pair.after, bench, today)

    def pair(self, port: Port, before: Cut, after: Cut) -> Pair:
        """Hold two cuts of a port against each other."""
        key = before.id, after.id
        with self._memory.lock:
            if key not in self._pairs:
                self._pairs[key] = self._pair(port, before, after)
            return self._pairs[key]

    def _pair(self, port: Port, before: Cut, after: Cut) -> Pair:
        had, has = self.runs_of(before, port), self.runs_of(after, port)
        for cut, runs in ((before, had), (after, has)):
            if not runs:
                why = self.problem(cut)
                said = tr("Cut {}: {}.", cut.number, why) if why else tr("Cut {} has not been flowed yet.", cut.number)
                return Pair(port, before, after, had, has, None, said)
        had, has = speaking_runs(had, has, changes_between(port, before, after))
        return self._made(Pair(port, before, after, had, has, None))

    def _made(self, pair: Pair) -> Pair:
        """The pair with its comparison, its runs brought to one test pressure; or with why there is none."""
        try:
            comparison = self._compare(
                pair.port, pair.before_runs, pair.after_runs, changes_between(pair.port, pair.before, pair.after)
            )
        except Refused as error:
            return replace(pair, missing=sentence(str(error)))
        return replace(
            pair, before_runs=comparison.before_runs, after_runs=comparison.after_runs, comparison=comparison
        )

    def _compare(self, port: Port, had: Runs, has: Runs, changes: frozenset[CutKind]) -> RunComparison:
        key = had[0].run_id, has[0].run_id
        rest = (
            changes,
            self.cam_of(port.kind),
            self.between(had, has, port),
            self.school,
            self.job.test_pressure,
            tuple(m.lift for m in self.job.my_lifts if m.kind == port.kind),
        )
        known = self._memory.pairs.get(key)
        if known is not None and known.is_of(had, has, rest):
            return known.comparison
        comparison = compare_runs(had, has, *rest)
        self._memory.pairs[key] = Compared(had, has, rest, comparison)
        return comparison

    def left_out(self, pair: Pair) -> list[str]:
        """Runs of either cut that do not speak, and why: a sentence each."""
        said: list[str] = []
        for cut, speaking in ((pair.before, pair.before_runs), (pair.after, pair.after_runs)):
            if cut.id == OTHER_SIDE or not speaking:
                continue
            ids = {r.run_id for r in speaking}
            for run in (r for r in self.runs_of(cut, pair.port) if r.run_id not in ids):
                why = next((d.sentence for d in comparability(run.setup, speaking[-1].setup).differences), "")
                if run.kind != speaking[-1].kind:
                    why = tr("It was read on an uncalibrated bench.")
                when = next((r.date for r in cut.runs if r.id == run.run_id and r.date), None)
                named = tr(" of {}", when[:10]) if when else ""
                why = why or tr("Another matches better.")
                said.append(Said("Cut {}'s run{} is left out. {}", cut.number, named, why))
        return said

    def gain(self, pair: Pair) -> Gain | None:
        """What is said of a pair wherever it is shown: on its plate, in the whole row, in Compare. None where one side
        was not flowed."""
        verdict = self.verdict(pair)
        c = pair.comparison
        if c is None or verdict is None:
            return None
        if not c.allowed or verdict.weighted is None or verdict.expanded is None:
            return Gain(None, None, c.kind == FlowKind.INDEX, "", "", False, verdict)
        base = c.weighted_before if c.kind == FlowKind.INDEX else 1.0
        proven = verdict.result in (Result.BETTER, Result.WORSE)
        result = verdict.result if proven else Result.NOT_PROVEN
        looks = sum(bool(self.runs_of(each, pair.port)) for each in pair.port.cuts) - 1
        mark = c.result_among(looks)
        return Gain(
            verdict.weighted / base, verdict.expanded / base, c.kind == FlowKind.INDEX, result, mark, True, verdict
        )

    def dip_of_the_bench(self, port: Port, bench: str | None, lift: float) -> str | None:
        """The name of a second bench on which the untouched head shows no dip at a lift [m] where this one does; None
        where there is none that says so."""
        first = port.cuts[0] if port.cuts else None
        runs = self.runs_of(first, port) if first is not None else ()
        own = [r for r in runs if bench_key(r.setup.bench) == bench_key(bench)]
        if not any(_dips_at(r, lift) for r in own):
            return None
        for run in runs:
            other = bench_key(run.setup.bench) != bench_key(bench)
            if other and run.lift[0] < lift < run.curve.highest and not _dips_at(run, lift):
                return run.setup.bench
        return None

    def outcome(self, port: Port, cut: Cut) -> Outcome:
        """What was said of a cut before the work, and what came of it against the cut before."""
        at = next((i for i, c in enumerate(port.cuts) if c.id == cut.id), 0)
        if at == 0:
            return outcome_of(cut, None, None)
        before = port.cuts[at - 1]
        comparison = self.pair(port, before, cut).comparison if before.runs and cut.runs else None
        volumes = poured_volume(before), poured_volume(cut)
        growth = None if volumes[0] is None or volumes[1] is None else volumes[1] - volumes[0]
        if comparison is None or comparison.kind != FlowKind.FLOW or not comparison.allowed:
            return outcome_of(cut, None, growth)
        gain = comparison.gain_as(cut.expected_as, cut.expected_lift)
        return outcome_of(cut, None if gain is None else gain.change, growth, 0.0 if gain is None else gain.expanded)

    def outcomes(self) -> list[Outcome]:
        """Every cut of the job of which something was said first."""
        return [
            self.outcome(port, cut)
            for port in self.job.ports
            for cut in port.cuts
            if cut.expected_gain is not None or cut.expected_time is not None
        ]

    def verdict(self, pair: Pair, wording: Wording | None = None) -> Verdict | None:
        """The judgement of a pair, None where it cannot be compared at all."""
        if pair.comparison is None:
            return None
        volumes = volumes_of(pair.before, pair.after)
        least = self.job.worthwhile_gain if pair.comparison.kind == FlowKind.FLOW else None
        verdict = judge(pair.comparison, least, volumes, wording)
        unit = wording.lift_unit if wording is not None else "in"
        swirl = swirl_wish_sentences(self.job, pair.port.kind, pair.before_runs[-1], pair.after_runs[-1], unit)
        said_too = (*swirl, *_of_a_set(pair))
        verdict = replace(verdict, warnings=(*verdict.warnings, *said_too)) if said_too else verdict
        struck = self._with_struck(pair)
        if struck is None:
            return verdict
        other = judge(struck, least, volumes, wording)
        if other.kind == verdict.kind:
            return verdict
        said = tr("With the struck readings counted it would say: {} {}", other.headline, other.sentence)
        return replace(verdict, warnings=(*verdict.warnings, said))

    def _with_struck(self, pair: Pair) -> RunComparison | None:
        """The pair with its struck readings counted, by the same knowledge; None where nothing was struck, or it
        cannot be made."""
        runs = {r.id: r for r in self.job.runs()}
        mine = [[runs.get(r.run_id) for r in side] for side in (pair.before_runs, pair.after_runs)]
        if not any(
            r.struck is not None and r.struck != UNDONE for side in mine for run in side if run for r in run.readings
        ):
            return None
        sides = []
        for side, originals in zip((pair.before_runs, pair.after_runs), mine, strict=True):
            again = []
            for reduced, run in zip(side, originals, strict=True):
                if run is None:
                    return None
                readings = tuple(r if r.struck == UNDONE else replace(r, struck=None) for r in run.readings)
                try:
                    setup = self.job.setup(run.setup_id)
                    counted = replace(run, readings=readings)
                    again.append(
                        reduce_run(counted, setup, reduced.geometry, reduced.mount, reduced.known, reduced.step)
                    )
                except Refused:
                    return None
            sides.append(tuple(again))
        try:
            changes = changes_between(pair.port, pair.before, pair.after)
            return self._compare(pair.port, sides[0], sides[1], changes)
        except Refused:
            return None


def _of_a_set(pair: Pair) -> list[str]:
    """Of every batch that was planned and worked between the two: what was proven of it."""
    low, high = sorted((pair.before.number, pair.after.number))
    said = []
    for cut in (c for c in pair.port.cuts if low < c.number <= high and c.expected_by == BY_PLAN):
        places = list(dict.fromkeys(w.place for operation in cut.operations for w in operation.works))
        if len(places) > 1:
            said.append(tr("Cut {} worked {} as one: proven is the set, not each place.", cut.number, listed(places)))
    return said


def _dips_at(run: ReducedRun, lift: float) -> bool:
    found = dips(run.flow, DIP_FACTOR * run.uncertainty)
    near = float(np.min(np.diff(np.r_[0.0, run.lift])))
    return any(abs(float(run.lift[i]) - lift) < near for i in found)


DIP_FACTOR: Final = 1.96 * 2**0.5  # U of a difference of two points
