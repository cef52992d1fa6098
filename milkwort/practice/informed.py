"""How wide a level draws its truths, as the learner's own assumptions: what data can teach."""

from __future__ import annotations

from milkwort.core.assumptions import TABLE
from milkwort.standins.market.levels import level_of

__all__ = ["informed_of"]


def informed_of(level: str) -> dict[str, float]:
    """Return the assumptions of somebody who is told the spreads of a level, not its truths.

    Parameters
    ----------
    level : str
    """
    truth = level_of(level)
    told = {
        "draw_searches": truth.searches[0], "learn_searches_group": truth.searches[1],
        "draw_volume": truth.searches[2], "draw_price": truth.price[0],
        "learn_price_group": truth.price[1], "learn_price_own": truth.price[2],
        "draw_click_rate": truth.click_rate[0], "draw_click_rate_own": truth.click_rate[1],
        "prior_weight": truth.rate_weight,
    }  # fmt: skip
    return {name: max(value, TABLE[name].least) for name, value in told.items()}
