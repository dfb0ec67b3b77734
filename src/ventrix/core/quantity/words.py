"""Figures as words."""

from __future__ import annotations

from collections.abc import Sequence


def number_text(value: float, digits: int = 1, *, sign: bool = False) -> str:
    """A figure as it is shown: a true minus, and none before nought; with its sign where that is what counts."""
    text = f"{value:+z.{digits}f}" if sign else f"{value:z.{digits}f}"
    return text.replace("-", "−")


def percent_text(share: float, digits: int = 1, *, sign: bool = False) -> str:
    """A fraction as percent in words: "0.5 %"."""
    return f"{number_text(100 * share, digits, sign=sign)} %"


def listed(words: Sequence[str]) -> str:
    """Words in a row: "bowl, roof and floor"."""
    return " and ".join(part for part in (", ".join(words[:-1]), words[-1]) if part) if words else ""


def sentence(text: str) -> str:
    """Words as a sentence: a capital in front, a full stop behind unless it ends by itself."""
    said = text.strip()
    return f"{said[:1].upper()}{said[1:]}{'' if said.endswith(('.', '?', '…')) else '.'}"
