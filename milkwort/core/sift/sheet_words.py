"""The words of a sheet: how often each stands in it, and what its keywords are worth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.texts import normalise, singular

__all__ = ["SheetWords", "kinds_of_texts", "words_of_sheet"]

_MARKS = {"what": "w", "where": "p", "helper": "h", "warning": "!"}
_OWN_PLACE = "o"
_RANK = {"!": 0, "r": 1, "p": 2, "o": 3, "h": 4, "w": 5}
_MOST_WORDS_A_RUN = 2


@dataclass(frozen=True)
class SheetWords:
    """Words and two-word runs; arrays of shape (n_runs,), warning words first.

    Attributes
    ----------
    runs : tuple of str
        As most often written; singular and plural are one.
    kind : tuple of str
        ``!`` warning, ``r`` a firm's name, ``p`` another place, ``o`` an own place, ``h``
        helper, ``w`` what is sought.
    keywords, kept, called : Ints
        How many hold it; how many of those are kept; how many are called at all.
    searches : Floats
        Own searches a month of all of them.
    price_low, price_high : Floats
        The least low and the greatest high click price, money; NaN where none has one.
    customers : Floats
        A month at the ceiling of each.
    starts, rows : Ints
        Rows of run i are ``rows[starts[i]:starts[i + 1]]``.
    """

    runs: tuple[str, ...]
    kind: tuple[str, ...]
    keywords: Ints
    kept: Ints
    called: Ints
    searches: Floats
    price_low: Floats
    price_high: Floats
    customers: Floats
    starts: Ints
    rows: Ints


def words_of_sheet(result: PlanResult, lexicon: Lexicon) -> SheetWords:
    """Gather the words of a plan's sheet.

    Parameters
    ----------
    result : PlanResult
    lexicon : Lexicon
        With the plan's own words: says what kind a word is.
    """
    table = result.table
    written, rows_of = _runs_of(table.texts)
    runs = list(rows_of)
    names = [max(written[run].items(), key=lambda held: (held[1], held[0]))[0] for run in runs]
    kinds = [_kind(name, lexicon) for name in names]
    sizes = np.array([len(rows_of[run]) for run in runs], dtype=np.int64)
    order = sorted(range(len(runs)), key=lambda i: (_RANK[kinds[i]] > 0, -sizes[i], names[i]))
    rows = [np.array(rows_of[runs[i]], dtype=np.int64) for i in order]
    starts = np.concatenate(([0], np.cumsum(sizes[order]))).astype(np.int64)
    flat = np.concatenate(rows) if rows else np.zeros(0, dtype=np.int64)
    called = table.call != CALLS.index("none")
    own = np.where(np.isnan(result.demand.likely), 0.0, result.demand.own)
    customers = np.nan_to_num(result.standing.clicks_at_ceiling * result.demand.rate)
    return SheetWords(
        runs=tuple(names[i] for i in order),
        kind=tuple(kinds[i] for i in order),
        keywords=sizes[order],
        kept=_sum(table.kept, flat, starts).astype(np.int64),
        called=_sum(called, flat, starts).astype(np.int64),
        searches=_sum(own, flat, starts),
        price_low=_ends(table.cpc_low, table.cpc_high, flat, starts, np.fmin),
        price_high=_ends(table.cpc_high, table.cpc_low, flat, starts, np.fmax),
        customers=_sum(customers, flat, starts),
        starts=starts,
        rows=flat,
    )


@lru_cache(maxsize=8)
def _runs_of(
    texts: tuple[str, ...],
) -> tuple[dict[tuple[str, ...], dict[str, int]], dict[tuple[str, ...], list[int]]]:
    """Return how each run is written, and the rows it stands in; kept while texts stay."""
    written: dict[tuple[str, ...], dict[str, int]] = {}
    rows_of: dict[tuple[str, ...], list[int]] = {}
    for row, text in enumerate(texts):
        words = text.split()
        singles = [singular(word) for word in words]
        seen = set()
        for size in range(1, _MOST_WORDS_A_RUN + 1):
            for at in range(len(words) - size + 1):
                run = tuple(singles[at : at + size])
                name = " ".join(words[at : at + size])
                held = written.setdefault(run, {})
                held[name] = held.get(name, 0) + 1
                if run not in seen:
                    seen.add(run)
                    rows_of.setdefault(run, []).append(row)
    alone = [run for run, rows in rows_of.items() if len(run) > 1 and len(rows) < 2]
    for run in alone:
        del rows_of[run], written[run]
    return written, rows_of


def kinds_of_texts(texts: Sequence[str], lexicon: Lexicon) -> list[str]:
    """Return a mark for each word of each text, as `SheetWords.kind` has them.

    Parameters
    ----------
    texts : sequence of str
        As written; words are what spaces part.
    lexicon : Lexicon
    """
    return [_marks(text, lexicon) for text in texts]


def _marks(text: str, lexicon: Lexicon) -> str:
    words = [normalise(word) for word in text.split()]
    if not all(words) or any(" " in word for word in words):
        return ""
    kinds = lexicon.kinds(" ".join(words))
    return "".join(_OWN_PLACE if k.own_place else _MARKS[k.kind] for k in kinds)


def _kind(name: str, lexicon: Lexicon) -> str:
    reading = lexicon.intent(name)
    if reading.intent == "firm":
        return "r"
    marks = [_OWN_PLACE if k.own_place else _MARKS[k.kind] for k in lexicon.kinds(name)]
    return min(marks, key=_RANK.__getitem__)


def _sum(values: np.ndarray, flat: Ints, starts: Ints) -> Floats:
    so_far = np.concatenate(([0.0], np.cumsum(values[flat].astype(np.float64))))
    return np.asarray(so_far[starts[1:]] - so_far[starts[:-1]])


def _ends(first: Floats, other: Floats, flat: Ints, starts: Ints, extreme: np.ufunc) -> Floats:
    """Return the extreme price of each run's keywords, either end standing for a missing one."""
    price = np.where(np.isfinite(first) & (first > 0), first, other)
    price = np.where(price > 0, price, np.nan)
    if len(flat) == 0:
        return np.zeros(0)
    return np.asarray(extreme.reduceat(price[flat], starts[:-1]))
