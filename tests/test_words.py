"""Every sentence of the program and its manual is in the words of a shop: none of those that a stranger stumbled on."""

from __future__ import annotations

import ast
import re
from pathlib import Path
from string import Formatter

import pytest
from babel.messages.catalog import Catalog
from scripts import write_words

import ventrix

ROOT = Path(ventrix.__file__).parent
# Words and turns that were found odd by people who tried the program; each has a plain word in its place.
OLD = re.compile(
    r"[Cc]an't be said|[Ss]peaks? by|mount scatter|[Ee]ven odds|[Ss]ure by|left, and eaten|guess of the trade|"
    r"book's guess|guess of a book|\blets? go\b|guide, to a fin|fin already|[Ss]aid first|[Tt]urned out|"
    r"[Ss]ay it first|own factors|\b[Nn]ought\b|\b[Nn]ot said\b|\bLies\b|[Oo]ut of breath\b|[Oo]ther side…|"
    r"[Hh](?:old|eld) (?:it |them )?against|[Hh]olds against|[Ss]et (?:it |its lift )?right|[Tt]ake up again|in into|"
    r"[Rr]eckon|[Ss]tands out|has no after|own up|no promise|promise holds|flowrun|\banew\b|\bat odds\b|"
    r"\bwants\b|\bare wanted\b|\b[Rr]ungs?\b|\b[Dd]oubts?\b|\b[Ff]illing\b(?! of)|\b[Ss]chools?\b"
)
# Keys of documents that are said nowhere but in their own lists, and hours of a customer.
KEYS = {"out of breath", "doubt", "let go"}


@pytest.fixture(scope="module")
def catalogue() -> Catalog:
    return write_words.catalogue()


@pytest.fixture(scope="module")
def said(catalogue: Catalog) -> list[str]:
    """Every sentence of the program."""
    return [str(message.id) for message in catalogue if message.id]


def test_no_old_word_is_left_in_a_sentence(said):
    assert len(said) > 4000
    assert [words for words in said if OLD.search(words) and words not in KEYS] == []


def test_sentences_are_spelled_as_american_shops_spell(said):
    british = re.compile(r"[Cc]entre|[Cc]entring|[Cc]arburettor|[Gg]rey|[Cc]olour|[Mm]ould|[Aa]luminium|anticlockwise")
    assert [words for words in said if british.search(words) and words not in {"carburettor"}] == []


@pytest.mark.parametrize("page", sorted((ROOT / "manual").glob("*.md")), ids=lambda p: p.stem)
def test_no_old_word_is_left_in_the_manual(page):
    text = re.sub(r"`[^`]*`|```.*?```", "", page.read_text(), flags=re.DOTALL)
    assert [line for line in text.splitlines() if OLD.search(line) and "--school" not in line] == []


def test_the_catalogue_has_every_sentence_and_no_other(catalogue):
    kept = (ROOT / "words/ventrix.pot").read_bytes()
    assert write_words.as_text(catalogue) == kept, "run scripts/write_words.py"


def test_every_gap_of_a_sentence_has_its_figure():
    wrong = []
    for path in sorted(ROOT.rglob("*.py")):
        for call in (n for n in ast.walk(ast.parse(path.read_text())) if isinstance(n, ast.Call) and n.args):
            first = call.args[0]
            if getattr(call.func, "id", "") not in write_words.SAYS or not isinstance(first, ast.Constant):
                continue
            figures = [a for a in call.args[1:] if not isinstance(a, ast.Starred)]
            gaps = [name for _, name, _, _ in Formatter().parse(first.value) if name is not None] if figures else []
            if figures and len(gaps) != len(figures) and len(figures) == len(call.args) - 1:
                wrong.append(f"{path.relative_to(ROOT)}:{call.lineno}: {first.value}")
    assert wrong == []


def test_a_translation_with_a_gap_too_many_is_found_out():
    words = Catalog()
    for english, told in (("{} of {}", "{1} von {0}"), ("cut {}", "Schnitt {} {}")):
        words.add(english, told)
    assert write_words.slips(words) == ["cut {}"]
