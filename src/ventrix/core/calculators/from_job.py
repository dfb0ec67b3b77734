"""What a job knows that a calculator may ask for: input names of the contract to SI values."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, carried, poured_volume
from ventrix.core.runs.geometry import geometry_of


def known_inputs(
    findings: Findings, port: Port, cut: Cut, against: Cut | None, asked: Collection[str]
) -> dict[str, Any]:
    """Values for calculators' inputs, by contract name, from the cut looked at and the pinned one.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port, cut, against : Port, Cut, Cut or None
        What is looked at.
    asked : collection of str
        The calculator's inputs.

    Returns
    -------
    dict
        Input name to SI float, or list of floats for lifts and flows. Only what is asked and known.
    """
    job = findings.job
    g = geometry_of(job, port, cut)
    wires = {name: carried(port, cut, name) for name in ("floor_length", "roof_length")}
    found: dict[str, Any] = {
        "valve_diameter": g.valve_diameter,
        "stem_diameter": g.stem_diameter,
        "throat_diameter": g.throat_diameter,
        "seat_width": g.seat_width,
        "seat_angle": g.seat_angle,
        "valves": float(g.valves),
        "volume": g.port_volume,
        "volume_after": poured_volume(cut),
        "volume_before": poured_volume(against) if against is not None else None,
        "length": g.port_length,
        "bore": job.bore,
        "stroke": job.stroke,
        "rod_length": job.rod_length,
        "speed": job.speed_high if "stroke" in asked else None,  # elsewhere it is a meter's, not the engine's
        "cylinders": None if job.engine_cylinders is None else float(job.engine_cylinders),
        "peak_lift": job.cam_lift,
        "lift": job.cam_lift,
        "duration": job.cam_duration,
        **{name: None if wire is None else wire.value for name, wire in wires.items()},
    }
    if cut.runs:
        setup = job.setup(cut.runs[-1].setup_id)
        found |= {
            "test_pressure": setup.test_pressure,
            "measured_at": setup.test_pressure,
            "leak": setup.leak,
            "leak_pressure": setup.leak_pressure,
            "temperature": setup.temperature,
            "pressure": setup.pressure,
            "humidity": setup.humidity,
        }
    runs = findings.runs_of(cut, port)
    if runs and runs[-1].kind == FlowKind.FLOW:
        run = runs[-1]
        found |= {"flow": float(run.flow[run.peak]), "lifts": run.lift.tolist(), "flows": run.flow.tolist()}
    return {name: value for name, value in found.items() if value is not None and name in asked}
