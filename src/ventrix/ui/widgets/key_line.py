"""A room's keys in a line at its foot."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtWidgets import QLabel

from ventrix.ui.look import theme


class KeyLine(QLabel):
    """Keys in brass, each before what it does."""

    def __init__(self) -> None:
        super().__init__()
        self.setWordWrap(True)

    def show_keys(self, rows: Iterable[tuple[str, str]]) -> None:
        """Rows of keys and words, as `key_rows` makes them of a room's commands."""
        shade = theme.current().brass
        told = ((keys.replace("Return", "Enter"), words) for keys, words in rows)
        self.setText("   ".join(f"<b style='color:{shade}'>{keys}</b> {words}" for keys, words in told))
