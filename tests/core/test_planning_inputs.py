"""What the chain is told of a job: works between states, how much of an edge they were, sections and edges by place."""

from __future__ import annotations

import numpy as np
import pytest

from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Operation, Port, Station, Work
from ventrix.core.model.job_parts import Valve
from ventrix.core.planning.of_job import (
    AT,
    FLUSH,
    edge_share,
    edges_of,
    sections_of,
    worked_before,
    works_between,
)

MM = 1e-3


def work(place: str, depth_mm: float | None = None, **more: object) -> Work:
    return Work(id=f"{place}-{depth_mm}-{more}", place=place, depth=None if depth_mm is None else depth_mm * MM, **more)  # type: ignore[arg-type]


def port(*cuts: tuple[Work, ...]) -> Port:
    made = tuple(
        Cut(id=f"c{n}", number=n, operations=(Operation(id=f"o{n}", kind="rough", works=works),) if works else ())
        for n, works in enumerate(((), *cuts))
    )
    return Port(id="p", name="Intake 1", kind="intake", cuts=made)


def test_depths_of_a_place_add_up_between_two_states() -> None:
    found = works_between(port((work("bowl", 0.5),), (work("bowl", 0.3), work("guide", 0.2))), 0, 2)
    told = {w.place: w for w in found}
    assert told["bowl"].depth == pytest.approx(0.8 * MM)
    assert told["guide"].depth == pytest.approx(0.2 * MM)
    assert not told["bowl"].before
    (again,) = works_between(port((work("bowl", 0.5),), (work("bowl", 0.3),)), 1, 2)
    assert again.before, "a second pass brings less"


def test_only_what_lies_between_counts() -> None:
    made = port((work("bowl", 0.5),), (work("guide", 0.2),))
    assert [w.place for w in works_between(made, 1, 2)] == ["guide"]
    assert works_between(made, -1, 2) == (), "before the first flowed state there is nothing to compare with"
    assert works_between(made, 2, 2) == ()


def test_a_depth_until_flush_is_half_a_millimetre_and_none_is_nothing() -> None:
    (flush,) = works_between(port((work("bowl", None, until="flush"),)), 0, 1)
    assert flush.depth == FLUSH == 0.5 * MM
    assert works_between(port((work("bowl"),)), 0, 1) == ()
    assert works_between(port((work("dowel", 1.0),)), 0, 1) == (), "a place that is no part of the chain"


def test_a_place_that_was_worked_earlier_is_known_as_such() -> None:
    made = port((work("bowl", 0.5),), (work("guide", 0.2),))
    assert worked_before(made, 0) == frozenset()
    assert worked_before(made, 1) == {"bowl"}
    assert worked_before(made, 2) == {"bowl", "guide"}


@pytest.mark.parametrize(
    ("side", "hours", "place", "share"),
    [
        (None, (None, None), "bowl", 1.0),
        ("floor", (None, None), "bowl", 0.25),
        ("left", (None, None), "pinch", 0.5),
        ("floor", (None, None), "short side", 1.0),
        (None, (10.0, 2.0), "bowl", 4 / 12),
        (None, (3.0, 6.0), "throat", 3 / 12),
        (None, (0.0, 12.0), "throat", 1.0),
    ],
)
def test_how_much_of_an_edge_a_side_or_hours_of_the_clock_are(
    side: str | None, hours: tuple[float | None, float | None], place: str, share: float
) -> None:
    assert edge_share(place, side, *hours) == pytest.approx(share)


def test_sides_of_different_depths_count_by_their_depth() -> None:
    """0.6 mm all round and 0.3 mm of a quarter: (0.6 + 0.075) of 0.9 mm of depth is an edge of 0.75."""
    (bowl,) = works_between(port((work("bowl", 0.6), work("bowl", 0.3, side="floor"))), 0, 1)
    assert bowl.depth == pytest.approx(0.9 * MM)
    assert bowl.edge == pytest.approx(0.75)


def measured(areas_mm2: dict[str, float], throat_mm: float | None = 40.0) -> tuple[Port, Cut, Valve]:
    length = 0.100
    stations = tuple(
        Station(id=place, name=place, along=AT[place] * length, area=area * 1e-6)  # type: ignore[index]
        for place, area in areas_mm2.items()
    )
    cut = Cut(
        id="c", number=0, throat_diameter=None if throat_mm is None else throat_mm * MM, floor_length=length,
        roof_length=length, stations=stations,
    )  # fmt: skip
    valve = Valve(id="v", head_diameter=0.046, stem_diameter=0.008)
    return Port(id="p", name="Intake 1", kind="intake", valve_id="v", cuts=(cut,)), cut, valve


def test_sections_are_those_that_were_measured_and_the_throat_is_a_ring() -> None:
    areas = {"opening": 1300.0, "pinch": 1050.0, "guide": 1150.0, "short side": 1120.0, "bowl": 1250.0}
    made, cut, valve = measured(areas)
    found, known = sections_of(unroll(made, cut, valve), made, cut, 0.008)
    for place, area in areas.items():
        assert found[place] == pytest.approx(area * 1e-6, rel=0.01), place
    assert found["throat"] == pytest.approx(np.pi / 4 * (0.040**2 - 0.008**2))
    assert known == {*areas, "throat"}


def test_what_nobody_measured_is_no_measurement() -> None:
    made, cut, valve = measured({"pinch": 1050.0}, None)
    found, known = sections_of(unroll(made, cut, valve), made, cut, 0.008)
    assert known == {"pinch"}
    assert all(area > 0 for area in found.values())


def test_edges_are_the_parts_of_a_sections_own_edge() -> None:
    """Of a section's edge the walls are worked at the pinch, the roof at the guide, the floor at the short side; a
    throat is worked all round."""
    made, cut, valve = measured({"opening": 1300.0, "pinch": 1050.0, "short side": 1120.0, "bowl": 1250.0})
    here = unroll(made, cut, valve)
    edges = edges_of(here)
    assert set(edges) == {*(p.value for p in AT), "throat"}
    assert edges["throat"] == pytest.approx(np.pi * float(here.width(here.length)))
    whole = sum(float(v) for v in here.bands(0.0).values())
    assert edges["opening"] == pytest.approx(whole)
    assert 0 < edges["guide"] < whole / 2
    assert 0 < edges["short side"] < whole / 2
    assert edges["pinch"] > edges["short side"], "two walls against a floor"
