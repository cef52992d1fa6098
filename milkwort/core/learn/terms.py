"""What people really typed, and what to do about it: block, a keyword of its own, or wait."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from scipy.special import betainc

from milkwort.core.arrange.group_likeness import likest_groups
from milkwort.core.arrange.to_block import SafeForms, money_by_run
from milkwort.core.arrays import Floats, Ints
from milkwort.core.counted import in_percent
from milkwort.core.learn.evidence import Evidence, clicks_to_stop
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.foreign import Tongue, foreign, tongue_of
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise

__all__ = ["SUGGESTIONS", "Suggestion", "TermAdvice", "TermRows", "advise_terms"]

Suggestion = Literal["block_family", "block_text", "own_keyword", "wait"]
SUGGESTIONS: tuple[str, ...] = get_args(Suggestion)

_OWN_MISSING = 0.5
_OWN_RAISE = 0.10
_LONGEST_RUN = 2


@dataclass(frozen=True)
class TermRows:
    """Terms, each once by keyword that served it; arrays of shape (n_terms,).

    Attributes
    ----------
    texts : tuple of str
        As typed.
    keyword : Ints
        Row of the plan's table that served it; −1 where none is known.
    impressions, clicks, exposure, cost, customers : Floats
    """

    texts: tuple[str, ...]
    keyword: Ints
    impressions: Floats
    clicks: Floats
    exposure: Floats
    cost: Floats
    customers: Floats


@dataclass(frozen=True)
class TermAdvice:
    """What is suggested for one term.

    Attributes
    ----------
    missing : float or None
        Chance that it sells too seldom for what it costs; None without clicks or a price.
    rate : float
        Customers a click, believed.
    suggestion : Suggestion
    ground : str
        Why, in words.
    form : tuple of (str, str) or None
        What to block, and how.
    bid : float or None
        For a keyword of its own, money a click.
    group : int
        Number of the likest group; −1 for none.
    clicks_needed : float
        Until evidence would say to block, if nothing sells; infinite for never.
    saves : float
        Money that went to what would be blocked; 0 for a keyword of its own.
    """

    missing: float | None
    rate: float
    suggestion: Suggestion
    ground: str
    form: tuple[str, str] | None = None
    bid: float | None = None
    group: int = -1
    clicks_needed: float = float("inf")
    saves: float = 0.0


@dataclass
class _Terms:
    """Terms with what is known of them, worked out once."""

    result: PlanResult
    lexicon: Lexicon
    rows: TermRows
    normal: list[str]
    offer: Ints
    rate: Floats
    n: Floats
    x: Floats
    missing: Floats
    safe: SafeForms
    kept: frozenset[str]
    exact: frozenset[str]
    needed: Floats
    tongue: Tongue
    saved: dict[tuple[str, ...], float]

    def allowed(self, at: int) -> float:
        return float(_allowed(self.result)[self.offer[at]])


def advise_terms(
    result: PlanResult,
    lexicon: Lexicon,
    rows: TermRows,
    evidence: Evidence,
    sold_before: Sequence[str] = (),
) -> list[TermAdvice]:
    """Suggest what to do about each term; the first rule that holds decides.

    What it says (a warning word, another place, a rival, another language): block the family
    in its narrowest safe form. Evidence: block the text. A family whose terms miss together:
    block the run. Sold, and good for its price: a keyword of its own. Else wait.

    Parameters
    ----------
    result : PlanResult
    lexicon : Lexicon
        With the plan's own places, rivals and words.
    rows : TermRows
    evidence : Evidence
        Of the plan's keywords.
    sold_before : sequence of str
        Further terms that have sold.

    Returns
    -------
    list of TermAdvice
        In the order of the rows.
    """
    if not rows.texts:
        return []
    terms = _terms(result, lexicon, rows, evidence, sold_before)
    families = _families(terms)
    group = _likest_groups(result, terms.normal)
    return [_advice(terms, at, families, int(group[at])) for at in range(len(rows.texts))]


def _terms(
    result: PlanResult, lexicon: Lexicon, rows: TermRows, evidence: Evidence,
    sold_before: Sequence[str],
) -> _Terms:  # fmt: skip
    assumed = result.brief.assumed
    normal = [normalise(text) for text in rows.texts]
    served = rows.keyword >= 0
    at = np.maximum(rows.keyword, 0)
    many = len(result.table) > 0
    offer = np.where(served, result.table.offer[at], 0) if many else np.zeros(len(at), np.int64)
    likely = np.array([o.rate.likely for o in result.brief.offers])[offer]
    intent = np.array([assumed[f"intent_{lexicon.intent(text).intent}"] for text in normal])
    # f·g of its keyword; κ is in f already
    own = evidence.plan_factor * evidence.group_factor
    factor = np.where(served, own[at], 1.0) if many else np.ones(len(at))
    rate = np.clip(likely * intent * factor, 0.0, 1 - 1e-9)
    x = np.minimum(rows.customers, rows.clicks)
    n = np.maximum(rows.exposure, x)
    weight = assumed["term_weight"]
    alpha, beta = weight * rate + x, weight * (1 - rate) + n - x
    price = np.divide(rows.cost, rows.clicks, out=np.full(len(n), np.nan), where=rows.clicks > 0)
    line = price / _allowed(result)[offer]
    known = np.isfinite(line) & (alpha > 0)
    missing = np.full(len(n), np.nan)
    missing[known] = betainc(alpha[known], beta[known], np.clip(line[known], 0.0, 1.0))
    # a term of which nobody buys misses for sure
    missing = np.where(np.isfinite(line) & (alpha <= 0), 1.0, missing)
    kept = np.flatnonzero(result.table.kept)
    sold = [text for text, c in zip(rows.texts, rows.customers.tolist(), strict=True) if c > 0]
    exact = [row for row in kept.tolist() if MATCHES[result.table.match[row]] == "exact"]
    safe = SafeForms(result, [*sold, *sold_before], rows.texts)
    return _Terms(
        result=result, lexicon=lexicon, rows=rows, normal=normal, offer=offer,
        rate=np.where(alpha > 0, alpha / (alpha + beta), 0.0), n=n, x=x, missing=missing,
        safe=safe, saved=money_by_run(safe, zip(rows.texts, rows.cost.tolist(), strict=True)),
        kept=frozenset(result.table.texts[row] for row in kept.tolist()),
        exact=frozenset(result.table.texts[row] for row in exact),
        tongue=tongue_of(result.table.texts),
        needed=clicks_to_stop(n, alpha, beta, np.nan_to_num(line), known, assumed),
    )  # fmt: skip


def _allowed(result: PlanResult) -> Floats:
    return np.array([worth.allowed for worth in result.brief.worths])


def _advice(
    terms: _Terms, at: int, families: dict[int, tuple[str, float]], group: int
) -> TermAdvice:
    assumed, text = terms.result.brief.assumed, terms.normal[at]
    missing = float(terms.missing[at])
    given: float | None = None if np.isnan(missing) else missing
    rate, cost = float(terms.rate[at]), float(terms.rows.cost[at])
    sold, kept = terms.rows.customers[at] > 0, text in terms.kept
    said = "" if kept or sold else _said(terms.lexicon, terms.tongue, text)
    if said:
        form = terms.safe.of(terms.rows.texts[at], terms.saved)
        if form is not None:
            return TermAdvice(given, rate, "block_family", said, form, saves=cost)
    misses = missing >= assumed["stop_chance"] and terms.n[at] >= assumed["least_evidence"]
    if misses and not kept:
        ground = f"{in_percent(missing)} sure that it sells too seldom"
        return TermAdvice(given, rate, "block_text", ground, (text, "exact"), clicks_needed=0.0,
                          saves=cost)  # fmt: skip
    if at in families and not kept:
        run, together = families[at]
        ground = f"all with {run!r} together: {in_percent(together)} sure that they sell too seldom"
        return TermAdvice(given, rate, "block_family", ground, (run, "phrase"), saves=cost)
    if sold and missing <= _OWN_MISSING and text not in terms.exact:
        return _own_keyword(terms, at, given, rate, group)
    return TermAdvice(given, rate, "wait", "too little is known yet",
                      clicks_needed=float(terms.needed[at]))  # fmt: skip


def _said(lexicon: Lexicon, tongue: Tongue, text: str) -> str:
    """Return why a term's own words speak against it; empty where they don't."""
    warning = lexicon.warning_words(text)
    if warning:
        return f"warning word: {warning[0]}"
    reading = lexicon.intent(text)
    if reading.intent == "job":
        return f"seeks work: {reading.words[0]}"
    elsewhere = [k.word for k in lexicon.kinds(text) if k.kind == "where" and not k.own_place]
    if elsewhere:
        return f"another place: {elsewhere[0]}"
    if reading.intent == "firm":
        return f"seeks a firm: {reading.words[0]}"
    return foreign(text, tongue, lexicon)


def _own_keyword(
    terms: _Terms, at: int, missing: float | None, rate: float, group: int
) -> TermAdvice:
    assumed, rows = terms.result.brief.assumed, terms.rows
    step = assumed["bid_step"]
    ceiling = terms.allowed(at) * rate / (1 + assumed["platform_raise"])
    if terms.result.brief.ceiling.max_cpc is not None:
        ceiling = min(ceiling, terms.result.brief.ceiling.max_cpc)
    paid = float(rows.cost[at] / rows.clicks[at])
    bid = np.floor(min(paid * (1 + _OWN_RAISE), ceiling) / step + 1e-9) * step
    ground = f"sold {rows.customers[at]:g} of {rows.clicks[at]:g} clicks"
    return TermAdvice(missing, rate, "own_keyword", ground, (terms.normal[at], "exact"),
                      round(float(max(bid, assumed["min_bid"])), 10), group)  # fmt: skip


def _families(terms: _Terms) -> dict[int, tuple[str, float]]:
    """Return for each term the run of words whose terms miss together, with how sure that is."""
    assumed, rows = terms.result.brief.assumed, terms.rows
    holders: dict[tuple[str, ...], list[int]] = {}
    for at, text in enumerate(rows.texts):
        words = terms.safe.words_of(text)
        for size in range(1, _LONGEST_RUN + 1):
            for start in range(len(words) - size + 1):
                run = words[start : start + size]
                if terms.safe.is_safe(run):
                    holders.setdefault(run, []).append(at)
    found: dict[int, tuple[str, float]] = {}
    dearest = sorted(holders.items(), key=lambda one: (-len(one[1]), len(one[0]), one[0]))
    for run, mine in dearest:
        some = sorted(set(mine))
        n = float(terms.n[some].sum())
        if len(some) < 2 or n < assumed["least_evidence"]:
            continue
        together = _pooled(terms, some)
        if together >= assumed["stop_chance"]:
            for at in some:
                found.setdefault(at, (" ".join(run), together))
    return found


def _pooled(terms: _Terms, some: list[int]) -> float:
    """Return the chance that some terms, taken as one, miss the rule."""
    rows = terms.rows
    clicks, cost = float(rows.clicks[some].sum()), float(rows.cost[some].sum())
    if clicks <= 0:
        return 0.0
    n, x = float(terms.n[some].sum()), float(terms.x[some].sum())
    weight = rows.clicks[some] / clicks
    prior = _prior(terms, some)
    rate = float((weight * prior).sum())
    allowed = float((weight * _allowed(terms.result)[terms.offer[some]]).sum())
    held = terms.result.brief.assumed["term_weight"]
    alpha, beta = held * rate + x, held * (1 - rate) + n - x
    if alpha <= 0:
        return 1.0
    return float(betainc(alpha, beta, min(cost / clicks / allowed, 1.0)))


def _prior(terms: _Terms, some: list[int]) -> Floats:
    """Return the rates before the terms' own results."""
    n, x, rate = terms.n[some], terms.x[some], terms.rate[some]
    weight = terms.result.brief.assumed["term_weight"]
    return np.clip((rate * (weight + n) - x) / weight, 0.0, 1.0)


def _likest_groups(result: PlanResult, texts: list[str]) -> Ints:
    """Return the group whose keywords each text is most like; −1 where there is none."""
    table = result.table
    rows = np.flatnonzero(table.kept & (table.group >= 0))
    if not len(rows):
        return np.full(len(texts), -1, dtype=np.int64)
    held = [table.texts[row] for row in rows.tolist()]
    return likest_groups(held, table.group[rows], int(table.group.max()) + 1, texts)
