"""The job's photos, and which of them go on the sheet."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QListWidget, QListWidgetItem

from ventrix.core.model.cut import Photo
from ventrix.rooms.sheet.photos import MOST
from ventrix.words import tr


class PhotoChoice(QListWidget):
    """The first few are chosen; then those that were."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Photos on the sheet"))
        self.setMaximumHeight(84)

    @property
    def chosen(self) -> list[str]:
        """Files of the photos chosen."""
        items = [self.item(i) for i in range(self.count())]
        return [i.data(Qt.ItemDataRole.UserRole) for i in items if i.checkState() == Qt.CheckState.Checked]

    def show_photos(self, photos: Sequence[tuple[Photo, str]]) -> None:
        """Photos with their words."""
        self.blockSignals(True)
        before, fresh = set(self.chosen), self.count() == 0
        self.clear()
        for n, (photo, words) in enumerate(photos):
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, photo.file)
            on = n < MOST if fresh else photo.file in before
            item.setCheckState(Qt.CheckState.Checked if on else Qt.CheckState.Unchecked)
            self.addItem(item)
        self.blockSignals(False)
