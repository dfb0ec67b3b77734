"""Every sentence stands in one catalogue: with a made-up language spoken, nothing English is left on the screen."""

from __future__ import annotations

import json
import os
import re
import subprocess
import sys
from collections.abc import Iterator
from importlib.resources import files
from pathlib import Path
from typing import Final

import pytest
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po
from scripts import write_words

from tests.ui.stand_in import DEMO_WINDOW
from ventrix.core.quantity.units import UNITS

SCRIPT: Final = (
    DEMO_WINDOW
    + """
import json
from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QMenu
from ventrix.ui.window.rooms import ROOMS
from ventrix.ui.window.sheets import SHEETS
window.resize(1280, 800)
found = {}
def look(place):
    for _ in range(2000):
        app.processEvents()
        if not window.room.busy:
            break
    for label in window.findChildren(QLabel):
        if label.isVisible():
            found.setdefault(label.text(), place)
    for button in window.findChildren(QAbstractButton):
        if button.isVisible():
            found.setdefault(button.text(), place)
    for box in window.findChildren(QComboBox):
        if box.isVisible():
            for i in range(box.count()):
                found.setdefault(box.itemText(i), place)
for menu in window.findChildren(QMenu):
    for action in menu.actions():
        found.setdefault(action.text(), "menus")
for door in ROOMS:
    window.go_to_named(door.key)
    look(door.key)
for sheet in SHEETS:
    if sheet.key not in ("correct", "details", "gaps", "reckoner"):
        window.open_sheet(sheet.key)
        look(sheet.key)
print(json.dumps(found))
"""
)


def _words(text: str) -> set[str]:
    return set(re.findall(r"[a-z]{3,}", text.lower()))


def _written(value: object, key: str = "") -> Iterator[str]:
    """What its porter wrote into a document, and no list offered him."""
    if isinstance(value, dict):
        for name, part in value.items():
            yield from _written(part, name)
    elif isinstance(value, list):
        for part in value:
            yield from _written(part, key)
    elif isinstance(value, str) and key in (
        "title",
        "name",
        "note",
        "condition",
        "recipe",
        "bench",
        "tool",
        "plate_name",
    ):
        yield value


# What is nobody's to translate: the units, and what the demo's porter wrote.
DEMO: Final = json.loads(files("ventrix.demo").joinpath("corvane_22h.json").read_text(encoding="utf-8"))
OWN: Final = _words(" ".join([*UNITS, *_written(DEMO), "ventrix pdf letter ctrl shift space pgdn"]))


def without_told(text: str) -> str:
    """What of a text did not come from the catalogue, which puts each sentence between two marks."""
    depth, left = 0, []
    for letter in text:
        depth = max(0, depth + (letter == "«") - (letter == "»"))
        if depth == 0:
            left.append(letter)
    return re.sub(r"<[^>]*>|&[a-z]+;", " ", "".join(left))


FILES: Final = """
from ventrix.core.judging.findings import Findings
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.whole_head import whole_head
from ventrix.records.files.job_document import dumps_job
from ventrix.reports.run_tables import run_tables
from datetime import date
for job in (demo_job(), whole_head(date(2026, 5, 4))):
    print(dumps_job(job, demo_benches()))
    for text in run_tables(Findings(job, benches=demo_benches()), "in").values():
        print(text)
"""


def spoken(script: str, folder: Path, language: str) -> str:
    """What a process of its own prints where this language is spoken."""
    told = os.environ | {"LANGUAGE": language, "LC_ALL": "C.UTF-8", "VENTRIX_WORDS": str(folder)}
    done = subprocess.run(
        [sys.executable, "-c", script, str(folder)], env=told, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


@pytest.fixture(scope="module")
def made_up(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The folder of a language whose every sentence stands between two marks."""
    with (write_words.WORDS / "ventrix.pot").open("rb") as file:
        words = read_po(file)
    for message in words:
        if message.id:
            message.string = f"«{message.id}»"
    found: Path = tmp_path_factory.mktemp("words")
    (found / "xx/LC_MESSAGES").mkdir(parents=True)
    with (found / "xx/LC_MESSAGES/ventrix.mo").open("wb") as file:
        write_mo(file, words)
    return found


def test_nothing_english_is_left_when_another_language_is_spoken(made_up: Path) -> None:
    found = json.loads(spoken(SCRIPT, made_up, "xx"))
    assert sum("«" in text for text in found) > 700
    left = {text: place for text, place in found.items() if _words(without_told(text)) - OWN}
    assert left == {}


def test_what_goes_into_files_is_the_same_in_every_language(made_up: Path) -> None:
    english = spoken(FILES, made_up, "en")
    assert "# ventrix-run: " in english
    assert spoken(FILES, made_up, "xx") == english
