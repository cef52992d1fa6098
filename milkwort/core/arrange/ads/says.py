"""What an ad says: the group's words, a place, a figure, what to do, what sets it apart."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from milkwort.core.arrange.ads.checks import prices_in
from milkwort.core.arrange.ads.text import Ad, Fillings, written_out
from milkwort.core.arrange.main_words import MainWord, said_of, says
from milkwort.core.counted import in_percent
from milkwort.core.words.lexicon import Lexicon, doing_words
from milkwort.core.words.stop_words import STOP_SINGULARS
from milkwort.core.words.texts import normalise

__all__ = ["AdLine", "LineKind", "RivalAds", "lines_of"]

LineKind = Literal["words", "unsaid", "place", "figure", "doing", "apart"]

_NAMED = 5

_SMALL_WORDS = """
all also any been both but each even every few from had have here into just less like more most
much never none not now off old once one only other out over own per same she so some soon still
such than that their them then there these they this those through too two under until up very was
were while who will yet
"""
_SMALL = frozenset(_SMALL_WORDS.split())
"""Words that set no ad apart."""


@dataclass(frozen=True)
class AdLine:
    """One thing an ad says or doesn't.

    Attributes
    ----------
    kind : LineKind
    said : bool
        Whether the ad says it.
    says : str
        As a line to be read.
    mend : str
        What would answer it; empty where it is said.
    """

    kind: LineKind
    said: bool
    says: str
    mend: str = ""


@dataclass(frozen=True)
class RivalAds:
    """The words of the rivals' ads that are known.

    Attributes
    ----------
    words : frozenset of str
        In the singular.
    ads : int
        How many different ads they are from.
    """

    words: frozenset[str] = frozenset()
    ads: int = 0

    @classmethod
    def of(cls, texts: Iterable[str]) -> RivalAds:
        """Return the words of some ads.

        Parameters
        ----------
        texts : iterable of str
            As read; empty ones are none.
        """
        different = {text for text in texts if text.strip()}
        words = frozenset(word for text in different for word in says(text))
        return cls(words, len(different))


def lines_of(
    ad: Ad,
    fillings: Fillings,
    words: Sequence[MainWord],
    places: Sequence[str],
    rivals: RivalAds,
    lexicon: Lexicon,
) -> list[AdLine]:
    """Return what an ad says and what it doesn't, each with what would answer it.

    Parameters
    ----------
    ad : Ad
    fillings : Fillings
        Of its group: what is read is what leaves.
    words : sequence of MainWord
        Of its group, the most clicked first.
    places : sequence of str
        The plan's own.
    rivals : RivalAds
    lexicon : Lexicon
        Tells the words that set an ad apart from helpers and places.
    """
    text = " | ".join(written_out(part, fillings) for _, part in ad.fields())
    normalised = normalise(text)
    lines = _of_words(words, text)
    if places:
        lines.append(_of_place(places, normalised))
    lines += [_of_figure(text), _of_doing(normalised)]
    if rivals.ads:
        lines.append(_apart(normalised, words, rivals, lexicon))
    return lines


def _of_words(words: Sequence[MainWord], text: str) -> list[AdLine]:
    there = said_of(words, text)
    said = [one.word for one, is_there in zip(words, there, strict=True) if is_there]
    lines = []
    if said:
        many = "a word" if len(said) == 1 else "words"
        lines.append(AdLine("words", True, f"{many} of the group: {', '.join(said)}"))
    for one, is_there in zip(words, there, strict=True):
        if not is_there:
            says_so = f"{one.word}, in {in_percent(one.share)} of the clicks, isn’t said"
            lines.append(AdLine("unsaid", False, says_so, f"say “{one.word}” in a headline"))
    return lines


def _of_place(places: Sequence[str], normalised: str) -> AdLine:
    padded = f" {normalised} "
    said = [p for p in places if normalise(p) and f" {normalise(p)} " in padded]
    if said:
        return AdLine("place", True, f"a place of ours: {', '.join(said[:_NAMED])}")
    return AdLine("place", False, "no place of ours", f"name {places[0]}, or write ‹place›")


def _of_figure(text: str) -> AdLine:
    prices = prices_in(text)
    if prices:
        return AdLine("figure", True, f"a price: {', '.join(f'{one:,.10g}' for one in prices)}")
    numbers = [word for word in normalise(text).split() if any(c.isdigit() for c in word)]
    if numbers:
        return AdLine("figure", True, f"a number: {', '.join(numbers[:_NAMED])}")
    return AdLine(
        "figure", False, "no price and no number", "write ‹price›, or a figure that holds"
    )


def _of_doing(normalised: str) -> AdLine:
    padded = f" {normalised} "
    said = next((word for word in doing_words() if f" {word} " in padded), None)
    if said is not None:
        return AdLine("doing", True, f"what to do next: {said}")
    return AdLine("doing", False, "no word that says what to do next",
                  "end with what to do: ask, book, call, order, see")  # fmt: skip


def _apart(
    normalised: str, words: Sequence[MainWord], rivals: RivalAds, lexicon: Lexicon
) -> AdLine:
    own = {one.word for one in words}
    known = own | rivals.words | STOP_SINGULARS | _SMALL | _doing_singles()
    new = sorted(word for word in lexicon.telling(normalised) - known if len(word) > 2)
    many = f"{rivals.ads} known {'ad' if rivals.ads == 1 else 'ads'} of rivals"
    if new:
        return AdLine("apart", True, f"not in {many}: {', '.join(new[:_NAMED])}")
    return AdLine("apart", False, f"nothing that isn’t in {many}", "say what only you do or have")


def _doing_singles() -> frozenset[str]:
    return frozenset(says(" ".join(doing_words())))
