"""The brief: everything a plan assumes before its keywords."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.fields import check_field
from milkwort.core.brief.kinds import GOALS, POLICIES, PRICINGS, Goal, PolicyName, Pricing
from milkwort.core.brief.limits import Limits
from milkwort.core.brief.showing import ALWAYS, Showing
from milkwort.core.brief.spots import Spot
from milkwort.core.brief.taught import Taught
from milkwort.core.brief.worth import CeilingRule, Offer, Worth, worth_of
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES, Match
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import normalise

__all__ = [
    "Brief",
    "Policy",
]

_FLAT = ("flat", "flat_or_middle")
_SHARED = ("percentile", "high_plus", "last_seen")


@dataclass(frozen=True)
class Policy:
    """Where bids come from.

    Attributes
    ----------
    name : PolicyName
        Fitted to the purse, or a method: the low price · the middle of low and high · the
        high price · a percentile of the price · the high price plus a share · one flat bid
        · the lower of that and the middle · the last seen average price plus a share.
    flat_bid : float or None
        The flat bid, money a click.
    share : float or None
        The percentile as a share from 0 to 1, or what is added as a share.
    cap_clicks : float or None
        Where set, no bid is above a day's money over so many clicks.
    odd_step : bool
        Whether a bid on a round 5 or 10 goes one step up.
    """

    name: PolicyName = "fitted"
    flat_bid: float | None = None
    share: float | None = None
    cap_clicks: float | None = None
    odd_step: bool = False

    def __post_init__(self) -> None:
        if self.name not in POLICIES:
            raise BadValueError("bid policy", "one of " + ", ".join(POLICIES), self.name)
        if self.name in _FLAT and not (self.flat_bid is not None and self.flat_bid > 0):
            raise BadValueError("flat bid", "a price above 0", self.flat_bid)
        if self.name in _SHARED and not (self.share is not None and 0 <= self.share <= 10):
            raise BadValueError("bid policy share", "a share from 0 to 10", self.share)
        if self.name == "percentile" and not (self.share is not None and 0 < self.share < 1):
            raise BadValueError("bid policy share", "a percentile between 0 and 1", self.share)
        if self.cap_clicks is not None and not self.cap_clicks > 0:
            raise BadValueError("bid cap", "clicks a day above 0", self.cap_clicks)


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
    more_offers : tuple of Offer
        Further offers; a keyword points to one of all of them.
    negatives : tuple of Negative
        Beside those that the call *block* makes.
    close_forms, negative_close_forms : bool
        Whether a plural is its singular, for keywords and for negatives.
    limits : Limits
        What the fit must keep to beside the purse.
    season : tuple of 12 floats or None
        The plan's own month index, mean 1; None for flat.
    showing : Showing
        Days and hours in which ads are shown.
    other_places : tuple of str
        Places that are not the plan's own.
    word_kinds : tuple of (str, str)
        A word or run of words, and the kind the planner gave it.
    spots : tuple of Spot
        Places to be shown that have no keyword.
    own_terms : mapping of int to OwnTerms
        Area and hours of campaigns that have their own, by number in the keyword table.
    own_policies : mapping of int to Policy
        Where bids come from in groups that have a way of their own, by number.
    taught : Taught or None
        How unsure results left what all keywords share; None where none were taken over.
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
    more_offers: tuple[Offer, ...] = ()
    negatives: tuple[Negative, ...] = ()
    close_forms: bool = True
    negative_close_forms: bool = False
    limits: Limits = field(default_factory=Limits)
    season: tuple[float, ...] | None = None
    showing: Showing = ALWAYS
    other_places: tuple[str, ...] = ()
    word_kinds: tuple[tuple[str, str], ...] = ()
    own_terms: Mapping[int, OwnTerms] = field(default_factory=dict)
    spots: tuple[Spot, ...] = ()
    own_policies: Mapping[int, Policy] = field(default_factory=dict)
    taught: Taught | None = None

    def __post_init__(self) -> None:
        check_field("monthly_spend", self.monthly_spend)
        for where, got, allowed in (
            ("goal", self.goal, GOALS),
            ("pricing", self.pricing, PRICINGS),
            ("volume_basis", self.volume_basis, MATCHES),
        ):
            if got not in allowed:
                raise BadValueError(where, "one of " + ", ".join(allowed), got)
        if not (len(self.currency) == 3 and self.currency.isalpha() and self.currency.isupper()):
            raise BadValueError("currency", "a three-letter code such as GBP", self.currency)

        for spot in self.spots:
            if not 0 <= spot.offer <= len(self.more_offers):
                raise BadValueError(f"spot {spot.name}, offer", "an offer of the brief", spot.offer)
        if self.season is not None and not (
            len(self.season) == 12
            and all(math.isfinite(m) and m >= 0 for m in self.season)
            and sum(self.season) > 0
        ):
            raise BadValueError("season", "twelve shares of 0 or more, not all 0", self.season)

    @property
    def offers(self) -> tuple[Offer, ...]:
        """Every offer, the first being the one a keyword has unless it says another."""
        return (self.offer, *self.more_offers)

    @property
    def worth(self) -> Worth:
        """The descent from sale to click of the first offer."""
        return worth_of(self.offer, self.ceiling)

    @property
    def worths(self) -> tuple[Worth, ...]:
        """The descent from sale to click of each offer."""
        return tuple(worth_of(offer, self.ceiling) for offer in self.offers)

    @property
    def place_words(self) -> tuple[str, ...]:
        """The plan's own places as normalised words."""
        return tuple(w for w in map(normalise, self.places) if w)
