"""What the Plan room shows, as values: the bar, the moves, the engine; in both systems and on an uncalibrated bench."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest

from tests.core.builders import index_job
from ventrix.core.engine.of_job import OnTheEngine, on_the_engine
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Operation, Port, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.planning.moves import MoveKind
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.reports.engine_document import engine_document, engine_text
from ventrix.reports.plan_document import plan_document, plan_text
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.plan.engine_shows import engine_caption, engine_card, engine_picture
from ventrix.rooms.plan.route_shows import stage_lines
from ventrix.rooms.plan.shows import answer_of, expected_picture, fit_words, move_line, move_lines, segments
from ventrix.rooms.shared.unrolled_map import map_picture


def plan_of(job: Job | None = None, name: str = "Intake 1") -> Plan:
    job = job or demo_job()
    port = next(p for p in job.ports if p.name == name)
    return plan_port(Findings(job, benches=demo_benches()), port)


PLAN = plan_of()
INDEX = plan_of(index_job())


# -- the bar


@pytest.mark.parametrize("at", range(12))
def test_the_bar_is_the_test_pressure_at_every_lift(at: int) -> None:
    bar = segments(PLAN, float(PLAN.planned.lift[at]), US)
    assert sum(s.share for s in bar) == pytest.approx(1.0)
    assert bar[0].left == "28.0", "in front of the first stands all of it"
    assert all(a.share > 0 for a in bar)
    lefts = [float(s.left) for s in bar]
    assert all(a >= b for a, b in pairwise(lefts))


def test_small_places_join_and_the_valve_stands_alone() -> None:
    """At 0.050 in the port's places eat next to nothing: they are one, named by its ends, and the valve is another."""
    bar = segments(PLAN, float(PLAN.planned.lift[0]), US)
    assert [s.name for s in bar] == ["entry to chamber", "valve and seat"]
    assert bar[-1].measured
    full = segments(PLAN, float(PLAN.planned.lift[-1]), US)
    assert len(full) > 4
    assert full[-1].name == "valve and seat"


def test_metric_figures_are_the_same_pressure() -> None:
    """28 inH2O is 711 mmH2O (NIST SP 811, conventional water)."""
    us, metric = (segments(PLAN, float(PLAN.planned.lift[-1]), u) for u in (US, METRIC))
    assert [s.name for s in us] == [s.name for s in metric]
    assert float(metric[0].left) == pytest.approx(
        {"mmH2O": 711.2, "kPa": 6.97, "mbar": 69.7}[METRIC.pressure.label], rel=0.01
    )
    assert sum(float(s.eaten) for s in metric) == pytest.approx(float(metric[0].left), rel=0.02)


def test_a_limit_is_inside_its_interval_after_joining() -> None:
    for at in PLAN.planned.lift:
        for s in segments(PLAN, float(at), US):
            low, high = (float(x) for x in s.interval.split(" to "))
            assert low - 0.1 <= float(s.eaten) <= high + 0.1


# -- the moves


def test_a_line_says_what_its_move_says() -> None:
    for move in PLAN.moves:
        line = move_line(move, PLAN, US)
        look = move.kind in (MoveKind.CLAY, MoveKind.WALL, MoveKind.MOUNT)
        assert line.mark == ("cross" if move.blocked_by else "diamond" if look else "square")
        assert bool(line.gain) == (not look)
        assert line.low <= line.mean <= line.high
        if move.blocked_by:
            assert line.below == move.blocked_by[0]
            assert line.rate == "–"
        if move.kind in (MoveKind.SEAT, MoveKind.VALVE):
            assert line.wall == "no metal"
            assert line.guess


def test_seven_lines_unless_all_are_asked_for() -> None:
    few, said = move_lines(PLAN, US, False)
    every, whole = move_lines(PLAN, US, True)
    assert len(few) == 7
    assert len(every) == len(PLAN.candidates)
    assert f"{len(PLAN.candidates) - 7} more (L)" in said
    assert "more" not in whole
    assert "floor" in whole, "what is never proposed is said"


def test_the_answer_is_the_first_open_move_that_brings_flow() -> None:
    answer = answer_of(PLAN, US)
    best = next(m for m in PLAN.moves if not m.blocked_by and m.gain > 0)
    line = move_line(best, PLAN, US)
    assert answer.what.startswith(line.title)
    assert answer.worth == f"{line.gain} CFM"
    assert "28.0 inH2O" in answer.sure
    metric = answer_of(plan_of(), METRIC)
    assert "CFM" not in metric.worth


def test_stopping_says_its_reason_on_top() -> None:
    stopped = plan_of(replace(demo_job(), volume_ceiling=to_si(100, "cc"), targets=()))
    answer = answer_of(stopped, US)
    assert answer.stops
    assert answer.verdict == "Stop:"
    assert "volume is spent" in answer.what
    assert answer.worth == ""


def test_expected_gain_begins_at_nothing_and_lies_in_its_band() -> None:
    move = next(m for m in PLAN.moves if m.kind is MoveKind.CUT and not m.blocked_by)
    picture = expected_picture(move, US, False)
    line, band = picture.lines[0], picture.bands[0]
    assert line.x[0] == line.y[0] == 0
    assert np.all(np.asarray(band.low)[1:] <= np.asarray(line.y)[1:])
    assert np.all(np.asarray(line.y)[1:] <= np.asarray(band.high)[1:])
    look = next(m for m in PLAN.moves if m.kind is MoveKind.MOUNT)
    assert not expected_picture(look, US, False).lines


def test_how_well_the_chain_fits_is_said_in_one_of_four_ways() -> None:
    assert fit_words(plan_of(name="Intake 4"), US).startswith("Never flowed")
    odd = replace(PLAN, fit=replace(PLAN.fit, worst_lift=to_si(0.45, "in")))
    assert "doesn't fit this port at 0.450" in fit_words(odd, US)
    doubt = replace(PLAN, fit=replace(PLAN.fit, worst_lift=None, plain_chi_squared=1e6))
    assert "within 4 %" in fit_words(doubt, US)
    sharp = replace(PLAN, fit=replace(PLAN.fit, worst_lift=None, plain_chi_squared=1.0))
    assert "the bench's own scatter" in fit_words(sharp, US)


# -- on an uncalibrated bench


def test_an_index_is_percent_everywhere_and_never_cfm() -> None:
    answer = answer_of(INDEX, US)
    assert answer.worth.endswith(" %")
    assert "CFM" not in " ".join((answer.worth, answer.sure, answer.reason))
    lines, _ = move_lines(INDEX, US, True)
    best = lines[0]
    assert float(best.gain.lstrip("~")) == pytest.approx(100 * best.move.share, abs=0.06)
    document = plan_document(INDEX)
    for move in document["candidates"]:
        assert move["gain_cfm"] is None
        assert all(p["gain_cfm"] is None for p in move["points"])
    assert "CFM" not in plan_text(INDEX)


def test_an_index_read_at_no_stated_pressure_is_shown_at_the_usual_one() -> None:
    job = index_job()
    bare = replace(job, setups=tuple(replace(s, test_pressure=None) for s in job.setups), test_pressure=None)
    assert segments(plan_of(bare), float(INDEX.planned.lift[-1]), US)[0].left == "28.0"


def test_an_index_has_no_filling() -> None:
    job = index_job()
    with pytest.raises(ValueError, match="not calibrated"):
        on_the_engine(Findings(job), job.ports[0])


# -- the engine


@pytest.fixture(scope="module")
def timed() -> OnTheEngine:
    job = demo_job()
    return on_the_engine(Findings(job, benches=demo_benches()), job.ports[0])


def test_before_is_dashed_and_after_has_the_band(timed: OnTheEngine) -> None:
    picture = engine_picture(timed)
    assert [line.style for line in picture.lines] == ["dashed", "solid"]
    assert timed.filling is not None
    assert np.asarray(picture.lines[1].y) == pytest.approx(100 * timed.filling)
    low, high = picture.y_range or (0, 0)
    for line in picture.lines:
        assert low < np.min(line.y)
        assert np.max(line.y) < high
    assert engine_caption(timed) == "VE, %, over 1,000 rpm: cut 0 (dashed) to 3"


def test_without_timing_the_change_alone_is_drawn(timed: OnTheEngine) -> None:
    bare = replace(timed, filling=None, filling_before=None, low=None, high=None, missing=("intake lobe centre",))
    picture = engine_picture(bare)
    assert len(picture.lines) == 1
    assert np.asarray(picture.lines[0].y) == pytest.approx(100 * timed.difference)
    assert engine_caption(bare).startswith("change of VE")
    assert "needs intake lobe centre (Head)" in engine_card(bare, US)
    assert engine_document(bare)["filling"] is None
    assert "–" in engine_text(bare)


def test_the_card_holds_limit_choke_and_section(timed: OnTheEngine) -> None:
    card = engine_card(timed, US)
    assert timed.limit_speed is not None
    assert f"→ {timed.limit_speed * 30 / np.pi:,.0f} rpm" in card
    assert "chokes at" in card
    assert "in² wanted for 6,800" in card
    assert card.endswith("no waves.")
    unknown = engine_card(replace(timed, limit_speed=None, index=None, choke_speed=None), METRIC)
    assert "Z 0.6" not in unknown
    assert "chokes" not in unknown


# -- stages


def test_one_stage_is_the_next_and_it_alone_speaks() -> None:
    job = demo_job()
    for port in job.ports:
        lines = stage_lines(Findings(job), port, US)
        assert len(lines) == 17
        coming = [line for line in lines if line.now]
        assert len(coming) == 1
        assert coming[0].says
        assert not coming[0].done
        assert all(not line.says for line in lines if not line.now)
        first_open = next(line for line in lines if not line.done)
        assert first_open is coming[0]


def test_the_cores_shift_is_drawn_where_it_is_more_than_its_doubt() -> None:
    """The left wall 0.6 mm thicker and the right one thinner than on its like: the core lies 0.3 mm right of their
    mean (geometry)."""

    def port(n: int, off: float) -> Port:
        walls = tuple(
            WallReading(id=f"{n}{band}", place="bowl", band=band, thickness=0.005 + side * off)
            for band, side in (("left", 1), ("right", -1))
        )
        return Port(id=f"p{n}", name=f"Intake {n}", kind="intake", cuts=(Cut(id=f"c{n}", number=0, walls=walls),))

    ports = (port(1, 0.6e-3), port(2, 0.0))
    job = replace(demo_job(), ports=ports)
    shift = map_picture(job, ports[0], ports[0].cuts[0], None, "", METRIC).shift
    assert shift is not None
    assert shift.text == "core 0.30 mm right"
    assert shift.right == pytest.approx(0.3e-3)
    alone = replace(job, ports=ports[:1])
    assert map_picture(alone, ports[0], ports[0].cuts[0], None, "", METRIC).shift is None


OPEN = next(m.place for m in PLAN.moves if m.kind is MoveKind.CUT and not m.blocked_by and not m.named)


def logged(flows: float | None) -> Plan:
    """The demo's intake with one more pass at an open place logged; flowed with so much more, or not yet."""
    job = demo_job()
    port = next(p for p in job.ports if p.name == "Intake 1")
    last = port.cuts[-1]
    again = Operation(id="o", kind="", works=(Work(id="w", place=OPEN, depth=to_si(0.25, "mm")),))
    runs = ()
    if flows is not None:
        run = last.runs[-1]
        readings = tuple(replace(r, id=f"n{r.id}", flow=r.flow * flows) for r in run.readings if r.flow is not None)
        runs = (replace(run, id="new", readings=readings),)
    cut = replace(last, id="more", number=last.number + 1, name="once more", operations=(again,), runs=runs,
                  trials=(), walls=(), pours=())  # fmt: skip
    port = replace(port, cuts=(*port.cuts, cut))
    return plan_of(replace(job, ports=tuple(port if p.id == port.id else p for p in job.ports)))


def test_what_is_logged_is_flowed_before_anything_else() -> None:
    plan = logged(None)
    first, answer = move_line(plan.moves[0], plan, US), answer_of(plan, US)
    assert (plan.moves[0].kind, first.title) == (MoveKind.FLOW, "flow it: cut 4, once more")
    assert (answer.verdict, answer.what) == ("Flow it:", "cut 4, once more")
    here = next(m for m in plan.moves if m.kind is MoveKind.CUT and m.place == OPEN)
    assert here.blocked_by == ("cut 4 worked it: flow it first",)


def test_what_was_flowed_comes_back_deeper_with_what_it_brought_or_is_done() -> None:
    up, down = logged(1.04), logged(0.90)
    here = next(m for m in up.moves if m.kind is MoveKind.CUT and m.place == OPEN)
    line = move_line(here, up, US)
    assert here.brought is not None and here.brought.cut == 4
    assert line.title == f"{OPEN}, deeper" and "cut 4 here brought +" in line.below
    lost = next(m for m in down.moves if m.kind is MoveKind.CUT and m.place == OPEN)
    assert lost.blocked_by == ("cut 4 here lost flow",)
    assert all(m.kind is not MoveKind.FLOW for m in (*up.moves, *down.moves))


def test_minutes_are_those_of_the_sheet_and_flowing_stands_beside_them() -> None:
    move = next(m for m in PLAN.moves if m.kind is MoveKind.CUT)
    work, flowing = move_line(move, PLAN, US).minutes.split(" + ")
    assert float(work) == round((move.seconds - move.flowing) / 60)
    assert float(flowing) == 30  # common practice, no source
