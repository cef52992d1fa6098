"""One check of every text that comes in, wherever it stands in a request."""

from __future__ import annotations

from typing import Any

__all__ = ["whole_texts"]

_SURROGATES = ("\ud800", "\udfff")


def whole_texts(value: Any, where: str = "") -> Any:
    """Return what was sent, if every text of it can be stored and sent back.

    Half of a character (a lone surrogate) can stand in JSON, but in no file and no
    database.

    Parameters
    ----------
    value : object
        As parsed: texts, numbers, lists and mappings of them.
    where : str
        Where it stands, for the message.

    Raises
    ------
    ValueError
        Naming the place.
    """
    if isinstance(value, str):
        if not value.isascii() and any(_SURROGATES[0] <= c <= _SURROGATES[1] for c in value):
            raise ValueError(f"{where or 'text'}: expected whole characters, got half of one")
    elif isinstance(value, dict):
        for key, inner in value.items():
            whole_texts(key, f"{where}, a name" if where else "a name")
            whole_texts(inner, f"{where}.{key}" if where else str(key))
    elif isinstance(value, list):
        for at, inner in enumerate(value):
            whole_texts(inner, f"{where}, number {at + 1}")
    return value
