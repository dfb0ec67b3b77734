"""What schools differ on: every question asked says or reckons something. Ranges: common practice, no source."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.model.job import Job
from ventrix.core.model.school_questions import (
    QUESTIONS,
    own_way,
    pipe_against_school,
    side_taken,
    throat_against_school,
)

JOB = Job(id="j", title="t")


def taking(**schools: str) -> Job:
    return replace(JOB, schools=schools)


@pytest.mark.parametrize("question", QUESTIONS, ids=lambda q: q.key)
def test_every_side_speaks_or_is_reckoned_with(question) -> None:  # type: ignore[no-untyped-def]
    assert len(question.sides) >= 2
    for side in question.sides:
        assert side.says or side.value is not None
        assert side_taken(taking(**{question.key: side.words}), question.key) is side
    assert side_taken(taking(**{question.key: "of an older Ventrix"}), question.key) is question.sides[0]


def test_the_usual_default_of_each() -> None:
    taken = {q.key: side_taken(JOB, q.key).words for q in QUESTIONS}
    assert taken["throat"] == "88-90 %" and taken["seat"] == "45" and taken["floor"] == "leave it"
    assert taken["back_cut"].startswith("none") and taken["seat_form"] == "three to five angles"
    assert taken["surface"].startswith("60 grit") and taken["exhaust_surface"] == "80-120 grit"


@pytest.mark.parametrize(
    ("direction", "kinds", "places", "word"),
    [
        ("intake", ("port",), ("guide",), "taper"),
        ("intake", ("port",), ("floor",), "floors alone"),
        ("exhaust", ("port",), ("roof",), "bumps"),
        ("exhaust", ("valve",), ("seat",), "back cut"),
        ("intake", ("finish",), ("all over",), "60 grit"),
        ("exhaust", ("finish",), ("all over",), "80 to 120"),
        ("intake", ("seat",), ("seat",), "45 degrees"),
        ("intake", ("port",), ("opening",), "gasket"),
        ("intake", ("port",), ("throat",), "88 to 90"),
    ],
)
def test_the_work_hears_what_its_porter_said(direction, kinds, places, word) -> None:  # type: ignore[no-untyped-def]
    assert any(word in s for s in own_way(JOB, direction, kinds, places))


def test_an_intake_is_not_told_of_the_exhausts_ways() -> None:
    assert not any("bumps" in s or "exhaust" in s for s in own_way(JOB, "intake", ("port", "valve"), ("roof",)))


def test_the_throat_against_the_range_wanted() -> None:
    assert "below the 88 to 90" in throat_against_school(JOB, 0.86)
    assert "past the 85 to 88" in throat_against_school(taking(throat="85-88 %, for speed"), 0.89)
    assert throat_against_school(JOB, 0.89) == ""


def test_an_exhaust_flowed_otherwise_than_the_job_means_to() -> None:
    assert "a stub is fitted" in pipe_against_school(JOB, "exhaust", "stub")
    assert pipe_against_school(JOB, "exhaust", "none") == pipe_against_school(JOB, "exhaust", None) == ""
    assert pipe_against_school(JOB, "intake", "stub") == ""
    assert "none is fitted" in pipe_against_school(taking(pipe="with a stub pipe"), "exhaust", "none")
