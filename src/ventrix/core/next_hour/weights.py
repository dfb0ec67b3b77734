"""What a percent of each kind's flow counts on a head."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import Final

from ventrix.core.engine.breathing import Side, engine_of
from ventrix.core.engine.kind_weight import exhaust_weight
from ventrix.core.judging.exhaust_share import exhaust_share
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Port
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

MET: Final = 0.3  # of the intake's: what an exhaust counts once its share is met (a guess)
WANTED: Final = 0.70  # exhaust over intake, that is enough (common practice, no source)


class KindWeights:
    """Weights of a job's kinds of port: by the engine's volumetric efficiency, else by the exhaust share."""

    def __init__(self, findings: Findings, ports: Sequence[Port]) -> None:
        self.findings, self.ports = findings, ports

    @cached_property
    def _weighed(self) -> tuple[dict[str, float], str]:
        """What a percent of a kind's flow counts, and by what it was found."""
        by_engine = self._by_engine()
        if by_engine is not None:
            return {"intake": 1.0, "exhaust": by_engine}, tr("by the engine's volumetric efficiency")
        wanted, share = self._share_wanted()
        if share is None:
            return {"intake": 1.0, "exhaust": 1.0}, tr("exhaust share not known: both kinds count alike, an estimate")
        if share < wanted:
            return {
                "intake": 1.0,
                "exhaust": 1.0,
            }, tr("exhaust share {:.0f} %, short: an estimate", 100 * share)
        return {"intake": 1.0, "exhaust": MET}, tr("exhaust share {:.0f} %, met: an estimate", 100 * share)

    @property
    def weights(self) -> dict[str, float]:
        return self._weighed[0]

    @property
    def weighed_by(self) -> str:
        return self._weighed[1]

    def _flowed(self, kind: str) -> Iterator[tuple[Port, int]]:
        for port in (p for p in self.ports if p.kind == kind):
            for i in reversed(range(len(port.cuts))):
                if any(run.kind == FlowKind.FLOW for run in self.findings.runs_of(port.cuts[i], port)):
                    yield port, i
                    break

    def _by_engine(self) -> float | None:
        intake, exhaust = next(self._flowed("intake"), None), next(self._flowed("exhaust"), None)
        if intake is None or exhaust is None:
            return None
        port, i = intake
        run = self.findings.runs_of(port.cuts[i], port)[-1]
        try:
            engine = engine_of(self.findings, port, run)
            return None if engine.missing or engine.guessed else exhaust_weight(engine, Side(run, engine.cam))
        except Refused:
            return None

    def _share_wanted(self) -> tuple[float, float | None]:
        low, found = WANTED, next(self._flowed("exhaust"), None)
        if found is None:
            return low, None
        port, i = found
        share = exhaust_share(self.findings, port, port.cuts[i])
        return low, None if share is None else float(share.ratios.cam_weighted or share.ratios.at_peak)
