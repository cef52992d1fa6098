"""A plan's own ways of sifting: quick reasons, saved filters, house rules, kinds of words."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any

from milkwort.core.errors import BadValueError
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["OwnWays", "own_ways_of", "set_own"]


def _when(field_name: str, value: str) -> dict[str, Any]:
    return {"field": field_name, "value": value, "least": None, "most": None}


_REASONS = ("too dear", "not what we sell", "another town", "only looking", "a rival's name")
_RULES: tuple[dict[str, Any], ...] = (
    {"when": [_when("intent", "job")], "call": "block", "reason": "seeks a job"},
    {"when": [_when("standing", "beyond")], "call": "drop", "reason": "too dear"},
)


@dataclass(frozen=True)
class OwnWays:
    """What a planner has made of the tool for one plan.

    Attributes
    ----------
    quick_reasons : list of str
        Reasons at hand for a call.
    saved_filters : list of dict
        ``name`` and ``query``, as it stands in the address.
    house_rules : list of dict
        As `milkwort.core.sift.house_rules.HouseRule` has its fields.
    word_kinds : dict of str to str
        Kind of a word or run of words, by its normalised text.
    """

    quick_reasons: list[str] = field(default_factory=lambda: list(_REASONS))
    saved_filters: list[dict[str, Any]] = field(default_factory=list)
    house_rules: list[dict[str, Any]] = field(default_factory=lambda: list(_RULES))
    word_kinds: dict[str, str] = field(default_factory=dict)


def own_ways_of(plan: models.Plan) -> OwnWays:
    """Return a plan's own ways; what was never set is as every plan starts."""
    held = {f.name: getattr(plan, f.name) for f in fields(OwnWays)}
    return OwnWays(**{name: value for name, value in held.items() if value is not None})


def set_own(change: Change, values: dict[str, Any]) -> None:
    """Set some of the plan's own ways.

    Raises
    ------
    BadValueError
        For an unknown name.
    """
    unknown = sorted(set(values) - {f.name for f in fields(OwnWays)})
    if unknown:
        raise BadValueError("own ways", "known names", ", ".join(unknown))
    change.update(models.Plan, {change.plan_id: values})
