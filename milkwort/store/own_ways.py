"""A plan's own ways of sifting: quick reasons, saved filters, house rules, kinds of words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from typing import Any

from milkwort.core.errors import BadValueError
from milkwort.core.handover.report.shape import STYLE_STARTS
from milkwort.core.sift.house_rules import HouseRule, When, rule_of
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["OwnWays", "SavedFilter", "own_ways_of", "set_own"]


_REASONS = ("too dear", "not what we sell", "another town", "only looking", "a rival’s name")
_RULES = (
    HouseRule((When("intent", "job"),), "block", "seeks a job"),
    HouseRule((When("standing", "beyond"),), "drop", "too dear"),
)


@dataclass(frozen=True)
class SavedFilter:
    """A filter by name; `query` as it stands in the address."""

    name: str
    query: str


@dataclass(frozen=True)
class OwnWays:
    """What a planner has made of the tool for one plan.

    Attributes
    ----------
    quick_reasons : list of str
        Reasons at hand for a call.
    saved_filters : list of SavedFilter
    house_rules : list of HouseRule
    word_kinds : dict of str to str
        Kind of a word or run of words, by its normalised text.
    report_style : dict
        What the planner chose of the client's sheet: its parts, columns, marks, letter-head.
    """

    quick_reasons: list[str] = field(default_factory=lambda: list(_REASONS))
    saved_filters: list[SavedFilter] = field(default_factory=list)
    house_rules: list[HouseRule] = field(default_factory=lambda: list(_RULES))
    word_kinds: dict[str, str] = field(default_factory=dict)
    report_style: dict[str, Any] = field(default_factory=lambda: dict(STYLE_STARTS))


def own_ways_of(plan: models.Plan) -> OwnWays:
    """Return a plan's own ways; what was never set is as every plan starts."""
    held = {f.name: getattr(plan, f.name) for f in fields(OwnWays)}
    said = {name: value for name, value in held.items() if value is not None}
    for name, made in (("saved_filters", _filter), ("house_rules", rule_of)):
        if name in said:
            said[name] = list(map(made, said[name]))
    if "report_style" in said:
        said["report_style"] = {**STYLE_STARTS, **said["report_style"]}
    return OwnWays(**said)


def _filter(stored: Mapping[str, str]) -> SavedFilter:
    return SavedFilter(**stored)


def set_own(change: Change, values: Mapping[str, Any]) -> None:
    """Set some of the plan's own ways, each as it is stored.

    Raises
    ------
    BadValueError
        For an unknown name.
    """
    unknown = sorted(set(values) - {f.name for f in fields(OwnWays)})
    if unknown:
        raise BadValueError("own ways", "known names", ", ".join(unknown))
    change.update(models.Plan, {change.plan_id: values})
