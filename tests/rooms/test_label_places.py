"""Labels beside points: checked by looking at every pair of boxes, which the placing itself does not do."""

from __future__ import annotations

from itertools import combinations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from ventrix.rooms.shared.label_places import Box, place_labels

FIELD = Box(0, 0, 600, 300)


def apart(a: Box, b: Box) -> bool:
    return (
        a.left + a.width <= b.left
        or b.left + b.width <= a.left
        or a.top + a.height <= b.top
        or b.top + b.height <= a.top
    )


@given(st.lists(st.tuples(st.floats(20, 580), st.floats(20, 280), st.floats(20, 70)), max_size=40))
def test_no_label_lies_on_another_or_on_a_point(points: list[tuple[float, float, float]]) -> None:
    at = np.array([(x, y) for x, y, _ in points]).reshape(-1, 2)
    found = place_labels(at, [w for *_, w in points], 18, FIELD, 9)
    boxes = [b for b in found if b is not None]
    assert all(apart(a, b) for a, b in combinations(boxes, 2))
    for x, y in at:
        assert all(apart(b, Box(x - 9, y - 9, 18, 18)) for b in boxes)
    for b in boxes:
        assert b.left >= 0 and b.top >= 0 and b.left + b.width <= 600 and b.top + b.height <= 300


def test_a_lone_point_has_its_label_and_one_at_the_edge_turns_it_inwards() -> None:
    (right,) = place_labels(np.array([[100.0, 100.0]]), [40], 18, FIELD, 9)
    (left,) = place_labels(np.array([[590.0, 100.0]]), [40], 18, FIELD, 9)
    assert right is not None and right.left > 100
    assert left is not None and left.left + left.width < 590


def test_a_crowd_keeps_some_points_without_a_label() -> None:
    crowd = np.full((30, 2), 150.0) + np.arange(30)[:, None] * 0.1
    found = place_labels(crowd, [60] * 30, 18, FIELD, 9)
    assert sum(b is not None for b in found) < 30
    assert found[0] is not None, "the first has the first choice"
