"""Colours, type and the style sheet: layout dye and scribe. The two themes pass WCAG AA; a test checks it."""

from __future__ import annotations

from dataclasses import dataclass
from importlib import resources
from typing import Final

from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication

FAMILY: Final = "Barlow"
NARROW: Final = "Barlow Condensed"
TEXT: Final = 13  # px
CAPTION: Final = 11
FIGURE: Final = 20
STEP: Final = 4  # spacing goes in steps of this


@dataclass(frozen=True, slots=True)
class Theme:
    """Roles of colour; see DESIGN's table."""

    name: str
    ground: str
    panel: str
    raised: str
    scribe: str
    text: str
    quiet: str
    brass: str
    intake: str
    exhaust: str
    better: str
    worse: str
    unproven: str
    kept: str  # ground while a kept reading stands
    refused: str  # ground of a refusal
    odd: str  # ground of a reading kept that looks wrong

    def port(self, kind: str) -> str:
        return self.intake if kind == "intake" else self.exhaust

    def result(self, name: str) -> str:
        return {"better": self.better, "worse": self.worse}.get(name, self.unproven)


DYE: Final = Theme(
    "dye",
    ground="#0F2230",
    panel="#15303F",
    raised="#1D3D4F",
    scribe="#A9CBD8",
    text="#EAF3F6",
    quiet="#9DB8C4",
    brass="#E3B04B",
    intake="#54C6B4",
    exhaust="#E88A6A",
    better="#8FD694",
    worse="#F2A07B",
    unproven="#98B0BB",
    kept="#123E2A",
    refused="#56291C",
    odd="#46350E",
)
PAPER: Final = Theme(
    "paper",
    ground="#F4F1E8",
    panel="#FBFAF5",
    raised="#FFFFFF",
    scribe="#3A5563",
    text="#17252E",
    quiet="#4F6874",
    brass="#865B04",
    intake="#0B6F62",
    exhaust="#B5482A",
    better="#2A7038",
    worse="#B5482A",
    unproven="#586C76",
    kept="#E0F2E0",
    refused="#FCEAE3",
    odd="#F9F0D2",
)
THEMES: Final = {t.name: t for t in (DYE, PAPER)}

_current = DYE


def current() -> Theme:
    """The theme in force."""
    return _current


def colour(role: str, alpha: float = 1.0) -> QColor:
    """A role's colour, or a colour given as #RRGGBB."""
    found = QColor(role if role.startswith("#") else getattr(_current, role))
    found.setAlphaF(alpha)
    return found


def load_fonts() -> None:
    """Register the fonts that ship in the package."""
    for entry in resources.files("ventrix.ui.look").joinpath("fonts").iterdir():
        if entry.name.endswith(".ttf"):
            QFontDatabase.addApplicationFontFromData(entry.read_bytes())


def font(size: float, *, narrow: bool = False, weight: int = 400) -> QFont:
    """A font in pixels with tabular figures, scaled with the system's text size."""
    found = QFont(NARROW if narrow else FAMILY)
    found.setPixelSize(max(round(size * _scale()), 1))
    found.setWeight(QFont.Weight(weight))
    found.setFeature(QFont.Tag("tnum"), 1)
    return found


_text_scale = 1.0


def _scale() -> float:
    return _text_scale


def apply(app: QApplication, name: str) -> Theme:
    """Put a theme on the whole program."""
    global _current
    _current = THEMES.get(name, DYE)
    t = _current
    palette = QPalette()
    for role, value in (
        (QPalette.ColorRole.Window, t.ground),
        (QPalette.ColorRole.Base, t.raised),
        (QPalette.ColorRole.AlternateBase, t.panel),
        (QPalette.ColorRole.Button, t.panel),
        (QPalette.ColorRole.WindowText, t.text),
        (QPalette.ColorRole.Text, t.text),
        (QPalette.ColorRole.ButtonText, t.text),
        (QPalette.ColorRole.ToolTipBase, t.raised),
        (QPalette.ColorRole.ToolTipText, t.text),
        (QPalette.ColorRole.PlaceholderText, t.quiet),
        (QPalette.ColorRole.Highlight, t.brass),
        (QPalette.ColorRole.HighlightedText, t.ground),
        (QPalette.ColorRole.Link, t.brass),
    ):
        palette.setColor(role, QColor(value))
    app.setPalette(palette)
    app.setFont(font(TEXT))
    app.setStyleSheet(_style(t))
    return t


def _style(t: Theme) -> str:
    def px(size: float) -> str:
        return f"{round(size * _scale())}px"

    return f"""
QWidget {{ color: {t.text}; font-family: "{FAMILY}"; font-size: {px(TEXT)}; }}
QMainWindow, QDialog {{ background: {t.ground}; }}
QMenuBar, QMenu {{ background: {t.panel}; }}
QMenuBar::item {{ padding: 4px 10px; background: transparent; }}
QMenu {{ border: 1px solid {t.scribe}; padding: 4px 0; }}
QMenu::item {{ padding: 5px 28px 5px 16px; }}
QMenuBar::item:selected, QMenu::item:selected {{ background: {t.raised}; color: {t.brass}; }}
QMenu::item:disabled {{ color: {t.quiet}; }}
QMenu::separator {{ height: 1px; background: {t.raised}; margin: 4px 0; }}
QToolTip {{ qproperty-textFormat: PlainText; }}
QToolTip {{ background: {t.raised}; color: {t.text}; border: 1px solid {t.scribe}; padding: 4px; }}
#bar, #rail, #foot {{ background: {t.panel}; }}
#room, #rooms {{ background: {t.ground}; }}
#panel {{ background: {t.panel}; }}
#quiet, QLabel#quiet {{ color: {t.quiet}; }}
QLabel {{ qproperty-textFormat: PlainText; }}
QLabel[markup="true"] {{ qproperty-textFormat: RichText; }}
QLabel#caption {{ color: {t.quiet}; font-size: {px(CAPTION)}; }}
QLabel#error {{ color: {t.worse}; font-size: {px(CAPTION)}; }}
QLabel#heading {{ font-size: 15px; font-weight: 600; }}
QLabel#figure {{ font-family: "{NARROW}"; font-size: {px(FIGURE)}; font-weight: 500; }}
QLabel#title {{ font-size: 15px; font-weight: 600; }}
QLineEdit, QComboBox, QPlainTextEdit {{
    background: {t.raised}; border: 1px solid {t.quiet}; padding: 4px 6px; min-height: 20px;
    selection-background-color: {t.brass}; selection-color: {t.ground}; }}
QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus {{ border: 2px solid {t.brass}; padding: 3px 5px; }}
QLineEdit[wrong="true"] {{ border: 2px solid {t.worse}; padding: 3px 5px; }}
QLineEdit[carried="true"] {{ border: 1px dashed {t.quiet}; color: {t.quiet}; }}
QLineEdit[scanned="true"] {{ border: 1px solid {t.brass}; }}
QLineEdit[readOnly="true"] {{ background: {t.panel}; }}
QComboBox QAbstractItemView {{ background: {t.raised}; border: 1px solid {t.scribe};
    selection-background-color: {t.brass}; selection-color: {t.ground}; }}
QPushButton {{ background: transparent; border: 1px solid {t.brass}; color: {t.brass}; padding: 5px 14px; }}
QPushButton:hover {{ background: {t.raised}; }}
QPushButton:focus {{ border: 2px solid {t.brass}; padding: 4px 13px; }}
QPushButton:disabled {{ border-color: {t.quiet}; color: {t.quiet}; }}
QPushButton#flat {{ border: none; color: {t.text}; text-align: left; padding: 4px; }}
QPushButton#flat:hover, QPushButton#flat:focus {{ color: {t.brass}; }}
QPushButton#choice {{ border: none; border-bottom: 2px solid transparent; color: {t.text}; padding: 3px 7px; }}
QPushButton#choice:checked {{ color: {t.brass}; border-bottom: 2px solid {t.brass}; font-weight: 600; }}
QPushButton#choice:focus, QPushButton#choice:hover {{ color: {t.brass}; background: transparent; }}
QPushButton::menu-indicator {{ width: 0; }}
QSlider::groove:horizontal {{ height: 4px; background: {t.quiet}; }}
QSlider::handle:horizontal {{ background: {t.brass}; width: 14px; margin: -8px 0; }}
QSlider:focus {{ border: 1px solid {t.brass}; }}
QScrollArea, QScrollArea > QWidget > QWidget {{ background: transparent; border: none; }}
QScrollBar:vertical {{ background: {t.ground}; width: 10px; }}
QScrollBar:horizontal {{ background: {t.ground}; height: 10px; }}
QScrollBar::handle {{ background: {t.raised}; border: 1px solid {t.quiet}; min-height: 24px; min-width: 24px; }}
QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
QTableView {{ background: {t.ground}; border: none; gridline-color: {t.raised};
    selection-background-color: {t.raised}; selection-color: {t.brass}; font-family: "{NARROW}"; }}
QHeaderView::section {{ background: {t.ground}; color: {t.quiet}; border: none; padding: 4px 8px;
    font-family: "{FAMILY}"; font-size: {px(CAPTION)}; }}
QTableCornerButton::section {{ background: {t.ground}; border: none; }}
QTabWidget::pane {{ border: none; border-top: 1px solid {t.quiet}; }}
QTabBar::tab {{ background: transparent; color: {t.quiet}; padding: 6px 12px; border-bottom: 3px solid transparent; }}
QTabBar::tab:selected {{ color: {t.text}; border-bottom: 3px solid {t.brass}; }}
QTabBar::tab:focus {{ color: {t.brass}; }}
QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {t.quiet}; background: {t.raised}; }}
QCheckBox::indicator:checked {{ background: {t.brass}; border: 1px solid {t.brass}; }}
QCheckBox:focus {{ color: {t.brass}; }}
QTextBrowser {{ background: {t.panel}; border: none; padding: 16px; }}
"""
