"""An ad's fields as they will appear: placeholders counted at their longest and written out."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from milkwort.core.errors import BadValueError

__all__ = ["EMPTY", "PLACEHOLDERS", "Ad", "Fillings", "at_longest", "characters", "loose_ends",
           "written_out"]  # fmt: skip

PLACEHOLDERS: tuple[str, ...] = ("place", "offer", "price", "keyword")
"""What may stand in ‹ › within an ad."""

_MOST_FIELDS = 50
_LONGEST_FIELD = 1000
_HOLE = re.compile("‹([^‹›]{0,40})›")
_MARKS = re.compile("[‹›]")


@dataclass(frozen=True)
class Ad:
    """One ad as it was written.

    Attributes
    ----------
    headlines, descriptions : tuple of str
        In the order of the platform's fields; an empty one is left out where it appears.

    Raises
    ------
    BadValueError
        For a field past 1,000 characters or more than 50 of a kind, which no platform has.
    """

    headlines: tuple[str, ...] = ()
    descriptions: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        for kind, texts in (("headline", self.headlines), ("description", self.descriptions)):
            if len(texts) > _MOST_FIELDS:
                raise BadValueError(f"{kind}s", f"at most {_MOST_FIELDS}", len(texts))
            for at, text in enumerate(texts, start=1):
                if len(text) > _LONGEST_FIELD:
                    expected = f"at most {_LONGEST_FIELD:,} characters"
                    raise BadValueError(f"{kind} {at}", expected, f"{len(text):,}")

    def fields(self) -> Iterator[tuple[str, str]]:
        """Yield the name and text of each field that is filled."""
        for kind, texts in (("headline", self.headlines), ("description", self.descriptions)):
            for at, text in enumerate(texts, start=1):
                if text:
                    yield f"{kind} {at}", text


EMPTY = Ad()


@dataclass(frozen=True)
class Fillings:
    """What stands for the placeholders in the ads of one group.

    Attributes
    ----------
    values : mapping of str to tuple of str
        By placeholder; the first is what is written out. None for one that has no value.
    """

    values: Mapping[str, tuple[str, ...]] = field(default_factory=dict)

    def first(self, name: str) -> str | None:
        """Return what is written out for a placeholder; None where nothing is."""
        return next(iter(self.values.get(name, ())), None)

    def longest(self, name: str) -> str | None:
        """Return the longest value of a placeholder; None where it has none."""
        return max(self.values.get(name, ()), key=len, default=None)


def written_out(text: str, fillings: Fillings) -> str:
    """Return a field as it leaves: every placeholder with its first value.

    Parameters
    ----------
    text : str
    fillings : Fillings
        A placeholder without a value stays as it is; `loose_ends` names it.
    """
    return _HOLE.sub(lambda hole: fillings.first(_name(hole)) or hole[0], text)


def at_longest(text: str, fillings: Fillings) -> str:
    """Return a field with every placeholder at its longest value.

    Parameters
    ----------
    text : str
    fillings : Fillings
    """
    return _HOLE.sub(lambda hole: fillings.longest(_name(hole)) or hole[0], text)


def characters(text: str, fillings: Fillings) -> int:
    """Count the code points of a field as it may appear at its longest.

    Parameters
    ----------
    text : str
    fillings : Fillings
    """
    return len(at_longest(text, fillings))


def loose_ends(text: str, fillings: Fillings) -> tuple[str, ...]:
    """Return what of a field can't be written out, in words.

    Parameters
    ----------
    text : str
    fillings : Fillings

    Returns
    -------
    tuple of str
        Of placeholders nobody knows, ones without a value, and marks that don't close.
    """
    found = []
    for hole in _HOLE.finditer(text):
        name = _name(hole)
        if name not in PLACEHOLDERS:
            known = ", ".join(f"‹{one}›" for one in PLACEHOLDERS)
            found.append(f"{hole[0]} is no placeholder: there are {known}")
        elif fillings.first(name) is None:
            found.append(f"{hole[0]} has no value in this plan")
    if _MARKS.search(_HOLE.sub("", text)):
        found.append("a ‹ or › stands alone")
    return tuple(found)


def _name(hole: re.Match[str]) -> str:
    return hole[1].strip().casefold()
