"""Tables from the clipboard: they say in their headings what they hold, and are asked where they do not."""

from __future__ import annotations

import pytest

from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.records.files.pasted_table import Unnamed, parse_pasted

BOTH = "lift\tintake\texhaust\n0.500\t272\t180\n0.600\t281\t188"


def pasted(text: str, kind: Direction | None = None, *, sure: bool = False) -> list[tuple[float, float, float | None]]:
    """Lifts [in], readings [cfm] and pressures [inH2O]."""
    table = parse_pasted(text, "in", "cfm", "inH2O", kind, third_is_pressure=sure)
    inch, cfm, water = (to_si(1, unit) for unit in ("in", "cfm", "inH2O"))
    return [(r.lift / inch, r.reading / cfm, None if r.pressure is None else r.pressure / water) for r in table.rows]


@pytest.mark.parametrize(("kind", "flows"), [("intake", [272, 281]), ("exhaust", [180, 188])])
def test_a_table_of_both_kinds_gives_each_port_its_own(kind: Direction, flows: list[float]) -> None:
    rows = pasted(BOTH, kind)
    assert [r[0] for r in rows] == pytest.approx([0.5, 0.6])
    assert [r[1] for r in rows] == pytest.approx(flows)


def test_three_columns_without_headings_are_asked_about() -> None:
    text = "0.500 272 28.1\n0.600 281 27.9"
    with pytest.raises(Unnamed, match="3 columns without headings"):
        pasted(text)
    assert pasted(text, sure=True)[0] == pytest.approx((0.5, 272, 28.1))
    assert pasted("lift CFM inH2O\n" + text)[1] == pytest.approx((0.6, 281, 27.9))


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "holds no table"),
        ("0.5\n0.6", "one column"),
        ("lift CFM", "no rows"),
        ("0.5 272\n0.6 abc", "row 2"),
    ],
)
def test_what_is_wrong_is_said_with_its_row(text: str, said: str) -> None:
    with pytest.raises(Refused, match=said):
        pasted(text)


def test_headings_name_their_units() -> None:
    assert pasted("lift mm; flow l/s\n12.7; 128.4") == [(pytest.approx(0.5), pytest.approx(272.06, abs=0.1), None)]
