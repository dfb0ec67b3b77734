"""The whole head's list: its order, what a copy and a cut are worth, what waits for what, an evening filled from it.
Common practice, no source, where no other is named."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from tests.core.test_work import street_head
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.copying import Answer, copies
from ventrix.core.model.cut import Fault, WallReading
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import PartOfJob, Wait
from ventrix.core.model.kinds import FaultKind, FaultState, Place, Use
from ventrix.core.next_hour.evening import SETTING_UP, evening
from ventrix.core.next_hour.work_item import ItemKind, WaitsFor, WorkItem, in_time, linked
from ventrix.core.next_hour.work_list import WorkList, work_list
from ventrix.core.quantity.refused import Refused
from ventrix.demo.job import demo_benches, demo_job

TODAY = date(2026, 12, 1)


def listed(job: Job) -> WorkList:
    return work_list(Findings(job, benches=demo_benches()), TODAY)


def looked_over(job: Job) -> Job:
    """Every port gone through for faults, and every usual place of it read."""
    ports = []
    for port in job.ports:
        walls = tuple(
            WallReading(id=f"{port.id} {place}", place=place, thickness=0.006)
            for place in Place
            if place not in (Place.CHAMBER, Place.SEAT, Place.ALL_OVER)
        )
        cuts = (*port.cuts[:-1], replace(port.cuts[-1], walls=(*port.cuts[-1].walls, *walls)))
        faults = tuple(replace(fault, state=FaultState.GONE) for fault in port.faults)
        ports.append(replace(port, cuts=cuts, faults=faults, faults_looked_at="2026-11-01"))
    return replace(job, ports=tuple(ports), flatness=0.00005)


DEMO = demo_job()
READY = looked_over(DEMO)


def test_a_dirty_head_is_cleaned_first_and_nothing_is_cut_on_it() -> None:
    found = listed(street_head())
    assert found.next is not None
    assert found.next.what == "clean Street head"
    assert found.next.frees > 40
    assert all(item.waits for item in found.items if item.kind in (ItemKind.CUT, ItemKind.COPY, ItemKind.SEAT))


def test_a_crack_comes_before_everything_and_holds_its_port() -> None:
    crack = Fault(id="k", kind=FaultKind.CRACK, place="bowl")
    job = replace(READY, ports=(replace(READY.ports[0], faults=(crack,)), *READY.ports[1:]))
    found = listed(job)
    assert found.items[0].what == "show the machine shop the crack at the bowl of Intake 1"
    cuts = [i for i in found.items if i.kind is ItemKind.CUT and i.port is not None and i.port.name == "Intake 1"]
    assert cuts and all("the machine shop sees its crack" in [w.words for w in i.waits] for i in cuts)


def test_what_waits_says_for_what_and_is_freed_by_it() -> None:
    found = {item.key: item for item in listed(DEMO).items}
    copy = (
        found["copy intake-3"]
        if "copy intake-3" in found
        else next(i for i in found.values() if i.kind is ItemKind.COPY)
    )
    assert copy.waits and all(wait.key in found for wait in copy.waits)
    assert all(found[wait.key].frees > 0 for wait in copy.waits)
    freed = {item.key: item for item in listed(READY).items}
    assert not freed[copy.key].waits


def test_a_cut_on_the_model_is_worth_every_port_of_its_kind_and_costs_its_copies() -> None:
    found = listed(READY)
    intakes = sum(p.of_head and p.kind == "intake" for p in READY.ports)
    alone = replace(READY, ports=tuple(p for p in READY.ports if p.name in ("Intake 1", "Exhaust 1")))
    one = {i.key: i for i in listed(alone).items}
    many = [i for i in found.items if i.kind is ItemKind.CUT and i.worth is not None and i.key in one and i.flowing]
    checked = 0
    for item in many:
        if item.port is None or item.port.kind != "intake" or item.guess:
            continue
        single = one[item.key]
        assert item.worth == pytest.approx(intakes * (single.worth or 0.0), rel=1e-6)
        assert item.seconds == single.seconds, "what it takes now is the model's own"
        assert item.copying == pytest.approx((intakes - 1) * 0.7 * (single.seconds - single.flowing), rel=1e-6)
        assert item.rate == pytest.approx((item.worth or 0.0) / (item.seconds + item.copying))
        checked += 1
    assert checked


def test_best_hour_first_among_what_can_be_done() -> None:
    free = [i for i in listed(READY).items if not i.waits]
    rates = [max(i.rate, i.leads) for i in free]
    assert rates == sorted(rates, reverse=True)
    assert free[0].worth is not None and free[0].worth > 0


def test_what_is_out_and_late_is_asked_about_and_parts_are_ordered() -> None:
    late = Wait(id="w", stage="valve job", who="seat shop", promised="2026-11-20")
    part = PartOfJob(id="p", kind="spring", name="springs", count=8)
    found = listed(replace(READY, waits=(late,), parts=(part,)))
    assert found.items[0].what == "ask seat shop about the valve job, promised for 2026-11-20"
    assert "order 8 springs" in [i.what for i in found.items]
    assert not [i for i in found.items if i.kind is ItemKind.SEAT and i.key.startswith("seats")], (
        "what is out is nobody's"
    )


def test_a_trucks_intakes_are_blocked_past_blending_with_the_reason() -> None:
    found = listed(replace(READY, use=Use.TRUCK.value))
    blocked = [i for i in found.items if i.kind is ItemKind.CUT and i.port is not None and i.port.kind == "intake"]
    for item in blocked:
        told = any("exhausts come first" in w.words for w in item.waits)
        assert told is (item.place not in (Place.BOWL, Place.THROAT) and item.stage != "chamber")


def test_a_copy_of_the_same_state_is_worth_what_the_model_gained() -> None:
    """Demo: cut 3 over cut 0, read off the compare command's own pair."""
    findings = Findings(READY, benches=demo_benches())
    model = READY.ports[0]
    gain = findings.gain(findings.pair(model, model.cuts[0], model.cuts[-1]))
    assert gain is not None
    copies = [i for i in listed(READY).items if i.kind is ItemKind.COPY and i.worth is not None]
    assert copies
    assert any(i.worth == pytest.approx(gain.value, rel=1e-9) for i in copies)


def item(
    key: str, minutes: float, worth: float | None = None, waits: tuple[str, ...] = (), flows: bool = False
) -> WorkItem:
    needs = tuple(WaitsFor(w, w) for w in waits)
    seconds = 60 * minutes
    return WorkItem(
        key, key, ItemKind.CUT, None, "", seconds, "", 0, worth=worth, waits=needs, flowing=600.0 if flows else 0.0
    )


def test_an_evening_holds_what_fits_and_sets_the_bench_up_once() -> None:
    items = linked([item("a", 30, 3.0, flows=True), item("b", 30, 2.0, flows=True), item("c", 60, 1.0)])
    names = lambda hours: [i.key for i in evening(items, 3600 * hours)]  # noqa: E731
    assert names(1.4) == ["a", "b"]  # 30 + 30 and twenty minutes of setting up, once
    assert names(0.84) == ["a"]
    assert names(0.5) == []
    assert SETTING_UP == 1200.0
    with pytest.raises(Refused, match="some time"):
        evening(items, 0.0)


def test_a_look_is_worth_what_it_frees_and_goes_before_it() -> None:
    items = linked(
        [item("wall", 5), item("cut", 45, 9.0, ("wall",)), item("other", 50, 1.0), item("never", 5, 99.0, ("x",))]
    )
    assert [i.key for i in evening(items, 3600)] == ["never", "wall", "cut"], "a wait for what is not listed is over"
    walled = {i.key: i for i in items}["wall"]
    assert walled.frees == 1
    assert walled.leads == pytest.approx(9.0 / (50 * 60))
    assert "1 thing waits for it" in walled.sentence


def test_weights_are_the_engines_else_the_shares_and_say_so() -> None:
    by_engine = listed(READY)
    assert by_engine.weights["intake"] == 1.0
    assert 0.0 < by_engine.weights["exhaust"] <= 2.0
    assert by_engine.weighed_by == "by the engine's volumetric efficiency"
    bare = listed(replace(READY, bore=None))
    assert "an estimate" in bare.weighed_by
    assert bare.weights["exhaust"] in (0.3, 1.0)
    assert "not known" in listed(street_head()).weighed_by


@pytest.mark.parametrize("job", [DEMO, READY], ids=["as it stands", "looked over"])
def test_no_work_that_has_to_read_a_wall_first_is_free_before_that_wall_is_on_the_list(job: Job) -> None:
    """Asked of the copying itself: whatever it says to read first holds the copy, though the place was read and worked
    since, or is none that is usually read."""
    found = {i.key: i for i in listed(job).items}
    findings = Findings(job, benches=demo_benches())
    held = 0
    for port in (p for p in job.ports if p.of_head and f"copy {p.id}" in found):
        model = developed_port(findings, port.kind)
        assert model is not None
        first = {c.place for c in copies(job, model, model.cuts[-1], port) if c.answer is Answer.READ_FIRST}
        waits = {wait.key for wait in found[f"copy {port.id}"].waits}
        assert {f"wall {port.id} {place}" for place in first} <= waits
        assert all(key in found for key in waits)
        held += len(first)
    assert held or job is READY


def cut_of(worth: float, seconds: float, copying: float, others: int) -> WorkItem:
    return WorkItem("cut m bowl", "cut", ItemKind.CUT, None, "bowl", seconds, "ridge", 0, worth=worth, copying=copying,
                    others=others, because="Brings much.")  # fmt: skip


def test_near_the_promise_a_cut_on_the_model_counts_where_it_can_still_be_copied() -> None:
    """Four ports: an hour for the cut, half an hour a copy; what is there to be copied already comes first."""
    cut = cut_of(worth=4.0, seconds=3600.0, copying=5400.0, others=3)
    wall = WorkItem("wall", "read", ItemKind.LOOK, None, "bowl", 600.0, "walls", 1)
    copy = WorkItem("copy", "copy", ItemKind.COPY, None, "bowl", 1200.0, "ridge", 0, waits=(WaitsFor("wall", "wall"),))
    expected = {
        9000.0: (4.0, 5400.0),
        7300.0: (3.0, 3600.0),
        5400.0: (2.0, 1800.0),
        3600.0: (1.0, 0.0),
        0.0: (1.0, 0.0),
    }
    for left, (worth, copying) in expected.items():
        (found,) = in_time([cut], left)
        assert (found.worth, found.copying) == (pytest.approx(worth), pytest.approx(copying)), left
    assert in_time([cut], 9000.0) == [cut], "there is time for all of it: nothing is said"
    (short,) = in_time([cut], 5400.0)
    assert short.because == "Brings much. There is time to bring it onto 1 of the other 3."
    with_copy = in_time([wall, copy, cut], 9000.0)
    assert with_copy[:2] == [wall, copy]
    assert with_copy[2].worth == pytest.approx(3.0), "half an hour of it is for the copy and its wall"


def test_a_promise_of_today_leaves_the_models_next_cut_for_the_copies() -> None:
    """By the days until it at six hours: promised for next month it is cut on, for today it is copied."""
    of_cuts = []
    for promise in ("2027-06-01", TODAY.isoformat()):
        found = listed(replace(READY, promise_date=promise))
        of_cuts.append({i.key: i.worth for i in found.items if i.others and i.worth})
    later, today = of_cuts
    assert set(later) == set(today) and later
    assert all(today[key] <= later[key] for key in later)
    assert any(today[key] < later[key] for key in later)


def test_where_there_is_no_time_to_copy_all_the_best_part_comes_first() -> None:
    """A promise of today: what is left of a copy is the places with the best hour, and it says which."""
    whole, part = (
        next(
            i for i in work_list(Findings(READY, benches=demo_benches()), TODAY, left=left).items if i.part or i.places
        )
        for left in (1e9, 60.0)
    )
    assert whole.part is not None and whole.part.key == part.key == whole.key
    assert part.part is None and set(part.places) < set(whole.places)
    assert part.seconds < whole.seconds and part.rate > whole.rate
    assert all(place in part.what for place in part.places)
    assert {w.key for w in part.waits} <= {w.key for w in whole.waits}
