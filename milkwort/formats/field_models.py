"""Models of what is taken and given, made of the core's own tables.

A field is written down once, in the core; here it becomes one that Pydantic checks.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterable, Mapping
from typing import Any, Protocol, TypeVar, get_args, get_origin, get_type_hints

from pydantic import BaseModel, Field, create_model

from milkwort.core.brief.fields import BriefField

__all__ = ["with_brief_fields", "with_columns", "with_fields_of"]


class Column(Protocol):
    """A column's name, and what it holds for one keyword."""

    @property
    def name(self) -> str: ...  # said above

    @property
    def holds(self) -> Any: ...  # said above


_M = TypeVar("_M", bound=BaseModel)
_REQUIRED: Any = ...


def with_brief_fields(
    fields: Iterable[BriefField], shapes: Mapping[type, Any], *, all_there: bool = False
) -> Callable[[type[_M]], type[_M]]:
    """Give a model a field for each of the brief's that it doesn't say itself.

    Parameters
    ----------
    fields : iterable of BriefField
    shapes : mapping
        What stands for a kind that is a dataclass of the core.
    all_there : bool
        Whether nothing may be left out; else what is left out is what a new plan has, but
        for fields that must be said.
    """

    def make(model: type[_M]) -> type[_M]:
        made = {}
        for field in fields:
            if field.name in model.model_fields:
                continue
            kind = shapes.get(field.holds, field.holds)
            start = _REQUIRED if all_there or field.required else field.start
            said = f"{field.label}, {field.unit}" if field.unit else field.label
            made[field.name] = (
                kind | None if field.may_be_open else kind,
                Field(start, max_length=field.length, description=said),
            )
        return _made(model, made)

    return make


def with_fields_of(of: type, lengths: Mapping[str, int]) -> Callable[[type[_M]], type[_M]]:
    """Give a model a field for each of a dataclass's, none of which may be left out.

    Parameters
    ----------
    of : type
        The dataclass; its tuples become lists.
    lengths : mapping
        The most characters or entries of a field.
    """

    def make(model: type[_M]) -> type[_M]:
        hints = get_type_hints(of)
        return _made(
            model,
            {
                f.name: (_listed(hints[f.name]), Field(max_length=lengths.get(f.name)))
                for f in dataclasses.fields(of)
            },
        )

    return make


def with_columns(
    columns: Iterable[Column], *, may_be_left_out: bool = False
) -> Callable[[type[_M]], type[_M]]:
    """Give a model an array for each column, a place a keyword.

    Parameters
    ----------
    columns : iterable of Column
    may_be_left_out : bool
        Whether a column may be left out, as None.
    """

    def make(model: type[_M]) -> type[_M]:
        kinds = {c.name: list[c.holds] for c in columns}  # type: ignore[name-defined]  # a type made of a value
        if may_be_left_out:
            return _made(model, {name: (kind | None, None) for name, kind in kinds.items()})
        return _made(model, {name: (kind, _REQUIRED) for name, kind in kinds.items()})

    return make


def _made(model: type[_M], fields: Mapping[str, Any]) -> type[_M]:
    return create_model(
        model.__name__,
        __base__=model,
        __module__=model.__module__,
        __doc__=model.__doc__,
        **fields,
    )


def _listed(kind: Any) -> Any:
    return list[get_args(kind)[0]] if get_origin(kind) is tuple else kind  # type: ignore[misc]  # a type made of a type
