"""Spots: places to be shown that have no keyword."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from milkwort.core.brief.fields import MOST_MONEY
from milkwort.core.errors import BadValueError

__all__ = ["PAYS", "SELLS", "Pays", "Spot"]

Pays = Literal["showings", "click"]
PAYS: tuple[str, ...] = get_args(Pays)
SELLS: dict[str, float] = {"showings": 0.4, "click": 1.0}
"""How many times as well as a search click one of a spot sells, where nobody has said it."""

_LEAST_PRICE = 1e-9
"""Money a click, under which nothing is told apart."""


@dataclass(frozen=True)
class Spot:
    """A place to be shown, paid per thousand showings or per click.

    Attributes
    ----------
    name : str
    pays : Pays
    price : float
        Money a thousand showings, or a click; above 0.
    showings, clicks : float
        At most so many a month: showings where those are paid, else clicks.
    click_rate : float
        Clicks a showing, above 0 and at most 1; where showings are paid.
    sells : float or None
        How many times as well as a search click its clicks sell; `SELLS` where not said.
    offer : int
        Place of its offer in the brief.
    campaign : int
        Number of its campaign in the keyword table; −1 for none.
    """

    name: str
    pays: Pays
    price: float
    showings: float = 0.0
    clicks: float = 0.0
    click_rate: float = 0.0
    sells: float | None = None
    offer: int = 0
    campaign: int = -1

    def __post_init__(self) -> None:
        where = f"spot {self.name}"
        if not self.name.strip():
            raise BadValueError("spot name", "a name", self.name)
        if self.pays not in PAYS:
            raise BadValueError(f"{where}, pays", "showings or click", self.pays)
        _between(f"{where}, price", self.price, 0, MOST_MONEY, above=True)
        most = self.showings if self.pays == "showings" else self.clicks
        _between(f"{where}, {'showings' if self.pays == 'showings' else 'clicks'}", most, 0,
                 MOST_MONEY)  # fmt: skip
        if self.pays == "showings":
            _between(f"{where}, click_rate", self.click_rate, 0, 1, above=True)
        # a click rate next to nothing makes a click of next to nothing dear beyond counting
        _between(f"{where}, price a click", self.click_price, _LEAST_PRICE, MOST_MONEY)
        if self.sells is not None:
            _between(f"{where}, sells", self.sells, 0, 1000)

    @property
    def times(self) -> float:
        """q, how many times as well as a search click its clicks sell."""
        return SELLS[self.pays] if self.sells is None else self.sells

    @property
    def click_price(self) -> float:
        """Money a click."""
        # c / (1000·t) where showings are paid
        return self.price / (1000 * self.click_rate) if self.pays == "showings" else self.price

    @property
    def most_clicks(self) -> float:
        """Clicks a month to be had at most."""
        return self.showings * self.click_rate if self.pays == "showings" else self.clicks


def _between(where: str, value: float, least: float, most: float, *, above: bool = False) -> None:
    if not (least < value if above else least <= value) or not value <= most:
        low = f"above {least:g}" if above else f"of {least:g} or more"
        raise BadValueError(where, f"a number {low} and at most {most:g}", value)
