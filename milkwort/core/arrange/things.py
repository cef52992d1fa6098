"""Things that are sold: what a group shows, and whether their titles say its words."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from milkwort.core.arrange.main_words import MainWord, said_of
from milkwort.core.brief.fields import MOST_MONEY
from milkwort.core.errors import BadValueError

__all__ = ["Thing", "prices_of_things", "unsaid_by_titles"]

_LONGEST_CODE = 80
_LONGEST_NAME = 400
_LONGEST_PAGE = 2048


@dataclass(frozen=True)
class Thing:
    """A thing that is sold.

    Attributes
    ----------
    code, name : str
        Its code stands for it; its name is its title.
    price : float or None
        Money.
    margin : float or None
        Share of the price that is left.
    page : str
    deliverable : bool
        Whether it can be delivered; one that can't is shown nowhere.

    Raises
    ------
    BadValueError
        For a text that is empty or too long, or a figure out of its range.
    """

    code: str
    name: str
    price: float | None = None
    margin: float | None = None
    page: str = ""
    deliverable: bool = True

    def __post_init__(self) -> None:
        for what, text, most in (("code", self.code, _LONGEST_CODE),
                                 ("name", self.name, _LONGEST_NAME)):  # fmt: skip
            if not 1 <= len(text.strip()) <= most:
                raise BadValueError(f"thing, {what}", f"a text of 1 to {most} characters", text)
        if len(self.page) > _LONGEST_PAGE:
            raise BadValueError("thing, page", f"at most {_LONGEST_PAGE:,} characters", self.page)
        if self.price is not None and not 0 < self.price <= MOST_MONEY:
            raise BadValueError("thing, price", "a sum above 0", self.price)
        if self.margin is not None and not 0 <= self.margin <= 1:
            raise BadValueError("thing, margin", "a share from 0 to 1", self.margin)


def prices_of_things(things: Sequence[Thing]) -> list[float]:
    """Return the prices of the things that can be delivered, the lowest first.

    Parameters
    ----------
    things : sequence of Thing
    """
    return sorted({t.price for t in things if t.deliverable and t.price is not None})


def unsaid_by_titles(words: Sequence[MainWord], things: Sequence[Thing]) -> dict[str, list[str]]:
    """Return the main words of a group that the title of each thing doesn't say.

    Parameters
    ----------
    words : sequence of MainWord
    things : sequence of Thing

    Returns
    -------
    dict of str to list of str
        By the thing's code; where a platform has no written ads, its title is the ad.
    """
    return {
        thing.code: [
            one.word
            for one, is_there in zip(words, said_of(words, thing.name), strict=True)
            if not is_there
        ]
        for thing in things
    }
