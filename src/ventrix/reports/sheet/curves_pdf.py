"""Flow against lift, drawn on the page."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

from ventrix.reports.sheet.contents import Curve, PairPart, Sheet
from ventrix.reports.sheet.pen import MM, Pen
from ventrix.words import tr

_DASH: Final = (3.2, 2.2)


def draw_curves(pen: Pen, sheet: Sheet) -> None:
    """Flow against lift, before and after, both kinds of port: a plot for every unit."""
    pairs = [p for p in sheet.pairs if len(p.after.x) > 1]
    if not pairs:
        return
    units = list(dict.fromkeys(p.unit for p in pairs))
    height = 62 * MM if len(units) == 1 else 50 * MM
    for unit in units:  # an index and a flow have no axis in common
        pen.room(height + 6 * MM)
        _plot(pen, [p for p in pairs if p.unit == unit], tr("lift, {}", sheet.lift_label), height)


def _plot(pen: Pen, pairs: Sequence[PairPart], below: str, height: float) -> None:
    x0, x1 = pen.left + 9 * MM, pen.right - 22 * MM
    y1 = pen.y - 3 * MM
    y0 = y1 - height + 6 * MM
    right = max(c.x[-1] for p in pairs for c in (p.before, p.after)) or 1.0
    top = max(max(c.y) for p in pairs for c in (p.before, p.after)) * 1.06 or 1.0

    def at(x: float, y: float) -> tuple[float, float]:
        return x0 + (x1 - x0) * x / right, y0 + (y1 - y0) * y / top

    for value in _ticks(top, 5):
        px, py = at(0, value)
        pen.line(px, py, x1, py, "hair", 0.4)
        pen.text(px - 3, py - 2.4, f"{value:g}", 7.5, "quiet", "narrow", "r")
    for value in _ticks(right, 7):
        px, py = at(value, 0)
        pen.line(px, y0, px, y1, "hair", 0.4)
        pen.text(px, y0 - 9, f"{value:g}", 7.5, "quiet", "narrow", "c")
    pen.line(x0, y0, x1, y0, "text", 0.8)
    pen.line(x0, y0, x0, y1, "text", 0.8)
    pen.text(x0 + 3, y1 - 7, pairs[0].unit, 8, "quiet")
    pen.text(x1, y0 - 17, below, 7.5, "quiet", align="r")
    ends: list[float] = []
    for p in pairs:
        for curve, name, width, dash in ((p.after, "after", 1.7, ()), (p.before, "before", 1.1, _DASH)):
            if curve is p.before and p.before == p.after:
                continue
            pen.curve([at(x, y) for x, y in zip(curve.x, curve.y, strict=True)], p.kind, width, dash)
            if curve is p.after:
                _squares(pen, p, curve, at)
            _, end = at(curve.x[-1], curve.y[-1])
            while any(abs(end - e) < 8.5 for e in ends):
                end -= 1.0
            ends.append(end)
            px = at(curve.x[-1], 0)[0] + 4
            font = "medium" if curve is p.after else "text"
            words = f"{p.kind}{p.sign}" + (f", {name}" if p.before != p.after else "")
            pen.text(px, end - 2.5, words, 7.5, p.kind, font)
    pen.y = y0 - 7 * MM


def _squares(pen: Pen, part: PairPart, curve: Curve, at: Callable[[float, float], tuple[float, float]]) -> None:
    """The tested lifts on a curve: squares for intake, discs for exhaust, so that both read without colour."""
    pen.canvas.setStrokeColor(pen.shade(part.kind))
    pen.canvas.setFillColor(pen.shade("paper"))
    pen.canvas.setLineWidth(0.8)
    for row in part.lifts:
        x = float(row.lift)
        y = _on(curve, x)
        if y is None or row.mark:
            continue
        px, py = at(x, y)
        if part.kind == "intake":
            pen.canvas.rect(px - 1.6, py - 1.6, 3.2, 3.2, stroke=1, fill=1)
        else:
            pen.canvas.circle(px, py, 1.7, stroke=1, fill=1)


def _ticks(top: float, wanted: int) -> list[float]:
    """Round values up to a top, about as many as wanted."""
    if top <= 0:
        return []
    raw = top / wanted
    power = 10.0 ** (len(f"{int(raw)}") - 1 if raw >= 1 else -next(n for n in range(1, 12) if raw * 10**n >= 1))
    step = next(s * power for s in (1, 2, 2.5, 5, 10) if s * power >= raw)
    return [round(step * i, 10) for i in range(1, int(top / step) + 1)]


def _on(curve: Curve, x: float) -> float | None:
    """A curve's value at a place, on a straight line between its points; None past its ends."""
    for (x0, y0), (x1, y1) in zip(
        zip(curve.x, curve.y, strict=True), zip(curve.x[1:], curve.y[1:], strict=True), strict=False
    ):
        if x0 <= x <= x1 * (1 + 1e-9) and x1 > x0:
            return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return None
