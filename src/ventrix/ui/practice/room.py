"""The Practice room: heads that do not exist and lessons; a practice that runs; and its reckoning."""

from __future__ import annotations

import random
from functools import partial
from html import escape
from pathlib import Path
from typing import Final

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QInputDialog,
    QLabel,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.bench.simulator.practice.catalogue import HEADS
from ventrix.bench.simulator.practice.lessons.catalogue import LESSONS
from ventrix.bench.simulator.practice.lessons.lesson import BEST, Lesson
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.lesson_progress import note_try, read_progress
from ventrix.records.files.practice_document import write_practice
from ventrix.rooms.display_units import Units
from ventrix.rooms.practice.calls import call_lines
from ventrix.rooms.practice.shows import Shown, act_words, hours_text, plan_would, reckoning_shown
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.practice.lesson_page import ANSWERS, LessonPage
from ventrix.ui.practice.shelf import Row, RowList
from ventrix.ui.practice.views import DecisionCurves, DecisionList, StairView
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.command import Command, key_rows
from ventrix.ui.widgets.key_line import KeyLine
from ventrix.ui.widgets.room import Room
from ventrix.workspace.practice import SUFFIX, PracticeAtWork, practice_folder, practices_in

SHELF, RUNNING, RECKONED, LESSON = range(4)
SMALL: Final = 900  # px
SEEDS: Final = 9999
# The lesson that is in a belief.
_LESSON_OF: Final = {
    "in vain": "best-of-twelve", "lost": "volume", "missed": "adding-up", "unseen": "adding-up", "right": "off-centre",
}  # fmt: skip


class PracticeRoom(Room):
    """One page at a time; in a practice's own window it is the clock and the reckoning."""

    name = "Practice"
    apart = True
    manual = "practice"
    begin_wanted = Signal(object)  # a PracticeAtWork that wants a window of its own
    stand_wanted = Signal(int)  # the number of the cut to stand at again
    flow_wanted = Signal()
    pour_wanted = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.folder = practice_folder(open_book.book)
        self.seed = random.SystemRandom().randint(1, SEEDS)
        self.lists = (RowList("Heads that do not exist"), RowList("Lessons, ten minutes each"), RowList("Begun before"))
        self.at = [0, 0, 0]
        self.column = 0
        self.shown: Shown | None = None
        self._shown_in: Units | None = None
        self.chosen = 0
        self._advice: dict[int, str] = {}
        self._in_lesson = False
        self._make_commands()
        self._make_pages()
        self._lay_out()

    # -- what it is made of

    def _make_commands(self) -> None:
        shelf, running, reckoned, lesson = (partial(self._on, page) for page in (SHELF, RUNNING, RECKONED, LESSON))
        self.commands = (
            Command("practice.take", "begin", self.take, "Return", able=shelf),
            Command("practice.seed", "another seed", self.choose_seed, "S", able=shelf),
            Command("practice.file", "a practice from a file", self.choose_file, "O", able=shelf),
            Command("practice.flow", "flow test", self.flow_wanted.emit, "F", able=running),
            Command("practice.pour", "pour", self.pour_wanted.emit, "V", able=running),
            Command("practice.ask", "ask the owner", self.ask, "A", able=running),
            Command("practice.reckon", "reckon", self.finish, "R", able=running),
            Command("practice.next", "decision", partial(self.pick, 1), "Right", able=reckoned, one_of="decision"),
            Command("practice.before", "decision", partial(self.pick, -1), "Left", able=reckoned, one_of="decision"),
            Command("practice.stand", "stand there again", self.stand, "Return", able=reckoned),
            Command("practice.plan", "what Plan would have done", self.ask_plan, "P", able=reckoned),
            Command("practice.lesson", "the lesson in it", self.open_its_lesson, "L", able=reckoned),
            Command("practice.again", "another seed of this head", self.begin_again, "N", able=reckoned),
            Command("practice.save", "save the practice", self.choose_where, "Shift+S", able=self._has_practice),
            Command("practice.once_more", "once more, other figures", self.once_more, "Return", able=lesson),
            Command("practice.leave", "back", self.leave_lesson, "Esc", able=lesson),
        )

    def _on(self, page: int) -> bool:
        return self.page == page

    def _has_practice(self) -> bool:
        return self.open_book.practice is not None and self.page in (RUNNING, RECKONED)

    @property
    def page(self) -> int:
        practice = self.open_book.practice
        if self._in_lesson:
            return LESSON
        if practice is None:
            return SHELF
        return RECKONED if practice.over else RUNNING

    def _make_pages(self) -> None:
        self.strip = AnswerStrip(3)
        self.keys = KeyLine()
        for i, each in enumerate(self.lists):
            each.picked.connect(partial(self._pick_row, i))
            each.taken.connect(partial(self._take_row, i))
        self.scores = QLabel()
        self.scores.setWordWrap(True)
        self.acts = QLabel()
        self.acts.setWordWrap(True)
        self.acts.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.stairs, self.list, self.curves = StairView(), DecisionList(), DecisionCurves()
        self.stairs.picked.connect(self._pick_decision)
        self.list.picked.connect(self._pick_decision)
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.told.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.lesson = LessonPage()
        self.lesson.answered.connect(self._keep_points)

    @staticmethod
    def _scrolled(widget: QWidget) -> QScrollArea:
        scroll = QScrollArea()
        scroll.setWidget(widget)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return scroll

    def _lay_out(self) -> None:
        shelf = QWidget()
        row = QHBoxLayout(shelf)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(24)
        left = QWidget()
        column = QVBoxLayout(left)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.lists[0])
        column.addWidget(self.lists[2])
        column.addWidget(self.scores)
        column.addStretch()
        right = QWidget()
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.lists[1])
        column.addStretch()
        row.addWidget(self._scrolled(left), 1)
        row.addWidget(self._scrolled(right), 1)
        reckoned = QWidget()
        row = QHBoxLayout(reckoned)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(16)
        column = QVBoxLayout()
        column.addWidget(self.stairs, 3)
        column.addWidget(self._scrolled(self.list), 2)
        row.addLayout(column, 5)
        side = QWidget()
        column = QVBoxLayout(side)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.curves)
        column.addWidget(self.told)
        column.addStretch()
        self._side = self._scrolled(side)
        row.addWidget(self._side, 2)
        self.pages = QStackedWidget()
        for page in (shelf, self._scrolled(self.acts), reckoned, self.lesson):
            self.pages.addWidget(page)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        outer.setSpacing(8)
        outer.addWidget(self.strip)
        outer.addWidget(self.pages, 1)
        outer.addWidget(self.keys)

    def fit(self, there: QSize) -> None:
        """In a small window the strip's figures give way, then the decision's own panel gets narrower."""
        for figure, caption in self.strip.figures:
            figure.setVisible(there.width() >= SMALL)
            caption.setVisible(there.width() >= SMALL)
        self._side.setMinimumWidth(240 if there.width() < SMALL else 290)

    # -- showing

    def refresh(self) -> None:
        page = self.page
        self.pages.setCurrentIndex(page)
        self.strip.setVisible(page != LESSON)
        (self._show_shelf, self._show_running, self._show_reckoned, self._show_lesson)[page]()
        able = tuple(c for c in self.commands if c.able())
        extra = {
            SHELF: (("↑ ↓ ← →", "choose"),),
            LESSON: (("1 to 4", "look"), ("A to D", "answer")),
        }.get(page, ())
        self.keys.show_keys((*extra, *key_rows(able)))

    def _figures(self, figures: tuple[tuple[str, str], ...]) -> None:
        for i, (figure, caption) in enumerate(self.strip.figures):
            words, below = figures[i] if i < len(figures) else ("", "")
            say_large(figure, words, 27, theme.current().text)
            caption.setText(below)

    def _show_shelf(self) -> None:
        progress = read_progress(self.folder)
        done = sum(best == BEST for best, _ in progress.values())
        say_large(self.strip.verdict, "Learn the decisions before the metal", 32, theme.current().text)
        self.strip.reason.setText(
            "A head that does not exist, with a truth that is opened at the end. Nothing of it counts in the shop's "
            "own figures."
        )
        self._figures((("", ""), (f"{done} of {len(LESSONS)}", "lessons right"), (str(self.seed), "seed (S)")))
        heads = [Row(h.title, h.teaches, f"{h.hours:g} h") for h in HEADS]
        lessons = [Row(each.title, "", self._points(progress, each)) for each in LESSONS]
        begun = [Row(p.name.removesuffix(SUFFIX).replace("-", " "), "", "go on") for p in practices_in(self.folder)[:6]]
        for i, rows in enumerate((heads, lessons, begun)):
            self.at[i] = min(self.at[i], max(len(rows) - 1, 0))
            self.lists[i].show_rows(rows, self.at[i], i == self.column)
        self.lists[2].setVisible(bool(begun))
        space = self.open_book.workspace
        self.scores.setText("<br>".join(escape(c) for c in call_lines(space.findings)) if space is not None else "")

    @staticmethod
    def _points(progress: dict[str, tuple[int, int]], lesson: Lesson) -> str:
        found = progress.get(lesson.id)
        first = "deep" if lesson.deep else ""
        return first if found is None else f"{found[0]} of {BEST}"

    def _show_running(self) -> None:
        practice = self.open_book.practice
        assert practice is not None
        left, t = practice.minutes_left, theme.current()
        broken = practice.practice.walls_broken
        if broken:
            say_large(self.strip.verdict, "Broken through", 32, t.worse)
        else:
            say_large(self.strip.verdict, f"{hours_text(left)} left of his {practice.practice.hours:g} h", 32, t.text)
        history = f" {practice.head.history}" if practice.head.history else ""
        owner = (
            f"The owner says: {practice.head.owner}" if practice.document.asked else "A asks the owner what it is for."
        )
        self.strip.reason.setText(
            f"{practice.head.teaches}{history} {owner} F flows it for you; walls are read and cuts made in Cuts, as on "
            "any head."
        )
        acts = len(practice.practice.done)
        self._figures((("", ""), (str(acts), "acts so far"), (str(practice.document.seed), "seed")))
        units = self.open_book.units
        rows = [
            f"<tr><td style='color:{t.quiet}; padding-right:18px'>{hours_text(60 * d.at)}</td>"
            f"<td>{escape(act_words(d, units))}</td></tr>"
            for d in practice.practice.done
        ]
        nothing = "<tr><td>Nothing was done yet: the clock stands.</td></tr>"
        self.acts.setText(f"<table cellspacing='4' style='font-size:15px'>{''.join(rows) or nothing}</table>")

    def _show_reckoned(self) -> None:
        practice = self.open_book.practice
        assert practice is not None
        units, t = self.open_book.units, theme.current()
        if self.shown is None or self._shown_in is not units:
            self.open_book.say("Reckoning: what was there, and what Plan would have made of it…")
            QApplication.processEvents()
            self.shown, self._shown_in = reckoning_shown(practice.practice, units), units
            self.open_book.say("The truth of this head is open. It can be played with another seed, not with this one.")
        shown = self.shown
        say_large(self.strip.verdict, shown.verdict, 40, t.worse if shown.worse else t.text)
        self.strip.reason.setText(shown.reason)
        self._figures(shown.figures)
        self.stairs.show_stairs(shown, units, self.chosen)
        self.list.show_decisions(shown.decisions, self.chosen, units.flow.label)
        if not shown.decisions:
            self.told.setText("Nothing was decided.")
            return
        d = shown.decisions[self.chosen]
        self.curves.show_decision(d, units)
        heading = f"<p style='font-size:19px'><b style='color:{t.brass}'>{d.number}</b> {escape(d.name)}</p>"
        parts = [
            ("What you knew", d.what_you_knew), ("What was true", d.what_was_true),
            ("What would have shown it", d.what_would_show),
            ("What Plan would have done", self._advice.get(self.chosen, "P asks it.")),
        ]  # fmt: skip
        told = "".join(f"<p><span style='color:{t.brass}'>{k}</span><br>{escape(v)}</p>" for k, v in parts)
        when = f"{d.clock} on the clock; could be known then: {escape(d.known)}"
        self.told.setText(f"{heading}<p style='color:{t.quiet}'>{when}</p>{told}")

    def _show_lesson(self) -> None:
        self.lesson.show_puzzle(self.open_book.units)

    # -- keys and hands

    def focusNextPrevChild(self, following: bool) -> bool:
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, page = event.key(), self.page
        plain = not event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
        if page == SHELF and plain and key in _WAYS:
            self._walk(*_WAYS[Qt.Key(key)])
        elif page == LESSON and plain and Qt.Key.Key_1 <= key <= Qt.Key.Key_4:
            self.lesson.look(key - Qt.Key.Key_1)
            self.refresh()
        elif page == LESSON and plain and (letter := event.text().upper()) and letter in ANSWERS:
            self.lesson.take(ANSWERS.index(letter))
            self.refresh()
        else:
            super().keyPressEvent(event)

    def _walk(self, across: int, down: int) -> None:
        if across:
            open_ones = [i for i in (0, 2, 1) if self.lists[i].rows]
            self.column = open_ones[(open_ones.index(self.column) + across) % len(open_ones)]
        rows = len(self.lists[self.column].rows)
        self.at[self.column] = (self.at[self.column] + down) % max(rows, 1)
        self.refresh()

    def _pick_row(self, column: int, row: int) -> None:
        self.column, self.at[column] = column, row
        self.refresh()
        self.setFocus()

    def _take_row(self, column: int, row: int) -> None:
        self._pick_row(column, row)
        self.take()

    def take(self) -> None:
        """Begin the chosen head, go on with a practice, or open the lesson."""
        row = self.at[self.column]
        if self.column == 1:
            self.open_lesson(LESSONS[row])
            return
        try:
            if self.column == 0:
                found = PracticeAtWork.begin(self.folder, HEADS[row].id, self.seed)
            else:
                found = PracticeAtWork.open(practices_in(self.folder)[row])
        except InputError as error:
            self.open_book.say(sentence_of(error))
            return
        self.begin_wanted.emit(found)
        self.refresh()

    def choose_seed(self) -> None:
        number, ok = QInputDialog.getInt(self, "Seed", "The same seed is the same head:", self.seed, 0, 2**31 - 1)
        if ok:
            self.use_seed(number)

    def use_seed(self, seed: int) -> None:
        self.seed = seed
        self.refresh()

    def choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A practice", "", "Practices (*.json)")
        if name:
            self.open_file(Path(name))

    def open_file(self, path: Path) -> None:
        """Go on with, or look at, a practice that was saved elsewhere: brought into the folder first."""
        try:
            found = PracticeAtWork.bring_in(self.folder, path)
        except InputError as error:
            self.open_book.say(sentence_of(error))
            return
        self.begin_wanted.emit(found)

    def choose_where(self) -> None:
        practice = self.open_book.practice
        assert practice is not None
        name, _ = QFileDialog.getSaveFileName(self, "Save the practice", practice.path.name, "Practices (*.json)")
        if name:
            self.save(Path(name))

    def save(self, path: Path) -> bool:
        """The practice as a document."""
        practice = self.open_book.practice
        assert practice is not None
        try:
            write_practice(practice.document, path)
        except InputError as error:
            self.open_book.say(sentence_of(error))
            return False
        self.open_book.say(f"Practice written to {path.name}: ventrix practice --replay plays it.")
        return True

    def ask(self) -> None:
        """Ring the owner up."""
        practice, space = self.open_book.practice, self.open_book.workspace
        if practice is None or space is None:
            return
        try:
            self.open_book.say(f"The owner says: {practice.ask_owner(space)}")
        except (InputError, ValueError) as error:
            self.open_book.not_kept(sentence(str(error)))
        self.refresh()

    def finish(self) -> None:
        """Nothing more is done, and the truth is opened."""
        practice = self.open_book.practice
        if practice is None:
            return
        try:
            practice.finish()
        except InputError as error:
            self.open_book.not_kept(sentence_of(error))
            return
        self.chosen = 0
        self.refresh()

    def pick(self, by: int) -> None:
        if self.shown is not None and self.shown.decisions:
            self._pick_decision((self.chosen + by) % len(self.shown.decisions))

    def _pick_decision(self, row: int) -> None:
        self.chosen = row
        self.refresh()
        self.setFocus()

    def stand(self) -> None:
        """Look at the cut of the chosen decision in Compare, with what was known then."""
        if self.shown is not None and self.shown.decisions:
            self.stand_wanted.emit(self.chosen + 1)

    def ask_plan(self) -> None:
        """What Plan would have said before the chosen decision."""
        practice = self.open_book.practice
        if practice is not None and self.shown is not None and self.shown.decisions:
            act = self.shown.decisions[self.chosen].act
            self._advice[self.chosen] = plan_would(practice.practice, act)
            self.refresh()

    def open_its_lesson(self) -> None:
        """The lesson that is in the chosen decision."""
        if self.shown is None or not self.shown.decisions:
            return
        d = self.shown.decisions[self.chosen]
        wanted = "wall" if "not read" in d.name or "gauge" in d.known else _LESSON_OF.get(d.verdict, "adding-up")
        self.open_lesson(next(each for each in LESSONS if each.id == wanted))

    def begin_again(self) -> None:
        """The same head, another seed."""
        practice = self.open_book.practice
        if practice is None:
            return
        try:
            self.begin_wanted.emit(
                PracticeAtWork.begin(self.folder, practice.head.id, random.SystemRandom().randint(1, SEEDS))
            )
        except InputError as error:
            self.open_book.say(sentence_of(error))

    # -- lessons

    def open_lesson(self, lesson: Lesson) -> None:
        """Put a lesson: figures and the order of its answers are of the try."""
        tries = read_progress(self.folder).get(lesson.id, (0, 0))[1]
        self.lesson.put(lesson, tries + 1)
        self._in_lesson = True
        self.refresh()
        self.setFocus()

    def once_more(self) -> None:
        if self.lesson.lesson is not None:
            self.open_lesson(self.lesson.lesson)

    def leave_lesson(self) -> None:
        self._in_lesson = False
        self.refresh()

    def _keep_points(self, lesson: Lesson, points: int) -> None:
        try:
            note_try(self.folder, lesson.id, points)
        except InputError as error:
            self.open_book.not_kept(sentence_of(error))


_WAYS: Final = {
    Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1),
}  # fmt: skip
