"""A conversion counted in one step, or in two: visit to enquiry, enquiry to sale."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

__all__ = ["in_steps"]

_CLOSE = 0.5
"""Share of enquiries that become sales where nobody has said it yet."""
_ENDS = ("low", "likely", "high")


def in_steps(values: Mapping[str, Any], steps: int) -> dict[str, float | None]:
    """Return the rates of a first offer counted in so many steps, the whole staying as it is.

    Parameters
    ----------
    values : mapping
        The brief by field.
    steps : int
        1 or 2.

    Returns
    -------
    dict of str to float or None
        Fields of the brief; none where it is counted so already. A rate that two steps
        could not hold (over a half) keeps its first step at 1.
    """
    if steps == (1 if values["close_likely"] is None else 2):
        return {}
    if steps == 1:
        likely = values["close_likely"]
        made: dict[str, float | None] = {}
        for end in _ENDS:
            close = likely if values[f"close_{end}"] is None else values[f"close_{end}"]
            made |= {f"rate_{end}": values[f"rate_{end}"] * close, f"close_{end}": None}
        return made
    return {
        name: value
        for end in _ENDS
        for name, value in (
            (f"rate_{end}", min(1.0, values[f"rate_{end}"] / _CLOSE)),
            (f"close_{end}", max(_CLOSE, values[f"rate_{end}"])),
        )
    }
