"""A practice head of four ports: one casting, a clock for all of them, and a plan that develops one and copies it."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from ventrix.bench.simulator.practice.by_plan import by_plan, said_at
from ventrix.bench.simulator.practice.catalogue import head_named
from ventrix.bench.simulator.practice.play import LIFT, Act, Practice, played
from ventrix.bench.simulator.practice.reckoning import oracle_gain, reckon
from ventrix.bench.simulator.practice.virtual_job import job_of, practice_job
from ventrix.core.model.cut import Operation, Work
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.book import Book
from ventrix.rooms.display_units import US
from ventrix.rooms.practice.shows import decisions_of, reckoning_shown
from ventrix.workspace.practice import PracticeAtWork, practice_of

HEAD = "whole-head"
FLOW = [Act("flow", port=n) for n in range(4)]
BOWL = [Act("cut", Place.BOWL, 0.5e-3, port=n) for n in range(4)]


def test_its_ports_are_of_one_casting_and_not_the_same() -> None:
    ports = head_named(HEAD).ports(3)
    flows = np.array([p.flow(LIFT) for p in ports])
    assert len(ports) == 4
    assert np.all(np.ptp(flows, axis=0) / flows.mean(axis=0) < 0.06), "as ports of one head are: a few percent"
    assert len({p.metal.walls[Place.BOWL] for p in ports}) == 4, "the core lay elsewhere in each"
    again = head_named(HEAD).ports(3)
    assert [p.metal.walls for p in again] == [p.metal.walls for p in ports], "the seed is the truth"


def test_an_act_is_done_to_its_port_alone_and_the_clock_is_for_all() -> None:
    found = played(HEAD, 3, [FLOW[0], FLOW[1], BOWL[1], FLOW[1], FLOW[0]])
    assert found.ports[0].metal.depth == found.began[0].metal.depth
    assert found.ports[1].metal.depth != found.began[1].metal.depth
    # Bolted down afresh each time another port lay on the bench: 30 min each; the pass at the bowl 10 and 35 a mm.
    assert found.minutes == pytest.approx(4 * 30 + 10 + 17.5)
    with pytest.raises(Refused, match="port 5, and the head has 4"):
        Practice(HEAD, 3).do(Act("flow", port=4))


def test_a_pass_that_another_port_had_is_quicker() -> None:
    """Seven tenths, as copies are (common practice, no source)."""
    first, second, alone = played(HEAD, 3, [BOWL[0]]), played(HEAD, 3, BOWL[:2]), played(HEAD, 3, [BOWL[0], BOWL[0]])
    assert second.minutes / first.minutes == pytest.approx(1.7)
    assert alone.minutes / first.minutes == pytest.approx(2.0), "the same port again is no copy"


def test_what_was_believed_of_a_port_is_by_its_own_tests() -> None:
    found = played(HEAD, 3, [FLOW[0], FLOW[1], BOWL[0], FLOW[1], FLOW[0], BOWL[1]])
    first, second = reckon(found).beliefs
    flows = [d.flow for d in found.done if d.flow is not None]
    assert first.port == 0 and first.seen == pytest.approx(float(np.mean(flows[3] - flows[0])))
    assert second.port == 1 and second.seen is None
    gains = [np.mean(p.flow(LIFT)) - np.mean(was.flow(LIFT)) for p, was in zip(found.ports, found.began, strict=True)]
    assert reckon(found).gain == pytest.approx(float(sum(gains)))
    names = [d.name for d in decisions_of(found, reckon(found), US)]
    assert names[0].startswith("Intake 1, bowl") and names[1].startswith("Intake 2, bowl")
    assert "all ports together" in reckoning_shown(found, US).reason


def test_the_plan_develops_one_port_and_copies_it_onto_the_others(long: bool) -> None:
    """It finds most of what one who knows the truth finds in the same hours, and breaks through nowhere."""
    shares = []
    for seed in (1, 2, 3, 5) if long else (8,):
        plan = by_plan(HEAD, seed)
        cut = [a for a in plan.acts if a.kind == "cut"]
        assert {a.port for a in cut} == {0, 1, 2, 3}
        assert cut[0].port == 0 and plan.walls_broken == 0
        copied = {(a.place, a.depth) for a in cut if a.port}
        model = {(a.place, a.depth) for a in cut if not a.port}
        assert {place for place, _ in copied} <= {place for place, _ in model}
        flowed = [a.port for a in plan.acts if a.kind == "flow"]
        assert set(flowed) == {0}, "copies are felt and read, and not flowed one by one"
        shares.append(reckon(plan).gain / oracle_gain(plan.head, seed, plan.hours))
    print(f"the whole head's list found {[f'{s:.2f}' for s in shares]} of what was to be had")
    assert np.mean(shares) >= 0.8


def test_what_plan_would_have_said_is_the_first_of_the_list() -> None:
    found = played(HEAD, 3, [FLOW[0], BOWL[0]])
    assert "Intake 1" in said_at(found, 0)
    assert said_at(found, 0) == said_at(played(HEAD, 3, [FLOW[0]]), 0)


def test_its_job_has_every_port_washed_and_looked_over() -> None:
    job = practice_job(head_named(HEAD), 3)
    assert [p.name for p in job.ports] == ["Intake 1", "Intake 2", "Intake 3", "Intake 4"]
    played_job = job_of(played(HEAD, 3, [FLOW[2], Act("wall", Place.BOWL, port=2), BOWL[2], FLOW[2]]))
    assert [len(p.cuts) for p in played_job.ports] == [1, 1, 2, 1]
    assert played_job.ports[2].cuts[0].walls and played_job.ports[2].cuts[1].runs


def test_at_work_acts_go_to_the_port_that_is_looked_at(tmp_path: Path) -> None:
    at_work = PracticeAtWork.begin(tmp_path, HEAD, 3)
    with Book.open(tmp_path / "book.sqlite") as book:
        space = at_work.workspace(book)
        space.look_at_port(space.job.ports[2].id)
        at_work.put_on_bench(space)
        assert at_work.practice.at == 2
        assert at_work.flow(space).act.port == 2
        port = space.job.ports[2]
        assert port.cuts[0].runs and not space.job.ports[0].cuts[0].runs
        work = Operation(id="op", kind="rough", works=(Work(id="w", place="bowl", depth=0.5e-3),))
        cut = replace(port.cuts[0], id="c1", number=1, name="bowl", runs=(), stations=(), operations=(work,))
        ports = (*space.job.ports[:2], replace(port, cuts=(*port.cuts, cut)), space.job.ports[3])
        space.apply("a pass", replace(space.job, ports=ports))
        space.look_at_port(space.job.ports[1].id)
        (done,) = at_work.take_in(space)
        assert done.act.port == 2
        assert at_work.practice.at == 1, "the port that is looked at lies on the bench"
        assert at_work.practice.ports[2].metal.depth != at_work.practice.began[2].metal.depth
        assert at_work.practice.ports[0].metal.depth == at_work.practice.began[0].metal.depth
        assert space.job.ports[2].cuts[1].stations, "measured after the pass, on that port"
    again = practice_of(PracticeAtWork.open(at_work.path).document)
    assert again.acts == at_work.practice.acts
