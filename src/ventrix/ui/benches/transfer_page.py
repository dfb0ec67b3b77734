"""Two benches: parts flowed on both."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QPushButton

from ventrix.core.benches.transfer import transfer_between
from ventrix.core.model.bench import Bench, Transfer, TransferPart, same_name
from ventrix.core.quantity.field_checks import positive
from ventrix.core.quantity.words import percent_text
from ventrix.ui.benches.page import HistoryPage, at_lift, caption_label
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class TransferPage(HistoryPage):
    """Parts flowed on both benches, and what carries the other's numbers over to this one."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.other = QComboBox()
        self.other.setEditable(True)
        self.other.setAccessibleName(tr("The other bench"))
        self.other.currentTextChanged.connect(lambda _t: self._show_parts())
        self.part = QLineEdit()
        self.part.setAccessibleName(tr("Part flowed on both"))
        self.part.setPlaceholderText(tr("what was flowed: a plate, a head at one lift"))
        self.here = QuantityField(tr("It flows on this bench"), open_book.units.flow, positive)
        self.there = QuantityField(tr("It flows on the other"), open_book.units.flow, positive)
        self.lift = QuantityField(tr("At lift (none: a plate)"), open_book.units.lift, positive)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        add = QPushButton(tr("Add the part"))
        add.clicked.connect(self.add)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.parts = caption_label()
        self.column.addWidget(
            caption_label(
                tr(
                    "Two benches differ by several CFM on the very same head. Flow the same parts on both, under like "
                    "conditions; what is compared across benches then is marked transferred, with its own uncertainty."
                )
            )
        )
        for widget in (
            self.other,
            self.part,
            self.lift,
            self.here,
            self.there,
            self.problem,
            add,
            self.said,
            self.parts,
        ):
            self.column.addWidget(widget)
        self.column.addStretch()

    def show_bench(self, bench: Bench) -> None:
        super().show_bench(bench)
        space = self.open_book.workspace
        for field in (self.here, self.there):
            field.use(self.open_book.units.flow)
        self.lift.use(self.open_book.units.lift)
        chosen = self.other.currentText()
        names = [b.name for b in space.benches if b.id != bench.id] if space is not None else []
        names += [t.other for t in bench.transfers if t.other not in names]
        self.other.blockSignals(True)
        self.other.clear()
        self.other.addItems(names)
        self.other.setCurrentText(chosen or (names[0] if names else ""))
        self.other.blockSignals(False)
        self._show_parts()

    def _transfer(self) -> Transfer | None:
        found = [t for t in self.bench.transfers if same_name(t.other, self.other.currentText())] if self.bench else []
        return found[-1] if found else None

    def _show_parts(self) -> None:
        transfer = self._transfer()
        if transfer is None or not transfer.parts:
            self.said.setText(tr("No part was flowed on both yet."))
            self.parts.clear()
            return
        space = self.open_book.workspace
        scatter = space.findings.scatter(self.bench.name) if space is not None and self.bench is not None else None
        found = transfer_between(transfer, scatter)
        units = self.open_book.units
        self.said.setText(
            tr(
                "Numbers of {} times {:.4f} (± {}) are numbers of this bench{}.",
                transfer.other,
                found.factor,
                percent_text(2 * found.uncertainty),
                ", lift by lift" if found.lifts else "",
            )
        )
        lines = [
            tr(
                "{}{}: {} here, {} there",
                p.name or "part",
                at_lift(p, units),
                units.flow.text(p.here),
                units.flow.text(p.there),
            )
            for p in transfer.parts
        ]
        self.parts.setText("\n".join(lines))

    def add(self) -> None:
        """Add the part typed in."""
        name, bench = self.other.currentText().strip(), self.bench
        if bench is None or not name or same_name(name, bench.name):
            self.problem.setText(tr("Name the other bench."))
            return
        here, there = self.here.value, self.there.value
        if here is None or there is None:
            self.problem.setText(tr("Both figures are needed."))
            return
        self.problem.clear()
        part = TransferPart(id=new_id(), name=self.part.text().strip(), here=here, there=there, lift=self.lift.value)
        had = self._transfer()
        if had is None:
            transfers = (*bench.transfers, Transfer(id=new_id(), other=name, date=now_text(), parts=(part,)))
        else:
            grown = replace(had, parts=(*had.parts, part), date=now_text())
            transfers = tuple(grown if t.id == had.id else t for t in bench.transfers)
        for field in (self.here, self.there, self.lift):
            field.box.clear()
            field.set_value(None)
        self.part.clear()
        self.change(tr("part flowed on '{}' and '{}'", bench.name, name), replace(bench, transfers=transfers))
