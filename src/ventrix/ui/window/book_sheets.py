"""The sheets of what goes into the book and out of it: tables matched, doubles, a job's state, the shop's name."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from PySide6.QtGui import QGuiApplication

from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.file_commands import Files
from ventrix.ui.window.sheet_holder import SheetHolder

if TYPE_CHECKING:
    from ventrix.ui.book.details_sheet import DetailsSheet
    from ventrix.ui.book.match_sheet import MatchSheet
    from ventrix.ui.book.station_sheet import StationSheet
    from ventrix.ui.sheet.shop_sheet import ShopSheet
    from ventrix.ui.window.double_sheet import DoubleSheet


class BookSheets(SheetHolder):
    """A window with files, and the sheets that these need."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.files = Files(open_book, self)
        self.files.match_wanted = lambda path: self.match_sheet.open_file(path)
        self.files.match_clipboard = lambda: self.match_sheet.open_text(QGuiApplication.clipboard().text())
        self.files.double_found = lambda *both: self.double_sheet.ask(*both)

    def go_to_named(self, name: str) -> None:
        raise AssertionError("the window knows its rooms")

    def refresh_room(self, key: str) -> None:
        raise AssertionError("the window knows its rooms")

    @cached_property
    def shop_sheet(self) -> ShopSheet:
        from ventrix.ui.sheet.shop_sheet import ShopSheet

        sheet = ShopSheet(self.open_book)
        sheet.changed.connect(lambda: self.refresh_room("sheet"))
        return self.settle_sheet(sheet)

    @cached_property
    def match_sheet(self) -> MatchSheet:
        from ventrix.ui.book.match_sheet import MatchSheet

        sheet = MatchSheet(self.open_book)
        sheet.brought_in.connect(lambda: self.go_to_named("compare"))
        return self.settle_sheet(sheet)

    @cached_property
    def station_sheet(self) -> StationSheet:
        from ventrix.ui.book.station_sheet import StationSheet

        return self.settle_sheet(StationSheet(self.open_book))

    @cached_property
    def double_sheet(self) -> DoubleSheet:
        from ventrix.ui.window.double_sheet import DoubleSheet

        sheet = DoubleSheet(self.open_book)
        sheet.opened.connect(self.files.open_job)
        return self.settle_sheet(sheet)

    @cached_property
    def details_sheet(self) -> DetailsSheet:
        from ventrix.ui.book.details_sheet import DetailsSheet

        sheet = DetailsSheet(self.open_book)
        sheet.changed.connect(lambda _job_id: self.refresh_room("book"))
        return self.settle_sheet(sheet)
