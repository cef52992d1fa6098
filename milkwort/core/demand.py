"""How many searches a keyword has, and what a click on it converts at."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.assumptions import Assumed
from milkwort.core.brief import Brief
from milkwort.core.keyword_table import INTENTS, Floats, Ints, KeywordTable
from milkwort.core.words import name_places, word_counts

__all__ = [
    "Demand",
    "coverage",
    "demand_if_kept",
    "demand_of",
    "likely_volume",
    "month_index",
    "per_month",
]


@dataclass(frozen=True)
class Demand:
    """Searches and rates; arrays of shape (n_keywords,).

    Attributes
    ----------
    likely : Floats
        Volume as read, one figure, searches a month; NaN where absent.
    area_share : Floats
        Share of it that is ours.
    own : Floats
        D, searches for the keyword's own text, a month; 0 where the volume is absent.
    variants : Floats
        X, searches for variants it is also shown for, a month.
    searches : Floats
        S, all it is shown for, a month.
    click_weight : Floats
        Q, searches weighted by how readily they are clicked.
    base_rate : Floats
        r, customers per click of its own text.
    rate : Floats
        Effective customers per click.
    words : Ints
        Number of words.
    at_home : ndarray of bool
        Names one of the plan's own places.
    spill : Floats
        W, searches of dropped keywords it is shown for, a month.
    """

    likely: Floats
    area_share: Floats
    own: Floats
    variants: Floats
    searches: Floats
    click_weight: Floats
    base_rate: Floats
    rate: Floats
    words: Ints
    at_home: NDArray[np.bool_]
    spill: Floats


def likely_volume(low: Floats, high: Floats) -> Floats:
    """Return the likely figure of ranges of volume.

    Parameters
    ----------
    low, high : Floats
        Ends of the range, searches; equal for a figure, NaN where absent.

    Returns
    -------
    Floats
        √(max(a, 1)·b) for a range, the figure itself for a figure, NaN where absent.
    """
    return np.where(low == high, high, np.sqrt(np.maximum(low, 1.0) * high))


def per_month(volume: float, period: str, assumed: Assumed) -> float:
    """Return a volume counted over a `day` or a `month` as searches a month."""
    return volume * assumed["month_days"] if period == "day" else volume


def month_index(months: Floats) -> Floats:
    """Return twelve monthly figures as factors of mean 1, January first.

    Parameters
    ----------
    months : Floats, shape (12,)
        Searches by month; all zero is read as flat.
    """
    mean = float(months.mean())
    return months / mean if mean > 0 else np.ones_like(months)


def coverage(match: Ints, words: Ints, assumed: Assumed) -> Floats:
    """Return the searches a match type is shown for per exact search.

    Parameters
    ----------
    match : Ints
        Position in `MATCHES`.
    words : Ints
        Number of words, 1 or more.
    """
    # exact 1; phrase 1 + 0.6·ℓ; broad 1 + 1.5·ℓ
    variety = np.array([assumed[f"variety_{n}"] for n in range(1, 6)])[np.clip(words, 1, 5) - 1]
    weight = np.array([0.0, assumed["coverage_phrase"], assumed["coverage_broad"]])[match]
    return np.asarray(1.0 + weight * variety)


def demand_of(brief: Brief, table: KeywordTable) -> Demand:
    """Work out searches and effective rates for every keyword.

    Variants are served by kept keywords only. Which keyword serves which search is not
    shared out yet: each kept keyword is given all of its own variants.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable

    Returns
    -------
    Demand
    """
    assumed = brief.assumed
    words = word_counts(table.texts)
    at_home = name_places(table.texts, brief.place_words)
    likely = likely_volume(table.volume_low, table.volume_high)
    share = np.where(at_home, 1.0, assumed["area_share"])
    own = np.nan_to_num(likely * share / coverage(table.basis, words, assumed), nan=0.0)
    shown_more = coverage(table.match, words, assumed) - 1.0
    variants = np.where(table.kept, own * shown_more, 0.0)
    alone = Demand(
        likely=likely,
        area_share=share,
        own=own,
        variants=variants,
        searches=own,
        click_weight=own,
        base_rate=_base_rate(brief, table),
        rate=own,
        words=words,
        at_home=at_home,
        spill=np.zeros(len(table)),
    )
    return _shown_for(alone, table.match, assumed)


def demand_if_kept(brief: Brief, table: KeywordTable, demand: Demand, rows: Ints) -> Demand:
    """Return the demand that some keywords would have if they were kept.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable
    demand : Demand
        Of the plan as it is.
    rows : Ints, shape (n_rows,)

    Returns
    -------
    Demand
        Arrays of shape (n_rows,).
    """
    some = Demand(**{name: column[rows] for name, column in vars(demand).items()})
    match = table.match[rows]
    variants = some.own * (coverage(match, some.words, brief.assumed) - 1.0)
    return _shown_for(replace(some, variants=variants), match, brief.assumed)


def _shown_for(demand: Demand, match: Ints, assumed: Assumed) -> Demand:
    """Fill in what follows from own searches and variants."""
    # S = D + X;  Q = D + f·X;  rate = r·(D + f·κ·X) / Q
    clicked = np.array(assumed.triple("variant_clicks"))[match]
    sold = np.array(assumed.triple("variant_sales"))[match]
    weight = demand.own + clicked * demand.variants
    buying = demand.own + clicked * sold * demand.variants
    share = np.divide(buying, weight, out=np.ones_like(weight), where=weight > 0)
    return replace(
        demand,
        searches=demand.own + demand.variants,
        click_weight=weight,
        rate=demand.base_rate * share,
    )


def _base_rate(brief: Brief, table: KeywordTable) -> Floats:
    # r_i = r · intent factor, unless the keyword has a rate of its own
    factors = np.array([brief.assumed[f"intent_{name}"] for name in INTENTS])
    by_intent = np.minimum(brief.worth.rate.likely * factors[table.intent], 1.0)
    return np.where(np.isnan(table.rate), by_intent, table.rate)
