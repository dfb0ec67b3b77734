"""Readings, steps and notes of the cut looked at, and the run that each goes to."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING, Final

from ventrix.core.edits.runs import add_reading, add_rung_note, add_step, start_run
from ventrix.core.model.bench import Bench, same_name
from ventrix.core.model.job import Job
from ventrix.core.model.run import FlowRun, Mount, Reading, RungNote, SetUp, StepRecord
from ventrix.records.bad_input import AlreadyThere
from ventrix.words import tr
from ventrix.workspace.ids import hours_since, new_id, now_text

if TYPE_CHECKING:
    from ventrix.workspace.workspace import Workspace

WITNESS_HOURS: Final = 12.0


class KeptRuns:
    """What a bench says of the cut looked at: on disk when each returns."""

    def __init__(self, space: Workspace) -> None:
        self._space = space

    def open_run(self, setup: SetUp, mount_number: int, source: str) -> FlowRun:
        """The run of the cut looked at that readings under these conditions go to.

        The last run of the cut goes on where its conditions and mount are these; otherwise a run
        that is not in the job yet, which `keep` brings in with its first reading.
        """
        cut = self._space.cut
        assert cut is not None
        for run in reversed(cut.runs):
            mount = self._space.job.mount(run.mount_id)
            same = replace(setup, id=run.setup_id) == self._space.job.setup(run.setup_id)
            if same and mount is not None and mount.number == mount_number:
                return run
        known = next((s for s in self._space.job.setups if replace(setup, id=s.id) == s), None)
        mount = next((m for m in self._space.job.mounts if m.number == mount_number), None)
        return FlowRun(
            id=new_id(),
            setup_id=known.id if known else setup.id,
            mount_id=mount.id if mount else None,
            date=now_text(),
            source=source,
        )

    def keep(
        self,
        setup: SetUp,
        mount_number: int,
        reading: Reading,
        lift_text: str,
        source: str,
        notes: tuple[RungNote, ...] = (),
    ) -> FlowRun:
        """Keep a reading of the cut looked at: on disk when this returns. Returns the run it went to. Offered again, it
        is the same row and never a second.

        `notes` are what came with it: rungs that were passed over on the way.
        """
        there = self._run_with(reading)
        if there is not None:
            return there
        job, run = self._with_run(setup, mount_number, source)
        for note in notes:
            job = add_rung_note(job, run.id, note)
        try:
            self._space.apply(tr("keep {}", lift_text), add_reading(job, run.id, reading))
        except AlreadyThere:
            self._space.look_for_changes()
            there = self._run_with(reading)
            if there is None:
                raise
            return there
        return run

    def _run_with(self, reading: Reading) -> FlowRun | None:
        """The run that holds a reading already: it was kept, and nobody came to say so."""
        return next((run for run in self._space.job.runs() if any(r.id == reading.id for r in run.readings)), None)

    def keep_all(self, setup: SetUp, mount_number: int, readings: list[Reading], source: str) -> FlowRun:
        """Keep a table of readings of the cut looked at, in one edit: on disk when this returns."""
        job, run = self._with_run(setup, mount_number, source)
        for reading in readings:
            job = add_reading(job, run.id, reading)
        self._space.apply(tr("paste {} readings", len(readings)), job)
        return run

    def record_step(
        self, setup: SetUp, mount_number: int, step: StepRecord, source: str, benches: tuple[Bench, ...] | None = None
    ) -> FlowRun:
        """Record a step of preparing the bench with the run that the next reading goes to."""
        job, run = self._with_run(setup, mount_number, source)
        what = tr("skip {}", step.kind) if step.skipped else step.kind
        self._space.apply(what, add_step(job, run.id, step), benches=benches)
        return run

    def note_rung(self, setup: SetUp, mount_number: int, note: RungNote, lift_text: str, source: str) -> FlowRun:
        """Note something at a rung of the run that the next reading goes to."""
        job, run = self._with_run(setup, mount_number, source)
        self._space.apply(tr("note {} at {}", note.kind, lift_text), add_rung_note(job, run.id, note))
        return run

    def _with_run(self, setup: SetUp, mount_number: int, source: str) -> tuple[Job, FlowRun]:
        """The job with the run that belongs to these conditions in it, and that run."""
        cut = self._space.cut
        assert cut is not None
        run = self.open_run(setup, mount_number, source)
        if any(r.id == run.id for r in cut.runs):
            return self._space.job, run
        mount = self._space.job.mount(run.mount_id) or Mount(id=new_id(), number=mount_number, date=now_text())
        witness = self.witness_run(setup)
        run = replace(run, mount_id=mount.id, witness_id=witness.id if witness is not None else None)
        known = next((s for s in self._space.job.setups if s.id == run.setup_id), setup)
        return start_run(self._space.job, cut.id, run, known, mount), run

    def witness_run(self, setup: SetUp) -> FlowRun | None:
        """The witness port's run of this setting-up of the bench: same bench and direction, in the last
        twelve hours; None while the port looked at is the witness, or it was not flowed."""
        port = self._space.port
        found: FlowRun | None = None
        if port is None or port.witness:
            return None
        for each in self._space.job.ports:
            for run in each.cuts[0].runs if each.witness and each.cuts else ():
                theirs = self._space.job.setup(run.setup_id)
                fresh = run.date is not None and hours_since(run.date) <= WITNESS_HOURS
                if same_name(theirs.bench, setup.bench) and theirs.direction == setup.direction and fresh:
                    found = run if any(r.struck is None for r in run.readings) else found
        return found
