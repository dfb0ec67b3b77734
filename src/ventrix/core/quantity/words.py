"""Figures as words."""

from __future__ import annotations


def percent_text(share: float, digits: int = 1, *, sign: bool = False) -> str:
    """A fraction as percent in words: "0.5 %"."""
    number = f"{100 * share:+.{digits}f}" if sign else f"{100 * share:.{digits}f}"
    return f"{number.replace('-', '−')} %"
