"""Draw docs/architecture.svg: the layers that pyproject.toml holds, the packages in each, and how large they are."""

from __future__ import annotations

import ast
import tomllib
from collections import Counter
from html import escape
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SOURCE = ROOT / "src"
WIDE, ROW, LEFT, GAP = 1060, 62, 96, 10


def layers() -> list[list[str]]:
    """Rows of packages, top to bottom, as the first contract has them."""
    settings = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    contracts = settings["tool"]["importlinter"]["contracts"]
    found = next(c for c in contracts if c["name"] == "Nothing imports upwards")
    return [[name.strip().removeprefix("ventrix.") for name in row.split("|")] for row in found["layers"]]


def lines_of(package: str) -> int:
    """Lines of Python in a package, or in a module of that name."""
    path = SOURCE / "ventrix" / package
    files = path.rglob("*.py") if path.is_dir() else [path.with_suffix(".py")]
    return sum(len(f.read_text(encoding="utf-8").splitlines()) for f in files)


def imports() -> Counter[tuple[str, str]]:
    """How many modules of one package import another."""
    found: Counter[tuple[str, str]] = Counter()
    for file in (SOURCE / "ventrix").rglob("*.py"):
        own = file.relative_to(SOURCE / "ventrix").parts[0].removesuffix(".py")
        named = {
            node.module.split(".")[1]
            for node in ast.walk(ast.parse(file.read_text(encoding="utf-8")))
            if isinstance(node, ast.ImportFrom) and node.module and node.module.startswith("ventrix.")
        }
        found.update((own, other) for other in named if other != own)
    return found


def parts(package: str) -> str:
    """Names of the folders of a package."""
    path = SOURCE / "ventrix" / package
    return " · ".join(sorted(p.name for p in path.iterdir() if (p / "__init__.py").exists())) if path.is_dir() else ""


def main() -> None:
    rows = layers()
    where: dict[str, tuple[float, float, float]] = {}
    boxes, arrows = [], []
    for r, row in enumerate(rows):
        wide = (WIDE - LEFT - GAP * (len(row) - 1) - 10) / len(row)
        for i, name in enumerate(row):
            x, y = LEFT + i * (wide + GAP), 10 + r * (ROW + 34)
            where[name] = x, y, wide
            boxes.append(f'<rect x="{x:.0f}" y="{y}" width="{wide:.0f}" height="{ROW}" rx="3"/>')
            boxes.append(f'<text class="name" x="{x + 12:.0f}" y="{y + 24}">{name}, {lines_of(name):,} lines</text>')
            boxes.append(f'<text x="{x + 12:.0f}" y="{y + 44}">{escape(parts(name))}</text>')
    for (a, b), count in sorted(imports().items()):
        if a in where and b in where:
            (ax, ay, aw), (bx, by, bw) = where[a], where[b]
            shift = 12 * (sorted(where).index(a) - len(where) / 2)
            x1, x2 = ax + aw / 2 + shift, bx + bw / 2 + shift
            line = f'<line x1="{x1:.0f}" y1="{ay + ROW}" x2="{x2:.0f}" y2="{by}"'
            arrows.append(f'{line} stroke-width="{min(0.7 + count / 12, 5):.1f}" marker-end="url(#tip)"/>')
    high = 10 + len(rows) * (ROW + 34)
    picture = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE} {high}" font-family="sans-serif" font-size="12">',
        "<title>What imports what: arrows point down; wider where more modules do</title>",
        "<style>rect{fill:#eef3f5;stroke:#33505c}.name{font-weight:600;font-size:14px}line{stroke:#b07a1a}</style>",
        '<defs><marker id="tip" markerUnits="userSpaceOnUse" markerWidth="9" markerHeight="9" refX="8" refY="4" '
        'orient="auto"><path d="M0 0L8 4L0 8z" fill="#b07a1a"/></marker></defs>',
        *arrows,
        *boxes,
        "</svg>",
    ]
    (ROOT / "docs" / "architecture.svg").write_text("\n".join(picture) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
