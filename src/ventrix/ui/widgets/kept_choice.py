"""Boxes of words that documents keep: shown in the language that is spoken, taken as they are kept."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtWidgets import QComboBox


def offer(box: QComboBox, words: Iterable[str]) -> None:
    """Add words to a box."""
    for word in words:
        box.addItem(f"{word}", word)


def taken(box: QComboBox) -> str:
    """The word that is chosen, or what was typed in its place."""
    at = box.findText(box.currentText())
    return str(box.itemData(at)) if at >= 0 else box.currentText()


def choose(box: QComboBox, word: str) -> None:
    """Choose a word; one that is not offered is written where the box takes text."""
    at = box.findData(word)
    if at >= 0:
        box.setCurrentIndex(at)
    else:
        box.setCurrentText(word)
