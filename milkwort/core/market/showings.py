"""Volumes that count showings at a stated bid, as searches."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.market.prices import prices_of, reach_at

__all__ = ["reach_counted"]


def reach_counted(table: KeywordTable, assumed: Assumed) -> Floats:
    """Return the share of searches that each volume counted.

    Searches are showings over the reach at the bid they were counted at. Where that bid
    lies so far under the market that hardly anything would be shown, or no price is known,
    showings tell nothing of the searches.

    Parameters
    ----------
    table : KeywordTable
    assumed : Assumed
        Its ``least_reach`` is the least that tells anything.

    Returns
    -------
    Floats, shape (n_keywords,)
        1 for a volume that counts searches; NaN where showings tell nothing.
    """
    counted = np.ones(len(table))
    if np.isnan(table.shown_at_bid).all():
        return counted
    prices = prices_of(table.cpc_low, table.cpc_high, table.group, assumed)
    # searches = showings / F(bid)
    reach = reach_at(table.shown_at_bid, prices)
    reach = np.where(reach >= assumed["least_reach"], reach, np.nan)
    return np.where(np.isnan(table.shown_at_bid), counted, reach)
