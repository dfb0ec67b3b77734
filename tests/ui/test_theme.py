"""Both themes pass WCAG AA, and marks do not hang on colour."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QRectF
from PySide6.QtGui import QImage, QPainter

from ventrix.ui.look.marks import draw_mark
from ventrix.ui.look.theme import THEMES, Theme


def luminance(colour: str) -> float:
    # WCAG 2.1, relative luminance
    parts = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(a: str, b: str) -> float:
    # WCAG 2.1, contrast ratio
    light, dark = sorted((luminance(a), luminance(b)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.mark.parametrize("theme", THEMES.values(), ids=lambda t: t.name)
def test_contrast(theme: Theme) -> None:
    # WCAG 2.1 AA, 1.4.3 and 1.4.11: 4.5 for text, 3 for lines and icons
    for ground in (theme.ground, theme.panel, theme.raised, theme.kept, theme.refused, theme.odd):
        for role in ("text", "quiet", "brass", "intake", "exhaust", "better", "worse", "unproven"):
            assert contrast(getattr(theme, role), ground) >= 4.5, (role, ground)
        assert contrast(theme.scribe, ground) >= 3


def test_marks_differ_in_grey(qapp) -> None:  # type: ignore[no-untyped-def]
    shapes = []
    for result in ("better", "worse", "not proven"):
        image = QImage(40, 40, QImage.Format.Format_Grayscale8)
        image.fill(0)
        painter = QPainter(image)
        draw_mark(painter, QRectF(5, 5, 30, 30), result)
        painter.end()
        shapes.append([image.pixelColor(x, y).value() > 60 for y in range(40) for x in range(40)])
    assert shapes[0] != shapes[1]
    assert shapes[1] != shapes[2]
    assert shapes[0] != shapes[2]


def test_no_painted_word_is_smaller_than_twelve_pixels() -> None:
    """Only an axis may have its ticks smaller: sizes are read off every call that paints words."""
    import re
    from pathlib import Path

    import ventrix.ui

    sizes = re.compile(
        r"theme\.font\((\d+)(?:\.\d+)?[,)]|paint_text\([^#\n]*\"(?:quiet|text|brass)\", (\d+)[,)]|font-size: (\d+)px"
    )
    small = []
    for path in sorted(Path(ventrix.ui.__file__).parent.rglob("*.py")):
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            for match in sizes.finditer(line):
                if (
                    int(next(g for g in match.groups() if g)) < 12
                    and "tick" not in line.lower()
                    and "alone" not in line
                ):
                    small.append(f"{path.name}:{number}: {line.strip()}")
    assert small == []
