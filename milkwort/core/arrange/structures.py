"""Ready ways to arrange a plan: campaigns and groups by theme, match type, intent, offer, aim."""

from __future__ import annotations

from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from milkwort.core.arrange.grouping import Groups, group_by_theme
from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief
from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import WORD_KINDS, Lexicon, shipped_lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise

__all__ = [
    "STRUCTURE_KINDS", "Moves", "Structure", "StructureName", "arrange", "lexicon_of", "moves_of",
    "named_so",
]  # fmt: skip

StructureName = Literal["theme", "match", "mixed", "intent", "offer", "aim"]
STRUCTURE_KINDS: dict[str, str] = {
    "theme": "one campaign, a group for each theme",
    "match": "a campaign for each match type, exact keywords also as phrase match",
    "mixed": "a group for each theme and match type, exact keywords also as phrase match",
    "intent": "a campaign for each intent",
    "offer": "a campaign for each offer",
    "aim": "our name, others' names, scouting and what we do apart",
}
"""Every ready structure, in words."""

PURPOSES: tuple[str, ...] = ("Our name", "Others' names", "Scouting", "What we do")
"""What campaigns are for."""
_BROAD = MATCHES.index("broad")


@dataclass(frozen=True)
class Structure:
    """A plan arranged.

    Attributes
    ----------
    campaigns : tuple of str
    groups : tuple of (int, str)
        Place of the campaign, and the group's name; a name stands once in its campaign.
    of_row : Ints, shape (n_keywords,)
        Place of each keyword's group.
    twins : Ints
        Exact rows that the structure also wants as phrase match.
    twin_group : Ints
        The group each twin goes to.
    """

    campaigns: tuple[str, ...]
    groups: tuple[tuple[int, str], ...]
    of_row: Ints
    twins: Ints
    twin_group: Ints


@dataclass(frozen=True)
class Moves:
    """What a structure would change of a plan.

    Attributes
    ----------
    place_of_row : tuple of (str, str)
        Campaign and group of each keyword, by name.
    twin_places : tuple of (str, str)
        Where each twin goes.
    moved : int
        Keywords that are elsewhere now.
    """

    place_of_row: tuple[tuple[str, str], ...]
    twin_places: tuple[tuple[str, str], ...]
    moved: int


def moves_of(structure: Structure, present: Sequence[tuple[str, str] | None]) -> Moves:
    """Say what a structure would change.

    Parameters
    ----------
    structure : Structure
    present : sequence of (str, str) or None
        Campaign and group that each keyword is in now, by name.
    """
    at = [(structure.campaigns[campaign], name) for campaign, name in structure.groups]
    wanted = tuple(at[number] for number in structure.of_row.tolist())
    moved = sum(there != to for there, to in zip(present, wanted, strict=True))
    return Moves(wanted, tuple(at[number] for number in structure.twin_group.tolist()), moved)


def arrange(
    kind: StructureName,
    brief: Brief,
    table: KeywordTable,
    searches: Floats,
    *,
    most: int = 20,
    lexicon: Lexicon | None = None,
    brands: tuple[str, ...] = (),
    rivals: tuple[str, ...] = (),
    phrase_texts: Collection[str] = (),
) -> Structure:
    """Arrange every keyword into campaigns and groups.

    Parameters
    ----------
    kind : StructureName
    brief : Brief
    table : KeywordTable
    searches : Floats, shape (n_keywords,)
        A month; names groups by their most searched keyword.
    most : int
        Keywords in a group at most.
    lexicon : Lexicon, optional
    brands, rivals : tuple of str
        Own and others' names, for the structure by aim.
    phrase_texts : collection of str
        Texts that stand as phrase match in the plan, beside these rows: a keyword stands once.

    Raises
    ------
    BadValueError
        For an unknown kind.
    """
    if kind not in STRUCTURE_KINDS:
        raise BadValueError("structure", "one of " + ", ".join(STRUCTURE_KINDS), kind)
    names, campaign = _campaigns(kind, brief, table, brands, rivals)
    groups: list[tuple[int, str]] = []
    of_row = np.zeros(len(table), dtype=np.int64)
    for number in range(len(names)):
        rows = np.flatnonzero(campaign == number)
        made = group_by_theme(
            [table.texts[r] for r in rows.tolist()], searches[rows], most=most, lexicon=lexicon
        )
        if kind == "mixed":
            made = _by_match(made, table.match[rows])
        of_row[rows] = made.of_row + len(groups)
        groups += [(number, label) for label in made.labels]
    twins = np.zeros(0, dtype=np.int64)
    twin_group = twins
    if kind == "match":
        names, groups, twins, twin_group = _with_twins(table, names, groups, of_row, phrase_texts)
    if kind == "mixed":
        groups, twins, twin_group = _with_twins_beside(table, groups, of_row, phrase_texts)
    return Structure(tuple(names), tuple(groups), of_row, twins, twin_group)


def _campaigns(
    kind: str, brief: Brief, table: KeywordTable, brands: tuple[str, ...], rivals: tuple[str, ...]
) -> tuple[list[str], Ints]:
    by_kind: dict[str, Callable[[], tuple[list[str], Ints]]] = {
        "mixed": lambda: (["Search"], np.zeros(len(table), dtype=np.int64)),
        "theme": lambda: (["Search"], np.zeros(len(table), dtype=np.int64)),
        "match": lambda: ([m.capitalize() for m in MATCHES], table.match),
        "intent": lambda: ([i.capitalize() for i in INTENTS], table.intent),
        "offer": lambda: (
            [o.name or f"Offer {n}" for n, o in enumerate(brief.offers, start=1)], table.offer
        ),
        "aim": lambda: (list(PURPOSES), _aims(table, brands, rivals)),
    }  # fmt: skip
    names, number = by_kind[kind]()
    used, place = np.unique(number, return_inverse=True)
    return [names[i] for i in used.tolist()], place.astype(np.int64)


def _aims(table: KeywordTable, brands: tuple[str, ...], rivals: tuple[str, ...]) -> Ints:
    """Firms' names by the words; what matches broadly scouts; the rest is what we do."""
    own, others = (
        tuple(f" {normalise(name)} " for name in names if normalise(name))
        for names in (brands, rivals)
    )
    aims = np.where(table.match == _BROAD, 2, 3)
    for row, text in enumerate(table.texts):
        padded = f" {text} "
        if any(name in padded for name in own):
            aims[row] = 0
        elif any(name in padded for name in others):
            aims[row] = 1
    return aims


def _by_match(themes: Groups, match: Ints) -> Groups:
    """Part groups by match type; each is called by its theme and its match type."""
    pairs = sorted({*zip(themes.of_row.tolist(), match.tolist(), strict=True)})
    place = {pair: at for at, pair in enumerate(pairs)}
    of_row = [place[pair] for pair in zip(themes.of_row.tolist(), match.tolist(), strict=True)]
    labels = tuple(f"{themes.labels[theme]} {MATCHES[number]}" for theme, number in pairs)
    return Groups(np.array(of_row, dtype=np.int64), labels)


def _without_phrase(table: KeywordTable, taken: Collection[str]) -> list[int]:
    """Return the exact rows whose text stands in no phrase row, here or elsewhere."""
    exact, phrase = MATCHES.index("exact"), MATCHES.index("phrase")
    have = {t for t, m in zip(table.texts, table.match.tolist(), strict=True) if m == phrase}
    have.update(taken)
    return [r for r in np.flatnonzero(table.match == exact).tolist() if table.texts[r] not in have]


def _with_twins(
    table: KeywordTable,
    names: list[str],
    groups: list[tuple[int, str]],
    of_row: Ints,
    taken: Collection[str],
) -> tuple[list[str], list[tuple[int, str]], Ints, Ints]:
    """Add a phrase group in a campaign of its own for each exact one that lacks phrase rows."""
    twins = _without_phrase(table, taken)
    if twins and "Phrase" not in names:
        names = [*names, "Phrase"]
    wanted = [(names.index("Phrase"), groups[int(of_row[row])][1]) for row in twins]
    groups, of_twin = _placed(groups, wanted)
    return names, groups, np.array(twins, dtype=np.int64), of_twin


def _with_twins_beside(
    table: KeywordTable, groups: list[tuple[int, str]], of_row: Ints, taken: Collection[str]
) -> tuple[list[tuple[int, str]], Ints, Ints]:
    """Add a phrase group beside each exact one, in its campaign, for rows without phrase."""
    twins = _without_phrase(table, taken)
    wanted = []
    for row in twins:
        campaign, label = groups[int(of_row[row])]
        wanted.append((campaign, f"{label.removesuffix(' exact')} phrase"))
    groups, of_twin = _placed(groups, wanted)
    return groups, np.array(twins, dtype=np.int64), of_twin


def _placed(
    groups: list[tuple[int, str]], wanted: list[tuple[int, str]]
) -> tuple[list[tuple[int, str]], Ints]:
    """Return groups with those that are wanted and missing, and where each wanted one is."""
    every = list(dict.fromkeys([*groups, *wanted]))
    place = {group: at for at, group in enumerate(every)}
    return every, np.array([place[one] for one in wanted], dtype=np.int64)


def named_so(brief: Brief, kind: str, *more: str) -> tuple[str, ...]:
    """Return the words the planner called so, such as ``rival`` or ``own``, and some more.

    Parameters
    ----------
    brief : Brief
    kind : str
        As the planner named it.
    more : str
        Words that count as such beside them.
    """
    return (*(text for text, said in brief.word_kinds if said == kind), *more)


def lexicon_of(brief: Brief, brands: tuple[str, ...] = (), rivals: tuple[str, ...] = ()) -> Lexicon:
    """Return the shipped lexicon with a plan's own words.

    Parameters
    ----------
    brief : Brief
        Its places, word kinds and own name are read.
    brands, rivals : tuple of str
        Further own names, and names of rivals.
    """
    services = tuple(o.name for o in brief.offers if o.name)
    return _lexicon(
        brief.places, services, rivals, brands, brief.other_places, tuple(brief.word_kinds)
    )


@lru_cache(maxsize=16)
def _lexicon(
    places: tuple[str, ...],
    services: tuple[str, ...],
    rivals: tuple[str, ...],
    brands: tuple[str, ...],
    elsewhere: tuple[str, ...],
    word_kinds: tuple[tuple[str, str], ...],
) -> Lexicon:
    own = {kind: tuple(t for t, k in word_kinds if k == kind) for kind in WORD_KINDS}
    return shipped_lexicon().extended(
        places, (*services, *own["what"]), (*rivals, *own["rival"]), (*brands, *own["own"]),
        (*elsewhere, *own["where"]), own["helper"], own["warning"], own["what"],
    )  # fmt: skip
