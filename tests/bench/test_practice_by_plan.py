"""What a learner does who follows the plan: its best open move, walls where it asks, and no more mounts than tell."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.bench.simulator.practice.by_plan import MOUNTS, advice, by_plan, next_act, said_at
from ventrix.bench.simulator.practice.catalogue import HEADS
from ventrix.bench.simulator.practice.play import Act, Practice, played
from ventrix.bench.simulator.practice.virtual_job import (
    BENCH,
    as_measured,
    bore_of,
    job_of,
    practice_job,
    setup_of,
    told_by_owner,
    with_cut,
)
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import DEFAULT_LIMIT
from ventrix.core.model.cut import Cut
from ventrix.core.model.kinds import Place
from ventrix.core.model.plausible import implausible
from ventrix.core.planning.moves import READ_FIRST, Move, MoveKind
from ventrix.core.quantity.units import from_si

FLOW, BOWL = Act("flow"), Act("cut", Place.BOWL, 0.5e-3)


def move(kind: MoveKind, place: str = "bowl", gain: float = 0.01, **more: object) -> Move:
    base = Move(
        place, None, 0.5e-3 if kind is MoveKind.CUT else None, kind, gain, 0.0, 0.02, 0.0, 0.02, 0.02, (), 1800.0, 0.0,
        gain / 1800, None, (), "a move", np.zeros(1),
    )  # fmt: skip
    return replace(base, **more)  # type: ignore[arg-type]


def test_the_first_open_move_is_done() -> None:
    found = next_act((move(MoveKind.CUT, "guide", depth=0.75e-3), move(MoveKind.CUT)), 1)
    assert found == Act("cut", Place.GUIDE, 0.75e-3)


def test_a_wall_that_blocks_is_read_and_any_other_block_is_passed_over() -> None:
    unread = move(MoveKind.CUT, "throat", blocked_by=(READ_FIRST,))
    land = move(MoveKind.CUT, "opening", blocked_by=("the land stays",))
    assert next_act((land, unread), 1) == Act("wall", Place.THROAT)
    assert next_act((land,), 1) is None
    assert next_act((move(MoveKind.WALL, "pinch"), unread), 1) == Act("wall", Place.PINCH)


def test_mounts_end_where_they_tell_little_more() -> None:
    both = (move(MoveKind.MOUNT, ""), move(MoveKind.CUT))
    assert next_act(both, MOUNTS - 1) == FLOW
    assert next_act(both, MOUNTS) == BOWL


def test_what_brings_nothing_is_not_done() -> None:
    assert next_act((move(MoveKind.CUT, gain=0.0),), 1) is None
    assert next_act((move(MoveKind.CUT, depth=None),), 1) is None
    assert next_act((), 1) is None


@pytest.mark.parametrize("head", HEADS, ids=lambda h: h.id)
def test_a_whole_practice_keeps_to_hours_walls_and_its_own_advice(head: object) -> None:
    done = by_plan(head.id, 7, 3.0)  # type: ignore[attr-defined]
    assert done.minutes <= 180
    assert done.walls_broken == 0
    kinds = [a.kind for a in done.acts]
    assert kinds[0] == "flow"
    assert set(kinds) <= {"flow", "wall", "cut"}
    read = set()
    for act, d in zip(done.acts, done.done, strict=True):
        if act.kind == "wall":
            read.add((act.port, act.place))
        if act.kind == "cut" and act.place in (Place.BOWL, Place.SHORT_SIDE, Place.PINCH, Place.THROAT):
            assert (act.port, act.place) in read, "no burr where water may be before the gauge"
        assert not d.broke


def test_advice_at_an_act_knows_nothing_of_what_came_after() -> None:
    short, long = played("easy-two-valve", 3, [FLOW, BOWL]), played("easy-two-valve", 3, [FLOW, BOWL, FLOW, BOWL])
    assert said_at(short, 1) == said_at(long, 1) != ""
    assert [(m.kind, m.place) for m in advice(job_of(short), short)], "and there is some after a cut without a test"


# -- the job that a practice fills


@pytest.mark.parametrize("head", HEADS, ids=lambda h: h.id)
def test_its_job_is_one_that_the_book_would_take(head: object) -> None:
    job = told_by_owner(practice_job(head, 3), head)  # type: ignore[arg-type]
    for noun in (job, *job.valves, *job.ports, *job.ports[0].cuts, *job.setups, *job.ports[0].cuts[0].stations):
        assert not list(implausible(noun)), noun
    assert job.ports[0].kind == head.kind  # type: ignore[attr-defined]
    setup = setup_of(head, job.id)  # type: ignore[arg-type]
    assert setup.bench == BENCH
    assert setup.bore == bore_of(head)  # type: ignore[arg-type]
    assert setup.bore > job.valves[0].head_diameter  # type: ignore[operator]
    assert setup.entry == ("radius" if job.ports[0].kind == "intake" else "bare")


def test_what_is_measured_is_the_metal() -> None:
    practice = played("easy-two-valve", 3, [Act("cut", Place.THROAT, 0.5e-3)])
    cut = as_measured(Cut(id="c", number=1), practice.port)
    sizes = practice.port.metal.sizes
    assert cut.throat_diameter == sizes.throat_diameter
    assert {s.name: s.area for s in cut.stations} == {
        p.value: a for p, a in sizes.areas.items() if p is not Place.THROAT
    }
    assert len({s.id for s in cut.stations}) == len(cut.stations)


def test_a_cut_takes_the_minutes_that_the_clock_took() -> None:
    practice = Practice("easy-two-valve", 3)
    job = practice_job(practice.head, 3)
    done = practice.do(replace(BOWL, record="mine"))
    cut = with_cut(job, practice, done, "2026-11-26").ports[0].cuts[-1]
    assert cut.operations[0].works[0].id == "mine"
    assert from_si(cut.operations[0].duration or 0.0, "min") == pytest.approx(practice.minutes)


def test_tests_of_one_practice_may_all_be_compared() -> None:
    practice = played("cast-bump", 3, [FLOW, BOWL, FLOW, Act("cut", Place.GUIDE, 0.5e-3), FLOW])
    job = job_of(practice)
    findings = Findings(job)
    port = job.ports[0]
    for before, after in zip(port.cuts, port.cuts[1:], strict=False):
        pair = findings.pair(port, before, after)
        assert pair.comparison is not None
        assert pair.comparison.comparability.level == "yes"


def test_limits_of_metal_are_the_books_own() -> None:
    """PRACTICE: where careful people stop, 0.100 in (common practice, no source)."""
    assert from_si(DEFAULT_LIMIT, "in") == pytest.approx(0.100)
