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


def test_nothing_english_is_left_when_another_language_is_spoken(tmp_path: Path) -> None:
    with (write_words.WORDS / "ventrix.pot").open("rb") as file:
        words = read_po(file)
    for message in words:
        if message.id:
            message.string = f"«{message.id}»"
    folder = tmp_path / "xx/LC_MESSAGES"
    folder.mkdir(parents=True)
    with (folder / "ventrix.mo").open("wb") as file:
        write_mo(file, words)
    told = os.environ | {"LANGUAGE": "xx", "LC_ALL": "C.UTF-8", "VENTRIX_WORDS": str(tmp_path)}
    done = subprocess.run(
        [sys.executable, "-c", SCRIPT, str(tmp_path)], env=told, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr
    found = json.loads(done.stdout)
    assert sum("«" in text for text in found) > 700
    left = {text: place for text, place in found.items() if _words(without_told(text)) - OWN}
    assert left == {}
