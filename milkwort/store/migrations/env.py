"""Migrations go forward only: before one changes a file, a copy of it is kept beside it."""

from __future__ import annotations

from alembic import context

from milkwort.store.models import Base

connection = context.config.attributes["connection"]
context.configure(
    connection=connection, target_metadata=Base.metadata, render_as_batch=True, compare_type=True
)
with context.begin_transaction():
    context.run_migrations()
