"""Figures as words."""

from __future__ import annotations


def percent_text(share: float, digits: int = 1, *, sign: bool = False) -> str:
    """A fraction as percent in words: "0.5 %"."""
    number = f"{100 * share:+z.{digits}f}" if sign else f"{100 * share:z.{digits}f}"
    return f"{number.replace('-', '−')} %"


def sentence(text: str) -> str:
    """Words as a sentence: a capital in front, a full stop behind unless it ends by itself."""
    said = text.strip()
    return f"{said[:1].upper()}{said[1:]}{'' if said.endswith(('.', '?', '…')) else '.'}"
