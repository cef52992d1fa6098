"""How far the truth may lie from what a planner knows: as planned, usual, rough."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

__all__ = ["LEVELS", "Level", "LevelName", "level_of"]

LevelName = Literal["as-planned", "usual", "rough"]
Range = tuple[float, float]


@dataclass(frozen=True)
class Level:
    """Spreads of the hidden truth, in log units where nothing else is said.

    Attributes
    ----------
    searches : (float, float, float)
        Of the whole world, of a theme; and the least of a text's own.
    own_by_range : bool
        Whether a text's own spread is its range's, or `searches[2]` where that is larger.
    heavy_tails : bool
        Whether a text's own searches follow Student's t with 4 degrees of freedom.
    dead : float
        Share of texts that next to nobody types.
    price : (float, float, float)
        World, theme, own.
    price_width, price_correlation : float
        Of σ; and of a text's price with its conversion.
    logistic : bool
        Whether prices are log-logistic of the same quartiles, not log-normal.
    click_rate : (float, float)
        World, own.
    click_power : (float, float)
        The click rate rises with reach to a power from this range.
    intent, theme_rate, rate_weight : float
        Conversion: by intent, by theme; a text's own is Beta with the weight of so many clicks.
    wrong_intents : float
        Share of texts whose intent is another than it seems.
    wide : float
        Of the searches served beside a keyword's own text.
    wide_clicks, wide_rate : (float, float) or None
        Range of the click share and conversion share of such searches; None for what a
        planner assumes of them.
    rivals : (float, float) or None
        Range of the shift of a theme's prices while rivals come or go; None for none.
    rivals_a_year : float
    season : float
        Of months, weekdays and hours.
    invalid : (float, float)
        Range of the share of clicks that are invalid.
    delay : (float, float) or None
        Median and log-spread of the days until a customer is reported; None for an
        exponential with a half-life of 2.
    day_shape : float or None
        Of the gamma distribution a day's searches follow; None for Poisson.
    lost, doubled : float
        Share of customers never reported, and reported twice.
    unsaid_clicks, unsaid_rate : float
        Click rate where the ad says none of a text's main words; conversion where the page
        doesn't.
    """

    searches: tuple[float, float, float]
    own_by_range: bool
    heavy_tails: bool
    dead: float
    price: tuple[float, float, float]
    price_width: float
    price_correlation: float
    logistic: bool
    click_rate: Range
    click_power: Range
    intent: float
    theme_rate: float
    rate_weight: float
    wrong_intents: float
    wide: float
    wide_clicks: Range | None
    wide_rate: Range | None
    rivals: Range | None
    rivals_a_year: float
    season: float
    invalid: Range
    delay: Range | None
    day_shape: float | None
    lost: float
    doubled: float
    unsaid_clicks: float
    unsaid_rate: float


LEVELS: dict[str, Level] = {
    "as-planned": Level(
        searches=(0.10, 0.0, 0.25), own_by_range=True, heavy_tails=False, dead=0.0,
        price=(0.10, 0.0, 0.0), price_width=0.0, price_correlation=0.0, logistic=False,
        click_rate=(0.15, 0.20), click_power=(1.0, 1.0),
        intent=0.20, theme_rate=0.0, rate_weight=60.0, wrong_intents=0.0,
        wide=0.30, wide_clicks=None, wide_rate=None,
        rivals=None, rivals_a_year=0.0, season=0.0, invalid=(0.0, 0.0),
        delay=None, day_shape=None, lost=0.0, doubled=0.0, unsaid_clicks=1.0, unsaid_rate=1.0,
    ),
    "usual": Level(
        searches=(0.15, 0.15, 0.40), own_by_range=False, heavy_tails=False, dead=0.05,
        price=(0.10, 0.12, 0.15), price_width=0.15, price_correlation=0.3, logistic=True,
        click_rate=(0.15, 0.25), click_power=(0.3, 1.0),
        intent=0.25, theme_rate=0.20, rate_weight=40.0, wrong_intents=0.0,
        wide=0.40, wide_clicks=(0.5, 1.0), wide_rate=(0.3, 1.0),
        rivals=(0.10, 0.25), rivals_a_year=2.0, season=0.08, invalid=(0.02, 0.06),
        delay=(1.0, 1.0), day_shape=20.0, lost=0.01, doubled=0.005,
        unsaid_clicks=0.85, unsaid_rate=0.90,
    ),
    "rough": Level(
        searches=(0.30, 0.30, 0.60), own_by_range=False, heavy_tails=True, dead=0.10,
        price=(0.20, 0.20, 0.30), price_width=0.30, price_correlation=0.5, logistic=True,
        click_rate=(0.25, 0.35), click_power=(0.3, 1.0),
        intent=0.40, theme_rate=0.35, rate_weight=25.0, wrong_intents=1 / 8,
        wide=0.60, wide_clicks=(0.3, 1.0), wide_rate=(0.0, 0.8),
        rivals=(0.15, 0.50), rivals_a_year=5.0, season=0.20, invalid=(0.05, 0.25),
        delay=(3.0, 1.0), day_shape=6.0, lost=0.05, doubled=0.02,
        unsaid_clicks=0.7, unsaid_rate=0.8,
    ),
}  # fmt: skip
assert tuple(LEVELS) == get_args(LevelName)


def level_of(name: str) -> Level:
    """Return a level by its name; KeyError for an unknown one."""
    return LEVELS[name]
