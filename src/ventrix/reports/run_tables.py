"""Every run of a job as a run table: what the verdicts rest on, in an open format that says all that they need."""

from __future__ import annotations

from collections.abc import Iterator

from ventrix.core.formulas.cam import Cam
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.geometry import geometry_of
from ventrix.records.files.run_table import RunTable
from ventrix.records.files.run_table_out import write_run_table
from ventrix.records.files.whole_file import safe_name
from ventrix.words import tr


def run_tables(findings: Findings, lift_unit: str) -> dict[str, str]:
    """File name to text, for every run of every cut and trial that holds readings."""
    found: dict[str, str] = {}
    for port, cut, run, number in _runs(findings):
        name = safe_name(tr("{} cut {} run {}", port.name, cut.number, number))
        while f"{name}.csv" in found:
            name += "-"
        found[f"{name}.csv"] = write_run_table(table_of(findings, port, cut, run, lift_unit))
    return found


def table_of(findings: Findings, port: Port, cut: Cut, run: FlowRun, lift_unit: str) -> RunTable:
    """A run as a table: its port's sizes, its cut's name, and the cam that weighs it, besides its conditions."""
    job = findings.job
    mount = job.mount(run.mount_id)
    extra = {"job": job.title, "port": port.name, "cut": f"{cut.number} {cut.name}".strip()}
    if job.practice:
        extra["practice"] = tr("a head that does not exist: nobody measured this")
    if run.claimed:
        extra["claimed"] = run.claimed
    cam = findings.cam_of(port.kind)
    if isinstance(cam, Cam):
        extra["cam_lift"] = f"{from_si(cam.peak_lift, 'mm'):.12g} mm"
        extra["cam_duration"] = f"{from_si(cam.duration, 'deg'):.12g} deg"
    known = findings.known(job.setup(run.setup_id).bench)
    extra["repeat_scatter"] = percent_text(known.scatter.repeat, 3)
    extra["mount_scatter"] = percent_text(known.scatter.mount, 3)
    return RunTable(
        run=run,
        setup=job.setup(run.setup_id),
        geometry=geometry_of(job, port, cut),
        mount=str(mount.number) if mount is not None else None,
        lift_unit=lift_unit,
        extra=extra,
    )


def _runs(findings: Findings) -> Iterator[tuple[Port, Cut, FlowRun, int]]:
    for port in findings.job.ports:
        for cut in port.cuts:
            runs = [*cut.runs, *(r for t in cut.trials for r in t.runs)]
            for number, run in enumerate((r for r in runs if r.readings), 1):
                yield port, cut, run, number
