"""LEARN.json: what results teach about a plan, for other programs and for tests.

``python -m milkwort.formats.learn_json`` writes its JSON Schema anew.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from pathlib import Path
from typing import Any, Literal

import numpy as np
import orjson
from pydantic import BaseModel, ConfigDict, Field

from milkwort.core.arrays import Floats
from milkwort.core.errors import Refusal
from milkwort.core.learn.difference import Difference
from milkwort.core.learn.evidence import VERDICTS
from milkwort.core.learn.learned import Learned
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.match_types import MATCHES

__all__ = ["LearnDocument", "learn_document", "learn_json", "learn_schema_text"]

SCHEMA_FILE = Path(__file__).with_name("learn.schema.json")
MatchName = Literal["exact", "phrase", "broad"]
VerdictName = Literal["stop", "wait", "raise", "no_prior"]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class OwnRuleSays(_Part):
    """What a rule of thumb would do, and how often it would cut a good keyword."""

    cuts: bool
    false_cut: float


class Factors(_Part):
    """Actual over forecast, shrunk by what is known."""

    searches: float
    click_rate: float
    price: float = Field(description="On the market's prices, not on the average paid.")


class KeywordLearned(_Part):
    """One keyword; money in the plan's currency."""

    keyword: str
    match: MatchName
    group: str
    clicks: float
    exposure: float = Field(description="Clicks, each with the chance of being reported by now.")
    customers: float
    spend: float
    cpc: float | None
    plan_factor: float
    group_factor: float
    prior_rate: float
    rate: float
    missing: float | None = Field(description="Chance of missing the rule.")
    losing: float | None = Field(description="Chance of losing money.")
    verdict: VerdictName
    clicks_needed: float | None = Field(description="Until a stop, if nothing sells; None: never.")
    own_rule: OwnRuleSays
    corrections: Factors
    worth_testing: float = Field(description="Money a month that knowing its rate would bring.")


class GroupLearned(_Part):
    """One ad group."""

    group: str
    exposure: float
    customers: float
    spend: float
    factor: float
    missing: float | None
    verdict: VerdictName


class TermLearned(_Part):
    """One term, and what is suggested."""

    term: str
    keyword: str
    match: str
    clicks: float
    exposure: float
    customers: float
    missing: float | None
    suggestion: Literal["block_family", "block_text", "own_keyword", "wait"]
    ground: str
    form: str | None = Field(description="What to block, or the keyword's text.")
    bid: float | None
    group: str | None
    clicks_needed: float | None


class Unmatched(_Part):
    """A row that is no keyword of the plan."""

    row: int
    keyword: str
    match: str
    clicks: float
    customers: float
    cost: float
    nearest: str | None


class RefusedRow(_Part):
    """A row that could not be read."""

    row: int
    column: str
    value: str
    why: str


class LearnDocument(_Part):
    """Everything `milkwort learn` says."""

    as_of: str
    since: str
    until: str
    keywords: list[KeywordLearned]
    groups: list[GroupLearned]
    terms: list[TermLearned]
    difference: dict[str, dict[str, float]]
    unmatched: list[Unmatched]
    refused: list[RefusedRow]


def learn_document(
    result: PlanResult,
    learned: Learned,
    texts: Sequence[str],
    groups: Sequence[str],
    terms: TermRows | None,
    unmatched: Sequence[dict[str, Any]],
    refused: Sequence[Refusal],
) -> dict[str, Any]:
    """Return everything results teach, as plain values.

    Parameters
    ----------
    result : PlanResult
    learned : Learned
    texts : sequence of str
        Keywords as typed.
    groups : sequence of str
        Names by the group's number.
    terms : TermRows or None
        Those that advice was given for.
    unmatched : sequence of dict
        Rows of no keyword.
    refused : sequence of Refusal
    """
    return {
        "as_of": learned.as_of.isoformat(), "since": learned.first.isoformat(),
        "until": learned.last.isoformat(),
        "keywords": _keywords(result, learned, texts, groups),
        "groups": _groups(learned, groups),
        "terms": [] if terms is None else _terms(result, learned, texts, groups, terms),
        "difference": {"customers": _sums(learned.customers, "reported"),
                       "spend": _sums(learned.spend, "actual")},
        "unmatched": list(unmatched),
        "refused": [r.as_dict() for r in refused],
    }  # fmt: skip


def learn_json(document: dict[str, Any]) -> bytes:
    """Return a document as JSON; infinities and NaN become null."""
    return orjson.dumps(document, option=orjson.OPT_INDENT_2)


def learn_schema_text() -> str:
    """Return the JSON Schema that is published with the program."""
    return json.dumps(LearnDocument.model_json_schema(), indent=1, ensure_ascii=False) + "\n"


def _keywords(
    result: PlanResult, learned: Learned, texts: Sequence[str], groups: Sequence[str]
) -> list[dict[str, Any]]:
    table, e = result.table, learned.judged.evidence
    rows = np.flatnonzero(table.kept | learned.seen.shown).tolist()
    fixes = learned.corrections
    prices, rates, searches = (one.factor for one in (fixes.price, fixes.click_rate,
                                                      fixes.searches))  # fmt: skip
    return [
        {
            "keyword": texts[row], "match": MATCHES[table.match[row]],
            "group": groups[table.group[row]] if table.group[row] >= 0 else "",
            "clicks": float(learned.seen.clicks[row]),
            "exposure": float(learned.seen.exposure[row]),
            "customers": float(learned.seen.customers[row]),
            "spend": float(learned.seen.cost[row]), "cpc": _plain(e.cpc, row),
            "plan_factor": float(e.plan_factor[row]), "group_factor": float(e.group_factor[row]),
            "prior_rate": float(e.prior_rate[row]), "rate": float(e.rate[row]),
            "missing": _plain(e.missing, row), "losing": _plain(e.losing, row),
            "verdict": VERDICTS[e.verdict[row]], "clicks_needed": _plain(e.clicks_needed, row),
            "own_rule": {"cuts": bool(learned.own_rule.cuts[row]),
                         "false_cut": float(learned.own_rule.false_cut[row])},
            "corrections": {"searches": float(searches[row]), "click_rate": float(rates[row]),
                            "price": float(prices[row])},
            "worth_testing": float(learned.testing.worth[row]),
        }
        for row in rows
    ]  # fmt: skip


def _groups(learned: Learned, groups: Sequence[str]) -> list[dict[str, Any]]:
    g = learned.judged.groups
    return [
        {
            "group": groups[at], "exposure": float(g.exposure[at]),
            "customers": float(g.customers[at]), "spend": float(g.spend[at]),
            "factor": float(g.factor[at]), "missing": _plain(g.missing, at),
            "verdict": VERDICTS[g.verdict[at]],
        }
        for at in range(len(g.exposure))
    ]  # fmt: skip


def _terms(
    result: PlanResult, learned: Learned, texts: Sequence[str], groups: Sequence[str],
    terms: TermRows,
) -> list[dict[str, Any]]:  # fmt: skip
    found = []
    for at, advice in enumerate(learned.terms):
        row = int(terms.keyword[at])
        found.append({
            "term": terms.texts[at], "keyword": texts[row] if row >= 0 else "",
            "match": MATCHES[result.table.match[row]] if row >= 0 else "",
            "clicks": float(terms.clicks[at]), "exposure": float(terms.exposure[at]),
            "customers": float(terms.customers[at]), "missing": advice.missing,
            "suggestion": advice.suggestion, "ground": advice.ground,
            "form": None if advice.form is None else advice.form[0], "bid": advice.bid,
            "group": groups[advice.group] if advice.group >= 0 else None,
            "clicks_needed": _finite(advice.clicks_needed),
        })  # fmt: skip
    return found


def _sums(difference: Difference, last: str) -> dict[str, float]:
    return difference.sums(last)


def _plain(column: Floats, at: int) -> float | None:
    return _finite(float(column[at]))


def _finite(value: float) -> float | None:
    return value if np.isfinite(value) else None


if __name__ == "__main__":
    SCHEMA_FILE.write_text(learn_schema_text(), encoding="utf-8")
