"""What is wrong with an ad: for the platform, and against the brief."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from milkwort.core.arrange.ads.hours_said import against_hours
from milkwort.core.arrange.ads.text import Ad, Fillings, at_longest, loose_ends, written_out
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.platform import Profile
from milkwort.core.brief.showing import Showing
from milkwort.core.words.texts import normalise

__all__ = ["AdFault", "FaultKind", "faults_of", "faults_of_group", "limit_of", "prices_in"]

FaultKind = Literal[
    "too_long", "refused_characters", "too_many_fields", "nothing_written", "loose_end",
    "other_price", "other_place", "hours", "same_twice", "too_many_ads",
]  # fmt: skip

_OF_BRIEF = frozenset({"other_price", "other_place", "hours"})
"""Contradictions of the brief: a platform would take them."""

_NUMBER = r"(\d{1,9}(?:[.,]\d{1,3}){0,3})"
_PRICE = re.compile(rf"[£€$¥]\s?{_NUMBER}|{_NUMBER}\s?(?:[£€$¥]|[A-Z]{{3}}\b)")
_CODES = frozenset({"GBP", "EUR", "USD", "CHF", "AUD", "CAD", "NZD", "SEK", "NOK", "DKK", "PLN",
                    "CZK", "JPY", "INR", "ZAR"})  # fmt: skip


@dataclass(frozen=True)
class AdFault:
    """One thing wrong with an ad.

    Attributes
    ----------
    kind : FaultKind
    field : str
        Such as ``headline 2``; empty for the ad as a whole.
    says : str
        What was expected and what stands there, in words.
    """

    kind: FaultKind
    field: str
    says: str

    @property
    def must(self) -> bool:
        """Whether the platform would refuse it."""
        return self.kind not in _OF_BRIEF


def faults_of(
    ad: Ad,
    fillings: Fillings,
    brief: Brief,
    profile: Profile,
    showing: Showing,
    prices: Sequence[float] = (),
) -> list[AdFault]:
    """Return what is wrong with one ad, in the order of its fields.

    Parameters
    ----------
    ad : Ad
    fillings : Fillings
        Of its group.
    brief : Brief
    profile : Profile
        The platform's rules.
    showing : Showing
        Days and hours of its campaign.
    prices : sequence of float
        Of the things its group shows, beside those of the brief's offers.
    """
    found = list(_of_fields(ad, fillings, profile))
    whole = " | ".join(written_out(text, fillings) for _, text in ad.fields())
    found += [AdFault("other_price", "", says) for says in _other_prices(whole, brief, prices)]
    padded = f" {normalise(whole)} "
    found += [
        AdFault("other_place", "", f"{place} is not one of the plan’s places")
        for place in brief.other_places
        if normalise(place) and f" {normalise(place)} " in padded
    ]
    found += [
        AdFault("hours", "", f"“{said}”, but the campaign isn’t shown then")
        for said in against_hours(whole, showing)
    ]
    return found


def faults_of_group(ads: Sequence[Ad], fillings: Fillings, profile: Profile) -> list[list[AdFault]]:
    """Return what is wrong with each ad beside the other ads of its group.

    Parameters
    ----------
    ads : sequence of Ad
        In the order they were written.
    fillings : Fillings
    profile : Profile
    """
    seen: set[tuple[tuple[str, str], ...]] = set()
    found: list[list[AdFault]] = []
    for at, ad in enumerate(ads):
        mine = []
        words = tuple((name, normalise(written_out(text, fillings))) for name, text in ad.fields())
        if words and words in seen:
            mine.append(AdFault("same_twice", "", "the group has this ad already"))
        seen.add(words)
        if at >= profile.ads_per_group:
            says = f"{profile.name} takes {profile.ads_per_group} ads a group, this is {at + 1}"
            mine.append(AdFault("too_many_ads", "", says))
        found.append(mine)
    return found


def prices_in(text: str) -> list[float]:
    """Return the sums of money that a text names.

    Parameters
    ----------
    text : str
        A figure counts as money where a currency's sign or code stands beside it.
    """
    found = []
    for match in _PRICE.finditer(text):
        if match[1] is None and not _is_money(match[0]):
            continue
        found.append(_figure(match[1] or match[2]))
    return found


def _of_fields(ad: Ad, fillings: Fillings, profile: Profile) -> Iterator[AdFault]:
    if not any(ad.headlines) or not any(ad.descriptions):
        missing = "headline" if not any(ad.headlines) else "description"
        yield AdFault("nothing_written", f"{missing} 1", f"no {missing} is written yet")
    for kind, texts, most in (
        ("headline", ad.headlines, profile.headlines),
        ("description", ad.descriptions, profile.descriptions),
    ):
        for at, _ in enumerate(texts[most:], start=most + 1):
            says = f"{profile.name} has {most} {kind}{'' if most == 1 else 's'}"
            yield AdFault("too_many_fields", f"{kind} {at}", says)
    for name, text in ad.fields():
        most = limit_of(name, profile)
        shown = at_longest(text, fillings)
        if len(shown) > most:
            says = f"{len(shown)} characters, {len(shown) - most} over {most}"
            yield AdFault("too_long", name, says)
        refused = sorted(set(shown) & set(profile.refused_characters))
        if refused:
            says = f"{profile.name} takes no {' '.join(refused)}"
            yield AdFault("refused_characters", name, says)
        for end in loose_ends(text, fillings):
            yield AdFault("loose_end", name, end)


def limit_of(name: str, profile: Profile) -> int:
    """Return how many characters a field may have.

    Parameters
    ----------
    name : str
        Of the field, such as ``headline 2``.
    profile : Profile
    """
    is_headline = name.startswith("headline")
    return profile.headline_characters if is_headline else profile.description_characters


def _other_prices(text: str, brief: Brief, prices: Sequence[float]) -> Iterator[str]:
    known = [*prices, *(offer.sale_value for offer in brief.offers)]
    for price in prices_in(text):
        if not any(abs(price - one) < 0.005 * max(one, 1.0) for one in known):
            sold = ", ".join(f"{one:,.10g}" for one in sorted(set(known)))
            yield f"{price:,.10g} in the ad, {sold} in the plan"


def _is_money(said: str) -> bool:
    return said[-1] in "£€$¥" or said[-3:] in _CODES


def _figure(said: str) -> float:
    """Read a figure: the last mark before one or two digits is its decimal mark."""
    whole, mark, part = said, "", ""
    at = max(said.rfind("."), said.rfind(","))
    if at >= 0 and len(said) - at - 1 <= 2:
        whole, mark, part = said[:at], ".", said[at + 1 :]
    return float(whole.replace(",", "").replace(".", "") + mark + part)
