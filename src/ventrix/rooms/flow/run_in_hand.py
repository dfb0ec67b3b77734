"""The run in hand: which conditions, mount and plan the next reading belongs to. No widget."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from ventrix.bench.procedure.flow_procedure import FlowTest, Kept
from ventrix.bench.procedure.lift_plan import Rung, rungs
from ventrix.bench.procedure.preparation import ORDER, Preparation
from ventrix.core.edits.runs import change_setup, strike, take_up
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.judging.checks import CheckKind, Offer
from ventrix.core.judging.comparability import BRIDGED, Level, comparability
from ventrix.core.judging.findings import Pair
from ventrix.core.model.bench import Bench, bench_named, is_index
from ventrix.core.model.bench_kinds import ElementKind, FlowKind
from ventrix.core.model.cut import changes_between
from ventrix.core.model.kinds import Direction, RungNoteKind, StepKind
from ventrix.core.model.run import FlowRun, Reading, RungNote, SetUp
from ventrix.core.quantity.units import tidy
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.rooms.display_units import Units
from ventrix.rooms.flow.conditions import conditions_of, next_mount, with_bench
from ventrix.rooms.flow.element_in_hand import DEFAULT_PRESSURE, ElementInHand
from ventrix.rooms.flow.lifts_to_flow import lifts_to_flow, usual_lifts
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.workspace import Workspace

STRUCK_AT_BENCH = tr("struck at the bench")


class AtWork(Protocol):
    """What the run in hand asks of the open book: the job in hand, and the units on screen."""

    workspace: Workspace | None
    units: Units


class RunInHand:
    """Follows the cut looked at: its open run, set-up, mount, lift plan and preparation."""

    def __init__(self, open_book: AtWork) -> None:
        self._open_book = open_book
        self._cut_id: str | None = None
        self._own_lifts: list[float] | None = None
        self.come_back = False
        self._leak_said = False
        self.element = ElementInHand(self)
        self.setup = SetUp(id=new_id(), direction=Direction.INTAKE, test_pressure=DEFAULT_PRESSURE)
        self.mount = 1
        self.test = FlowTest(rungs(self._usual_lifts()), DEFAULT_PRESSURE)
        self.preparation = Preparation((), DEFAULT_PRESSURE)

    @property
    def space(self) -> Workspace:
        """The workspace in hand."""
        space = self._open_book.workspace
        assert space is not None
        return space

    @property
    def bench(self) -> Bench | None:
        """The bench's record, None where the shop's list has none of that name."""
        return bench_named(self.space.benches, self.setup.bench)

    # -- following the cut looked at

    def follow(self) -> None:
        """Take up the cut looked at; at the same cut, bring its readings up to date."""
        cut = self.space.cut
        assert cut is not None
        if cut.id != self._cut_id:
            self._cut_id = cut.id
            self._own_lifts = None
            self.setup, self.mount = conditions_of(self.space, cut)
            self._follow_bore()
            self._restart()
            self.prepare()
        else:
            self._follow_bench()
            self._follow_bore()
            self.test.sync(self._plan(), self._done())

    def _follow_bench(self) -> None:
        """The bench's record was changed: readings to come are taken as it is now."""
        bench = self.bench
        if bench is not None and self.run is None and with_bench(self.setup, bench) != self.setup:
            self.setup = replace(with_bench(self.setup, bench), id=new_id())
            self._restart()
            self.prepare()

    def _follow_bore(self) -> None:
        """The bore was typed after the set-up was made: readings to come are taken over it."""
        if self.setup.bore is None and self.space.job.bore is not None and self.run is None:
            self.setup = replace(self.setup, bore=self.space.job.bore, id=new_id())

    def _restart(self) -> None:
        automatic = self.test.automatic
        self.test = FlowTest(self._plan(), self.nominal, self._done())
        self.test.automatic = automatic

    @property
    def nominal(self) -> float | None:
        """The test pressure [Pa]; None on a bench whose columns float."""
        return None if is_index(self.element.kind) else self.setup.test_pressure or DEFAULT_PRESSURE

    def _done(self) -> set[tuple[int, bool]]:
        """Rungs of the run in hand that carry a reading that counts."""
        run = self.run
        return {Rung(r.lift, returns=r.returned).key for r in run.readings if r.struck is None} if run else set()

    @property
    def run(self) -> FlowRun | None:
        """The run that the next reading goes to, None where it will be a new one."""
        cut = self.space.cut
        if cut is None:
            return None
        found = self.space.runs.open_run(self.setup, self.mount, "")
        return found if any(r.id == found.id for r in cut.runs) else None

    @property
    def in_sight(self) -> FlowRun | None:
        """The run that is shown: the one in hand, else the cut's last, under whatever conditions it was flowed."""
        cut = self.space.cut
        return self.run or (cut.runs[-1] if cut is not None and cut.runs else None)

    def reduced(self, run: FlowRun | None = None) -> ReducedRun | None:
        """The run in hand, or another of the cut, reduced, where it has readings that count."""
        run, space = run or self.run, self.space
        if run is None or space.port is None or space.cut is None:
            return None
        return next((r for r in space.findings.runs_of(space.cut, space.port) if r.run_id == run.id), None)

    # -- the plan

    def _plan(self) -> list[Rung]:
        return lifts_to_flow(self.run, self.space.against, self._own_lifts or (), self._usual_lifts(), self.come_back)

    def _usual_lifts(self) -> list[float]:
        return usual_lifts(self._open_book.workspace, self._open_book.units)

    @property
    def lifts(self) -> list[float]:
        """Lifts of the plan on the way up [m]."""
        return [r.lift for r in self.test.rungs if not r.returns]

    def use_plan(self, lifts: list[float] | None, *, come_back: bool) -> None:
        """Other lifts, None for the pinned cut's; what was read stays."""
        self._own_lifts, self.come_back = lifts, come_back
        self._restart()

    # -- conditions

    def use_setup(self, setup: SetUp) -> None:
        """Other conditions: a set-up of its own, so that what was read before keeps its own."""
        run, had = self.run, self.setup
        self.setup = replace(setup, id=new_id())
        if run is not None and not run.readings:
            self.space.apply("conditions", change_setup(self.space.job, run.id, self.setup))
        prepared = self.preparation
        self._restart()
        if (setup.bench, setup.test_pressure) != (had.bench, had.test_pressure):
            self.prepare()
        else:
            self.preparation = prepared

    def use_bench(self, bench: Bench) -> None:
        """Flow on this bench from now on."""
        self.use_setup(with_bench(self.setup, bench))

    def remount(self) -> None:
        """The head came off and went back on."""
        self.mount = max(next_mount(self.space.job), self.mount + 1)
        self._restart()

    def differs(self, units: Units) -> str:
        """What differs from the pinned cut's conditions, in sentences; said before the test."""
        before, against = self.pinned_setup, self.space.against
        cut = self.space.cut
        if before is None or cut is None:
            return ""
        changes = changes_between(self.space.port, against, cut) if self.space.port and against else cut.kinds
        findings, port = self.space.findings, self.space.port
        bridge = findings.bridge(before, self.setup, port) if port is not None else None
        found = comparability(before, self.setup, changes, findings.transfer(before, self.setup), bridge)
        said = [units.say(d.sentence) for d in found.differences]
        if any(d.level == Level.NO and d.key in BRIDGED for d in found.differences):
            said.append(
                tr(
                    "Re-flow cut {} under these conditions and the two can be compared.",
                    against.number if against else cut.number,
                )
            )
        return " ".join(said)

    @property
    def pinned_setup(self) -> SetUp | None:
        """The conditions of the pinned cut's last run."""
        against = self.space.against
        return self.space.job.setup(against.runs[-1].setup_id) if against is not None and against.runs else None

    def prepare(self) -> None:
        """Begin the steps before the lifts anew."""
        bench = self.bench
        steps = tuple(
            s for s in ORDER if s is not StepKind.PLATE or (bench is not None and bench.plate_flow is not None)
        )
        plate = bench.plate_flow if bench else None
        self.preparation = Preparation(steps, self.nominal, self._smallest_flow(), plate)

    def _smallest_flow(self) -> float | None:
        """Lowest reading of the pinned cut's last run, where it is of the same measure."""
        space = self.space
        if space.against is None or space.port is None or self.element.kind != ElementKind.FLOW:
            return None
        runs = space.findings.runs_of(space.against, space.port)
        return float(runs[-1].flow.min()) if runs and runs[-1].kind == FlowKind.FLOW else None

    @property
    def valve_diameter(self) -> float | None:
        """Of the port looked at [m], None where it is not known."""
        valve = self.space.job.valve_of(self.space.port, self.space.cut) if self.space.port is not None else None
        return valve.head_diameter if valve is not None else None

    # -- readings

    def store(self, kept: Kept, lift_text: str, source: str) -> None:
        """Put a kept reading in the book. On disk when this returns."""
        notes = self._skipped_notes(kept)
        self.space.runs.keep(self.setup, self.mount, self._reading(kept), lift_text, source, notes)

    def store_all(self, kept: list[Kept], source: str) -> None:
        """Put a table of readings in the book, in one edit."""
        self.space.runs.keep_all(self.setup, self.mount, [self._reading(k) for k in kept], source)

    def _reading(self, kept: Kept) -> Reading:
        return replace(
            self.element.as_reading(kept.flow, kept.pressure),
            id=kept.id,
            lift=tidy(round(kept.lift, 9)),
            swirl=None if kept.swirl is None else tidy(kept.swirl),
            spread=None if kept.spread is None or self.element.kind != ElementKind.FLOW else tidy(kept.spread),
            window=None if kept.window is None else tidy(kept.window),
            time=kept.at,
            unsteady=kept.unsteady,
            returned=kept.rung.returns,
        )

    def _skipped_notes(self, kept: Kept) -> tuple[RungNote, ...]:
        """A note for every rung passed over on the way to this one, once."""
        run = self.run
        noted = {round(n.lift * 1e6) for n in run.rung_notes if n.kind == RungNoteKind.SKIPPED} if run else set()
        notes = [
            RungNote(id=new_id(), lift=tidy(round(r.lift, 9)), kind=RungNoteKind.SKIPPED, time=now_text())
            for r in self.test.passed
            if r.lift < kept.lift and r.key[0] not in noted and not kept.rung.returns
        ]
        if kept.rung.pressure is not None:
            notes.append(
                RungNote(id=new_id(), lift=tidy(round(kept.lift, 9)), kind=RungNoteKind.OUT_OF_BREATH, time=now_text())
            )
        return tuple(notes)

    def note(self, kind: str, lift_text: str) -> bool:
        """Note something at the rung stood on; False where there is none or it is noted already."""
        lift, run = self.test.lift, self.run
        if lift is None:
            return False
        known = run.rung_notes if run else ()
        if any(n.kind == kind and abs(n.lift - lift) < 1e-6 for n in known):
            return False
        note = RungNote(id=new_id(), lift=tidy(round(lift, 9)), kind=kind, time=now_text())
        self.space.runs.note_rung(self.setup, self.mount, note, lift_text, "typed")
        return True

    def strike_last(self, reason: str = STRUCK_AT_BENCH) -> Reading | None:
        """Strike the last reading of the run that counts; returns it."""
        run = self.run
        counted = [r for r in run.readings if r.struck is None] if run else []
        if run is None or not counted:
            return None
        last = counted[-1]
        words = self._open_book.units.lift.text(last.lift)
        job = strike(self.space.job, run.id, last.id, reason)
        self.space.apply(tr("strike {}", words), job, tr("Struck {}: it stays in the book and does not count.", words))
        return last

    def strike(self, reading_id: str, reason: str) -> None:
        """Strike any reading of the run in sight; ValueError without a reason."""
        run = self.in_sight
        reading = next((r for r in run.readings if r.id == reading_id), None) if run else None
        if run is None or reading is None:
            return
        words = self._open_book.units.lift.text(reading.lift)
        job = strike(self.space.job, run.id, reading_id, reason)
        self.space.apply(tr("strike {}", words), job, tr("Struck {}: it stays in the book and does not count.", words))

    def take_up(self, reading_id: str) -> None:
        """Count a struck reading of the run in sight again."""
        run = self.in_sight
        reading = next((r for r in run.readings if r.id == reading_id), None) if run else None
        if run is None or reading is None:
            return
        words = self._open_book.units.lift.text(reading.lift)
        self.space.apply(tr("restore {}", words), take_up(self.space.job, run.id, reading_id))

    def asks_leak(self) -> bool:
        """Whether it has to be asked if the readout has the leak off already: the first leak of a bench of which nobody
        has said."""
        bench = self.bench
        said = self._leak_said if bench is None else bench.leak_taken_off is not None
        return bool(self.setup.leak) and not said and not is_index(self.element.kind)

    def answer_leak(self, taken_off: bool) -> None:
        """Whether the readout has the leak off already: kept with the bench, and with readings to come."""
        bench = self.bench
        self._leak_said = True
        if bench is None and self.setup.bench:
            bench = Bench(id=new_id(), name=self.setup.bench, test_pressure=self.setup.test_pressure)
        if bench is not None:
            said = replace(bench, leak_taken_off=taken_off)
            self.space.change_bench(tr("leak of bench '{}'", bench.name), said)
        if self.setup.leak_taken_off != taken_off:
            self.use_setup(replace(self.setup, leak_taken_off=taken_off))

    # -- what it means

    def check_offer(self) -> Offer | None:
        """The check that the verdict over the pinned cut hangs on, where it can be made now."""
        pair = self.pair()
        return self.space.findings.check_offer(pair, now_text()) if pair is not None else None

    def begin_check(self, offer: Offer) -> None:
        """Stand at the cut that is flowed for a check, under the conditions of the run it is for, on a new mount."""
        setup = self.setup
        self.space.look_at(offer.cut_id)
        self.follow()
        if offer.kind is CheckKind.WITNESS:
            self.use_setup(setup)
            self.remount()

    def pinned_curve(self) -> FlowCurve | None:
        """The pinned cut's last run at this set-up's pressure, where it is of the same measure."""
        space = self.space
        if space.against is None or space.port is None:
            return None
        runs = space.findings.runs_of(space.against, space.port)
        kind = "index" if is_index(self.element.kind) else "flow"
        if not runs or runs[-1].kind != kind:
            return None
        return runs[-1].at_pressure(self.setup.test_pressure or runs[-1].test_pressure).curve

    def pair(self) -> Pair | None:
        """The cut looked at held against the pinned one, where both were flowed."""
        space = self.space
        if space.port is None or space.cut is None or space.against is None or self.reduced() is None:
            return None
        return space.findings.pair(space.port, space.against, space.cut)

    def leak_words(self, units: Units) -> str:
        """What is taken off for the leak."""
        if is_index(self.element.kind):
            return tr("index: ratios only, no leak taken off")
        return tr("leak {} taken off", units.flow.text(self.setup.leak)) if self.setup.leak else tr("no leak taken off")
