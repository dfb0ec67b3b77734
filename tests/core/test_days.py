"""Days as people type them; 20 May 2026 is a Wednesday."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused

TODAY = date(2026, 5, 20)


@pytest.mark.parametrize(
    ("text", "ahead", "behind"),
    [
        ("fri", "2026-05-22", "2026-05-15"),
        ("Wednesday", "2026-05-27", "2026-05-20"),
        ("4 dec", "2026-12-04", "2025-12-04"),
        ("Dec. 4", "2026-12-04", "2025-12-04"),
        ("20 may", "2026-05-20", "2026-05-20"),
        ("1 January 2027", "2027-01-01", "2027-01-01"),
        ("today", "2026-05-20", "2026-05-20"),
        ("2026-12-04", "2026-12-04", "2026-12-04"),
    ],
)
def test_a_day_is_the_next_such_one_or_the_last(text: str, ahead: str, behind: str) -> None:
    assert read_day(text, TODAY) == ahead
    assert read_day(text, TODAY, ahead=False) == behind


def test_nothing_is_no_day() -> None:
    assert read_day("  ", TODAY) is None


@pytest.mark.parametrize("text", ["soon", "30 feb", "32 may", "4 foo", "0 dec", "friday week", "2026-13-01", "dec"])
def test_what_is_no_day_says_so(text: str) -> None:
    with pytest.raises(Refused, match="is not a day: type fri, 4 dec"):
        read_day(text, TODAY)


@given(st.text(max_size=30))
def test_any_text_is_a_day_or_a_sentence(text: str) -> None:
    try:
        found = read_day(text, TODAY)
    except Refused:
        return
    assert found is None or date.fromisoformat(found)
