"""Fixtures: a book of its own for every test, the demo job, the real window offscreen."""

from __future__ import annotations

import os
import threading
import uuid
from collections.abc import Callable, Iterator
from pathlib import Path

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # as the program has it; read once, when NumPy is imported

import pytest
from hypothesis import HealthCheck, settings

from tests.postgres_server import Server, running_server, why_none
from ventrix.records.book.book import Book

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")


# No test leans on a clock: neither how long an example takes, nor how long one takes to be made.
settings.register_profile("calm", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("calm")


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--long", action="store_true", help="the exhaustive checks too")


@pytest.fixture(scope="session")
def long(pytestconfig: pytest.Config) -> bool:
    """Whether the exhaustive checks were asked for."""
    return bool(pytestconfig.getoption("--long"))


@pytest.fixture(autouse=True)
def fresh_surroundings(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """Settings and books in a folder of the test's own; no thread may outlive it."""
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    before = set(threading.enumerate())
    yield
    left = [t.name for t in threading.enumerate() if t not in before and t.is_alive() and not t.daemon]
    assert not left, f"threads left running: {left}"


@pytest.fixture(scope="session")
def postgres_server() -> Iterator[Server]:
    """A PostgreSQL server with an empty, migrated book as a template for the others."""
    reason = why_none()
    if reason:
        pytest.skip(reason)
    with running_server() as server:
        server.tell("CREATE DATABASE empty_book")
        Book.open(server.url("empty_book")).close()
        yield server


@pytest.fixture
def postgres_url(postgres_server: Server) -> str:
    """An empty book on PostgreSQL, of this test's own."""
    name = f"book_{uuid.uuid4().hex}"
    postgres_server.tell(f"CREATE DATABASE {name} TEMPLATE empty_book")
    return postgres_server.url(name)


@pytest.fixture(params=["sqlite", "postgresql"])
def book_at(request: pytest.FixtureRequest, tmp_path: Path) -> Path | str:
    """Where a book lies, on each store: what is opened there again is the same book."""
    if request.param == "sqlite":
        return tmp_path / "book.sqlite"
    found: str = request.getfixturevalue("postgres_url")
    return found


@pytest.fixture
def write_table(tmp_path: Path) -> Callable[..., Path]:
    """Writes a run table from a plain set of good conditions, with changes; None leaves a key out."""

    def write(name: str, rows: str, columns: str = "lift_mm,reading_cfm", **changes: str | None) -> Path:
        keys: dict[str, str | None] = {
            "ventrix-run": "1",
            "direction": "intake",
            "test_pressure": "28 inH2O",
            "bench": "back-room",
            "bore": "89 mm",
            "centred": "yes",
            "entry": "radius",
            "plug": "in",
            "valve": "job",
        }
        keys |= {key.replace("__", "-"): value for key, value in changes.items()}
        lines = [f"# {key}: {value}" for key, value in keys.items() if value is not None]
        path = tmp_path / name
        path.write_text("\n".join([*lines, columns, rows.strip(), ""]), encoding="utf-8")
        return path

    return write
