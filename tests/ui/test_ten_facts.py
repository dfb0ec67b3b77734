"""Every room, the sheet and the commands are asked about the same ten facts of the demo's head, and say the same.

The commands' JSON is the one answer; each room that shows the fact has to show that figure, in the shop's units."""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtWidgets import QLabel, QLineEdit, QTableWidget

from tests.cli.test_cli import ask
from tests.ui.stand_in import Open
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job
from ventrix.ui.window.main_window import ROOMS, MainWindow

Answer = dict[str, Any]
ROOM_KEYS = ("head", "flow", "compare", "plan", "match", "sheet")


def said_in(window: MainWindow, key: str) -> str:
    """Everything a room shows in words: labels, fields, and the cells of its tables."""
    room = window.rooms[key]
    labels = [x.text() for kind in (QLabel, QLineEdit) for x in room.findChildren(kind) if x.isVisibleTo(room)]
    cells = [
        item.text()
        for table in room.findChildren(QTableWidget)
        if table.isVisibleTo(room)
        for row in range(table.rowCount())
        for column in range(table.columnCount())
        if (item := table.item(row, column)) is not None
    ]
    return "\n".join([*labels, *cells])


@pytest.fixture
def rooms(open_window: Open, qtbot) -> dict[str, str]:  # type: ignore[no-untyped-def]
    window = open_window()
    found = {}
    for i, place in enumerate(ROOMS):
        if place.key in ROOM_KEYS:
            window.go_to(i)
            ready = {"plan": "Next:", "sheet": "CFM short"}.get(place.key, "")
            qtbot.waitUntil(lambda key=place.key, ready=ready: ready in said_in(window, key), timeout=20_000)
            found[place.key] = said_in(window, place.key)
    return found


@pytest.fixture
def told(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> Callable[[str], Answer]:
    path = tmp_path / "job.json"
    write_job(demo_job(), path, benches=demo_benches())

    def command(name: str) -> Answer:
        code, out, err = ask(capsys, name, path, "--json")
        assert code == 0, err
        answer: Answer = json.loads(out)
        return answer

    return command


def test_ten_facts_are_one_truth(rooms: dict[str, str], told: Callable[[str], Answer]) -> None:
    compare, match, work, route = told("compare"), told("match"), told("work"), told("route")
    pair = next(p for p in compare["pairs"] if (p["port"], p["before"], p["after"]) == ("Intake 1", 2, 3))
    own = next(p for p in match["ports"] if p["name"] == "Intake 1")
    summary, (target,) = pair["summary"], pair["target"]
    hours = f"{work['hours']['low']:.0f} to {work['hours']['high']:.0f} h"
    gain = f"{summary['weighted_difference_cfm']:+.1f} CFM".replace("-", "−")
    facts: list[tuple[str, str, tuple[str, ...]]] = [
        ("target", f"{target['short_cfm']:.1f} CFM short", ("flow", "compare", "sheet")),
        ("verdict", pair["verdict"].split(". ")[0], ("compare",)),
        ("gain", gain, ("compare",)),
        ("its uncertainty", f"± {summary['expanded_uncertainty_cfm']:.1f}", ("compare",)),
        ("flow at my lift", f"{own['flow_cfm']['11.43']:.1f}", ("compare",)),
        ("volume", f"{own['volume_cc']:.1f}", ("head",)),
        ("hours used", f"{work['hours']['used']:.1f} h", ("match",)),
        ("hours to go", hours, ("plan", "match")),
        ("what is next", "Next: " + work["next"][0]["what"], ("plan",)),
        ("the model port", "from Intake 1 onto", ("plan",)),
    ]
    for fact, words, where in facts:
        for key in where:
            assert words in rooms[key], f"{fact}: {words!r} is not what {key} says"
    assert target["state"] == "short" and own["developed"]
    assert match["hours"]["likely"] == pytest.approx(work["hours"]["likely"])
    of_ports = {(s["of"], s["stage"]): s["state"] for s in work["stages"] if s["unit"] == "port"}
    for (name, stage), state in of_ports.items():
        (port,) = [p for p in match["ports"] if p["name"] == name]
        assert port["stages"][stage] == state, (name, stage)
        assert {c["done"] for c in route if (c["port"], c["stage"]) == (name, stage)} == {state == "done"}
