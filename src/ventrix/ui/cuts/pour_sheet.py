"""A pour of the port."""

from __future__ import annotations

from ventrix.core.edits.cuts import add_chamber_pour, add_pour
from ventrix.core.model.cut import Pour
from ventrix.core.model.kept_words import PourMethod
from ventrix.ui.cuts.practice_button import PracticeButton
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class PourSheet(FormSheet):
    """Keeps one filling of the port; repeats are averaged."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the pour"))
        self.what = self.add_choice(tr("What was poured"), [(tr("the port"), 0)])
        self.volume = self.add_figure(tr("Poured volume"), "volume")
        self.burette = PracticeButton(self, tr("Pour it (8 min)"), lambda p, port: p.pour(port), self.volume)
        self.column.addWidget(self.burette)
        self.how = self.add_choice(tr("How it was poured"), [(m, m) for m in PourMethod])
        self.finish()
        self.caution.setText(
            tr("Pour twice: the mean is used, and their difference is its uncertainty. Wipe up: fluids burn.")
        )

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        had = [self.open_book.units.volume.text(p.volume) for p in space.real_cut.pours]
        self.what.clear()
        self.what.addItem(tr("the port"), 0)
        own = [space.port.cylinder] if space.port.cylinder else []
        for cylinder in dict.fromkeys((*own, *range(1, (space.job.cylinders or 1) + 1))):
            self.what.addItem(tr("the chamber of cylinder {}", cylinder), cylinder)
        self.title.setText(tr("Pour of {}, cut {}", space.port.name.lower(), space.real_cut.number))
        self.warning.setText(tr("Poured before at this cut: {} cc.", ", ".join(had)) if had else "")
        self.burette.appear()
        self.come_up()
        self.volume.box.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        if self.volume.value is None:
            self.problem.setText(tr("How much went in?"))
            return
        pour = Pour(id=new_id(), volume=self.volume.value, how=self.how.currentData(), date=now_text())
        words = self.open_book.units.volume.with_unit(pour.volume)
        cylinder = int(self.what.currentData() or 0)
        if cylinder:
            job = add_chamber_pour(space.job, cylinder, space.port.head_id if space.port else None, pour, new_id())
            space.apply(tr("chamber {} poured, {}", cylinder, words), job)
            self.clear_fields()
            self.was_kept()
            return
        space.apply(tr("pour {}", words), add_pour(space.job, space.real_cut.id, pour))
        self.clear_fields()
        self.was_kept()
