"""A group split: by a word, by intent, match type or offer."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, get_args

from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.texts import normalise, singular

__all__ = ["SPLITS", "SplitBy", "split_of"]

SplitBy = Literal["word", "intent", "match", "offer"]
SPLITS: tuple[str, ...] = get_args(SplitBy)


def split_of(
    table: KeywordTable,
    rows: Sequence[int],
    by: SplitBy,
    *,
    word: str = "",
    offers: Sequence[str] = (),
) -> dict[str, list[int]]:
    """Part the keywords of a group; the fullest part stays, or what lacks the word.

    Parameters
    ----------
    table : KeywordTable
    rows : sequence of int
        Of the group.
    by : SplitBy
    word : str
        A word or a run of words, in any close form, where it is split by one.
    offers : sequence of str
        What each offer is called.

    Returns
    -------
    dict of str to list of int
        Rows that leave, by what their new group is called beside the old one.

    Raises
    ------
    BadValueError
        For a word that is none, and where nothing would leave or nothing would stay.
    """
    if by not in SPLITS:
        raise BadValueError("split", "one of " + ", ".join(SPLITS), by)
    parts: dict[str, list[int]] = {}
    if by == "word":
        run = [singular(part) for part in normalise(word).split()]
        if not run:
            raise BadValueError("word", "a word of the group’s keywords", word)
        leaving = [row for row in rows if _holds(table.texts[row], run)]
        parts = {" ".join(normalise(word).split()): leaving} if leaving else {}
        stays = len(rows) - len(leaving)
    else:
        for row in rows:
            parts.setdefault(_name(table, row, by, offers), []).append(row)
        fullest = max(parts, key=lambda name: len(parts[name]), default="")
        stays = len(parts.pop(fullest, []))
    if not parts or stays == 0:
        what = f"{by} {word}".strip()
        raise BadValueError("split", f"keywords that differ by {what}", "none")
    return parts


def _holds(text: str, run: Sequence[str]) -> bool:
    words = [singular(word) for word in text.split()]
    return any(words[at : at + len(run)] == list(run) for at in range(len(words) - len(run) + 1))


def _name(table: KeywordTable, row: int, by: str, offers: Sequence[str]) -> str:
    if by == "intent":
        return INTENTS[int(table.intent[row])]
    if by == "match":
        return table.match_name(row)
    at = int(table.offer[row])
    return (offers[at] if at < len(offers) else "") or f"offer {at + 1}"
