"""The clock of the work in hand, on disk while it runs."""

from __future__ import annotations

import time
from dataclasses import replace
from typing import TYPE_CHECKING, Final

from ventrix.core.edits.cuts import add_operation, edit_cut
from ventrix.core.model.cut import Cut, Operation, Work
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import tidy
from ventrix.words import tr
from ventrix.workspace.ids import hours_since, new_id, now_text

if TYPE_CHECKING:
    from ventrix.workspace.workspace import Workspace

LONGEST_WORK: Final = 10 * 3600.0  # s: longer, and the clock was left running


class WorkClock:
    """One clock runs at a time, on an operation of a cut."""

    def __init__(self, space: Workspace) -> None:
        self._space = space
        self._ticking: tuple[str, float] | None = None  # the operation, and when it began by a clock that never jumps

    def running(self) -> tuple[Cut, Operation] | None:
        """The operation whose clock runs, and its cut."""
        for port in self._space.job.ports:
            for cut in port.cuts:
                for op in cut.operations:
                    if op.started_at is not None and op.duration is None:
                        return cut, op
        return None

    def start(self, place: str, stage: str = "") -> None:
        """Start the clock on work at a place, or at a stage of the board, of the cut looked at."""
        cut = self._space.real_cut
        if cut is None or self.running() is not None:
            return
        works = (Work(id=new_id(), place=place),) if place else ()
        kind = stage or "work"
        work = Operation(
            id=new_id(), kind=kind, works=works, started_at=now_text(), date=now_text(), at=now_text(), stage=stage
        )
        self._space.apply(tr("start the clock"), add_operation(self._space.job, cut.id, work))
        self._ticking = work.id, time.monotonic()

    def seconds(self) -> float | None:
        """How long the running clock has run [s]; None where none runs, or the record makes no sense: the computer's
        clock was set back, or this one was left running over a night. While this program runs it goes by one that
        never jumps."""
        running = self.running()
        if running is None:
            return None
        op = running[1]
        if self._ticking is not None and self._ticking[0] == op.id:
            seconds = time.monotonic() - self._ticking[1]
        else:
            seconds = hours_since(op.started_at or "") * 3600
        return seconds if 0 <= seconds <= LONGEST_WORK else None

    def stop(self, seconds: float | None = None) -> float | None:
        """Stop the clock; the seconds it ran, None where it did not run.

        Raises ValueError where it cannot be told how long it ran: then `seconds` must be said.
        """
        running = self.running()
        if running is None:
            return None
        ran = seconds if seconds is not None else self.seconds()
        if ran is None:
            raise Refused("the computer's clock does not say how long this work took: how many minutes was it?")
        cut, op = running
        ran = max(ran, 1.0)
        done = replace(op, duration=tidy(round(ran, 1)))
        job = edit_cut(
            self._space.job,
            cut.id,
            lambda c: replace(c, operations=tuple(done if o.id == op.id else o for o in c.operations)),
        )
        self._space.apply(tr("stop the clock"), job)
        self._ticking = None
        return ran
