"""Every room, sheet and command says the same of the same: targets, stages, hours."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pytest

from tests.cli.test_cli import ask
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.targets import TargetState, judge_target, stops_at
from ventrix.core.model.job_parts import Target
from ventrix.core.planning.next_moves import plan_port
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.runs.run_curves import KINDS
from ventrix.core.work.hours import hours_of
from ventrix.core.work.record import record_of
from ventrix.core.work.route import route
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job
from ventrix.reports.match_document import match_document
from ventrix.reports.results import pair_document
from ventrix.reports.sheet.contents import Choices, Shop
from ventrix.rooms.compare.curves import curves
from ventrix.rooms.display_units import US
from ventrix.rooms.match.shows import match_of
from ventrix.rooms.sheet.contents import Asked, sheet_of

JOB = demo_job()
TODAY = date(2026, 12, 1)
LIFT = to_si(0.450, "in")


def wanting(flow: float) -> Findings:
    target = Target(id="t", kind="intake", lift=LIFT, flow=flow, test_pressure=JOB.test_pressure)
    return Findings(replace(JOB, targets=(target,)), benches=demo_benches())


def last_run(findings: Findings):  # type: ignore[no-untyped-def]
    port = findings.job.ports[0]
    return findings.runs_of(port.cuts[-1], port)[-1]


def at_share(share: float) -> Findings:
    """A target set at a share of what the last run reads there, at the run's own pressure."""
    run = last_run(wanting(1.0))
    findings = wanting(share * float(run.curve.at(LIFT)))
    pressure = run.test_pressure
    target = replace(findings.job.targets[0], test_pressure=pressure)
    return Findings(replace(findings.job, targets=(target,)), benches=demo_benches())


@pytest.mark.parametrize(
    ("share", "state"), [(1.05, TargetState.SHORT), (0.995, TargetState.READ), (0.90, TargetState.PROVEN)]
)
def test_three_words_for_a_target(share: float, state: TargetState) -> None:
    findings = at_share(share)
    judged = judge_target(last_run(findings), findings.job.targets[0], findings.job)
    assert judged is not None
    assert judged.state is state


def test_mounts_that_would_prove_it_narrow_the_doubt_by_their_root() -> None:
    """GUM 4.2.3: the mean of n observations has 1/sqrt(n) of their standard deviation."""
    findings = at_share(0.995)
    judged = judge_target(last_run(findings), findings.job.targets[0], findings.job)
    assert judged is not None and judged.mounts is not None
    k = 1 + judged.mounts
    assert judged.expanded / np.sqrt(k) <= judged.over < judged.expanded / np.sqrt(k - 1)


@pytest.mark.parametrize("share", [1.05, 0.995, 0.90])
def test_flow_compare_plan_sheet_and_commands_say_the_same_word(share: float) -> None:
    findings = at_share(share)
    port = findings.job.ports[0]
    pair = findings.pair(port, port.cuts[-2], port.cuts[-1])
    judged = judge_target(last_run(findings), findings.job.targets[0], findings.job)
    assert judged is not None and pair.comparison is not None
    said = judged.words(US.wording)
    assert any(said in s for s in curves(findings, pair, pair.comparison, KINDS[0], US, over_ratio=False).sentences)
    (told,) = pair_document(findings, pair)["target"]
    assert told["state"] == judged.state.value
    assert told["short_cfm"] == pytest.approx(from_si(max(-judged.over, 0.0), "cfm"))
    sheet = sheet_of(findings, Asked(port, port.cuts[-2], port.cuts[-1], Choices(), Shop(), TODAY), US)
    assert said in [o.says for o in sheet.owned if "target at" in o.title]
    stop = plan_port(findings, port).stop
    met = judged.state is not TargetState.SHORT
    assert (said in stop.reason) is met
    wants_proof = Findings(replace(findings.job, schools={"target": "when proven"}), benches=demo_benches())
    assert stops_at(wants_proof.job, judged.state) is (judged.state is TargetState.PROVEN)


def test_stages_and_hours_are_one_record_in_every_room_and_command(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    findings = Findings(JOB, benches=demo_benches())
    record = record_of(findings)
    hours = hours_of(record, TODAY)
    match = match_document(findings, TODAY)
    assert match["hours"]["used"] == pytest.approx(hours.used / 3600)
    assert match["hours"]["likely"] == pytest.approx(hours.likely / 3600)
    for told in match["ports"]:
        port = next(p for p in JOB.ports if p.name == told["name"])
        assert told["stages"] == {s.key: record.at(s.key, port).state.value for s in record.stages}
    assert {(c.port, c.stage, c.done) for c in route(findings)} == {
        (p.name, s.key, record.at(s.key, p).done) for p in JOB.ports if p.of_head for s in record.stages
    }
    shown = match_of(findings, US, TODAY)
    assert [row.key for row in shown.rows] == [s.key for s in record.stages]
    write_job(JOB, tmp_path / "job.json", benches=demo_benches())
    code, out, _ = ask(capsys, "work", tmp_path / "job.json", "--json")
    assert code == 0
    assert json.loads(out)["hours"]["used"] == pytest.approx(hours.used / 3600)
    worked = sum(op.duration or 0.0 for p in JOB.ports for c in p.cuts for op in c.operations)
    assert record.used == pytest.approx(worked), "all operations, once"
