"""First drafts of ads, to be rewritten: within all limits, no two groups' alike."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import product

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.arrange.main_words import MainWord, said_of
from milkwort.core.brief.platform import Profile
from milkwort.core.words.texts import normalise

__all__ = ["DraftFor", "first_drafts"]

_LEAST_WORDS = 2
"""So many of the group's main words a draft says, where it has them and they fit."""

_MOST_LEADS = 12

_CALLS = ("Ask for a quote", "Book a visit", "Call us", "See how we do it", "Order", "Ask us",
          "Compare", "Start here")  # fmt: skip
_CLOSERS = ("Ask us what it takes.", "See what it takes.", "Tell us what you need.",
            "Call us first.", "Compare before you choose.", "Ask.", "See.")  # fmt: skip
_OPENERS = ("{}.", "{}: tell us what you have in mind.", "Looking for {}?", "{} wanted?")


@dataclass(frozen=True)
class DraftFor:
    """What a group's first ad is made of.

    Attributes
    ----------
    keywords : sequence of str
        Its kept keywords as written, the most clicked first.
    words : sequence of MainWord
    place, offer : str
        The first of the plan's places and what is sold; empty where there is none.
    """

    keywords: Sequence[str]
    words: Sequence[MainWord]
    place: str = ""
    offer: str = ""


def first_drafts(
    groups: Sequence[DraftFor], profile: Profile, taken: Sequence[Ad] = ()
) -> list[Ad]:
    """Return one draft a group, no two alike and none like one that is there.

    Parameters
    ----------
    groups : sequence of DraftFor
    profile : Profile
        Whose limits and refused characters the drafts keep to.
    taken : sequence of Ad
        Ads that there are.

    Returns
    -------
    list of Ad
        None of them holds a figure: a draft promises nothing. The last resort of a group
        that no different draft fits is the plainest one.
    """
    seen = {_folded(ad) for ad in taken}
    made = []
    for at, group in enumerate(groups):
        ad = _draft(group, profile, at, seen)
        seen.add(_folded(ad))
        made.append(ad)
    return made


def _draft(group: DraftFor, profile: Profile, turn: int, seen: set[tuple[str, ...]]) -> Ad:
    first: Ad | None = None
    for ad in _ways(group, profile, turn):
        if first is None:
            first = ad
        if _folded(ad) not in seen:
            return ad
    assert first is not None, "there is always a plainest way"
    return first


def _ways(group: DraftFor, profile: Profile, turn: int) -> Iterator[Ad]:
    """Yield drafts of a group from the best on; which comes first turns from group to group."""
    lead = _leads(group, profile)
    calls = _turned(_fitting(_CALLS, profile.headline_characters, profile), turn)
    texts = list(_texts(group, profile, turn))
    for words, call, text in product(lead, calls or [""], texts):
        rest = [call, group.offer, group.place] if profile.headlines > 1 else []
        heads = [words] if words else []
        for one in _fitting(rest, profile.headline_characters, profile):
            if one and normalise(one) not in map(normalise, heads):
                heads.append(one)
        heads = heads[: profile.headlines] or [(call or text)[: profile.headline_characters]]
        yield Ad(tuple(heads), (text,))


def _leads(group: DraftFor, profile: Profile) -> list[str]:
    """Return first lines: keywords that say two main words, then the words themselves."""
    need = min(_LEAST_WORDS, len(group.words))
    limit = profile.headline_characters
    names = _fitting([_titled(k) for k in group.keywords], limit, profile)
    good = [n for n in names if sum(said_of(group.words, n)) >= need]
    plain = [w.word for w in group.words]
    joined = [_titled(" ".join(plain[:n])) for n in (_LEAST_WORDS, 1) if plain]
    return [*good[:_MOST_LEADS], *_fitting(joined, limit, profile), *names[:1]] or [""]


def _texts(group: DraftFor, profile: Profile, turn: int) -> Iterator[str]:
    """Yield descriptions that fit, each ending with what to do."""
    words = " ".join(w.word for w in group.words[:3]) or group.offer
    about = [_titled(words) + (f" in {group.place}" if group.place else ""), _titled(words)]
    limit = profile.description_characters
    pairs = list(product(_turned(_OPENERS, turn), _turned(_CLOSERS, turn)))
    whole = [f"{o.format(a)} {c}" for a in about if a for o, c in pairs]
    fitting = _fitting(whole, limit, profile)
    yield from fitting or _fitting(_CLOSERS, limit, profile) or [_CLOSERS[-1][:limit]]


def _fitting(texts: Sequence[str], limit: int, profile: Profile) -> list[str]:
    bare = [_bare(text, profile) for text in texts]
    return [text for text in bare if text and len(text) <= limit]


def _bare(text: str, profile: Profile) -> str:
    """Return a text without figures, refused characters and needless spaces."""
    held = "".join(
        " " if c in profile.refused_characters or c.isdigit() or c in "‹›" else c for c in text
    )
    return " ".join(held.split())


def _titled(text: str) -> str:
    return text[:1].upper() + text[1:]


def _turned(texts: Sequence[str], turn: int) -> list[str]:
    at = turn % len(texts) if texts else 0
    return [*texts[at:], *texts[:at]]


def _folded(ad: Ad) -> tuple[str, ...]:
    return tuple(normalise(text) for _, text in ad.fields())
