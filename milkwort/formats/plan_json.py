"""A whole plan as JSON that loads back to an equal plan.

What belongs together is known by short keys: a group names its campaign's key, a keyword its
group's. Every field is checked as it is read.
"""

from __future__ import annotations

from typing import Any

import orjson
from pydantic import TypeAdapter, ValidationError

from milkwort.core.errors import BadValueError, TooLargeError
from milkwort.core.gather.past import PastRow
from milkwort.core.gather.rivals import RivalRow
from milkwort.formats.first_plan_json import FIRST_FORMAT, from_first
from milkwort.formats.plan_document import ClientDocument, PlanDocument, RecipePartDocument
from milkwort.formats.text_table import MAX_BYTES

__all__ = ["FORMAT", "read_plan_json", "write_plan_json"]

FORMAT = "milkwort-plan-2"


def write_plan_json(document: PlanDocument) -> bytes:
    """Return the document as indented JSON."""
    return orjson.dumps(document.model_dump(mode="json"), option=orjson.OPT_INDENT_2)


def read_plan_json(data: bytes) -> PlanDocument:
    """Read a plan, of this format or the first one.

    Raises
    ------
    TooLargeError
        Past 20 MB.
    BadValueError
        Where the file is no plan, naming the field, what was expected and what came.
    """
    if len(data) > MAX_BYTES:
        raise TooLargeError("plan: expected at most 20 MB", "plan")
    try:
        tree = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise BadValueError("plan", "a JSON file", str(error)) from error
    if not isinstance(tree, dict):
        raise BadValueError("plan", "a table", tree)
    if tree.get("format") == FIRST_FORMAT:
        tree = from_first(tree)
    elif tree.get("format") != FORMAT:
        raise BadValueError("format", f"{FORMAT} or {FIRST_FORMAT}", tree.get("format"))
    document: PlanDocument = _checked(PlanDocument, tree, "")
    _check_rows(document.client)
    return document


def _check_rows(client: ClientDocument) -> None:
    """Check rows that are kept as they are read."""
    for n, rivals in enumerate(client.rival_lists):
        _checked(list[RivalRow], rivals.rows, f"client.rival_lists.{n}.rows.")
    for n, past in enumerate(client.past_lists):
        _checked(list[PastRow], past.rows, f"client.past_lists.{n}.rows.")
    for n, recipe in enumerate(client.recipes):
        _checked(list[RecipePartDocument], recipe.parts, f"client.recipes.{n}.parts.")


def _checked(kind: Any, tree: Any, before: str) -> Any:
    try:
        return TypeAdapter(kind).validate_python(tree)
    except ValidationError as error:
        first = error.errors()[0]
        where = before + ".".join(str(part) for part in first["loc"])
        got = first.get("input")
        got = "a table" if isinstance(got, dict) else "a list" if isinstance(got, list) else got
        raise BadValueError(where or "plan", _expected(first["msg"]), got) from error


def _expected(message: str) -> str:
    """Return what was expected in the middle of a sentence."""
    return message.removeprefix("Input should be ").replace("Input should", "it to", 1)
