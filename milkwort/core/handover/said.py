"""Figures as a client reads them, in one style throughout a sheet."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, get_args

from milkwort.core.errors import BadValueError

__all__ = ["KINDS", "Kind", "NumberStyle"]

Kind = Literal["text", "money", "whole", "count", "share"]
KINDS: tuple[str, ...] = get_args(Kind)

_SIGNS = {"GBP": "£", "EUR": "€", "USD": "$"}
_FINE = 100_000


@dataclass(frozen=True)
class NumberStyle:
    """How figures are written.

    Attributes
    ----------
    currency : str
        ISO 4217.
    thousands, decimal : str
        The marks.
    sign_first : bool
        Whether the sign of the currency stands before the sum.
    """

    currency: str = "GBP"
    thousands: str = ","
    decimal: str = "."
    sign_first: bool = True

    def __post_init__(self) -> None:
        if self.thousands == self.decimal or self.decimal not in (".", ","):
            raise BadValueError("number style", "two marks that differ", self.decimal)

    def said(self, value: str | float | None, kind: Kind) -> str:
        """Return a figure in words and signs; a dash where there is none.

        Parameters
        ----------
        value : str, float or None
        kind : Kind
            What it is: a text, money, a whole number, a small count, a share.
        """
        if value is None or (isinstance(value, float) and not math.isfinite(value)):
            return "–"
        if isinstance(value, str):
            return value
        if kind == "money":
            return self._money(float(value))
        if kind == "share":
            return f"{self._number(value * 100, 1)} %"
        if kind == "count" and abs(value) < 100:
            return self._number(value, 1 if abs(value) >= 1 or value == 0 else 2)
        return self._number(value, 0)

    def _money(self, value: float) -> str:
        said = self._number(value, 2 if abs(value) < _FINE else 0)
        sign = _SIGNS.get(self.currency, self.currency + " ")
        return f"{sign}{said}" if self.sign_first else f"{said} {sign.strip()}"

    def _number(self, value: float, digits: int) -> str:
        plain = f"{value:,.{digits}f}"
        if float(plain.replace(",", "")) == 0:
            plain = plain.replace("-", "")
        marks = {",": self.thousands, ".": self.decimal, "-": "−"}
        return "".join(marks.get(sign, sign) for sign in plain)
