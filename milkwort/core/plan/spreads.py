"""How unsure a month is before it is drawn: from what is assumed, or from what results left."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtri

from milkwort.core.arrays import Floats
from milkwort.core.market.keyword_table import TAUGHT
from milkwort.core.plan.run import PlanResult

__all__ = ["Level", "Spreads", "spreads_of", "volume_spread"]

_P90 = float(ndtri(0.9))


@dataclass(frozen=True)
class Level:
    """Spreads in log units, of searches, click rates and prices.

    Attributes
    ----------
    searches, click_rate, price : Floats
        Of shape (n_keywords,) where they differ from keyword to keyword, () where all share.
    """

    searches: Floats
    click_rate: Floats
    price: Floats


@dataclass(frozen=True)
class Spreads:
    """What is unsure of a month.

    Attributes
    ----------
    plan : Level
        What all keywords share.
    group : Level or None
        What the keywords of a group share; None where no results were taken over.
    own : Level
        What is a keyword's own.
    clicks : Floats, shape (n_keywords,)
        Exposed clicks that each rate rests on, beyond the weight of its prior.
    """

    plan: Level
    group: Level | None
    own: Level
    clicks: Floats


def spreads_of(result: PlanResult) -> Spreads:
    """Return how unsure a plan's month is.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Spreads
        As assumed; once results were taken over, what they left, with a month's own noise.
        A keyword they said nothing of is as unsure as corrections take it to be.
    """
    table, assumed, taught = result.table, result.brief.assumed, result.brief.taught
    own_searches = volume_spread(result)
    n = len(table)
    if taught is None:
        return Spreads(
            plan=_level(assumed["draw_searches"], assumed["draw_click_rate"],
                        assumed["draw_price"]),
            group=None,
            own=Level(own_searches, np.full(n, assumed["draw_click_rate_own"]), np.zeros(n)),
            clicks=np.zeros(n),
        )  # fmt: skip
    left = dict(zip(TAUGHT, table.taught.T, strict=True))

    def known(name: str, otherwise: Floats | float) -> Floats:
        return np.where(np.isfinite(left[name]), left[name], otherwise)

    grouped = table.group >= 0
    return Spreads(
        # a month's own noise comes on top: √(s² + 0.10²), √(s² + 0.05²)
        plan=_level(np.hypot(taught.searches, assumed["month_searches"]), taught.click_rate,
                    np.hypot(taught.price, assumed["month_price"])),
        group=Level(*(
            np.where(grouped, known(f"group_{name}", assumed[f"learn_{name}_group"]), 0.0)
            for name in ("searches", "click_rate", "price"))),
        own=Level(known("searches", own_searches),
                  known("click_rate", assumed["draw_click_rate_own"]),
                  known("price", assumed["learn_price_own"])),
        clicks=known("clicks", 0.0),
    )  # fmt: skip


def volume_spread(result: PlanResult) -> Floats:
    """Return the spread of each keyword's own searches, in log units.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Floats, shape (n_keywords,)
        A range is read as an interval of 80 %; a figure has the spread that is assumed.
    """
    # sᵢ = ln(b/a) / 2.5631 for a range (an 80 % interval), 0.25 for a figure
    low, high = result.table.volume_low, result.table.volume_high
    ranged = np.isfinite(low) & (low < high)
    width = np.log(np.where(ranged, high, 1.0) / np.where(ranged, np.maximum(low, 1.0), 1.0))
    figure = result.brief.assumed["draw_volume"]
    return np.where(ranged, np.maximum(width, 0.0) / (2 * _P90), figure)


def _level(searches: float, click_rate: float, price: float) -> Level:
    return Level(np.array(searches), np.array(click_rate), np.array(price))
