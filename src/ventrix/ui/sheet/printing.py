"""Pages on paper: the desktop's own print dialog, and the PDF's pages drawn on its printer."""

from __future__ import annotations

from PySide6.QtCore import QRectF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import QWidget

from ventrix.ui.sheet.page_view import pages_of, render_page

DOTS = 300  # to the inch: as fine as a page of lines and text needs


def ask_and_print(parent: QWidget, data: bytes, paper: str, name: str) -> bool:
    """Ask for a printer, and print; False where nobody wanted it after all."""
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setDocName(name)
    dialog = QPrintDialog(printer, parent)
    dialog.setMinMax(1, pages_of(data))
    if dialog.exec() != QPrintDialog.DialogCode.Accepted:
        return False
    print_pages(printer, data, paper)
    return True


def print_pages(printer: QPrinter, data: bytes, paper: str) -> None:
    """Every page, or those that were asked for, at its true size."""
    size = QPageSize(QPageSize.PageSizeId.Letter if paper == "Letter" else QPageSize.PageSizeId.A4)
    printer.setPageSize(size)
    printer.setFullPage(True)
    printer.setPageOrientation(QPageLayout.Orientation.Portrait)
    first, last = (printer.fromPage() or 1), (printer.toPage() or pages_of(data))
    painter = QPainter(printer)
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
    scale = printer.resolution() / DOTS
    for page in range(first - 1, min(last, pages_of(data))):
        if page > first - 1:
            printer.newPage()
        image = render_page(data, page, DOTS)
        painter.drawImage(QRectF(0, 0, image.width() * scale, image.height() * scale), image)
    painter.end()
