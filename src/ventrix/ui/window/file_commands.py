"""Jobs and files: new, open, bring in, write. Errors are sentences at the foot; nothing in hand is lost."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QFileDialog, QWidget

from ventrix.core.edits.runs import start_run
from ventrix.core.edits.traverses import add_traverse
from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.model.run import Mount
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.book.book import JobEntry
from ventrix.records.files.run_table import is_run_table, read_run_table
from ventrix.records.files.run_table_out import write_run_table
from ventrix.records.files.traverse_table import read_traverses, write_traverses
from ventrix.records.files.whole_file import safe_name, write_whole
from ventrix.reports.run_tables import table_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.places import recent_jobs
from ventrix.ui.widgets.command import Command, always
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.ui.window.commands import FILE, has_job
from ventrix.ui.window.registry import Registry
from ventrix.ui.window.sheets import DOUBLE, MATCH
from ventrix.words import tr
from ventrix.workspace.ids import new_id
from ventrix.workspace.shelf import Shelf
from ventrix.workspace.workspace import Workspace

if TYPE_CHECKING:
    pass

JOB_FILES = tr("Jobs (*.json *.zip);;Job documents (*.json);;Archives (*.zip);;All files (*)")
TABLES = (".csv", ".tsv", ".txt", ".xlsx", ".xlsm")
TABLE_FILES = tr("Tables (*.csv *.tsv *.txt *.xlsx *.xlsm);;All files (*)")
MOST_MOUNTS = 99_999
MOST_IN_MENU = 20
RUN_FILES = tr("Run tables (*.csv);;All files (*)")


class Files:
    """What the File menu does."""

    def __init__(self, open_book: OpenBook, parent: QWidget, sheets: Registry[SideSheet]) -> None:
        self._open_book, self._parent, self._sheets = open_book, parent, sheets

    def new_job(self) -> None:
        """A job with one intake port as received; its title is typed in the Head room."""
        count = sum(e.title.startswith(tr("New job")) for e in self._open_book.book.jobs())
        title = tr("New job") if count == 0 else tr("New job {}", count + 1)
        self._open_book.open(Workspace.create(self._open_book.book, title))
        self._open_book.say(tr("New job: name it in the Head room, or start flowing and describe later."))

    def open_demo(self) -> None:
        """The demo head, in the user's own book to look at; open again where it is there already."""
        from ventrix.demo.job import demo_benches, demo_job, keep_demo_scans

        job = demo_job()
        if all(e.id != job.id for e in self._open_book.book.jobs()):
            self._open_book.book.add_job(job, benches=demo_benches())
            keep_demo_scans(self._open_book.book.photo_folder)
        self.open_job(job.id)
        self._open_book.say(tr("The demo head: every figure comes from the simulated bench. Delete it when you like."))

    def bring_in(self, path: Path) -> bool:
        """What was dropped or named, whatever it is: a job document or archive opens, a run table hangs from the cut
        looked at or a new job's, any other table is matched first."""
        kind = path.suffix.lower()
        if path.is_dir() or kind == ".zip":
            return self.bring_in_archive(path)
        if kind in TABLES:
            return self.bring_in_table(path)
        return self.bring_in_job(path)

    def bring_in_table(self, path: Path) -> bool:
        """A run table of ours hangs from a cut; any other table is matched by eye before anything comes in."""
        if not is_run_table(path):
            return self._sheets.of(MATCH).open_file(path)
        if self._open_book.workspace is None:
            self.new_job()
        return self.bring_in_run(path)

    def match_clipboard(self) -> None:
        """What the clipboard holds, matched by eye before anything comes in."""
        self._sheets.of(MATCH).open_text(QGuiApplication.clipboard().text())

    def bring_in_archive(self, path: Path) -> bool:
        """Everything of a job from an archive or folder, with its photos."""
        from ventrix.records.files.job_folder import keep_photos, read_packed

        try:
            packed = read_packed(path)
        except InputError as error:
            self._open_book.say(str(error))
            return False
        job, benches = packed.document
        if self._is_double(job, benches, packed.photos, path.name):
            return True
        try:
            keep_photos(self._open_book.book.photo_folder, packed.photos)
            self._open_book.book.add_job(job, path.name, benches)
        except InputError as error:
            self._open_book.say(str(error))
            return False
        self.open_job(job.id)
        self._open_book.say(tr("'{}' brought in from {}, {} photos with it.", job.title, path.name, len(packed.photos)))
        return True

    def _is_double(self, job: Job, benches: tuple[Bench, ...], photos: Mapping[str, bytes], name: str) -> bool:
        """Whether the job, or one of its name, is in the book: then that one is opened, and what to do is asked."""
        entries = self._open_book.book.jobs()
        own = next((e for e in entries if e.id == job.id), None)
        own = own or next((e for e in entries if e.title.strip().lower() == job.title.strip().lower()), None)
        if own is None:
            return False
        self.open_job(own.id)
        assert self._open_book.workspace is not None
        self._sheets.of(DOUBLE).ask(job, benches, photos, self._open_book.workspace.job, name)
        self._open_book.say(tr("'{}' is in the book already: the book's own is open.", job.title))
        return True

    def open_job(self, job_id: str) -> None:
        self._open_book.open(Workspace.open(self._open_book.book, job_id))

    def by_recent(self) -> list[JobEntry]:
        """Every job of the book, those opened lately first."""
        lately = {job_id: i for i, job_id in enumerate(recent_jobs(self._open_book.settings))}
        return sorted(self._open_book.book.jobs(), key=lambda e: lately.get(e.id, len(lately)))

    def jobs(self) -> tuple[Command, ...]:
        """The jobs opened lately; the Book room has all of them."""
        found = self.by_recent()[:MOST_IN_MENU]
        empty = Command("job.none", tr("the book is empty"), able=lambda: False)
        return tuple(Command(f"job.{e.id}", e.title, partial(self.open_job, e.id)) for e in found) or (empty,)

    def commands(self, begin: Callable[[], object]) -> tuple[Command, ...]:
        """What stands in the File menu of jobs and tables; `begin` asks what a new job is."""
        job = has_job(self._open_book)

        def file(id_: str, words: str, do: Callable[[], object], keys: str = "", **more: Any) -> Command:
            return Command(id_, words, do, keys, FILE, **more)

        def flowed() -> bool:
            space = self._open_book.workspace
            return space is not None and space.cut is not None and bool(space.cut.runs)

        def metal() -> bool:
            space = self._open_book.workspace
            return space is not None and space.real_cut is not None

        def probed() -> bool:
            space = self._open_book.workspace
            return space is not None and space.real_cut is not None and bool(space.real_cut.traverses)

        return (
            file("job.new", tr("&New job…"), begin, "Ctrl+N"),
            file("job.demo", tr("The &demo head"), self.open_demo),
            file("job.open", tr("&Open job"), always, below=self.jobs),
            file("job.import", tr("&Bring in a job…"), self.import_job, "Ctrl+O", line=True),
            file("job.details", tr("C&ustomer, state and due date…"), self.edit_details, able=job),
            file("job.export", tr("&Write job document…"), self.export_job, "Ctrl+Shift+S", able=job),
            file("job.workbook", tr("Write spreads&heet…"), self.export_workbook, able=job),
            file("run.import", tr("Bring in a &table of readings…"), self.import_run, "Ctrl+I", line=True),
            file("run.paste", tr("Bring in the clip&board's table…"), self.match_clipboard),
            file("run.export", tr("Wr&ite run table…"), self.export_run, "Ctrl+E", able=flowed),
            file("air.import", tr("Bring in &air speeds…"), self.import_air, able=metal),
            file("air.export", tr("Write air speeds…"), self.export_air, able=probed),
        )

    def edit_details(self) -> None:
        """Who the open job is for, where it stands and when it is promised."""
        book, space = self._open_book.book, self._open_book.workspace
        if space is not None:
            self._open_book.ways.sheet("details", Shelf(book, lambda: self._open_book.workspace), space.job.id)

    def import_job(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._parent, tr("Bring in a job"), "", JOB_FILES)
        if name:
            self.bring_in(Path(name))

    def bring_in_job(self, path: Path) -> bool:
        """Put a job document into the book and open it."""
        from ventrix.records.files.job_document import read_document

        try:
            job, benches = read_document(path)
            if self._is_double(job, benches, {}, path.name):
                return True
            known = self._open_book.book.add_job(job, path.name, benches)
        except InputError as error:
            self._open_book.say(str(error))
            return False
        self.open_job(job.id)
        kept = tr(" The book's own {} was kept.", ", ".join(known)) if known else ""
        self._open_book.say(tr("'{}' brought in from {}.{}", job.title, path.name, kept))
        return True

    def export_job(self) -> None:
        space = self._open_book.workspace
        if space is None:
            return
        name, _ = QFileDialog.getSaveFileName(
            self._parent, tr("Write job document"), f"{safe_name(space.job.title)}.json", JOB_FILES
        )
        if not name:
            return
        from ventrix.records.files.job_document import write_job

        try:
            write_job(space.job, Path(name), space.benches)
        except InputError as error:
            self._open_book.say(str(error))
        else:
            self._open_book.say(tr("Job written to {}.", Path(name).name))

    def export_workbook(self) -> None:
        space = self._open_book.workspace
        if space is None:
            return
        start = f"{safe_name(space.job.title)}.xlsx"
        name, _ = QFileDialog.getSaveFileName(self._parent, tr("Write spreadsheet"), start, tr("Spreadsheets (*.xlsx)"))
        if name:
            self.write_workbook(Path(name))

    def write_workbook(self, path: Path) -> bool:
        """The open job as a spreadsheet: verdicts, ports, a sheet a run."""
        from ventrix.reports.workbook import job_workbook

        space = self._open_book.workspace
        if space is None:
            return False
        try:
            write_whole(path, job_workbook(space.findings))
        except InputError as error:
            self._open_book.not_kept(sentence_of(error))
            return False
        self._open_book.say(tr("Spreadsheet written to {}.", path.name))
        return True

    def import_run(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._parent, tr("Bring in a table"), "", TABLE_FILES)
        if name:
            self.bring_in_table(Path(name))

    def bring_in_run(self, path: Path) -> bool:
        """Hang the run of a table from the cut looked at."""
        space = self._open_book.workspace
        if space is None or space.cut is None or space.port is None:
            self._open_book.say(tr("Open a job first: a run belongs to a cut."))
            return False
        try:
            table = read_run_table(path)
            table.reduce()
        except InputError as error:
            self._open_book.say(str(error))
            return False
        except Refused as error:
            self._open_book.say(f"{path.name}: {error}")
            return False
        if table.setup.direction != space.port.kind:
            self._open_book.say(
                tr("{} is an {} run, and {} is not.", path.name, table.setup.direction, space.port.name)
            )
            return False
        number = self._mount_number(table.mount)
        mount = next((m for m in space.job.mounts if m.number == number), None) or Mount(
            id=new_id(), number=number, date=table.run.date
        )
        setup = replace(table.setup, id=new_id())
        readings = tuple(replace(r, id=new_id()) for r in table.run.readings)
        run = replace(table.run, id=new_id(), setup_id=setup.id, mount_id=mount.id, readings=readings)
        job = start_run(space.job, space.cut.id, run, setup, mount)
        space.apply(tr("run table {}", path.name), job, tr("{} readings brought in from {}.", len(readings), path.name))
        return True

    def _mount_number(self, named: str | None) -> int:
        """The mount the table names by number, else one more than the last."""
        space = self._open_book.workspace
        assert space is not None
        if named is not None and named.isascii() and named.isdecimal() and 1 <= int(named[:9]) <= MOST_MOUNTS:
            return int(named)
        return max((m.number for m in space.job.mounts), default=0) + 1

    def export_run(self) -> None:
        space = self._open_book.workspace
        if space is None or space.cut is None or space.port is None or not space.cut.runs:
            return
        start = f"{safe_name(space.port.name)} cut {space.cut.number}.csv"
        name, _ = QFileDialog.getSaveFileName(self._parent, tr("Write run table"), start, RUN_FILES)
        if not name:
            return
        try:
            write_whole(Path(name), self.run_table_text())
        except InputError as error:
            self._open_book.say(sentence_of(error))
        else:
            self._open_book.say(tr("Run written to {}.", Path(name).name))

    def run_table_text(self) -> str:
        """The last run of the cut looked at, as a run table."""
        space = self._open_book.workspace
        assert space is not None and space.cut is not None and space.port is not None
        run = space.cut.runs[-1]
        return write_run_table(table_of(space.findings, space.port, space.cut, run, self._open_book.units.lift.unit))

    def import_air(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._parent, tr("Bring in air speeds"), "", RUN_FILES)
        if name:
            self.bring_in_air(Path(name))

    def bring_in_air(self, path: Path) -> bool:
        """Hang the traverses of a table from the cut looked at."""
        space = self._open_book.workspace
        if space is None or space.real_cut is None:
            self._open_book.say(tr("Open a job first: a traverse belongs to a cut."))
            return False
        try:
            found = read_traverses(path, new_id)
        except InputError as error:
            self._open_book.say(str(error))
            return False
        job = space.job
        for traverse in found:
            job = add_traverse(job, space.real_cut.id, traverse)
        space.apply(
            tr("air speeds of {}", path.name), job, tr("{} traverses brought in from {}.", len(found), path.name)
        )
        return True

    def export_air(self) -> None:
        space = self._open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        start = f"{space.port.name} cut {space.real_cut.number} air.csv"
        name, _ = QFileDialog.getSaveFileName(self._parent, tr("Write air speeds"), start, RUN_FILES)
        if not name:
            return
        try:
            write_whole(Path(name), write_traverses(space.real_cut))
        except InputError as error:
            self._open_book.say(sentence_of(error))
        else:
            self._open_book.say(tr("Air speeds written to {}.", Path(name).name))
