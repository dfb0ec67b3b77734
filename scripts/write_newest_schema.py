"""Writes records/migrations/newest.sql from the migrations: what a new book is made from, without Alembic.

Run after a new migration; a test holds the file to the migrations.
"""

import sqlite3
import tempfile
from pathlib import Path

from sqlalchemy import create_engine

from ventrix.records.migrations.run import upgrade


def newest() -> str:
    """The schema that the migrations end in, as SQL."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "book.sqlite"
        engine = create_engine(f"sqlite:///{path}")
        upgrade(engine)
        engine.dispose()
        with sqlite3.connect(path) as raw:
            rows = raw.execute("SELECT sql FROM sqlite_master WHERE sql IS NOT NULL ORDER BY rowid").fetchall()
            version = raw.execute("SELECT version_num FROM alembic_version").fetchone()[0]
        raw.close()
    statements = [row[0].strip() for row in rows] + [f"INSERT INTO alembic_version VALUES ('{version}')"]
    return "-- made by scripts/write_newest_schema.py from the migrations\n" + ";\n".join(statements) + ";\n"


if __name__ == "__main__":
    import ventrix.records.migrations as migrations

    Path(migrations.__file__).with_name("newest.sql").write_text(newest(), encoding="utf-8")
