"""The Head room: valve, throat, bore, port volume and length, with what follows from them while typing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from ventrix.core import edits, port, valve
from ventrix.core.curve import Cam
from ventrix.core.model import Cut, Port, Pour, Valve, carried, poured_volume
from ventrix.core.units import percent_text
from ventrix.ui.parts.field import QuantityField, positive
from ventrix.ui.parts.section import SectionDrawing, Sizes
from ventrix.ui.rooms.room import Room
from ventrix.ui.session import Session
from ventrix.ui.units import Units
from ventrix.workspace import new_id


@dataclass(frozen=True, slots=True)
class FieldSpec:
    """A field: what it edits, its name in the field's own words, and which unit it is shown in."""

    key: str
    caption: str
    unit: str
    owner: str  # job, valve or cut


def _angle(value: float) -> None:
    if not 0 < value < 1.5707:
        raise ValueError("must lie between 0 and 90 degrees")


SPECS = (
    FieldSpec("bore", "Bore it will sit on", "length", "job"),
    FieldSpec("cam_lift", "Cam lift at the valve", "lift", "job"),
    FieldSpec("cam_duration", "Duration at 0.050 in", "angle", "job"),
    FieldSpec("worthwhile_gain", "Smallest gain that matters", "flow", "job"),
    FieldSpec("head_diameter", "Valve head diameter", "length", "valve"),
    FieldSpec("stem_diameter", "Stem diameter", "length", "valve"),
    FieldSpec("seat_width", "Seat width, along the face", "length", "valve"),
    FieldSpec("seat_angle", "Seat angle", "angle", "valve"),
    FieldSpec("throat_diameter", "Throat diameter", "length", "cut"),
    FieldSpec("volume", "Poured volume", "volume", "cut"),
    FieldSpec("floor_length", "Wire along the floor", "length", "cut"),
    FieldSpec("roof_length", "Wire along the roof", "length", "cut"),
)
GROUPS = (("job", "The head and its engine"), ("valve", "Valve and seat"), ("cut", "Port at this cut"))


def _cam_duration(value: float) -> None:
    if not 0 < value < 6.2832:
        raise ValueError("must lie between 0 and 360 degrees")


class HeadRoom(Room):
    """Fields on the left, the section drawn to them, and derived figures that follow while typing."""

    name = "Head"
    manual = "head"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._title = QLineEdit()
        self._title.setAccessibleName("Job title")
        self._title.editingFinished.connect(self._rename)
        self.fields: dict[str, QuantityField] = {}
        self._typed: dict[str, float | None] = {}
        self._cut_id = ""
        form = QVBoxLayout()
        form.setSpacing(3)
        form.setContentsMargins(4, 0, 12, 0)
        form.addWidget(_heading("Job"))
        form.addWidget(self._title)
        self._group_labels: dict[str, QLabel] = {}
        for owner, words in GROUPS:
            form.addSpacing(8)
            self._group_labels[owner] = _heading(words)
            form.addWidget(self._group_labels[owner])
            for spec in (s for s in SPECS if s.owner == owner):
                form.addWidget(self._make_field(spec))
        form.addStretch()
        holder = QWidget()
        holder.setLayout(form)
        scroll = QScrollArea()
        scroll.setWidget(holder)
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setFixedWidth(390)
        self.drawing = SectionDrawing()
        self.derived = DerivedFigures()
        right = QVBoxLayout()
        right.setContentsMargins(0, 0, 0, 0)
        right.addWidget(self.drawing, 1)
        right.addWidget(self.derived)
        row = QHBoxLayout(self)
        row.setContentsMargins(20, 12, 20, 12)
        row.setSpacing(24)
        row.addWidget(scroll)
        row.addLayout(right, 1)

    def _make_field(self, spec: FieldSpec) -> QuantityField:
        check = {"seat_angle": _angle, "cam_duration": _cam_duration}.get(spec.key, positive)
        field = QuantityField(spec.caption, self.session.units[spec.unit], check)
        field.edited.connect(lambda value, key=spec.key: self._typing(key, value))
        field.accepted.connect(lambda value, s=spec: self._accept(s, value))
        self.fields[spec.key] = field
        return field

    # -- showing

    def refresh(self) -> None:
        space = self.session.workspace
        self.setEnabled(space is not None)
        if space is None or space.port is None or space.cut is None:
            return
        the_port, cut = space.port, space.cut
        the_valve = space.job.valve_of(the_port)
        if not (self._title.hasFocus() and self._title.isModified()):
            self._title.setText(space.job.title)
        self._group_labels["valve"].setText(f"Valve and seat, {the_port.name.lower()}")
        self._group_labels["cut"].setText(f"Port at cut {cut.number}, {cut.name or 'no name'}")
        self._typed = {}
        elsewhere = cut.id != self._cut_id
        self._cut_id = cut.id
        for spec in SPECS:
            field = self.fields[spec.key]
            if elsewhere:
                field.forget()
            field.use(self.session.units[spec.unit])
            value, note = self._stored(spec, the_valve, the_port, cut)
            self._typed[spec.key] = value
            field.set_value(value, note=note)
        self._derive()

    def _stored(self, spec: FieldSpec, the_valve: Valve | None, the_port: Port, cut: Cut) -> tuple[float | None, str]:
        space = self.session.workspace
        assert space is not None
        if spec.owner == "job":
            return getattr(space.job, spec.key), ""
        if spec.owner == "valve":
            return (getattr(the_valve, spec.key) if the_valve else None), ""
        own = poured_volume(cut) if spec.key == "volume" else getattr(cut, spec.key)
        if own is not None:
            return own, ""
        found = carried(the_port, cut, spec.key)
        return (found.value, f"carried from cut {found.cut_number}, not measured here") if found else (None, "")

    def _typing(self, key: str, value: float | None) -> None:
        self._typed[key] = value
        self._derive()

    def _derive(self) -> None:
        space = self.session.workspace
        if space is None or space.port is None:
            return
        kind = space.port.kind
        problems = self.derived.show_figures(self._typed, self.session.units)
        for key, sentence in problems.items():
            self.fields[key].refuse(sentence)
        self.drawing.show_sizes(Sizes.of(self._typed), kind, self.session.units)

    # -- editing

    def _accept(self, spec: FieldSpec, value: float | None) -> None:
        space = self.session.workspace
        if space is None or space.port is None or space.cut is None:
            return
        shown = self.session.units[spec.unit]
        words = "taken out" if value is None else shown.with_unit(value)
        name = f"{spec.caption.lower()} {words}"
        space.apply(name, self._edited(spec, value))

    def _edited(self, spec: FieldSpec, value: float | None) -> Any:
        space = self.session.workspace
        assert space is not None and space.port is not None and space.cut is not None
        job = space.job
        values: dict[str, Any] = {spec.key: value}
        if spec.owner == "job":
            return replace(job, **values)
        if spec.owner == "valve":
            the_valve = job.valve_of(space.port)
            if the_valve is None:
                made = Valve(id=new_id(), name=f"{space.port.kind} valve", **values)
                return edits.add_valve(job, space.port.id, made)
            return edits.edit_valve(job, the_valve.id, **values)
        if spec.key == "volume":
            pour = None if value is None else Pour(id=new_id(), volume=value)
            return edits.set_volume(job, space.cut.id, pour)
        return edits.edit_cut(job, space.cut.id, lambda c: replace(c, **values))

    def _rename(self) -> None:
        space = self.session.workspace
        title = self._title.text().strip()
        if space is not None and title and title != space.job.title:
            self._title.setModified(False)
            space.apply(f"title '{title}'", replace(space.job, title=title))


def _heading(words: str) -> QLabel:
    label = QLabel(words)
    label.setObjectName("heading")
    return label


Figures = dict[str, float | None]


@dataclass(frozen=True, slots=True)
class Derived:
    """A derived figure: its words, its unit, what it needs, how it is computed, and the field to blame."""

    caption: str
    unit: str
    needs: tuple[str, ...]
    compute: Callable[..., Any]
    blame: str


def _quarter_lift(head_diameter: float) -> float:
    return head_diameter / 4


def _length(floor_length: float, roof_length: float) -> Any:
    return port.centreline_length(floor_length, roof_length)


def _section(volume: float, floor_length: float, roof_length: float) -> Any:
    return port.mean_section(volume, port.centreline_length(floor_length, roof_length))


def _cam_open(cam_lift: float, cam_duration: float) -> float:
    return Cam(cam_lift, cam_duration).open_period


DERIVED = (
    Derived(
        "Throat of valve",
        "percent",
        ("head_diameter", "throat_diameter"),
        valve.throat_ratio,
        "throat_diameter",
    ),
    Derived(
        "Largest throat the seat leaves",
        "length",
        ("head_diameter", "seat_width", "seat_angle"),
        valve.seat_throat,
        "seat_width",
    ),
    Derived(
        "Throat area, net of stem",
        "area",
        ("throat_diameter", "stem_diameter"),
        valve.throat_area,
        "stem_diameter",
    ),
    Derived("Valve head area", "area", ("head_diameter",), valve.valve_head_area, "head_diameter"),
    Derived("Curtain equals valve head at lift", "lift", ("head_diameter",), _quarter_lift, "head_diameter"),
    Derived("Centreline length", "length", ("floor_length", "roof_length"), _length, "floor_length"),
    Derived("Mean section", "area", ("volume", "floor_length", "roof_length"), _section, "volume"),
    Derived("Valve open for, crank", "angle", ("cam_lift", "cam_duration"), _cam_open, "cam_lift"),
)


class DerivedFigures(QWidget):
    """Derived figures in two columns; a dash where something is still to be measured."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        grid = QGridLayout(self)
        grid.setContentsMargins(16, 12, 16, 12)
        grid.setHorizontalSpacing(16)
        grid.setVerticalSpacing(4)
        self.values: dict[str, QLabel] = {}
        for i, each in enumerate(DERIVED):
            row, column = i // 2, (i % 2) * 2
            caption = QLabel(each.caption)
            caption.setObjectName("quiet")
            value = QLabel("–")
            value.setObjectName("figure")
            value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            value.setAccessibleName(each.caption)
            value.setMinimumWidth(96)
            grid.addWidget(caption, row, column)
            grid.addWidget(value, row, column + 1)
            self.values[each.caption] = value
        grid.setColumnStretch(0, 1)
        grid.setColumnStretch(2, 1)

    def show_figures(self, known: Figures, units: Units) -> dict[str, str]:
        """Compute and show; returns field keys with a sentence where figures contradict each other."""
        problems: dict[str, str] = {}
        for each in DERIVED:
            given = [known.get(key) for key in each.needs]
            text = "–"
            if all(v is not None for v in given):
                try:
                    text = _shown(float(each.compute(*given)), each.unit, units)
                except ValueError as error:
                    problems[each.blame] = f"{str(error)[0].upper()}{str(error)[1:]}."
            self.values[each.caption].setText(text)
        return problems


def _shown(value: float, unit: str, units: Units) -> str:
    if unit == "percent":
        return percent_text(value)
    return units[unit].with_unit(value)
