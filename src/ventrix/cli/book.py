"""Commands about the shop's book: its backups, and documents into it and out of it."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import app
from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def book(
    act: Annotated[str, typer.Argument(metavar="check|backup|restore|list")],
    day: Annotated[str | None, typer.Argument(metavar="DAY", help="To restore: 2026-05-02, as `list` has it.")] = None,
    file: Annotated[str | None, typer.Option("--book", metavar="FILE", help="Not the user's own book.")] = None,
) -> None:
    """Look after the shop's book: is it whole, copy it, put a copy back."""
    from datetime import date

    from ventrix.records.book import backups
    from ventrix.records.book.postgres import backup_words, read_url, shown
    from ventrix.records.book.store import as_location, default_book_path

    path = as_location(file or default_book_path())
    if isinstance(path, str):
        raise InputError(backup_words(shown(read_url(path))), field="--book")
    if act == "list":
        for each in backups.backups_of(path):
            print(f"{each.day}  {each.size / 1024:,.0f} kB  {each.path}")
    elif act == "check":
        wrong = backups.check(path)
        if wrong:
            raise InputError("; ".join(wrong[:5]), file=str(path))
        print(tr("{}: whole", path))
    elif act == "backup":
        made = backups.back_up(path, date.today(), again=True)
        print(tr("copied to {}", made.path if made is not None else path))
    elif act == "restore":
        if day is None:
            raise InputError(tr("name the day, as `ventrix book list` has it"), field="DAY")
        kept = backups.restore(path, day, date.today())
        print(tr("{} is as on {}; what it was lies at {}", path, day, kept))
    else:
        raise InputError(tr("'{}' is not one of check, backup, restore, list", act[:20]), field="book")


BookOption = Annotated[str | None, typer.Option("--book", metavar="FILE|URL", help=tr("Not the user's own book."))]


@app.command("import")
def import_(
    files: Annotated[list[Path], typer.Argument(metavar="JOB.json|JOB.zip|FOLDER…")],
    where: BookOption = None,
    copy: Annotated[bool, typer.Option("--copy", help="Beside a job of that id, as a copy.")] = False,
) -> None:
    """Bring jobs into the book: documents, archives, folders."""
    from ventrix.records.book.book import Book
    from ventrix.records.book.store import as_location, default_book_path
    from ventrix.records.files.job_document import read_document
    from ventrix.records.files.job_folder import Packed, keep_photos, read_packed
    from ventrix.records.files.new_ids import renewed

    def read(path: Path) -> Packed:
        packed = path.is_dir() or path.suffix.lower() == ".zip"
        return read_packed(path) if packed else Packed(read_document(path), {})

    found = [(path, read(path)) for path in files]  # all are read before one is written
    with Book.open(as_location(where or default_book_path())) as book:
        for path, packed in found:
            job, benches = packed.document
            keep_photos(book.photo_folder, packed.photos)
            known = book.add_job(renewed(job) if copy else job, path.name, benches)
            kept = tr("; the book's own {} was kept", ", ".join(known)) if known else ""
            print(tr("{}: '{}' is in the book{}", path.name, job.title, kept))


@app.command()
def export(
    job: Annotated[str, typer.Argument(help="Title or id of the job.")],
    file: Annotated[Path, typer.Argument(metavar="JOB.json|JOB.zip|JOB.xlsx|FOLDER")],
    where: BookOption = None,
) -> None:
    """Write a job of the book: as a document, everything in an archive or a new folder, or as a spreadsheet."""
    from ventrix.records.book.book import Book
    from ventrix.records.book.store import as_location, default_book_path
    from ventrix.records.files.job_document import write_job

    with Book.open(as_location(where or default_book_path())) as book:
        found = [e for e in book.jobs() if job in (e.id, e.title)]
        if len(found) != 1:
            known = ", ".join(f"'{e.title}'" for e in book.jobs()) or "none"
            said = (
                tr("there is no job '{}'", job)
                if not found
                else tr("{} jobs are called '{}': name its id", len(found), job)
            )
            raise InputError(tr("{}; the book has {}", said, known), field="JOB")
        whole, benches, photos = book.load(found[0].id), book.benches(), book.photo_folder
    if file.suffix.lower() == ".json":
        write_job(whole, file, benches)
    else:
        _export_more(whole, benches, photos, file)
    print(tr("'{}' written to {}", found[0].title, file))


def _export_more(job: Job, benches: tuple[Bench, ...], photos: Path, file: Path) -> None:
    from datetime import date

    from ventrix.core.judging.findings import Findings
    from ventrix.records.files.job_folder import write_archive, write_folder
    from ventrix.records.files.whole_file import write_whole
    from ventrix.reports.sheet.contents import Choices, Shop
    from ventrix.reports.workbook import job_workbook
    from ventrix.rooms.display_units import US
    from ventrix.rooms.sheet.everything import everything

    findings = Findings(job, benches=benches)
    if file.suffix.lower() == ".xlsx":
        write_whole(file, job_workbook(findings))
        return
    if file.suffix.lower() not in ("", ".zip"):
        raise InputError(tr("must end in .json, .zip or .xlsx, or to be a new folder"), file=file.name)
    files, missing = everything(findings, US, Choices(), Shop(), date.today(), photos)
    if file.suffix.lower() == ".zip":
        write_archive(file, files)
    else:
        write_folder(file, files)
    for name in missing:
        print(tr("photo {} cannot be read and is not in it", name))
