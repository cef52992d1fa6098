"""Everything Milkwort suggests by itself, taken: what stops, what is blocked, what is corrected."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.taught import Taught
from milkwort.core.learn.corrections import Corrections, Segment, corrections_of
from milkwort.core.learn.evidence import VERDICTS
from milkwort.core.learn.learned import Judged, judged_of
from milkwort.core.learn.narrowed import Narrowed, left_unsure, narrowed_offer
from milkwort.core.learn.results import exposure_of_spans
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.core.learn.terms import TermAdvice, TermRows, advise_terms
from milkwort.core.market.keyword_table import CALLS, TAUGHT, KeywordTable
from milkwort.core.pairs import pairs_once
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.negatives import Negative
from milkwort.practice.known import DayRows

__all__ = ["Advice", "advised"]


@dataclass(frozen=True)
class Advice:
    """What was suggested at the end of a month, and the plans it leads to.

    Attributes
    ----------
    base : PlanResult
        With uncorrected inputs; terms that became keywords, and what is blocked, are in it.
    plan : PlanResult
        Corrected, and fitted anew.
    judged : Judged
    terms : TermRows
    suggested : list of TermAdvice
    """

    base: PlanResult
    plan: PlanResult
    judged: Judged
    terms: TermRows
    suggested: list[TermAdvice]

    @property
    def verdicts(self) -> list[str]:
        """The verdict on each keyword of the base."""
        return [VERDICTS[v] for v in self.judged.evidence.verdict.tolist()]


def advised(
    base: PlanResult,
    lexicon: Lexicon,
    rows: DayRows,
    texts: Sequence[str],
    segments: Sequence[tuple[Floats, Floats]],
    months: Sequence[range],
    today: int,
    told: Mapping[str, float] | None = None,
) -> Advice:
    """Learn from all days so far, and close the month.

    Parameters
    ----------
    base : PlanResult
        With uncorrected inputs.
    lexicon : Lexicon
    rows : DayRows
        Everything that is known by now.
    texts : sequence of str
        What people typed, by the number the rows have for it.
    segments : sequence of (bid, factor)
        Of each month: the bids that ran, and its searches over those of a mean month.
    months : sequence of range
        The days of each, by ordinal.
    today : int
        The last day.
    told : mapping of str to float, optional
        Assumptions that the learning alone goes by.
    """
    given = base
    if told:
        changed = Assumed({**base.brief.assumed.changes, **told})
        base = replace(base, brief=replace(base.brief, assumed=changed))
    n, assumed = len(base.table), base.brief.assumed
    held = _held(rows)
    seen = seen_by(held, n, today, assumed)
    parts = [
        Segment(bid, factor, seen_by(held.at(np.isin(rows.day, days)), n, today, assumed))
        for (bid, factor), days in zip(segments, (list(m) for m in months), strict=True)
    ]
    judged = judged_of(base, seen)
    terms, could_show = _terms(rows, texts, today, base)
    suggested = advise_terms(base, lexicon, terms, judged.evidence)
    corrections = corrections_of(base, parts)
    lived = float(sum(factor.mean() for _, factor in segments))
    grown = _with_terms(given, terms, suggested, could_show / max(lived, 1e-9))
    left = left_unsure(base, corrections, judged)
    corrected = _corrected(given, grown, corrections, judged, left)
    plan = run_plan(_narrowed(grown.brief, left.plan), corrected)
    return Advice(grown, plan, judged, terms, suggested)


def _narrowed(brief: Brief, left: Taught) -> Brief:
    """Return the brief as unsure as results leave it."""
    more = tuple(narrowed_offer(offer, left.conversion) for offer in brief.more_offers)
    offer = narrowed_offer(brief.offer, left.conversion)
    return replace(brief, offer=offer, more_offers=more, taught=left)


def _held(rows: DayRows) -> ResultRows:
    nothing = np.full(len(rows.day), np.nan)
    return ResultRows(rows.keyword, rows.day, rows.day, rows.impressions, rows.clicks, rows.cost,
                      rows.customers, rows.could_show, rows.lost_to_money, nothing,
                      nothing)  # fmt: skip


def _terms(
    rows: DayRows, texts: Sequence[str], today: int, base: PlanResult
) -> tuple[TermRows, Floats]:
    """Return what was typed beside the keywords' own texts, and how often it could be shown."""
    pairs, place = pairs_once(rows.text, rows.keyword)
    seen = rows.clicks * exposure_of_spans(rows.day, rows.day, today, base.brief.assumed)

    def sums(values: Floats) -> Floats:
        return np.bincount(place, values, minlength=len(pairs)).astype(np.float64)

    clicks, shown = sums(rows.clicks), sums(rows.impressions)
    named = np.flatnonzero((shown >= 2) & (clicks > 0))
    found = TermRows(
        tuple(texts[text] for text in pairs[named, 0].tolist()), pairs[named, 1], shown[named],
        clicks[named], sums(seen)[named], sums(rows.cost)[named], sums(rows.customers)[named],
    )  # fmt: skip
    return found, sums(rows.could_show)[named]


def _with_terms(
    base: PlanResult, terms: TermRows, suggested: Sequence[TermAdvice], searches: Floats
) -> PlanResult:
    """Return the base with what is blocked, and with the terms that become keywords."""
    blocked: dict[tuple[str, str], None] = {}
    added: list[int] = []
    known = set(zip(base.table.texts, base.table.match.tolist(), strict=True))
    for at, advice in enumerate(suggested):
        if advice.form is None:
            continue
        if advice.suggestion == "own_keyword":
            if (advice.form[0], 0) not in known:
                known.add((advice.form[0], 0))
                added.append(at)
        else:
            blocked.setdefault(advice.form)
    have = {(one.text, one.match) for one in base.brief.negatives}
    more = tuple(Negative(text, match) for text, match in blocked if (text, match) not in have)  # type: ignore[arg-type] # phrase or exact
    if not more and not added:
        return base
    brief = replace(base.brief, negatives=(*base.brief.negatives, *more))
    table = base.table.joined(_rows_of(base.table, terms, suggested, added, searches))
    return run_plan(brief, table)


def _rows_of(
    table: KeywordTable, terms: TermRows, suggested: Sequence[TermAdvice], added: Sequence[int],
    searches: Floats,
) -> KeywordTable:  # fmt: skip
    """Return rows of terms that become keywords, each like the keyword that served it."""
    like = terms.keyword[np.array(added, dtype=np.int64)]
    rows = table.at(like)
    group = np.array([suggested[at].group for at in added], dtype=np.int64)
    places = zip(group.tolist(), like.tolist(), strict=True)
    campaign = np.array([_campaign_of(table, g, row) for g, row in places], dtype=np.int64)
    volume = searches[np.array(added, dtype=np.int64)]
    columns: dict[str, Any] = {
        "texts": tuple(suggested[at].form[0] for at in added),  # type: ignore[index]
        "match": np.zeros(len(added), dtype=np.int64), "basis": np.zeros(len(added), np.int64),
        "call": np.full(len(added), CALLS.index("keep"), dtype=np.int64),
        "volume_low": volume, "volume_high": volume, "group": group, "campaign": campaign,
        "rate": np.array([suggested[at].rate for at in added]),
        "taught": np.full((len(added), len(TAUGHT)), np.nan),
        "locked_bid": np.full(len(added), np.nan), "last_cpc": np.full(len(added), np.nan),
        "shown_at_bid": np.full(len(added), np.nan),
    }  # fmt: skip
    return replace(rows, **columns)


def _campaign_of(table: KeywordTable, group: int, row: int) -> int:
    mine = np.flatnonzero(table.group == group)
    return int(table.campaign[mine[0] if group >= 0 and len(mine) else row])


def _corrected(
    base: PlanResult, grown: PlanResult, fixes: Corrections, judged: Judged, left: Narrowed
) -> KeywordTable:
    """Return the table as the next month is planned: corrected figures, and what stops held."""
    n, table = len(base.table), grown.table
    searches = fixes.searches.factor * fixes.click_rate.factor
    # how readily a keyword is clicked has no column of its own: more clicks are more searches
    many, price = np.ones(len(table)), np.ones(len(table))
    many[:n] = searches
    price[:n] = fixes.price.factor
    mixed = np.divide(base.demand.rate, base.demand.base_rate, out=np.ones(n),
                      where=base.demand.base_rate > 0)  # fmt: skip
    own = table.rate.copy()
    known = base.table.kept & (judged.evidence.prior_rate > 0)
    learnt = judged.evidence.rate / np.where(mixed > 0, mixed, 1.0)
    own[:n] = np.where(known, np.clip(learnt, 0.0, 1.0), own[:n])
    taught = table.taught.copy()
    taught[:n] = left.rows
    stops = np.flatnonzero(judged.evidence.verdict == VERDICTS.index("stop"))
    fixed = replace(
        table, volume_low=table.volume_low * many, volume_high=table.volume_high * many,
        cpc_low=table.cpc_low * price, cpc_high=table.cpc_high * price, rate=own, taught=taught,
    )  # fmt: skip
    return fixed.with_calls(stops[base.table.kept[stops]], "hold")
