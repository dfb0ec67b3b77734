"""The Practice room: heads that do not exist and lessons; a practice that runs; and its reckoning."""

from __future__ import annotations

import random
from dataclasses import replace
from functools import partial
from html import escape
from pathlib import Path
from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QInputDialog, QStackedWidget, QVBoxLayout

from ventrix.bench.simulator.practice.catalogue import HEADS
from ventrix.bench.simulator.practice.lessons.catalogue import LESSONS
from ventrix.bench.simulator.practice.lessons.lesson import Lesson
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.lesson_progress import note_try, read_progress
from ventrix.records.files.practice_document import write_practice
from ventrix.rooms.practice.shows import Shown, act_words, hours_text
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.practice.lesson_page import ANSWERS, LessonPage
from ventrix.ui.practice.reckoning_page import ReckoningPage
from ventrix.ui.practice.shelf_page import HEAD, WAYS, ShelfPage
from ventrix.ui.practice.shelf_page import LESSON as LESSONS_OF_SHELF
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr
from ventrix.workspace.practice import PracticeAtWork, practice_folder, practices_in

SHELF, RUNNING, RECKONED, LESSON = range(4)
SMALL: Final = 900  # px
SEEDS: Final = 9999
_ENTERS: Final = {
    SHELF: "begin",
    RUNNING: "",
    RECKONED: tr("stand there again"),
    LESSON: tr("once more, other figures"),
}


class PracticeRoom(Room):
    """One page at a time; in a practice's own window it is the clock and the reckoning."""

    name = tr("Practice")
    apart = True
    manual = "practice"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self._asked = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.folder = practice_folder(open_book.book)
        self.seed = random.SystemRandom().randint(1, SEEDS)
        self._in_lesson = False
        self.strip = AnswerStrip(3)
        self.shelf = ShelfPage(open_book, self.folder)
        self.shelf.picked.connect(self._look_again)
        self.shelf.taken.connect(self.take)
        self.acts = RichLabel()
        self.acts.setWordWrap(True)
        self.acts.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.reckoning = ReckoningPage(open_book)
        self.reckoning.picked.connect(self._look_again)
        self.lesson = LessonPage()
        self.lesson.answered.connect(self._keep_points)
        self.keys = ActionBar()
        self.pages = QStackedWidget()
        for page in (self.shelf, ScrollArea(self.acts, sideways=False), self.reckoning, self.lesson):
            self.pages.addWidget(page)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        outer.setSpacing(8)
        outer.addWidget(self.strip)
        outer.addWidget(self.pages, 1)
        outer.addWidget(self.keys)
        self._make_commands()

    def _make_commands(self) -> None:
        shelf, running, reckoned, lesson = (partial(self._on, page) for page in (SHELF, RUNNING, RECKONED, LESSON))
        step = self.reckoning.step
        self.commands = (
            Command(
                "practice.enter", tr("begin, stand there again, once more"), self.enter, "Return", able=self._can_enter
            ),
            Command("practice.seed", tr("another seed"), self.choose_seed, "S", able=shelf),
            Command("practice.file", tr("a practice from a file"), self.choose_file, "O", able=shelf),
            Command("practice.flow", tr("flow test"), lambda: self.ways.command("practice.flow"), "F", able=running),
            Command("practice.pour", tr("pour"), lambda: self.ways.sheet("pour"), "V", able=running),
            Command("practice.ask", tr("ask the owner"), self.ask, "A", able=running),
            Command("practice.reckon", tr("result"), self.ask_to_finish, "R", able=running),
            Command("practice.next", tr("decision"), partial(step, 1), "Right", able=reckoned, one_of="decision"),
            Command("practice.before", tr("decision"), partial(step, -1), "Left", able=reckoned, one_of="decision"),
            Command("practice.plan", tr("what Plan would have done"), self.reckoning.ask_plan, "P", able=reckoned),
            Command("practice.lesson", tr("the lesson in it"), self.open_its_lesson, "L", able=reckoned),
            Command("practice.again", tr("another seed of this head"), self.begin_again, "N", able=reckoned),
            Command("practice.save", tr("save the practice"), self.choose_where, "Shift+S", able=self._has_practice),
            Command("practice.leave", tr("back"), self.leave_lesson, "Esc", able=lesson),
        )

    @property
    def page(self) -> int:
        """Which page it is on: what the open book is decides."""
        practice = self.open_book.practice
        if self._in_lesson:
            return LESSON
        if practice is None:
            return SHELF
        return RECKONED if practice.over else RUNNING

    def _on(self, page: int) -> bool:
        return self.page == page

    def _has_practice(self) -> bool:
        return self.page in (RUNNING, RECKONED)

    def fit(self, there: QSize) -> None:
        """In a small window the strip's figures give way, then the decision's own panel gets narrower."""
        for figure, caption in self.strip.figures:
            figure.setVisible(there.width() >= SMALL)
            caption.setVisible(there.width() >= SMALL)
        self.reckoning.side.setMinimumWidth(240 if there.width() < SMALL else 290)

    # -- showing

    def refresh(self) -> None:
        page = self.page
        self.pages.setCurrentIndex(page)
        self.strip.setVisible(page != LESSON)
        (self._show_shelf, self._show_running, self._show_reckoned, self._show_lesson)[page]()
        extra = {
            SHELF: (("↑ ↓ ← →", tr("choose")),),
            LESSON: ((tr("1 to 4"), tr("look")), (tr("A to D"), tr("answer"))),
        }.get(page, ())
        able = (replace(c, words=_ENTERS[page]) if c.id == "practice.enter" else c for c in self.commands if c.able())
        self.keys.show_actions(able, extra)

    def _look_again(self) -> None:
        self.refresh()
        self.setFocus()

    def _say(self, verdict: str, reason: str, figures: tuple[tuple[str, str], ...], size: int, shade: str) -> None:
        self.strip.verdict.say(verdict, size, shade)
        self.strip.reason.setText(reason)
        for i, (figure, caption) in enumerate(self.strip.figures):
            words, below = figures[i] if i < len(figures) else ("", "")
            say_large(figure, words, 27, theme.current().text)
            caption.setText(below)

    def _show_shelf(self) -> None:
        right = self.shelf.show_shelf()
        teaches = f"{HEADS[self.shelf.row].teaches} " if self.shelf.column == HEAD else ""
        self._say(
            tr("Learn the decisions before the metal"),
            tr("{}The truth is opened at the end, and nothing of it counts in the shop's own figures.", teaches),
            (("", ""), (tr("{} of {}", right, len(LESSONS)), tr("lessons right")), (str(self.seed), tr("seed (S)"))),
            32,
            theme.current().text,
        )

    def _show_running(self) -> None:
        practice, units, t = self.open_book.practice, self.open_book.units, theme.current()
        assert practice is not None
        head, broken = practice.head, practice.practice.walls_broken
        owner = (
            tr("The owner says: {}", head.owner) if practice.document.asked else tr("A asks the owner what it is for.")
        )
        said = (head.teaches, head.history, owner)
        self._say(
            tr("Broken through")
            if broken
            else tr("{} left of his {:g} h", hours_text(practice.minutes_left), practice.practice.hours),
            tr(
                "{} F flows it for you; walls are read and cuts made in Cuts, as on any head.",
                " ".join(s for s in said if s),
            ),
            (("", ""), (str(len(practice.practice.done)), tr("acts so far")), (str(practice.document.seed), "seed")),
            32,
            t.worse if broken else t.text,
        )
        rows = [
            f"<tr><td style='color:{t.quiet}; padding-right:18px'>{hours_text(60 * d.at)}</td>"
            f"<td>{escape(act_words(d, practice.practice, units))}</td></tr>"
            for d in practice.practice.done
        ]
        nothing = tr("<tr><td>Nothing was done yet: the clock stands.</td></tr>")
        self.acts.setText(f"<table cellspacing='4' style='font-size:15px'>{''.join(rows) or nothing}</table>")

    def _show_reckoned(self) -> None:
        shown, t = self.reckoning.show_reckoning(), theme.current()
        self._say(shown.verdict, shown.reason, shown.figures, 40, t.worse if shown.worse else t.text)

    def _show_lesson(self) -> None:
        self.lesson.show_puzzle(self.open_book.units)

    @property
    def shown(self) -> Shown | None:
        """The reckoning, where there is one."""
        return self.reckoning.shown

    # -- keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, page = event.key(), self.page
        self._asked = self._asked and key == Qt.Key.Key_R
        plain = not event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
        letter = event.text().upper()
        if page == SHELF and plain and key in WAYS:
            self.shelf.walk(*WAYS[Qt.Key(key)])
        elif page == LESSON and plain and Qt.Key.Key_1 <= key <= Qt.Key.Key_4:
            self.lesson.look(key - Qt.Key.Key_1)
            self.refresh()
        elif page == LESSON and plain and letter and letter in ANSWERS:
            self.lesson.take(ANSWERS.index(letter))
            self.refresh()
        else:
            super().keyPressEvent(event)

    def _can_enter(self) -> bool:
        return self.page != RUNNING

    def enter(self) -> None:
        """Enter takes what is chosen: a row of the shelf, a decision, the lesson anew."""
        {SHELF: self.take, RECKONED: self.stand, LESSON: self.once_more}[self.page]()

    # -- the shelf

    def take(self) -> None:
        """Begin the chosen head, go on with a practice, or open the lesson."""
        row = self.shelf.row
        if self.shelf.column == LESSONS_OF_SHELF:
            self.open_lesson(LESSONS[row])
        elif self.shelf.column == HEAD:
            self._begin(partial(PracticeAtWork.begin, self.folder, HEADS[row].id, self.seed))
        else:
            self._begin(partial(PracticeAtWork.open, practices_in(self.folder)[row]))

    def _begin(self, make: partial[PracticeAtWork]) -> None:
        """A practice in a window of its own; why not, at the foot."""
        try:
            found = make()
        except InputError as error:
            self.open_book.say(sentence_of(error))
            return
        self.ways.practice_wanted.emit(found)
        self.refresh()

    def choose_seed(self) -> None:
        number, ok = QInputDialog.getInt(
            self, tr("Seed"), tr("The same seed is the same head:"), self.seed, 0, 2**31 - 1
        )
        if ok:
            self.use_seed(number)

    def use_seed(self, seed: int) -> None:
        self.seed = seed
        self.refresh()

    def choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("A practice"), "", tr("Practices (*.json)"))
        if name:
            self.open_file(Path(name))

    def open_file(self, path: Path) -> None:
        """Go on with, or look at, a practice that was saved elsewhere: brought into the folder first."""
        self._begin(partial(PracticeAtWork.bring_in, self.folder, path))

    # -- a practice

    def choose_where(self) -> None:
        practice = self.open_book.practice
        assert practice is not None
        name, _ = QFileDialog.getSaveFileName(
            self, tr("Save the practice"), practice.path.name, tr("Practices (*.json)")
        )
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
        self.open_book.say(tr("Practice written to {}: ventrix practice --replay plays it.", path.name))
        return True

    def ask(self) -> None:
        """Ring the owner up."""
        practice, space = self.open_book.practice, self.open_book.workspace
        if practice is None or space is None:
            return
        try:
            self.open_book.say(tr("The owner says: {}", practice.ask_owner(space)))
        except Refused as error:
            self.open_book.not_kept(sentence(str(error)))
        self.refresh()

    def ask_to_finish(self) -> None:
        """Finish, once it was said twice: it cannot be taken back."""
        if not self._asked:
            self._asked = True
            self.open_book.say(
                tr("R again ends this practice and opens the truth: nothing more can be done in it then.")
            )
            return
        self.finish()

    def finish(self) -> None:
        """Nothing more is done, and the truth is opened."""
        self._asked = False
        practice = self.open_book.practice
        if practice is None:
            return
        try:
            practice.finish()
        except InputError as error:
            self.open_book.not_kept(sentence_of(error))
            return
        self.refresh()

    def close_workers(self) -> None:
        """Wait for what is reckoned beside the window."""
        self.reckoning.planner.close()

    def _stand_again(self, work: str) -> None:
        """Where a decision of a practice was taken: its cut in Compare."""
        space = self.open_book.workspace
        cuts = space.port.cuts if space is not None and space.port is not None else ()
        cut = next((c for c in cuts if any(w.id == work for op in c.operations for w in op.works)), None)
        if space is not None and cut is not None:
            space.look_at(cut.id)
            self.ways.room("compare")

    def stand(self) -> None:
        """Look at the cut of the chosen decision in Compare, with what was known then."""
        if self.reckoning.decision is not None:
            self._stand_again(self.reckoning.decision.record)

    def begin_again(self) -> None:
        """The same head, another seed."""
        practice = self.open_book.practice
        if practice is not None:
            seed = random.SystemRandom().randint(1, SEEDS)
            self._begin(partial(PracticeAtWork.begin, self.folder, practice.head.id, seed))

    # -- lessons

    def open_its_lesson(self) -> None:
        """The lesson that is in the chosen decision."""
        wanted = self.reckoning.lesson()
        if wanted:
            self.open_lesson(next(each for each in LESSONS if each.id == wanted))

    def open_lesson(self, lesson: Lesson) -> None:
        """Put a lesson: figures and the order of its answers are of the try."""
        tries = read_progress(self.folder).get(lesson.id, (0, 0))[1]
        self.lesson.put(lesson, tries + 1)
        self._in_lesson = True
        self._look_again()

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
