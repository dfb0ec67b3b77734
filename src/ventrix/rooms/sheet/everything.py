"""Everything of a job as files: document, run tables, workbook, sheet, cards, photos."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from pathlib import Path

from ventrix.core.judging.findings import Findings
from ventrix.records.files.job_document import dumps_job
from ventrix.records.files.job_folder import DOCUMENT, PHOTOS, photos_of
from ventrix.records.files.traverse_table import write_traverses
from ventrix.records.files.whole_file import safe_name
from ventrix.reports.run_tables import run_tables
from ventrix.reports.sheet.card_pdf import card_pdf
from ventrix.reports.sheet.contents import Choices, PaperKind, Shop, usual_parts
from ventrix.reports.sheet.pdf import sheet_pdf
from ventrix.reports.workbook import job_workbook
from ventrix.rooms.display_units import Units
from ventrix.rooms.sheet.card import card_of
from ventrix.rooms.sheet.papers import best_paper, made_paper
from ventrix.words import tr


def everything(
    findings: Findings, units: Units, choices: Choices, shop: Shop, today: date, photo_folder: Path
) -> tuple[dict[str, bytes], list[str]]:
    """File name to bytes, and the photos that cannot be read."""
    job = findings.job
    photos, missing = photos_of(job, photo_folder)
    files = {DOCUMENT: dumps_job(job, findings.benches).encode()}
    tables = run_tables(findings, units.lift.unit)
    files |= {f"runs/{name}": text.encode() for name, text in tables.items()}
    for port in job.ports:
        for cut in port.cuts:
            if cut.traverses:
                files[f"air/{safe_name(tr('{} cut {}', port.name, cut.number))}.csv"] = write_traverses(cut).encode()
    files["job.xlsx"] = job_workbook(findings)
    paper = best_paper(findings)
    if paper.kind is not PaperKind.PAIR:  # the choices are those of a pair
        choices = replace(choices, parts=usual_parts(paper.kind))
    files["sheet.pdf"] = sheet_pdf(made_paper(findings, paper, choices, shop, today, units))
    cards = [card_of(findings, p, units, today, choices.paper, choices.ink) for p in job.ports if p.cuts]
    if cards:
        files["cards.pdf"] = card_pdf(cards)
    return files | {f"{PHOTOS}/{name}": data for name, data in photos.items()}, missing
