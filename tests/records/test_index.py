"""The book's index: jobs found by anything, and cuts beside cuts of other jobs, with nothing opened for it."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.job_summary import CutSummary, summary_of
from ventrix.core.judging.like_sizes import flow_at, middle_half, size_distance, why_left_out
from ventrix.core.judging.worth_the_hours import hours_for, own_pace
from ventrix.core.model.kinds import JobState, LibraryKind
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.shelf import demo_claim, shelf
from ventrix.records.bad_input import Conflict
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index, Question, Wish
from ventrix.records.library.items import claim_of
from ventrix.rooms.book.question import read_question
from ventrix.rooms.display_units import METRIC, US
from ventrix.workspace.shelf import Shelf
from ventrix.workspace.workspace import Workspace

TODAY = date(2026, 5, 20)


@pytest.fixture
def shop(book_at: Path | str):  # type: ignore[no-untyped-def]
    """A shop's book of nine jobs, indexed."""
    with Book.open(book_at) as book:
        book.add_job(demo_job(), benches=demo_benches())
        for job in shelf(TODAY):
            book.add_job(job)
        index = Index(book)
        for job_id in index.behind():
            index.renew(job_id)
        yield book, index


def titles(index: Index, text: str) -> list[str]:
    return [e.title for e in index.find(read_question(text, US).question)]


def test_every_word_of_a_job_finds_it(shop) -> None:  # type: ignore[no-untyped-def]
    _, index = shop
    assert titles(index, "") == sorted(titles(index, ""), key=str.lower)
    assert len(titles(index, "")) == 9
    assert titles(index, "ilves") == ["Ostrey twin, left", "Ostrey twin, right"]
    assert titles(index, "iron maddox") == []
    assert titles(index, "guides") == ["Corvane 22H, second head"]
    assert titles(index, "2024-09") == ["Corvane 20H, first try"]
    assert "Corvane 22H head" in titles(index, "port off its gasket"), "a fault of the casting"
    assert titles(index, "50% _") == [], "what a database takes for a wildcard is a letter here"


def test_figures_find_cuts_and_the_nearest_comes_first(shop) -> None:  # type: ignore[no-untyped-def]
    _, index = shop
    found = index.find(read_question("section 1.7 throat 1.65", US).question)
    assert len(found) > 2
    cuts = index.cuts([e.best_cut_id for e in found])
    for entry in found:
        best = cuts[entry.best_cut_id]
        assert from_si(best.section or 0, "in2") == pytest.approx(1.7, rel=0.0501)
        assert from_si(best.throat or 0, "in") == pytest.approx(1.65, rel=0.0251)
    assert [e.off for e in found] == sorted(e.off for e in found)
    flow = index.find(read_question("190 at 0.450", US).question)
    assert flow
    cuts = index.cuts([e.best_cut_id for e in flow])
    for entry in flow:
        at = flow_at(cuts[entry.best_cut_id], to_si(0.45, "in"))
        assert at is not None and from_si(at, "cfm") == pytest.approx(190, rel=0.0301)
    assert titles(index, "section 9") == []


def test_an_entry_is_behind_from_an_edit_until_it_is_made_anew(shop) -> None:  # type: ignore[no-untyped-def]
    book, index = shop
    assert index.behind() == []
    space = Workspace.open(book, demo_job().id)
    space.apply("customer", replace(space.job, customer="A. Sorley", note="needs zirconia guides"))
    assert index.behind() == [demo_job().id]
    entry = next(e for e in index.find() if e.id == demo_job().id)
    assert entry.customer == "A. Sorley", "what stands in the job itself is never behind"
    assert titles(index, "zirconia") == []
    index.renew(demo_job().id)
    assert titles(index, "zirconia") == ["Corvane 22H head"]
    index.renew("no such job")


def test_neighbours_are_those_of_the_size_and_what_cannot_stand_beside_it_is_named(shop) -> None:  # type: ignore[no-untyped-def]
    _, index = shop
    mine = next(c for _, _, c in index.flowed() if c.cut_id == "intake-3")
    near = index.neighbours(mine)
    assert near and all(n.cut.direction == "intake" for n in near)
    assert all(n.cut.cut_id != "intake-3" for n in near)
    assert [n.distance for n in near] == sorted(n.distance for n in near)
    borrowed = [n for n in near if n.cut.setup.bench == "borrowed"]
    assert borrowed and all(n.left_out == "other bench" for n in borrowed)
    middle = middle_half([n.cut for n in near if not n.left_out], to_si(0.45, "in"))
    assert middle is not None
    flows = sorted(flow_at(n.cut, to_si(0.45, "in")) or 0 for n in near if not n.left_out)
    inside = [q for q in flows if middle.low <= q <= middle.high]
    assert len(flows) / 2 - 1 <= len(inside) <= len(flows) / 2 + 2, "half of them lie inside"


def cut(**values: object) -> CutSummary:
    usual: dict[str, object] = {
        "cut_id": "c", "port_name": "Intake 1", "direction": "intake", "number": 1, "name": "", "newest": True,
        "section": None, "throat": None, "valve": None, "volume": None, "is_share": False,
        "setup": SetUp(id="s", direction="intake", test_pressure=7000.0, bench="b", bore=0.09, entry="radius",
                       valve="job", plug="in", centred=True),
        "gain": None, "seconds": None, "lifts": (0.001, 0.003), "flows": (0.01, 0.02),
    }  # fmt: skip
    return CutSummary(**(usual | values))  # type: ignore[arg-type]


def test_likeness_of_sizes() -> None:
    a = cut(section=0.001, throat=0.04)
    assert size_distance(a, a) == 0
    assert size_distance(a, cut(section=0.001 * np.exp(0.05), throat=0.04 * np.exp(0.025))) == pytest.approx(1)
    assert size_distance(a, cut(valve=0.046)) is None, "no size is known of both"
    assert size_distance(a, cut(section=0.001)) == 0, "by what is known of both alone"


@pytest.mark.parametrize(
    ("change", "why"),
    [
        ({}, ""),
        ({"bench": "another"}, "other bench"),
        ({"bore": 0.1}, "other bore"),
        ({"test_pressure": 6200.0}, "other pressure"),
        ({"entry": "bare"}, "other entry"),
        ({"bore": None}, "conditions not recorded"),
    ],
)
def test_what_may_stand_beside_what_is_decided_as_in_compare(change: dict[str, object], why: str) -> None:
    a = cut()
    assert why_left_out(a, cut(setup=replace(a.setup, **change))) == why  # type: ignore[arg-type]
    assert why_left_out(a, cut(is_share=True)) == "uncalibrated bench"


def test_flow_between_tested_lifts() -> None:
    assert flow_at(cut(), 0.002) == pytest.approx(0.015)
    assert flow_at(cut(), 0.0009) is None and flow_at(cut(), 0.0031) is None
    assert middle_half([cut(flows=(0.01, 0.02 + 0.001 * i)) for i in range(3)], 0.003) is None
    found = middle_half([cut(flows=(0.01, 0.02 + 0.001 * i)) for i in range(5)], 0.003)
    # Hyndman & Fan (1996), definition 7: of five values the quartiles are the second and the fourth.
    assert found is not None and (found.low, found.high, found.count) == (pytest.approx(0.021), pytest.approx(0.023), 5)


def test_own_pace_and_the_hours_a_gain_would_take() -> None:
    hour = 3600.0
    past = [cut(gain=to_si(g, "cfm"), seconds=hour) for g in (2.0, 4.0, 6.0, 8.0)]
    pace = own_pace(past, "intake")
    assert pace is not None and from_si(pace.mean * hour, "cfm") == pytest.approx(5)
    assert from_si(pace.low * hour, "cfm") == pytest.approx(3.5) and from_si(pace.high * hour, "cfm") == pytest.approx(
        6.5
    )
    hours = hours_for(to_si(13, "cfm"), pace)
    assert (hours.low / hour, hours.likely / hour) == (pytest.approx(2), pytest.approx(2.6))
    assert hours.high is not None and hours.high / hour == pytest.approx(13 / 3.5)
    assert own_pace(past[:3], "intake") is None and own_pace(past, "exhaust") is None
    losing = [cut(gain=to_si(g, "cfm"), seconds=hour) for g in (-3.0, -2.0, 6.0, 8.0)]
    pace = own_pace(losing, "intake")
    assert pace is not None and hours_for(to_si(9, "cfm"), pace).high is None


def test_a_summary_says_what_the_job_says() -> None:
    summary = summary_of(Findings(demo_job(), benches=demo_benches()))
    job = demo_job()
    assert summary.cuts == sum(len(p.cuts) for p in job.ports)
    assert summary.runs == sum(1 for _ in job.runs())
    assert {c.cut_id for c in summary.flowed} <= {c.id for p in job.ports for c in p.cuts}
    last = next(c for c in summary.flowed if c.cut_id == "intake-3")
    assert last.newest and from_si(last.volume, "cc") == pytest.approx(122.3) if last.volume else False


@pytest.mark.parametrize(
    ("text", "key", "low", "high"),
    [
        ("section 1.7", "section", 1.615, 1.785),
        ("about 2.4 in2", "section", 2.16, 2.64),
        ("throat 1.6 to 1.7", "throat", 1.6, 1.7),
        ("valve 2.02", "valve", 1.9796, 2.0604),
        ("cc 150-170", "volume", 150, 170),
        ("area 10,5 cm2", "section", 1.5461, 1.7088),
    ],
)
def test_figures_are_understood(text: str, key: str, low: float, high: float) -> None:
    understood = read_question(text, US)
    (wish,) = understood.question.wishes
    unit = {"section": "in2", "volume": "cc"}.get(key, "in")
    assert wish.key == key and understood.question.words == ()
    assert from_si(wish.low, unit) == pytest.approx(low, rel=1e-3)
    assert from_si(wish.high, unit) == pytest.approx(high, rel=1e-3)
    assert understood.said.startswith("read as: ")


@pytest.mark.parametrize(
    "text", ["", "throat", "at", "190", "section -3", "22H 16", "1.7.2 cc", "section 1e9999", "∞ cc"]
)
def test_whatever_is_typed_is_read_somehow(text: str) -> None:
    for units in (US, METRIC):
        assert isinstance(read_question(text, units).question, Question)


def test_the_shelf_keeps_and_takes_back(shop) -> None:  # type: ignore[no-untyped-def]
    book, index = shop
    opened = Workspace.open(book, demo_job().id)
    acts = Shelf(book, lambda: opened)
    acts.change("demo-pump", "state", state=JobState.WAITING, waits_for="valves")
    acts.change(demo_job().id, "archive", archived=True)
    assert opened.job.archived, "the open job's own workspace took it"
    assert book.load("demo-pump").waits_for == "valves"
    assert acts.undo() == "archive" and not opened.job.archived
    assert acts.undo() == "state" and book.load("demo-pump").state == JobState.OPEN
    assert acts.undo() is None
    twin = acts.duplicate(demo_job().id)
    assert twin.title == "Corvane 22H head, 2" and acts.duplicate(demo_job().id).title.endswith(", 3")
    assert [len(p.cuts) for p in twin.ports] == [1] * len(demo_job().ports) and not list(twin.runs())
    assert {v.head_diameter for v in twin.valves} == {v.head_diameter for v in demo_job().valves}
    assert twin.cam_lift == demo_job().cam_lift and twin.bin == () and twin.chambers == ()
    assert {s.bench for s in twin.setups} == {s.bench for s in demo_job().setups}
    acts.remove(twin.id)
    assert twin.id not in {e.id for e in index.find()}


def test_the_library_is_shared_and_merged_like_everything_else(book_at: Path | str) -> None:
    item = demo_claim()
    with Book.open(book_at) as mine, Book.open(book_at) as theirs:
        mine.write((None, item))
        (seen,) = theirs.library()
        assert seen == item and seen.kind == LibraryKind.CLAIM
        run, setup = claim_of(seen)
        assert run.setup_id == setup.id and run.id != "claim-run" and len(run.readings) == 12
        (here,) = mine.library()
        mine.write((here, replace(here, price=900.0)))
        theirs.write((seen, replace(seen, note="seen at the meet")))
        (both,) = mine.library()
        assert (both.price, both.note) == (900.0, "seen at the meet")
        mine.write((both, replace(both, price=800.0)))
        with pytest.raises(Conflict):
            theirs.write((both, replace(both, price=1.0)))
        (now,) = mine.library()
        assert now.price == 800.0
        mine.write((now, None))
        assert mine.library() == ()


def test_a_book_that_is_read_only_lists_and_refuses(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "book.sqlite"
    with Book.open(path) as book:
        book.add_job(demo_job())
    monkeypatch.setattr("ventrix.records.book.sqlite_file.os.access", lambda _path, _mode: False)
    with Book.open(path) as book:
        assert book.read_only and Index(book).behind() == []
        assert [e.title for e in Index(book).find()] == ["Corvane 22H head"]
        space = Workspace.open(book, demo_job().id)
        with pytest.raises(Exception, match="only be read"):
            space.apply("title", replace(space.job, title="x"))


def test_a_wish_that_no_cut_meets_in_full_finds_nothing(shop) -> None:  # type: ignore[no-untyped-def]
    _, index = shop
    wide = Wish("throat", 0.04, 0.0, 1.0)
    never = Wish("flow", 1.0, 0.99, 1.01, lift=to_si(0.45, "in"))
    assert index.find(Question((), (wide,))) and not index.find(Question((), (wide, never)))


@pytest.mark.parametrize("text", ["a\ud800b", "\x00", "%é\x00\ud800 190 at", "“\u202e”", "'; --"])
def test_no_word_makes_the_store_fall_over(tmp_path: Path, text: str) -> None:
    with Book.open(tmp_path / "words.sqlite") as book:
        book.add_job(demo_job())
        assert isinstance(Index(book).find(read_question(text, US).question), list)


def test_what_was_remembered_of_a_shelf_half_read_is_asked_anew(tmp_path: Path) -> None:
    with Book.open(tmp_path / "book.sqlite") as book:
        book.add_job(demo_job(), benches=demo_benches())
        for job in shelf(TODAY):
            book.add_job(job)
        space = Workspace.open(book, demo_job().id)
        assert not space.shop.paces(), "more are behind than are read while one waits"
        index = Index(book)
        for job_id in index.behind():
            index.renew(job_id)
        space.look_elsewhere()
        assert space.shop.paces(), "finished heads say what a stage takes"
