"""A day as it is written for machines: 2026-04-30, and nothing else that could be read as one."""

from __future__ import annotations

import re
from typing import Any

__all__ = ["only_iso_day"]

_DAY = re.compile(r"[0-9]{4}-[0-9]{2}-[0-9]{2}")


def only_iso_day(value: Any) -> Any:
    """Return a value that is no text and no number, or a text that is a day; a check before others.

    Parameters
    ----------
    value : object
        A number would be read as seconds since 1970 by those who come after.

    Raises
    ------
    ValueError
        For a number, or a text of another shape.
    """
    if isinstance(value, (int, float)) or (isinstance(value, str) and not _DAY.fullmatch(value)):
        raise ValueError("expected a day as 2026-04-30")
    return value
