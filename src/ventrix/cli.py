"""The command line. Names, options and JSON keys are a contract: see docs/manual/command-line.md.

Exit 0 done; 2 bad input, with one line on standard error; never a traceback.
"""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path
from typing import Annotated, Any

import typer

from ventrix.core.calculators.answer import calculate, registry, split_pairs
from ventrix.core.model.kinds import CUT_KINDS, CutKind
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.bad_input import BookError, InputError

app = typer.Typer(
    add_completion=False,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
    help="Ventrix: flow bench, port and cut records and judgement for people who port cylinder heads. "
    "Without a command it opens the window: ventrix [--demo] [FILE].",
)
JsonOption = Annotated[bool, typer.Option("--json", help="Print JSON.")]


def _cut_kinds(words: list[str]) -> frozenset[CutKind]:
    unknown = next((w for w in words if w not in CUT_KINDS), None)
    if unknown is not None:
        raise InputError(f"'{unknown[:40]}' is not one of {', '.join(CUT_KINDS)}", field="--change")
    return frozenset(CutKind(w) for w in words)


def _print_json(document: Any) -> None:
    print(json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1))


@app.command()
def calc(
    identifier: Annotated[str | None, typer.Argument(metavar="ID", help="Which calculator.")] = None,
    pairs: Annotated[list[str] | None, typer.Argument(metavar="name=value…")] = None,
    as_json: JsonOption = False,
    list_all: Annotated[bool, typer.Option("--list", help="List every calculator.")] = False,
) -> None:
    """Answer one calculator; values may carry units: valve_diameter=45mm."""

    if list_all:
        for each in registry().values():
            inputs = " ".join(f"{i.name}[{i.unit}]" + (f"={i.default}" if i.default else "") for i in each.inputs)
            outputs = " ".join(f"{o.name}[{o.unit}]" for o in each.outputs)
            print(f"{each.id}: {each.title}. {inputs} -> {outputs}")
        return
    if identifier is None:
        raise InputError("which calculator? `ventrix calc --list` shows all", field="ID")
    try:
        answer = calculate(identifier, split_pairs(pairs or []))
    except ValueError as error:
        raise InputError(str(error), field=f"calc {identifier}") from None
    if as_json:
        _print_json(answer.as_json())
        return
    for name, (value, symbol) in answer.outputs.items():
        print(f"{name} = {value:.6g}{'' if symbol == '-' else ' ' + symbol}")
    for note in answer.notes:
        print(f"note: {note}")


@app.command()
def reduce(
    run: Annotated[Path, typer.Argument(metavar="RUN.csv", help="A run table.")],
    as_json: JsonOption = False,
) -> None:
    """Corrected results of a run table."""
    from ventrix.records.files.run_table import read_run_table
    from ventrix.reports import results

    table = read_run_table(run)
    reduced = _of_file(run, table.reduce)
    if as_json:
        _print_json(_of_file(run, lambda: results.reduced_document(reduced)))
    else:
        print(_of_file(run, lambda: results.reduced_text(reduced, table.lift_unit)))


@app.command()
def compare(
    before: Annotated[Path, typer.Argument(metavar="BEFORE.csv", help="A run table; or a job document, alone.")],
    after: Annotated[Path | None, typer.Argument(metavar="AFTER.csv")] = None,
    as_json: JsonOption = False,
    change: Annotated[
        list[str], typer.Option(metavar="KIND", help=f"What the cut was, may be repeated: {', '.join(CUT_KINDS)}.")
    ] = [CutKind.PORT],  # noqa: B006
    worthwhile: Annotated[
        str | None,
        typer.Option(metavar="CFM", help="Smallest gain that matters; 1 % of the flow without it."),
    ] = None,
    school: Annotated[
        str, typer.Option(help="Whose number speaks: cam-weighted, low lift first, peak and near-peak.")
    ] = "cam-weighted",
) -> None:
    """What a cut did: two run tables held against each other; or a whole job document judged."""
    from ventrix.core.judging.comparison import compare_runs
    from ventrix.core.judging.pours import Volumes
    from ventrix.core.judging.verdict import Wording, judge
    from ventrix.core.model.kinds import School
    from ventrix.records.files.run_table import read_run_table
    from ventrix.reports import results

    if after is None:
        _judge_job(before, as_json)
        return
    tables = read_run_table(before), read_run_table(after)
    reduced = _of_file(before, tables[0].reduce), _of_file(after, tables[1].reduce)
    least = None
    if worthwhile is not None:
        try:
            least = parse_quantity(worthwhile, "cfm") if reduced[0].kind == "flow" else parse_quantity(worthwhile, "-")
        except ValueError as error:
            raise InputError(str(error), field="--worthwhile") from None
        if least <= 0:
            raise InputError("the smallest gain that matters must be above zero", field="--worthwhile")
    if school not in tuple(School):
        raise InputError(f"'{school[:40]}' is not one of {', '.join(School)}", field="--school")
    try:
        comparison = compare_runs([reduced[0]], [reduced[1]], _cut_kinds(change), school=school)
        poured = tables[0].geometry.port_volume, tables[1].geometry.port_volume
        volumes = Volumes(poured[0], poured[1]) if poured[0] is not None and poured[1] is not None else None
        verdict = judge(comparison, least, volumes, Wording(lift_unit=tables[0].lift_unit))
    except ValueError as error:
        raise InputError(str(error), file=f"{before.name} against {after.name}") from None
    if as_json:
        _print_json(results.comparison_document(comparison, verdict))
    else:
        print(results.comparison_text(comparison, verdict, tables[0].lift_unit))


def _judge_job(path: Path, as_json: bool) -> None:
    """Every flowed cut of a job document against the one before it, and the last against the first."""
    from ventrix.core.judging.findings import Findings
    from ventrix.records.files.job_document import read_document
    from ventrix.reports import results

    if path.suffix.lower() == ".csv":
        raise InputError("one run table alone has nothing to be held against", file=path.name, field="AFTER.csv")
    job, benches = read_document(path)
    findings = Findings(job, benches=benches)
    judged = _of_file(path, lambda: results.job_pairs(findings))
    if as_json:
        _print_json({"pairs": [results.pair_document(findings, pair) for pair in judged]})
    else:
        for pair in judged:
            print(results.pair_text(findings, pair))


def _of_file(path: Path, work: Any) -> Any:
    """Run `work`, and let a core sentence name the file it is about."""
    try:
        return work()
    except InputError:
        raise
    except ValueError as error:
        raise InputError(str(error), file=path.name) from None


@app.command()
def walls(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="Of this port alone, by its name.")] = None,
    as_json: JsonOption = False,
) -> None:
    """What is left of every wall that was read, after all that was taken off since."""
    from ventrix.records.files.job_document import read_job
    from ventrix.reports import results

    read = read_job(job)
    if port is not None and all(p.name.lower() != port.lower() for p in read.ports):
        names = ", ".join(p.name for p in read.ports) or "no port"
        raise InputError(f"'{port[:40]}' is not one of {names}", file=job.name, field="--port")
    rows = results.walls_document(read, port)
    if as_json:
        _print_json(rows)
        return
    for row in rows:
        print(f"{row['port']}: {row['sentence']}")
    if not rows:
        print("No wall has been read.")


@app.command()
def sheet(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    out: Annotated[Path, typer.Argument(metavar="OUT.pdf")],
    port: Annotated[str | None, typer.Option(help="Of this port, by its name.")] = None,
    cut: Annotated[int | None, typer.Option(help="The cut after; the last flowed one without it.")] = None,
    against: Annotated[int | None, typer.Option(help="The cut before; the first flowed one without it.")] = None,
    paper: Annotated[str, typer.Option(help="A4 or Letter.")] = "A4",
    ink: Annotated[str, typer.Option(help="colour or grey.")] = "colour",
    units: Annotated[str, typer.Option(help="us or metric.")] = "us",
    whole: Annotated[bool, typer.Option("--whole", help="All ports in one table too.")] = False,
    card: Annotated[str | None, typer.Option(metavar="PORT", help="Its grinder card instead; 'all' for every.")] = None,
) -> None:
    """The sheet of a pair that a shop hands over, or a port's grinder card, as PDF."""
    from ventrix.sheet_command import Wanted, write_sheet

    print(write_sheet(job, out, Wanted(port, cut, against, paper, ink, units, whole, card)))


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


@app.command()
def simbench(
    port: Annotated[int, typer.Option(min=0, max=65535, help="TCP port on loopback; 0 takes a free one.")] = 5025,
    seed: Annotated[int, typer.Option(min=0, max=2**63 - 1, help="Seed of its noise.")] = 1,
) -> None:
    """The simulated bench alone: SCPI over TCP on loopback, until interrupted."""
    from ventrix.bench.simulator.server import serve_forever

    try:
        serve_forever(port, seed)
    except OSError as error:
        raise InputError(f"cannot listen on port {port}: {(error.strerror or '').lower()}", field="--port") from None


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


@app.command(hidden=True)
def window(
    file: Annotated[Path | None, typer.Argument(metavar="FILE")] = None,
    demo: Annotated[bool, typer.Option("--demo", help="Demo data in a throw-away book.")] = False,
    shot: Annotated[list[str] | None, typer.Option(metavar="ROOM=PATH", help="Render a room and leave.")] = None,
    theme: Annotated[str | None, typer.Option(help="dye or paper.")] = None,
) -> None:
    """Open the window."""
    from ventrix.ui.launch import Start, run

    raise typer.Exit(run(Start(file=file, demo=demo, shots=tuple(shot or ()), theme=theme)))


# Typer carries its own copy of click in some versions, click's in others; this base is in both.
_UsageError: Any = typer.BadParameter.__mro__[1]
_COMMANDS = {c.name or getattr(c.callback, "__name__", "") for c in app.registered_commands}


def main(argv: list[str] | None = None) -> None:
    """Entry point. Anything that is no command opens the window."""
    args = list(sys.argv[1:] if argv is None else argv)
    if not args or (args[0] not in _COMMANDS and args[0] not in ("--help", "-h")):
        args.insert(0, "window")
    try:
        code = app(args, prog_name="ventrix", standalone_mode=False)
        sys.stdout.flush()
    except InputError as error:
        sys.exit(_refuse(str(error)))
    except BookError as error:
        sys.exit(_refuse(str(error)))
    except _UsageError as error:
        sys.exit(_refuse(error.format_message()))
    except (KeyboardInterrupt, typer.Abort):
        code = 130
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # whoever read us has left
        code = 0
    except OSError as error:
        # What was printed could not be written, a full device say; and what is left in the buffer never can be.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        sys.exit(_refuse(f"standard output: cannot be written: {(error.strerror or 'unknown reason').lower()}"))
    sys.exit(code or 0)


def _refuse(sentence: str) -> int:
    line = "ventrix: " + " ".join(sentence.split())
    print(line.encode("utf-8", "replace").decode(), file=sys.stderr)
    return 2


if __name__ == "__main__":
    main()
