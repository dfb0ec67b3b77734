"""Mutated files through every importer: accepted, refused in a sentence of ours, anything else.

``python -m benchmarks.importers [COUNT]``. It also prints a traverse of 1,000 and 10,000 points side by side.
"""

from __future__ import annotations

import json
import random
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from itertools import count
from pathlib import Path
from typing import Any

from ventrix.core.calculators.answer import calculate, registry
from ventrix.core.judging.findings import Findings
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import dumps_job, loads_document
from ventrix.records.files.run_table import RunTable, parse_run_table
from ventrix.records.files.run_table_out import write_run_table
from ventrix.records.files.traverse_table import COLUMNS, FIRST, read_traverses, write_traverses

WORST_FIRST = (
    "9" * 5000, "1e308", "-1e308", "1e-320", "nan", "inf", "-inf", "0", "-0", "-1", "1e20", "99999999999999999999",
    "1/0", "9" * 400 + "/3", "\x00", "\ud800", "\u2028", "\u202e", "\ufeff", "'", '"', "''", "=1+1", "\\n", "\\", "#",
    ",", ";", "\t", "{", "}", "[", "]", "null", "true", "½", "٣", "１２", "1_000", "0x1F", "+", " ", "a" * 25_000,
)  # fmt: skip
FIGURES = ("1", "2", "0.5", "28", "20", "100 cfm", "45", "1/8", "30 mm", "0.2,0.4")
NUMBERS: tuple[Any, ...] = (
    0, -1, 1e308, -1e308, 10**20, 10**400, 1e-320, 0.5, True, None, "", "x", [], {}, [[]], "\ud800", "a\n\r\u2028b",
    "../x", "/dev/zero", "x" * 25_000,
)  # fmt: skip


def mutated_text(text: str, rng: random.Random) -> bytes:
    """A text with one to four spots changed: characters, words, lines, bytes."""
    for _ in range(rng.randint(1, 4)):
        at = rng.randrange(len(text) + 1)
        way = rng.randrange(7)
        if way == 0:
            text = text[:at] + rng.choice(WORST_FIRST) + text[at:]
        elif way == 1:
            text = text[:at] + text[at + rng.randint(1, 30) :]
        elif way == 2:
            lines = text.split("\n")
            lines.insert(rng.randrange(len(lines) + 1), rng.choice(lines))
            text = "\n".join(lines)
        elif way == 3:
            text = text[:at] + chr(rng.choice((rng.randrange(128), rng.randrange(0x11000)))) + text[at + 1 :]
        elif way == 4:
            text = text[:at]
        elif way == 5:
            text = text.replace(rng.choice(text or " "), rng.choice(WORST_FIRST), rng.randint(1, 3))
        else:
            words = text.replace(",", " , ").split(" ")
            words[rng.randrange(len(words))] = rng.choice(WORST_FIRST)
            text = " ".join(words).replace(" , ", ",")
    data = text.encode("utf-8", errors="surrogatepass")
    if rng.random() < 0.1 and data:
        at = rng.randrange(len(data))
        data = data[:at] + bytes([rng.randrange(256)]) + data[at + 1 :]
    return data


def mutated_tree(text: str, rng: random.Random) -> bytes:
    """A JSON document with one to three places changed, or as text."""
    if rng.random() < 0.3:
        return mutated_text(text, rng)
    tree = json.loads(text)
    for _ in range(rng.randint(1, 3)):
        at: Any = tree
        while True:
            keys = list(at) if isinstance(at, dict) else list(range(len(at)))
            if not keys:
                break
            key = rng.choice(keys)
            if isinstance(at[key], dict | list) and at[key] and rng.random() < 0.85:
                at = at[key]
                continue
            way = rng.randrange(4)
            if way == 0:
                del at[key]
            elif way == 1 and isinstance(at, list):
                at.append(json.loads(json.dumps(at[key])))
            elif isinstance(at[key], int | float) and abs(at[key]) < 10**300 and way == 2:
                at[key] = at[key] * rng.choice((-1, 0, 10, 1e3, 1e-3, 1e300))
            else:
                at[key] = rng.choice(NUMBERS)
            break
    return json.dumps(tree).encode("utf-8", errors="surrogatepass")


def small_document() -> str:
    """The demo's intake as a document, cut down so that a hundred thousand can be read."""
    whole = json.loads(dumps_job(demo_job(), demo_benches()))
    whole["ports"] = whole["ports"][:1]
    whole["ports"][0]["cuts"] = whole["ports"][0]["cuts"][1:3]
    for cut in whole["ports"][0]["cuts"]:
        for run in cut["runs"]:
            run["readings"] = run["readings"][:6]
    return json.dumps(whole)


def run_table() -> str:
    job = demo_job()
    port = job.ports[0]
    run = port.cuts[1].runs[0]
    reduced = Findings(job).runs_of(port.cuts[1], port)[0]
    return write_run_table(RunTable(run, job.setup(run.setup_id), reduced.geometry, "1"))


def importers(folder: Path) -> dict[str, Callable[[random.Random], object]]:
    """Every way in, each fed one mutation."""
    numbers = count()
    document, table = small_document(), run_table()
    air = write_traverses(demo_job().ports[0].cuts[2])
    calculators = list(registry().values())

    def traverse(rng: random.Random) -> object:
        path = folder / "air.csv"
        path.write_bytes(mutated_text(air, rng))
        return read_traverses(path, lambda: str(next(numbers)))

    def reduce_table(rng: random.Random) -> object:
        return parse_run_table(mutated_text(table, rng), "t.csv").reduce()

    def calc(rng: random.Random) -> object:
        one = rng.choice(calculators)
        given = {i.name: rng.choice(WORST_FIRST if rng.random() < 0.2 else FIGURES) for i in one.inputs}
        return calculate(one.id, given)

    return {
        "job document": lambda rng: loads_document(mutated_tree(document, rng), "job.json"),
        "run table, reduced": reduce_table,
        "traverse table": traverse,
        "quantity": lambda rng: parse_quantity(
            rng.choice(("1", "2.5", "3/8", "")) + rng.choice(WORST_FIRST), rng.choice(("mm", "cfm", "in", "%"))
        ),
        "calculator": calc,
    }


def fuzz(times: int, seed: int = 1) -> dict[str, Counter[str]]:
    """How each importer took its mutations; an exception that is no sentence of ours is counted by its name."""
    rng = random.Random(seed)
    found: dict[str, Counter[str]] = {}
    with tempfile.TemporaryDirectory() as folder:
        ways = importers(Path(folder))
        share = {"job document": 0.2, "run table, reduced": 0.3, "traverse table": 0.2}
        for name, way in ways.items():
            tally = found.setdefault(name, Counter())
            for _ in range(int(times * share.get(name, 0.15))):
                try:
                    way(rng)
                    tally["accepted"] += 1
                except Refused as error:
                    tally["refused" if _one_line(str(error)) else f"not one line: {str(error)[:100]!r}"] += 1
                except Exception as error:
                    tally[f"{type(error).__name__}: {error}"[:120]] += 1
    return found


def _one_line(said: str) -> bool:
    return "\n" not in said and len(said) < 500


def seconds_of_traverse(points: int, folder: Path) -> float:
    path = folder / f"{points}.csv"
    row = "pinch,pitot,grid,12.7,straight,,1,,,p{},0,0,4000,,,,"
    path.write_text("\n".join([FIRST, ",".join(COLUMNS), *(row.format(i) for i in range(points))]), encoding="utf-8")
    numbers = count()
    started = time.perf_counter()
    read_traverses(path, lambda: str(next(numbers)))
    return time.perf_counter() - started


if __name__ == "__main__":
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 else 100_000
    total: Counter[str] = Counter()
    for name, tally in fuzz(wanted).items():
        total += tally
        other = sum(n for what, n in tally.items() if what not in ("accepted", "refused"))
        print(f"{name:20} accepted {tally['accepted']:6}, refused {tally['refused']:6}, anything else {other}")
        for what, n in tally.items():
            if what not in ("accepted", "refused"):
                print(f"    {n:5}  {what}")
    other = sum(n for what, n in total.items() if what not in ("accepted", "refused"))
    print(f"{'all':20} accepted {total['accepted']:6}, refused {total['refused']:6}, anything else {other}")
    with tempfile.TemporaryDirectory() as made:
        small = min(seconds_of_traverse(1_000, Path(made)) for _ in range(5))
        large = min(seconds_of_traverse(10_000, Path(made)) for _ in range(3))
    print(f"a traverse of 10,000 points takes {large / small:.1f} times one of 1,000 ({large:.2f} s, {small:.2f} s)")
