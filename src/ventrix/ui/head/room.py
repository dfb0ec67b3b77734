"""The Head room: the measuring sheet. Figures at their place on a dimensioned drawing, what follows beside them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any, Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QTabWidget, QVBoxLayout, QWidget

from ventrix.core.edits.valves import asks_whether_changed, change_valve, correct_valve
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.noun import Noun
from ventrix.core.model.plausible import check_of
from ventrix.core.model.school_questions import side_taken, throat_against_school
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.head.figures import SMALL, SPECS, FieldSpec, Owner, edited, scan_note, stored
from ventrix.ui.head.casting_tab import CastingTab
from ventrix.ui.head.changed_question import ChangedQuestion
from ventrix.ui.head.derived_panel import AreaCurve, DerivedFigures
from ventrix.ui.head.engine_tab import EngineTab
from ventrix.ui.head.finish_tab import FinishTab
from ventrix.ui.head.goal_tab import GoalTab
from ventrix.ui.head.port_drawing import PortDrawing
from ventrix.ui.head.stations_tab import StationsTab
from ventrix.ui.head.tab import Tab
from ventrix.ui.head.train_tab import TrainTab
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.quantity_field import PlacedField, QuantityField
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX, Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr
from ventrix.workspace.ids import new_id

NOUN_OF: Final[dict[str, type[Noun]]] = {"job": Job, "valve": Valve, "cut": Cut}
TABS: Final = 316  # px
WIDE, HIGH = 1060, 560  # px: below either, the drawing is a page of the tabs


class HeadRoom(Room):
    """Tabs on the left, the drawing with its fields, and derived figures that follow while typing."""

    name = tr("Head")
    manual = "head"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.fields: dict[str, QuantityField] = {}
        self._typed: dict[str, float | None] = {}
        self._cut_id = ""
        self._narrow = False
        for spec in SPECS:
            self._make_field(spec)
        placed = {s.key: f for s in SPECS if isinstance(f := self.fields[s.key], PlacedField)}
        self.drawing = PortDrawing(placed)
        self.said = QLabel()
        self.said.setObjectName("error")
        self.said.setWordWrap(True)
        for field in placed.values():
            field.said.connect(self.said.setText)
        self.question = ChangedQuestion()
        self.derived = DerivedFigures()
        self.curve = AreaCurve()
        self.pours = QLabel()
        self.pours.setObjectName("caption")
        self.pours.setWordWrap(True)
        self.pour_again = QPushButton(tr("Pour again"))
        self.pour_again.clicked.connect(lambda: self.ways.sheet("pour"))
        self.scan = QPushButton(tr("By a scan…"))
        self.scan.setToolTip(tr("Sections, lengths and volume of this port from a scanned mold, taken field by field"))
        self.scan.clicked.connect(lambda: self.ways.sheet("scan"))
        self.tabs = QTabWidget()
        self.tabs.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.tabs.tabBar().setAccessibleName(tr("Pages of the head"))
        self.tabs.setDocumentMode(True)
        self.tabs.tabBar().setStyleSheet("QTabBar::tab { padding: 6px 7px; }")  # six of them in a narrow column
        self.tabs.setFixedWidth(TABS)
        self.pages: list[Tab] = [
            EngineTab(self),
            GoalTab(self),
            CastingTab(self),
            StationsTab(self),
            TrainTab(self),
            FinishTab(self),
        ]
        for page in self.pages:
            scroll = ScrollArea(page)
            self.tabs.addTab(scroll, page.title)
        self._lay_out()

    def _lay_out(self) -> None:
        volume = QHBoxLayout()
        volume.setSpacing(8)
        for each in (self.fields["volume"], self.pour_again, self.scan):
            volume.addWidget(each)
        volume.addWidget(self.pours, 1)
        self._below = QWidget()
        below = QHBoxLayout(self._below)
        below.setContentsMargins(0, 0, 0, 0)
        below.setSpacing(12)
        below.addWidget(self.derived, 1)
        self.curve.setFixedWidth(240)
        below.addWidget(self.curve)
        self._follows = ScrollArea()
        self._follows.setWidgetResizable(True)
        self._sheet = QWidget()
        self._right = QVBoxLayout(self._sheet)
        self._right.setContentsMargins(0, 0, 0, 0)
        self._right.setSpacing(4)
        self._right.addWidget(self.drawing, 1)
        self._right.addWidget(self.said)
        self._right.addWidget(self.question)
        self._right.addLayout(volume)
        self._right.addWidget(self._below)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(14, 6, 14, 6)
        self._row.setSpacing(14)
        self._row.addWidget(self.tabs)
        self._row.addWidget(self._sheet, 1)

    def fit(self, there: QSize) -> None:
        """In a small window the drawing and what follows from it become pages of the tabs."""
        narrow = there.width() < WIDE or there.height() < HIGH
        if narrow == self._narrow:
            return
        self._narrow = narrow
        if narrow:
            self.tabs.insertTab(0, self._sheet, tr("Drawing"))
            self.tabs.addTab(self._follows, tr("What follows"))
            self._follows.setWidget(self._below)
            self.tabs.setFixedWidth(QWIDGETSIZE_MAX)
            self.tabs.setMinimumWidth(0)
            self.tabs.setCurrentIndex(0)
        else:
            self._row.addWidget(self._sheet, 1)
            self.tabs.removeTab(self.tabs.indexOf(self._follows))
            self._right.addWidget(self._follows.takeWidget())
            for part in (self._sheet, self._below):
                part.show()
            self.tabs.setFixedWidth(TABS)

    def _make_field(self, spec: FieldSpec) -> None:
        kind = PlacedField if spec.group == "drawing" else QuantityField
        owner, key = NOUN_OF[spec.owner], spec.key
        limit = (Pour, "volume") if key in ("volume", "chamber") else (owner, key)
        small = spec.unit == "lift" or spec.key in SMALL
        field = kind(spec.caption, self.open_book.units[spec.unit], check_of(*limit, spec.check), small=small)
        field.edited.connect(lambda value, key=spec.key: self._typing(key, value))
        field.accepted.connect(lambda value, s=spec: self._accept(s, value))
        self.fields[spec.key] = field

    # -- showing

    def refresh(self) -> None:
        space = self.open_book.workspace
        self.setEnabled(space is not None)
        if space is None or space.port is None or space.real_cut is None:
            return
        job, port, cut = space.job, space.port, space.real_cut
        elsewhere = cut.id != self._cut_id
        if elsewhere:
            self.question.put_away()
        self._cut_id = cut.id
        self._typed = {}
        for spec in SPECS:
            field = self.fields[spec.key]
            if elsewhere:
                field.forget()
            field.use(self.open_book.units[spec.unit])
            value, note = stored(job, port, cut, spec)
            self._typed[spec.key] = value
            field.set_value(value, note=note, scan=scan_note(cut, spec, value, self.open_book.units))
        count = len(cut.pours)
        self.pours.setText(
            tr("mean of {} pours, {}", count, tr(cut.pours[-1].how))
            if count > 1
            else (tr(cut.pours[-1].how) if count else "")
        )
        for page in self.pages:
            page.show_job(job, port, cut)
        self._derive()

    def _typing(self, key: str, value: float | None) -> None:
        self._typed[key] = value
        self._derive()

    def _derive(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        port, cut, units = space.port, space.real_cut, self.open_book.units
        known = self._typed | {"checking_lift": space.findings.checking_lift}
        problems = self.derived.show_figures(known, units, port.valves)
        for key, said in problems.items():
            self.fields[key].refuse(said)
        if not problems and not any(f.box.property("wrong") for f in self.fields.values()):
            self.said.clear()
        wanted = side_taken(space.job, "throat").value
        self.drawing.show_sizes(self._typed, port.kind, sum(wanted) / 2, side_taken(space.job, "seat").value)
        typed = {
            s.key: self._typed.get(s.key) for s in SPECS if s.owner == Owner.CUT and s.key not in ("volume", "chamber")
        }
        poured = self._typed.get("volume")
        own: dict[str, Any] = {key: value for key, value in typed.items() if value is not None}
        as_typed = replace(cut, **own)
        try:
            here = unroll(port, as_typed, space.job.valve_of(port, as_typed))
            self.derived.sentence.setText(
                " ".join(s for s in (self._against_school(), self.curve.show_port(here, port.kind, poured, units)) if s)
            )
        except Refused as error:
            self.derived.sentence.setText(sentence(str(error)))

    def _against_school(self) -> str:
        """Where the throat stands against the range this job's porter wants."""
        throat, head = self._typed.get("throat_diameter"), self._typed.get("head_diameter")
        space = self.open_book.workspace
        if space is None or throat is None or not head:
            return ""
        return throat_against_school(space.job, throat / head)

    # -- editing

    def _accept(self, spec: FieldSpec, value: float | None) -> None:
        shown = self.open_book.units[spec.unit]
        words = tr("taken out") if value is None else shown.with_unit(value)
        if spec.owner == Owner.VALVE:
            self.change_valve(f"{spec.caption.lower()} {words}", **{spec.key: value})
            return
        self.change(f"{spec.caption.lower()} {words}", lambda job, port, cut: edited(job, port, cut, spec, value))

    def change(self, name: str, edit: Callable[[Job, Port, Cut], Job]) -> None:
        """Apply an edit of the job, port or cut in hand, by its name."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        job = edit(space.job, space.port, space.real_cut)
        if job != space.job:
            space.apply(name, job)

    def change_valve(self, name: str, **values: Any) -> None:
        """Set figures of the valve; where an earlier cut was flowed with it, ask whether it always was so."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        number = space.real_cut.number

        def correct() -> None:
            self.change(name, lambda job, port, cut: correct_valve(job, port, cut, new_id(), **values))

        def fit() -> None:
            self.change(tr("{} from cut {}", name, number), lambda j, p, c: change_valve(j, p, c, new_id(), **values))

        if asks_whether_changed(space.job, space.port, space.real_cut):
            asked = tr(
                "{}: earlier cuts were flowed with this valve. Was it always this size, or was it changed?",
                name.capitalize(),
            )
            self.question.ask(asked, correct, fit, self._let_go)
        else:
            correct()

    def _let_go(self) -> None:
        for spec in (s for s in SPECS if s.owner == Owner.VALVE):
            self.fields[spec.key].forget()
        self.refresh()

    def change_job(self, name: str, **values: Any) -> None:
        """Set fields of the job."""
        self.change(name, lambda job, _port, _cut: replace(job, **values))
