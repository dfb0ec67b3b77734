"""Sentences of the core told in the shop's units: the same words, every figure converted by the handbook's factors."""

from __future__ import annotations

import copy
from dataclasses import replace

import pytest

from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.wording import Wording
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Amount, Said, joined, millimetres, said_in
from ventrix.core.runs.lifts import lift_doubt
from ventrix.rooms.display_units import METRIC, US

SETUP = SetUp(id="s", direction="intake", bench="own", bore=0.089, entry="radius", valve="job", plug="in", centred=True)


def test_a_sentence_keeps_its_figures_however_deep_they_stand() -> None:
    inner = Said("a lift of {} is past {}", millimetres(50.8, 1), millimetres(25.4, 1))
    whole = joined(["First.", Said("{}: {}", "asked", inner)])
    assert whole == "First. asked: a lift of 50.8 mm is past 25.4 mm"
    assert US.say(whole) == "First. asked: a lift of 2.000 in is past 1.000 in", "1 in is 25.4 mm, ISO 31"
    assert US.say(Refused("{}. Again?", inner)) == "a lift of 2.000 in is past 1.000 in. Again?"
    assert US.say("words alone") == "words alone" and US.say(Refused("braces {}")) == "braces {}"


def test_conditions_that_differ_are_told_in_the_shops_unit() -> None:
    other = replace(SETUP, bore=0.0762, test_pressure=6967.24)
    found = comparability(replace(SETUP, test_pressure=2488.3), other)
    assert "89 mm before and 76.2 mm after" in found.sentence, "as a document tells it"
    assert "3.504 in before and 3.000 in after" in US.say(found.sentence)
    assert "3.000 in" in Wording("in", "cfm").say(found.reason) and "76.2 mm" in Wording("mm", "l/s").say(found.reason)
    pressure = next(d for d in found.differences if d.key == "test_pressure").sentence
    assert "9.99 inH2O before and 27.97 inH2O after" in pressure
    assert "254 mmH2O before and 710 mmH2O after" in METRIC.say(pressure), "25.4 mmH2O to the inch"


@pytest.mark.parametrize(("units", "words"), [(US, "1.500 in is past 1.181 in"), (METRIC, "38.10 mm is past 30.00 mm")])
def test_a_lift_that_is_asked_about(units, words: str) -> None:  # type: ignore[no-untyped-def]
    assert units.say(lift_doubt(0.0381, None)) == f"a lift of {words}"


def test_an_amount_is_text_wherever_nobody_asks() -> None:
    amount = Amount(0.0254, "length", "mm", ".1f")
    assert US.say(copy.deepcopy(Said("{} off", amount))) == "1.000 in off", "a copy keeps its figures"
    assert f"{amount}!" == "25.4 mm!" and said_in(amount, lambda a: f"{a.value}") == "0.0254"
