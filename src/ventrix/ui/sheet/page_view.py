"""The real page on screen: the PDF's own bytes, drawn by a PDF library."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QImage, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr


def pages_of(data: bytes) -> int:
    """How many pages a PDF has."""
    import pypdfium2 as pdfium  # late: only the sheet needs it

    document = pdfium.PdfDocument(data)
    try:
        return len(document)
    finally:
        document.close()


def render_page(data: bytes, page: int, dots: float) -> QImage:
    """A page of a PDF as a picture, `dots` to the inch."""
    import pypdfium2 as pdfium

    document = pdfium.PdfDocument(data)
    try:
        leaf = document[min(page, len(document) - 1)]
        bitmap = leaf.render(scale=dots / 72, rev_byteorder=True, prefer_bgrx=True)
        raw = bytes(bitmap.buffer)
        image = QImage(raw, bitmap.width, bitmap.height, bitmap.stride, QImage.Format.Format_RGBX8888)
        return image.copy()
    finally:
        document.close()


class PageView(QWidget):
    """One page, as large as there is room; a click reads it at full size."""

    clicked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.data = b""
        self.page = 0
        self._image: QImage | None = None
        self._drawn_for: tuple[int, int, int] | None = None
        self.setMinimumWidth(240)
        self.setAccessibleName(tr("The page"))

    def show_pages(self, data: bytes) -> None:
        self.data = data
        self._drawn_for = None
        self.update()

    def turn_to(self, page: int) -> None:
        self.page = page
        self._drawn_for = None
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(440, 240)

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self.data:
            return
        painter = QPainter(self)
        ratio = self.devicePixelRatioF()
        key = self.width(), self.height(), self.page
        if self._drawn_for != key:
            rough = render_page(self.data, self.page, 18)
            fit = min(self.width() / rough.width(), self.height() / rough.height())
            self._image = render_page(self.data, self.page, 18 * fit * ratio)
            self._drawn_for = key
        image = self._image
        assert image is not None
        wide, high = image.width() / ratio, image.height() / ratio
        box = QRectF((self.width() - wide) / 2, 0, wide, high)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(box, image)
        draw_corners(painter, box.adjusted(-0.5, -0.5, 0.5, 0.5), "quiet")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.clicked.emit()


class FullPage(QWidget):
    """A page at reading size, to be scrolled; Esc or a click goes back."""

    closed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._inner = _Leaf()
        self._inner.clicked.connect(self.closed)
        self.area = ScrollArea()
        self.area.setWidget(self._inner)
        self.area.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.area)

    def show_page(self, data: bytes, page: int) -> None:
        dots = 118 * theme.STEP / 4 * self.devicePixelRatioF()
        self._inner.image = render_page(data, page, dots)
        ratio = self.devicePixelRatioF()
        self._inner.image.setDevicePixelRatio(ratio)
        size = self._inner.image.size() / ratio
        self._inner.resize(size)
        self._inner.setFixedSize(size)
        self._inner.update()
        self.area.verticalScrollBar().setValue(0)

    def move_by(self, pages: float) -> bool:
        """Scroll by so many screens; False at the end."""
        bar = self.area.verticalScrollBar()
        before = bar.value()
        bar.setValue(before + int(pages * bar.pageStep()))
        return bar.value() != before


class _Leaf(QWidget):
    clicked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.image: QImage | None = None

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.image is not None:
            QPainter(self).drawImage(0, 0, self.image)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.clicked.emit()
