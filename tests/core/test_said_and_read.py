"""What is typed, named and dated: sizes in thousandths, bare numbers, ports by name, moments, and refusals."""

from __future__ import annotations

import pytest

from ventrix.core.calculators.answer import calculate
from ventrix.core.calculators.bare_numbers import ask_unit
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.cut import Cut, Operation, Port, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun, words_of
from ventrix.core.model.port_names import port_named, ports_named
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.moments import came_after
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small

PORTS = tuple(
    Port(id=f"{kind}{n}", name=f"{kind.capitalize()} {n}", kind=kind, witness=kind == "intake" and n == 4)
    for kind in ("intake", "exhaust")
    for n in (1, 2, 3, 4)
)


@pytest.mark.parametrize(
    ("text", "unit", "inches", "as_thousandths"),
    [
        ("550", "in", 0.550, True),
        ("0.550", "in", 0.550, False),
        ("5", "in", 0.005, True),
        ("4", "in", 4.0, False),
        ("60", "in", 0.060, True),
        ("1.5", "in", 1.5, False),
        ("14mm", "in", 14 / 25.4, False),
        ("12", "mm", 12 / 25.4, False),
    ],
)
def test_thousandths_by_one_rule(text: str, unit: str, inches: float, as_thousandths: bool) -> None:
    """ "Five fifty" is 0.550 in: common practice, no source; the inch is 25.4 mm by definition."""
    found = read_small(text, unit)
    assert found.value == pytest.approx(inches * 0.0254)
    assert found.as_thousandths is as_thousandths


def test_a_metric_shop_is_asked() -> None:
    with pytest.raises(Refused, match="550 mm, or thousandths"):
        read_small("550", "mm")


@pytest.mark.parametrize(
    ("name", "unit", "text", "asked"),
    [
        ("bore", "mm", "4.36", "inches"),
        ("stroke", "mm", "3.85", "inches"),
        ("valve_diameter", "mm", "2.08", "inches"),
        ("bore", "mm", "4.36in", ""),
        ("bore", "mm", "98.4", ""),
        ("test_pressure", "Pa", "28", "inH2O"),
        ("flow", "cfm", "4.36", ""),
    ],
)
def test_a_bare_number_far_off_asks_its_unit(name: str, unit: str, text: str, asked: str) -> None:
    if not asked:
        ask_unit(name, unit, text)
        return
    with pytest.raises(Refused, match=f"taken as {unit}.*{asked}"):
        ask_unit(name, unit, text)


def test_a_bowl_may_be_larger_than_its_valve() -> None:
    """2.10 over 2.08 is 100.96 %."""
    answer = calculate("throat_percent", {"valve_diameter": "2.08", "throat_diameter": "2.10"})
    assert answer.outputs["percent"][0] == pytest.approx(100.96, abs=0.01)


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("Intake 2, exhaust 1", ["Intake 2", "Exhaust 1"]),
        ("i2; E1", ["Intake 2", "Exhaust 1"]),
        ("all intakes", ["Intake 2", "Intake 3"]),
        ("All  exhausts, i3", ["Exhaust 1", "Exhaust 2", "Exhaust 3", "Exhaust 4", "Intake 3"]),
        ("all", ["Intake 2", "Intake 3", "Exhaust 1", "Exhaust 2", "Exhaust 3", "Exhaust 4"]),
        ("", []),
    ],
)
def test_ports_are_named_in_full_in_short_or_all_of_a_kind(text: str, names: list[str]) -> None:
    assert [p.name for p in ports_named(PORTS, text, PORTS[0])] == names


def test_a_name_that_is_none_says_those_there_are() -> None:
    with pytest.raises(Refused, match="'intake 9' is not one of Intake 2"):
        ports_named(PORTS, "intake 9", PORTS[0])
    with pytest.raises(Refused, match="no other port yet"):
        port_named((), "Intake 1")
    assert port_named(PORTS, " INTAKE 4 ").witness


@pytest.mark.parametrize(
    ("one", "other", "after"),
    [
        ("2026-05-02T10:00:00+02:00", "2026-05-02T08:30:00+01:00", True),  # 08:00 and 07:30 universal time
        ("2026-05-02T10:00:00+02:00", "2026-05-02T10:00:00+01:00", False),
        ("2026-05-03", "2026-05-02T23:59:00+00:00", True),
        ("2026-05-02", "2026-05-02T23:59:00+00:00", None),
        (None, "2026-05-02", None),
    ],
)
def test_which_moment_came_first(one: str | None, other: str, after: bool | None) -> None:
    """RFC 3339: an offset is taken off for universal time."""
    assert came_after(one, other) is after


@pytest.mark.parametrize(
    ("worked_at", "counts"),
    [("2026-05-02T11:00:00+00:00", True), ("2026-05-02T08:00:00+00:00", False), (None, True)],
)
def test_a_wall_worked_from_behind_the_same_day_loses_it(worked_at: str | None, counts: bool) -> None:
    """Read at nine; the next port opened at eleven, at eight, or at an hour nobody noted: then the work is counted."""
    wall = WallReading(id="w", place="pinch", band="left", thickness=4e-3, behind_port_id="b", date="2026-05-02",
                       at="2026-05-02T09:00:00+00:00")  # fmt: skip
    work = Operation(id="o", kind="", works=(Work(id="k", place="pinch", side="right", depth=1e-3),), date="2026-05-02",
                     at=worked_at)  # fmt: skip
    here = Port(id="a", name="1", kind="intake", cuts=(Cut(id="a0", number=0, walls=(wall,)),))
    cuts = Cut(id="b0", number=0), Cut(id="b1", number=1, date="2026-05-02", operations=(work,))
    next_one = Port(id="b", name="2", kind="intake", cuts=cuts)
    (found,) = walls_at(Job(id="j", title="j", ports=(here, next_one)), here, here.cuts[0])
    assert found.taken_behind == (pytest.approx(1e-3) if counts else 0.0)


def test_a_refusal_is_a_code_and_its_figures() -> None:
    refused = Refused("a port has cuts 0 to {}", 99, field="cut")
    assert (refused.code, refused.figures, refused.field) == ("a port has cuts 0 to {}", (99,), "cut")
    assert str(refused) == "a port has cuts 0 to 99"
    assert str(Refused("no {figures} in it")) == "no {figures} in it"


@pytest.mark.parametrize(("noun", "words"), [(FlowRun, "flow run"), (WallReading, "wall reading"), (Cut, "cut")])
def test_conflicts_name_things_as_a_porter_does(noun: type[Noun], words: str) -> None:
    assert words_of(noun) == words
