"""A trial: clay, another valve, entry or pipe."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.edits.cuts import add_trial
from ventrix.core.metal.unrolled import ZONE_NAMES
from ventrix.core.model.cut import Trial
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.kinds import TrialKind
from ventrix.core.model.plausible import check_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose, taken
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class TrialSheet(FormSheet):
    """Hangs a trial from the cut looked at: a try that can be taken back. It is flowed like a cut."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Begin the trial"))
        self.kind = self.add_choice(tr("What is tried"), [(k.words, k) for k in TrialKind])
        self.name = self.add_text(tr("Name"), tr("clay on the roof at the pinch"))
        self.place = self.add_choice(tr("Where"), [(n, n) for n in ZONE_NAMES])
        self.area = self.add_figure(tr("Area that the clay takes"), "area")
        self.doubt = self.add_figure(tr("Uncertainty of that area (±)"), "area")
        self.piece = self.add_choice(tr("Which piece is put on"), [(tr("none of the job's"), None)])
        self.valve_head = self.add_figure(tr("Its valve's head"), "length", check_of(Valve, "head_diameter"))
        self.valve_stem = self.add_figure(tr("… stem"), "length", check_of(Valve, "stem_diameter"))
        self.valve_seat = self.add_figure(tr("… seat angle"), "angle", check_of(Valve, "seat_angle"))
        self.finish()
        self.caution.setText(
            tr(
                "Prove it with clay before cutting: narrow the place; if the flow does not fall, opening it is "
                "unlikely to gain. The reverse is not promised. Press clay well: a piece that comes loose goes "
                "through the blower."
            )
        )
        self.kind.currentIndexChanged.connect(self._for_clay)

    def _for_clay(self) -> None:
        clay = self.kind.currentData() == "clay"
        for widget in (self.place, self.area, self.doubt):
            widget.setEnabled(clay)
        self.piece.setEnabled(self.kind.currentData() in (TrialKind.ENTRY, TrialKind.PIPE))
        for field in (self.valve_head, self.valve_stem, self.valve_seat):
            field.setEnabled(self.kind.currentData() == TrialKind.VALVE)

    def open(self, place: str = "", kind: TrialKind | None = None) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        self.title.setText(tr("Trial on cut {} of {}", space.real_cut.number, space.port.name.lower()))
        if kind is not None or place:
            self.kind.setCurrentIndex(self.kind.findData(kind or TrialKind.CLAY))
        if place:
            choose(self.place, place)
        self.piece.clear()
        self.piece.addItem(tr("none of the job's"), None)
        for port in (p for p in space.job.ports if p.piece and p.kind == space.port.kind):
            self.piece.addItem(port.name, port.id)
        self._for_clay()
        self.come_up()
        self.name.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        kind = self.kind.currentData()
        clay = kind == "clay"
        trial = Trial(
            id=new_id(),
            kind=kind,
            name=self.name.text().strip(),
            place=taken(self.place) if clay else "",
            area_taken=self.area.value if clay else None,
            area_uncertainty=self.doubt.value if clay else None,
            piece_id=self.piece.currentData() if kind in (TrialKind.ENTRY, TrialKind.PIPE) else None,
            date=now_text(),
        )
        if trial.piece_id is not None and not trial.name:
            trial = replace(trial, name=self.piece.currentText())
        if not clay and not trial.name:
            self.problem.setText(tr("Name what is tried: which valve, entry or pipe."))
            return
        job = space.job
        if kind == TrialKind.VALVE and self.valve_head.value is not None and space.port is not None:
            had = job.valve_of(space.port, space.real_cut) or Valve(id="")
            valve = replace(
                had,
                id=new_id(),
                name=trial.name,
                head_diameter=self.valve_head.value,
                stem_diameter=self.valve_stem.value or had.stem_diameter,
                seat_angle=self.valve_seat.value or had.seat_angle,
            )
            trial = replace(trial, valve_ids=(valve.id,))
            job = replace(job, valves=(*job.valves, valve))
        space.apply(tr("trial {} {}", kind, trial.name or trial.place), add_trial(job, space.real_cut.id, trial))
        self.clear_fields()
        space.look_at_trial(trial.id)
        self.open_book.say(tr("Trial begun: flow it in the Flow room; it is compared with its cut."))
        self.was_kept()
