"""Which runs speak, what is carried, and edits that make new jobs and leave the old alone."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.calculators.answer import evaluate, registry, search
from ventrix.core.calculators.from_job import known_inputs
from ventrix.core.edits.cuts import add_cut, add_valve, edit_cut, edit_valve, set_volume
from ventrix.core.edits.runs import edit_run, start_run, strike
from ventrix.core.edits.undo import keep_measured
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port, Pour, carried, poured_volume
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.geometry import geometry_of
from ventrix.demo.job import demo_job

JOB = demo_job()
PORT = JOB.ports[0]


def test_figures_are_carried_from_the_cut_that_measured_them() -> None:
    found = carried(PORT, PORT.cuts[3], "floor_length")
    assert found is not None
    assert found.cut_number == 0
    assert found.value == pytest.approx(0.094)
    assert carried(PORT, PORT.cuts[1], "volume").value == pytest.approx(119.6e-6)  # type: ignore[union-attr]
    assert (
        carried(Port(id="p", name="x", kind="intake", cuts=(Cut(id="c", number=0),)), Cut(id="c", number=0), "volume")
        is None
    )


def test_a_later_cut_never_speaks_for_an_earlier_one() -> None:
    bare = replace(PORT, cuts=(replace(PORT.cuts[0], pours=()), PORT.cuts[1]))
    assert carried(bare, bare.cuts[0], "volume") is None


def test_pours_are_averaged() -> None:
    cut = Cut(id="c", number=0, pours=(Pour(id="a", volume=118e-6), Pour(id="b", volume=120e-6)))
    assert poured_volume(cut) == pytest.approx(119e-6)
    assert poured_volume(Cut(id="d", number=1)) is None


def test_geometry_follows_the_cut() -> None:
    first, third = (geometry_of(JOB, PORT, PORT.cuts[i]) for i in (0, 2))
    assert first.throat_diameter == pytest.approx(0.0395)
    assert third.throat_diameter == pytest.approx(0.0418)
    assert third.port_length == pytest.approx(0.104)


def test_unchanged_parts_are_not_worked_out_again() -> None:
    before = Findings(JOB)
    pair = before.pair(PORT, PORT.cuts[0], PORT.cuts[1])
    renamed = replace(JOB, title="Other")
    after = Findings(renamed, before)
    again = after.pair(PORT, PORT.cuts[0], PORT.cuts[1])
    assert again.comparison is pair.comparison
    assert again.before_runs[0] is pair.before_runs[0]


def test_a_changed_valve_is_worked_out_again() -> None:
    before = Findings(JOB)
    old = before.runs_of(PORT.cuts[0], PORT)[0]
    job = edit_valve(JOB, "valve-intake", head_diameter=0.047)
    new = Findings(job, before).runs_of(PORT.cuts[0], PORT)[0]
    assert new.derived.lift_ratio[0] < old.derived.lift_ratio[0]


def test_the_best_matching_runs_speak() -> None:
    cut = PORT.cuts[1]
    odd = replace(JOB.setups[0], id="odd", bore=0.100)
    run = replace(
        cut.runs[0],
        id="odd-run",
        setup_id="odd",
        readings=tuple(replace(r, id=f"o{r.id}") for r in cut.runs[0].readings),
    )
    job = start_run(JOB, cut.id, run, odd, None)
    port = job.ports[0]
    pair = Findings(job).pair(port, port.cuts[0], port.cuts[1])
    assert [r.run_id for r in pair.after_runs] == ["intake-1-run"]
    assert pair.comparison is not None
    assert pair.comparison.comparability.level == "yes"


def test_what_is_missing_is_said() -> None:
    port = replace(PORT, cuts=(PORT.cuts[0], Cut(id="new", number=1, name="new")))
    job = replace(JOB, ports=(port, JOB.ports[1]))
    pair = Findings(job).pair(port, port.cuts[0], port.cuts[1])
    assert pair.comparison is None
    assert pair.missing == "Cut 1 has not been flowed yet."
    assert Findings(job).verdict(pair) is None


def test_a_run_that_cannot_be_reduced_says_why() -> None:
    run = FlowRun(id="bad", setup_id="setup-intake", readings=(Reading(id="x", lift=0.002, flow=1e-5),))
    port = replace(PORT, cuts=(PORT.cuts[0], Cut(id="new", number=1, runs=(run,))))
    pair = Findings(replace(JOB, ports=(port,))).pair(port, port.cuts[0], port.cuts[1])
    assert "leak is not smaller" in pair.missing


def test_a_cam_that_makes_no_sense_is_no_cam() -> None:
    assert Findings(JOB).cam_of("intake") is not None
    assert Findings(replace(JOB, cam_lift=0.001)).cam_of("intake") is None
    assert Findings(replace(JOB, cam_duration=None)).cam_of("intake") is None


def test_edits_leave_the_old_job_alone() -> None:
    grown = add_cut(JOB, PORT.id, Cut(id="new", number=0, name="new"))
    assert len(JOB.ports[0].cuts) == 4
    assert grown.ports[0].cuts[-1].number == 4
    assert grown.ports[1] is JOB.ports[1]


def test_edits_of_what_is_not_there() -> None:
    for edit in (
        lambda: edit_valve(JOB, "nobody", name="x"),
        lambda: edit_cut(JOB, "nobody", lambda c: c),
        lambda: edit_run(JOB, "nobody", lambda r: r),
        lambda: strike(JOB, "intake-0-run", "nobody", "why"),
        lambda: JOB.port("nobody"),
        lambda: JOB.setup("nobody"),
    ):
        with pytest.raises(KeyError):
            edit()


def test_a_port_gets_a_valve_of_its_own() -> None:
    job = add_valve(JOB, PORT.id, Valve(id="v9", head_diameter=0.05))
    assert job.valve_of(job.ports[0]).head_diameter == 0.05  # type: ignore[union-attr]
    assert job.valve_of(job.ports[1]) == JOB.valves[1]


def test_set_up_and_mount_come_along_once() -> None:
    setup, mount = SetUp(id="new", direction="intake"), Mount(id="m99", number=99)
    job = start_run(JOB, "intake-0", FlowRun(id="r1", setup_id="new", mount_id="m99"), setup, mount)
    job = start_run(job, "intake-0", FlowRun(id="r2", setup_id="new", mount_id="m99"), setup, mount)
    assert sum(s.id == "new" for s in job.setups) == 1
    assert sum(m.id == "m99" for m in job.mounts) == 1


def test_volume_is_said_and_taken_back() -> None:
    job = set_volume(JOB, "intake-0", Pour(id="p", volume=117e-6))
    assert poured_volume(job.ports[0].cuts[0]) == 117e-6
    assert poured_volume(set_volume(job, "intake-0", None).ports[0].cuts[0]) is None


def test_measurements_survive_any_older_state() -> None:
    kept = keep_measured(replace(JOB, ports=()), JOB)
    readings = [r for run in kept.runs() for r in run.readings]
    assert len(readings) == sum(len(run.readings) for run in JOB.runs())
    assert {r.struck for r in readings} == {"undone"}
    assert keep_measured(JOB, JOB) is JOB


def test_what_a_job_knows_for_calculators() -> None:
    names = {i.name for c in registry().values() for i in c.inputs}
    known = known_inputs(Findings(JOB), PORT, PORT.cuts[2], PORT.cuts[1], names)
    assert known["valve_diameter"] == pytest.approx(0.046)
    assert known["volume_before"] == pytest.approx(119.6e-6)
    assert known["volume_after"] == pytest.approx(121.9e-6)
    assert len(known["lifts"]) == len(known["flows"]) == 12
    assert set(known) <= names | {"length"}
    engine = known_inputs(Findings(demo_job()), PORT, PORT.cuts[2], None, {"stroke", "speed", "cylinders"})
    assert engine["cylinders"] == 4
    assert engine["speed"] == pytest.approx(to_si(6800, "rpm"))
    paddle = known_inputs(Findings(demo_job()), PORT, PORT.cuts[2], None, {"speed"})
    assert paddle == {}, "a swirl meter's speed is not the engine's"


@pytest.mark.parametrize(
    ("words", "first"), [("throat percent", "throat_percent"), ("146", "ideal_flux"), ("rpm mach", "mach_index")]
)
def test_search_by_any_word(words: str, first: str) -> None:
    assert search(words)[0].id == first
    assert search("no such words at all") == []


def test_evaluate_names_what_is_missing() -> None:
    with pytest.raises(ValueError, match="lift: is missing"):
        evaluate(registry()["lift_ratio"], {"valve_diameter": 0.04})
    assert evaluate(registry()["lift_ratio"], {"valve_diameter": 0.04, "lift": 0.01})[0]["ratio"] == pytest.approx(0.25)


@pytest.mark.parametrize("calculator", registry().values(), ids=lambda c: c.id)
def test_every_calculator_is_described(calculator) -> None:  # type: ignore[no-untyped-def]
    assert calculator.title
    assert calculator.formula
    assert calculator.source
    assert calculator.outputs
    assert len({i.name for i in calculator.inputs}) == len(calculator.inputs)
