"""The command `ventrix sheet`: a job document to a PDF."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from pathlib import Path

from ventrix.cli.app import port_of_file
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.records.bad_input import InputError
from ventrix.records.files.job_document import read_document
from ventrix.records.files.whole_file import write_whole
from ventrix.reports.sheet.contents import Choices, PaperKind, Part, Shop, usual_parts
from ventrix.reports.sheet.pen import PAPERS
from ventrix.rooms.display_units import SYSTEMS
from ventrix.rooms.sheet.contents import usual_pair
from ventrix.rooms.sheet.papers import LACKS, Paper, best_paper, made_paper, paper_for
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Wanted:
    """What the command line asked for."""

    port: str | None = None
    cut: int | None = None
    against: int | None = None
    paper: str = "A4"
    ink: str = "colour"
    units: str = "us"
    whole: bool = False
    card: str | None = None
    paper_kind: str | None = None


def write_sheet(path: Path, out: Path, wanted: Wanted) -> str:
    """Write the PDF; what was written, in a line. InputError naming what is wrong."""
    from ventrix.reports.sheet.card_pdf import card_pdf  # late: the PDF library costs a fifth of a second
    from ventrix.reports.sheet.pdf import sheet_pdf
    from ventrix.rooms.sheet.card import card_of

    for field, value, allowed in (
        ("--paper", wanted.paper, tuple(PAPERS)),
        ("--ink", wanted.ink, ("colour", "grey")),
        ("--units", wanted.units, tuple(SYSTEMS)),
        ("--paper-kind", wanted.paper_kind, tuple(PaperKind)),
    ):
        if value is not None and value not in allowed:
            raise InputError(tr("'{}' is not one of {}", value[:20], ", ".join(allowed)), field=field)
    job, benches = read_document(path)
    findings, units = Findings(job, benches=benches), SYSTEMS[wanted.units]
    if wanted.card is not None:
        ports = (
            [p for p in job.ports if p.cuts] if wanted.card == "all" else [_port(findings, wanted.card, path, "--card")]
        )
        cards = [card_of(findings, p, units, date.today(), wanted.paper, wanted.ink) for p in ports]
        write_whole(out, card_pdf(cards))
        return tr("{}: {} grinder card{}", out, len(cards), "s" * (len(cards) != 1))
    paper = _paper(findings, wanted, path)
    parts = (*usual_parts(paper.kind), *((Part.PORTS,) if wanted.whole else ()))
    choices = Choices(tuple(dict.fromkeys(parts)), wanted.paper, wanted.ink)
    made = made_paper(findings, paper, choices, Shop(), date.today(), units)
    if paper.kind is PaperKind.PAIR and not made.pairs:
        raise InputError(made.not_ready, file=path.name)
    write_whole(out, sheet_pdf(made))
    note = tr("; not yet to hand over: {}", made.not_ready) if made.not_ready else ""
    return f"{out}: {_about(paper)}{note}"


def _about(paper: Paper) -> str:
    if paper.port is None or paper.before is None or paper.after is None:
        return paper.kind.words
    if paper.before is paper.after:
        return tr("{}, cut {}, {}", paper.port.name, paper.after.number, paper.kind.words)
    return tr("{}, cut {} to {}", paper.port.name, paper.before.number, paper.after.number)


def _paper(findings: Findings, wanted: Wanted, path: Path) -> Paper:
    """The paper that was asked for; without a kind the best that the job can fill."""
    port = _port(findings, wanted.port, path, "--port") if wanted.port is not None else None
    kind = PaperKind(wanted.paper_kind) if wanted.paper_kind is not None else None
    pairs = wanted.cut is not None or wanted.against is not None
    if kind is PaperKind.PAIR or (kind is None and pairs):
        return Paper(PaperKind.PAIR, *_pair(findings, wanted, path))
    if kind is None:
        return best_paper(findings, port)
    found = paper_for(findings, kind, port)
    if found is None:
        raise InputError(tr("no paper '{}' of it yet: {}", kind, LACKS[kind]), file=path.name)
    if wanted.cut is not None and found.port is not None:
        cut = _cut(found.port, wanted.cut, None, path, "--cut")
        before = found.before if found.kind is PaperKind.WORK else cut
        return Paper(found.kind, found.port, before, cut)
    return found


def _port(findings: Findings, name: str, path: Path, field: str) -> Port:
    return port_of_file((p for p in findings.job.ports if p.cuts), name, path, field)


def _pair(findings: Findings, wanted: Wanted, path: Path) -> tuple[Port, Cut, Cut]:
    port = _port(findings, wanted.port, path, "--port") if wanted.port is not None else None
    usual = usual_pair(findings, port)
    if usual is None and (port is None or wanted.cut is None or wanted.against is None):
        raise InputError(tr("no port has two flowed cuts: there is no before and after"), file=path.name)
    chosen = port if port is not None else usual[0] if usual is not None else findings.job.ports[0]
    after = _cut(chosen, wanted.cut, usual[2] if usual is not None else None, path, "--cut")
    before = _cut(chosen, wanted.against, usual[1] if usual is not None else None, path, "--against")
    return chosen, before, after


def _cut(port: Port, number: int | None, usual: Cut | None, path: Path, field: str) -> Cut:
    if number is None and usual is not None:
        return usual
    found = next((c for c in port.cuts if c.number == number), None)
    if found is None:
        numbers = ", ".join(str(c.number) for c in port.cuts)
        raise InputError(tr("{} has cuts {}, and no {}", port.name, numbers, number), file=path.name, field=field)
    return found
