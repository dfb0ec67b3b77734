"""Alembic's entry: runs each migration in its own transaction on the engine handed over."""

from __future__ import annotations

from alembic import context

from ventrix.records.tables import Base

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    context.configure(
        connection=connection,
        target_metadata=Base.metadata,
        render_as_batch=True,
        transaction_per_migration=True,
        transactional_ddl=True,
    )
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
