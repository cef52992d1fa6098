"""What all tables share."""

from __future__ import annotations

from typing import Any, ClassVar

from sqlalchemy import JSON, MetaData, Table, UniqueConstraint, event
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

__all__ = ["Base", "keyed"]


def keyed(table: str) -> UniqueConstraint:
    """Return what holds the keys of a plan apart; see `milkwort.store.keys`."""
    return UniqueConstraint("plan_id", "key", name=f"uq_{table}_key")


class Base(DeclarativeBase):
    """The root of all tables; every one has an integer `id` that is never used twice."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map: ClassVar[dict[Any, Any]] = {
        list[Any]: JSON(none_as_null=True),
        dict[str, Any]: JSON(none_as_null=True),
    }

    id: Mapped[int] = mapped_column(primary_key=True)


@event.listens_for(Table, "after_parent_attach")
def _counted(table: Table, _metadata: MetaData) -> None:
    # SQLite would give the id of a removed newest row to the next one
    table.dialect_options["sqlite"]["autoincrement"] = True
