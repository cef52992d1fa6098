"""What to block next: what money is wasted on, each in its narrowest safe form."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import Match
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import stopped_by
from milkwort.core.words.stop_words import LINKING_WORDS
from milkwort.core.words.texts import canonical, joints_of, normalise

__all__ = ["SafeForms", "ToBlock", "money_by_run", "money_by_text", "to_block"]

Run = tuple[str, ...]


@dataclass(frozen=True)
class ToBlock:
    """A negative that would save money and stop nothing wanted.

    Attributes
    ----------
    text : str
        In the words of what it stops.
    match : Match
        Phrase for a run of words, exact where only the whole text is safe.
    saves : float
        Money a month, at least: what is spent on the texts it stops.
    source : str
        ``dropped``, ``warning`` or ``past``: what it was made of, the dearest first.
    stops : tuple of str
        Texts of the sheet, or past terms, that it stops and money goes to.
    """

    text: str
    match: Match
    saves: float
    source: str
    stops: tuple[str, ...]


@dataclass
class _Wasted:
    """Texts that money goes to in vain, by their words."""

    money: dict[Run, float] = field(default_factory=dict)
    written: dict[Run, str] = field(default_factory=dict)
    source: dict[Run, str] = field(default_factory=dict)

    def add(self, words: Run, text: str, money: float, source: str) -> None:
        self.money[words] = max(self.money.get(words, 0.0), money)
        self.written.setdefault(words, text)
        self.source.setdefault(words, source)


def money_by_text(result: PlanResult) -> Floats:
    """Return the money a month spent on each text that another keyword serves.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    ndarray of shape (n_texts,)
        By the texts of `result.serving`; 0 where a text is served by its own keyword or by none.
    """
    # spend_i · f_i·D_j / Q_i for a text j that i serves
    texts, demand = result.serving.texts, result.demand
    served = np.flatnonzero(texts.server >= 0)
    by = texts.server[served]
    clicked = np.array(result.brief.assumed.triple("variant_clicks"))[result.table.match[by]]
    weight = demand.click_weight[by]
    share = np.divide(
        clicked * texts.searches[served], weight, out=np.zeros(len(by)), where=weight > 0
    )
    money = np.zeros(len(texts.server))
    money[served] = np.nan_to_num(result.expected.spend[by]) * share
    return money


class SafeForms:
    """The narrowest forms of texts that stop nothing kept and nothing that has sold.

    Parameters
    ----------
    result : PlanResult
    sold_terms : sequence of str
        Search terms that have sold.
    texts : iterable of str
        All that will be asked about: they may spell a compound in their own way.
    """

    def __init__(
        self, result: PlanResult, sold_terms: Sequence[str] = (), texts: Iterable[str] = ()
    ) -> None:
        self._close = result.brief.negative_close_forms
        self._spellings = dict(result.table.joints | joints_of([*sold_terms, *texts]))
        kept = [result.table.texts[row] for row in np.flatnonzero(result.table.kept).tolist()]
        self.wanted = {self.words_of(text) for text in (*kept, *sold_terms)}
        self._unsafe = {run for words in self.wanted for run in _runs(words)}

    def is_safe(self, run: Run) -> bool:
        """Say whether a run stands in nothing wanted, and says something."""
        return run not in self._unsafe and not LINKING_WORDS.issuperset(run)

    def words_of(self, text: str) -> Run:
        """Return a text's words as negatives see them."""
        return canonical(normalise(text), self._spellings, self._close)

    def of(self, text: str, saved: Mapping[Run, float] | None = None) -> tuple[str, Match] | None:
        """Return the shortest safe run of a text's words, of equals the one that saves most.

        A phrase, or the very text where only the whole of it is safe; None where the text
        itself is kept or has sold. Without `saved` the first of equals.
        """
        words = self.words_of(text)
        form = _form(words, self, {run: (saved or {}).get(run, 0.0) for run in _runs(words)})
        return None if form is None else (" ".join(form[0]), form[1])


def money_by_run(safe: SafeForms, money: Iterable[tuple[str, float]]) -> dict[Run, float]:
    """Return the money that goes to texts with each run of words.

    Parameters
    ----------
    safe : SafeForms
        Says how texts are spelt.
    money : iterable of (str, float)
        Texts, and what was spent on each.
    """
    found: dict[Run, float] = {}
    for text, spent in money:
        for run in set(_runs(safe.words_of(text))):
            found[run] = found.get(run, 0.0) + spent
    return found


def to_block(
    result: PlanResult,
    lexicon: Lexicon,
    sold_terms: Sequence[str] = (),
    past: Mapping[str, float] | None = None,
) -> list[ToBlock]:
    """Return what to block next, the most money saved first.

    What is dropped and yet served by a wider keyword, what holds a warning word and is not
    kept, and past terms that never sold: for each the shortest run of its words that matches
    no kept keyword and no term that has sold; among equally short ones the one that saves
    most; where no run is safe an exact negative of the text, unless it is kept or has sold.
    Words that stand in any search, *for* say, are no run of their own.

    Parameters
    ----------
    result : PlanResult
    lexicon : Lexicon
        Tells warning words.
    sold_terms : sequence of str
        Search terms that have sold.
    past : mapping of str to float, optional
        Past terms that never sold, and the money a month that went to each.

    Returns
    -------
    list of ToBlock
        None of them saves nothing.
    """
    past = past or {}
    safe = SafeForms(result, sold_terms, past)
    wasted = _wasted(result, lexicon, past, safe.words_of)
    holders: dict[Run, list[Run]] = {}
    for words in wasted.money:
        for run in set(_runs(words)):
            holders.setdefault(run, []).append(words)
    saved = {run: sum(wasted.money[words] for words in own) for run, own in holders.items()}
    forms: dict[tuple[Run, Match], None] = {}
    for words in wasted.money:
        form = _form(words, safe, saved)
        if form is not None:
            forms.setdefault(form)
    return sorted(
        (_told(form, wasted, holders) for form in forms),
        key=lambda one: (-one.saves, one.text),
    )


def _wasted(
    result: PlanResult,
    lexicon: Lexicon,
    past: Mapping[str, float],
    words_of: Callable[[str], Run],
) -> _Wasted:
    found = _Wasted()
    texts = result.serving.texts
    money = money_by_text(result)
    for at in np.flatnonzero(money > 0).tolist():
        text = texts.relation.texts[at]
        warned = bool(lexicon.warning_words(text))
        if texts.judged[at] or warned:
            source = "dropped" if texts.judged[at] else "warning"
            found.add(words_of(text), text, float(money[at]), source)
    for text in _unstopped(result, past):
        if past[text] > 0 and words_of(text):
            found.add(words_of(text), normalise(text), past[text], "past")
    return found


def _unstopped(result: PlanResult, past: Mapping[str, float]) -> list[str]:
    """Return the past terms that no negative of the whole plan stops already."""
    texts = tuple(past)
    negatives = negatives_in_force(result.brief.negatives, result.table)
    joints = result.table.joints | joints_of([*texts, *(n.text for n in negatives)])
    close = result.brief.negative_close_forms
    index = index_of(tuple(map(normalise, texts)), joints, close)
    stopped = stopped_by(negatives, index, joints, close).everywhere
    return [
        text for text, is_stopped in zip(texts, stopped.tolist(), strict=True) if not is_stopped
    ]


def _form(words: Run, safe: SafeForms, saved: Mapping[Run, float]) -> tuple[Run, Match] | None:
    """Return the narrowest safe form of a text; None where even its own text is wanted."""
    for size in range(1, len(words) + 1):
        free = [run for run in _runs_of(words, size) if safe.is_safe(run)]
        if free:
            return max(free, key=lambda run: saved[run]), "phrase"
    return None if words in safe.wanted else (words, "exact")


def _told(
    form: tuple[Run, Match], wasted: _Wasted, holders: Mapping[Run, Sequence[Run]]
) -> ToBlock:
    run, match = form
    stops = [run] if match == "exact" else holders[run]
    dearest = sorted(stops, key=lambda words: (-wasted.money[words], words))
    return ToBlock(
        text=" ".join(run),
        match=match,
        saves=sum(wasted.money[words] for words in stops),
        source=wasted.source[dearest[0]],
        stops=tuple(wasted.written[words] for words in dearest),
    )


def _runs(words: Run) -> Iterator[Run]:
    for size in range(1, len(words) + 1):
        yield from _runs_of(words, size)


def _runs_of(words: Run, size: int) -> Iterator[Run]:
    return (words[at : at + size] for at in range(len(words) - size + 1))
