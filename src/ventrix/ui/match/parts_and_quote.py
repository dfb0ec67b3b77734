"""Parts of the job, and what the head costs by the shop's own rates."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from html import escape

from PySide6.QtWidgets import QLabel, QPushButton, QWidget

from ventrix.core.matching.quote import quote_of
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import PartOfJob
from ventrix.core.model.kinds import LibraryKind, PartKind, PartState
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.work.hours import hours_of
from ventrix.core.work.record import record_of
from ventrix.core.work.stages import stages_of
from ventrix.rooms.match.shows import status_sentence
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

STATES = tuple(PartState)


class JobPartsSheet(FormSheet):
    """A part that is needed, ordered, here or fitted; a button a part steps it on."""

    stays = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the part"))
        self.title.setText(tr("Parts of the job"))
        self.buttons: list[QPushButton] = []
        self.kind = self.add_choice(tr("Part"), [(k.words, k.value) for k in PartKind])
        self.name = self.add_text(tr("Which"), tr("bronze guides"))
        self.count = self.add_text(tr("How many"), "8")
        self.bore = self.add_figure(tr("Bore or size"), "length", check_of(PartOfJob, "size"))
        self.price = self.add_text(tr("Price"), tr("in your own money"))
        self.due = self.add_text(tr("Promised for"), tr("fri, 4 dec"))
        self.stage = self.add_choice(tr("Holds up"), [(tr("nothing"), "")])
        self.beyond = self.add_check(tr("chosen by me, beyond what was quoted"))
        self.finish()
        self.caution.setText(
            tr("Interference, clearance and springs are the maker's to say; a licensed shop fits them.")
        )
        open_book.job_changed.connect(self._fill)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        self.stage.clear()
        self.stage.addItem(tr("nothing"), "")
        for each in stages_of(space.job):
            self.stage.addItem(each.name, each.key)
        self.come_up()
        self._fill()
        self.kind.setFocus()

    def _fill(self) -> None:
        space = self.open_book.workspace
        if not self.isVisible() or space is None:
            return
        for button in self.buttons:
            button.hide()
            button.deleteLater()
        self.buttons = []
        for i, part in enumerate(space.job.parts):
            due = tr(", promised for {}", part.due[:10]) if part.due and part.state == PartState.ORDERED else ""
            button = QPushButton(f"{part.count} {part.name or part.kind}: {part.state}{due}")
            button.setObjectName("flat")
            button.clicked.connect(lambda _on=False, p=part: self._step(p))
            self.column.insertWidget(1 + i, button)
            self.buttons.append(button)

    def _step(self, part: PartOfJob) -> None:
        """From needed to ordered, here, fitted, and round."""
        space = self.open_book.workspace
        if space is None:
            return
        at = STATES.index(PartState(part.state)) if part.state in STATES else -1
        after = replace(part, state=str(STATES[(at + 1) % len(STATES)]), date=now_text())
        parts = tuple(after if p.id == part.id else p for p in space.job.parts)
        space.apply(f"{part.name or part.kind}: {after.state}", replace(space.job, parts=parts))

    def first_field(self) -> QWidget:
        return self.kind

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        text = self.count.text().strip() or "1"
        if not text.isdecimal() or not 0 < int(text) < 1000:
            raise Refused("'{}' is not how many", text[:12])
        price = parse_quantity(self.price.text(), "-") if self.price.text().strip() else None
        if price is not None:
            check_of(PartOfJob, "price")(price)
        due = read_day(self.due.text(), date.today())
        part = PartOfJob(
            id=new_id(),
            due=due,
            state=(PartState.ORDERED if due else PartState.NEEDED).value,
            stage=str(self.stage.currentData()),
            kind=str(self.kind.currentData()),
            name=self.name.text().strip(),
            count=int(text),
            size=self.bore.value,
            price=price,
            beyond_quote=self.beyond.isChecked(),
            date=now_text(),
        )
        space.apply(tr("part '{}'", part.name or part.kind), replace(space.job, parts=(*space.job.parts, part)))
        self.clear_fields()
        self.was_kept()


class QuoteSheet(FormSheet):
    """The open table of what the head costs; every price is the shop's own."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the rates"))
        self.title.setText(tr("What it costs"))
        self.table = RichLabel()
        self.table.setWordWrap(True)
        self.column.addWidget(self.table)
        self.history = QLabel()
        self.history.setObjectName("quiet")
        self.history.setWordWrap(True)
        self.column.addWidget(self.history)
        self.rate = self.add_text(tr("Rate, money an hour"), "60")
        self.consumables = self.add_text(tr("Consumables, money"), "35")
        self.quoted = self.add_figure(tr("Quoted hours"), "hours", check_of(Job, "quoted"))
        self.promise = self.add_text(tr("Promised for"), "2026-05-08")
        self.status = QLabel()
        self.status.setWordWrap(True)
        self.column.addWidget(self.status)
        self.finish()
        open_book.job_changed.connect(self._fill)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        job = space.job
        self.rate.setText("" if job.rate is None else f"{job.rate:g}")
        self.consumables.setText("" if job.consumables is None else f"{job.consumables:g}")
        self.quoted.set_value(job.quoted)
        self.promise.setText((job.promise_date or "")[:10])
        self.come_up()
        self._fill()
        self.rate.setFocus()

    def _fill(self) -> None:
        space = self.open_book.workspace
        if not self.isVisible() or space is None:
            return
        hours = hours_of(record_of(space.findings), date.today(), paces=space.shop.paces())
        rows = []
        for line in quote_of(space.job, hours):
            price = "–" if line.price is None else f"{line.price:,.0f}"
            bold = ("<b>", "</b>") if line.what == "sum" else ("", "")
            cells = f"<td width='150'>{bold[0]}{escape(line.what)}{bold[1]}</td>"
            cells += f"<td width='90'>{escape(line.amount)}</td><td align='right'>{bold[0]}{price}{bold[1]}</td>"
            rows.append(f"<tr>{cells}</tr>")
        self.table.setText(f"<table>{''.join(rows)}</table>")
        ready = [
            tr("A ready casting '{}' costs {:,.0f}: Book compares its claimed curve with your hours.", i.name, i.price)
            for i in self.open_book.book.library()
            if i.kind == LibraryKind.CLAIM and i.price is not None
        ]
        self.history.setText("\n".join([space.shop.hours_of_like(), *ready]))
        self.status.setText(status_sentence(space.findings, hours))

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        values: dict[str, float | None] = {}
        for name, box in (("rate", self.rate), ("consumables", self.consumables)):
            values[name] = parse_quantity(box.text(), "-") if box.text().strip() else None
            found = values[name]
            if found is not None:
                check_of(Job, name)(found)
        promised = read_day(self.promise.text(), date.today())
        if promised and promised != space.job.promise_date and promised < date.today().isoformat():
            raise Refused("{} is over: a due date lies ahead", promised)
        space.apply(
            tr("rates and due date"),
            replace(
                space.job,
                rate=values["rate"],
                consumables=values["consumables"],
                quoted=self.quoted.value,
                promise_date=promised,
            ),
        )
