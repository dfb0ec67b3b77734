"""Plates of the book: where a job stands, whose figures it shows, and in which order they come."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.model.kinds import JobState
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import to_si
from ventrix.records.book.index import Entry, Question, Wish
from ventrix.rooms.book.plates import (
    FILTERS,
    SORTS,
    day_words,
    days_late,
    plate_of,
    read_day,
    sorted_entries,
    speaking_cut,
    state_words,
)
from ventrix.rooms.display_units import METRIC, US

TODAY = date(2026, 11, 26)  # a Thursday


def entry(**changed: object) -> Entry:
    base = Entry(
        id="j", title="Tillow 2.0", customer="Brandt", casting="T20", material="aluminium", cylinders=4,
        state=JobState.OPEN, waits_for="", promise_date=None, handed_over=None, archived=False, binned=None,
        date="2026-11-20", cuts=3, runs=4, seconds=3600.0,
    )  # fmt: skip
    return replace(base, **changed)  # type: ignore[arg-type]


def cut(**changed: object) -> CutSummary:
    lifts = tuple(to_si(x, "in") for x in (0.2, 0.4, 0.5))
    flows = tuple(to_si(q, "cfm") for q in (100, 180, 200))
    base = CutSummary(
        cut_id="c", port_name="Intake 1", direction="intake", number=2, name="bowl", newest=True,
        section=to_si(1.7, "in2"), throat=to_si(1.65, "in"), valve=to_si(1.94, "in"), volume=to_si(118.0, "cc"),
        is_share=False, setup=SetUp(id="s", direction="intake"), gain=None, seconds=None, lifts=lifts, flows=flows,
    )  # fmt: skip
    return replace(base, **changed)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("text", "day"),
    [
        ("2026-11-26", TODAY),
        ("2026-11-26T10:00:00+00:00", TODAY),
        ("", None),
        (None, None),
        ("soon", None),
        ("2026-13-01", None),
        ("26.11.2026", None),
    ],
)
def test_a_day_is_read_or_there_is_none(text: str | None, day: date | None) -> None:
    assert read_day(text) == day


@pytest.mark.parametrize(
    ("day", "words"),
    [
        (TODAY, "Thu"),
        (date(2026, 12, 2), "Wed"),
        (date(2026, 12, 3), "3 Dec"),
        (date(2026, 11, 25), "25 Nov"),
        (date(2027, 1, 4), "4 Jan 2027"),
        (date(2025, 11, 26), "26 Nov 2025"),
    ],
)
def test_a_day_is_said_as_a_shop_says_it(day: date, words: str) -> None:
    assert day_words(day, TODAY) == words


@pytest.mark.parametrize(("promise", "late"), [("2026-11-24", 2), ("2026-11-26", 0), ("2026-11-30", -4), (None, 0)])
def test_days_past_the_promise(promise: str | None, late: int) -> None:
    assert days_late(entry(promise_date=promise), TODAY) == late
    done = entry(promise_date=promise, state=JobState.HANDED_OVER)
    assert days_late(done, TODAY) == 0, "what was handed over is late no more"


@pytest.mark.parametrize(
    ("changed", "shape", "words", "beside"),
    [
        ({}, "square", "on the bench", "20 Nov"),
        ({"promise_date": "2026-11-28"}, "square", "on the bench", "promised Sat"),
        ({"promise_date": "2026-11-25"}, "late", "1 day late", "promised 25 Nov"),
        ({"promise_date": "2026-11-20"}, "late", "6 days late", "promised 20 Nov"),
        ({"state": JobState.WAITING, "waits_for": "seats"}, "hatched", "waits: seats", "20 Nov"),
        ({"state": JobState.WAITING}, "hatched", "waits", "20 Nov"),
        ({"state": JobState.LEFT}, "dashed", "not finished", "20 Nov"),
        ({"state": JobState.HANDED_OVER, "handed_over": "2026-11-22"}, "tick", "handed over", "22 Nov"),
        ({"archived": True, "handed_over": "2025-03-01"}, "box", "archive", "1 Mar 2025"),
        ({"binned": "2026-11-23", "archived": True}, "box", "in the bin", "23 Nov"),
        ({"date": None}, "square", "on the bench", ""),
    ],
)
def test_where_a_job_stands_is_told_by_shape_and_words(
    changed: dict[str, object], shape: str, words: str, beside: str
) -> None:
    found = state_words(entry(**changed), TODAY)
    assert (found.shape, found.words, found.beside) == (shape, words, beside)


def test_every_filter_takes_what_its_words_say() -> None:
    jobs = {
        "on the bench": entry(),
        "waiting": entry(state=JobState.WAITING),
        "promised": entry(promise_date="2026-12-01"),
        "late": entry(promise_date="2026-11-01"),
        "handed over": entry(state=JobState.HANDED_OVER),
        "archive": entry(archived=True),
        "bin": entry(binned="2026-11-01", archived=True),
    }
    takes = {f.words: {name for name, e in jobs.items() if f.takes(e, TODAY)} for f in FILTERS}
    for words, found in takes.items():
        if words != "all states":
            assert words in found, words
    assert takes["bin"] == {"bin"}, "what is in the bin is nowhere else"
    assert takes["archive"] == {"archive"}
    assert takes["late"] == {"late"}
    assert takes["promised"] == {"promised", "late"}
    assert takes["all states"] == set(jobs) - {"archive", "bin"}


def test_the_cut_that_met_the_question_speaks_else_the_newest_intake() -> None:
    exhaust, intake, best = cut(cut_id="e", direction="exhaust"), cut(cut_id="i"), cut(cut_id="b")
    assert speaking_cut([exhaust, intake], best) is best
    assert speaking_cut([exhaust, intake], None) is intake
    assert speaking_cut([exhaust], None) is exhaust
    assert speaking_cut([], None) is None


def test_a_plate_shows_what_was_asked_for_first() -> None:
    question = Question(wishes=(Wish("throat", 0.042, 0.04, 0.044), Wish("flow", 0.09, 0.08, 0.1, to_si(0.45, "in"))))
    plate = plate_of(entry(), [cut()], None, question, to_si(0.45, "in"), US, TODAY)
    assert plate.line == "Brandt · 4 cyl, aluminium · T20 · intake 1, cut 2"
    throat, section, flow = plate.figures
    assert (throat.text, throat.asked) == ("1.650", True)
    assert throat.caption.startswith("throat")
    assert not section.asked
    assert flow.asked
    assert 180 < float(flow.text) < 200
    assert flow.caption == "at 0.450"
    assert plate.curves[0][0] == "intake"
    assert plate.spoken.startswith("Tillow 2.0. Brandt")


def test_what_was_never_flowed_or_not_so_far_says_so() -> None:
    nothing = plate_of(
        entry(customer="", material=None, cylinders=None, casting=""), [], None, Question(), 0.01, US, TODAY
    )
    assert nothing.line == "own"
    assert [(f.text, f.caption) for f in nothing.figures] == [("–", "not flowed yet")]
    short = plate_of(entry(), [cut()], None, Question(), to_si(0.7, "in"), US, TODAY)
    assert short.figures[-1].text == "–", "no flow is made up beyond what was flowed"
    share = plate_of(entry(), [cut(is_share=True)], None, Question(), to_si(0.4, "in"), US, TODAY)
    assert share.figures[-1].caption == "index only"
    assert share.curves == (), "an index is no curve of flow"


def test_figures_are_in_the_users_units() -> None:
    us, metric = (plate_of(entry(), [cut()], None, Question(), to_si(0.4, "in"), u, TODAY) for u in (US, METRIC))
    assert us.figures[0].text == "1.700"
    assert metric.figures[0].text != us.figures[0].text
    assert us.figures[-1].text == "180.0"
    assert float(metric.figures[-1].text) == pytest.approx(180 * 0.4719474, abs=0.01)


def test_orders() -> None:
    a = entry(id="a", title="beta", date="2026-01-01", promise_date="2026-12-24")
    b = entry(id="b", title="Alpha", date="2026-06-01")
    c = entry(id="c", title="gamma", date=None, promise_date="2026-12-01")
    order = {by: [e.id for e in sorted_entries([a, b, c], by)] for by, _ in SORTS}
    assert order["nearest"] == ["a", "b", "c"], "as the search gave them"
    assert order["newest"] == ["b", "a", "c"]
    assert order["title"] == ["b", "a", "c"], "large letters and small alike"
    assert order["promise"] == ["c", "a", "b"]
