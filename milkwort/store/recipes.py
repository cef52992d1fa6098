"""Crossings that were saved."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change
from milkwort.store.plan_list import client_of

__all__ = ["add_recipe", "list_recipes", "remove_recipe"]


def list_recipes(session: Session, client_id: int) -> Sequence[models.Recipe]:
    """Return a client's saved crossings in the order they were saved."""
    return session.scalars(
        select(models.Recipe)
        .where(models.Recipe.client_id == client_id)
        .order_by(models.Recipe.id),
        execution_options={"populate_existing": True},
    ).all()


def add_recipe(change: Change, name: str, parts: list[dict[str, Any]]) -> None:
    """Save a crossing; one of the same name is replaced."""
    client_id = client_of(change.session, change.plan_id)
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= 80:
        raise BadValueError("name of the crossing", "1 to 80 characters", name)
    same = [r.id for r in list_recipes(change.session, client_id) if r.name == bare]
    change.delete(models.Recipe, same)
    change.insert(models.Recipe, [{"client_id": client_id, "name": bare, "parts": parts}])


def remove_recipe(change: Change, recipe_id: int) -> None:
    """Forget a saved crossing.

    Raises
    ------
    NotFoundError
        Where the client has none of that id.
    """
    client_id = client_of(change.session, change.plan_id)
    if recipe_id not in [r.id for r in list_recipes(change.session, client_id)]:
        raise NotFoundError("There is no such crossing.", "recipe")
    change.delete(models.Recipe, [recipe_id])
