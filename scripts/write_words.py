"""Writes the catalogue of every sentence, and what each translation of it becomes: python scripts/write_words.py

Sentences are found in the source by what says them: the first argument of `tr`, `Said` and `Refused`, and the words of
the kinds that documents keep. A translation is a `words/de.po`, begun as a copy of `words/ventrix.pot`; a gap of its
that the English does not have is told, and its sentence left in English.
"""

from __future__ import annotations

import ast
import sys
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path
from string import Formatter

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

PACKAGE = Path(__file__).parents[1] / "src/ventrix"
WORDS = PACKAGE / "words"
SAYS = ("tr", "Said", "Refused")
KINDS = ("Worded", "KeptWord")  # enumerations whose members stand in sentences


def said_in(tree: ast.Module) -> Iterator[str]:
    """Every sentence that a module says, in the order of the source."""
    named = {
        name.id: node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Assign | ast.AnnAssign) and node.value is not None
        for name in (node.targets if isinstance(node, ast.Assign) else [node.target])
        if isinstance(name, ast.Name)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and node.args and getattr(node.func, "id", "") in SAYS:
            first = node.args[0]
            yield from _texts(named.get(first.id, first) if isinstance(first, ast.Name) else first)
        elif isinstance(node, ast.ClassDef) and any(getattr(b, "id", "") in KINDS for b in node.bases):
            for member in node.body:
                if isinstance(member, ast.Assign):
                    for part in member.value.elts if isinstance(member.value, ast.Tuple) else [member.value]:
                        yield from _texts(part)


def _texts(node: ast.expr) -> Iterator[str]:
    if isinstance(node, ast.IfExp):
        yield from _texts(node.body)
        yield from _texts(node.orelse)
    elif isinstance(node, ast.Constant) and isinstance(node.value, str) and len(node.value.strip()) > 1:
        yield node.value


def catalogue() -> Catalog:
    """Every sentence once, with the modules that say it."""
    found = Catalog(project="Ventrix", charset="utf-8", header_comment="# Every sentence of Ventrix.", fuzzy=False)
    for path in sorted(PACKAGE.rglob("*.py")):
        place = ".".join(path.relative_to(PACKAGE).with_suffix("").parts)
        for sentence in said_in(ast.parse(path.read_text(encoding="utf-8"))):
            found.add(sentence, locations=[(place, None)])
    return found


def slips(translation: Catalog) -> list[str]:
    """Sentences whose translation has a gap that the English does not fill."""
    return [str(m.id) for m in translation if m.id and m.string and not _fits(str(m.id), str(m.string))]


def _fits(sentence: str, told: str) -> bool:
    try:
        gaps = [name for _, name, _, _ in Formatter().parse(told) if name is not None]
        filled = sum(name is not None for _, name, _, _ in Formatter().parse(sentence))
    except ValueError:
        return "{" not in sentence
    return all(int(name or at) < filled if (name or "0").isdigit() else False for at, name in enumerate(gaps))


def as_text(catalog: Catalog) -> bytes:
    """A catalogue as text, without the day: it changes when a sentence does."""
    text = BytesIO()
    write_po(text, catalog, width=120, sort_output=True, omit_header=True)
    return text.getvalue()


def main() -> None:
    (WORDS / "ventrix.pot").write_bytes(as_text(catalogue()))
    for path in sorted(WORDS.glob("*.po")):
        with path.open("rb") as file:
            translation = read_po(file, locale=path.stem)
        for sentence in slips(translation):
            print(f"{path}: a gap that is not there: {sentence}", file=sys.stderr)
            translation.delete(sentence)
        target = WORDS / path.stem / "LC_MESSAGES/ventrix.mo"
        target.parent.mkdir(parents=True, exist_ok=True)
        with target.open("wb") as file:
            write_mo(file, translation)


if __name__ == "__main__":
    main()
