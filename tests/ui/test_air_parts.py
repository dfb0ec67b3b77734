"""The Air room's own parts, alone: section picture, strip, seat clock, scale, traverse sheet."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtWidgets import QApplication, QWidget

from ventrix.core.air.layouts import CLOCK, NINE
from ventrix.core.air.traverse import Field, field_of
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.traverse import ProbePoint, Traverse
from ventrix.demo.job import demo_job
from ventrix.rooms.air.pictures import SectionSpot, SectionView
from ventrix.ui.air.seat_clock import STATES, SeatClock
from ventrix.ui.air.section_picture import SectionPicture, paint_field
from ventrix.ui.air.section_strip import SectionStrip
from ventrix.ui.look.air_scale import ScaleBar, ink_on, speed_colour
from ventrix.ui.window.main_window import MainWindow


def a_field(*, ring: bool = False) -> Field:
    layout = CLOCK if ring else NINE
    points = tuple(
        ProbePoint(id=p.name, name=p.name, u=p.u, v=p.v, speed=80 + 20 * p.v + i) for i, p in enumerate(layout.places)
    )
    found = field_of(Traverse(id="t", station="pinch", layout=layout.name, points=points), 0.03, 0.04, 0.0011)
    assert found is not None
    return found


def a_view(field: Field | None, *, ring: bool = False, wanted: str = "") -> SectionView:
    layout = CLOCK if ring else NINE
    spots = tuple(
        SectionSpot(p.name, p.u, p.v, "300" if i % 2 else "", 0.5 if i % 2 else None)
        for i, p in enumerate(layout.places)
    )
    return SectionView("pinch, cut 2", 0.03, 0.04, ring, spots, field, (60.0, 120.0), wanted)


def shown(widget: QWidget, qtbot, width: int = 300, height: int = 300) -> QImage:  # type: ignore[no-untyped-def]
    qtbot.addWidget(widget)
    widget.resize(width, height)
    widget.show()
    return widget.grab().toImage()


def colours(image: QImage) -> set[str]:
    return {
        image.pixelColor(x, y).name() for x in range(0, image.width(), 3) for y in range(0, image.height(), 3)
    }  # fmt: skip


@pytest.mark.parametrize("ring", [False, True])
def test_a_section_is_filled_inside_its_points_only(styled: QApplication, qtbot, ring: bool) -> None:  # type: ignore[no-untyped-def]
    empty = shown(SectionPicture(), qtbot)
    picture = SectionPicture()
    picture.show_view(a_view(a_field(ring=ring), ring=ring))
    image = shown(picture, qtbot)
    assert len(colours(image)) > len(colours(empty)) + 10
    assert picture.accessibleName() == "pinch, cut 2"
    assert "300" in picture.accessibleDescription()


def test_the_hull_and_the_middle_of_a_ring_stay_bare(styled: QApplication) -> None:
    from PySide6.QtCore import QRectF
    from PySide6.QtGui import QPainter

    image = QImage(200, 200, QImage.Format.Format_RGB32)
    image.fill(QColor("#ff00ff"))
    painter = QPainter(image)
    paint_field(painter, QRectF(0, 0, 200, 200), a_field(ring=True), (60.0, 120.0), 40)
    painter.end()
    bare = QColor("#ff00ff").name()
    assert image.pixelColor(100, 100).name() == bare  # nobody held a probe where the valve is
    assert image.pixelColor(3, 3).name() == bare
    assert image.pixelColor(100, 34).name() != bare  # 12 o'clock, a third of the way in


def test_clicking_a_point_chooses_it(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    picture = SectionPicture()
    picture.show_view(a_view(a_field(), wanted="centre"))
    shown(picture, qtbot)
    box = picture._box()
    for spot in picture.view.spots if picture.view is not None else ():
        at = picture._at(box, spot.u, spot.v).toPoint()
        with qtbot.waitSignal(picture.spot_chosen) as caught:
            qtbot.mouseClick(picture, Qt.MouseButton.LeftButton, pos=at)
        assert caught.args == [spot.name]
    with qtbot.assertNotEmitted(picture.spot_chosen):
        qtbot.mouseClick(picture, Qt.MouseButton.LeftButton, pos=QPoint(2, 2))


def test_clicking_a_section_of_the_strip_looks_at_its_station(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    job = demo_job()
    port = job.ports[0]
    strip = SectionStrip()
    view = SectionView("pinch", 0.03, 0.04, False, (), a_field(), (60.0, 120.0))
    strip.show_sections(unroll(port, port.cuts[0], job.valve_of(port)), [(0.38, view)], "intake")
    shown(strip, qtbot, 700, 220)
    with qtbot.waitSignal(strip.station_chosen) as caught:
        qtbot.mouseClick(strip, Qt.MouseButton.LeftButton, pos=strip._box(0.38).center().toPoint())
    assert caught.args == ["pinch"]
    left = strip._x(0.0)
    strip.show_sections(unroll(port, port.cuts[0], job.valve_of(port)), [], "exhaust")
    assert strip._x(0.0) > left  # air leaves an exhaust port to the left
    assert strip.accessibleDescription() == "no station was probed"


def test_the_seat_clock_goes_round_its_states_by_mouse_and_keys(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    clock = SeatClock()
    shown(clock, qtbot)
    clock.state_set.connect(lambda hour, state: clock.show_states({hour: state}, {hour: "280"}))
    seen = []
    for _ in STATES:
        qtbot.mouseClick(clock, Qt.MouseButton.LeftButton, pos=clock._place(3, 0.72).toPoint())
        seen.append(clock.states[3])
    assert seen == [*STATES[1:], STATES[0]]
    qtbot.keyClick(clock, Qt.Key.Key_Right)
    qtbot.keyClick(clock, Qt.Key.Key_Space)
    assert clock.states == {4: STATES[1]}
    assert "4 o'clock" in clock.accessibleDescription()
    for _ in range(4):
        qtbot.keyClick(clock, Qt.Key.Key_Left)
    assert clock.at == 12


def test_figures_read_on_every_colour_of_the_scale(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    # WCAG 2.1, 1.4.3: contrast of large text is at least 3 to 1.
    def luminance(colour: QColor) -> float:
        linear = [((c + 0.055) / 1.055) ** 2.4 if c > 0.04045 else c / 12.92 for c in colour.getRgbF()[:3]]
        return float(np.dot(linear, [0.2126, 0.7152, 0.0722]))

    for share in np.linspace(0, 1, 33):
        light, dark = sorted((luminance(speed_colour(share)), luminance(ink_on(share))), reverse=True)
        assert (light + 0.05) / (dark + 0.05) > 3.0
    bar = ScaleBar()
    bar.show_scale(120, 356, "ft/s, one scale for all")
    assert len(colours(shown(bar, qtbot, 400, 34))) > 20
    assert "120 to 356" in bar.accessibleName()


def test_the_sheet_asks_for_what_is_missing(open_window: Callable[..., MainWindow]) -> None:
    window = open_window(room="air")
    sheet = window.sheets["traverse"]
    sheet.open("bowl")
    assert sheet.layout_choice.currentText() == "ring of eight"
    sheet.lift.set_value(None)
    sheet.take()
    assert "lift" in sheet.problem.text()
    sheet.kind.setCurrentText("flow ball")
    assert not sheet.coefficient.isVisible()
    sheet.lift.set_value(0.0127)
    sheet.take()
    assert "without the ball" in sheet.problem.text()
    assert sheet.isVisible()
    sheet.kind.setCurrentText("pitot: air speeds")
    sheet.own.setText("Above the Plug")
    sheet.take()
    space = window.open_book.workspace
    assert space is not None and space.real_cut is not None
    assert space.real_cut.traverses[-1].station == "above the plug"
    assert window.rooms["air"].station.currentText() == "above the plug"


def test_an_exhaust_port_and_an_unmeasured_one_say_what_they_lack(open_window: Callable[..., MainWindow]) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.look_at_port("exhaust")
    window.go_to_named("air")
    for page, words in ((0, "not been probed"), (1, "No ball"), (2, "No swirl"), (3, "Blow dyed liquid")):
        window.rooms["air"].pages.setCurrentIndex(page)
        window.rooms["air"].refresh()
        assert words in window.rooms["air"].said.text()
    window.files.new_job()
    window.go_to_named("air")
    for page in range(4):
        window.rooms["air"].pages.setCurrentIndex(page)
        window.rooms["air"].refresh()
        assert window.rooms["air"].said.text()
