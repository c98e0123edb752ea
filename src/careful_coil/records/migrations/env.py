"""Alembic's door: the connection is handed in by the shop that opens."""

from alembic import context

from careful_coil.records.tables import metadata

context.configure(connection=context.config.attributes["connection"], target_metadata=metadata)
with context.begin_transaction():
    context.run_migrations()
