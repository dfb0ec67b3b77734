"""What stands in the Compare room where two cuts were not both flowed."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

from ventrix.core.judging.findings import Pair
from ventrix.ui.look import theme
from ventrix.words import tr


def unflowed_html(pair: Pair, rows: Sequence[tuple[str, str, str, str]]) -> str:
    """Why no flow is compared, and what is known of the metal instead."""
    t = theme.current()
    head = tr("<p>{} The Flow room (2) is where that is put right.</p>", escape(pair.missing))
    if not rows:
        return head
    cell = "<td align='right' style='padding: 2px 14px'>{}</td>"
    titles = ("", tr("cut {}", pair.before.number), tr("cut {}", pair.after.number), "change")
    lines = "".join(
        f"<tr><td style='padding: 2px 14px; color: {t.quiet}'>{escape(row[0])}</td>"
        + "".join(cell.format(escape(text)) for text in row[1:])
        + "</tr>"
        for row in (titles, *rows)
    )
    return tr("{}<p>The metal, without flow:</p><table align='center' style='font-weight: 400'>{}</table>", head, lines)
