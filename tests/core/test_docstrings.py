"""Docstrings and signatures of the core's functions agree: every parameter, its unit, errors, source."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from ventrix.core import benches, formulas

MODULES = (
    *(f"formulas.{m.name}" for m in pkgutil.iter_modules(formulas.__path__)),
    *(f"benches.{m.name}" for m in pkgutil.iter_modules(benches.__path__)),
    "metal.clay",
    "judging.schools",
)
SOURCES = Path(__file__).parents[2] / "docs/sources.md"


def functions() -> list[Callable[..., Any]]:
    found = []
    for name in MODULES:
        module = importlib.import_module(f"ventrix.core.{name}")
        for key, value in vars(module).items():
            public = inspect.isfunction(value) and not key.startswith("_") and value.__module__ == module.__name__
            # functions that answer with a sentence say in it what they are about
            if public and "str" not in str(inspect.signature(value).return_annotation):
                found.append(value)
    return found


@pytest.mark.parametrize("function", functions(), ids=lambda f: f"{f.__module__.split('.')[-1]}.{f.__name__}")
def test_docstring_and_signature_agree(function: Callable[..., Any]) -> None:
    text = inspect.getdoc(function) or ""
    assert "Parameters\n---" in text
    assert "Returns\n---" in text
    assert "Raises\n---" in text
    assert "References\n---" in text
    section = text.split("Parameters\n")[1].split("Returns\n")[0]
    named = [
        name.strip() for line in re.findall(r"^(\w[\w, ]*) :", section, flags=re.MULTILINE) for name in line.split(",")
    ]
    assert named == list(inspect.signature(function).parameters)
    for name, spec in inspect.signature(function).parameters.items():
        annotation = str(spec.annotation)
        if "Literal" in annotation or "Model" in annotation or not re.search(r"ArrayLike|float", annotation):
            continue
        body = re.split(rf"^(?:\w+, )*{name}(?:, \w+)* :", section, flags=re.MULTILINE)[1]
        entry = re.split(r"^\w[\w, ]* :", body, flags=re.MULTILINE)[0]
        assert re.search(r"\[[^\]]+\]|Number of|Equal ", entry), f"{name} has no unit in brackets"


def test_every_numbered_source_is_in_the_bibliography() -> None:
    listed = set(re.findall(r"^\| (\d+) \|", SOURCES.read_text(encoding="utf-8"), flags=re.MULTILINE))
    used = {
        number for function in functions() for number in re.findall(r"(?<!\w)\[(\d+)\]", inspect.getdoc(function) or "")
    }
    assert used <= listed
