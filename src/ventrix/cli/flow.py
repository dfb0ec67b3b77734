"""`ventrix reduce` and `ventrix compare`: run tables and job documents judged without a window."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import CUT_KINDS, CutKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.words import tr


def _cut_kinds(words: list[str]) -> frozenset[CutKind]:
    unknown = next((w for w in words if w not in CUT_KINDS), None)
    if unknown is not None:
        raise InputError(tr("'{}' is not one of {}", unknown[:40], ", ".join(CUT_KINDS)), field="--change")
    return frozenset(CutKind(w) for w in words)


@app.command()
def reduce(
    run: Annotated[Path, typer.Argument(metavar="RUN.csv", help="A run table.")],
    as_json: JsonOption = False,
) -> None:
    """Corrected results of a run table."""
    from ventrix.records.files.run_table import read_run_table
    from ventrix.reports import results

    table = read_run_table(run)
    reduced = of_file(run, table.reduce)
    if as_json:
        print_json(of_file(run, lambda: results.reduced_document(reduced)))
    else:
        print(of_file(run, lambda: results.reduced_text(reduced, table.lift_unit)))


@app.command()
def compare(
    before: Annotated[Path, typer.Argument(metavar="BEFORE.csv", help="A run table; or a job document, alone.")],
    after: Annotated[Path | None, typer.Argument(metavar="AFTER.csv")] = None,
    as_json: JsonOption = False,
    change: Annotated[
        list[str] | None,
        typer.Option(metavar="KIND", help=f"What the cut was (port), may be repeated: {', '.join(CUT_KINDS)}."),
    ] = None,
    worthwhile: Annotated[
        str | None,
        typer.Option(metavar="CFM", help="Smallest gain that matters; 1 % of the flow without it."),
    ] = None,
    school: Annotated[
        str | None, typer.Option(help="Whose number speaks: cam-weighted (usual), low lift first, peak and near-peak.")
    ] = None,
    one_house: Annotated[
        bool, typer.Option("--same-house", help="Both tables are one shop's paper, flowed the same way.")
    ] = False,
) -> None:
    """What a cut did: two run tables held against each other; or a whole job document judged."""
    from ventrix.core.judging.comparing import compare_runs
    from ventrix.core.judging.paper import same_house
    from ventrix.core.judging.pours import Volumes
    from ventrix.core.judging.verdict import judge
    from ventrix.core.judging.wording import Wording
    from ventrix.core.model.kinds import School
    from ventrix.records.files.run_table import read_run_table
    from ventrix.reports import results

    if after is None:
        asked = {"--same-house": one_house, "--change": change, "--worthwhile": worthwhile, "--school": school}
        told = next((option for option, value in asked.items() if value), "")
        if told:
            raise InputError(tr("is for two run tables: a job document says that itself"), field=told)
        _judge_job(before, as_json)
        return
    tables = read_run_table(before), read_run_table(after)
    reduced = of_file(before, tables[0].reduce), of_file(after, tables[1].reduce)
    least = None
    if worthwhile is not None:
        try:
            least = (
                parse_quantity(worthwhile, "cfm")
                if reduced[0].kind == FlowKind.FLOW
                else parse_quantity(worthwhile, "-")
            )
        except Refused as error:
            raise InputError(str(error), field="--worthwhile") from None
        if least <= 0:
            raise InputError(tr("the smallest gain that matters must be above zero"), field="--worthwhile")
    school = School.CAM if school is None else school
    if school not in tuple(School):
        raise InputError(tr("'{}' is not one of {}", school[:40], ", ".join(School)), field="--school")
    try:
        ticked = [[run.run_id for run in reduced]] if one_house else []
        known = replace(reduced[1].known, house=same_house(reduced, ticked))
        comparison = compare_runs(
            [reduced[0]], [reduced[1]], _cut_kinds(change or [CutKind.PORT]), known=known, school=school
        )
        poured = tables[0].geometry.port_volume, tables[1].geometry.port_volume
        volumes = Volumes(poured[0], poured[1]) if poured[0] is not None and poured[1] is not None else None
        verdict = judge(comparison, least, volumes, Wording(lift_unit=tables[0].lift_unit))
    except Refused as error:
        raise InputError(str(error), file=tr("{} against {}", before.name, after.name)) from None
    if as_json:
        print_json(results.comparison_document(comparison, verdict))
    else:
        print(results.comparison_text(comparison, verdict, tables[0].lift_unit))


def _judge_job(path: Path, as_json: bool) -> None:
    """Every flowed cut of a job document against the one before it, and the last against the first."""
    from ventrix.core.judging.findings import Findings
    from ventrix.records.files.job_document import read_document
    from ventrix.reports import results

    if path.suffix.lower() == ".csv":
        raise InputError(tr("one run table alone has nothing to compare with"), file=path.name, field="AFTER.csv")
    job, benches = read_document(path)
    findings = Findings(job, benches=benches)
    judged = of_file(path, lambda: [*results.job_pairs(findings), *results.unflowed_pairs(findings)])
    if as_json:
        print_json({"pairs": [results.pair_document(findings, pair) for pair in judged]})
    else:
        for pair in judged:
            print(results.pair_text(findings, pair))
