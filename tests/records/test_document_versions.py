"""Documents of version 1: what changed is brought over, whatever stands there; nonsense is left for validation."""

from __future__ import annotations

import copy
import json

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from ventrix.records.bad_input import InputError
from ventrix.records.files.document_versions import from_version_1
from ventrix.records.files.job_document import loads_document


def document(**operation: object) -> dict[str, object]:
    cut = {"id": "c", "number": 0, "kind": "valve", "operations": [{"id": "o", "kind": "grind", **operation}]}
    return {"id": "j", "title": "t", "ports": [{"id": "p", "name": "Intake 1", "kind": "intake", "cuts": [cut]}]}


def works(**operation: object) -> object:
    found = document(**operation)
    from_version_1(found)
    return found["ports"][0]["cuts"][0]["operations"][0].get("works")  # type: ignore[index]


def test_one_depth_over_several_places_is_a_work_at_each() -> None:
    assert works(places=["bowl", "guide"], depth_mm=0.5) == [
        {"id": "o-1", "place": "bowl", "depth_mm": 0.5},
        {"id": "o-2", "place": "guide", "depth_mm": 0.5},
    ]


def test_places_without_a_depth_and_a_depth_without_a_place() -> None:
    assert works(places=["bowl"]) == [{"id": "o-1", "place": "bowl"}]
    assert works(depth_mm=0.5) == [{"id": "o-1", "place": "", "depth_mm": 0.5}]
    assert works() is None


def test_a_kind_becomes_kinds() -> None:
    found = document()
    from_version_1(found)
    cut = found["ports"][0]["cuts"][0]  # type: ignore[index]
    assert cut["kinds"] == ["valve"] and "kind" not in cut


def test_a_cylinders_two_chambers_that_disagree_are_both_kept() -> None:
    def port(name: str, volume: object, **more: object) -> dict[str, object]:
        cut = {"id": f"c-{name}", "number": 0, "chamber_volume_cc": volume}
        return {"id": name, "name": name, "kind": "intake", "cuts": [cut], **more}

    found: dict[str, object] = {
        "id": "j",
        "title": "t",
        "ports": [
            port("Intake 1", 47.5),
            port("Exhaust 1", 48.0),
            port("Left", 46.0, cylinder=3),
            port("Intake 2", 47.0),
        ],
    }
    from_version_1(found)
    told = {c["cylinder"]: [(p["volume_cc"], p["how"]) for p in c["pours"]] for c in found["chambers"]}  # type: ignore[attr-defined]
    assert told == {
        1: [(47.5, "Intake 1, cut 0"), (48.0, "Exhaust 1, cut 0")],
        3: [(46.0, "Left, cut 0")],
        2: [(47.0, "Intake 2, cut 0")],
    }
    job = loads_document(json.dumps({"ventrix_job": 1, **found, "chambers": found["chambers"]}), "x.json").job
    assert sum(len(c.pours) for c in job.chambers) == 4


def test_keys_nobody_knows_are_left_as_they_are() -> None:
    found = document(places=["bowl"], mood="sure")
    found["colour"] = [1, 2]
    from_version_1(found)
    assert found["colour"] == [1, 2]
    assert found["ports"][0]["cuts"][0]["operations"][0]["mood"] == "sure"  # type: ignore[index]


ANYTHING = st.recursive(
    st.none()
    | st.booleans()
    | st.integers(-5, 5)
    | st.floats(allow_nan=False, allow_infinity=False)
    | st.text(max_size=5),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(
            st.sampled_from(["ports", "cuts", "operations", "places", "kind", "depth_mm", "id", "x"]), inner, max_size=4
        )
    ),
    max_leaves=12,
)


slowly = settings(suppress_health_check=[HealthCheck.too_slow], deadline=None)


@slowly
@given(st.dictionaries(st.sampled_from(["ports", "id", "title", "cuts"]), ANYTHING, max_size=4))
def test_whatever_stands_there_it_never_falls_over(found: dict[str, object]) -> None:
    before = copy.deepcopy(found)
    from_version_1(found)
    assert set(found) == set(before)
    try:
        loads_document(json.dumps({"ventrix_job": 1, **before}), "x.json")
    except InputError as error:
        said = str(error)
    else:
        said = "x.json"
    assert "x.json" in said


@slowly
@given(ANYTHING)
def test_an_operation_of_any_shape_is_taken_or_refused_by_name(value: object) -> None:
    found = {"ventrix_job": 1, **document(places=value)}
    try:
        job = loads_document(json.dumps(found), "x.json").job
    except InputError as error:
        taken = "x.json" in str(error)
    else:
        taken = all(isinstance(w.place, str) for w in job.ports[0].cuts[0].operations[0].works)
    assert taken
