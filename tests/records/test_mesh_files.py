"""Mesh files: every form of the same body reads alike; what is cut short, too large or no mesh is refused."""

from __future__ import annotations

import json
import random
import struct
from pathlib import Path

import jsonschema
import numpy as np
import pytest

from ventrix.bench.simulator.scans import ScannedPort, scanned, surface
from ventrix.cli.main import main
from ventrix.records.bad_input import InputError
from ventrix.records.files.mesh_files import mesh_of, read_mesh, stl_bytes

POINTS, FACES = surface(ScannedPort(), rows=40, columns=24)


def ascii_stl() -> bytes:
    rows = ["solid port"]
    for face in FACES:
        rows += ["facet normal 0 0 0", " outer loop"]
        rows += [f"  vertex {x:.6e} {y:.6e} {z:.6e}" for x, y, z in POINTS[face]] + [" endloop", "endfacet"]
    return "\n".join([*rows, "endsolid port"]).encode()


def ply(form: str) -> bytes:
    head = (
        f"ply\nformat {form} 1.0\ncomment made by nobody\nelement vertex {len(POINTS)}\nproperty float x\n"
        f"property float y\nproperty float z\nproperty uchar red\nelement face {len(FACES)}\n"
        "property list uchar int vertex_indices\nend_header\n"
    ).encode()
    if form == "ascii":
        rows = [f"{x} {y} {z} 9" for x, y, z in POINTS] + [f"3 {a} {b} {c}" for a, b, c in FACES]
        return head + "\n".join(rows).encode()
    order = "<" if "little" in form else ">"
    body = b"".join(struct.pack(f"{order}fffB", *p, 9) for p in POINTS)
    return head + body + b"".join(struct.pack(f"{order}Biii", 3, *(int(i) for i in f)) for f in FACES)


def obj() -> bytes:
    rows = ["mtllib /etc/passwd", "o port", *(f"v {x} {y} {z}" for x, y, z in POINTS)]
    return "\n".join([*rows, *(f"f {a + 1}/1/1 {b + 1}//2 {c + 1}" for a, b, c in FACES)]).encode()


BODIES = {
    "binary.stl": stl_bytes(POINTS, FACES),
    # Some programs begin a binary file with the word of the ASCII form.
    "solid.stl": b"solid" + stl_bytes(POINTS, FACES)[5:],
    "ascii.stl": ascii_stl(),
    "ascii.ply": ply("ascii"),
    "little.ply": ply("binary_little_endian"),
    "big.ply": ply("binary_big_endian"),
    "port.obj": obj(),
}


@pytest.mark.parametrize("name", list(BODIES))
def test_every_form_reads_alike(name: str) -> None:
    mesh = mesh_of(BODIES[name], name)
    assert len(mesh.faces) == len(FACES)
    assert np.allclose(mesh.points[mesh.faces], POINTS[FACES], atol=1e-4)


@pytest.mark.parametrize("name", list(BODIES))
def test_a_file_cut_short_is_refused(name: str) -> None:
    body = BODIES[name]
    for share in (0.0, 0.001, 0.4):
        with pytest.raises(InputError) as refused:
            mesh_of(body[: int(share * len(body))], name)
        assert name in str(refused.value) and "\n" not in str(refused.value)


@pytest.mark.parametrize(
    ("name", "data", "words"),
    [
        ("a.stl", b"\0" * 80 + struct.pack("<I", 4_000_000_000), "not an STL"),
        ("a.ply", b"ply\nformat ascii 1.0\nelement vertex 99999999\nproperty float x\nend_header\n", "at most"),
        ("a.ply", b"ply\n" + b"comment x\n" * 5000, "header has no end"),
        ("a.obj", b"v 0 0 0\nf 1 2 3\n", "too few|does not have"),
        ("a.obj", b"v 0 0 x\nf 1 1 1\n", "not a number"),
        ("a.step", b"ISO-10303", "STL, PLY or OBJ"),
        ("a.obj", BODIES["port.obj"].replace(b"f 1/", b"f 999999/", 1), "does not have"),
        ("a.stl", stl_bytes(np.full_like(POINTS, np.nan), FACES), "not numbers"),
    ],
)
def test_what_is_wrong_is_said(name: str, data: bytes, words: str) -> None:
    with pytest.raises(InputError, match=words):
        mesh_of(data, name)


def test_mutated_files_are_refused_or_read(long: bool) -> None:
    chance, refused = random.Random(7), 0
    for _ in range(1000 if long else 120):
        name = chance.choice(list(BODIES))
        body = bytearray(BODIES[name])
        for _ in range(chance.choice((1, 3, 40))):
            at = chance.randrange(len(body)) if chance.random() < 0.5 else chance.randrange(min(len(body), 400))
            body[at] = chance.randrange(256)
        if chance.random() < 0.3:
            del body[chance.randrange(len(body)) :]
        try:
            mesh = mesh_of(bytes(body), name)
        except InputError:
            refused += 1
        else:
            assert np.isfinite(mesh.points).all() and mesh.faces.max(initial=0) < len(mesh.points)
    assert refused > 10, "mutations that matter"


def test_the_command(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    after, before = tmp_path / "after.stl", tmp_path / "before.ply"
    body = surface(ScannedPort(), rows=100, columns=72)
    after.write_bytes(stl_bytes(*scanned(*body, seed=2)))
    before.write_bytes(b"not a mesh")

    def run(*args: str) -> tuple[int, str, str]:
        with pytest.raises(SystemExit) as done:
            main(["scan", *args])
        told = capsys.readouterr()
        return int(done.value.code or 0), told.out, told.err

    code, out, _ = run(str(after), "--known", "throat=34.9mm", "--json")
    found = json.loads(out)
    assert code == 0 and found["unit"] == "mm" and found["removed"] is None
    schema = Path(__file__).parents[2] / "docs/formats/scan.schema.json"
    jsonschema.validate(found, json.loads(schema.read_text()))
    assert set(found) == {"unit", "volume_cc", "length_mm", "roof_mm", "floor_mm", "turning_deg", "sections", "picks",
                          "removed", "notes"}  # fmt: skip
    assert set(found["picks"]) == {"opening", "pinch", "short_side", "bowl", "throat"}
    assert set(found["sections"][0]) == {"along_mm", "area_cm2", "perimeter_mm", "u_percent"}
    assert read_mesh(after).faces.shape == (len(body[1]), 3)
    for args, words in (
        ((str(after),), "Say the unit"),
        ((str(after), "--unit", "cm"), "not one of mm, in, m"),
        ((str(after), "--known", "nose=3mm"), "NAME=SIZE"),
        ((str(after), "--unit", "mm", "--face", "1,2"), "x,y,z"),
        ((str(after), "--unit", "mm", "--left-alone", "64"), "two distances"),
        ((str(after), "--unit", "mm", "--before", str(before)), "PLY"),
        ((str(after), "--known", "throat=50mm"), "not 50.0 mm"),
        ((str(tmp_path / "nothing.stl"), "--unit", "mm"), "nothing.stl"),
    ):
        code, _, err = run(*args)
        assert code == 2 and words in err and err.count("\n") == 1, (args, err)
