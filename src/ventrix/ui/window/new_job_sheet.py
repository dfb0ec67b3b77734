"""A new job: three questions, each of which may be skipped."""

from __future__ import annotations

from PySide6.QtWidgets import QLabel

from ventrix.core.judging.findings import Findings
from ventrix.core.model.kinds import Use
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.core.work.route import route
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.window.bench_choices import BY_HAND, NO_BENCH, SIMULATED
from ventrix.words import tr
from ventrix.workspace.new_job import new_head
from ventrix.workspace.workspace import Workspace

MOST_CYLINDERS = 16
HEADS = (
    (tr("choose"), None),
    (tr("two valves a cylinder"), 2),
    (tr("three valves a cylinder"), 3),
    (tr("four valves a cylinder"), 4),
    (tr("five valves a cylinder"), 5),
)


class NewJobSheet(FormSheet):
    """Kind of head, what it is for, and what it is flowed on; makes the ports, and opens the job."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Begin the job"))
        self.title.setText(tr("A new job"))
        self.name = self.add_text(tr("Its name"), tr("four-cylinder head"))
        self.head = self.add_choice(tr("1  Kind of head"), HEADS)
        self.cylinders = self.add_text(tr("Cylinders of this head"), "4")
        self.engine = self.add_text(tr("Cylinders of the whole engine"), tr("8, where this is one head of a V8"))
        self.use = self.add_choice(tr("2  What it is for"), [(tr("choose"), None), *((u.words, u) for u in Use)])
        self.bench = self.add_choice(tr("3  Bench"), [(tr("none yet"), BY_HAND)])
        self.about = QLabel()
        self.about.setObjectName("caption")
        self.about.setWordWrap(True)
        self.column.addWidget(self.about)
        self.first = QLabel()
        self.first.setWordWrap(True)
        self.column.addWidget(self.first)
        self.finish()
        self.caution.setText(
            tr(
                "Each may be skipped: flow first, describe later. Before metal comes off, look for cracks and "
                "corrosion, check flatness, and read the walls of every port."
            )
        )
        for box in (self.use, self.head, self.bench):
            box.currentIndexChanged.connect(lambda _i: self._explain())

    def open(self, chosen: str = BY_HAND) -> None:
        """Come up empty, with the shop's benches to choose from."""
        self.bench.clear()
        self.bench.addItem(tr("I type the readings"), BY_HAND)
        self.bench.addItem(tr("none: by stages"), NO_BENCH)
        self.bench.addItem(tr("the simulated bench"), SIMULATED)
        for bench in self.open_book.book.benches():
            self.bench.addItem(bench.name, bench.id)
        self.bench.setCurrentIndex(max(self.bench.findData(chosen), 0))
        self._explain()
        self.come_up()
        self.name.setFocus()

    def _explain(self) -> None:
        use = self.use.currentData()
        self.about.setText(Use(use).order if use is not None else "")
        if self.bench.currentData() != NO_BENCH:
            self.first.setText(tr("First: flow a port as received. Describing it may wait."))
            return
        bare = new_head("", 1, self.head.currentData(), Use(use) if use is not None else None)
        card, units = route(Findings(bare))[0], self.open_book.units
        self.first.setText(
            tr(
                "First, {}: {}. {} {} {} It is closed by {}.",
                card.port.lower(),
                card.stage,
                card.look,
                units.say(card.stop_when),
                card.caution,
                card.closed_by,
            )
        )

    def take(self) -> None:
        """Make the job and open it."""
        counts = []
        for box in (self.cylinders, self.engine):
            try:
                counts.append(_cylinders(box.text().strip()))
            except Refused as error:
                self.problem.setText(sentence(str(error)))
                box.setFocus()
                return
        cylinders, engine = counts
        if engine is not None and cylinders is not None and engine < cylinders:
            self.problem.setText(tr("The engine cannot have fewer cylinders than its head's {}.", cylinders))
            self.engine.setFocus()
            return
        use = self.use.currentData()
        job = new_head(
            self.name.text().strip() or self._free_title(),
            cylinders,
            self.head.currentData(),
            Use(use) if use is not None else None,
            engine,
        )
        self.open_book.book.add_job(job)
        self.open_book.open(Workspace.open(self.open_book.book, job.id))
        bench = str(self.bench.currentData() or BY_HAND)
        self.clear_fields()
        self.was_kept()
        self.open_book.ways.job_begun.emit(bench)

    def _free_title(self) -> str:
        taken = {entry.title for entry in self.open_book.book.jobs()}
        number = 1
        while (title := "New job" if number == 1 else f"New job {number}") in taken:
            number += 1
        return title


def _cylinders(text: str) -> int | None:
    """A number of cylinders as it was typed; None where nothing was."""
    if text and (not text.isdecimal() or not 1 <= int(text) <= MOST_CYLINDERS):
        raise Refused("'{}' is not a number of cylinders from 1 to {}", text[:20], MOST_CYLINDERS)
    return int(text) if text else None
