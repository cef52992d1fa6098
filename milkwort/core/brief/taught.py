"""What results left unsure of what all keywords of a plan share."""

from __future__ import annotations

from dataclasses import dataclass

from milkwort.core.errors import BadValueError

__all__ = ["Taught"]

_MOST = 100


@dataclass(frozen=True)
class Taught:
    """Spreads of the plan as a whole once results were taken over, log units.

    Attributes
    ----------
    searches, click_rate, price : float
        0 or more.
    conversion : float
        Share of the spread of the brief's rates that is left: above 0, at most 1. The rates
        of the brief stand narrowed by it already.
    """

    searches: float
    click_rate: float
    price: float
    conversion: float = 1.0

    def __post_init__(self) -> None:
        for name in ("searches", "click_rate", "price"):
            if not 0 <= getattr(self, name) <= _MOST:
                raise BadValueError(
                    f"taught.{name}", f"a spread from 0 to {_MOST}", getattr(self, name)
                )
        if not 0 < self.conversion <= 1:
            raise BadValueError("taught.conversion", "a share above 0", self.conversion)
