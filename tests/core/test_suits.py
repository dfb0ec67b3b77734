"""What a head suits, against Taylor's Z, continuity, and the rev-limit card; else common practice, no source."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from tests.cli.test_cli import ask, refused
from ventrix.core.engine.of_job import rev_limit
from ventrix.core.engine.suits import suits
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job

INCH = 0.0254
SOUND = 340.3  # m/s at 15 degC (ICAO standard atmosphere)


def textbook(**values: float) -> Findings:
    """One cylinder of eight: a 2.02 in valve, a pinch of 2.4 in2, flowed to 0.550 in."""
    lifts = np.array([0.1, 0.2, 0.3, 0.4, 0.5, 0.55])
    flow = np.array([65.0, 130.0, 190.0, 235.0, 258.0, 262.0])
    readings = tuple(
        Reading(id=f"r{i}", lift=x * INCH, flow=to_si(q, "cfm"))
        for i, (x, q) in enumerate(zip(lifts, flow, strict=True))
    )
    setup = SetUp(id="s", direction="intake", test_pressure=to_si(28, "inH2O"))
    run = FlowRun(id="run", setup_id="s", readings=readings)
    cut = Cut(
        id="c", number=0, name="as it came", runs=(run,), throat_diameter=1.85 * INCH,
        pinch_width=1.2 * INCH, pinch_height=2.0 * INCH, pinch_corner=0.0,
    )  # fmt: skip
    port = Port(id="p", name="Intake 1", kind="intake", valve_id="v", cuts=(cut,))
    valve = Valve(id="v", head_diameter=2.02 * INCH, stem_diameter=0.342 * INCH)
    job = Job(
        id="j", title="Textbook", ports=(port,), valves=(valve,), setups=(setup,), engine_cylinders=8,
        **{"bore": 4.0 * INCH, "stroke": 3.48 * INCH, "speed_high": 6500 * np.pi / 30, **values},
    )  # fmt: skip
    return Findings(job)


def test_speeds_are_where_taylors_z_says_and_the_section_allows() -> None:
    """Taylor, vol. 1, ch. 6: Z = (b/D)^2 s / (Ci a) at 0.6, and 0.35 below; continuity for the section."""
    findings = textbook()
    found = suits(findings, findings.job.ports[0])
    run = findings.runs_of(findings.job.ports[0].cuts[0], findings.job.ports[0])[0]
    head = np.pi / 4 * (2.02 * INCH) ** 2
    ci = np.trapezoid(run.effective_area, run.lift) / (run.lift[-1] - run.lift[0]) / head

    def z(speed: float) -> float:
        mean_piston = 2 * 3.48 * INCH * speed / (2 * np.pi)
        return float((4.0 / 2.02) ** 2 * mean_piston / (ci * SOUND))

    def mean_in_section(speed: float) -> float:
        """Piston area times its mean speed through 2.4 in2."""
        return float(np.pi / 4 * (4.0 * INCH) ** 2 * 2 * 3.48 * INCH * speed / (2 * np.pi) / (2.4 * INCH**2))

    low, high = found.speeds
    top = max(z(high) / 0.6, mean_in_section(high) / (0.55 * SOUND / 1.63))
    assert top == pytest.approx(1.0, rel=1e-2), "one of the two is at its limit, the other under it"
    assert z(low) >= 0.35 * 0.99 and mean_in_section(low) >= 60 * 0.99
    swept = 8 * np.pi / 4 * (4.0 * INCH) ** 2 * 3.48 * INCH
    assert found.displacement[1] == pytest.approx(swept * high / (6500 * np.pi / 30), rel=1e-9)


def test_the_rev_limit_card_says_the_same_speed() -> None:
    findings = Findings(demo_job(), benches=demo_benches())
    port = findings.job.ports[0]
    card = rev_limit(findings, port)
    assert card.limit_speed is not None
    assert suits(findings, port).speeds[1] == pytest.approx(min(card.limit_speed, suits(findings, port).speeds[1]))
    valves_alone = replace(findings.job, ports=tuple(replace(p) for p in findings.job.ports))
    assert suits(Findings(valves_alone, benches=demo_benches()), port).speeds[1] == pytest.approx(
        card.limit_speed, rel=1e-3
    )


def test_what_is_missing_is_said_and_what_is_guessed_too() -> None:
    findings = textbook()
    bare = replace(findings.job, engine_cylinders=None, bore=None, speed_high=None)
    found = suits(Findings(bare), bare.ports[0])
    said = " ".join(found.because)
    assert "was not entered" in said and "6000 rpm is taken" in said and "Bore and stroke are not known" in said
    unflowed = replace(bare.ports[0], cuts=(replace(bare.ports[0].cuts[0], runs=()),))
    only_section = suits(Findings(replace(bare, ports=(unflowed,))), unflowed)
    assert only_section.power is None and only_section.lift_pays is None
    nothing = replace(unflowed, cuts=(Cut(id="c", number=0, name="bare"),))
    with pytest.raises(Refused, match="measure its sections"):
        suits(Findings(replace(bare, ports=(nothing,))), nothing)
    with pytest.raises(Refused, match="is an exhaust"):
        suits(Findings(bare), replace(bare.ports[0], kind="exhaust"))


def test_the_command_holds_its_contract(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "job.json"
    write_job(demo_job(), path, benches=demo_benches())
    code, out, _ = ask(capsys, "suits", path, "--json")
    assert code == 0
    told = json.loads(out)
    assert set(told) == {"displacement_cc", "speeds_rpm", "lift_pays_mm", "air_cfm", "power_kw", "because"}
    assert told["speeds_rpm"][0] < told["speeds_rpm"][1]
    assert told["displacement_cc"][0] < told["displacement_cc"][1]
    write_job(replace(demo_job(), ports=demo_job().ports[1:2]), path, benches=())
    assert "intake" in refused(capsys, "suits", path).lower()
