"""The sheet that a shop hands over, read back from the PDF itself: what it says, what it owns up to, true sizes."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pypdfium2 as pdfium
import pytest
from PIL import Image

from tests.core.builders import index_job
from ventrix.cli.main import main
from ventrix.core.formulas.cam import Cam
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.pours import volumes_of
from ventrix.core.judging.verdict import judge
from ventrix.core.metal.walls import spare_at
from ventrix.core.model.cut import Cut, changes_between
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import EngineResult, WallLimit
from ventrix.core.model.kinds import RunBasis
from ventrix.core.quantity.units import parse_quantity, to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job
from ventrix.records.files.run_table import parse_run_table
from ventrix.reports.run_tables import run_tables
from ventrix.reports.sheet.card_pdf import BAR, card_pdf
from ventrix.reports.sheet.contents import USUAL, Choices, Mark, PaperKind, Part, PhotoPart, Shop, usual_parts
from ventrix.reports.sheet.pdf import sheet_pdf
from ventrix.reports.sheet.pen import clean, wrapped
from ventrix.rooms.display_units import METRIC, US, Units
from ventrix.rooms.sheet.card import card_of
from ventrix.rooms.sheet.contents import Asked, sheet_of, usual_pair
from ventrix.rooms.sheet.papers import best_paper, made_paper, paper_for

TODAY = date(2026, 5, 20)


def findings_of(job: Job) -> Findings:
    return Findings(job, benches=demo_benches())


def made(job: Job, units: Units = US, shop: Shop | None = None, **choices: object):  # type: ignore[no-untyped-def]
    findings = findings_of(job)
    pair = usual_pair(findings)
    assert pair is not None
    photos = choices.pop("photos", ())
    return sheet_of(findings, Asked(*pair, Choices(**choices), shop or Shop(), TODAY, photos), units)  # type: ignore[arg-type]


def pages(data: bytes) -> list[str]:
    document = pdfium.PdfDocument(data)
    try:
        found = []
        for page in document:
            text = page.get_textpage()
            found.append(text.get_text_bounded())
            text.close()
        return found
    finally:
        document.close()


def test_the_page_says_what_the_rooms_say() -> None:
    job = replace(demo_job(), customer="R. Maddox")
    sheet = made(job, shop=Shop("Hollin Lane Heads", "flow bench"))
    text = "\n".join(pages(sheet_pdf(sheet)))
    findings = findings_of(job)
    pair = usual_pair(findings)
    assert pair is not None
    verdict = findings.verdict(findings.pair(*pair), US.wording)
    assert verdict is not None
    flat = " ".join(text.split())
    for words in (
        "Corvane 22H head, Intake 1", "Hollin Lane Heads", "for R. Maddox", verdict.headline,
        "28.0 inH2O · 3.504 in sleeve, centered · radius entry", "plate 151.9 of 152.0", "May be compared",
        "throat: ball stone, 0.043 deep", "A reading is not a promise that a wall is safe", "page 1 of",
    ):  # fmt: skip
        assert words in flat, words
    c = findings.pair(*pair).comparison
    assert c is not None
    for i in range(len(c.lift)):
        assert US.flow.text(float(c.before[i])) in flat and US.flow.text(float(c.after[i])) in flat


def test_fonts_are_embedded_text_is_text_and_the_document_says_whose_it_is() -> None:
    data = sheet_pdf(made(demo_job(), shop=Shop("Hollin Lane Heads")))
    document = pdfium.PdfDocument(data)
    meta = document.get_metadata_dict()
    assert meta["Title"] == "Corvane 22H head, Intake 1" and meta["Author"] == "Hollin Lane Heads"
    document.close()
    assert b"/Lang (en)" in data or b"/Lang (EN)" in data.upper()
    assert b"/FontFile2" in data and b"Barlow" in data
    assert b"/BaseFont /Helvetica" not in data.replace(b"\n", b" ") or data.count(b"/FontFile2") >= 3
    assert sheet_pdf(made(demo_job(), shop=Shop("Hollin Lane Heads"))) == data, "the same sheet is the same file"


@pytest.mark.parametrize("paper", ["A4", "Letter"])
@pytest.mark.parametrize("ink", ["colour", "grey"])
def test_papers_and_inks(paper: str, ink: str) -> None:
    parts = tuple(Part)
    data = sheet_pdf(made(demo_job(), paper=paper, ink=ink, parts=parts))
    document = pdfium.PdfDocument(data)
    # ISO 216 A4 is 210 x 297 mm; Letter is 8.5 x 11 in (ANSI/ASME Y14.1).
    wanted = (210 / 25.4 * 72, 297 / 25.4 * 72) if paper == "A4" else (612, 792)
    assert 1 <= len(document) <= 4
    for page in document:
        assert page.get_size() == pytest.approx(wanted, abs=0.1)
    if ink == "grey":
        pixels = np.asarray(document[0].render(scale=1).to_pil().convert("RGB")).astype(int)
        assert (pixels.max(axis=2) - pixels.min(axis=2)).max() <= 2, "nothing is told by colour"
    document.close()


def test_what_is_marked_is_explained_and_owned_up_to() -> None:
    job = demo_job()
    port = job.ports[0]
    other = next(s for s in job.setups if s.direction == "intake")
    low = replace(other, id="low", test_pressure=to_si(25, "inH2O"))
    run = port.cuts[0].runs[0]
    struck = tuple(replace(r, struck="hand slipped") if i == 3 else r for i, r in enumerate(run.readings))
    first = replace(port.cuts[0], runs=(replace(run, setup_id="low", readings=struck),))
    ports = (replace(port, cuts=(first, *port.cuts[1:])), *job.ports[1:])
    sheet = made(replace(job, setups=(*job.setups, low), ports=ports))
    assert Mark.CONVERTED in sheet.marks and any(o.title.startswith("converted") for o in sheet.owned)
    text = " ".join("\n".join(pages(sheet_pdf(sheet))).split())
    assert "† converted from another test pressure" in text
    assert "1 reading struck (hand slipped)" in text
    assert any(o.title == "struck: 1" for o in sheet.owned)
    assert "25.0 inH2O before, 28.0 inH2O after" in text


def test_what_was_not_measured_is_said() -> None:
    job = demo_job()
    bare = tuple(
        replace(p, cuts=tuple(replace(c, pours=(), stations=(), walls=()) for c in p.cuts)) for p in job.ports[:1]
    )
    sheet = made(replace(job, ports=bare))
    missing = {f.caption for f in sheet.figures if f.missing}
    assert {"Volume", "Exhaust"} <= missing
    text = " ".join("\n".join(pages(sheet_pdf(sheet))).split())
    assert "Not measured: volume" in text and "No wall of Intake 1 was read." in text


def test_conditions_that_differ_are_not_handed_over_as_a_gain() -> None:
    job = demo_job()
    port, other = job.ports[0], next(s for s in job.setups if s.direction == "intake")
    bare = replace(other, id="bare-too", entry="bare")
    first = replace(port.cuts[0], runs=tuple(replace(r, setup_id="bare-too") for r in port.cuts[0].runs))
    ports = (replace(port, cuts=(first, *port.cuts[1:])), *job.ports[1:])
    sheet = made(replace(job, setups=(*job.setups, bare), ports=ports))
    assert sheet.not_ready == "the pair is not to be compared"
    assert all(x.change == "" for x in sheet.large)
    text = " ".join("\n".join(pages(sheet_pdf(sheet))).split())
    assert "Not to be compared." in text and Mark.INCOMPARABLE.words in text


def test_an_exhaust_without_an_after_is_said() -> None:
    job = demo_job()
    exhaust = replace(job.ports[1], cuts=job.ports[1].cuts[:1])
    sheet = made(replace(job, ports=(job.ports[0], exhaust)))
    assert sheet.not_ready == "exhaust not re-flowed"
    assert "Flowed once" in " ".join(pages(sheet_pdf(sheet)))


def test_an_uncalibrated_bench_is_percent_and_never_cfm() -> None:
    sheet = made(index_job())
    assert sheet.pairs[0].unit == "index"
    assert all("%" in r.gain or r.gain == "–" for r in sheet.pairs[0].lifts)
    assert "%" in sheet.large[-1].change
    text = " ".join(pages(sheet_pdf(sheet)))
    assert "percent" in text and not re.search(r"\d CFM", text)


def test_the_exported_tables_alone_say_the_same() -> None:
    """Run tables out of the program, read back by themselves, judged with the cam and scatter that they name."""
    findings = findings_of(demo_job())
    pair = usual_pair(findings)
    assert pair is not None
    shown = findings.pair(*pair)
    verdict = findings.verdict(shown)
    assert shown.comparison is not None and verdict is not None
    tables = {name: parse_run_table(text.encode(), name) for name, text in run_tables(findings, "in").items()}
    sides = []
    for cut in (shown.before, shown.after):
        mine = [
            t for t in tables.values() if t.extra["port"] == "Intake 1" and t.extra["cut"].startswith(f"{cut.number} ")
        ]
        sides.append([t.reduce(shown.comparison.known) for t in mine])
    first = next(t for t in tables.values() if t.extra["port"] == "Intake 1")
    cam = Cam(parse_quantity(first.extra["cam_lift"], "mm"), parse_quantity(first.extra["cam_duration"], "deg"))
    again = compare_runs(
        sides[0], sides[1], changes_between(pair[0], pair[1], pair[2]), cam, shown.comparison.known
    )  # fmt: skip
    told = judge(again, demo_job().worthwhile_gain, volumes_of(pair[1], pair[2]))
    assert told.headline == verdict.headline
    assert told.weighted == pytest.approx(verdict.weighted, rel=1e-6)
    assert again.results == shown.comparison.results


def test_names_from_anywhere_do_no_harm() -> None:
    job = demo_job()
    nasty = "Ünïcode \u202e\u0007\ud83d\ude00 <b>&amp; =1+1 %s {} \\ (paren) " + "long" * 90
    nasty = nasty.encode("utf-16", "surrogatepass").decode("utf-16")
    port = replace(job.ports[0], name=nasty)
    sheet = made(replace(job, title=nasty, customer=nasty, note=nasty, ports=(port, *job.ports[1:])), parts=tuple(Part))
    assert len(pages(sheet_pdf(sheet))) <= 4
    assert clean("a\x00b\ud800c") == "a b c" and len(clean("x" * 9999)) == 601
    assert all(len(line) <= 400 for line in wrapped("w" * 500, "text", 9, 200))
    card_pdf([card_of(findings_of(replace(job, title=nasty)), port, US, TODAY)])


def test_photos_and_logos_that_cannot_be_read_say_so() -> None:
    out = io.BytesIO()
    Image.new("RGB", (300, 200), "navy").save(out, "PNG")
    good, bad = PhotoPart(out.getvalue(), "before"), PhotoPart(b"\x89PNG\r\n\x1a\nnonsense", "after")
    sheet = made(demo_job(), shop=Shop("S", logo=b"no picture"), parts=(*USUAL, Part.PHOTOS), photos=(good, bad))
    text = " ".join(pages(sheet_pdf(sheet)))
    assert "this picture cannot be read" in text and "before" in text


def test_a_large_job_stays_within_four_pages() -> None:
    job = demo_job()
    port = job.ports[0]
    many = tuple(replace(port.cuts[1], id=f"m{n}", number=n + 4, name=f"touch {n}", runs=()) for n in range(40))
    last = replace(port.cuts[3], id="last", number=60, name="last")
    grown = replace(port, cuts=(*port.cuts[:3], *many, replace(last, runs=port.cuts[3].runs)))
    sheet = made(replace(job, ports=(grown, *job.ports[1:])), parts=USUAL)
    assert "operations more" in sheet.done[-1]
    assert len(pages(sheet_pdf(sheet))) <= 4


# -- the grinder card


def longest(line: np.ndarray) -> int:
    """The longest stretch of ink."""
    best = here = 0
    for dark in line:
        here = here + 1 if dark else 0
        best = max(best, here)
    return best


def test_the_bars_of_the_card_are_a_hundred_millimetres() -> None:
    """Measured on the drawn page: 100 mm is 100/25.4 in, whatever the code thinks of it."""
    findings = findings_of(demo_job())
    data = card_pdf([card_of(findings, demo_job().ports[0], US, TODAY)])
    document = pdfium.PdfDocument(data)
    dots = 200
    page = np.asarray(document[0].render(scale=dots / 72).to_pil().convert("L")) < 110
    document.close()
    high, wide = page.shape
    wanted = 100 / 25.4 * dots
    assert abs(max(longest(row) for row in page[int(high * 0.85) :]) - wanted) <= 5  # a tick is 3 dots wide
    assert abs(max(longest(column) for column in page[:, int(wide * 0.85) :].T) - wanted) <= 5  # a tick is 3 dots wide
    assert pytest.approx(100 / 25.4 * 72) == BAR
    text = " ".join(pages(data))
    assert text.count("100 mm; measured:") == 2


def test_the_card_stops_where_the_walls_say() -> None:
    job = replace(demo_job(), wall_limits=(WallLimit(id="w", place="", thickness=to_si(0.100, "in")),))
    findings = findings_of(job)
    port = job.ports[0]
    card = card_of(findings, port, US, TODAY)
    by_place = {s.place: s for s in card.stops}
    # Read 0.210 in with a gauge's own doubt of 0.005, limit 0.100, and a quarter more for a depth by eye (common
    # practice, no source): (0.210 - 0.005 - 0.100) / 1.25 = 0.084 in.
    assert by_place["roof"].take == "0.084" and by_place["roof"].left == "0.205"
    assert by_place["throat"].take == "read first" and by_place["throat"].first
    assert spare_at(job, port, port.cuts[-1], "throat") is None
    thin = replace(job, wall_limits=(WallLimit(id="w", place="roof", thickness=to_si(0.206, "in")),))
    found = card_of(findings_of(thin), port, US, TODAY)
    assert next(s for s in found.stops if s.place == "roof").take == "nothing: stop"
    text = " ".join(pages(card_pdf([card])))
    assert "No depth here is a promise" in text and "Eye protection" in text


def test_go_and_no_go_are_the_developed_port_and_never_past_a_wall() -> None:
    job = demo_job()
    card = card_of(findings_of(job), job.ports[0], METRIC, TODAY)
    pinch = next(g for g in card.gauges if g.what == "pinch, width")
    assert (pinch.go, pinch.no_go) == ("25.80", "26.05")  # 0.25 mm: common practice, no source
    tight = replace(job, wall_limits=(WallLimit(id="w", place="pinch", thickness=to_si(0.1288, "in")),))
    pinch = next(g for g in card_of(findings_of(tight), job.ports[0], METRIC, TODAY).gauges if g.what == "pinch, width")
    assert float(pinch.no_go) < 25.9
    boss = next(g for g in card.gauges if g.what == "guide boss, width")
    assert float(boss.no_go) < float(boss.go), "what is left standing gets thinner"


# -- the command


def run(*arguments: str) -> int:
    with pytest.raises(SystemExit) as left:
        main(list(arguments))
    return int(left.value.code or 0)


def test_the_command_writes_sheets_and_cards(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    job = tmp_path / "job.json"
    write_job(demo_job(), job, demo_benches())
    out = tmp_path / "out.pdf"
    assert run("sheet", str(job), str(out), "--paper", "Letter", "--whole") == 0
    text = " ".join(pages(out.read_bytes()))
    assert "All ports" in text and "not flowed" in text
    assert run("sheet", str(job), str(out), "--port", "exhaust 1", "--cut", "1", "--against", "0") == 0
    assert "Exhaust 1" in pages(out.read_bytes())[0]
    assert run("sheet", str(job), str(out), "--card", "all") == 0
    assert len(pages(out.read_bytes())) == 4
    capsys.readouterr()
    for arguments, words in (
        (("--port", "nobody"), "not one of"),
        (("--cut", "9"), "no 9"),
        (("--paper", "A3"), "A4"),
        (("--card", "Intake 9"), "not one of"),
        (("--ink", "red"), "grey"),
    ):
        assert run("sheet", str(job), str(out), *arguments) == 2
        assert words in capsys.readouterr().err
    assert run("sheet", str(job), str(tmp_path / "no folder" / "out.pdf")) == 2


def test_the_engine_part_holds_the_card_and_results_as_stated() -> None:
    result = EngineResult(id="r", kind="dyno", speeds=(to_si(6000, "rpm"),), powers=(to_si(118, "kW"),),
                          correction="none", also_changed="camshaft")  # fmt: skip
    sheet = made(replace(demo_job(), engine_results=(result,)), parts=(*USUAL, Part.ENGINE))
    words = " ".join(line.words for line in sheet.sections[Part.ENGINE])
    assert "Cut 0 to 3: Z 0.6 at " in words
    assert " → " in words, "before and after"
    assert "On the engine" in " ".join(pages(sheet_pdf(sheet)))
    assert "corrected none" in words
    assert "Ceiling of this flow" in words
    bare = made(replace(demo_job(), bore=None), parts=(*USUAL, Part.ENGINE))
    assert bare.sections[Part.ENGINE][0].words.startswith("No rev-limit card: volumetric efficiency needs bore")


def _unflowed(job: Job) -> Job:
    """The same head with every run taken out: a head done without a bench."""
    ports = tuple(replace(p, cuts=tuple(replace(c, runs=(), trials=()) for c in p.cuts)) for p in job.ports)
    return replace(job, ports=ports)


def _bare(job: Job) -> Job:
    """A job with nothing but its name and one untouched port."""
    port = replace(job.ports[0], cuts=(Cut(id="c0", number=0),), faults=(), slips=(), valve_id=None)
    return Job(id="bare", title="Nothing yet", ports=(port,))


@pytest.mark.parametrize(
    ("make", "best", "fills"),
    [
        (lambda j: j, PaperKind.PAIR, tuple(PaperKind)),
        (_unflowed, PaperKind.WORK, (PaperKind.WORK, PaperKind.JUDGED)),
        (_bare, PaperKind.JUDGED, (PaperKind.JUDGED,)),
    ],
)
def test_every_job_fills_a_paper_and_the_best_is_chosen(
    make: Callable[[Job], Job], best: PaperKind, fills: tuple[PaperKind, ...]
) -> None:
    findings = findings_of(make(demo_job()))
    assert best_paper(findings).kind is best
    assert tuple(k for k in PaperKind if paper_for(findings, k) is not None) == fills


def _words(job: Job, kind: PaperKind) -> str:
    findings = findings_of(job)
    paper = paper_for(findings, kind)
    assert paper is not None
    choices = Choices(usual_parts(kind))
    return " ".join("\n".join(pages(sheet_pdf(made_paper(findings, paper, choices, Shop(), TODAY, US)))).split())


def test_one_state_is_told_without_a_gain() -> None:
    text = _words(demo_job(), PaperKind.BASELINE)
    for words in ("As it flows", "What limits it", "What it suits", "Displacement", "Poured volume", "exhaust"):
        assert words in text, words
    assert "gain" not in text and "proven" not in text and "guide to a fin to cut" not in text


def test_work_without_a_bench_is_told_by_metal_and_hours() -> None:
    job = _unflowed(demo_job())
    text = _words(job, PaperKind.WORK)
    used = sum(o.duration or 0.0 for p in job.ports for c in p.cuts for o in c.operations) / 3600
    for words in (
        "Work done", "Intake 1: throat: ball stone, 0.043 deep", "0.163 to 0.116 in", "Not measured: flow", "open",
        f"used, together {used:.1f} h",
    ):  # fmt: skip
        assert words in text, words
    assert "CFM" not in text


def test_a_job_with_a_name_alone_prints_one_honest_page() -> None:
    job = _bare(demo_job())
    findings = findings_of(job)
    made_of = made_paper(findings, best_paper(findings), Choices(usual_parts(PaperKind.JUDGED)), Shop(), TODAY, US)
    text = pages(sheet_pdf(made_of))
    assert len(text) == 1 and "Nothing yet" in text[0] and "not known" in text[0]
    assert {o.title for o in made_of.owned} >= {"whom to ask"}


def test_flows_of_another_house_stand_as_the_house_says() -> None:
    job = demo_job()
    port = job.ports[0]
    cut = port.cuts[0]
    run = replace(cut.runs[0], basis=RunBasis.PAPER, house="Ravel and Sons")
    paper_port = replace(port, cuts=(replace(cut, runs=(run,)),))
    findings = findings_of(replace(job, ports=(paper_port,)))
    paper = paper_for(findings, PaperKind.BASELINE)
    assert paper is not None
    sheet = made_paper(findings, paper, Choices(usual_parts(paper.kind)), Shop(), TODAY, US)
    assert sheet.owned[0].title == "as the house says" and "Ravel and Sons" in sheet.owned[0].says
    assert Mark.CLAIMED in sheet.marks, "and at every figure"
