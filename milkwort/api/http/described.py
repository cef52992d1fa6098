"""The description of the API: what answers look like is worked out only when it is asked for.

Answers leave as ready bytes, so that no model of one is needed to serve. A route names the
model, and the description holds it: starting is twice as fast as where each route builds it.
"""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI
from fastapi.encoders import jsonable_encoder
from fastapi.openapi.models import Components
from fastapi.openapi.utils import get_openapi
from pydantic import BaseModel, ConfigDict
from pydantic.json_schema import models_json_schema

from milkwort.core.errors import ProgramError

__all__ = ["Given", "describe", "shape_of"]

Responses = dict[int | str, dict[str, Any]]
_REF = "#/components/schemas/{model}"
_NAMED: dict[str, type[BaseModel]] = {}
"""Models of answers by name, which is how a description knows them."""


class Given(BaseModel):
    """The root of what is given: built when it is first described or checked."""

    model_config = ConfigDict(defer_build=True)


def shape_of(model: type[BaseModel], *codes: int, or_none: bool = False) -> Responses:
    """Return the documented answer of a route that sends ready bytes.

    Parameters
    ----------
    model : type of BaseModel
    codes : int
        With which it is answered; 200 where left out.
    or_none : bool
        Whether it may be null.
    """
    if _NAMED.setdefault(model.__name__, model) is not model:
        raise ProgramError(f"two answers are called {model.__name__}")
    schema: dict[str, Any] = {"$ref": _REF.format(model=model.__name__)}
    if or_none:
        schema = {"anyOf": [schema, {"type": "null"}]}
    return {code: {"content": {"application/json": {"schema": schema}}} for code in codes or (200,)}


def describe(app: FastAPI) -> None:
    """Let an application describe itself with the answers its routes name."""

    def description() -> dict[str, Any]:
        if app.openapi_schema is None:
            app.openapi_schema = _described(app)
        return app.openapi_schema

    app.openapi = description  # type: ignore[method-assign] # as FastAPI's own pages say to


def _described(app: FastAPI) -> dict[str, Any]:
    whole = get_openapi(title=app.title, version=app.version, routes=app.routes)
    shapes = whole.setdefault("components", {}).setdefault("schemas", {})
    _, answers = models_json_schema(
        [(model, "serialization") for model in _NAMED.values()], ref_template=_REF
    )
    # put as FastAPI puts what it describes itself
    said = jsonable_encoder(Components(schemas=answers["$defs"]), by_alias=True, exclude_none=True)
    for name, shape in said["schemas"].items():
        if shapes.setdefault(name, shape) != shape:
            raise ProgramError(f"{name} is taken and given, and not the same")
    whole["components"]["schemas"] = dict(sorted(shapes.items()))
    return whole
