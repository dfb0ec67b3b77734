"""Help, Save a report: what somebody needs who is to find a fault."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from ventrix.records.bad_input import BookError, InputError, sentence_of
from ventrix.ui.log_file import log_path
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

ASKED = tr("Put the open job in too? Customer names and folders are taken out of it, as they are out of the log.")


def choose_report(over: QWidget, open_book: OpenBook) -> None:
    """Ask whether the job is wanted and where it goes, and write it."""
    from ventrix.records.about import version_words
    from ventrix.records.book.index import Index
    from ventrix.records.report_pack import save_report

    space, job = open_book.workspace, None
    if space is not None:
        buttons = QMessageBox.StandardButton
        said = QMessageBox.question(over, tr("Save a report"), ASKED, buttons.Yes | buttons.No | buttons.Cancel)
        if said == buttons.Cancel:
            return
        job = space.job if said == buttons.Yes else None
    name, _ = QFileDialog.getSaveFileName(
        over, tr("Save a report"), f"ventrix-report-{date.today().isoformat()}.zip", tr("Archives (*.zip)")
    )
    if not name:
        return
    try:
        names = [entry.customer for entry in Index(open_book.book).find()]
        save_report(Path(name), version_words(), log_path(), names, job, () if space is None else space.benches)
    except (BookError, InputError) as error:
        open_book.say(sentence_of(error))
        return
    open_book.say(tr("Report written to {}: look through it before you send it.", Path(name).name))
