"""Any widget as a picture: copied, or saved as SVG or PNG at print quality."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QPoint, QRect, QSize
from PySide6.QtGui import QGuiApplication, QImage, QPainter
from PySide6.QtWidgets import QGraphicsItem, QGraphicsView, QWidget

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import write_whole
from ventrix.ui.look import theme
from ventrix.words import tr

PRINT_SCALE = 3.125  # 300 dots an inch, where the screen's are taken as 96


def _drawn_on(widget: QWidget, painter: QPainter) -> None:
    """Draw all of it anew: what a view keeps as pixels for the screen would be pixels on paper."""
    views = [widget] if isinstance(widget, QGraphicsView) else widget.findChildren(QGraphicsView)
    kept = [(item, item.cacheMode()) for view in views for item in view.items()]
    kept = [(item, mode) for item, mode in kept if mode != QGraphicsItem.CacheMode.NoCache]
    for item, _ in kept:
        item.setCacheMode(QGraphicsItem.CacheMode.NoCache)
    widget.render(painter, QPoint(0, 0))
    for item, mode in kept:
        item.setCacheMode(mode)


def as_image(widget: QWidget, scale: float = PRINT_SCALE) -> QImage:
    """The widget drawn at print quality."""
    size = widget.size()
    image = QImage(QSize(round(size.width() * scale), round(size.height() * scale)), QImage.Format.Format_ARGB32)
    image.fill(theme.colour("ground"))
    image.setDevicePixelRatio(scale)
    painter = QPainter(image)
    _drawn_on(widget, painter)
    painter.end()
    return image


def save_picture(widget: QWidget, path: Path) -> None:
    """Write the widget as SVG or PNG, by the file's ending. InputError where it cannot be written."""
    kind = path.suffix.lower()
    if kind not in (".svg", ".png"):
        raise InputError(tr("must end in .svg or .png"), file=path.name)
    data = QBuffer()
    data.open(QIODevice.OpenModeFlag.WriteOnly)
    if kind == ".png":
        drawn = as_image(widget).save(data, "PNG")  # type: ignore[call-overload]
    else:
        drawn = _draw_svg(widget, data)
    if not drawn:
        raise InputError(tr("the picture cannot be drawn"), file=path.name)
    write_whole(path, bytes(data.data().data()))


def _draw_svg(widget: QWidget, device: QBuffer) -> bool:
    from PySide6.QtSvg import QSvgGenerator  # late: only pictures need it

    generator = QSvgGenerator()
    generator.setOutputDevice(device)
    generator.setSize(widget.size())
    generator.setViewBox(QRect(QPoint(0, 0), widget.size()))
    generator.setTitle(widget.accessibleName() or "Ventrix")
    painter = QPainter()
    if not painter.begin(generator):
        return False
    painter.fillRect(widget.rect(), theme.colour("ground"))
    _drawn_on(widget, painter)
    painter.end()
    return True


def copy_picture(widget: QWidget) -> None:
    """Put the widget on the clipboard as a picture."""
    image = as_image(widget, 2.0)
    image.setDevicePixelRatio(1.0)
    QGuiApplication.clipboard().setImage(image)
