"""A figure's words say what it stands on: swirl or tumble, of one valve, beyond its doubt or not."""

from __future__ import annotations

from dataclasses import replace

from tests.ui.stand_in import Open
from ventrix.core.edits.cuts import edit_port
from ventrix.core.judging.expectation import Outcome, Scored
from ventrix.core.judging.findings import Findings
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_job
from ventrix.rooms.air.shows import swirl_path, swirl_sentences
from ventrix.rooms.cuts.card import outcome_lines
from ventrix.rooms.display_units import US


def test_behind_a_tumble_adapter_every_figure_says_tumble(open_window: Open) -> None:
    job = demo_job()
    tumbling = replace(job, setups=tuple(replace(s, swirl_axis="tumble") for s in job.setups))
    port, units = tumbling.ports[0], US
    findings = Findings(tumbling)
    cuts = port.cuts
    said = " ".join(swirl_sentences(findings, port, cuts[1], cuts[2], units))
    assert "umble" in said
    assert "Swirl ratio" not in said
    assert "anticlockwise" not in said
    assert swirl_path(findings, port, units)[1].startswith("tumble")
    assert "swirl" in swirl_path(Findings(job), job.ports[0], units)[1]
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.apply("tumble", replace(space.job, setups=tumbling.setups))
    window.go_to_named("compare")
    captions = [r.caption for r in window.rooms["compare"].scorecard.rows]
    assert any(c.startswith("Tumble") for c in captions)
    assert not any(c.startswith("Swirl") for c in captions)


def test_what_turned_out_carries_its_doubt_and_is_only_scored_beyond_it() -> None:
    cfm = to_si(1, "cfm")
    nothing = Scored(None, None)

    def lines(came: float, doubt: float) -> tuple[str, str]:
        found = outcome_lines(Outcome(("bowl",), Scored(4 * cfm, came * cfm, doubt * cfm), nothing, nothing), US)
        return found[1].text, found[1].result

    assert lines(3.1, 2.0) == ("+3.1 ± 2.0 CFM", "")
    assert lines(1.0, 2.0) == ("+1.0 ± 2.0 CFM", "worse")
    assert lines(7.0, 2.0) == ("+7.0 ± 2.0 CFM", "better")


def test_a_port_of_two_valves_says_of_one_valve(open_window: Open) -> None:
    window = open_window(room="head")
    space = window.open_book.workspace
    assert space is not None
    port = space.port
    assert port is not None
    captions = window.rooms["head"].derived.captions
    assert captions["Valve head area"].text() == "Valve head area"
    space.apply("two", edit_port(space.job, port.id, lambda p: replace(p, valves=2)))
    assert captions["Valve head area"].text() == "Valve head area, of one valve"
    assert captions["Mean section"].text() == "Mean section"
