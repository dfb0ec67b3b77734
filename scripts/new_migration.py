"""Writes the next migration from what the models say and the migrations do not: new_migration.py NUMBER WORDS.

Look at what it wrote before committing it; then run scripts/write_newest_schema.py and set HEAD in
records/book/sqlite_file.py.
"""

import sys
import tempfile
from pathlib import Path

from alembic import command
from sqlalchemy import create_engine

from ventrix.records.migrations.run import configuration, upgrade

if __name__ == "__main__":
    number, words = sys.argv[1], " ".join(sys.argv[2:])
    with tempfile.TemporaryDirectory() as folder:
        engine = create_engine(f"sqlite:///{Path(folder) / 'book.sqlite'}")
        upgrade(engine)
        config = configuration()
        config.attributes["engine"] = engine
        command.revision(config, words, autogenerate=True, rev_id=number)
        engine.dispose()
