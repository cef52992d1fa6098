"""Which words a page says, and where."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from milkwort.core.arrange.main_words import MainWord, says
from milkwort.core.counted import in_percent

__all__ = [
    "PagePart",
    "PageText",
    "PageWords",
    "address_key",
    "best_page",
    "page_words_of",
    "same_address",
    "sentence_about",
]

PagePart = Literal["title", "heading", "text"]
_PARTS: tuple[PagePart, ...] = ("title", "heading", "text")
_BETTER = 1e-9


@dataclass(frozen=True)
class PageText:
    """A page of the site as it was read.

    Attributes
    ----------
    address : str
    title : str
    headings : tuple of str
    text : str
        The rest of what it says.
    """

    address: str
    title: str = ""
    headings: tuple[str, ...] = ()
    text: str = ""

    def part(self, part: PagePart) -> frozenset[str]:
        """Return the words of a part of the page, in the singular."""
        whole = {"title": self.title, "heading": "\n".join(self.headings), "text": self.text}
        return _words(whole[part])

    def words(self) -> frozenset[str]:
        """Return all words of the page, in the singular."""
        return self.part("title") | self.part("heading") | self.part("text")


@dataclass(frozen=True)
class PageWords:
    """What a page says of one group's main words.

    Attributes
    ----------
    where : tuple of tuple of PagePart
        The parts that say each word; none for a word the page doesn't say.
    said : float
        The share of the words' clicks that goes to those it says, 0 to 1.
    missing : tuple of str
        Words it doesn't say, the most clicked first.
    """

    where: tuple[tuple[PagePart, ...], ...]
    said: float
    missing: tuple[str, ...]

    @property
    def count(self) -> int:
        """How many of the words it says."""
        return sum(bool(parts) for parts in self.where)


def page_words_of(words: Sequence[MainWord], page: PageText) -> PageWords:
    """Say which of a group's main words a page says, and where.

    Parameters
    ----------
    words : sequence of MainWord
        The most clicked first.
    page : PageText
    """
    parts = {part: page.part(part) for part in _PARTS}
    where = tuple(tuple(p for p in _PARTS if one.word in parts[p]) for one in words)
    weight = sum(one.share for one in words)
    said = sum(one.share for one, at in zip(words, where, strict=True) if at)
    missing = tuple(one.word for one, at in zip(words, where, strict=True) if not at)
    return PageWords(where, said / weight if weight > 0 else 0.0, missing)


def best_page(words: Sequence[MainWord], pages: Sequence[PageText], own: int) -> int:
    """Return the page that says most of a group's words.

    Parameters
    ----------
    words : sequence of MainWord
    pages : sequence of PageText
    own : int
        The one its ads lead to, which stays where none says more; −1 for none.

    Returns
    -------
    int
        Place among the pages; −1 where none says a word of it. Among equals the one that
        says them in its title, then in a heading, then the first.
    """
    if not words or not pages:
        return -1
    said = np.array([page_words_of(words, page).said for page in pages])
    loud = np.array([_loudness(words, page) for page in pages])
    top = float(said.max())
    if top <= 0:
        return -1
    if own >= 0 and said[own] >= top - _BETTER:
        return own
    return int(np.lexsort((np.arange(len(pages)), -loud, -said))[0])


def sentence_about(words: Sequence[MainWord], page: PageText) -> str:
    """Return what to ask of whoever writes a page; empty where it says all words.

    Parameters
    ----------
    words : sequence of MainWord
    page : PageText
    """
    found = page_words_of(words, page)
    if not found.missing:
        return ""
    share = {one.word: one.share for one in words}
    asked = " and ".join(f"“{w}” ({in_percent(share[w])} of the clicks)" for w in found.missing)
    many = "it" if len(found.missing) == 1 else "them"
    return (
        f"People who come to {page.address} from our ads have searched for {asked}, and the "
        f"page doesn’t say {many}: please say {many} in the title or a heading."
    )


def same_address(one: str, other: str) -> bool:
    """Return whether two addresses lead to one page.

    Parameters
    ----------
    one, other : str
        With a scheme and a host or without; a query or a mark behind # is no other page.
    """
    return address_key(one) == address_key(other)


def address_key(address: str) -> str:
    """Return what addresses that lead to one page have in common.

    Parameters
    ----------
    address : str
        With a scheme and a host or without; the host is not looked at.
    """
    bare = address.strip().split("#", 1)[0].split("?", 1)[0]
    bare = bare.split("://", 1)[-1] if "://" in bare else bare
    host, slash, rest = bare.partition("/")
    if host and "." in host and slash:
        bare = "/" + rest
    elif host and "." in host and not host.endswith((".html", ".htm", ".txt", ".md")):
        bare = "/"
    return "/" + bare.strip("/").removeprefix("./").casefold()


def _loudness(words: Sequence[MainWord], page: PageText) -> float:
    title, heading = page.part("title"), page.part("heading")
    return sum(one.share * (2 * (one.word in title) + (one.word in heading)) for one in words)


@lru_cache(maxsize=4096)
def _words(text: str) -> frozenset[str]:
    return says(text)
