"""The run in hand: which conditions, mount and plan the next reading belongs to. No widget."""

from __future__ import annotations

from dataclasses import replace

from ventrix.bench.procedure import FlowTest, Kept
from ventrix.core import edits
from ventrix.core.analysis import Pair
from ventrix.core.conditions import comparability
from ventrix.core.model import Cut, FlowRun, Reading, SetUp
from ventrix.core.reduction import correct_readings
from ventrix.core.units import tidy, to_si
from ventrix.ui.session import Session
from ventrix.ui.units import Units
from ventrix.workspace import Workspace, new_id, now_text

DEFAULT_PRESSURE = to_si(28, "inH2O")
RUNGS = 12
STRUCK_AT_BENCH = "struck at the bench"


class RunInHand:
    """Follows the cut looked at: its open run, set-up, mount and lift plan."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._cut_id: str | None = None
        self.setup = SetUp(id=new_id(), direction="intake", test_pressure=DEFAULT_PRESSURE)
        self.mount = 1
        self.test = FlowTest(self._default_lifts(), DEFAULT_PRESSURE)

    @property
    def space(self) -> Workspace:
        """The workspace in hand."""
        space = self._session.workspace
        assert space is not None
        return space

    def follow(self) -> None:
        """Take up the cut looked at; at the same cut, bring its readings up to date."""
        cut = self.space.cut
        assert cut is not None
        if cut.id != self._cut_id:
            self._cut_id = cut.id
            self.setup, self.mount = self._conditions(cut)
            self._restart()
        else:
            self.test.sync(self._plan(), self._done())

    def _restart(self) -> None:
        self.test = FlowTest(self._plan(), self.setup.test_pressure or DEFAULT_PRESSURE, self._done())

    def _done(self) -> set[float]:
        """Lifts of the run in hand that carry a reading that counts."""
        run = self.run
        return {r.lift for r in run.readings if r.struck is None} if run else set()

    def _conditions(self, cut: Cut) -> tuple[SetUp, int]:
        """The cut's last run's own, or those of the last run of this kind of port on a new mount."""
        job = self.space.job
        port = self.space.port
        assert port is not None
        if cut.runs:
            run = cut.runs[-1]
            mount = job.mount(run.mount_id)
            return job.setup(run.setup_id), mount.number if mount else self._next_mount()
        like = [s for s in job.setups if s.direction == port.kind]
        if like:
            return like[-1], self._next_mount()
        known = replace(job.setups[-1], id=new_id(), entry=None, leak=None, leak_pressure=None) if job.setups else None
        blank = known or SetUp(id=new_id(), direction=port.kind, test_pressure=DEFAULT_PRESSURE, bore=job.bore)
        return replace(blank, direction=port.kind), self._next_mount()

    def _next_mount(self) -> int:
        return max((m.number for m in self.space.job.mounts), default=0) + 1

    @property
    def run(self) -> FlowRun | None:
        """The run that the next reading goes to, None where it will be a new one."""
        cut = self.space.cut
        if cut is None:
            return None
        found = self.space.open_run(self.setup, self.mount, "")
        return found if any(r.id == found.id for r in cut.runs) else None

    def _plan(self) -> list[float]:
        """The pinned cut's lifts, else the usual steps; and whatever this run has besides."""
        run, against = self.run, self.space.against
        lifts = {round(r.lift * 1e6) for r in run.readings} if run else set()
        source = against.runs[-1].readings if against is not None and against.runs else ()
        planned = {round(r.lift * 1e6) for r in source} or {round(x * 1e6) for x in self._default_lifts()}
        return [x * 1e-6 for x in sorted(lifts | planned) if x > 0]

    def _default_lifts(self) -> list[float]:
        if self._session.units.name == "metric":
            return [to_si(i + 1, "mm") for i in range(RUNGS)]
        return [to_si(0.05 * (i + 1), "in") for i in range(RUNGS)]

    def use_setup(self, setup: SetUp) -> None:
        """Other conditions: a set-up of its own, so that what was read before keeps its own."""
        self.setup = replace(setup, id=new_id())
        self._restart()

    def remount(self) -> None:
        """The head came off and went back on."""
        self.mount = max(self._next_mount(), self.mount + 1)
        self._restart()

    def store(self, kept: Kept, lift_text: str, source: str) -> None:
        """Put a kept reading in the book. On disk when this returns."""
        reading = Reading(
            id=new_id(),
            lift=tidy(round(kept.lift, 9)),
            flow=tidy(kept.flow),
            measured_pressure=None if kept.pressure is None else tidy(kept.pressure),
            spread=None if kept.spread is None else tidy(kept.spread),
            window=None if kept.window is None else tidy(kept.window),
            time=now_text(),
            unsteady=kept.unsteady,
        )
        self.space.keep(self.setup, self.mount, reading, lift_text, source)

    def strike_last(self) -> Reading | None:
        """Strike the last reading of the run that counts; returns it."""
        run = self.run
        counted = [r for r in run.readings if r.struck is None] if run else []
        if run is None or not counted:
            return None
        last = counted[-1]
        words = self._session.units.lift.text(last.lift)
        job = edits.strike(self.space.job, run.id, last.id, STRUCK_AT_BENCH)
        self.space.apply(f"strike {words}", job, f"Struck {words}: it stays in the book and does not count.")
        return last

    def pair(self) -> Pair | None:
        """The cut looked at held against the pinned one, where both were flowed."""
        space = self.space
        if space.port is None or space.cut is None or space.against is None or not space.cut.runs:
            return None
        return space.analysis.pair(space.port, space.against, space.cut)

    def differs(self, units: Units) -> str:
        """What differs from the pinned cut's conditions, in sentences; said before the test."""
        space = self.space
        against, cut = space.against, space.cut
        if against is None or not against.runs or cut is None:
            return ""
        before = space.job.setup(against.runs[-1].setup_id)
        found = comparability(before, self.setup, cut.kind)
        return " ".join(d.sentence for d in found.differences)

    def leak_words(self, units: Units) -> str:
        """What is taken off for the leak."""
        return f"leak {units.flow.text(self.setup.leak)} taken off" if self.setup.leak else "no leak taken off"

    def indicated_as_reported(self, flow: float, pressure: float | None) -> float:
        """What a live reading will be reported as: leak off, at nominal pressure [m3/s]."""
        nominal = self.setup.test_pressure or DEFAULT_PRESSURE
        try:
            measured = [pressure] if pressure else None
            leak, at = self.setup.leak or 0.0, self.setup.leak_pressure
            return float(correct_readings([flow], nominal, measured, leak, at)[0])
        except ValueError:
            return flow
