"""A whole eight-port head from the parcel to the wash, in the real window: hours used are all operations, once."""

from __future__ import annotations

from pathlib import Path

import pytest
from PySide6.QtWidgets import QLabel

from tests.cli.test_cli import ask
from tests.core.test_work import street_head
from tests.ui.stand_in import Open
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import from_si
from ventrix.core.work.record import WorkState, record_of
from ventrix.records.files.job_document import read_document, write_job
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

# What the porter types: at which port, where, minutes for all of it, and onto which others. The minutes are the test's.
PASSES = (
    ("Intake 1", "bowl", 24, ""),
    ("Intake 1", "short side, guide", 31, ""),
    ("Intake 2", "bowl, short side, guide", 117, "Intake 3, Intake 4"),
    ("Exhaust 1", "bowl, guide", 28, ""),
    ("Exhaust 2", "bowl, guide, short side", 66, "Exhaust 3, Exhaust 4"),
    ("Exhaust 1", "short side", 12, ""),
)
# Marked on the board: the stage, at which port, minutes, and onto which others.
MARKED = (
    ("clean", "Intake 1", 45, ""),
    ("scribe", "Intake 1", 40, "all"),
    ("casting lines", "Intake 1", 56, "all"),
    ("walls and roof", "Intake 1", 88, "all intakes"),
    ("walls and roof", "Exhaust 1", 60, "all exhausts"),
    ("finish", "Intake 1", 96, "all"),
    ("deburr", "Intake 1", 20, ""),
    ("wash", "Intake 1", 25, ""),
)


@pytest.fixture
def head(open_window: Open) -> tuple[MainWindow, Workspace]:
    window = open_window(demo=False)
    window.open_book.book.add_job(street_head())
    window.files.open_job(street_head().id)
    space = window.open_book.workspace
    assert space is not None
    return window, space


def look_at(space: Workspace, port: str) -> None:
    space.look_at(next(p for p in space.job.ports if p.name == port).cuts[-1].id)


def typed(field, text: str) -> None:  # type: ignore[no-untyped-def]
    field.setText(text)
    field.setModified(True)


def test_a_head_is_played_through(head: tuple[MainWindow, Workspace], capsys, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window, space = head
    for port, places, minutes, others in PASSES:
        look_at(space, port)
        window.open_sheet("cut")
        sheet = window.sheets["cut"]
        sheet.name.setText(places)
        sheet.places.setText(places)
        typed(sheet.minutes.box, str(minutes))
        sheet.others.setText(others)
        sheet.log()
        assert not sheet.problem.text(), sheet.problem.text()
    for stage, port, minutes, others in MARKED:
        look_at(space, port)
        sheet = window.sheets["stage"]
        sheet.open(stage, others)
        typed(sheet.minutes.box, str(minutes))
        sheet.try_taking()
        assert not sheet.problem.text(), sheet.problem.text()
    window.put_sheet_away()
    job: Job = window.open_book.book.load(space.job.id)
    record = record_of(space.findings)
    logged = sum(m for _, _, m, _ in PASSES) + sum(m for _, _, m, _ in MARKED)
    assert from_si(record.used, "min") == pytest.approx(logged)
    assert from_si(sum(op.duration or 0.0 for p in job.ports for c in p.cuts for op in c.operations), "min") == (
        pytest.approx(logged)
    ), "on disk"
    for port in job.ports:
        for stage in ("ridge", "short side", "guide", "scribe", "walls and roof", "finish"):
            assert record.at(stage, port).state is WorkState.DONE, (stage, port.name)
        assert record.at("faults", port).state is not WorkState.DONE, "nobody looked"
    window.go_to_named("match")
    labels = [label.text() for label in window.rooms["match"].findChildren(QLabel)]
    assert f"{logged / 60:.1f} h" in labels
    write_job(job, tmp_path / "job.json")
    assert read_document(tmp_path / "job.json")[0] == job
    code, out, _ = ask(capsys, "work", tmp_path / "job.json")
    assert code == 0 and f"Hours: {logged / 60:.1f} used" in out
