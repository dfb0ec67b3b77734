"""Begins a traverse: which station, which points, at which lift, with which probe; or with a ball."""

from __future__ import annotations

from typing import Final

from ventrix.core.air.layouts import LAYOUTS, usual_layout
from ventrix.core.edits.traverses import add_traverse
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.kept_words import SpeedsAt
from ventrix.core.model.kinds import Direction, StationName
from ventrix.core.model.traverse import Traverse
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

KINDS: Final = (
    (tr("pitot: air speeds"), TraverseKind.PITOT),
    (tr("total tube against the room"), TraverseKind.TOTAL_HEAD),
    (tr("flow ball"), TraverseKind.BALL),
)


class TraverseSheet(FormSheet):
    """Hangs an empty traverse from the cut looked at; the room then leads from point to point."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Begin"))
        self.kind = self.add_choice(tr("With"), KINDS)
        self.station = self.add_choice(tr("Station"), [(s, s) for s in StationName])
        self.own = self.add_text(tr("… or one of your own"), tr("a name"))
        self.layout_choice = self.add_choice(tr("Points"), [(x.name, x.name) for x in LAYOUTS])
        self.lift = self.add_figure(tr("Lift"), "lift")
        self.probe = self.add_choice(tr("Probe"), ((tr("straight"), "straight"), (tr("curved"), "curved")))
        self.diameter = self.add_figure(tr("Probe's diameter"), "length")
        self.coefficient = self.add_figure(tr("Coefficient, if not 1"), "ratio")
        self.speeds_at = self.add_choice(tr("Speeds, where typed, are at"), [(s.words, s.value) for s in SpeedsAt])
        self.base = self.add_figure(tr("Flow without the ball"), "flow")
        self.finish()
        self.caution.setText(
            tr(
                "Hearing protection on; keep probe and fingers clear of valve and blower. "
                "Hold the probe into the stream: ten degrees off costs one and a half percent."
            )
        )
        self.station.currentIndexChanged.connect(self._usual)
        self.kind.currentIndexChanged.connect(self._for_kind)
        self._for_kind()

    def _usual(self) -> None:
        choose(self.layout_choice, usual_layout(self.station.currentData()).name)

    def _for_kind(self) -> None:
        kind = self.kind.currentData()
        pitot = kind == TraverseKind.PITOT
        self.base.setVisible(kind == TraverseKind.BALL)
        self.probe.setEnabled(pitot)
        self.coefficient.setVisible(pitot)
        self.diameter.setVisible(kind != TraverseKind.BALL)
        self.speeds_at.setEnabled(pitot)

    def open(self, station: str = "") -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        self.title.setText(tr("Air of {}, cut {}", space.port.name.lower(), space.real_cut.number))
        if station in tuple(StationName):
            choose(self.station, station)
        self._usual()
        if self.lift.value is None and space.job.cam_lift is not None:
            self.lift.set_value(space.job.cam_lift)
        self.come_up()
        self.station.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        kind = self.kind.currentData()
        ball = kind == TraverseKind.BALL
        if kind == TraverseKind.TOTAL_HEAD and space.port is not None and space.port.kind != Direction.INTAKE:
            self.problem.setText(tr("Total head is read against the room on draw: on an intake."))
            return
        if self.lift.value is None:
            self.problem.setText(tr("At which lift?"))
            return
        if ball and self.base.value is None:
            self.problem.setText(tr("What does it flow without the ball?"))
            return
        runs = space.real_cut.runs
        traverse = Traverse(
            id=new_id(),
            station=self.own.text().strip().lower() or self.station.currentData(),
            kind=kind,
            layout=self.layout_choice.currentData(),
            setup_id=runs[-1].setup_id if runs else None,
            mount_id=runs[-1].mount_id if runs else None,
            lift=self.lift.value,
            probe="ball" if ball else self.probe.currentData(),
            probe_diameter=None if ball else self.diameter.value,
            coefficient=self.coefficient.value,
            speeds_at=self.speeds_at.currentData(),
            base_flow=self.base.value if ball else None,
            date=now_text(),
        )
        job = add_traverse(space.job, space.real_cut.id, traverse)
        space.apply(tr("{} at the {}", kind, traverse.station), job)
        self.own.clear()
        self.was_kept()
        self.open_book.ways.room("air", traverse.id)
