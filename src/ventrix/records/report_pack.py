"""What goes along when a fault is reported: version, log, and the job where it is wanted; no folder and no customer."""

from __future__ import annotations

import json
import re
from collections.abc import Iterable
from dataclasses import replace
from pathlib import Path
from typing import Final

from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.records.files.job_document import dumps_job
from ventrix.records.files.job_folder import write_archive
from ventrix.words import tr

MOST_LOG: Final = 500_000  # characters, the newest
SHORTEST: Final = 3  # characters of a name that is looked for: shorter ones stand in half of all words
_QUOTED: Final = re.compile(r"([\"'])(?:/[^\"'\n/]+)*/([^\"'\n/]*)\1")
_BARE: Final = re.compile(r"(?<![\w.~…])(?:/[^\s\"':,;()/]+)+/([^\s\"':,;()/]*)")


def without_traces(text: str, names: Iterable[str], home: str) -> str:
    """A text in which no folder and no customer stands: of a path its last part is left."""
    if len(home) > 1:
        text = text.replace(f"{home}/", "/x/").replace(home, "~")  # whose home it is stands in its own name
    text = _QUOTED.sub(r"\1…/\2\1", text)
    text = _BARE.sub(r"…/\1", text)
    known = {n.strip() for n in names}
    known |= {json.dumps(n, ensure_ascii=False)[1:-1] for n in known}  # as a job document writes quotes and the like
    for name in sorted(known, key=len, reverse=True):
        if len(name) >= SHORTEST:
            text = re.sub(re.escape(name), "a customer", text, flags=re.IGNORECASE)
    return text


def save_report(
    to: Path, about: str, log: Path, names: Iterable[str], job: Job | None = None, benches: tuple[Bench, ...] = ()
) -> None:
    """Write a report as one zip, whole or not at all.

    Parameters
    ----------
    to : Path
        The zip.
    about : str
        What is installed.
    log : Path
        Where the log lies; none is none.
    names : iterable of str
        Customers of the book.
    job : Job, optional
        Put in where it is wanted, with the benches that it names.

    Raises
    ------
    InputError
        It cannot be written.
    """
    names, home = list(names), str(Path.home())
    try:
        said = log.read_text(encoding="utf-8", errors="replace")[-MOST_LOG:]
    except OSError:
        said = tr("Nothing was logged.\n")
    files = {"about.txt": f"{about}\n", "log.txt": without_traces(said, names, home)}
    if job is not None:
        text = dumps_job(replace(job, customer=""), benches)
        files["job.json"] = without_traces(text, [*names, job.customer], home)
    write_archive(to, {name: text.encode("utf-8", errors="replace") for name, text in files.items()})
