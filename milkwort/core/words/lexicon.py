"""What words say: kinds of word, and the intent of a whole text.

The lists are data files beside this one, a word or a run of words a line; a plan extends
them with its own places, services, rivals and brand names.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from importlib.resources import files

from milkwort.core.words.intents import INTENTS
from milkwort.core.words.texts import normalise, singular

__all__ = [
    "READ_KINDS", "WORD_KINDS", "IntentReading", "Lexicon", "WordKind", "doing_words",
    "read_list", "shipped_lexicon",
]  # fmt: skip

WORD_KINDS: tuple[str, ...] = ("what", "where", "helper", "warning", "rival", "own")
"""What a planner may say a word is; a place of the plan's own is said in the brief."""

READ_KINDS: tuple[str, ...] = ("what", "where", "helper", "warning")
"""What a word of a keyword is: what is sought, a place, a helper word, a warning word."""

_INTENT_LISTS = ("job", "firm", "learn", "compare", "buy")
"""In order of precedence: a text that holds words of several lists has the first's intent."""
_OWN_FIRM, _OWN_WHAT = "firm", "buy"

Words = tuple[str, ...]

_MOST_TOLD = 200_000
"""Texts whose telling words are kept; then they are read anew."""


@dataclass(frozen=True)
class IntentReading:
    """What a text's words say of its purpose.

    Attributes
    ----------
    intent : str
        From `INTENTS`.
    words : tuple of str
        The words that decided it; none for `unknown`.
    """

    intent: str
    words: tuple[str, ...]


@dataclass(frozen=True)
class WordKind:
    """One word of a text with its kind, and whether it is one of the plan's own places."""

    word: str
    kind: str
    own_place: bool


@dataclass(frozen=True)
class Lexicon:
    """Runs of words by list.

    Attributes
    ----------
    intents : mapping of run of words to intent
    warning, helper, where : frozenset of runs of words
    near : frozenset of runs of words
        Helpers that ask for somewhere near, whichever place it is.
    own_places : frozenset of runs of words
        The plan's.
    own_what : frozenset of runs of words
        The plan's services and products: a text that names one and a place is ready to buy.
    """

    intents: Mapping[Words, str]
    warning: frozenset[Words]
    helper: frozenset[Words]
    where: frozenset[Words]
    near: frozenset[Words] = frozenset()
    own_places: frozenset[Words] = frozenset()
    own_what: frozenset[Words] = frozenset()
    _longest: int = field(default=1)

    def extended(
        self,
        places: Iterable[str] = (),
        services: Iterable[str] = (),
        rivals: Iterable[str] = (),
        brands: Iterable[str] = (),
        other_places: Iterable[str] = (),
        helpers: Iterable[str] = (),
        warnings: Iterable[str] = (),
        everyday: Iterable[str] = (),
    ) -> Lexicon:
        """Return the lexicon with a plan's own words.

        Parameters
        ----------
        places, services : iterable of str
            Where the plan sells, and what.
        rivals, brands : iterable of str
            Names of firms: a text that holds one seeks that firm.
        other_places : iterable of str
            Places that are not the plan's.
        helpers, warnings : iterable of str
            Further words of these kinds.
        everyday : iterable of str
            Words that warn of nothing and decide no intent, whatever the lists say.
        """
        own, what = _runs(places), _runs(services)
        firms, plain = _runs((*rivals, *brands)), _runs(everyday)
        warned, helping, elsewhere = _runs(warnings), _runs(helpers), _runs(other_places)
        added = (*own, *what, *firms, *warned, *helping, *elsewhere)
        longest = max(map(len, added), default=1)
        intents = {**self.intents, **dict.fromkeys(firms, _OWN_FIRM)}
        return Lexicon(
            intents={run: name for run, name in intents.items() if run not in plain},
            warning=(self.warning | warned) - plain,
            helper=(self.helper | helping) - plain,
            where=self.where | own | elsewhere,
            near=self.near - plain,
            own_places=self.own_places | own,
            own_what=self.own_what | what,
            _longest=max(self._longest, longest),
        )

    def intent(self, normalised: str) -> IntentReading:
        """Read the intent of a normalised text, with the words that decided it.

        The longest runs count: in *how much*, *how* says nothing of its own. Of several
        lists the order is job, firm, learn, compare, buy; a text that names one of the
        plan's services at one of its places is ready to buy; nothing found is `unknown`.
        """
        words = normalised.split()
        found = [(self.intents[r], r) for r in self._matches(words, self.intents)]
        for intent in _INTENT_LISTS:
            runs = [" ".join(run) for name, run in found if name == intent]
            if runs:
                return IntentReading(intent, tuple(runs))
        what = list(self._matches(words, self.own_what))
        where = list(self._matches(words, self.own_places))
        if what and where:
            return IntentReading(_OWN_WHAT, tuple(" ".join(r) for r in (*what, *where)))
        return IntentReading("unknown", ())

    def kinds(self, normalised: str) -> tuple[WordKind, ...]:
        """Say of each word of a normalised text which kind it is.

        Kept for as long as the lexicon is: the same texts are asked about after every change.
        """
        held = self._kinds.get(normalised)
        if held is None:
            if len(self._kinds) >= _MOST_TOLD:
                self._kinds.clear()
            held = self._kinds[normalised] = self._read_kinds(normalised)
        return held

    def _read_kinds(self, normalised: str) -> tuple[WordKind, ...]:
        words = normalised.split()
        kinds = ["what"] * len(words)
        own = [False] * len(words)
        for kind, runs in (
            ("helper", self.helper), ("helper", self.near), ("where", self.where),
            ("warning", self.warning),
        ):  # fmt: skip
            for start, run in self._spans(words, runs):
                kinds[start : start + len(run)] = [kind] * len(run)
        for start, run in self._bought(words):
            kinds[start : start + len(run)] = [
                "what" if kind == "warning" else kind for kind in kinds[start : start + len(run)]
            ]
        for start, run in self._spans(words, self.own_places):
            own[start : start + len(run)] = [True] * len(run)
        return tuple(WordKind(*row) for row in zip(words, kinds, own, strict=True))

    def telling(self, normalised: str) -> frozenset[str]:
        """Return the words of a text that are no helper and no own place, in the singular.

        Kept for as long as the lexicon is: the same texts are asked about after every change.
        """
        held = self._told.get(normalised)
        if held is None:
            if len(self._told) >= _MOST_TOLD:
                self._told.clear()
            held = self._told[normalised] = frozenset(
                singular(kind.word)
                for kind in self.kinds(normalised)
                if kind.kind != "helper" and not kind.own_place
            )
        return held

    @cached_property
    def _kinds(self) -> dict[str, tuple[WordKind, ...]]:
        return {}

    @cached_property
    def _told(self) -> dict[str, frozenset[str]]:
        return {}

    def place_runs(self, normalised: str) -> int:
        """Return how many places, or words for *near*, a text names."""
        return sum(1 for _ in self._spans(normalised.split(), self.where | self.near))

    def warning_words(self, normalised: str) -> tuple[str, ...]:
        """Return the warning words or runs of a text, in its order.

        A word inside a longer run that speaks of buying warns of nothing: *free quote*.
        """
        words = normalised.split()
        bought = {at + i for at, run in self._bought(words) for i in range(len(run))}
        spans = self._spans(words, self.warning)
        return tuple(" ".join(run) for at, run in spans if at not in bought)

    @cached_property
    def _heads(self) -> frozenset[str]:
        """First words of all runs: most words of a text begin none."""
        lists = (self.intents, self.warning, self.helper, self.where, self.near,
                 self.own_places, self.own_what)  # fmt: skip
        return frozenset(run[0] for runs in lists for run in runs)

    def _bought(self, words: list[str]) -> list[tuple[int, Words]]:
        """Return the runs of several words that speak of buying."""
        spans = self._spans(words, self.intents)
        return [(at, run) for at, run in spans if len(run) > 1 and self.intents[run] == "buy"]

    def _matches(self, words: list[str], runs: Iterable[Words]) -> Iterator[Words]:
        return (run for _, run in self._spans(words, runs))

    def _spans(self, words: list[str], runs: Iterable[Words]) -> Iterator[tuple[int, Words]]:
        """Yield the longest runs from left to right, none overlapping another."""
        known = runs if isinstance(runs, Mapping | frozenset) else frozenset(runs)
        written, singles = tuple(words), tuple(map(singular, words))
        heads, at = self._heads, 0
        while at < len(words):
            if written[at] not in heads and singles[at] not in heads:
                at += 1
                continue
            for size in range(min(self._longest, len(words) - at), 0, -1):
                run = written[at : at + size]
                hit = run if run in known else singles[at : at + size]
                if hit in known:
                    yield at, hit
                    at += size - 1
                    break
            at += 1


@lru_cache(maxsize=1)
def shipped_lexicon() -> Lexicon:
    """Return the lexicon of the data files."""
    intents = {run: name for name in reversed(_INTENT_LISTS) for run in read_list(name)}
    assert set(intents.values()) <= set(INTENTS)
    warning, helper, near = (frozenset(read_list(name)) for name in ("warning", "helper", "near"))
    longest = max(map(len, (*intents, *warning, *helper, *near)))
    return Lexicon(intents, warning, helper, frozenset(), near, _longest=longest)


@lru_cache(maxsize=1)
def doing_words() -> tuple[str, ...]:
    """Return the words and runs of words that tell a reader what to do next."""
    return tuple(" ".join(run) for run in read_list("doing"))


def read_list(name: str) -> list[Words]:
    """Return the runs of words of one of the data files, normalised.

    Parameters
    ----------
    name : str
        Of the file, without its ending.
    """
    text = files("milkwort.core.words").joinpath(f"lexicons/{name}.txt").read_text(encoding="utf-8")
    lines = (line.strip() for line in text.splitlines())
    return [tuple(normalise(line).split()) for line in lines if line and not line.startswith("#")]


def _runs(texts: Iterable[str]) -> frozenset[Words]:
    """Return texts as runs of words, as they stand and in the singular."""
    runs = {run for t in texts if (run := tuple(normalise(t).split()))}
    return frozenset(runs | {tuple(map(singular, run)) for run in runs})
