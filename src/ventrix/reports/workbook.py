"""A job as a spreadsheet: what is said of every pair, and a sheet for every run, numbers as numbers."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from io import BytesIO
from typing import Any, Final

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.units import from_si
from ventrix.records.files.text_cells import LONGEST_CELL
from ventrix.reports.results import comparison_document, conditions_document, job_pairs, reduced_document
from ventrix.words import tr

_FORMULA: Final = ("=", "+", "-", "@", "\t", "\r")
_NOT_IN_TITLES: Final = re.compile(r"[\[\]:*?/\\\x00-\x1f]")
_BROKEN: Final = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ud800-\udfff\ufffe\uffff]")
Cell = str | float | int | bool | None


def job_workbook(findings: Findings) -> bytes:
    """The workbook of a job: "Verdicts", "Ports", and a sheet for each run.

    Text that begins like a formula is kept as text; nothing in it is worked out by the program that opens it.
    """
    from openpyxl import Workbook  # late: it costs a quarter of a second

    book = Workbook(write_only=True)
    taken: set[str] = set()
    _add(book, taken, tr("Verdicts"), _verdicts(findings))
    _add(book, taken, tr("Ports"), _ports(findings))
    for port in findings.job.ports:
        for cut in port.cuts:
            for number, run in enumerate(cut.runs, 1):
                name = f"{port.name} {cut.number}" + (tr(" run {}", number) if len(cut.runs) > 1 else "")
                _add(book, taken, name, _run(findings, port, cut, run))
    out = BytesIO()
    book.save(out)
    return out.getvalue()


def _add(book: Any, taken: set[str], name: str, rows: Iterable[Sequence[Cell]]) -> None:
    sheet = book.create_sheet(_title(name, taken))
    for row in rows:
        sheet.append([_cell(sheet, value) for value in row])


def _title(name: str, taken: set[str]) -> str:
    """A sheet's name as spreadsheets take it: 31 characters, none of theirs, each once."""
    plain = _NOT_IN_TITLES.sub(" ", _BROKEN.sub(" ", name)).strip("' ") or "run"
    found, n = plain[:31], 1
    while found.lower() in taken:
        n += 1
        found = f"{plain[: 30 - len(str(n))]} {n}"
    taken.add(found.lower())
    return found


def _cell(sheet: Any, value: Cell) -> Any:
    if not isinstance(value, str):
        return value
    from openpyxl.cell import WriteOnlyCell

    text = _BROKEN.sub(" ", value)[:LONGEST_CELL]
    cell = WriteOnlyCell(sheet, text)
    if text.startswith(_FORMULA):
        cell.data_type = "s"  # as text, whatever it begins with
        cell.quotePrefix = True
    return cell


def _verdicts(findings: Findings) -> Iterable[Sequence[Cell]]:
    yield ("port", "before", "after", "comparable", "result", "weighted difference, CFM", "U(95 %), CFM",
           "weighted difference, index", "U(95 %), index", "verdict")  # fmt: skip
    for pair in job_pairs(findings):
        verdict = findings.verdict(pair)
        if pair.comparison is None or verdict is None:
            yield (
                pair.port.name,
                pair.before.number,
                pair.after.number,
                "unknown",
                None,
                None,
                None,
                None,
                None,
                pair.missing,
            )
            continue
        document = comparison_document(pair.comparison, verdict)
        summary = document["summary"]
        yield (
            pair.port.name,
            pair.before.number,
            pair.after.number,
            document["comparable"],
            str(summary["result"]),
            summary.get("weighted_difference_cfm"),
            summary.get("expanded_uncertainty_cfm"),
            summary.get("weighted_difference_index"),
            summary.get("expanded_uncertainty_index"),
            document["verdict"],
        )


def _ports(findings: Findings) -> Iterable[Sequence[Cell]]:
    yield ("port", "kind", "cut", "name", "kinds", "volume, cc", "throat, mm", "runs", "minutes", "note")
    for port in findings.job.ports:
        for cut in port.cuts:
            poured = [p.volume for p in cut.pours]
            minutes = [op.duration for op in cut.operations if op.duration is not None]
            yield (
                port.name,
                port.kind,
                cut.number,
                cut.name,
                ", ".join(cut.kinds),
                from_si(sum(poured) / len(poured), "cc") if poured else None,
                from_si(cut.throat_diameter, "mm") if cut.throat_diameter is not None else None,
                len(cut.runs),
                from_si(sum(minutes), "min") if minutes else None,
                cut.note,
            )


def _run(findings: Findings, port: Port, cut: Cut, run: FlowRun) -> Iterable[Sequence[Cell]]:
    yield ("port", port.name)
    yield ("cut", cut.number, cut.name)
    yield ("date", run.date)
    if run.claimed:
        yield ("claimed by", run.claimed)
    for key, value in conditions_document(findings.job.setup(run.setup_id)).items():
        if value is not None:
            yield (key, value)
    yield ()
    yield ("as read",)
    yield ("lift, mm", "lift, in", "reading, CFM", "percent", "range, CFM", "element, mmH2O", "port, mmH2O",
           "pressure, inH2O", "swirl, rpm", "struck")  # fmt: skip
    for r in run.readings:
        yield (
            from_si(r.lift, "mm"),
            from_si(r.lift, "in"),
            _in(r.flow, "cfm"),
            _in(r.percent, "%"),
            _in(r.full_scale, "cfm"),
            _in(r.element_column, "mmH2O"),
            _in(r.port_column, "mmH2O"),
            _in(r.measured_pressure, "inH2O"),
            _in(r.swirl, "rpm"),
            r.struck,
        )
    reduced = next(
        (x for x in (*findings.runs_of(cut, port), *findings.claims_of(cut, port)) if x.run_id == run.id), None
    )
    if reduced is None:
        yield ()
        yield ("these readings make no sense together: see Compare",)
        return
    document = reduced_document(reduced)
    yield ()
    yield ("corrected",)
    keys = list(document["points"][0])
    yield tuple(k.replace("_", " ") for k in keys)
    for point in document["points"]:
        yield tuple(point[k] for k in keys)
    for flag in document["flags"]:
        yield ("note", flag)


def _in(value: float | None, unit: str) -> float | None:
    return None if value is None else from_si(value, unit)
