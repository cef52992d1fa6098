"""A web page's keywords, weighed by where they stand."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from html.parser import HTMLParser

from milkwort.core.errors import NothingUsableError, TooLargeError
from milkwort.core.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words import normalise

__all__ = ["PageWord", "page_words"]

_MOST_BYTES = 5 * 2**20
_WEIGHTS = {"title": 6.0, "h1": 5.0, "h2": 3.0, "h3": 2.0, "a": 1.5, "strong": 1.5, "b": 1.5}
_SKIPPED = frozenset({"script", "style", "noscript", "template", "svg"})
_LONGEST = 4
_SENTENCE = re.compile(r"[.!?;:,()\[\]|\n\r\t•·–—\"]+")


@dataclass(frozen=True)
class PageWord:
    """A run of one to four words, how often it stands there, and its weight."""

    text: str
    count: int
    weight: float


def page_words(content: str, most: int = 80, lexicon: Lexicon | None = None) -> list[PageWord]:
    """Return a page's runs of words, the weightiest first.

    Title and headings weigh more than links, links more than text; longer runs more than
    the words in them; runs that begin or end with a helper word are passed over.

    Parameters
    ----------
    content : str
        HTML or plain text.
    most : int
    lexicon : Lexicon, optional

    Raises
    ------
    TooLargeError
        Past 5 MB.
    NothingUsableError
        Where no words are found.
    """
    if len(content) > _MOST_BYTES:
        raise TooLargeError("page: expected at most 5 MB", "page")
    words = lexicon or shipped_lexicon()
    weight: defaultdict[str, float] = defaultdict(float)
    count: Counter[str] = Counter()
    for text, factor in _pieces(content):
        for sentence in _SENTENCE.split(text):
            for run in _runs(normalise(sentence).split(), words):
                weight[run] += factor * (run.count(" ") + 1) ** 0.7
                count[run] += 1
    if not weight:
        raise NothingUsableError("page: expected a page with words on it, got none", "page")
    ranked = sorted(weight, key=lambda run: (-weight[run], run))
    return [PageWord(run, count[run], weight[run]) for run in _distinct(ranked, count)[:most]]


class _Reader(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.open: list[str] = []
        self.pieces: list[tuple[str, float]] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag == "meta":
            named = dict(attrs)
            if named.get("name", "") == "description" and named.get("content"):
                self.pieces.append((str(named["content"]), 2.0))
            return
        self.open.append(tag)

    def handle_endtag(self, tag: str) -> None:
        if tag in self.open:
            while self.open.pop() != tag:
                pass

    def handle_data(self, data: str) -> None:
        if data.strip() and not _SKIPPED & set(self.open):
            factor = max((_WEIGHTS.get(tag, 1.0) for tag in self.open), default=1.0)
            self.pieces.append((data, factor))


def _pieces(content: str) -> list[tuple[str, float]]:
    if "<" not in content:
        return [(content, 1.0)]
    reader = _Reader()
    reader.feed(content)
    reader.close()
    return reader.pieces


def _runs(words: list[str], lexicon: Lexicon) -> Iterator[str]:
    helper = [(w,) in lexicon.helper or w.isdigit() for w in words]
    for size in range(1, _LONGEST + 1):
        for at in range(len(words) - size + 1):
            if not helper[at] and not helper[at + size - 1] and any(len(w) > 2 for w in words):
                yield " ".join(words[at : at + size])


def _distinct(ranked: list[str], count: Counter[str]) -> list[str]:
    """Leave out a run that only ever stands within a weightier one."""
    taken: list[str] = []
    for run in ranked:
        inside = any(f" {run} " in f" {other} " and count[other] >= count[run] for other in taken)
        if not inside:
            taken.append(run)
        if len(taken) > 400:
            break
    return taken
