"""Figures as they stand on screen, and the words beside them: no window needed."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import CFM, INCH, to_si
from ventrix.demo.job import demo_job
from ventrix.rooms.display_units import METRIC, SYSTEMS, US, Shown
from ventrix.rooms.flow.pictures import LadderRung
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.rooms.shared.gain_words import doubt_text, gain_text, shown_of


@pytest.mark.parametrize(
    ("shown", "value", "sign", "text"),
    [
        (US.lift, 0.3 * INCH, False, "0.300"),
        (US.flow, 182.13 * CFM, False, "182.1"),
        (US.flow, -4.04 * CFM, True, "−4.0"),  # a real minus, as wide as a plus
        (US.flow, 4.06 * CFM, True, "+4.1"),
        (US.flow, None, False, "–"),
        (US.flow, float("nan"), True, "–"),
        (METRIC.flow, 100 * CFM, False, "47.19"),  # NIST SP 811: 1 cfm is 0.4719474 l/s
        (METRIC.lift, 0.5 * INCH, False, "12.70"),
        (US.temperature, 293.15, False, "68"),
        (US.power, to_si(100, "kW"), False, "134"),  # NIST SP 811: 1 hp is 745.6999 W
        (US.fine, 0.0005 * INCH, False, "0.0005"),
        (METRIC.fine, 0.0127e-3, False, "0.013"),
    ],
)
def test_a_figure_has_its_unit_s_digits(shown: Shown, value: float | None, sign: bool, text: str) -> None:
    assert shown.text(value, sign=sign) == text


def test_both_systems_have_every_kind_of_figure() -> None:
    assert set(SYSTEMS) == {"us", "metric"}
    for units in SYSTEMS.values():
        for kind in ("lift", "length", "area", "flow", "speed", "pressure", "volume", "angle", "duration", "energy",
                     "temperature", "barometer", "humidity", "percent", "mass", "power", "flux", "swirl", "ratio",
                     "density", "fine"):  # fmt: skip
            assert units[kind].with_unit(1.0).startswith(units[kind].text(1.0))
    with pytest.raises(AttributeError):
        US["parsecs"]


FULL = SetUp(
    id="s",
    direction="exhaust",
    test_pressure=to_si(28, "inH2O"),
    bore=3.5 * INCH,
    centred=True,
    entry="bare",
    pipe="stub",
    pipe_length=6 * INCH,
    valve="test",
)


@pytest.mark.parametrize(
    ("change", "mount", "words"),
    [
        ({}, 7, "28.0 inH2O · 3.500 in sleeve, centered · bare entry · stub pipe 6.000 in · test valve · mount 7"),
        ({"centred": False, "valve": "job"}, None,
         "28.0 inH2O · 3.500 in sleeve, off center · bare entry · stub pipe 6.000 in · job valve"),
        ({"pipe": "none"}, None, "28.0 inH2O · 3.500 in sleeve, centered · bare entry · no pipe · test valve"),
        ({"direction": "intake"}, None, "28.0 inH2O · 3.500 in sleeve, centered · bare entry · test valve"),
        ({"bore": None, "entry": None, "pipe": None, "valve": None, "test_pressure": None}, None, ""),
    ],
)  # fmt: skip
def test_conditions_are_one_line_and_leave_out_what_is_not_recorded(
    change: dict[str, object], mount: int | None, words: str
) -> None:
    assert in_words(replace(FULL, **change), mount, US) == words  # type: ignore[arg-type]


def test_a_gain_is_worded_alike_wherever_it_stands() -> None:
    findings = Findings(demo_job())
    port = findings.job.ports[0]
    gain = findings.gain(findings.pair(port, port.cuts[0], port.cuts[1]))
    assert gain is not None
    assert gain.value is not None
    assert gain_text(gain, US) == US.flow.text(gain.value, sign=True)
    assert doubt_text(gain, US) == US.flow.text(gain.expanded)
    assert shown_of(gain, METRIC) is METRIC.flow
    share = replace(gain, value=0.0834, expanded=0.012, is_share=True)
    assert (gain_text(share, US), doubt_text(share, US)) == ("+8.3 %", "1.2 %")  # never CFM
    other = replace(gain, comparable=False, value=None, expanded=None)
    assert (gain_text(other, US), doubt_text(other, US)) == ("not comparable", "")
    assert (gain_text(None, US), doubt_text(None, US)) == ("", "")


def test_a_rungs_notes_are_letters() -> None:
    assert LadderRung("0.300").letters == ""
    assert set(LadderRung("0.300", notes=("noise", "dip"), unsteady=True).letters) >= {"N", "I"}
