"""Probed fields of a cut: at one pressure, and along the port."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ventrix.core.air.sections import size_is_guessed, size_of
from ventrix.core.air.traverse import Field, air_of, field_of, newest_of
from ventrix.core.formulas import bench_flow
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.traverse import Traverse
from ventrix.core.quantity.refused import Refused


def field_at(
    findings: Findings, port: Port, cut: Cut, traverse: Traverse, wanted_pressure: float | None
) -> tuple[Field | None, bool]:
    """A traverse's field, brought to a test pressure where it was taken at another; and whether it was converted."""
    here = unroll(port, cut, findings.job.valve_of(port, cut))
    found = field_of(traverse, *size_of(here, traverse.station), air_of(findings.job, traverse))
    if found is not None and size_is_guessed(here, traverse.station):
        found = replace(found, guessed=True)
    own = pressure_of(findings, traverse)
    if found is None or own is None or wanted_pressure is None or abs(own / wanted_pressure - 1) < 1e-3:
        return found, False
    factor = float(bench_flow.conversion_ratio(own, wanted_pressure))
    doubt = float(np.hypot(found.common, bench_flow.conversion_uncertainty(own, wanted_pressure)))
    return replace(found, speed=found.speed * factor, common=doubt), True


def fields_along(findings: Findings, port: Port, cut: Cut) -> list[tuple[Traverse, Field | None]]:
    """The newest traverse of every station probed at a cut, with its field as it was taken."""
    found = []
    for station in dict.fromkeys(t.station for t in cut.traverses if t.kind == TraverseKind.PITOT):
        traverse = newest_of(cut, station)
        if traverse is not None:
            try:
                found.append((traverse, field_at(findings, port, cut, traverse, None)[0]))
            except Refused:  # said where that station is looked at
                found.append((traverse, None))
    return found


def pressure_of(findings: Findings, traverse: Traverse) -> float | None:
    """The test pressure a traverse was taken at [Pa]."""
    return findings.job.setup(traverse.setup_id).test_pressure if traverse.setup_id is not None else None
