"""A web page's keywords, weighed by where they stand."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from selectolax.lexbor import LexborHTMLParser

from milkwort.core.errors import NothingUsableError, TooLargeError
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words.texts import normalise

__all__ = ["PageWord", "page_words"]

_MOST_BYTES = 5 * 2**20
_MOST_WORDS = 100_000
"""Words of a page that are read; what comes after them weighs little."""
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
    left = _MOST_WORDS
    for text, factor in _pieces(content):
        left -= len(text.split())
        if left < 0:
            break
        for sentence in _SENTENCE.split(text):
            for run in _runs(normalise(sentence).split(), words):
                weight[run] += factor * (run.count(" ") + 1) ** 0.7
                count[run] += 1
    if not weight:
        raise NothingUsableError("page: expected a page with words on it, got none", "page")
    ranked = sorted(weight, key=lambda run: (-weight[run], run))
    return [PageWord(run, count[run], weight[run]) for run in _distinct(ranked, count)[:most]]


def _pieces(content: str) -> list[tuple[str, float]]:
    """Return the texts of a page in their order, each with the weight of what it stands in."""
    if "<" not in content:
        return [(content, 1.0)]
    tree = LexborHTMLParser(content)
    found = []
    for meta in tree.css("meta[name=description]"):
        found.append((meta.attributes.get("content") or "", 2.0))
    # a stack, not recursion: a page may be nested as deep as it is long
    todo = [(tree.root, 1.0)] if tree.root is not None else []
    while todo:
        node, factor = todo.pop()
        if node.next is not None:
            todo.append((node.next, factor))
        if node.is_text_node:
            if (node.text_content or "").strip():
                found.append((node.text_content or "", factor))
        elif node.tag not in _SKIPPED and node.child is not None:
            todo.append((node.child, max(factor, _WEIGHTS.get(node.tag or "", 1.0))))
    return found


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
