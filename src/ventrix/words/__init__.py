"""Every sentence is said through here: in English as the code has it, or as a catalogue of another language has it.

A sentence is written where it is said, with gaps for its figures: `tr("{} of {} lifts are kept", 3, 9)`. Its English is
what it is found by (decision 0016). `ventrix.pot` in this folder lists them all, with the places that say them.
"""

from __future__ import annotations

from collections.abc import Mapping

_told: dict[str, str] = {}


def tr(sentence: str, *figures: object) -> str:
    """The sentence in the language that is spoken, its figures in its gaps; without figures braces are only braces."""
    told = _told.get(sentence, sentence)
    return told.format(*figures) if figures else told


def speak(catalogue: Mapping[str, str]) -> None:
    """Speak by a catalogue from here on, English sentence to its translation; an empty one speaks English. Sentences of
    tables are said when their modules are imported: this comes before them."""
    _told.clear()
    _told.update(catalogue)
