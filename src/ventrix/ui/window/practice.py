"""A practice in a window of its own: its book, its hatched frame, and the metal that takes what the job's cuts say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final

from PySide6.QtCore import QObject, QRect, QSettings, Qt
from PySide6.QtGui import QBrush, QPainter, QPaintEvent
from PySide6.QtWidgets import QLayout, QVBoxLayout, QWidget

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, InputError, sentence_of
from ventrix.records.book.book import Book
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.workspace.practice import PracticeAtWork

FRAME: Final = 8  # px


class Hatched(QWidget):
    """A hatched frame around the rooms: what is in it nobody measured."""

    def __init__(self, inside: QLayout) -> None:
        super().__init__()
        inside.setContentsMargins(FRAME, FRAME, FRAME, FRAME)
        self.setLayout(inside)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QBrush(theme.colour("scribe"), Qt.BrushStyle.BDiagPattern))
        inner = QRect(self.rect()).adjusted(FRAME, FRAME, -FRAME, -FRAME)
        painter.fillRect(inner, theme.colour("ground"))


def framed(rooms: QLayout, practice: bool) -> QLayout:
    """The row of cuts and the rooms, in the hatched frame where they are a practice's."""
    if not practice:
        return rooms
    around = QVBoxLayout()
    around.addWidget(Hatched(rooms))
    return around


def practice_book(practice: PracticeAtWork, shop: OpenBook) -> OpenBook | None:
    """The practice's own book with its job in hand, beside the shop's; None, said at the shop's foot, where it cannot
    be opened."""
    folder = practice.path.parent
    try:
        book = Book.open(folder / "book.sqlite")
        space = practice.workspace(book)
    except InputError as error:
        shop.say(sentence_of(error))
        return None
    settings = QSettings(str(folder / "settings.ini"), QSettings.Format.IniFormat)
    for name in ("units", "theme", "far_px", "still"):
        if shop.settings.contains(name):
            settings.setValue(name, shop.settings.value(name))
    found = OpenBook(book, None, settings)
    found.practice = practice
    found.open(space)
    return found


class AtPractice(QObject):
    """Does to the metal what the job's cuts say, and flows it for the learner."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self._busy = False
        self._said_beyond: tuple[str, ...] = ()
        if open_book.practice is not None:
            open_book.job_changed.connect(self.take_in)
            open_book.selection_changed.connect(self._put_on_bench)

    def able(self) -> bool:
        """Whether a practice is open that goes on."""
        practice = self.open_book.practice
        return practice is not None and not practice.over

    def _put_on_bench(self) -> None:
        practice, space = self.open_book.practice, self.open_book.workspace
        if practice is not None and space is not None:
            practice.put_on_bench(space)

    def take_in(self) -> None:
        """Every pass that a cut holds and the metal has not seen."""
        practice, space = self.open_book.practice, self.open_book.workspace
        if practice is None or space is None or self._busy or practice.over or space.job.id != practice.job_id:
            return
        self._busy = True
        try:
            done = practice.take_in(space)
        except (BookError, InputError) as error:
            self.open_book.not_kept(sentence_of(error))
        except Refused as error:
            self.open_book.say(sentence(str(error)))
        else:
            beyond = practice.beyond(space.job)
            if done:
                from ventrix.rooms.practice.shows import act_words

                self.open_book.say(
                    sentence("; ".join(act_words(d, practice.practice, self.open_book.units) for d in done))
                )
            elif beyond and beyond != self._said_beyond:
                self.open_book.say(
                    tr("These heads have no {}: nothing moves there, and it costs nothing.", ", ".join(beyond))
                )
            self._said_beyond = beyond
        finally:
            self._busy = False

    def flow(self) -> None:
        """A flow test by the procedure, without the waiting: kept with the last cut."""
        practice, space = self.open_book.practice, self.open_book.workspace
        if practice is None or space is None:
            return
        try:
            done = practice.flow(space)
        except (BookError, InputError) as error:
            self.open_book.not_kept(sentence_of(error))
        except Refused as error:
            self.open_book.say(sentence(str(error)))
        else:
            space.look_at(space.job.ports[done.act.port].cuts[-1].id)
            from ventrix.rooms.practice.shows import act_words

            self.open_book.say(sentence(act_words(done, practice.practice, self.open_book.units)))
