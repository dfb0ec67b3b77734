"""Alembic's entry: runs each migration in its own transaction on the engine handed over."""

from __future__ import annotations

from alembic import context

from ventrix.records.book.tables import METADATA

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    sqlite = engine.dialect.name == "sqlite"
    if sqlite:
        # A table that is rebuilt is dropped on the way, and with foreign keys on that would take every
        # row hanging from it along. The pragma does nothing inside a transaction: it goes to the driver.
        connection.connection.driver_connection.execute("PRAGMA foreign_keys=OFF")
    context.configure(
        connection=connection,
        target_metadata=METADATA,
        render_as_batch=True,
        transaction_per_migration=True,
        transactional_ddl=True,
    )
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
    if sqlite:
        raw = connection.connection.driver_connection
        broken = raw.execute("PRAGMA foreign_key_check").fetchone()
        assert broken is None, f"the migration left a row hanging from nothing: {broken}"
        raw.execute("PRAGMA foreign_keys=ON")
