"""The Sheet room: the page a shop hands over, as it will be printed, and what goes on it."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import date
from functools import partial
from typing import Final

from PySide6.QtCore import QEvent, QSize, Qt, QTimer
from PySide6.QtGui import QKeyEvent, QStandardItemModel
from PySide6.QtWidgets import (
    QBoxLayout,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.reports.sheet.contents import Choices, PaperKind, Part, PhotoPart, Sheet
from ventrix.reports.sheet.pdf import sheet_pdf
from ventrix.rooms.display_units import SYSTEMS, Units
from ventrix.rooms.sheet.contents import usual_pair
from ventrix.rooms.sheet.papers import LACKS, Paper, about_pair, kept_parts, made_paper, paper_in_hand, papers_to_fill
from ventrix.rooms.sheet.photos import photo_parts, photos_for
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.sheet.hand_over import HandOver, OnScreen
from ventrix.ui.sheet.options_bar import OptionsBar
from ventrix.ui.sheet.owned_panel import OwnedPanel
from ventrix.ui.sheet.page_view import FullPage, PageView, pages_of
from ventrix.ui.sheet.parts_list import PartsList
from ventrix.ui.sheet.photo_choice import PhotoChoice
from ventrix.ui.sheet.shop_sheet import shop_of
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command, keys_of, pressed
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.room import Room
from ventrix.words import tr

SOON: Final = 150  # ms from a change to the new page
NARROW: Final = 1000  # px of room: below, the right column goes
STACKED: Final = 900  # px of room: below, the page stands under its parts
PAGE: Final = 460  # px of height that it has there


class SheetRoom(Room):
    """The real page, the parts that go on it, and what it has to own up to."""

    name = tr("Sheet")
    manual = "sheet"
    folds = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.sheet: Sheet | None = None
        self.pdf = b""
        self.kind: PaperKind | None = None  # what was chosen; the best that the job can fill without
        open_book.shelf_changed.connect(self._changed)
        self.hand_over = HandOver(open_book, self, lambda: OnScreen(self.pdf, self.choices, self.units))
        self.commands = (
            Command("sheet.up", tr("part"), partial(self._cursor, -1), "Up", one_of="part"),
            Command("sheet.down", tr("part"), partial(self._cursor, 1), "Down", one_of="part"),
            Command("sheet.switch", tr("on or off"), self._switch, "Space"),
            Command("sheet.higher", tr("its place on the page"), partial(self._move, -1), "Shift+Up", one_of="place"),
            Command("sheet.lower", tr("its place on the page"), partial(self._move, 1), "Shift+Down", one_of="place"),
            Command("sheet.page.next", tr("page"), partial(self._turn, 1), "PgDown", one_of="page"),
            Command("sheet.page.before", tr("page"), partial(self._turn, -1), "PgUp", one_of="page"),
            Command("sheet.full", tr("read the page at full size"), self.toggle_full, "Return"),
            Command("sheet.print", tr("print"), self.hand_over.print_sheet, "Ctrl+P"),
            Command("sheet.pdf", "PDF", self.hand_over.choose_pdf, "Ctrl+S"),
            Command("sheet.card", tr("grinder card"), self.hand_over.choose_card, "G"),
            Command("sheet.all", tr("everything in one zip"), self.hand_over.choose_archive, "Z"),
            Command("sheet.pair", tr("first against last"), self.usual, "U"),
            Command("sheet.kind", tr("another paper"), self.next_kind, "K"),
            Command("sheet.shop", tr("the shop's name"), lambda: self.ways.sheet("shop"), "N"),
            Command("sheet.back", tr("back"), self._back, "Esc"),
        )
        self.overrides = frozenset(("Ctrl+P",))
        self._make_parts()
        self._lay_out()
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self.draw)

    def _make_parts(self) -> None:
        self.page = PageView()
        self.page.clicked.connect(self.toggle_full)
        self.full = FullPage()
        self.full.closed.connect(self.toggle_full)
        self.kinds = QComboBox()
        self.kinds.setAccessibleName(tr("What paper it is"))
        self.kinds.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        for kind in PaperKind:
            self.kinds.addItem(kind.words, kind)
            self.kinds.setItemData(self.kinds.count() - 1, kind.below, Qt.ItemDataRole.ToolTipRole)
        self.kinds.activated.connect(lambda i: self.choose_kind(PaperKind(self.kinds.itemData(i))))
        self.ready = QLabel()
        self.reason = QLabel()
        self.reason.setObjectName("quiet")
        self.reason.setWordWrap(True)
        self.size_words = QLabel()
        self.pair_words = QLabel()
        self.pair_words.setObjectName("quiet")
        self.parts = PartsList()
        self.parts.changed.connect(self._parts_changed)
        self.owned = OwnedPanel()
        self.photos = PhotoChoice()
        self.photos.itemChanged.connect(lambda _i: self._soon.start())
        self.options = OptionsBar(self.open_book.settings)
        self.options.changed.connect(lambda: self._soon.start())
        self.buttons = [
            self._button(tr("Print"), tr("on paper"), "Ctrl+P", self.hand_over.print_sheet),
            self._button("PDF", tr("text selectable"), "Ctrl+S", self.hand_over.choose_pdf),
            self._button(tr("Grinder card"), tr("for the wall"), "G", self.hand_over.choose_card),
            self._button(tr("Everything"), tr("one zip"), "Z", self.hand_over.choose_archive),
        ]

    def _button(self, words: str, below: str, keys: str, do: Callable[[], object]) -> QPushButton:
        button = QPushButton(f"{words}  {keys}\n{below}")
        button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        button.setMinimumHeight(56)
        button.setAccessibleName(f"{words}, {below}")
        button.clicked.connect(lambda _c=False: do())
        return button

    def _lay_out(self) -> None:
        strip = QWidget()
        strip.setObjectName("panel")
        strip.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._top = top = QHBoxLayout(strip)
        top.setContentsMargins(16, 8, 16, 8)
        words, sizes = QVBoxLayout(), QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(self.ready)
        words.addWidget(self.reason)
        sizes.addWidget(self.size_words, 0, Qt.AlignmentFlag.AlignRight)
        sizes.addWidget(self.pair_words, 0, Qt.AlignmentFlag.AlignRight)
        top.addLayout(words, 1)
        top.addLayout(sizes)
        heading = QLabel(tr("What goes on it"))
        heading.setObjectName("heading")
        middle = QVBoxLayout()
        middle.setSpacing(4)
        middle.addWidget(self.kinds)
        middle.addWidget(heading)
        middle.addWidget(self.parts)
        middle.addWidget(self.photos)
        middle.addStretch()
        columns = QHBoxLayout()
        columns.setSpacing(24)
        columns.addLayout(middle, 3)
        columns.addWidget(self.owned, 2)
        actions = FlowLayout(10, 4)
        for button in self.buttons:
            actions.addWidget(button)
        self.keys = ActionBar()
        right = QVBoxLayout()
        right.setSpacing(6)
        right.addWidget(strip)
        right.addLayout(columns, 1)
        right.addWidget(self.options)
        right.addLayout(actions)
        right.addWidget(self.keys)
        self._both = QWidget()
        self._row = row = QHBoxLayout(self._both)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(24)
        row.addWidget(self.page, 5)
        row.addLayout(right, 8)
        self.stack = QStackedWidget()
        for each in (self._both, self.full):
            self.stack.addWidget(each)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 6, 16, 4)
        outer.addWidget(self.stack)

    def fit(self, there: QSize) -> None:
        """In a small window the right column and the keys give way; the page itself still owns up."""
        self.owned.setVisible(there.width() >= NARROW)
        stacked = there.width() < STACKED
        way = QBoxLayout.Direction
        self._row.setDirection(way.BottomToTop if stacked else way.LeftToRight)
        self._top.setDirection(way.TopToBottom if stacked else way.LeftToRight)
        self.page.setMinimumHeight(PAGE if stacked else 0)
        self.keys.setVisible(there.height() >= 560)
        self.parts.tighten(there.height() < 640)

    # -- choices

    @property
    def units(self) -> Units:
        """The units of the page: those on screen, unless others were chosen for it."""
        return SYSTEMS.get(self.options.value("sheet_units"), self.open_book.units)

    @property
    def choices(self) -> Choices:
        return Choices(
            self.parts.chosen,
            self.options.value("sheet_paper"),
            self.options.value("sheet_ink"),
            self.options.value("sheet_for"),
        )

    def _load_parts(self, kind: PaperKind) -> None:
        """Parts of this kind of paper and their order, as they were left."""
        self.parts.show_parts(*kept_parts(kind, str(self.open_book.settings.value(_setting(kind), ""))))

    def _parts_changed(self) -> None:
        said = {"order": [p.value for p in self.parts.order], "on": [p.value for p in self.parts.chosen]}
        self.open_book.settings.setValue(_setting(self._paper().kind), json.dumps(said))
        self._show_or_hide_photos()
        self._soon.start()

    # -- showing

    def refresh(self) -> None:
        for button in self.buttons:
            button.setStyleSheet("text-align: left; font-size: 14px; padding: 4px 12px")
        self.size_words.setStyleSheet("font-size: 17px; font-weight: 600")
        self.keys.show_actions(*_actions(self.commands))
        space = self.open_book.workspace
        if space is not None:
            paper = self._paper()
            self.photos.show_photos(photos_for(space.job, paper.before, paper.after))
        self._show_or_hide_photos()
        self.draw()

    def _show_or_hide_photos(self) -> None:
        self.photos.setVisible(Part.PHOTOS in self.parts.on and self.photos.count() > 0)

    def _paper(self) -> Paper:
        space = self.open_book.workspace
        return Paper(PaperKind.JUDGED) if space is None else paper_in_hand(space, self.kind)

    def _fillable(self) -> list[PaperKind]:
        space = self.open_book.workspace
        return [] if space is None else papers_to_fill(space.findings)

    def choose_kind(self, kind: PaperKind) -> None:
        """Another paper; one that the job cannot fill is refused with what it lacks."""
        if kind not in self._fillable():
            self.open_book.say(tr("Not yet: {}.", LACKS[kind]))
            self._show_kind(self._paper().kind)
            return
        self.kind = kind
        self.page.page = 0
        self.draw()
        self.open_book.say(f"{kind.words.capitalize()}: {kind.below}.")

    def next_kind(self) -> None:
        """The next paper that the job can fill."""
        kinds, now = self._fillable(), self._paper().kind
        if kinds:
            self.choose_kind(kinds[(kinds.index(now) + 1) % len(kinds)] if now in kinds else kinds[0])

    def _show_kind(self, kind: PaperKind) -> None:
        fillable = self._fillable()
        model = self.kinds.model()
        for i, each in enumerate(PaperKind):
            words = each.words if each in fillable else tr("{} (not yet)", each.words)
            self.kinds.setItemText(i, words)
            if isinstance(model, QStandardItemModel):
                model.item(i).setEnabled(each in fillable)
        self.kinds.setCurrentIndex(list(PaperKind).index(kind))

    def usual(self) -> None:
        """Hold the first flowed cut of the port against its last."""
        space = self.open_book.workspace
        found = usual_pair(space.findings, space.port) if space is not None else None
        if space is not None and found is not None:
            space.look_at(found[2].id)
            space.hold_against(found[1].id)

    def draw(self) -> None:
        """Make the page anew and show it."""
        space = self.open_book.workspace
        if space is None:
            return
        paper = self._paper()
        self._load_parts(paper.kind)
        self._show_kind(paper.kind)
        photos: tuple[PhotoPart, ...] = ()
        if Part.PHOTOS in self.parts.on:
            there = photos_for(space.job, paper.before, paper.after)
            photos = photo_parts(self.open_book.book.photo_folder, there, self.photos.chosen)
        shop = shop_of(self.open_book)
        self.sheet = made_paper(space.findings, paper, self.choices, shop, date.today(), self.units, photos)
        self.pdf = sheet_pdf(self.sheet)
        pages = pages_of(self.pdf)
        self.page.page = min(self.page.page, pages - 1)
        self.page.show_pages(self.pdf)
        if self.stack.currentWidget() is self.full:
            self.full.show_page(self.pdf, self.page.page)
        else:
            self.stack.setCurrentWidget(self._both)
        self._say(self.sheet, pages)

    def _say(self, sheet: Sheet, pages: int) -> None:
        t = theme.current()
        ready = not sheet.not_ready
        self.ready.setText(tr("✓ Ready to hand over") if ready else tr("Not yet: {}", sheet.not_ready))
        size, shade = (32, t.better) if ready else (22, t.worse)
        self.ready.setStyleSheet(
            f"font-family: '{theme.NARROW}'; font-size: {size}px; font-weight: 600; color: {shade}"
        )
        owned = [o.title for o in sheet.owned if o.shape != "same"]
        self.reason.setText(
            tr("The page says so: {}.", ", ".join(owned)) if owned else tr("Everything on it was measured here.")
        )
        here = tr("page {} of {}, ", self.page.page + 1, pages) if pages > 1 else ""
        self.size_words.setText(f"{here}{sheet.choices.paper}")
        main = next((p for p in sheet.pairs if p.port == sheet.port), None)
        self.pair_words.setText(about_pair(sheet.kind, main))
        self.owned.show_owned(sheet.owned)
        lifts = max((len(p.lifts) for p in sheet.pairs), default=0)
        self.parts.beside = {
            Part.LIFTS: tr("{} lifts", lifts),
            Part.MINE: tr("{} figures", len(sheet.large)),
            Part.DONE: tr("{} lines", len(sheet.done)),
            Part.PORTS: tr("{} ports", len(sheet.ports)),
            Part.PHOTOS: tr("{} of {} chosen", len(sheet.photos), self.photos.count()),
        }
        self.parts.update()

    # -- keys

    def event(self, event: QEvent) -> bool:
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QKeyEvent.Type.ShortcutOverride
            and keys_of(event) in (*self.overrides, "Ctrl+S")
        ):
            event.accept()  # before a menu takes it
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if not pressed(self.commands, event):
            super().keyPressEvent(event)

    def _cursor(self, by: int) -> None:
        if self.stack.currentWidget() is self.full:
            self.full.move_by(0.15 * by)
            return
        self.parts.move_cursor(by)

    def _switch(self) -> None:
        self.parts.switch()
        self.open_book.say(f"{self.parts.spoken}.")

    def _move(self, by: int) -> None:
        self.parts.move_part(by)

    def _turn(self, by: int) -> None:
        if not self.pdf:
            return
        if self.stack.currentWidget() is self.full and self.full.move_by(0.8 * by):
            return
        page = max(0, min(self.page.page + by, pages_of(self.pdf) - 1))
        self.page.turn_to(page)
        if self.stack.currentWidget() is self.full:
            self.full.show_page(self.pdf, page)
        if self.sheet is not None:
            self._say(self.sheet, pages_of(self.pdf))

    def toggle_full(self) -> None:
        """The page at reading size, or beside its parts again."""
        if not self.pdf:
            return
        if self.stack.currentWidget() is self.full:
            self.stack.setCurrentWidget(self._both)
        else:
            self.full.show_page(self.pdf, self.page.page)
            self.stack.setCurrentWidget(self.full)
        self.setFocus()

    def _back(self) -> None:
        if self.stack.currentWidget() is self.full:
            self.toggle_full()


def _setting(kind: PaperKind) -> str:
    """Where the parts of a kind of paper are kept; a pair's where they always were."""
    return "sheet_parts" if kind is PaperKind.PAIR else f"sheet_parts_{kind.value}"


def _actions(commands: tuple[Command, ...]) -> tuple[list[Command], list[tuple[str, str]]]:
    """What has no button of its own, and the keys of the list of parts."""
    told = [("↑ ↓", tr("part")), ("Space", tr("on or off")), ("Shift+↑ ↓", tr("its place")), ("PgDn", tr("page"))]
    wanted = ("sheet.full", "sheet.kind", "sheet.pair", "sheet.shop")
    return [c for c in commands if c.id in wanted], told
