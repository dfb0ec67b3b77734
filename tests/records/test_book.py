"""The book: what goes in comes out, edits are whole or not at all, migrations and models agree."""

from __future__ import annotations

import json
import random
import signal
import sqlite3
import subprocess
import sys
import time
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import create_engine

from tests.records.test_document_and_table import full_job
from ventrix.core.judging.findings import Findings
from ventrix.core.model.run import Reading
from ventrix.core.quantity.units import from_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.book.sqlite_file import HEAD
from ventrix.records.book.tables import METADATA, TABLES
from ventrix.records.migrations.run import configuration, upgrade


@pytest.mark.parametrize("make", [full_job, demo_job])
def test_a_job_comes_out_as_it_went_in(book_at: Path | str, make) -> None:  # type: ignore[no-untyped-def]
    job = make()
    with Book.open(book_at) as book:
        book.add_job(job)
        assert [(e.id, e.title) for e in book.jobs()] == [(job.id, job.title)]
    with Book.open(book_at) as book:
        assert book.load(job.id) == job
        with pytest.raises(KeyError):
            book.load("nobody")
        with pytest.raises(InputError, match="already"):
            book.add_job(job)
        book.remove_job(job.id)
        assert book.jobs() == []


def test_an_edit_writes_only_what_changed(book_at: Path | str) -> None:
    job = demo_job()
    port = job.ports[0]
    moved = replace(job, title="Other", ports=(job.ports[1], replace(port, cuts=port.cuts[:2])))
    with Book.open(book_at) as book:
        book.add_job(job)
        book.write((job, moved))
        assert book.load(job.id) == moved
        book.write((moved, job))
        assert book.load(job.id) == job


def test_numbers_that_are_none_are_never_written(book_at: Path | str) -> None:
    job = demo_job()
    with Book.open(book_at) as book:
        book.add_job(job)
        with pytest.raises(ValueError, match="bore"):
            book.write((job, replace(job, bore=float("nan"))))
        assert book.load(job.id) == job


def test_settings_of_the_file(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    with Book.open(path) as book:
        book.add_job(demo_job())
    raw = sqlite3.connect(path)
    assert raw.execute("PRAGMA journal_mode").fetchone() == ("wal",)
    assert raw.execute("PRAGMA foreign_key_check").fetchall() == []
    raw.close()


def test_models_and_migrations_agree(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    Book.open(path).close()
    engine = create_engine(f"sqlite:///{path}")
    with engine.connect() as connection:
        found = compare_metadata(MigrationContext.configure(connection, opts={"compare_type": True}), METADATA)
    engine.dispose()
    assert found == []
    assert ScriptDirectory.from_config(configuration()).get_current_head() == HEAD


def test_a_new_book_is_what_the_migrations_make(tmp_path: Path) -> None:
    def schema(path: Path) -> list[tuple[str, str]]:
        raw = sqlite3.connect(path)
        rows = raw.execute("SELECT name, sql FROM sqlite_master WHERE sql IS NOT NULL ORDER BY name").fetchall()
        raw.close()
        # a rebuilt table lists its constraints in no fixed order
        return [(name, " ".join(sorted(sql.replace(",", " ").split()))) for name, sql in rows]

    Book.open(tmp_path / "new.sqlite").close()
    engine = create_engine(f"sqlite:///{tmp_path / 'migrated.sqlite'}")
    upgrade(engine)
    engine.dispose()
    assert schema(tmp_path / "new.sqlite") == schema(tmp_path / "migrated.sqlite"), "scripts/write_newest_schema.py"
    with Book.open(tmp_path / "migrated.sqlite") as book:
        book.add_job(demo_job())
        assert book.load(demo_job().id) == demo_job()


def test_a_run_hangs_from_a_cut_or_a_trial_and_a_photo_from_a_job_or_a_cut() -> None:
    hangs = {kind.__name__: {c.name for c in t.columns if c.foreign_keys} for kind, t in TABLES.items()}
    assert hangs["FlowRun"] == {"cut_id", "trial_id", "setup_id", "mount_id"}
    assert hangs["Photo"] == {"job_id", "cut_id"}
    assert hangs["Port"] == {"job_id"}, "a port's valve may come later"


def test_a_newer_book_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    Book.open(path).close()
    raw = sqlite3.connect(path)
    raw.execute("UPDATE alembic_version SET version_num = '9999'")
    raw.commit()
    raw.close()
    with pytest.raises(InputError, match="newer Ventrix"):
        Book.open(path)


def test_what_is_no_book_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    path.write_bytes(b"this is a shopping list, and long enough to be looked at" * 40)
    with pytest.raises(InputError, match="not a book"):
        Book.open(path)


CAPTURE = """
import sys
from itertools import pairwise
from pathlib import Path
from ventrix.core.model.run import Reading, SetUp
from ventrix.records.book.book import Book
from ventrix.workspace.ids import new_id
from ventrix.workspace.workspace import Workspace

book = Book.open(Path(sys.argv[1]))
entries = book.jobs()
space = Workspace.open(book, entries[0].id) if entries else Workspace.create(book, "killed")
setup = SetUp(id="s", direction="intake", test_pressure=7000.0)
while True:
    reading = Reading(id=new_id(), lift=0.001, flow=0.01)
    space.runs.keep(setup, 1, reading, "0.040", "typed")
    print(reading.id, flush=True)
"""


def test_killed_at_any_moment_nothing_confirmed_is_lost(tmp_path: Path) -> None:
    """kill -9 in the middle of captures, again and again: what was confirmed is there."""
    path = tmp_path / "book.sqlite"
    confirmed: set[str] = set()
    dice = random.Random(5)
    for _ in range(5):
        process = subprocess.Popen([sys.executable, "-c", CAPTURE, str(path)], stdout=subprocess.PIPE, text=True)
        assert process.stdout is not None
        confirmed.add(process.stdout.readline().strip())
        time.sleep(dice.uniform(0.0, 0.25))
        process.send_signal(signal.SIGKILL)
        confirmed |= {line.strip() for line in process.stdout if line.endswith("\n")}
        process.wait()
        process.stdout.close()
        with Book.open(path) as book:
            job = book.load(book.jobs()[0].id)
            there: list[Reading] = [r for run in job.runs() for r in run.readings]
            assert confirmed <= {r.id for r in there}
    assert len(confirmed) > 10


def old_book(path: Path, version: str) -> Path:
    """A book as an older Ventrix left it, from its dump."""
    script = (Path(__file__).parent / "books" / f"{version}.sql").read_text(encoding="utf-8")
    raw = sqlite3.connect(path)
    raw.executescript(script)
    raw.close()
    return path


@pytest.mark.parametrize("version", sorted(p.stem for p in (Path(__file__).parent / "books").glob("*.sql")))
def test_old_books_are_brought_up_with_all_that_is_in_them(tmp_path: Path, version: str) -> None:
    path = old_book(tmp_path / "old.sqlite", version)
    with Book.open(path) as book:
        job = book.load(demo_job().id)
        assert [c.name for c in job.ports[0].cuts] == [c.name for c in demo_job().ports[0].cuts]
        now = replace(demo_job(), ports=demo_job().ports[: len(job.ports)])  # the first two, as the demo had then
        old, new = (sum(len(r.readings) for r in j.runs()) for j in (job, now))
        assert old == new
        book.write((job, replace(job, title="still written to")))
    copies = list(tmp_path.glob(f"old-before-{version}-*"))
    assert len(copies) == 1
    kept = sqlite3.connect(copies[0])
    assert kept.execute("SELECT version_num FROM alembic_version").fetchone() == (version,)
    assert kept.execute("SELECT count(*) FROM reading").fetchone()[0] == old
    kept.close()


def test_benches_come_out_as_they_went_in(book_at: Path | str) -> None:
    benches = demo_benches()
    with Book.open(book_at) as book:
        assert book.benches() == ()
        book.write(*((None, bench) for bench in benches))
        assert book.benches() == benches
        book.write((benches[0], replace(benches[0], plates=benches[0].plates[:2], ranges=(0.1, 0.2))))
        assert book.benches()[0].ranges == (0.1, 0.2)
        assert len(book.benches()[0].plates) == 2
        book.write((benches[1], None))
        assert [b.name for b in book.benches()] == ["back-room"]


PINNED = json.loads((Path(__file__).parent / "books" / "verdicts_pinned.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("version", sorted(PINNED))
def test_old_books_are_judged_as_the_ventrix_that_wrote_them_judged(tmp_path: Path, version: str) -> None:
    # What each version's own code said, kind and gain; pinned values, no check of the verdicts themselves. But for
    # the last cut of 0002: a plate was flowed at both of its runs, and the doubt of that check counts since 0012.
    with Book.open(old_book(tmp_path / "old.sqlite", version)) as book:
        job = book.load(demo_job().id)
        findings = Findings(job, benches=book.benches())
    said = []
    for port in job.ports[:2]:
        for before, after in pairwise(port.cuts):
            verdict = findings.verdict(findings.pair(port, before, after))
            assert verdict is not None and verdict.weighted is not None
            said.append([port.name, after.number, verdict.kind, round(from_si(verdict.weighted, "cfm"), 1)])
    assert said == PINNED[version]


def test_the_metal_of_an_old_book_keeps_its_meaning(tmp_path: Path) -> None:
    path = old_book(tmp_path / "old.sqlite", "0004")
    raw = sqlite3.connect(path)
    was = raw.execute("SELECT id, places, depth FROM operation ORDER BY id").fetchall()
    kinds = dict(raw.execute("SELECT id, kind FROM cut").fetchall())
    raw.close()
    assert len(was) > 5
    with Book.open(path) as book:
        job = book.load(demo_job().id)
    cuts = {c.id: c for p in job.ports for c in p.cuts}
    assert {id_: cut.kinds for id_, cut in cuts.items()} == {id_: (kind,) for id_, kind in kinds.items()}
    operations = {o.id: o for c in cuts.values() for o in c.operations}
    for id_, places, depth in was:
        assert [(w.place, w.side, w.depth) for w in operations[id_].works] == [
            (p, None, depth) for p in json.loads(places)
        ]


def test_the_chambers_of_an_old_book_are_poured_once_a_cylinder(tmp_path: Path) -> None:
    path = old_book(tmp_path / "old.sqlite", "0004")
    raw = sqlite3.connect(path)
    raw.execute("UPDATE cut SET chamber_volume = 4.75e-5 WHERE id = 'intake-0'")
    raw.execute("UPDATE cut SET chamber_volume = 4.80e-5 WHERE id = 'exhaust-0'")
    raw.execute("UPDATE cut SET chamber_volume = 4.80e-5 WHERE id = 'exhaust-1'")
    raw.commit()
    raw.close()
    with Book.open(path) as book:
        (chamber,) = book.load(demo_job().id).chambers
    assert chamber.cylinder == 1
    assert [(p.volume, p.how) for p in chamber.pours] == [(4.75e-5, "Intake 1, cut 0"), (4.80e-5, "Exhaust 1, cut 0")]
