"""The pen that pages are drawn with: our fonts, two inks, text that wraps, and paper that ends."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from io import BytesIO
from typing import Any, Final

from reportlab.lib.colors import HexColor
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

MM: Final = 72 / 25.4  # points
PAPERS: Final = {"A4": (210 * MM, 297 * MM), "Letter": (612.0, 792.0)}
MARGIN: Final = 15 * MM
LONGEST: Final = 600  # characters of one text on a page
_FONTS: Final = {
    "text": "Barlow_400Regular",
    "medium": "Barlow_500Medium",
    "bold": "Barlow_600SemiBold",
    "narrow": "BarlowCondensed_400Regular",
    "narrow-bold": "BarlowCondensed_600SemiBold",
}
# The light theme's colours, and greys of the same darkness: dashes and marks carry the meaning in both.
_INKS: Final = {
    "colour": {
        "text": "#17252E",
        "quiet": "#4F6874",
        "scribe": "#3A5563",
        "intake": "#0B6F62",
        "exhaust": "#B5482A",
        "better": "#2A7038",
        "worse": "#B5482A",
        "brass": "#865B04",
        "hair": "#B9C4C9",
        "paper": "#FFFFFF",
    },
    "grey": {
        "text": "#111111",
        "quiet": "#555555",
        "scribe": "#333333",
        "intake": "#111111",
        "exhaust": "#666666",
        "better": "#111111",
        "worse": "#111111",
        "brass": "#333333",
        "hair": "#BBBBBB",
        "paper": "#FFFFFF",
    },
}


@cache
def _load_fonts() -> None:
    """Hand the package's fonts to the PDF library, once."""
    folder = resources.files("ventrix").joinpath("ui/look/fonts")
    for name, file in _FONTS.items():
        pdfmetrics.registerFont(TTFont(f"V-{name}", BytesIO(folder.joinpath(f"{file}.ttf").read_bytes())))


def clean(text: str) -> str:
    """Text from outside fit for a page: what cannot be printed is a space, what is endless is cut."""
    shown = "".join(c if c.isprintable() and not "\ud800" <= c <= "\udfff" else " " for c in text[: LONGEST + 1])
    return shown if len(shown) <= LONGEST else f"{shown[:LONGEST]}…"


def width_of(text: str, font: str, size: float) -> float:
    """How wide a text is [pt]."""
    _load_fonts()
    return float(pdfmetrics.stringWidth(text, f"V-{font}", size))


def wrapped(text: str, font: str, size: float, width: float) -> list[str]:
    """A text in lines of at most a width; a word that is wider by itself is broken."""
    lines: list[str] = []
    line = ""
    for word in clean(text).split():
        while width_of(word, font, size) > width and len(word) > 1:
            cut = next(n for n in range(len(word), 0, -1) if n == 1 or width_of(word[:n], font, size) <= width)
            if line:
                lines.append(line)
                line = ""
            lines.append(word[:cut])
            word = word[cut:]
        tried = f"{line} {word}" if line else word
        if line and width_of(tried, font, size) > width:
            lines.append(line)
            line = word
        else:
            line = tried
    return [*lines, line] if line or not lines else lines


def elided(text: str, font: str, size: float, width: float) -> str:
    """A text on one line, with an ellipsis where it is too long."""
    shown = clean(text)
    if width_of(shown, font, size) <= width:
        return shown
    while shown and width_of(f"{shown}…", font, size) > width:
        shown = shown[:-1]
    return f"{shown}…"


@dataclass
class Pen:
    """A document being drawn. `y` is how far down the page the pen stands [pt from the bottom]."""

    paper: str = "A4"
    ink: str = "colour"
    title: str = ""
    author: str = ""
    subject: str = ""

    def __post_init__(self) -> None:
        _load_fonts()
        self.size = PAPERS.get(self.paper, PAPERS["A4"])
        self.buffer = BytesIO()
        _load_fonts()
        self.canvas: Any = Canvas(
            self.buffer, pagesize=self.size, lang="en", invariant=1, pageCompression=1, initialFontName="V-text"
        )
        self.canvas.setTitle(clean(self.title))
        self.canvas.setAuthor(clean(self.author))
        self.canvas.setSubject(clean(self.subject))
        self.canvas.setCreator("Ventrix")
        self.page = 1
        self.y = self.top
        self.on_page: Callable[[], None] = lambda: None

    @property
    def left(self) -> float:
        return MARGIN

    @property
    def right(self) -> float:
        return self.size[0] - MARGIN

    @property
    def width(self) -> float:
        return self.right - self.left

    @property
    def top(self) -> float:
        return self.size[1] - MARGIN

    @property
    def bottom(self) -> float:
        return MARGIN + 6 * MM

    def shade(self, role: str) -> Any:
        """A colour by its role."""
        return HexColor(_INKS[self.ink if self.ink in _INKS else "colour"][role])

    # -- paper

    def new_page(self) -> None:
        """A clean page, with whatever stands on every one."""
        self.canvas.showPage()
        self.page += 1
        self.y = self.top
        self.on_page()

    def room(self, height: float) -> None:
        """Go to the next page where this height is not left on this one."""
        if self.y - height < self.bottom:
            self.new_page()

    def finish(self) -> bytes:
        """The document."""
        self.canvas.showPage()
        self.canvas.save()
        return self.buffer.getvalue()

    # -- marks

    def text(
        self,
        x: float,
        y: float,
        words: str,
        size: float = 8.5,
        role: str = "text",
        font: str = "text",
        align: str = "l",
    ) -> float:
        """One line of text at a place; returns its width [pt]."""
        shown = clean(words)
        self.canvas.setFont(f"V-{font}", size)
        self.canvas.setFillColor(self.shade(role))
        draw = {"l": self.canvas.drawString, "r": self.canvas.drawRightString, "c": self.canvas.drawCentredString}
        draw[align](x, y, shown)
        return width_of(shown, font, size)

    def paragraph(
        self,
        words: str,
        size: float = 8.5,
        role: str = "text",
        font: str = "text",
        x: float | None = None,
        width: float | None = None,
        lead: float = 1.32,
    ) -> None:
        """Text that wraps, at the pen; the pen moves below it, onto the next page where it must."""
        at, wide = self.left if x is None else x, self.width if width is None else width
        for line in wrapped(words, font, size, wide):
            self.room(size * lead)
            self.y -= size * lead
            self.text(at, self.y, line, size, role, font)

    def line(
        self,
        x1: float,
        y1: float,
        x2: float,
        y2: float,
        role: str = "scribe",
        width: float = 0.6,
        dash: Sequence[float] = (),
    ) -> None:
        self.canvas.setStrokeColor(self.shade(role))
        self.canvas.setLineWidth(width)
        self.canvas.setDash(*([list(dash)] if dash else []))
        self.canvas.line(x1, y1, x2, y2)
        self.canvas.setDash()

    def heading(self, words: str, height: float) -> None:
        """A heading that stays with at least `height` of what follows [pt]."""
        self.room(height)
        self.y -= 4.5 * MM
        self.text(self.left, self.y, words, 9.5, font="bold")
        self.y -= 1.2 * MM
        self.rule("hair", 0.5)

    def rule(self, role: str = "scribe", width: float = 0.6) -> None:
        """A line across the page at the pen."""
        self.line(self.left, self.y, self.right, self.y, role, width)

    def curve(
        self, points: Sequence[tuple[float, float]], role: str, width: float = 1.4, dash: Sequence[float] = ()
    ) -> None:
        """A line through points."""
        if len(points) < 2:
            return
        path = self.canvas.beginPath()
        path.moveTo(*points[0])
        for point in points[1:]:
            path.lineTo(*point)
        self.canvas.setStrokeColor(self.shade(role))
        self.canvas.setLineWidth(width)
        self.canvas.setDash(*([list(dash)] if dash else []))
        self.canvas.drawPath(path, stroke=1, fill=0)
        self.canvas.setDash()

    def arrow(self, x: float, y: float, result: str, size: float = 5.0) -> None:
        """The mark of a result: up, down, or a dash; it reads without colour."""
        self.canvas.setFillColor(self.shade(result if result in ("better", "worse") else "quiet"))
        if result not in ("better", "worse"):
            self.line(x, y + size / 2, x + size, y + size / 2, "quiet", 1.0)
            return
        up = result == "better"
        path = self.canvas.beginPath()
        path.moveTo(x + size / 2, y + (size if up else 0))
        path.lineTo(x + size, y + (0 if up else size))
        path.lineTo(x, y + (0 if up else size))
        path.close()
        self.canvas.drawPath(path, stroke=0, fill=1)

    def corners(self, x: float, y: float, width: float, height: float, tick: float = 4 * MM) -> None:
        """Corner ticks, like layout marks."""
        for cx, dx in ((x, tick), (x + width, -tick)):
            for cy, dy in ((y, tick), (y + height, -tick)):
                self.line(cx, cy, cx + dx, cy, "quiet", 0.5)
                self.line(cx, cy, cx, cy + dy, "quiet", 0.5)

    def box(self, x: float, y: float, width: float, height: float, role: str = "scribe", line: float = 0.6) -> None:
        self.canvas.setStrokeColor(self.shade(role))
        self.canvas.setLineWidth(line)
        self.canvas.rect(x, y, width, height, stroke=1, fill=0)

    def picture(self, data: bytes, x: float, y: float, width: float, height: float) -> bool:
        """A picture fitted into a box; False where it cannot be read, and nothing is drawn then."""
        found = _readable(data)
        if found is None:
            return False
        wide, high = found.getSize()
        scale = min(width / wide, height / high)
        shown = wide * scale, high * scale
        self.canvas.drawImage(found, x + (width - shown[0]) / 2, y + (height - shown[1]) / 2, *shown, mask="auto")
        return True


MOST_PIXELS: Final = 60_000_000


def _readable(data: bytes) -> Any | None:
    """A picture as the PDF library takes it, made small enough for a page; None for what is no picture."""
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(BytesIO(data), formats=("PNG", "JPEG")) as image:
            if image.width * image.height > MOST_PIXELS:
                return None
            image.thumbnail((1600, 1600))
            shown = BytesIO()
            image.convert("RGBA" if image.mode in ("RGBA", "LA", "P") else "RGB").save(shown, "PNG")
    except (OSError, ValueError, UnidentifiedImageError, Image.DecompressionBombError):
        return None
    shown.seek(0)
    return ImageReader(shown)
