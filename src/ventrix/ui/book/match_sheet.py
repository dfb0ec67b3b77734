"""A foreign table matched by eye: what each column is, where each run goes, and the table itself as it is read."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Final

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, InputError, sentence_of
from ventrix.records.files.grid import Grid, read_grid, text_grid
from ventrix.records.files.layout import FLOW_UNITS, LIFT_UNITS, PRESSURE_UNITS, Role, letters
from ventrix.rooms.book.import_steps import (
    ROLE_WORDS,
    Match,
    begin,
    changed,
    goal_choices,
    remember,
    turned_round,
    with_cell,
    with_role,
)
from ventrix.ui.book.match_table import MatchTable
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.asked_first import AskedFirst
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.quantity_field import QuantityField, first_wrong
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.words import tr
from ventrix.workspace.bring_in_table import Goal, bring_in, default_goals, setup_for

WIDTH: Final = 800
ASK: Final = tr(
    "How was the {0} side bolted down? A later {0} flow can only be compared with it when these five are told."
)
UNIT_WORDS: Final = {"in": "inches", "thou": "thousandths", "mm": "mm"}


class MatchSheet(SideSheet):
    """Nothing comes in before it was looked at, and then all of it or nothing."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(WIDTH)
        self.open_book = open_book
        self.match: Match | None = None
        self.goals: list[Goal] = []
        self.setups: dict[Direction, SetUp] = {}  # as the table and the porter tell of each side
        self._path: Path | None = None
        self.title = QLabel()
        self.title.setObjectName("heading")
        self.guessed = QLabel()
        self.guessed.setWordWrap(True)
        self.sheets = QComboBox()
        self.sheets.setAccessibleName(tr("Sheet of the workbook"))
        self.sheets.activated.connect(lambda _i: self._other_sheet())
        self.turn = QPushButton(tr("Lifts run the other way"))
        self.turn.clicked.connect(self._turn)
        units = [(tr("lifts in {}", UNIT_WORDS[unit]), unit) for unit in LIFT_UNITS]
        self.lift_unit = self._box(tr("Unit of the lifts"), units, None)
        self.lift_unit.activated.connect(lambda _i: self._edit(lift_unit=self.lift_unit.currentData()))
        self.decimal = self._box(tr("Decimal mark"), [(tr("decimal point"), "."), (tr("decimal comma"), ",")], None)
        self.decimal.activated.connect(lambda _i: self._edit(decimal=self.decimal.currentData()))
        self.pressure = QuantityField(tr("Test pressure"), open_book.units.pressure)
        self.pressure.edited.connect(self._typed_pressure)
        sides: tuple[Direction, ...] = (Direction.INTAKE, Direction.EXHAUST)
        self.asked = {side: AskedFirst(open_book.units, open_book.settings, ASK.format(side)) for side in sides}
        for side, asked in self.asked.items():
            asked.changed.connect(partial(self._answer, side))
        self._columns = QGridLayout()
        self._columns.setSpacing(4)
        how = QVBoxLayout()
        how.setContentsMargins(0, 0, 8, 0)
        for asked in self.asked.values():
            how.addWidget(asked)
        how.addLayout(self._columns)
        how.addStretch()
        holder = QWidget()
        holder.setLayout(how)
        self.columns_area = ScrollArea(holder)
        self.table = MatchTable()
        self.table.itemChanged.connect(self._put_right)
        self.table.said.connect(open_book.say)
        self.refused = QLabel()
        self.refused.setObjectName("error")
        self.refused.setWordWrap(True)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        self.take_button = QPushButton(tr("Bring in"))
        self.take_button.clicked.connect(self.take)
        self.away = QPushButton(tr("Not now (Esc)"))
        self.away.clicked.connect(self.closed)
        self._lay_out()

    def _lay_out(self) -> None:
        top = FlowLayout(8, 6)
        for widget in (self.sheets, self.lift_unit, self.decimal, self.turn, self.pressure):
            top.addWidget(widget)
        head = QWidget()
        head.setLayout(top)
        buttons = QHBoxLayout()
        buttons.addWidget(self.take_button)
        buttons.addWidget(self.away)
        buttons.addStretch()
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 16, 14)
        column.setSpacing(6)
        column.addWidget(self.title)
        column.addWidget(self.guessed)
        column.addWidget(head)
        column.addWidget(self.columns_area, 3)
        column.addWidget(self.table, 2)
        column.addWidget(self.refused)
        column.addWidget(self.problem)
        column.addLayout(buttons)

    # -- opening

    def open_file(self, path: Path) -> bool:
        """Read a file and match it; what is wrong with it is said at the foot."""
        self._path = path
        try:
            self.open_grid(read_grid(path))
        except InputError as error:
            self.open_book.not_kept(f"{error}.")
            return False
        return True

    def open_text(self, text: str) -> bool:
        """Match what the clipboard holds."""
        self._path = None
        try:
            self.open_grid(text_grid(text, tr("the clipboard")))
        except InputError as error:
            self.open_book.not_kept(f"{error}.")
            return False
        return True

    def open_grid(self, grid: Grid) -> None:
        units = self.open_book.units
        self.problem.clear()
        self.pressure.use(units.pressure)
        match = begin(grid, units.flow.unit, str(self.open_book.settings.value("layouts", "")))
        said = match.layout.conditions
        self.pressure.set_value(said.test_pressure)
        self.setups = {side: setup_for(side, said) for side in self.asked}
        self.title.setText(tr("Bring in {}", grid.name or tr("a table")))
        self.sheets.clear()
        self.sheets.addItems(list(grid.sheets))
        self.sheets.setCurrentText(grid.sheet)
        self.sheets.setVisible(len(grid.sheets) > 1)
        self._show(match)
        self.come_up()
        self.take_button.setFocus()

    def _other_sheet(self) -> None:
        if self._path is not None:
            try:
                self.open_grid(read_grid(self._path, self.sheets.currentText()))
            except InputError as error:
                self.problem.setText(sentence_of(error))

    # -- changing how it is read

    def _edit(self, **values: object) -> None:
        if self.match is not None:
            self._show(changed(self.match, replace(self.match.layout, **values)))  # type: ignore[arg-type]

    def _turn(self) -> None:
        if self.match is not None:
            self._show(turned_round(self.match, self.open_book.units.flow.unit))

    def _put_right(self, item: QTableWidgetItem) -> None:
        """A cell was typed over: the table is read anew."""
        if self.match is not None:
            goals = self.goals
            self._show(with_cell(self.match, item.row(), item.column(), item.text()))
            if len(goals) == len(self.goals):
                self.goals = goals
                self._show_columns(self.match)

    def _role(self, column: int, box: QComboBox) -> None:
        if self.match is not None:
            self._show(with_role(self.match, column, Role(box.currentData())))

    def _column(self, column: int, **values: object) -> None:
        if self.match is None:
            return
        columns = list(self.match.layout.columns)
        columns[column] = replace(columns[column], **values)  # type: ignore[arg-type]
        self._edit(columns=tuple(columns))

    def _typed_pressure(self, _value: object) -> None:
        self.problem.clear()

    def _answer(self, side: Direction, setup: SetUp) -> None:
        self.setups[side] = setup
        self._say()

    def _goal(self, run: int, box: QComboBox) -> None:
        self.goals[run] = box.currentData()
        self._say()

    # -- showing

    def _job(self) -> tuple[Job | None, Port | None]:
        space = self.open_book.workspace
        return (space.job, space.port) if space is not None else (None, None)

    def _show(self, match: Match) -> None:
        self.match = match
        layout = match.layout
        job, port = self._job()
        if job is not None:
            self.goals = default_goals(job, port, match.read.runs)
        else:
            self.goals = [Goal(r.kind or Direction.INTAKE) for r in match.read.runs]
        self.guessed.setText(sentence(match.guessed))
        self.lift_unit.setCurrentIndex(self.lift_unit.findData(layout.lift_unit))
        self.decimal.setCurrentIndex(self.decimal.findData(layout.decimal))
        self._show_columns(match)
        self.table.show_match(match)
        self._say()

    def _show_columns(self, match: Match) -> None:
        while (item := self._columns.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        what = "row" if match.layout.across else "column"
        for c, words in enumerate((what, tr("its heading"), "holds", "in", tr("goes to"))):
            label = QLabel(words)
            label.setObjectName("caption")
            self._columns.addWidget(label, 0, c)
        job, _ = self._job()
        runs = {run.column: i for i, run in enumerate(match.read.runs)}
        for i, plan in enumerate(match.layout.columns):
            row = i + 1
            name = str(i + 1) if match.layout.across else letters(i)
            self._columns.addWidget(QLabel(name), row, 0)
            heading = QLabel(plan.heading[:40] or "–")
            heading.setObjectName("quiet")
            self._columns.addWidget(heading, row, 1)
            options = [(ROLE_WORDS[r], r) for r in Role]
            role = self._box(tr("{} {} holds", what, name), options, plan.role)
            role.activated.connect(partial(lambda i, box, _n: self._role(i, box), i, role))
            self._columns.addWidget(role, row, 2)
            if plan.role in (Role.FLOW, Role.PRESSURE):
                units = FLOW_UNITS if plan.role is Role.FLOW else PRESSURE_UNITS
                box = self._box(tr("unit of {} {}", what, name), [(u, u) for u in units], plan.unit)
                box.activated.connect(partial(lambda i, box, _n: self._column(i, unit=box.currentData()), i, box))
                self._columns.addWidget(box, row, 3)
            elif plan.role is Role.PERCENT:
                field = QuantityField(tr("of, CFM"), self.open_book.units.ratio)
                field.set_value(plan.full_scale)
                field.accepted.connect(partial(lambda i, value: self._column(i, full_scale=value), i))
                self._columns.addWidget(field, row, 3)
            if i in runs:
                self._columns.addWidget(self._goal_box(runs[i], job), row, 4)
        self._columns.setColumnStretch(1, 1)

    def _goal_box(self, run: int, job: Job | None) -> QComboBox:
        options = goal_choices(job) if job is not None else [
            (tr("a new job: intake"), Goal(Direction.INTAKE)),
            (tr("a new job: exhaust"), Goal(Direction.EXHAUST)),
            (tr("leave it out"), Goal(Direction.INTAKE, left_out=True)),
        ]  # fmt: skip
        box = self._box(tr("run {} goes to", run + 1), options, self.goals[run])
        box.activated.connect(partial(lambda run, box, _n: self._goal(run, box), run, box))
        return box

    def _box(self, name: str, options: Sequence[tuple[str, object]], chosen: object) -> QComboBox:
        box = QComboBox()
        box.setAccessibleName(name)
        box.setMaxVisibleItems(20)
        for words, value in options:
            box.addItem(words, value)
        at = next((i for i, (_, value) in enumerate(options) if value == chosen), 0)
        box.setCurrentIndex(at)
        return box

    def _say(self) -> None:
        assert self.match is not None
        sides = [g.kind for g in self.goals if not g.left_out]
        for side, asked in self.asked.items():
            asked.show_setup(self.setups[side], self.open_book.units, begun=side not in sides)
        taken = len(sides)
        self.take_button.setText(tr("Bring in {} run{} (Enter)", taken, "s" * (taken != 1)))
        self.problem.setText(self.match.problem(self.goals))
        refused = self.match.blocking(self.goals)
        shown = refused[:6]
        where = [f"{letters(r.column)}{r.row + 1}: '{r.text[:20]}' {r.why}" for r in shown]
        more = len(refused) - len(shown)
        self.refused.setText("; ".join(where) + (tr("; and {} more", more) if more > 0 else ""))

    # -- taking

    def take(self) -> None:
        """Everything in one edit, or nothing and a sentence."""
        if first_wrong(f for f in self.findChildren(QuantityField) if f.isVisibleTo(self)) is not None:
            self.problem.setText(tr("One figure makes no sense: see the sentence below it."))
            return
        match = self.match
        if match is None:
            return
        if problem := match.problem(self.goals):
            self.problem.setText(problem)
            return
        if self.pressure.value is None:
            self.problem.setText(tr("The table does not say its test pressure: type it."))
            self.pressure.box.setFocus()
            return
        try:
            space = self.open_book.workspace
            title = match.layout.conditions.title or Path(match.grid.name).stem
            name = match.grid.name or tr("the clipboard")
            setups = {side: replace(setup, test_pressure=self.pressure.value) for side, setup in self.setups.items()}
            runs, date = match.read.runs, match.layout.conditions.date
            into = bring_in(self.open_book.book, space, runs, self.goals, setups, name, title[:160], date)
        except BookError as error:
            self.problem.setText(tr("Not kept: {}.", error))
            self.open_book.not_kept(sentence_of(error))
            return
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        settings = self.open_book.settings
        settings.setValue("layouts", remember(str(settings.value("layouts", "")), match))
        for side in {g.kind for g in self.goals if not g.left_out}:
            self.asked[side].remember(setups[side])
        self.match = None
        self.closed.emit()
        if into is not space:
            words = into.said
            self.open_book.open(into)
            self.open_book.say(words)
        self.open_book.ways.room("compare")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.take()
        else:
            super().keyPressEvent(event)
