"""Triangle meshes from files: STL binary and ASCII, PLY ASCII and binary, OBJ. Counts before allocation, indices after;
what cannot be read is refused with a sentence, and no other file is ever opened."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Final

import numpy as np

from ventrix.core.quantity.arrays import Array, Ints
from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

LARGEST: Final = 250_000_000  # bytes
MOST: Final = 3_000_000  # faces, and points
HEADER: Final = 16_384  # bytes of a PLY header
NOT_NUMBERS: Final = 0.01  # of the coordinates: more refuses
FEWEST: Final = 100  # faces that anything can be measured of
KINDS: Final = (".stl", ".ply", ".obj")
_PLY_TYPES: Final = {
    "char": "i1", "int8": "i1", "uchar": "u1", "uint8": "u1", "short": "i2", "int16": "i2", "ushort": "u2",
    "uint16": "u2", "int": "i4", "int32": "i4", "uint": "u4", "uint32": "u4", "float": "f4", "float32": "f4",
    "double": "f8", "float64": "f8",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class MeshData:
    """Points as they stand in the file, shape (n, 3), and triangles as indices into them, shape (m, 3)."""

    points: Array
    faces: Ints


def read_mesh(path: Path) -> MeshData:
    """A mesh file. InputError naming it where it is too large, cut short, or no mesh that is read."""
    kind = path.suffix.lower()
    if kind not in KINDS:
        raise InputError(tr("is not a mesh that is read: STL, PLY or OBJ"), file=path.name)
    return mesh_of(read_whole(path, LARGEST, tr("a mesh")), path.name)


def mesh_of(data: bytes, name: str) -> MeshData:
    """A mesh from a file's bytes; its name says of what kind it is."""
    kind = Path(name).suffix.lower()
    read = {".stl": _stl, ".ply": _ply, ".obj": _obj}.get(kind)
    if read is None:
        raise InputError(tr("is not a mesh that is read: STL, PLY or OBJ"), file=name)
    points, faces = read(data, name)
    if len(faces) < FEWEST:
        raise InputError(tr("holds {} triangles: too few to measure", len(faces)), file=name)
    if len(faces) and (faces.min() < 0 or faces.max() >= len(points)):
        raise InputError(tr("names a point that it does not have"), file=name)
    good = np.isfinite(points).all(axis=1) & (np.abs(np.nan_to_num(points)) < 1e9).all(axis=1)
    kept = good[faces].all(axis=1)
    if np.mean(~good) > NOT_NUMBERS or np.mean(~kept) > NOT_NUMBERS:
        raise InputError(tr("holds coordinates that are not numbers"), file=name)
    return MeshData(np.where(good[:, None], points, 0.0), faces[kept])


def _count(n: int, what: str, name: str) -> int:
    if not 0 <= n <= MOST:
        raise InputError(tr("says it has {} {}: at most {} are read", n, what, MOST), file=name)
    return n


def _stl(data: bytes, name: str) -> tuple[Array, Ints]:
    """Binary where the size is the count's, whatever its first word; else ASCII."""
    if len(data) >= 84:
        count = int.from_bytes(data[80:84], "little")
        if len(data) == 84 + 50 * count:
            _count(count, "triangles", name)
            rows = np.frombuffer(data, np.dtype([("n", "<f4", 3), ("v", "<f4", (3, 3)), ("a", "<u2")]), count, 84)
            with np.errstate(invalid="ignore"):
                points = rows["v"].reshape(-1, 3).astype(float)
            return points, np.arange(3 * count).reshape(-1, 3)
    if not data.lstrip()[:5].lower() == b"solid" or b"\0" in data[:HEADER]:
        raise InputError(tr("is cut short, or not an STL"), file=name)
    numbers: list[bytes] = []
    for line in data.splitlines():
        words = line.split()
        if words[:1] in ([b"vertex"], [b"VERTEX"]):
            if len(words) != 4:
                raise InputError(tr("holds a vertex that is not three numbers"), file=name)
            numbers += words[1:]
    if not numbers:
        raise InputError(tr("is cut short, or not an STL"), file=name)
    if b"endsolid" not in data[-400:].lower():
        raise InputError(tr("is cut short: it has no end"), file=name)
    points = _numbers(numbers, name).reshape(-1, 3)
    if len(points) % 3:
        raise InputError(tr("holds a triangle without three points"), file=name)
    _count(len(points) // 3, "triangles", name)
    return points, np.arange(len(points)).reshape(-1, 3)


def _numbers(words: Sequence[bytes], name: str) -> Array:
    try:
        return np.asarray(np.array(words, dtype="S").astype(float))
    except ValueError:
        raise InputError(tr("holds a coordinate that is not a number"), file=name) from None


@dataclass(slots=True)
class _Element:
    name: str
    count: int
    properties: list[tuple[str, str, str]]  # name, type of the count of a list or "", type


def _ply(data: bytes, name: str) -> tuple[Array, Ints]:
    end = data.find(b"end_header", 0, HEADER)
    if not data.startswith(b"ply") or end < 0:
        raise InputError(tr("is not a PLY: its header has no end"), file=name)
    after = data.find(b"\n", end)
    form, elements = _ply_header(data[:end], name)
    body = data[after + 1 :] if after >= 0 else b""
    found: dict[str, Any] = {}
    if form == "ascii":
        _ply_text(body, elements, found, name)
    else:
        _ply_binary(body, "<" if "little" in form else ">", elements, found, name)
    if "vertex" not in found or "face" not in found:
        raise InputError(tr("has no vertices or no faces"), file=name)
    return found["vertex"], found["face"]


def _ply_header(head: bytes, name: str) -> tuple[str, list[_Element]]:
    form, elements = "", list[_Element]()
    for line in head.decode("latin-1").splitlines()[1:]:
        words = line.split()
        if words[:1] == ["format"] and len(words) >= 2:
            form = words[1]
        elif words[:1] == ["element"] and len(words) == 3 and words[2].isdigit() and len(words[2]) < 10:
            what = {"vertex": "points", "face": "faces"}.get(words[1], "items")
            elements.append(_Element(words[1], _count(int(words[2]), what, name), []))
        elif words[:1] == ["property"] and elements:
            types = words[2:4] if words[1:2] == ["list"] else words[1:2]
            if len(words) != len(types) + (3 if words[1] == "list" else 2) or not all(t in _PLY_TYPES for t in types):
                raise InputError(tr("has a property that is not read: {}", line[:40]), file=name)
            count_type = types[0] if len(types) == 2 else ""
            elements[-1].properties.append((words[-1], count_type, types[-1]))
    if form not in ("ascii", "binary_little_endian", "binary_big_endian"):
        raise InputError(tr("is a PLY of a form that is not read"), file=name)
    for each in elements:
        if each.name == "vertex" and not {"x", "y", "z"} <= {p[0] for p in each.properties}:
            raise InputError(tr("has vertices without x, y and z"), file=name)
        if each.name in ("vertex", "face") and sum(bool(p[1]) for p in each.properties) != (each.name == "face"):
            raise InputError(tr("has faces that are not lists of points"), file=name)
    return form, elements


def _ply_text(body: bytes, elements: list[_Element], found: dict[str, Any], name: str) -> None:
    lines = body.splitlines()
    at = 0
    for each in elements:
        rows = [line.split() for line in lines[at : at + each.count]]
        at += each.count
        if len(rows) < each.count:
            raise InputError(tr("is cut short"), file=name)
        if each.name == "vertex":
            wide = len(each.properties)
            if any(len(r) != wide for r in rows):
                raise InputError(tr("has a vertex with figures too many or too few"), file=name)
            columns = [[p[0] for p in each.properties].index(c) for c in "xyz"]
            found["vertex"] = _numbers([r[c] for r in rows for c in columns], name).reshape(-1, 3)
        elif each.name == "face":
            before = next(i for i, p in enumerate(each.properties) if p[1])
            try:
                found["face"] = _fans(
                    [[int(w) for w in r[before + 1 : before + 1 + int(r[before])]] for r in rows], name
                )
            except (ValueError, IndexError, OverflowError):
                raise InputError(tr("has a face that is not a list of points"), file=name) from None


def _fans(polygons: Sequence[Sequence[int]], name: str) -> Ints:
    """Triangles of polygons, each from its first corner."""
    made: list[tuple[int, int, int]] = []
    for p in polygons:
        if len(p) < 3:
            raise InputError(tr("has a face of fewer than three points"), file=name)
        made += [(p[0], p[i], p[i + 1]) for i in range(1, len(p) - 1)]
    _count(len(made), "triangles", name)
    if any(not 0 <= i < MOST for face in made for i in face):
        raise InputError(tr("names a point that it does not have"), file=name)
    return np.array(made, dtype=np.int64).reshape(-1, 3)


def _ply_binary(body: bytes, order: str, elements: list[_Element], found: dict[str, Any], name: str) -> None:
    at = 0
    for each in elements:
        lists = [p for p in each.properties if p[1]]
        if not lists:
            row = np.dtype([(f"{i}{p[0]}", order + _PLY_TYPES[p[2]]) for i, p in enumerate(each.properties)])
            if at + each.count * row.itemsize > len(body):
                raise InputError(tr("is cut short"), file=name)
            rows = np.frombuffer(body, row, each.count, at)
            at += each.count * row.itemsize
            if each.name == "vertex":
                by = {p[0]: f"{i}{p[0]}" for i, p in enumerate(each.properties)}
                with np.errstate(invalid="ignore"):
                    found["vertex"] = np.stack([rows[by[c]].astype(float) for c in "xyz"], axis=1)
            continue
        faces, at = _ply_faces(body, at, order, each, name)
        if each.name == "face":
            found["face"] = faces


def _ply_faces(body: bytes, at: int, order: str, each: _Element, name: str) -> tuple[Ints, int]:
    """Rows with one list: all triangles at once where they are, else one by one."""
    fields = []
    for i, (field, count_type, kind) in enumerate(each.properties):
        if count_type:
            fields += [("count", order + _PLY_TYPES[count_type]), ("list", order + _PLY_TYPES[kind], 3)]
        else:
            fields.append((f"{i}{field}", order + _PLY_TYPES[kind]))
    row = np.dtype(fields)
    if each.count and at + each.count * row.itemsize <= len(body):
        rows = np.frombuffer(body, row, each.count, at)
        if (rows["count"] == 3).all():
            return rows["list"].astype(np.int64), at + each.count * row.itemsize
    polygons: list[list[int]] = []
    for _ in range(each.count):
        corners: list[int] = []
        for _field, count_type, kind in each.properties:
            size = np.dtype(_PLY_TYPES[kind]).itemsize
            n = 1
            if count_type:
                wide = np.dtype(_PLY_TYPES[count_type]).itemsize
                if at + wide > len(body):
                    raise InputError(tr("is cut short"), file=name)
                n = int(np.frombuffer(body, order + _PLY_TYPES[count_type], 1, at)[0])
                at += wide
            if not 0 <= n <= 1000 or at + n * size > len(body):
                raise InputError(tr("is cut short"), file=name)
            if count_type:
                corners = [int(v) for v in np.frombuffer(body, order + _PLY_TYPES[kind], n, at)]
            at += n * size
        polygons.append(corners)
    return _fans(polygons, name), at


def _obj(data: bytes, name: str) -> tuple[Array, Ints]:
    """Only v and f are read; a face may count from the end."""
    numbers: list[bytes] = []
    polygons: list[list[int]] = []
    for number, line in enumerate(data.splitlines(), 1):
        words = line.split()
        if words[:1] == [b"v"]:
            if len(words) < 4:
                raise InputError(tr("holds a vertex that is not three numbers"), file=name, line=number)
            numbers += words[1:4]
        elif words[:1] == [b"f"]:
            try:
                corners = [int(w.split(b"/")[0]) for w in words[1:]]
            except ValueError:
                raise InputError(tr("holds a face that is not a list of points"), file=name, line=number) from None
            if 0 in corners or any(abs(c) > MOST for c in corners):
                raise InputError(tr("names a point that it does not have"), file=name, line=number)
            polygons.append([c - 1 if c > 0 else len(numbers) // 3 + c for c in corners])
        if len(polygons) > MOST or len(numbers) > 3 * MOST:
            raise InputError(tr("has more than {} points or faces", MOST), file=name)
    if not polygons or not numbers:
        raise InputError(tr("has no vertices or no faces"), file=name)
    return _numbers(numbers, name).reshape(-1, 3), _fans(polygons, name)


def stl_bytes(points: Array, faces: Ints) -> bytes:
    """A mesh as binary STL."""
    corners = np.asarray(points, dtype="<f4")[faces]
    rows = np.zeros(len(faces), np.dtype([("n", "<f4", 3), ("v", "<f4", (3, 3)), ("a", "<u2")]))
    rows["v"] = corners
    return b"\0" * 80 + len(faces).to_bytes(4, "little") + rows.tobytes()
