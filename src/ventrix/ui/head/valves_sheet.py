"""The valves fitted from a cut on: one, or several that are not alike. What came before keeps its own."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.model.job import Job, fitted_at
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id

# Field, caption, unit of the display, a hint.
FIGURES = (
    ("head_diameter", tr("Heads"), "length", "1.81; 1.75"),
    ("stem_diameter", tr("Stems"), "length", "0.314"),
    ("seat_angle", tr("Seat angles"), "angle", "45"),
    ("back_cut_angle", tr("Back cut angles"), "angle", "30"),
    ("back_cut_width", tr("Back cut widths"), "length", "0.040"),
    ("weight", tr("Weights"), "mass", "104"),
)
MOST_VALVES = 5


class ValvesSheet(FormSheet):
    """Figures of one valve, or of several with ; between: where all are alike, one figure is enough."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Fitted from this cut on"))
        self.boxes = {key: self.add_text(caption, hint) for key, caption, _, hint in FIGURES}
        self.shape = self.add_text(tr("Backs"), tr("tulip; flat"))
        self.finish()
        self.caution.setText(
            tr(
                "Valve limits, hardened or sodium-filled valves: follow the maker's data and a licensed machine shop. "
                "To correct a size that always was so, use the Head room."
            )
        )

    def open(self) -> None:
        """Show what is fitted at the cut looked at."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        port, cut, units = space.port, space.real_cut, self.open_book.units
        at = fitted_at(port, cut)[1]
        whence = tr("as received") if at is None else tr("fitted at cut {}", at)
        self.title.setText(tr("Valves of {} from cut {} on ({})", port.name.lower(), cut.number, whence))
        valves = space.job.valves_of(port, cut)
        for key, _, unit, _ in FIGURES:
            values = [getattr(v, key) for v in valves]
            told = ["" if v is None else units[unit].text(v) for v in values]
            self.boxes[key].setText("; ".join(dict.fromkeys(told)) if len(set(told)) == 1 else "; ".join(told))
        self.shape.setText("; ".join(dict.fromkeys(v.back_shape for v in valves if v.back_shape)))
        self.come_up()
        self.boxes["head_diameter"].setFocus()

    def _figures(self, key: str, unit: str, count: int) -> list[float | None]:
        """One figure for each valve. ValueError with a sentence where there are too many or too few."""
        parts = [p.strip() for p in self.boxes[key].text().split(";") if p.strip()]
        if not parts:
            return [None] * count
        if len(parts) not in (1, count):
            raise Refused("{} figures for {} valves: one for all, or one for each", len(parts), count)
        found = []
        for text in parts:
            value = parse_quantity(text, self.open_book.units[unit].unit)
            check_of(Valve, key)(value)
            found.append(value)
        return [found[0]] * count if len(found) == 1 else [*found]

    def _valves(self, job: Job) -> tuple[Valve, ...]:
        count = len([p for p in self.boxes["head_diameter"].text().split(";") if p.strip()])
        if count == 0:
            raise Refused("how large is the valve's head?")
        if count > MOST_VALVES:
            raise Refused("{} valves at one port are more than any head has", count)
        columns = {key: self._figures(key, unit, count) for key, _, unit, _ in FIGURES}
        shapes = [p.strip() for p in self.shape.text().split(";")] or [""]
        space = self.open_book.workspace
        assert space is not None and space.port is not None
        had = job.valve_of(space.port, space.real_cut) or Valve(id="", name=tr("{} valve", space.port.kind))
        return tuple(
            replace(
                had,
                id=new_id(),
                back_shape=shapes[i] if i < len(shapes) else shapes[-1],
                **{key: column[i] for key, column in columns.items()},  # type: ignore[arg-type]
            )
            for i in range(count)
        )

    def take(self) -> None:
        """Fit these valves at the cut looked at."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        try:
            valves = self._valves(space.job)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        ids = tuple(v.id for v in valves)
        job = replace(space.job, valves=(*space.job.valves, *valves))
        job = edit_cut(job, space.real_cut.id, lambda c: replace(c, valve_ids=ids))
        space.apply(tr("valves fitted from cut {} on", space.real_cut.number), job)
        self.was_kept()
