"""A window of its own for the manual, so that the page can stand beside the work."""

from __future__ import annotations

from importlib import resources

from PySide6.QtGui import QTextDocument
from PySide6.QtWidgets import QTextBrowser, QVBoxLayout, QWidget


def page_text(name: str) -> str:
    """The Markdown of one page of the manual."""
    return resources.files("ventrix.manual").joinpath(f"{name}.md").read_text(encoding="utf-8")


class ManualWindow(QWidget):
    """Shows one page at a time; links lead to the others."""

    def __init__(self) -> None:
        super().__init__()
        self.resize(720, 760)
        self.browser = QTextBrowser()
        self.browser.setOpenLinks(False)
        self.browser.anchorClicked.connect(lambda url: self.open_page(url.fileName().removesuffix(".md")))
        self.browser.setAccessibleName("Manual")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.browser)

    def open_page(self, name: str) -> None:
        self.browser.document().setMarkdown(page_text(name), QTextDocument.MarkdownFeature.MarkdownDialectGitHub)
        self.setWindowTitle(f"Ventrix manual: {name}")
        self.show()
        self.raise_()
