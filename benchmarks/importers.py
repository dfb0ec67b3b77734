"""Mutated files through every importer: accepted, refused in a sentence of ours, anything else.

``python -m benchmarks.importers [COUNT [ONLY]]``, as ``50000 mesh``. It also prints a traverse of 1,000 and 10,000
points side by side.
"""

from __future__ import annotations

import copy
import json
import random
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from datetime import date
from itertools import count
from pathlib import Path
from typing import Any, Final

from ventrix.bench.drivers.text_columns import parse_columns
from ventrix.bench.drivers.text_lines import TextFormat
from ventrix.bench.procedure.lift_plan import parse_lifts
from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.scans import ScannedPort, surface
from ventrix.bench.simulator.server import Interpreter
from ventrix.core.calculators.answer import calculate, registry
from ventrix.core.castings.casting_file import casting
from ventrix.core.judging.findings import Findings
from ventrix.core.model.port_names import ports_named
from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import parse_quantity
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index
from ventrix.records.files.casting_document import casting_document, read_casting
from ventrix.records.files.grid import read_grid, text_grid
from ventrix.records.files.job_document import dumps_job, loads_document
from ventrix.records.files.job_folder import read_packed, write_archive
from ventrix.records.files.mesh_files import read_mesh
from ventrix.records.files.outline_files import read_outlines
from ventrix.records.files.pasted_table import parse_pasted
from ventrix.records.files.practice_document import read_practice
from ventrix.records.files.run_table import RunTable, parse_run_table
from ventrix.records.files.run_table_out import write_run_table
from ventrix.records.files.traverse_table import COLUMNS, FIRST, read_traverses, write_traverses
from ventrix.rooms.book.import_steps import begin
from ventrix.rooms.book.question import read_question
from ventrix.rooms.display_units import US
from ventrix.rooms.head.fit_limits import fit_limit_typed
from ventrix.rooms.head.wall_limits import limit_typed
from ventrix.rooms.lineup.typed_faces import typed_spots
from ventrix.workspace.bring_in_table import default_goals

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
                at[key] = copy.deepcopy(rng.choice(NUMBERS))
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


def readers(folder: Path) -> dict[str, Callable[[bytes], object]]:
    """Every way in for bytes from outside, by the name of its folder in the corpus of tests/hostile; a drawing's is
    told by its suffix."""
    numbers = count()
    job = demo_job()
    book = Book.open(folder / "fuzz.sqlite")
    book.add_job(job, benches=demo_benches())
    index = Index(book)
    index.catch_up()
    lines = TextFormat(columns=parse_columns("flow 1 cfm; pressure 2 inH2O; lift 3 mm"))
    scpi = Interpreter(SimulatedBench(lambda: 0.0))

    def by_file(suffix: str, read: Callable[[Path], object]) -> Callable[[bytes], object]:
        def way(data: bytes) -> object:
            path = folder / f"fuzz{suffix}"
            path.write_bytes(data)
            return read(path)

        return way

    def by_text(read: Callable[[str], object], encoding: str = "utf-8") -> Callable[[bytes], object]:
        return lambda data: read(data.decode(encoding, errors="replace"))

    def pasted(text: str) -> object:
        return [parse_pasted(text, "in", "cfm", "inH2O", kind) for kind in (None, "intake", "exhaust")]

    def table_in(data: bytes) -> object:
        match = begin(text_grid(data, "t.csv"), "cfm")
        return match.problem(default_goals(job, job.ports[0], match.read.runs))

    def wire(text: str) -> object:
        return lines.read(text, 0.0), scpi.answer(text)

    return {
        "pasted": by_text(pasted),
        "table": table_in,
        "workbook": by_file(".xlsx", read_grid),
        "svg": by_file(".svg", read_outlines),
        "dxf": by_file(".dxf", read_outlines),
        "mesh": by_file(".stl", read_mesh),
        "casting": by_file(".json", read_casting),
        "practice": by_file(".json", read_practice),
        "archive": by_file(".zip", read_packed),
        "document": lambda data: loads_document(data, "job.json"),
        "run": lambda data: parse_run_table(data, "t.csv").reduce(),
        "traverse": by_file(".csv", lambda path: read_traverses(path, lambda: str(next(numbers)))),
        "search": by_text(lambda text: index.find(read_question(text, US).question)),
        "wire": by_text(wire, "latin-1"),
        **{f"field {n}": by_text(lambda text, read=read: read(text)) for n, read in enumerate(_READERS)},
    }


def importers(folder: Path) -> dict[str, Callable[[random.Random], object]]:
    """Every way in, each fed one mutation of something good, or of the corpus."""
    way = readers(folder)
    document = small_document()
    air = write_traverses(demo_job().ports[0].cuts[2])
    practice = json.dumps({"ventrix_practice": 1, "head": "easy-two-valve", "seed": 7, "acts": [{"act": "flow"}]})
    casting_file = json.dumps(casting_document(casting("x", [Findings(demo_job())]), "a shop", ""))
    calculators = list(registry().values())
    texts = {
        "pasted": (TABLE,), "table": (TABLE,), "svg": (GAUGE,), "dxf": (_drawing(folder),), "run": (run_table(),),
        "traverse": (air,), "search": (FIELDS_TYPED[-3],),
        "wire": ("183.2, 28.01, 11.43", "MEAS:FLOW?;PRES?", "SIM:PROB PINCH,0.1,-0.2"),
    }  # fmt: skip
    trees = {"casting": casting_file, "practice": practice, "document": document}
    blobs = {"workbook": _workbook(folder), "mesh": _mesh(), "archive": _archive(folder, document)}
    hostile = {kind: [data for of, _, data in corpus() if of == kind] for kind in way}

    def one_in_ten(kind: str, good: bytes, rng: random.Random) -> bytes:
        """What is fed: mostly a change of what is good, else of something that once was a surprise."""
        bad = hostile[kind]
        return mutated_bytes(rng.choice(bad), rng) if bad and rng.random() < 0.1 else good

    def field(rng: random.Random) -> object:
        text = mutated_text(rng.choice(FIELDS_TYPED), rng).decode("utf-8", errors="replace").replace("\n", " ")
        return rng.choice(_READERS)(text)

    def calc(rng: random.Random) -> object:
        one = rng.choice(calculators)
        given = {i.name: rng.choice(WORST_FIRST if rng.random() < 0.2 else FIGURES) for i in one.inputs}
        return calculate(one.id, given)

    def fed(kind: str, make: Callable[[random.Random], bytes]) -> Callable[[random.Random], object]:
        return lambda rng: way[kind](one_in_ten(kind, make(rng), rng))

    return {
        **{k: fed(k, lambda rng, of=of: mutated_text(rng.choice(of), rng)) for k, of in texts.items()},
        **{k: fed(k, lambda rng, of=of: mutated_tree(of, rng)) for k, of in trees.items()},
        **{k: fed(k, lambda rng, of=of: mutated_bytes(of, rng)) for k, of in blobs.items()},
        "field": field,
        "quantity": lambda rng: parse_quantity(
            rng.choice(("1", "2.5", "3/8", "")) + rng.choice(WORST_FIRST), rng.choice(("mm", "cfm", "in", "%"))
        ),
        "calculator": calc,
    }


CORPUS: Final = Path(__file__).parents[1] / "tests/hostile/corpus"


def corpus() -> list[tuple[str, str, bytes]]:
    """What once was a surprise, or well might be: way in, name and bytes."""
    found = []
    for path in sorted(CORPUS.glob("*/*")):
        kind = path.suffix[1:] if path.parent.name == "drawing" else path.parent.name
        kinds = [f"field {n}" for n in range(len(_READERS))] if kind == "field" else [kind]
        found += [(kind, path.name, path.read_bytes()) for kind in kinds]
    return found


GAUGE: Final = """<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60">
<path d="M 5,5 L 45,5 A 5 5 0 0 1 50 10 C 50 20 45 35 40 35 Q 20 40 5 35 Z"/><circle cx="65" cy="20" r="9"/>
<g transform="translate(2 3) rotate(10)"><rect x="20" y="42" width="30" height="12" rx="3"/></g></svg>"""
TABLE: Final = "lift in\tintake CFM @ 28\texhaust CFM\tswirl rpm\n" + "\n".join(
    f"{0.05 * i:.3f}\t{31.5 * i:.1f}\t{22.5 * i:.1f}\t{12 * i}" for i in range(1, 11)
)
FIELDS_TYPED: Final = (
    "bowl, guide, short side", "4-8", "floor", "0.02", "exhaust bowl to water 0.125; 0.110", "guide 0.001-0.003",
    "0.05 0.1 0.2-0.5 x 0.05", "2026-12-04", "fri", "4 dec", "in 5 days", "Intake 2, i3; all exhausts",
    "flow 1 cfm; pressure 2 inH2O x 1.02 + 0.5", "section 1.7 throat 1.65 190 at 0.450 cc 150-170 a name",
    "A -100 20; B 100 20", "Intake 1 -82.5 0; Intake 2 -27.5 0",
)  # fmt: skip


_READERS: Final[tuple[Callable[[str], object], ...]] = (
    lambda text: limit_typed(text, "in", "x"),
    lambda text: fit_limit_typed(text, "in", "x"),
    lambda text: parse_lifts(text, "in"),
    lambda text: read_day(text, date(2026, 12, 1)),
    lambda text: ports_named(demo_job().ports, text),
    parse_columns,
    lambda text: typed_spots(text, "mm"),
    lambda text: read_small(text, "in"),
)


def mutated_bytes(data: bytes, rng: random.Random) -> bytes:
    """Bytes with one to six spots changed, cut off, or doubled."""
    made = bytearray(data)
    for _ in range(rng.randint(1, 6)):
        at = rng.randrange(len(made) or 1)
        way = rng.randrange(5)
        if way == 0:
            made[at : at + 1] = bytes([rng.randrange(256)])
        elif way == 1:
            del made[at : at + rng.randint(1, 60)]
        elif way == 2:
            made[at:at] = made[at : at + rng.randint(1, 60)]
        elif way == 3:
            made[at : at + 4] = rng.choice((b"\xff\xff\xff\xff", b"\0\0\0\0", b"\0\0\x80\x7f"))
        elif rng.random() < 0.2:
            del made[at:]
    return bytes(made)


def _drawing(folder: Path) -> str:
    import ezdxf

    made = ezdxf.new(units=4)
    space = made.modelspace()
    space.add_circle((0, 10), 15)
    space.add_lwpolyline([(36, 0, 0), (64, 0, 0.4), (70, 34, 0), (36, 40, 0.2)], format="xyb", close=True)
    made.saveas(folder / "base.dxf")
    return (folder / "base.dxf").read_text(encoding="utf-8")


def _workbook(folder: Path) -> bytes:
    from openpyxl import Workbook

    book = Workbook()
    for row in TABLE.split("\n"):
        book.active.append(row.split("\t"))  # type: ignore[union-attr]
    book.save(folder / "base.xlsx")
    return (folder / "base.xlsx").read_bytes()


def _mesh() -> bytes:
    """A coarse port as binary STL."""
    import struct

    points, faces = surface(ScannedPort(), 14, 12)
    body = b"".join(struct.pack("<12fH", 0, 0, 0, *points[f].ravel(), 0) for f in faces)
    return b"\0" * 80 + struct.pack("<I", len(faces)) + body


def _archive(folder: Path, document: str) -> bytes:
    write_archive(folder / "base.zip", {"job.json": document.encode()})
    return (folder / "base.zip").read_bytes()


def fuzz(times: int, seed: int = 1, only: str = "") -> dict[str, Counter[str]]:
    """How each importer took its mutations; an exception that is no sentence of ours is counted by its name."""
    rng = random.Random(seed)
    found: dict[str, Counter[str]] = {}
    with tempfile.TemporaryDirectory() as folder:
        ways = importers(Path(folder))
        share = {"document": 0.1, "run": 0.14, "traverse": 0.08, "field": 0.1}
        for name, way in ways.items():
            if only and name != only:
                continue
            tally = found.setdefault(name, Counter())
            for _ in range(times if only else int(times * share.get(name, 0.05))):
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
    row = "pinch,pitot,grid,12.7,straight,,1,,,,p{},0,0,4000,,,,"
    path.write_text("\n".join([FIRST, ",".join(COLUMNS), *(row.format(i) for i in range(points))]), encoding="utf-8")
    numbers = count()
    started = time.perf_counter()
    read_traverses(path, lambda: str(next(numbers)))
    return time.perf_counter() - started


if __name__ == "__main__":
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 else 100_000
    total: Counter[str] = Counter()
    for name, tally in fuzz(wanted, only=" ".join(sys.argv[2:])).items():
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
