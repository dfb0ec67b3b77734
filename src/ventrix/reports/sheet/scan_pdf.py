"""Sections along a port by scan, drawn on the page: one curve a cut, the earlier dashed."""

from __future__ import annotations

from typing import Final

from ventrix.reports.sheet.contents import ScanPart
from ventrix.reports.sheet.pen import MM, Pen

HIGH: Final = 34 * MM
DASH: Final = (3, 2)
ROOM: Final = 0.08  # of the span, above and below the curves


def draw_scan(pen: Pen, part: ScanPart) -> None:
    """The plot where sections were taken, then what came off."""
    if part.sections:
        _draw_plot(pen, part)
    for line in part.lines:
        pen.paragraph(line, 8.5)
    pen.y -= 2 * MM


def _draw_plot(pen: Pen, part: ScanPart) -> None:
    pen.room(HIGH + 10 * MM)
    pen.y -= 10
    pen.text(pen.left, pen.y, part.caption, 8, "quiet")
    x0, x1 = pen.left + 11 * MM, pen.right - 16 * MM
    y1 = pen.y - 2 * MM
    y0 = y1 - HIGH
    right = max(max(c.x) for c in part.sections.values())
    low = min(min(c.y) for c in part.sections.values())
    high = max(max(c.y) for c in part.sections.values())
    low, high = low - ROOM * (high - low or low), high + ROOM * (high - low or high)

    def at(x: float, y: float) -> tuple[float, float]:
        return x0 + (x1 - x0) * x / right, y0 + (y1 - y0) * (y - low) / (high - low)

    for share in (0.0, 0.5, 1.0):
        value = low + share * (high - low)
        _, y = at(0, value)
        pen.line(x0, y, x1, y, "hair", 0.4)
        pen.text(x0 - 3, y - 2.4, f"{value:.2f}", 7.5, "quiet", "narrow", "r")
        x, _ = at(share * right, low)
        pen.text(x, y0 - 9, f"{share * right:.2f}", 7.5, "quiet", "narrow", "c")
    last = list(part.sections)[-1]
    for name, curve in part.sections.items():
        points = [at(x, y) for x, y in zip(curve.x, curve.y, strict=True)]
        pen.curve(points, part.kind, 1.6 if name == last else 1.1, () if name == last else DASH)
        shift = 3 if name == last else -9
        pen.text(points[-1][0] + 4, points[-1][1] + shift, name, 7.5, part.kind, "medium" if name == last else "text")
    pen.y = y0 - 7 * MM
