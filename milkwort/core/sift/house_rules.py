"""House rules: the planner's own rules that call keywords in bulk.

A rule never touches a call made by hand, and a keyword takes the first rule that fits.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.market.standing import STANDINGS
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.texts import canonical, normalise, word_counts

__all__ = ["FIELDS", "HouseRule", "RuleWork", "When", "rule_of", "rules_at_work"]

Mask = NDArray[np.bool_]

_CHOICES: dict[str, tuple[str, ...]] = {"standing": STANDINGS, "intent": INTENTS}
_FLAGS = ("warning", "thin")
_BOUNDS = ("searches", "price", "words", "customers")
FIELDS: tuple[str, ...] = (*_CHOICES, *_FLAGS, "text", "origin", *_BOUNDS)
"""What a condition may ask of: ``is`` a value, or ``from`` and ``to`` for figures."""


@dataclass(frozen=True)
class When:
    """One condition of a rule.

    Attributes
    ----------
    field : str
        From `FIELDS`.
    value : str
        What it must be: an intent, a standing, words that stand in the text, a source;
        ``yes`` or ``no`` for warning words and thin keywords. No words stand in no text.
    least, most : float or None
        Ends of a figure: own searches a month, median click price, words, customers a month.
    """

    field: str
    value: str = ""
    least: float | None = None
    most: float | None = None

    def __post_init__(self) -> None:
        known = _CHOICES.get(self.field) or (("yes", "no") if self.field in _FLAGS else None)
        if self.field not in FIELDS:
            raise BadValueError("condition", "one of " + ", ".join(FIELDS), self.field)
        if known and self.value not in known:
            raise BadValueError(self.field, "one of " + ", ".join(known), self.value)
        if self.field in _BOUNDS and self.least is None and self.most is None:
            raise BadValueError(self.field, "a least or a most figure", "neither")


@dataclass(frozen=True)
class HouseRule:
    """Keywords that fit all conditions get a call.

    Attributes
    ----------
    when : tuple of When
        At least one.
    call : str
        From `CALLS`, but not *none*.
    reason : str
    """

    when: tuple[When, ...]
    call: str
    reason: str = ""

    def __post_init__(self) -> None:
        if not self.when:
            raise BadValueError("house rule", "at least one condition", "none")
        if self.call not in CALLS or self.call == "none":
            raise BadValueError("house rule", "one of keep, hold, drop, block", self.call)


def rule_of(values: Mapping[str, Any]) -> HouseRule:
    """Return a rule from plain values.

    Parameters
    ----------
    values : mapping
        ``when``, a list of mappings; ``call``; ``reason``.

    Raises
    ------
    BadValueError
        For a condition or a call that there isn't.
    """
    when = tuple(When(**one) for one in values["when"])
    return HouseRule(when, values["call"], values["reason"])


@dataclass(frozen=True)
class RuleWork:
    """What one rule would do.

    Attributes
    ----------
    rows : tuple of int
        Rows it would call.
    by_hand : int
        Rows that fit but were called by hand, and stay.
    """

    rows: tuple[int, ...]
    by_hand: int


def rules_at_work(
    rules: Sequence[HouseRule],
    result: PlanResult,
    lexicon: Lexicon,
    called_by: Sequence[str],
    origins: Sequence[str],
    reasons: Sequence[str],
) -> list[RuleWork]:
    """Say what rules would do, in their order, before they do it.

    Parameters
    ----------
    rules : sequence of HouseRule
    result : PlanResult
    lexicon : Lexicon
    called_by, origins, reasons : sequence of str, length n_keywords
        Who made the call, empty where there is none; where the figures come from; why.
    """
    table = result.table
    hand = np.array([by == "hand" for by in called_by], dtype=bool)
    free = ~hand
    work = []
    for rule in rules:
        fits = np.ones(len(table), dtype=bool)
        for when in rule.when:
            fits &= _fits(when, result, lexicon, origins)
        same = (table.call == CALLS.index(rule.call)) & np.array(
            [reason == rule.reason for reason in reasons], dtype=bool
        )
        rows = np.flatnonzero(fits & free & ~same)
        work.append(RuleWork(tuple(rows.tolist()), int((fits & hand).sum())))
        free &= ~fits
    return work


def _fits(when: When, result: PlanResult, lexicon: Lexicon, origins: Sequence[str]) -> Mask:
    table = result.table
    if when.field in _BOUNDS:
        return _between(_figure(when.field, result), when)
    if when.field == "standing":
        return np.asarray(result.standing.standing == STANDINGS.index(when.value))
    if when.field == "intent":
        return np.asarray(table.intent == INTENTS.index(when.value))
    if when.field == "thin":
        return np.asarray(result.standing.thin == (when.value == "yes"))
    if when.field == "origin" and not when.value.strip():
        return np.zeros(len(table), dtype=bool)
    if when.field == "origin":
        return np.array([when.value.casefold() in o.casefold() for o in origins], dtype=bool)
    if when.field == "warning":
        wanted = when.value == "yes"
        return np.array([bool(lexicon.warning_words(t)) == wanted for t in table.texts], dtype=bool)
    words = canonical(normalise(when.value), {}, True)
    return np.array([_holds(canonical(t, {}, True), words) for t in table.texts], dtype=bool)


def _figure(name: str, result: PlanResult) -> np.ndarray:
    if name == "searches":
        return result.demand.own
    if name == "price":
        return np.exp(result.prices.mu)
    if name == "words":
        return word_counts(result.table.texts)
    kept = result.table.kept
    return np.where(kept, result.expected.customers, result.not_kept.customers)


def _between(figure: np.ndarray, when: When) -> Mask:
    with np.errstate(invalid="ignore"):
        fits = np.isfinite(figure)
        if when.least is not None:
            fits &= figure >= when.least
        if when.most is not None:
            fits &= figure <= when.most
    return np.asarray(fits)


def _holds(text: tuple[str, ...], run: tuple[str, ...]) -> bool:
    size = len(run)
    return size > 0 and any(text[at : at + size] == run for at in range(len(text) - size + 1))
