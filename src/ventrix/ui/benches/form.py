"""A bench's own page: what its readout is, how far it reaches, how it is read."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from PySide6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from ventrix.bench.drivers.text_columns import columns_text, parse_columns
from ventrix.bench.drivers.text_lines import SEPARATORS, TextFormat, serial_devices
from ventrix.core.formulas.knowledge import EASY_DIAL, EASY_FACTOR, EASY_LEAK
from ventrix.core.formulas.uncertainty import DIAL_ZERO
from ventrix.core.model.bench import Bench, bench_named, is_index
from ventrix.core.model.bench_kinds import ElementKind, LinkKind
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.field_checks import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.core.runs.element import UPSTREAM
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr

ELEMENTS: Final = (
    (tr("flow, in CFM or l/s"), "flow"),
    (tr("percent of a range"), "percent"),
    (tr("orifice, its pressure drop"), "orifice"),
    (tr("mass flow"), "mass"),
    (tr("two columns of water, uncalibrated"), "columns"),
    (tr("one column of water, uncalibrated"), "column"),
)
LINKS: Final = (
    (tr("typed by hand"), "typed"),
    ("simulated bench", "simulated"),
    (tr("SCPI over TCP"), "tcp"),
    (tr("lines of text, serial"), "serial"),
)
PLACES: Final = ((tr("in the plenum"), ""), (tr("before the plenum"), UPSTREAM))
# What stands where nothing is said: shown grey in the empty field.
UNSAID: Final = {
    "dial_resolution": DIAL_ZERO,
    "easy_dial": EASY_DIAL,
    "easy_factor": EASY_FACTOR,
    "easy_leak": EASY_LEAK,
}
# key, caption, unit, and the elements it is for (none: all)
FIGURES: Final = (
    ("test_pressure", tr("Usual test pressure"), "pressure", ("flow", "percent", "orifice", "mass")),
    ("blower_limit", tr("Blower's limit"), "flow", ("flow", "percent", "orifice", "mass")),
    ("dial_resolution", tr("Lift dial's graduation"), "fine", ()),
    ("scale_density", tr("Density the scale was made for"), "density", ("flow", "percent")),
    ("orifice_diameter", tr("Orifice diameter"), "length", ("orifice",)),
    ("orifice_pipe", tr("Pipe it sits in (none: a plenum)"), "length", ("orifice",)),
    ("orifice_coefficient", tr("Its coefficient in a plenum"), "ratio", ("orifice",)),
    ("fixed_column", tr("Column at its fixed opening"), "pressure", ("column",)),
    ("easy_dial", tr("Unnoticed here: dial zero out by"), "fine", ()),
    ("easy_factor", tr("… all flows off by"), "percent", ()),
    ("easy_leak", tr("… a leak of"), "flow", ("flow", "percent", "orifice", "mass")),
    ("plate_flow", tr("Reference plate flows"), "flow", ("flow", "percent", "orifice", "mass")),
)


class BenchForm(QWidget):
    """Edits one bench; every accepted figure is in the book at once."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self.bench: Bench | None = None
        self.name = QLineEdit()
        self.name.editingFinished.connect(self._rename)
        self.element = self._combo(ELEMENTS, lambda value: self._change(element=value))
        self.link = self._combo(LINKS, lambda value: self._change(link=value))
        self.ranges = QLineEdit()
        self.ranges.setPlaceholderText("75, 150, 300")
        self.ranges.editingFinished.connect(self._ranges_typed)
        self.corrected = QCheckBox(tr("corrects for air by itself"))
        self.corrected.clicked.connect(lambda on: self._change(corrected=on))
        self.leak_off = QCheckBox(tr("its readout has the leak taken off"))
        self.leak_off.clicked.connect(lambda on: self._change(leak_taken_off=on))
        self.place = self._combo(PLACES, lambda value: self._change(element_place=value or None))
        self.address = QLineEdit()
        self.address.editingFinished.connect(lambda: self._change(address=self.address.text().strip()))
        self.speed = QLineEdit()
        self.speed.editingFinished.connect(self._format_typed)
        self.separator = self._combo(tuple((n, n) for n in SEPARATORS), lambda _v: self._format_typed())
        self.columns = QLineEdit()
        self.columns.setPlaceholderText(tr("flow 1 cfm; pressure 2 inH2O x 1.02 + 0.5; lift 3 mm"))
        self.columns.editingFinished.connect(self._format_typed)
        self.heard = QLabel()
        self.heard.setWordWrap(True)
        self.heard.setObjectName("caption")
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        connect = QPushButton(tr("Connect"))
        connect.clicked.connect(self.connect_bench)
        self.fields: dict[str, QuantityField] = {}
        self._rows: dict[str, QWidget] = {}
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        for key, caption, widget in (
            ("name", tr("Name"), self.name),
            ("element", tr("The readout is"), self.element),
            ("ranges", tr("Ranges, full scale"), self.ranges),
        ):
            column.addWidget(self._row(key, caption, widget))
        column.addWidget(self.corrected)
        column.addWidget(self.leak_off)
        column.addWidget(self._row("place", tr("On blow the element stands"), self.place))
        for key, caption, unit, _ in FIGURES:
            field = QuantityField(caption, open_book.units[unit], check_of(Bench, key, positive))
            field.accepted.connect(lambda value, k=key: self._change(**{k: value}))
            self.fields[key] = field
            column.addWidget(field)
        for key, caption, widget in (
            ("link", tr("Read by"), self.link),
            ("address", tr("Address"), self.address),
            ("speed", tr("Speed, baud"), self.speed),
            ("separator", tr("Between the figures"), self.separator),
            ("columns", tr("Columns"), self.columns),
        ):
            column.addWidget(self._row(key, caption, widget))
        column.addWidget(self.heard)
        column.addWidget(self.problem)
        column.addWidget(connect)
        column.addStretch()
        open_book.bench.heard.connect(self._show_heard)
        open_book.bench.state_changed.connect(self._show_state)

    def _combo(self, options: tuple[tuple[str, str], ...], chosen: Any) -> QComboBox:
        box = QComboBox()
        for words, value in options:
            box.addItem(words, value)
        box.activated.connect(lambda _i: chosen(box.currentData()))
        return box

    def _row(self, key: str, caption: str, widget: QWidget) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        label = QLabel(caption)
        label.setBuddy(widget)
        widget.setAccessibleName(caption)
        widget.setMinimumWidth(300)
        line.addWidget(label, 1)
        line.addWidget(widget)
        self._rows[key] = row
        return row

    # -- showing

    def show_bench(self, bench: Bench) -> None:
        """Show a bench, with the fields that its kind of readout and link have."""
        other = self.bench is None or self.bench.id != bench.id
        self.bench = bench
        units = self._open_book.units
        if other or not self.name.isModified():
            self.name.setText(bench.name)
        self.element.setCurrentIndex(self.element.findData(bench.element))
        self.link.setCurrentIndex(self.link.findData(bench.link))
        self.corrected.setChecked(bench.corrected)
        self.corrected.setVisible(bench.element in (ElementKind.FLOW, ElementKind.PERCENT))
        self.leak_off.setChecked(bool(bench.leak_taken_off))
        self.leak_off.setVisible(not is_index(bench.element))
        self.place.setCurrentIndex(self.place.findData(bench.element_place or ""))
        self._rows["place"].setVisible(bench.element == ElementKind.ORIFICE)
        self._rows["ranges"].setVisible(bench.element == ElementKind.PERCENT)
        if other or not self.ranges.isModified():
            self.ranges.setText(", ".join(f"{from_si(r, units.flow.unit):g}" for r in bench.ranges))
        for key, _, unit, kinds in FIGURES:
            field = self.fields[key]
            if other:
                field.forget()
            field.use(units[unit])
            if key in UNSAID:
                field.box.setPlaceholderText(units[unit].text(UNSAID[key]))
            field.set_value(getattr(bench, key))
            wanted = not kinds or bench.element in kinds
            field.setVisible(wanted and (key != "scale_density" or not bench.corrected))
        self.address.setText(bench.address)
        self.address.setPlaceholderText(
            "localhost:5025" if bench.link == LinkKind.TCP else ", ".join(serial_devices()) or "/dev/ttyUSB0"
        )
        self._rows["address"].setVisible(bench.link in (LinkKind.TCP, LinkKind.SERIAL))
        for key in ("speed", "separator", "columns"):
            self._rows[key].setVisible(bench.link == LinkKind.SERIAL)
        self._show_format(bench, other)
        self._show_state()

    def _show_format(self, bench: Bench, other: bool) -> None:
        if self.columns.isModified() and not other:
            return
        try:
            shape = TextFormat.of(bench.text_format) if bench.text_format else TextFormat()
        except Refused:
            shape = TextFormat()
        self.speed.setText(str(shape.speed))
        self.separator.setCurrentText(shape.separator)
        self.columns.setText(columns_text(shape.columns))

    def _show_state(self) -> None:
        if self.bench is not None and self.bench.link == LinkKind.TYPED:
            self.heard.setText("")
        elif not self._open_book.bench.active:
            self.heard.setText(tr("not connected"))
        else:
            self.heard.setText(self._open_book.bench.sentence)

    def _show_heard(self, lines: list[str], passed_over: int) -> None:
        """What arrives, as it came: the preview while columns are being set."""
        over = f"\n{passed_over} lines passed over" if passed_over else ""
        self.heard.setText("arriving:\n" + "\n".join(f"  {line[:70]}" for line in lines[-3:]) + over)

    # -- editing

    def _say(self, error: Refused | None) -> None:
        self.problem.setText("" if error is None else sentence(str(error)))

    def _change(self, **values: Any) -> None:
        space = self._open_book.workspace
        if space is None or self.bench is None:
            return
        changed = replace(self.bench, **values)
        if changed != self.bench:
            self._say(None)
            self.bench = changed
            space.change_bench(tr("bench '{}'", changed.name), changed)

    def _rename(self) -> None:
        space, name = self._open_book.workspace, self.name.text().strip()
        if space is None or self.bench is None or not self.name.isModified():
            return
        known = bench_named(space.benches, name)
        if not name or (known is not None and known.id != self.bench.id):
            self._say(Refused("another bench has this name" if name else "a bench needs a name"))
            return
        self.name.setModified(False)
        self._change(name=name)

    def _ranges_typed(self) -> None:
        if not self.ranges.isModified():
            return
        unit = self._open_book.units.flow.unit
        try:
            found = sorted(
                parse_quantity(t, unit) for t in self.ranges.text().replace(";", ",").split(",") if t.strip()
            )
            if any(r <= 0 for r in found):
                raise Refused("ranges must be above zero")
        except Refused as error:
            self._say(error)
            return
        self.ranges.setModified(False)
        self._change(ranges=tuple(found))

    def _format_typed(self) -> None:
        if self.bench is None or self.bench.link != LinkKind.SERIAL:
            return
        try:
            if not self.speed.text().strip().isdecimal():
                raise Refused("'{}' is not a speed in baud", self.speed.text())
            columns = parse_columns(self.columns.text())
            shape = TextFormat(int(self.speed.text()), self.separator.currentText(), columns)
            if columns:
                shape.check()
        except Refused as error:
            self._say(error)
            return
        self.columns.setModified(False)
        self._change(text_format=shape.as_document())

    def connect_bench(self) -> None:
        """Read this bench from now on."""
        if self.bench is None:
            return
        try:
            self._open_book.bench.connect_bench(self.bench)
        except Refused as error:
            self._say(error)
            return
        self._say(None)
        if self.bench.link == LinkKind.TYPED:
            self._open_book.say(tr("{}: type what you read.", self.bench.name))
