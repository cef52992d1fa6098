"""The envelope: what was true of every keyword, and what bids would have brought."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri
from sqlalchemy.orm import Session

from milkwort.standins.market.account import MICROS
from milkwort.standins.market.accounts import (
    known_from_bytes,
    live_of,
    things_of,
    world_of,
)
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.expected import expected_under_truth
from milkwort.standins.market.serving import serving_of
from milkwort.standins.market.storage import Account

__all__ = ["options_of", "truth_of"]

Floats = NDArray[np.float64]

_MOST_BIDS = 200


def truth_of(session: Session, account: Account) -> dict[str, Any]:
    """Return the hidden truth beside what the planner knew, by column.

    Raises
    ------
    MarketError
        403 while the envelope is closed.
    """
    _must_be_open(account)
    world, level = world_of(account)
    known = known_from_bytes(account.known)
    n = world.n_known
    z = ndtri(np.array([known.low_percentile, known.high_percentile]))
    low, high = (np.exp(world.mu[:n] + at * world.sigma[:n]) for at in z)
    return {
        "opened": account.envelope, "level": account.level, "seed": account.seed,
        "texts": list(world.texts[:n]),
        "searches": world.searches[:n].tolist(),
        "known_searches": [k.searches for k in known.keywords],
        "price_low": low.tolist(), "price_high": high.tolist(),
        "known_price_low": [k.price_low for k in known.keywords],
        "known_price_high": [k.price_high for k in known.keywords],
        "click_rate": world.click_rate[:n].tolist(),
        "known_click_rate": known.click_rate_top,
        "rate": world.rate[:n].tolist(),
        "invalid_share": world.invalid, "lost": level.lost, "doubled": level.doubled,
        "unknown_terms": {
            "texts": list(world.texts[n:]), "searches": world.searches[n:].tolist(),
            "useful": world.useful[n:].tolist(), "rate": world.rate[n:].tolist(),
        },
    }  # fmt: skip


def options_of(
    session: Session, account: Account, since: int, until: int, bids: Floats
) -> dict[str, Any]:
    """Return what each of some bids would bring for each live keyword, in the mean.

    Parameters
    ----------
    session, account
    since, until : int
        Ordinals of the days, ends included.
    bids : Floats
        Money a click, rising.

    Returns
    -------
    dict
        ``ref`` of each keyword that may serve something, and by keyword and bid ``clicks``,
        ``spend`` and ``customers``; and what its own bid brings (``own``).

    Raises
    ------
    MarketError
        403 while the envelope is closed.
    """
    _must_be_open(account)
    if not 0 < len(bids) <= _MOST_BIDS or not (bids > 0).all():
        raise MarketError(422, "bad_value", f"Expected 1 to {_MOST_BIDS} bids above 0.", "bids")
    world, level = world_of(account)
    live, _ = live_of(account, things_of(session, account.id))
    serving = serving_of(live, world)
    days = range(since, until + 1)
    rows = np.unique(serving.keyword)
    own = np.array([live.keywords[row].bid for row in rows.tolist()])
    asked = np.column_stack((np.tile(bids, (len(rows), 1)), own))
    found = expected_under_truth(world, level, live, serving, days,
                                 np.repeat(rows, asked.shape[1]), asked.ravel())  # fmt: skip

    def table(values: Floats) -> list[list[float]]:
        return [list(map(float, row)) for row in values.reshape(asked.shape)]

    campaigns = {g.ref: g.campaign for g in live.groups}
    return {
        "ref": [live.keywords[row].ref for row in rows.tolist()],
        "keyword": [live.keywords[row].text for row in rows.tolist()],
        "match": [live.keywords[row].match for row in rows.tolist()],
        "campaign": [campaigns[live.keywords[row].group] for row in rows.tolist()],
        "bid": [*map(float, bids)], "own_bid": own.tolist(),
        "clicks": table(found.clicks), "spend": table(found.spend),
        "customers": table(found.customers),
        "day_money": {c.ref: None if c.day_money is None else c.day_money / MICROS
                      for c in live.campaigns},
    }  # fmt: skip


def _must_be_open(account: Account) -> None:
    if account.envelope is None:
        raise MarketError(403, "envelope_closed", "The envelope is closed: open it first.",
                          "envelope")  # fmt: skip
