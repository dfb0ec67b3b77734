"""Commands about the shop's book: its backups, and documents into it and out of it."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import app
from ventrix.records.bad_input import InputError


@app.command()
def book(
    act: Annotated[str, typer.Argument(metavar="check|backup|restore|list")],
    day: Annotated[str | None, typer.Argument(metavar="DAY", help="To restore: 2026-05-02, as `list` has it.")] = None,
    file: Annotated[Path | None, typer.Option("--book", metavar="FILE", help="Not the user's own book.")] = None,
) -> None:
    """Look after the shop's book: is it whole, copy it, put a copy back."""
    from datetime import date

    from ventrix.records.book import backups
    from ventrix.records.book.book import default_book_path

    path = file or default_book_path()
    if act == "list":
        for each in backups.backups_of(path):
            print(f"{each.day}  {each.size / 1024:,.0f} kB  {each.path}")
    elif act == "check":
        wrong = backups.check(path)
        if wrong:
            raise InputError("; ".join(wrong[:5]), file=str(path))
        print(f"{path}: whole")
    elif act == "backup":
        made = backups.back_up(path, date.today(), again=True)
        print(f"copied to {made.path if made is not None else path}")
    elif act == "restore":
        if day is None:
            raise InputError("name the day, as `ventrix book list` has it", field="DAY")
        kept = backups.restore(path, day, date.today())
        print(f"{path} is as on {day}; what it was lies at {kept}")
    else:
        raise InputError(f"'{act[:20]}' is not one of check, backup, restore, list", field="book")


@app.command("import")
def import_(files: Annotated[list[Path], typer.Argument(metavar="JOB.json…")]) -> None:
    """Bring job documents into the book."""
    from ventrix.records.book.book import Book, default_book_path
    from ventrix.records.files.job_document import read_document

    documents = [(path, read_document(path)) for path in files]  # all are read before one is written
    with Book.open(default_book_path()) as book:
        for path, (job, benches) in documents:
            known = book.add_job(job, path.name, benches)
            kept = f"; the book's own {', '.join(known)} was kept" if known else ""
            print(f"{path.name}: '{job.title}' is in the book{kept}")


@app.command()
def export(
    job: Annotated[str, typer.Argument(help="Title or id of the job.")],
    file: Annotated[Path, typer.Argument(metavar="JOB.json")],
) -> None:
    """Write a job of the book as a job document."""
    from ventrix.records.book.book import Book, default_book_path
    from ventrix.records.files.job_document import write_job

    with Book.open(default_book_path()) as book:
        found = [e for e in book.jobs() if job in (e.id, e.title)]
        if len(found) != 1:
            known = ", ".join(f"'{e.title}'" for e in book.jobs()) or "none"
            said = f"there is no job '{job}'" if not found else f"{len(found)} jobs are called '{job}': name its id"
            raise InputError(f"{said}; the book has {known}", field="JOB")
        write_job(book.load(found[0].id), file, book.benches())
    print(f"'{found[0].title}' written to {file}")
