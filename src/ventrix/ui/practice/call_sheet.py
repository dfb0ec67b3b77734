"""Say it first: flow at my lifts, the best place to cut next, whether it gains; kept before the run that scores it."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from PySide6.QtWidgets import QLabel

from ventrix.core.model.job_parts import Call
from ventrix.core.model.kinds import Place
from ventrix.core.model.plausible import check_of, check_plausible
from ventrix.core.planning.of_job import AT
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.rooms.practice.calls import call_lines
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

MOST: Final = 3  # lifts that are asked about
USUAL: Final = tuple(to_si(x, "in") for x in (0.2, 0.4, 0.5))
PLACES: Final = (*AT, Place.THROAT)


class CallSheet(FormSheet):
    """Keeps a call with the cut looked at. Whatever is left empty was not said."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Say it"))
        self.title.setText(tr("Predict first"))
        self.lifts: tuple[float, ...] = ()
        self.flows = [self.add_figure(tr("Flow"), "flow", check_of(Call, "flows")) for _ in range(MOST)]
        self.gains = self.add_choice(
            tr("Will it gain on the cut before?"), [(tr("choose"), ""), (tr("yes"), "yes"), (tr("no"), "no")]
        )
        self.best = self.add_choice(tr("Best place to cut next"), [(tr("choose"), ""), *((p, p) for p in PLACES)])
        self.record = QLabel()
        self.record.setWordWrap(True)
        self.record.setObjectName("quiet")
        self.finish()
        self.column.insertWidget(self.column.count() - 1, self.record)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        self.begin_about(space.real_cut.id)
        mine = tuple(sorted(m.lift for m in space.job.my_lifts if m.kind == space.port.kind))
        self.lifts = (mine or USUAL)[:MOST]
        lift = self.open_book.units.lift
        for i, field in enumerate(self.flows):
            field.setVisible(i < len(self.lifts))
            if i < len(self.lifts):
                field.rename(tr("Flow at {}", lift.with_unit(self.lifts[i])))
            field.set_value(None)
        self.gains.setCurrentIndex(0)
        self.best.setCurrentIndex(0)
        self.gains.setEnabled(space.real_cut.number > 0)
        flowed = bool(space.findings.runs_of(space.real_cut, space.port))
        self.warning.setText(
            tr("This state was flowed already: only a run made from now on scores it.") if flowed else ""
        )
        self.record.setText("\n".join(call_lines(space.findings)))
        self.come_up()
        self.flows[0].box.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        said = [(x, f.value) for x, f in zip(self.lifts, self.flows, strict=False) if f.value is not None]
        call = Call(
            id=new_id(),
            cut_id=space.real_cut.id,
            date=now_text(),
            lifts=tuple(x for x, _ in said),
            flows=tuple(q for _, q in said),
            best_place=str(self.best.currentData()),
            gains=str(self.gains.currentData()),
        )
        if not (said or call.best_place or call.gains):
            raise Refused("nothing was said: a flow, a place, or whether it gains")
        check_plausible(call)
        space.apply("prediction", replace(space.job, calls=(*space.job.calls, call)))
        self.clear_fields()
        self.was_kept()
