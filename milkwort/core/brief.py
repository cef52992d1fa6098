"""The brief: everything a plan assumes before its keywords."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Literal, get_args

from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.core.words import normalise
from milkwort.core.worth import CeilingRule, Offer, Worth, worth_of

__all__ = [
    "GOALS",
    "MATCHES",
    "POLICIES",
    "PRICINGS",
    "Brief",
    "Goal",
    "Match",
    "Policy",
    "PolicyName",
    "Pricing",
]

Goal = Literal["customers", "profit", "clicks", "revenue"]
Match = Literal["exact", "phrase", "broad"]
Pricing = Literal["pay_enough", "pay_bid"]
PolicyName = Literal["fitted", "low", "middle", "flat"]

GOALS: tuple[str, ...] = get_args(Goal)
MATCHES: tuple[str, ...] = get_args(Match)
PRICINGS: tuple[str, ...] = get_args(Pricing)
POLICIES: tuple[str, ...] = get_args(PolicyName)


@dataclass(frozen=True)
class Policy:
    """Where bids come from.

    Attributes
    ----------
    name : PolicyName
        Fitted to the purse, or a method.
    flat_bid : float or None
        The bid of the method `flat`, in money a click.
    """

    name: PolicyName = "fitted"
    flat_bid: float | None = None

    def __post_init__(self) -> None:
        if self.name not in POLICIES:
            raise BadValueError("bid policy", "one of " + ", ".join(POLICIES), self.name)
        if self.name == "flat" and not (self.flat_bid is not None and self.flat_bid > 0):
            raise BadValueError("flat bid", "a price above 0", self.flat_bid)


@dataclass(frozen=True)
class Brief:
    """What is sold, for how much a month, and under which rules.

    Attributes
    ----------
    name, currency : str
        The plan's name and ISO 4217 code.
    monthly_spend : float
        The purse, money a month; 0 or more.
    offer : Offer
    ceiling : CeilingRule
    goal : Goal
        What the fit makes most of.
    pricing : Pricing
        Whether a click costs just enough to win it, or the bid itself.
    places : tuple of str
        The plan's own places, as typed.
    volume_basis : Match
        What volumes counted, where a reading doesn't say.
    policy : Policy
    assumed : Assumed
    """

    name: str
    currency: str
    monthly_spend: float
    offer: Offer
    ceiling: CeilingRule = field(default_factory=CeilingRule)
    goal: Goal = "customers"
    pricing: Pricing = "pay_enough"
    places: tuple[str, ...] = ()
    volume_basis: Match = "exact"
    policy: Policy = field(default_factory=Policy)
    assumed: Assumed = field(default_factory=Assumed)

    def __post_init__(self) -> None:
        if not (math.isfinite(self.monthly_spend) and self.monthly_spend >= 0):
            raise BadValueError("monthly_spend", "a sum of 0 or more", self.monthly_spend)
        for where, got, allowed in (
            ("goal", self.goal, GOALS),
            ("pricing", self.pricing, PRICINGS),
            ("volume_basis", self.volume_basis, MATCHES),
        ):
            if got not in allowed:
                raise BadValueError(where, "one of " + ", ".join(allowed), got)
        if not (len(self.currency) == 3 and self.currency.isalpha() and self.currency.isupper()):
            raise BadValueError("currency", "a three-letter code such as GBP", self.currency)

    @property
    def worth(self) -> Worth:
        """The descent from sale to click under this brief."""
        return worth_of(self.offer, self.ceiling)

    @property
    def place_words(self) -> tuple[str, ...]:
        """The plan's own places as normalised words."""
        return tuple(w for w in map(normalise, self.places) if w)
