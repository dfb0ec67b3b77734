"""A stage logged with its minutes, for one port or many; and a stage that waits for outside work or parts."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from ventrix.core.edits.stages import mark_stage
from ventrix.core.model.job_parts import Wait
from ventrix.core.model.plausible import check_of
from ventrix.core.model.port_names import ports_named
from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.work.stages import stages_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class StageSheet(FormSheet):
    """Enter logs it; minutes are shared among the ports."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Log the stage"))
        self.stage = self.add_choice(tr("Stage"), [])
        self.minutes = self.add_figure(tr("Minutes of work, all together"), "duration")
        self.others = self.add_text(tr("Done on other ports too"), tr("Intake 2, Intake 3; or all intakes"))
        self.beyond = self.add_check(tr("chosen by me, beyond what was quoted"))
        self.finish()
        self.caution.setText(
            tr("Never into a seat; eye guard and dust mask. A wall that was not read has no clearance.")
        )

    def open(self, stage: str = "", others: str = "") -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about(space.port.id)
        self.stage.clear()
        for each in stages_of(space.job):
            self.stage.addItem(each.name, each.key)
        self.stage.setCurrentIndex(max(self.stage.findData(stage), 0))
        self.others.setText(others)
        self.title.setText(tr("A stage of {}", space.port.name.lower()))
        self.come_up()
        self.minutes.box.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or not self.settle_fields():
            return
        ports = [space.port, *ports_named([p for p in space.job.ports if p.of_head], self.others.text(), space.port)]
        stage = str(self.stage.currentData())
        job = mark_stage(space.job, ports, stage, new_id, now_text(), self.minutes.value, self.beyond.isChecked())
        many = tr(" on {} ports", len(ports)) if len(ports) > 1 else tr(" of {}", space.port.name)
        space.apply(f"{stage}{many}", job)
        self.clear_fields()
        self.beyond.setChecked(False)
        self.was_kept()


class WaitSheet(FormSheet):
    """A stage out of the house: who has it, since when, promised when."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("It waits"))
        self.stage = self.add_choice(tr("Stage"), [])
        self.who = self.add_text(tr("Who has it"), tr("seat shop"))
        self.since = self.add_text(tr("Since"), "2026-05-02")
        self.promised = self.add_text(tr("Promised for"), "2026-05-06")
        self.price = self.add_text(tr("Price"), tr("in your own money"))
        self.ports = self.add_text(tr("Ports"), tr("all, where none is named"))
        self.finish()
        self.caution.setText(tr("A wait without a date does not move the due date; a part that is late does."))

    def open(self, stage: str = "") -> None:
        space = self.open_book.workspace
        if space is None:
            return
        self.stage.clear()
        for each in stages_of(space.job):
            self.stage.addItem(each.name, each.key)
        self.stage.setCurrentIndex(max(self.stage.findData(stage), 0))
        self.since.setText(now_text()[:10])
        self.title.setText(tr("A stage that waits"))
        self.come_up()
        self.who.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        promised = read_day(self.promised.text(), date.today())
        since = read_day(self.since.text(), date.today(), ahead=False)
        if promised and since and promised < since:
            raise Refused("it is due before the day it went out")
        price = parse_quantity(self.price.text(), "-") if self.price.text().strip() else None
        if price is not None:
            check_of(Wait, "price")(price)
        ports = ports_named([p for p in space.job.ports if p.of_head], self.ports.text())
        wait = Wait(
            id=new_id(),
            stage=str(self.stage.currentData()),
            port_ids=tuple(p.id for p in ports),
            who=self.who.text().strip(),
            since=since,
            promised=promised,
            price=price,
        )
        space.apply(tr("{} waits", wait.stage), replace(space.job, waits=(*space.job.waits, wait)))
        self.clear_fields()
        self.was_kept()
