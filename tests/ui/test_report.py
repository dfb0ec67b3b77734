"""A report tells the fault and nobody's name: no folder, no customer, in the log or in the job."""

from __future__ import annotations

import json
import zipfile
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtWidgets import QFileDialog, QMessageBox

from tests.ui.stand_in import Open
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.report_pack import save_report, without_traces
from ventrix.ui.window import report

HOME = "/home/wilma"


@pytest.mark.parametrize(
    ("text", "left"),
    [
        (f'File "{HOME}/src/x.py", line 3', 'File "…/x.py", line 3'),
        ('File "/opt/ventrix/lib/ventrix/ui/plan/room.py", line 8', 'File "…/room.py", line 8'),
        ('"/srv/My heads/for Anna/head.json" is gone', '"…/head.json" is gone'),
        ("cannot read /mnt/usb/book.sqlite: gone", "cannot read …/book.sqlite: gone"),
        (f"in {HOME} and {HOME}/a.json", "in ~ and …/a.json"),
        ("the head of Anna Ottermann, ANNA OTTERMANN", "the head of a customer, a customer"),
        ("intake/exhaust 0.85, 3/8 in, m3/s", "intake/exhaust 0.85, 3/8 in, m3/s"),
    ],
)
def test_folders_and_customers_are_taken_out_and_nothing_else(text: str, left: str) -> None:
    assert without_traces(text, ["Anna Ottermann", "", "Al"], HOME) == left


@pytest.mark.parametrize("name", ["Bo Ketterick", 'Bo "Fast" Ketterick', "Jürgen Öttl", "a\\b heads"])
def test_the_job_goes_along_without_its_customer(tmp_path: Path, name: str) -> None:
    log = tmp_path / "ventrix.log"
    log.write_text(f'Traceback: File "{tmp_path}/a.py" for {name}\n', encoding="utf-8")
    job = replace(demo_job(), customer=name, note=f"for {name}, by Friday", title=f"22H of {name}")
    save_report(tmp_path / "r.zip", "Ventrix 0.9", log, [name], job, demo_benches())
    with zipfile.ZipFile(tmp_path / "r.zip") as archive:
        texts = {file: archive.read(file).decode() for file in archive.namelist()}
    assert sorted(texts) == ["about.txt", "job.json", "log.txt"]
    assert name not in texts["log.txt"] and str(tmp_path) not in texts["log.txt"]
    told = json.loads(texts["job.json"])  # and is a job still
    assert (told["note"], told["title"]) == ("for a customer, by Friday", "22H of a customer")
    assert name not in str(told)


@pytest.mark.parametrize(("answer", "goes"), [("Yes", True), ("No", False), ("Cancel", None)])
def test_it_is_asked_whether_the_job_goes_along(  # type: ignore[no-untyped-def]
    open_window: Open, tmp_path: Path, monkeypatch, answer: str, goes: bool | None
) -> None:
    window, path = open_window(), tmp_path / "report.zip"
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: QMessageBox.StandardButton[answer])
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a: (str(path), ""))
    window.run_command("report.save")
    assert path.exists() == (goes is not None)
    if goes is not None:
        with zipfile.ZipFile(path) as archive:
            assert ("job.json" in archive.namelist()) == goes
        assert "look through it" in window.foot.said.text()
    assert "Customer names" in report.ASKED
