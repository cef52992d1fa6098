"""A scouting campaign in one step: wide match, low bids, everything known blocked in it."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.core.fit.bids import floor_to_step
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.stop_words import STOP_SINGULARS
from milkwort.core.words.texts import singular

__all__ = ["Scouting", "scouting_of"]

_PAIRS = 12
"""Wide keywords of an offer at most."""
_USUAL_SHARE_OF_LOW = 0.4
"""How far under the market the usual bid of a scout lies: a share of the median low price."""


@dataclass(frozen=True)
class Scouting:
    """What a scouting campaign is made of.

    Attributes
    ----------
    share : float
        Of the purse, set aside for it.
    cost : float
        Money a month at most.
    bid : float
        Of every keyword, money a click.
    low_price : float
        The median low price of the kept keywords, which the bid lies under.
    texts : dict of int to tuple of str
        Wide keywords by the place of their offer.
    blocked : tuple of str
        Everything already known: exact negatives in the campaign.
    """

    share: float
    cost: float
    bid: float
    low_price: float
    texts: dict[int, tuple[str, ...]]
    blocked: tuple[str, ...]


def scouting_of(
    result: PlanResult, lexicon: Lexicon, share: float, bid: float | None = None
) -> Scouting:
    """Return what a scouting campaign would be made of.

    Parameters
    ----------
    result : PlanResult
    lexicon : Lexicon
        Tells what is sought from places and helper words.
    share : float
        Of the purse, above 0 and at most 1.
    bid : float, optional
        Money a click; well under the market where left out.

    Raises
    ------
    BadValueError
        For a share or a bid out of range.
    NothingUsableError
        Where nothing is kept, or no price is known and no bid is given.
    """
    if not 0 < share <= 1:
        raise BadValueError("share", "a share above 0, up to 1", share)
    table = result.table
    kept = np.flatnonzero(table.kept)
    if not len(kept):
        raise NothingUsableError("Nothing is kept yet: there is nothing to look around from.")
    lows = table.cpc_low[kept][np.isfinite(table.cpc_low[kept])]
    low = float(np.median(lows)) if len(lows) else float("nan")
    assumed = result.brief.assumed
    if bid is None:
        if not len(lows):
            raise NothingUsableError("No kept keyword has a price: say what a scout bids.")
        bid = max(float(floor_to_step(np.array([low * _USUAL_SHARE_OF_LOW]), assumed)[0]),
                  assumed["min_bid"])  # fmt: skip
    if not bid >= assumed["min_bid"]:
        raise BadValueError("bid", f"a price of {assumed['min_bid']:g} or more", bid)
    offers = sorted(set(table.offer[kept].tolist()))
    broad = MATCHES.index("broad")
    have = {t for t, m in zip(table.texts, table.match.tolist(), strict=True) if m == broad}
    texts: dict[int, tuple[str, ...]] = {}
    for offer in offers:  # a keyword stands once in a plan: the first offer that has it keeps it
        rows = kept[table.offer[kept] == offer].tolist()
        texts[offer] = _wide(result, rows, lexicon, have)
        have.update(texts[offer])
    blocked = tuple(dict.fromkeys(table.texts[row] for row in kept.tolist()))
    return Scouting(share, share * result.brief.monthly_spend, bid, low, texts, blocked)


def _wide(
    result: PlanResult, rows: Sequence[int], lexicon: Lexicon, have: Collection[str]
) -> tuple[str, ...]:
    """Return the pairs of telling words that stand in most of the keywords' searches."""
    table, searches = result.table, np.nan_to_num(result.demand.own)
    weight: dict[str, float] = {}
    for row in rows:
        text = table.texts[row]
        telling = lexicon.telling(text) - STOP_SINGULARS
        words = [word for word in text.split() if singular(word) in telling]
        for pair in pairwise(words):
            run = " ".join(pair)
            weight[run] = weight.get(run, 0.0) + float(searches[row]) + 1.0
    found = sorted((run for run in weight if run not in have), key=lambda run: (-weight[run], run))
    return tuple(found[:_PAIRS])
