"""Casting files: sections of sawn heads, files between shops, two of one number, and what they say on a new head.

Simulated heads with core shift are drawn here, by their own formula."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pytest

from tests.cli.test_cli import ask
from tests.core.test_work import street_head
from ventrix.core.castings.casting_file import Casting, SawnSection, casting, look_first, merged
from ventrix.core.castings.sawn import by_size, thicknesses
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Fault, WallReading
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head
from ventrix.core.quantity.refused import Refused
from ventrix.core.work.route import route
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index
from ventrix.records.files.casting_document import casting_document, casting_from, read_casting, write_casting
from ventrix.rooms.display_units import US
from ventrix.rooms.shared.unrolled_map import map_picture
from ventrix.rooms.sheet.card import card_of
from ventrix.workspace.castings import CastingShelf

NUMBER = "TX 441"


def head_with(seed: int, count: int = 2) -> tuple[Job, dict[str, list[float]]]:
    """A head whose core lies off: what is thin on one side is thick on the other. And what was read, by side."""
    random = np.random.default_rng(seed)
    shift = 0.0006 * random.standard_normal()
    job = street_head(count)
    read: dict[str, list[float]] = {"left": [], "right": []}
    ports = []
    for port in job.ports:
        walls = []
        for side, sign in (("left", 1.0), ("right", -1.0)):
            wall = round(0.0042 + sign * shift + 0.0001 * float(random.standard_normal()), 6)
            if port.kind == "intake":
                read[side].append(wall)
                walls.append(WallReading(id=f"{seed}{port.id}{side}", place="pinch", band=side, thickness=wall))
        cut = replace(port.cuts[0], id=f"{seed}-{port.cuts[0].id}", walls=tuple(walls))
        flaw = Fault(id=f"{seed}f{port.id}", kind="flash", place="bowl")
        faults = (flaw,) if port.kind == "intake" else ()
        ports.append(replace(port, id=f"{seed}-{port.id}", head_id=f"h{seed}", cuts=(cut,), faults=faults))
    heads = (Head(id=f"h{seed}", name="head", casting=NUMBER.lower() if seed % 2 else NUMBER),)
    return replace(job, id=f"job{seed}", ports=tuple(ports), heads=heads, customer="a customer"), read


def six() -> tuple[Casting, dict[str, list[float]]]:
    made = [head_with(seed) for seed in range(6)]
    read = {side: [w for _, r in made for w in r[side]] for side in ("left", "right")}
    return casting(NUMBER, [Findings(job) for job, _ in made]), read


def test_what_six_heads_had_is_looked_for_first() -> None:
    found, _ = six()
    assert look_first([found], "intake")[0] == "flash at the bowl, found 12 times on 6 heads"


def test_an_unread_wall_of_a_seventh_is_shown_hatched_and_still_blocks() -> None:
    found, read = six()
    job, _ = head_with(7)
    port = replace(job.ports[0], cuts=(replace(job.ports[0].cuts[0], walls=()),))
    job = replace(job, ports=(port, *job.ports[1:]))
    picture = map_picture(job, port, port.cuts[0], None, "", US, [found])
    (pin,) = [p for p in picture.pins if p.of_casting]
    assert pin.text == US.length.text(min(min(read["left"]), min(read["right"]))) and "castings shift" in pin.tip
    card = card_of(Findings(job), port, US, date(2026, 12, 1), castings=[found])
    stop = next(s for s in card.stops if s.place == "pinch")
    assert stop.first and stop.take == "read first" and stop.read.startswith("casting ")
    cards = {c.stage: c for c in route(Findings(job), port, look_first([found], "intake"), ("pinch, least 0.100 in",))}
    assert "Usual on this casting: flash at the bowl" in cards["faults"].look
    assert "pinch, least 0.100 in" in cards["walls"].look and not cards["walls"].done


def test_a_file_goes_to_another_shop_and_back_and_nothing_of_a_customer_with_it(tmp_path: Path) -> None:
    found, _ = six()
    found = replace(found, sections=(SawnSection("intake", "bowl", (("roof", 0.005), ("floor", 0.004)), "a scrap"),))
    path = tmp_path / "tx.ventrix-casting.json"
    write_casting(found, path, "North Lane heads", "2026-12-01")
    assert "a customer" not in path.read_text()
    back = read_casting(path)
    assert back.whose == "North Lane heads" and back.heads == 6
    for mine, theirs in zip(found.walls, back.walls, strict=True):
        assert (theirs.kind, theirs.place, theirs.side, theirs.count) == (mine.kind, mine.place, mine.side, mine.count)
        assert theirs.least == pytest.approx(mine.least)
    assert dict(back.sections[0].walls) == pytest.approx({"roof": 0.005, "floor": 0.004})
    document = casting_document(found, "x", "")
    for key, value in (("heads", -1), ("casting", ""), ("walls", [{"kind": "intake"}]), ("told", {"intake": {}})):
        with pytest.raises(InputError):
            casting_from({**document, key: value}, "wrong")
    told = {"ports": 2, "mean": [0.0, 0.0], "covariance": [[1.0, 2.0], [2.0, 1.0]], "residual": [0.0] * 19}
    with pytest.raises(InputError, match="not a covariance"):
        casting_from({**document, "told": {"intake": told}}, "wrong")


def test_two_files_of_one_number_both_stand_until_they_are_merged(tmp_path: Path) -> None:
    one, _ = six()
    other = casting(NUMBER, [Findings(head_with(seed)[0]) for seed in range(20, 23)])
    with Book.open(tmp_path / "book.sqlite") as book:
        shelf = CastingShelf(book, Index(book))
        for found, shop in ((one, "North Lane"), (other, "South Lane")):
            write_casting(found, tmp_path / f"{shop}.json", shop, "2026-12-01")
            shelf.bring_in(tmp_path / f"{shop}.json")
        assert [c.whose for c in shelf.of(NUMBER)] == ["North Lane", "South Lane"]
        whole = shelf.merge("tx441")
        assert [c.whose for c in shelf.of(NUMBER)] == ["North Lane and South Lane"] == [whole.whose]
        with pytest.raises(Refused, match="one file"):
            shelf.merge(NUMBER)
    assert whole.heads == 9
    true = casting(NUMBER, [Findings(head_with(s)[0]) for s in (*range(6), *range(20, 23))])
    for mine, wall in zip(whole.walls, true.walls, strict=True):
        assert (mine.least, mine.count) == (pytest.approx(wall.least), wall.count)
        assert mine.spread == pytest.approx(wall.spread, rel=0.15), "medians stand for means"
    assert merged(one, one, "").heads == 12


def test_a_section_is_the_metal_between_two_outlines() -> None:
    """A square port 20 mm wide, 2 mm off the middle of a 32 mm block: 8, 4, 6 and 6 mm are left."""
    inner = [(-0.008, -0.010), (0.012, -0.010), (0.012, 0.010), (-0.008, 0.010)]
    outer = [(-0.016, -0.016), (0.016, -0.016), (0.016, 0.016), (-0.016, 0.016)]
    first, second = by_size([outer, inner])
    assert dict(thicknesses(first, second)) == pytest.approx(
        {"roof": 0.006, "floor": 0.006, "left": 0.008, "right": 0.004}
    )
    with pytest.raises(Refused, match="outside the metal"):
        thicknesses([(40.0, 0.0), (42.0, 0.0), (41.0, 2.0)], outer)
    with pytest.raises(Refused, match="1 outlines"):
        by_size([outer])


def test_the_command_writes_reads_and_merges(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    book, out = tmp_path / "book.sqlite", tmp_path / "tx.json"
    with Book.open(book) as opened:
        for seed in range(2):
            opened.add_job(head_with(seed)[0])
        Index(opened).catch_up()
    code, said, _ = ask(capsys, "casting", NUMBER, "--book", book, "--write", out, "--whose", "East Lane")
    assert code == 0 and "2 heads written" in said
    assert json.loads(out.read_text())["whose"] == "East Lane"
    code, said, _ = ask(capsys, "casting", "--book", book, "--read", out)
    assert code == 0 and "kept in the library as theirs" in said
    code, _, err = ask(capsys, "casting", NUMBER, "--book", book, "--merge")
    assert code == 2 and "one file" in err
    code, _, err = ask(capsys, "casting", NUMBER, "--book", book, "--write", out)
    assert code == 2 and "--whose" in err
    (tmp_path / "bad.json").write_text("{")
    code, _, err = ask(capsys, "casting", "--book", book, "--read", tmp_path / "bad.json")
    assert code == 2 and "is not JSON" in err
