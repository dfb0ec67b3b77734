"""A window of its own for the manual, so that the page can stand beside the work."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from importlib import resources

from PySide6.QtCore import QUrl
from PySide6.QtGui import QTextCursor, QTextDocument
from PySide6.QtWidgets import QTextBrowser, QVBoxLayout, QWidget

from ventrix.core.calculators.answer import registry
from ventrix.ui.widgets.command import Command
from ventrix.words import tr

Commands = tuple[Iterable[Command], list[tuple[str, Iterable[Command]]]]


def page_text(name: str, commands: Callable[[], Commands] = lambda: ((), [])) -> str:
    """The Markdown of one page of the manual; those of calculators and keys are made from the program's own tables."""
    if name == "calculators":
        return calculators_page()
    if name == "keys":
        return keys_page(*commands())
    return resources.files("ventrix.manual").joinpath(f"{name}.md").read_text(encoding="utf-8")


def calculators_page() -> str:
    """Every calculator: what it takes and answers, its equation and its source."""
    lines = [
        tr("# Calculators"),
        "",
        tr("Ctrl+K finds each by any of its words; `ventrix calc ID name=value…` answers the same."),
        "",
    ]
    for c in registry().values():
        inputs = ", ".join(
            f"{i.name} ({'|'.join(i.choices) or i.unit}{' = ' + i.default if i.default else ''})" for i in c.inputs
        )
        outputs = ", ".join(f"{o.name} ({o.unit})" for o in c.outputs)
        lines += [
            f"## {c.title}",
            "",
            tr("`{}` takes {}; answers {}.", c.id, inputs, outputs),
            "",
            f"    {c.formula}",
            "",
        ]
        lines += [tr("Source: {}.", c.source), ""]
    return "\n".join(lines)


def keys_page(commands: Iterable[Command], rooms: list[tuple[str, Iterable[Command]]]) -> str:
    """Every key: those that work everywhere, and those of each room."""
    lines = [tr("# Every key"), "", tr("## Everywhere"), "", tr("| key | does |"), "|---|---|"]
    lines += [f"| {c.keys} | {c.name} |" for c in commands if c.keys]
    for room, own in rooms:
        lines += ["", f"## {room}", "", tr("| key | does |"), "|---|---|"]
        lines += [f"| {c.keys} | {c.name} |" for c in own if c.keys]
    return "\n".join(lines)


class ManualWindow(QWidget):
    """Shows one page at a time; links lead to the others."""

    def __init__(self, commands: Callable[[], Commands]) -> None:
        super().__init__()
        self._commands = commands
        self.resize(720, 760)
        self.browser = QTextBrowser()
        self.browser.setOpenLinks(False)
        self.browser.anchorClicked.connect(lambda url: self.open_page(url.fileName().removesuffix(".md")))
        self.browser.setAccessibleName(tr("Manual"))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.browser)

    def open_page(self, name: str) -> None:
        folder = resources.files("ventrix.manual")
        self.browser.document().setBaseUrl(QUrl.fromLocalFile(f"{folder}/"))
        self.browser.document().setMarkdown(
            page_text(name, self._commands), QTextDocument.MarkdownFeature.MarkdownDialectGitHub
        )
        self._space_out()
        self.browser.moveCursor(QTextCursor.MoveOperation.Start)
        self.setWindowTitle(tr("Ventrix manual: {}", name))
        self.show()
        self.raise_()

    def _space_out(self) -> None:
        """Room between paragraphs; Qt sets Markdown without any."""
        block = self.browser.document().begin()
        while block.isValid():
            shape = block.blockFormat()
            shape.setTopMargin(18 if shape.headingLevel() else 4)
            shape.setBottomMargin(8)
            QTextCursor(block).setBlockFormat(shape)
            block = block.next()
