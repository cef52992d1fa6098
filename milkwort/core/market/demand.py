"""How many searches a keyword has, and what a click on it converts at."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.showing import Showing, shown_share
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.market.serving import Serving, serve, serve_if_kept
from milkwort.core.market.showings import reach_counted
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.texts import name_places, word_counts

__all__ = [
    "Demand",
    "coverage",
    "demand_if_kept",
    "demand_of",
    "likely_volume",
    "month_index",
    "per_month",
    "season_of_months",
]


@dataclass(frozen=True)
class Demand:
    """Searches and rates; arrays of shape (n_keywords,).

    Attributes
    ----------
    likely : Floats
        Volume as read, one figure, searches a month; NaN where absent.
    counted : Floats
        Share of the searches that the volume counted: 1, or the reach of its showings.
    area_share : Floats
        Share of it that is ours.
    shown : Floats
        Share of it that falls in the hours of showing, the campaign's own or the plan's.
    volume : Floats
        Searches a month for the very text, whoever serves them; 0 where absent.
    own : Floats
        D, those of them it serves or would serve by itself, a month.
    uncalled, unknown, spill : Floats
        U, X and W: known variants not called or held, variants beyond the sheet, and known
        variants that were dropped, a month.
    searches : Floats
        S, all it is shown for, a month; its own where it is not kept.
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
    stopped : ndarray of bool
        A negative matches its own text.
    serving : Serving
        Who serves which search; always of the whole table.
    """

    likely: Floats
    counted: Floats
    area_share: Floats
    shown: Floats
    volume: Floats
    own: Floats
    uncalled: Floats
    unknown: Floats
    spill: Floats
    searches: Floats
    click_weight: Floats
    base_rate: Floats
    rate: Floats
    words: Ints
    at_home: NDArray[np.bool_]
    stopped: NDArray[np.bool_]
    serving: Serving

    @property
    def variants(self) -> Floats:
        """U + X + W, searches a month for anything but the own text."""
        return self.uncalled + self.unknown + self.spill


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
    """Return a volume counted over a `day` or a `month` as searches a month.

    Parameters
    ----------
    volume : float
        Searches.
    period : str
        ``day`` or ``month``.
    assumed : Assumed
        Days of a month.
    """
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


def season_of_months(table: KeywordTable) -> Floats | None:
    """Return the month index of the keywords together, those not dropped.

    Parameters
    ----------
    table : KeywordTable
        Its months are read.

    Returns
    -------
    Floats, shape (12,), or None
        Mean 1; None where no keyword has twelve figures.
    """
    wanted = np.isin(table.call, [CALLS.index(c) for c in ("none", "keep", "hold")])
    months = table.months[np.isfinite(table.months).all(axis=1) & wanted]
    if not len(months) or months.sum() <= 0:
        return None
    return month_index(months.sum(axis=0))


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
    counted = reach_counted(table, assumed)
    likely = likely_volume(table.volume_low, table.volume_high) / counted
    share, shown = _own_terms(brief, table)
    share = np.where(at_home, 1.0, share)
    volume = likely * share * shown / coverage(table.basis, words, assumed)
    serving = serve(
        table,
        volume,
        coverage(table.match, words, assumed) - 1.0,
        negatives_in_force(brief.negatives, table),
        close_forms=brief.close_forms,
        negative_close_forms=brief.negative_close_forms,
    )
    nothing = np.zeros(len(table))
    alone = Demand(
        likely=likely,
        counted=counted,
        area_share=share,
        shown=shown,
        volume=np.nan_to_num(volume),
        own=nothing,
        uncalled=nothing,
        unknown=nothing,
        spill=nothing,
        searches=nothing,
        click_weight=nothing,
        base_rate=_base_rate(brief, table),
        rate=nothing,
        words=words,
        at_home=at_home,
        stopped=serving.stopped,
        serving=serving,
    )
    demand = _shown_for(alone, serving, table.match, assumed)
    idle = ~serving.serves
    # what isn't kept has its own searches, and r; what a negative stops serves nothing
    return replace(
        demand,
        searches=np.where(idle, np.where(serving.stopped, 0.0, serving.own), demand.searches),
        click_weight=np.where(idle & (table.kept | serving.stopped), 0.0, demand.click_weight),
        rate=np.where(idle, demand.base_rate, demand.rate),
    )


def _own_terms(brief: Brief, table: KeywordTable) -> tuple[Floats, Floats]:
    """Return the area share and the share of hours of each keyword's campaign, or the plan's."""
    assumed = brief.assumed
    area = np.full(len(table), assumed["area_share"])
    shown = np.full(len(table), _hours(brief.showing, assumed))
    for number, own in brief.own_terms.items():
        mine = table.campaign == number
        if own.area_share is not None:
            area[mine] = own.area_share
        if own.showing is not None:
            shown[mine] = _hours(own.showing, assumed)
    return area, shown


def _hours(showing: Showing, assumed: Assumed) -> float:
    return 1.0 if showing.always else shown_share(showing, assumed)


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
    volume = np.where(np.isfinite(demand.likely), demand.volume, np.nan)
    more = coverage(table.match, demand.words, brief.assumed) - 1.0
    would = _shown_for(
        demand, serve_if_kept(table, volume, more, demand.serving), table.match, brief.assumed
    )
    columns = {n: column[rows] for n, column in vars(would).items() if n != "serving"}
    return Demand(**columns, serving=demand.serving)


def _shown_for(demand: Demand, serving: Serving, match: Ints, assumed: Assumed) -> Demand:
    """Fill in what follows from who serves what."""
    # S = D + U + X + W;  Q = D + f·(U + X + W);  rate = r·(D + f·κ·(U + X)) / Q
    clicked = np.array(assumed.triple("variant_clicks"))[match]
    sold = np.array(assumed.triple("variant_sales"))[match]
    wanted = serving.uncalled + serving.unknown
    variants = wanted + serving.spill
    weight = serving.own + clicked * variants
    buying = serving.own + clicked * sold * wanted
    share = np.divide(buying, weight, out=np.ones_like(weight), where=weight > 0)
    return replace(
        demand,
        own=serving.own,
        uncalled=serving.uncalled,
        unknown=serving.unknown,
        spill=serving.spill,
        searches=serving.own + variants,
        click_weight=weight,
        rate=demand.base_rate * share,
    )


def _base_rate(brief: Brief, table: KeywordTable) -> Floats:
    # r_i = r · intent factor, unless the keyword has a rate of its own
    factors = np.array([brief.assumed[f"intent_{name}"] for name in INTENTS])
    likely = np.array([offer.rate.likely for offer in brief.offers])[table.offer]
    by_intent = np.minimum(likely * factors[table.intent], 1.0)
    return np.where(np.isnan(table.rate), by_intent, table.rate)
