"""Results of a client's account, as they were brought in."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "result_import",
        sa.Column("client_id", sa.Integer(), nullable=False),
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("sha256", sa.String(), nullable=False),
        sa.Column("level", sa.String(), nullable=False),
        sa.Column("since", sa.String(), nullable=False),
        sa.Column("until", sa.String(), nullable=False),
        sa.Column("as_of", sa.String(), nullable=False),
        sa.Column("rows", sa.Integer(), nullable=False),
        sa.Column("in_force", sa.Boolean(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["client_id"], ["client.id"], name=op.f("fk_result_import_client_id")
        ),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_result_import_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_result_import")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_result_import_client_id"), "result_import", ["client_id"])
    # no step that can be undone names this table: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0013' WHERE schema = '0012'")
