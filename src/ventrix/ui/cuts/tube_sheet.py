"""A hole at a port's wall that was worked: sleeved before the port is cut into it, plugged, welded, moved or tapped."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.model.cut import Tube
from ventrix.core.model.kinds import Band, HoleWork, Place
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class TubeSheet(FormSheet):
    """Keeps the work at the cut looked at; where the hole is shut, the wall rule there becomes "tube present"."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the hole"))
        self.work = self.add_choice(tr("What was done"), [(w.words, w) for w in HoleWork])
        self.place = self.add_choice(tr("Where"), [(p, p) for p in Place])
        self.side = self.add_choice(tr("On which side"), [(b.words, b) for b in Band])
        self.extent = self.add_figure(tr("Tube, plug or thread, diameter"), "length")
        self.adhesive = self.add_text(tr("Set in"), tr("epoxy, retaining compound"))
        self.tested = self.add_check(tr("pressure-tested and tight"))
        self.finish()
        self.caution.setText(
            tr(
                "Welding a casting is for a licensed shop. Glue, let it cure, and pressure-test before the head goes "
                "back: a tube that weeps puts water or oil into the port. What the adhesive stands in heat and "
                "coolant is its maker's to say."
            )
        )

    def open(self, place: str = "") -> None:
        """Show the sheet for a place of the port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        self.begin_about(space.real_cut.id)
        self.title.setText(tr("Hole in {}, cut {}", space.port.name.lower(), space.real_cut.number))
        if place in tuple(Place):
            choose(self.place, place)
        self.come_up()
        self.extent.box.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        tube = Tube(
            id=new_id(),
            place=self.place.currentData(),
            work=self.work.currentData(),
            side=self.side.currentData(),
            size=self.extent.value,
            adhesive=self.adhesive.text().strip(),
            tested=self.tested.isChecked(),
            date=now_text(),
        )
        job = edit_cut(space.job, space.real_cut.id, lambda c: replace(c, tubes=(*c.tubes, tube)))
        space.apply(tr("hole at the {} {}", tube.place, tube.work), job)
        self.clear_fields()
        self.was_kept()
