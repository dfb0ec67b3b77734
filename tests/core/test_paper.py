"""Runs read off another shop's sheet: judged as the house says, or not judged; never mixed with one's own bench."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest

from tests.cli.test_cli import ask, refused
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import RunBasis
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import to_si
from ventrix.records.files.job_document import write_job
from ventrix.records.files.run_table import read_run_table
from ventrix.reports.run_tables import run_tables

LIFTS = (0.1, 0.2, 0.3, 0.4, 0.5, 0.6)
FLOWS = (65.0, 128.0, 186.0, 224.0, 243.0, 251.0)
PAPER, BENCH = RunBasis.PAPER, RunBasis.BENCH
ALL_TOLD = {"bore": 0.1016, "entry": "radius", "valve": "job", "plug": "in", "centred": True}


def run(name: str, gain: float, basis: RunBasis, house: str) -> FlowRun:
    readings = tuple(
        Reading(id=f"{name}{i}", lift=x * 0.0254, flow=to_si(q * gain, "cfm"))
        for i, (x, q) in enumerate(zip(LIFTS, FLOWS, strict=True))
    )
    return FlowRun(id=name, setup_id=f"s-{name}", basis=basis, house=house, readings=readings, date="2026-11-01")


def pair_of(
    before: tuple[RunBasis, str], after: tuple[RunBasis, str], tick: bool = False, **told: object
) -> tuple[Findings, Pair, Verdict]:
    """Two cuts 4 % apart, the conditions of both as told."""
    runs = run("a", 1.0, *before), run("b", 1.04, *after)
    setups = tuple(
        SetUp(id=f"s-{r.id}", direction="intake", bench="theirs", test_pressure=to_si(28, "inH2O"), **told)  # type: ignore[arg-type]
        for r in runs
    )
    cuts = tuple(Cut(id=f"c{i}", number=i, name=f"cut {i}", runs=(r,)) for i, r in enumerate(runs))
    port = Port(id="p", name="Intake 1", kind="intake", cuts=cuts)
    job = Job(id="j", title="Sheets", ports=(port,), setups=setups, same_house=(("a", "b"),) if tick else ())
    findings = Findings(job)
    pair = findings.pair(port, *cuts)
    verdict = findings.verdict(pair)
    assert verdict is not None and pair.comparison is not None
    return findings, pair, verdict


def test_one_house_the_same_way_is_judged_as_the_house_says() -> None:
    _, pair, verdict = pair_of((PAPER, "Weir"), (PAPER, "Weir"), tick=True)
    assert pair.comparison is not None and pair.comparison.allowed
    assert pair.comparison.house == "Weir"
    assert verdict.headline.endswith(", as the house says.")
    assert any("1.5 % between its days" in note for note in pair.comparison.notes)
    assert verdict.expanded is not None and verdict.weighted is not None
    share = verdict.expanded / pair.comparison.weighted_before
    assert share > 1.96 * 0.015, "no narrower than the doubt between two days of a bench nobody here knows"


def test_without_the_tick_nothing_is_said_and_the_gaps_are_named() -> None:
    _, pair, verdict = pair_of((PAPER, "Weir"), (PAPER, "Weir"), bore=0.1016, entry="radius", centred=True)
    assert pair.comparison is not None
    assert pair.comparison.comparability.level == "unknown"
    assert verdict.headline == "Can't compare yet: 2 conditions missing."
    assert "Valve fitted was not recorded" in verdict.sentence and "Plug was not recorded" in verdict.sentence
    _, full, _ = pair_of((PAPER, "Weir"), (PAPER, "Weir"), **ALL_TOLD)
    assert full.comparison is not None
    assert [d.key for d in full.comparison.comparability.differences] == ["house"]


@pytest.mark.parametrize("other", [(BENCH, ""), (PAPER, "Lock")])
def test_against_ones_own_bench_or_another_house_it_stays_a_claim(other: tuple[RunBasis, str]) -> None:
    _, pair, verdict = pair_of((PAPER, "Weir"), other, tick=True, **ALL_TOLD)
    assert pair.comparison is not None
    assert pair.comparison.comparability.level == "no"
    assert pair.comparison.claimed
    assert not pair.comparison.allowed
    assert verdict.headline.startswith("Can't compare")


def test_run_tables_carry_whose_paper_it_is(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    findings, _, _ = pair_of((PAPER, "Weir"), (PAPER, "Weir"))
    dated = replace(findings.job.ports[0].cuts[0].runs[0], paper_date="2026-10-30")
    cut = replace(findings.job.ports[0].cuts[0], runs=(dated,))
    port = replace(findings.job.ports[0], cuts=(cut, findings.job.ports[0].cuts[1]))
    texts = run_tables(Findings(replace(findings.job, ports=(port,))), "in")
    paths = []
    for name, text in texts.items():
        paths.append(tmp_path / name.replace(" ", "-"))
        paths[-1].write_text(text)
    first = read_run_table(paths[0]).run
    assert (first.basis, first.house, first.paper_date) == (PAPER, "Weir", "2026-10-30")
    code, out, _ = ask(capsys, "compare", *paths, "--json")
    assert code == 0 and json.loads(out)["basis"] == "house" and json.loads(out)["comparable"] == "unknown"
    code, out, _ = ask(capsys, "compare", *paths, "--same-house", "--json")
    told = json.loads(out)
    assert (code, told["basis"], told["comparable"]) == (0, "house", "yes")
    paths[0].write_text(paths[0].read_text().replace("# basis: paper", "# basis: hearsay"))
    assert "'hearsay' is not one of bench, paper" in refused(capsys, "compare", *paths)


def test_the_command_judges_a_document_by_the_ticks_that_it_carries(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    told = {}
    for tick in (True, False):
        findings, _, _ = pair_of((PAPER, "Weir"), (PAPER, "Weir"), tick=tick, **ALL_TOLD)
        path = tmp_path / f"{tick}.json"
        write_job(findings.job, path)
        _, out, _ = ask(capsys, "compare", path, "--json")
        (told[tick],) = json.loads(out)["pairs"]
    assert [(told[tick]["basis"], told[tick]["comparable"]) for tick in (True, False)] == [
        ("house", "yes"),
        ("house", "unknown"),
    ]
    assert "--same-house" in refused(capsys, "compare", path, "--same-house")
