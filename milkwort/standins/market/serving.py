"""Which of an account's keywords may serve which text, the best first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import TextIndex, index_of, matching_pairs
from milkwort.core.words.texts import canonical, joints_of, normalise, singular
from milkwort.standins.market.account import Ad, Live
from milkwort.standins.market.world import World

__all__ = ["Serving", "serving_of"]

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True)
class Serving:
    """Pairs of keyword and text; arrays of shape (n_pairs,), a text's best keyword first.

    Attributes
    ----------
    keyword, text : Ints
        Places among the live keywords and the world's texts; by text, then by rank.
    first : Ints, shape (n_texts + 1,)
        Where each text's pairs start.
    wide : Ints
        Match type by which the text is served beside the keyword's own; −1 for its own text.
    says_ad, says_page : Bools
        Whether an ad, and the page, say one of the text's words at least.
    campaign : Ints
        Place of the keyword's campaign.
    """

    keyword: Ints
    text: Ints
    first: Ints
    wide: Ints
    says_ad: Bools
    says_page: Bools
    campaign: Ints


def serving_of(live: Live, world: World) -> Serving:
    """Find who may serve what: nothing that is off, has no ad, or is stopped by a negative.

    Parameters
    ----------
    live : Live
    world : World
    """
    groups = {g.ref: g for g in live.groups}
    campaigns = {c.ref: at for at, c in enumerate(live.campaigns)}
    with_ads = {ad.group for ad in live.ads}
    rows = [
        at for at, k in enumerate(live.keywords)
        if k.runs and k.bid > 0 and k.group in groups and groups[k.group].campaign in campaigns
        and (not live.rules.needs_ads or k.group in with_ads)
    ]  # fmt: skip
    typed = [*(k.text for k in live.keywords), *(s.text for s in live.stops)]
    joints = joints_of(typed)
    index = index_of(world.texts, joints, live.rules.close_forms)
    keyword, text = _pairs(live, rows, index, dict(joints))
    campaign_of = np.array(
        [campaigns.get(groups[k.group].campaign, -1) if k.group in groups else -1
         for k in live.keywords], dtype=np.int64)  # fmt: skip
    stays = ~_stopped(live, world, keyword, text, joints)
    keyword, text = keyword[stays], text[stays]

    spellings = dict(joints)
    words = [canonical(normalise(k.text), spellings, live.rules.close_forms) for k in live.keywords]
    match = np.array([MATCHES.index(k.match) for k in live.keywords], dtype=np.int64)
    size = np.array([len(w) for w in words], dtype=np.int64)
    bid = np.array([k.bid for k in live.keywords])
    own = np.array([words[k] == index.words[t] for k, t in
                    zip(keyword.tolist(), text.tolist(), strict=True)], dtype=bool)  # fmt: skip
    # own text before wider; exact, phrase, broad; more words; the higher bid; the older
    order = np.lexsort((keyword, -bid[keyword], -size[keyword], match[keyword], ~own, text))
    keyword, text, own = keyword[order], text[order], own[order]
    says_ad, says_page = _said(live, world, keyword, text)
    return Serving(
        keyword=keyword, text=text, first=np.searchsorted(text, np.arange(len(world.texts) + 1)),
        wide=np.where(own, -1, match[keyword]), says_ad=says_ad, says_page=says_page,
        campaign=campaign_of[keyword],
    )  # fmt: skip


def _pairs(
    live: Live, rows: Sequence[int], index: TextIndex, spellings: dict[str, str]
) -> tuple[Ints, Ints]:
    patterns = [
        canonical(normalise(live.keywords[at].text), spellings, live.rules.close_forms)
        for at in rows
    ]
    match = np.array([MATCHES.index(live.keywords[at].match) for at in rows], dtype=np.int64)
    pairs = matching_pairs(index, patterns, match)
    return np.array(rows, dtype=np.int64)[pairs.pattern], pairs.text


def _stopped(
    live: Live, world: World, keyword: Ints, text: Ints, joints: frozenset[tuple[str, str]]
) -> Bools:
    """Say of each pair whether a negative stops it."""
    stopped = np.zeros(len(keyword), dtype=bool)
    if not live.stops:
        return stopped
    index = index_of(world.texts, joints, live.rules.stop_close_forms)
    spellings = dict(joints)
    patterns = [canonical(normalise(s.text), spellings, live.rules.stop_close_forms)
                for s in live.stops]  # fmt: skip
    match = np.array([MATCHES.index(s.match) for s in live.stops], dtype=np.int64)
    pairs = matching_pairs(index, patterns, match)
    groups = {g.ref: g for g in live.groups}
    scopes = [k.group for k in live.keywords]
    campaign_of = [groups[g].campaign if g in groups else "" for g in scopes]
    stopped_by: dict[tuple[str, str], set[int]] = {}
    for number, at in zip(pairs.pattern.tolist(), pairs.text.tolist(), strict=True):
        stop = live.stops[number]
        scope = ("group", stop.group) if stop.group else ("campaign", stop.campaign)
        stopped_by.setdefault(scope, set()).add(at)
    everywhere = stopped_by.get(("campaign", ""), set())
    for at, (k, t) in enumerate(zip(keyword.tolist(), text.tolist(), strict=True)):
        stopped[at] = (
            t in everywhere
            or t in stopped_by.get(("campaign", campaign_of[k]), ())
            or t in stopped_by.get(("group", scopes[k]), ())
        )
    return stopped


def _said(live: Live, world: World, keyword: Ints, text: Ints) -> tuple[Bools, Bools]:
    """Say of each pair whether ad and page hold one of the words of what was asked."""
    ads = _words_of_ads(live.ads)
    pages = {g.ref: _singulars(normalise(g.page)) for g in live.groups}
    told: dict[int, frozenset[str]] = {}
    says_ad, says_page = np.ones(len(keyword), dtype=bool), np.ones(len(keyword), dtype=bool)
    for at, (k, t) in enumerate(zip(keyword.tolist(), text.tolist(), strict=True)):
        base = int(world.base[t])
        words = told.get(base)
        if words is None:
            words = told[base] = _singulars(world.texts[base])
        group = live.keywords[k].group
        says_ad[at] = not words.isdisjoint(ads.get(group, frozenset()))
        says_page[at] = not words.isdisjoint(pages.get(group, frozenset()))
    return says_ad, says_page


def _words_of_ads(ads: Sequence[Ad]) -> dict[str, frozenset[str]]:
    found: dict[str, frozenset[str]] = {}
    for ad in ads:
        words = _singulars(normalise(" ".join(ad.fields)))
        found[ad.group] = found.get(ad.group, frozenset()) | words
    return found


def _singulars(normalised: str) -> frozenset[str]:
    return frozenset(map(singular, normalised.split()))
