"""Backups: dated, thinned out, checked, put back; and what a person types for them."""

from __future__ import annotations

import sqlite3
from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path

import pytest

from ventrix.cli.main import main
from ventrix.demo.job import demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.backups import DAILY, Backup, back_up, backups_of, check, folder_of, restore, superfluous
from ventrix.records.book.book import Book

DAY = date(2026, 5, 2)


@pytest.fixture
def path(tmp_path: Path) -> Path:
    found = tmp_path / "book.sqlite"
    with Book.open(found) as book:
        book.add_job(demo_job())
    return found


def title(path: Path) -> str:
    with Book.open(path) as book:
        return book.load(demo_job().id).title


def rename(path: Path, words: str) -> None:
    with Book.open(path) as book:
        job = book.load(demo_job().id, follow=True)
        book.write((job, replace(job, title=words)))


def test_a_day_has_one_copy_and_it_holds_everything(path: Path) -> None:
    made = back_up(path, DAY)
    assert made is not None and made.day == "2026-05-02" and check(made.path) == []
    assert back_up(path, DAY) is None, "once a day is enough"
    rename(path, "later")
    assert back_up(path, DAY, again=True) is not None
    assert title(made.path) == "later" and [b.day for b in backups_of(path)] == ["2026-05-02"]


def test_rows_still_in_the_log_are_in_the_copy(path: Path) -> None:
    with Book.open(path) as book:
        job = book.load(demo_job().id, follow=True)
        book.write((job, replace(job, title="in the log")))
        made = back_up(path, DAY)
    assert made is not None and title(made.path) == "in the log"


def test_a_fortnight_is_kept_and_then_one_a_month() -> None:
    days = [date(2026, 1, 10) + timedelta(days=i) for i in range(120)]
    kept: list[Backup] = []
    for day in days:
        kept.append(Backup(day.isoformat(), Path(day.isoformat()), 1))
        gone = superfluous(kept)
        kept = [b for b in kept if b not in gone]
    newest = [d.isoformat() for d in days[-DAILY:]]
    assert [b.day for b in kept if b.day in newest] == newest
    assert [b.day for b in kept if b.day not in newest] == ["2026-01-10", "2026-02-01", "2026-03-01", "2026-04-01"]


def test_a_copy_is_put_back_and_what_it_replaces_is_kept(path: Path) -> None:
    was = title(path)
    back_up(path, DAY)
    rename(path, "spoilt")
    kept = restore(path, "2026-05-02", date(2026, 5, 3))
    assert title(path) == was and title(kept) == "spoilt"
    assert restore(path, "2026-05-02", date(2026, 5, 3)) != kept, "nothing is written over"
    assert [b.day for b in backups_of(path)] == ["2026-05-02"], "what was replaced is no backup of a day"


def test_a_damaged_copy_is_never_put_back(path: Path) -> None:
    made = back_up(path, DAY)
    assert made is not None
    made.path.write_bytes(b"SQLite format 3\0" + b"x" * 5000)
    before = path.read_bytes()
    with pytest.raises(InputError, match="damaged"):
        restore(path, "2026-05-02", DAY)
    assert path.read_bytes() == before
    with pytest.raises(InputError, match="there are 2026-05-02"):
        restore(path, "1999-01-01", DAY)


def test_a_book_that_is_not_whole_is_said(path: Path, tmp_path: Path) -> None:
    assert check(path) == []
    raw = sqlite3.connect(path)
    raw.execute("DELETE FROM flow_run")  # readings hang from nothing now: foreign keys are off here
    raw.commit()
    raw.close()
    assert any("reading, row " in s and ": the flow run that it belongs to is not there" in s for s in check(path))
    assert check(tmp_path / "nowhere.sqlite") == ["there is no such file"]
    (tmp_path / "text.sqlite").write_text("hello " * 500, encoding="utf-8")
    assert check(tmp_path / "text.sqlite") == ["the book's file is damaged"]
    sqlite3.connect(tmp_path / "other.sqlite").close()
    assert check(tmp_path / "other.sqlite") == ["it is not a Ventrix book"]


def test_a_folder_in_the_way_leaves_no_half_a_copy(path: Path) -> None:
    folder_of(path).write_text("in the way", encoding="utf-8")
    with pytest.raises(InputError, match="could not be backed up"):
        back_up(path, DAY)
    assert check(path) == []


def ask(capsys: pytest.CaptureFixture[str], *args: str) -> tuple[int, str, str]:
    with pytest.raises(SystemExit) as left:
        main(["book", *args])
    out, err = capsys.readouterr()
    return int(left.value.code or 0), out, err


def test_by_command(path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    own = ("--book", str(path))
    assert ask(capsys, "check", *own)[1].strip().endswith("whole")
    code, out, _ = ask(capsys, "backup", *own)
    today = date.today().isoformat()
    assert code == 0 and today in out
    assert today in ask(capsys, "list", *own)[1]
    rename(path, "spoilt")
    assert ask(capsys, "restore", today, *own)[0] == 0
    assert title(path) == demo_job().title


@pytest.mark.parametrize(
    ("args", "said"),
    [(("burn",), "not one of check"), (("restore",), "name the day"), (("restore", "yesterday"), "there is no backup")],
)
def test_wrong_words_are_refused_in_a_line(
    path: Path, capsys: pytest.CaptureFixture[str], args: tuple[str, ...], said: str
) -> None:
    code, out, err = ask(capsys, *args, "--book", str(path))
    assert code == 2 and out == "" and err.count("\n") == 1 and said in err
