"""Every sentence is said through here: in English as the code has it, or as a catalogue of another language has it.

A sentence is written where it is said, with gaps for its figures: `tr("{} of {} lifts are kept", 3, 9)`. Its English is
what it is found by (decision 0016). `ventrix.pot` beside this lists them all, with the modules that say them; a
translation is `de/LC_MESSAGES/ventrix.mo` in this folder, or in the one that VENTRIX_WORDS names.
"""

from __future__ import annotations

import gettext
import os
import struct
import sys
from collections.abc import Callable
from typing import Final


def _translation() -> Callable[[str], str]:
    """What the language of LANGUAGE, LC_ALL, LC_MESSAGES or LANG says; English where there is no catalogue of it."""
    folder = os.environ.get("VENTRIX_WORDS") or os.path.dirname(__file__)
    try:
        return gettext.translation("ventrix", folder, fallback=True).gettext
    except (OSError, ValueError, struct.error) as error:
        print(f"{folder}: its words cannot be read, English stands: {error}", file=sys.stderr)
        return gettext.NullTranslations().gettext


_translated: Final = _translation()


def tr(sentence: str, *figures: object) -> str:
    """The sentence in the language that is spoken, its figures in its gaps; without figures braces are only braces."""
    told = _translated(sentence) if sentence else ""
    if not figures:
        return told
    try:
        return told.format(*figures)
    except (LookupError, ValueError):  # a translator's slip: a gap that no figure fills
        return sentence.format(*figures)
