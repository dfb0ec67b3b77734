"""The cuts that plates speak of, asked of the index a few hundred at once and kept until the next question."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ventrix.core.judging.job_summary import CutSummary
from ventrix.records.book.index import Entry, Index
from ventrix.workspace.workspace import Workspace

CHUNK: Final = 400  # newest cuts asked for at once


class Summaries:
    """Newest cuts by job, and the cut that met the question."""

    def __init__(self, index: Index) -> None:
        self.index = index
        self._newest: dict[str, list[CutSummary]] = {}
        self._best: dict[str, CutSummary] = {}

    def forget(self) -> None:
        """Ask anew from here on."""
        self._newest.clear()
        self._best.clear()

    def newest_of(self, entry: Entry, around: Sequence[Entry]) -> list[CutSummary]:
        """The newest cut of each port of a job; its neighbours on screen are fetched with it."""
        if entry.id not in self._newest:
            ids = [e.id for e in around]
            at = ids.index(entry.id) if entry.id in ids else 0
            wanted = [i for i in ids[at : at + CHUNK] if i not in self._newest] or [entry.id]
            self._newest |= self.index.newest_cuts(wanted)
        return self._newest.get(entry.id, [])

    def best_of(self, entry: Entry) -> CutSummary | None:
        """The cut of a job that met the question."""
        if entry.best_cut_id and entry.best_cut_id not in self._best:
            self._best |= self.index.cuts([entry.best_cut_id])
        return self._best.get(entry.best_cut_id)

    def reach(self, entries: Sequence[Entry]) -> tuple[float, float]:
        """The ends of the plates' axes: one scale for all, from the cuts of the first few hundred."""
        cuts = [c for e in entries[:CHUNK] for c in self.newest_of(e, entries)]
        lifts = [c.lifts[-1] for c in cuts if c.lifts and not c.is_share]
        flows = [max(c.flows) for c in cuts if c.flows and not c.is_share]
        return (max(lifts, default=1.0), max(flows, default=1.0) * 1.05)

    def in_hand(self, space: Workspace | None) -> CutSummary | None:
        """The newest cut of the port in hand, as the index has it."""
        if space is None or space.port is None:
            return None
        newest = self.index.newest_cuts([space.job.id])[space.job.id]
        return next((c for c in newest if c.port_name == space.port.name), None)
