"""A hand-over holds several files, the plan as it stood, and what became of it."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

_COUNTED = {"sqlite_autoincrement": True}


def upgrade() -> None:
    with op.batch_alter_table("plan", recreate="always", table_kwargs=_COUNTED) as plan:
        plan.add_column(sa.Column("counted_by", sa.String(), nullable=False, server_default=""))
        plan.add_column(sa.Column("visit_tag", sa.String(), nullable=False, server_default=""))
        plan.add_column(sa.Column("tell_weekend", sa.Boolean(), nullable=False, server_default="0"))
        plan.add_column(sa.Column("report_style", sa.JSON(), nullable=True))
        plan.add_column(sa.Column("report_logo", sa.String(), nullable=True))
        plan.add_column(sa.Column("stale_days", sa.Integer(), nullable=False, server_default="180"))
    op.create_table(
        "hand_over_file",
        sa.Column("hand_over_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("filename", sa.String(), nullable=False),
        sa.Column("rows", sa.Integer(), nullable=False),
        sa.Column("sha256", sa.String(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["hand_over_id"], ["hand_over.id"], name=op.f("fk_hand_over_file_hand_over_id")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hand_over_file")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_hand_over_file_hand_over_id"), "hand_over_file", ["hand_over_id"])
    op.create_table(
        "account_sheet",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("columns", sa.JSON(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_account_sheet_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_account_sheet")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_account_sheet_plan_id"), "account_sheet", ["plan_id"])
    op.execute(
        "INSERT INTO hand_over_file (hand_over_id, kind, filename, rows, sha256, content)"
        " SELECT id, kind, filename, rows, sha256, content FROM hand_over ORDER BY id"
    )
    with op.batch_alter_table("hand_over", recreate="always", table_kwargs=_COUNTED) as sent:
        sent.add_column(sa.Column("status", sa.String(), nullable=False, server_default="written"))
        sent.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
        sent.add_column(sa.Column("label", sa.String(), nullable=False, server_default=""))
        sent.add_column(sa.Column("points", sa.JSON(), nullable=True))
        sent.add_column(sa.Column("sheets", sa.LargeBinary(), nullable=True))
        sent.add_column(sa.Column("state", sa.LargeBinary(), nullable=True))
        sent.add_column(sa.Column("forecast", sa.LargeBinary(), nullable=True))
        for column in ("kind", "filename", "rows", "sha256", "content"):
            sent.drop_column(column)
    # no step that can be undone names these columns: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0011' WHERE schema = '0010'")
