"""The Air room: where the air goes, how fast, and which way it turns."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QBoxLayout,
    QComboBox,
    QHBoxLayout,
    QInputDialog,
    QLabel,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.air.sections import size_is_guessed, size_of, station_share
from ventrix.core.air.traverse import LIMIT_MACH, Field, newest_of
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.cut import Cut
from ventrix.core.model.kinds import StationName
from ventrix.core.model.traverse import Traverse
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.core.runs.run_curves import turning_of
from ventrix.rooms.air.page_words import ball_words, section_words
from ventrix.rooms.air.shows import (
    ball_spots,
    difference_view,
    run_at,
    scale_of,
    section_view,
    survey_view,
    swirl_path,
    swirl_sentences,
)
from ventrix.rooms.air.swirl_pictures import swirl_over_lift, swirl_trade
from ventrix.rooms.shared.probed_fields import field_at, fields_along, pressure_of
from ventrix.rooms.shared.unrolled_map import map_picture
from ventrix.ui.air.probe_bar import ProbeBar
from ventrix.ui.air.section_picture import SectionPicture
from ventrix.ui.air.section_strip import SectionStrip
from ventrix.ui.air.wet_page import WetPage
from ventrix.ui.look.air_scale import ScaleBar
from ventrix.ui.open_book import OpenBook
from ventrix.ui.places import kept_number
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.kept_choice import choose, offer, taken
from ventrix.ui.widgets.pedal import DEFAULT_KEY, Pedal
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX, Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.unrolled_map import UnrolledMap
from ventrix.words import tr
from ventrix.workspace.workspace import Workspace

CARD: Final = 360  # px, of what is said
NARROW: Final = 810  # px of room: below, that stands under the pictures
SAID: Final = 160  # px of height that it has there
PAGES = (tr("Sections"), tr("Flow ball"), tr("Swirl"), tr("Wet flow and noise"))
CAUTION = tr(
    "Hearing protection on; keep probe and fingers clear of valve and blower. Dyed fluids: gloves, ventilation, no "
    "flame."
)


class AirRoom(Room):
    """Sections before and after, the ball's map, swirl, and what was seen and heard."""

    name = tr("Air")
    manual = "air"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.pages = QComboBox()
        self.pages.setAccessibleName(tr("What is shown"))
        self.pages.addItems(PAGES)
        self.pages.activated.connect(lambda _i: self.refresh())
        self.station = QComboBox()
        self.station.setAccessibleName(tr("Station"))
        self.station.activated.connect(lambda _i: self._station_chosen())
        self.new = QPushButton(tr("New traverse (N)"))
        self.new.clicked.connect(lambda: self.ways.sheet("traverse", taken(self.station)))
        self.probe = ProbeBar(open_book)
        self.probe.moved.connect(self.refresh)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.said.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.pictures = [SectionPicture() for _ in range(3)]
        for picture in self.pictures[:2]:
            picture.spot_chosen.connect(self.probe.stand_on)
        self.scale = ScaleBar()
        self.strip = SectionStrip()
        self.strip.station_chosen.connect(self.show_station)
        self.map = UnrolledMap()
        self.swirl = Plot(tr("Swirl against lift"), selects=True)
        self.path = Plot(tr("Swirl against flow, cut by cut"))
        self.wet = WetPage(open_book)
        self.stack = QStackedWidget()
        self.pedal = Pedal(lambda: self.isVisible() and self.probe.leading is not None, self)
        self.pedal.use(str(open_book.settings.value("pedal", DEFAULT_KEY)))
        self.pedal.pressed.connect(self.probe.keep_live)
        self.pedal.held.connect(self.probe.strike)
        self.commands = self._own_commands()
        self._lay_out()

    def _lay_out(self) -> None:
        bar = FlowLayout(10, 4)
        for widget in (self.pages, self.station, self.new):
            bar.addWidget(widget)
        bar.addWidget(self.probe)
        sections = QWidget()
        trio = QHBoxLayout()
        for picture in self.pictures:
            trio.addWidget(picture, 1)
        column = QVBoxLayout(sections)
        column.setContentsMargins(0, 0, 0, 0)
        column.addLayout(trio, 3)
        column.addWidget(self.scale)
        column.addWidget(self.strip, 2)
        turn = QWidget()
        plots = QVBoxLayout(turn)
        plots.setContentsMargins(0, 0, 0, 0)
        self.trade = QLabel()
        self.turning = QLabel()
        for caption, plot in ((self.turning, self.swirl), (self.trade, self.path)):
            caption.setObjectName("caption")
            plots.addWidget(caption)
            plots.addWidget(plot, 1)
        for page in (sections, self.map, turn, self.wet):
            self.stack.addWidget(page)
        caution = QLabel(CAUTION)
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        holder = QWidget()
        told_column = QVBoxLayout(holder)
        told_column.setContentsMargins(12, 10, 10, 10)
        told_column.addWidget(self.said)
        told_column.addStretch()
        told_column.addWidget(caution)
        card = ScrollArea(holder)
        self._card = card
        self._row = row = QHBoxLayout()
        row.setSpacing(14)
        row.addWidget(self.stack, 1)
        row.addWidget(card)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 4, 16, 8)
        held = QWidget()
        held.setLayout(bar)
        outer.addWidget(held)
        outer.addLayout(row, 1)

    def fit(self, there: QSize) -> None:
        """In a narrow window what is said of the air stands under its pictures."""
        narrow = self.folds = there.width() < NARROW
        self._row.setDirection(QBoxLayout.Direction.TopToBottom if narrow else QBoxLayout.Direction.LeftToRight)
        self._card.setMinimumWidth(0 if narrow else CARD)
        self._card.setMaximumWidth(QWIDGETSIZE_MAX if narrow else CARD)
        self._card.setMinimumHeight(SAID if narrow else 0)

    # -- showing

    def refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        self._fill_stations(space.real_cut)
        page = self.pages.currentIndex()
        self.stack.setCurrentIndex(page)
        self.station.setVisible(page == 0)
        for widget in (self.probe.lead, self.probe.entry, self.probe.problem):
            widget.setVisible(self.probe.traverse() is not None and page < 2)
        try:
            (self._show_sections, self._show_ball, self._show_swirl, self._show_wet)[page](space)
        except Refused as error:
            self.said.setText(sentence(str(error)))
        self.probe.show_lead()

    def _fill_stations(self, cut: Cut) -> None:
        chosen = taken(self.station)
        own = [t.station for t in cut.traverses if t.station not in tuple(StationName)]
        names = [*StationName, *dict.fromkeys(own)]
        if [self.station.itemData(i) for i in range(self.station.count())] != names:
            self.station.clear()
            offer(self.station, names)
            probed = [t.station for t in cut.traverses if t.kind == TraverseKind.PITOT]
            choose(self.station, chosen or (probed[-1] if probed else StationName.PINCH))

    @property
    def limit(self) -> float:
        """The user's limit of local air speed, as a Mach number."""
        return kept_number(self.open_book.settings, "mach", LIMIT_MACH)

    def use_limit(self, mach: float) -> None:
        """Set it. ValueError unless it lies between 0.1 and 1."""
        if not 0.1 <= mach <= 1.0:
            raise Refused("the limit must lie between Mach 0.1 and 1")
        self.open_book.settings.setValue("mach", mach)
        self.refresh()

    def show_station(self, station: str) -> None:
        """Look at a station."""
        self.pages.setCurrentIndex(0)
        choose(self.station, station)
        self.refresh()

    def _station_chosen(self) -> None:
        self.probe.lead_on(None)

    def come_in(self, what: object) -> None:
        """For a traverse that was begun, by its id."""
        self.lead_on(str(what))

    def lead_on(self, traverse_id: str) -> None:
        """Read this traverse, point by point."""
        self.probe.lead_on(traverse_id)
        traverse = self.probe.traverse()
        if traverse is not None:
            self.pages.setCurrentIndex(1 if traverse.kind == TraverseKind.BALL else 0)
            choose(self.station, traverse.station)
            self.refresh()
        self.setFocus()

    def _show_sections(self, space: Workspace) -> None:
        port, cut, units, findings = space.port, space.real_cut, self.open_book.units, space.findings
        assert port is not None and cut is not None
        against = space.against if space.against is not None and space.against.id != cut.id else None
        station = taken(self.station)
        after = newest_of(cut, station)
        before = newest_of(against, station) if against is not None else None
        pressure = pressure_of(findings, before) if before is not None else None
        fields: list[Field | None] = [None, None]
        converted = False
        if before is not None and against is not None:
            fields[0], _ = field_at(findings, port, against, before, None)
        if after is not None:
            fields[1], converted = field_at(findings, port, cut, after, pressure)
        along = fields_along(space.findings, port, cut)
        scale = scale_of(*fields, *(field for _, field in along))
        wanted = self.probe.wanted()
        for i, (each, traverse, found) in enumerate(((against, before, fields[0]), (cut, after, fields[1]))):
            picture = self.pictures[i]
            picture.setVisible(each is not None)
            if each is None:
                continue
            here = unroll(port, each, space.job.valve_of(port, each))
            size, guessed = size_of(here, station), size_is_guessed(here, station)
            mark = tr(", converted") if converted and i else ""
            title = tr("{}, cut {}{}", station, each.number, mark) + (
                "" if traverse is not None else tr(": not probed")
            )
            view = section_view(title, traverse, found, size, station, scale, units, wanted if i else "", guessed)
            led = self.probe.traverse()
            if i and led is not None and led.kind == TraverseKind.TOTAL_HEAD and led.station == station:
                title = tr("{}, cut {}: under the room's, {}", station, each.number, units.pressure.label)
                view = survey_view(title, led, size, station, units, wanted)
            picture.show_view(view)
        both = fields[0] is not None and fields[1] is not None
        self.pictures[2].setVisible(both)
        if fields[0] is not None and fields[1] is not None:
            size = size_of(unroll(port, cut, space.job.valve_of(port, cut)), station)
            self.pictures[2].show_view(difference_view(fields[0], fields[1], size, units))
        shown = [from_si(v, units.speed.unit) for v in scale]
        self.scale.show_scale(shown[0], shown[1], tr("{}, one scale for all", units.speed.label))
        self._show_strip(space, along, scale)
        said = section_words(findings, port, cut, station, (before, after), fields, self.limit, units)
        self.said.setText("\n\n".join(said))

    def _show_strip(
        self, space: Workspace, along: list[tuple[Traverse, Field | None]], scale: tuple[float, float]
    ) -> None:
        port, cut = space.port, space.real_cut
        assert port is not None and cut is not None
        here = unroll(port, cut, space.job.valve_of(port, cut))
        found = []
        for traverse, field in along:
            station = traverse.station
            size = size_of(here, station)
            guessed = size_is_guessed(here, station)
            view = section_view(station, traverse, field, size, station, scale, self.open_book.units, guessed=guessed)
            found.append((station_share(station), view))
        self.strip.show_sections(here, found, port.kind)

    def _show_ball(self, space: Workspace) -> None:
        port, cut = space.port, space.real_cut
        assert port is not None and cut is not None
        spots = ball_spots(space.findings, port, cut, self.open_book.units)
        picture = map_picture(space.job, port, cut, None, "", self.open_book.units)
        bare = replace(picture, spots=spots, pins=(), tints=(), taken=None)
        self.map.show_picture(bare, self.open_book.units, still=True)
        self.said.setText(ball_words(spots, self.open_book.units))

    def _show_swirl(self, space: Workspace) -> None:
        port, cut, units = space.port, space.real_cut, self.open_book.units
        assert port is not None and cut is not None
        newest = run_at(space.findings, port, cut)
        what = turning_of(newest.setup) if newest is not None else "swirl"
        sense = tr(": + is counterclockwise seen from above") if what == "swirl" else ""
        self.turning.setText(tr("{}, rpm, against lift{}", what, sense))
        sides = [(c, None if c is None else run_at(space.findings, port, c)) for c in (space.against, cut)]
        self.swirl.show_picture(swirl_over_lift(port, sides, units))
        path, what = swirl_path(space.findings, port, units)
        self.trade.setText(tr("{}, against peak flow, {}, cut by cut: the usual trade-off", what, units.flow.label))
        self.path.show_picture(swirl_trade(path))
        before = space.against if space.against is not None and space.against.id != cut.id else None
        self.said.setText("\n\n".join(swirl_sentences(space.findings, port, before, cut, units)))

    def _show_wet(self, space: Workspace) -> None:
        assert space.real_cut is not None
        self.said.setText("\n\n".join(self.wet.show_cut(space, space.real_cut, newest_of(space.real_cut, "seat"))))

    # -- keys and files

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self.pedal.watch(True)

    def hideEvent(self, event: object) -> None:
        self.pedal.watch(False)
        super().hideEvent(event)  # type: ignore[arg-type]

    def choose_limit(self) -> None:
        """The Mach number above which a local speed is called too fast."""
        text, ok = QInputDialog.getText(
            self, tr("Limit of local air speed"), tr("Mach number (usual: 0.55):"), text=f"{self.limit:g}"
        )
        if ok:
            try:
                self.use_limit(parse_quantity(text, "-"))
            except Refused as error:
                self.open_book.say(sentence(str(error)))

    def _is_leading(self) -> bool:
        return self.probe.leading is not None

    def _is_looking(self) -> bool:
        return self.probe.leading is None

    def _turn_to(self, page: int) -> None:
        self.pages.setCurrentIndex(page)
        self.refresh()

    def _own_commands(self) -> tuple[Command, ...]:
        probe, leading = self.probe, self._is_leading
        return (
            Command("air.traverse", tr("traverse"), lambda: self.ways.sheet("traverse", taken(self.station)), "N"),
            Command("air.keep", tr("keep a point"), probe.keep_live, "Space", able=leading),
            Command("air.strike", tr("strike the last point"), probe.strike, "Backspace"),
            *(
                Command(
                    f"air.page.{i}",
                    self.pages.itemText(i).lower(),
                    partial(self._turn_to, i),
                    str(i + 1),
                    able=self._is_looking,
                    one_of="page",
                )
                for i in range(self.pages.count())
            ),
            Command("air.leave", tr("leave the traverse"), lambda: probe.lead_on(None), "Esc", able=leading),
        )

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Paste):
            self.probe.paste()
            return
        plain = not event.isAutoRepeat() and not event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
        if plain and self._is_leading() and event.text() and event.text() in "0123456789.,":
            self.probe.entry.setFocus()
            self.probe.entry.insert(event.text())
        else:
            super().keyPressEvent(event)
