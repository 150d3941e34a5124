"""What the migration tool runs: our engine, foreign keys off while tables are rebuilt."""

from __future__ import annotations

from alembic import context

from ohmcensus.storage.tables import metadata

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    connection.connection.execute("PRAGMA foreign_keys=OFF")
    context.configure(connection=connection, target_metadata=metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
    connection.connection.execute("PRAGMA foreign_keys=ON")
