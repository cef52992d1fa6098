"""Results as they are kept: out of a file, by column, or counted by a person."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.errors import BadValueError
from milkwort.formats.result_rows import BESIDE, FIGURES, ResultFile
from milkwort.store.results import Arriving

__all__ = ["BY_HAND", "SITE", "TEXTS", "arriving_of", "arriving_of_columns", "hand_count",
           "site_count"]  # fmt: skip

BY_HAND = "by hand"
"""Level of customers that somebody counted: a campaign's, of a window."""
SITE = "site"
"""Level of what the whole site saw, ads or not."""
TEXTS = ("term", "keyword", "match", "campaign", "group", "ref")
"""Columns of results that are texts."""


def arriving_of(file: ResultFile, source: str, as_of: date | None = None) -> Arriving:
    """Return results as they are kept."""
    columns: dict[str, Any] = {name: getattr(file, name) for name in TEXTS}
    columns |= {"row": file.row, "first": file.first, "last": file.last}
    columns |= {name: _said(file.as_said(name)) for name in FIGURES
                if name not in BESIDE or np.isfinite(file.figures[name]).any()}  # fmt: skip
    last = date.fromordinal(int(file.last.max()))
    return Arriving(source, file.level, date.fromordinal(int(file.first.min())), last,
                    max(as_of or last, last), columns)  # fmt: skip


def _said(figures: Floats) -> list[float | None]:
    """Return figures as they are kept: what was not said as None."""
    kept = figures.astype(object)
    kept[np.isnan(figures)] = None
    said: list[float | None] = kept.tolist()
    return said


def arriving_of_columns(
    columns: Mapping[str, list[Any]], level: str, source: str, last: date
) -> Arriving:
    """Return rows by column, their days as text, as results that are kept."""
    n = len(columns["day"])
    days = [date.fromisoformat(day).toordinal() for day in columns["day"]]
    kept: dict[str, Any] = {name: columns.get(name) or [""] * n for name in TEXTS}
    kept |= {"row": list(range(2, n + 2)), "first": days, "last": days}
    kept |= {name: columns.get(name) or [None] * n for name in FIGURES}
    kept["credit"] = [0.0] * n
    return Arriving(source, level, date.fromordinal(min(days)), date.fromordinal(max(days)), last,
                    kept)  # fmt: skip


def hand_count(
    campaign: str, key: str, since: date, until: date, customers: float, value: float | None = None
) -> Arriving:
    """Return customers that somebody counted, of a campaign and window, as they are kept.

    Parameters
    ----------
    campaign, key : str
        What the campaign is called, and what it is known by; empty for all campaigns.
    since, until : date
        Ends included.
    customers : float
    value : float or None
        Money they bought for; None where nobody said.

    Raises
    ------
    BadValueError
        Where the window ends before it begins.
    """
    source = f"counted by hand: {campaign or 'all campaigns'}"
    texts = {"campaign": campaign, "ref": key}
    return _counted(source, BY_HAND, since, until, texts, {"customers": customers, "value": value})


def site_count(since: date, until: date, visits: float | None, unpaid: float | None) -> Arriving:
    """Return what the whole site saw in a window, as it is kept.

    Parameters
    ----------
    since, until : date
        Ends included.
    visits, unpaid : float or None
        Visits of any origin, and customers who came without an ad; None where nobody said.

    Raises
    ------
    BadValueError
        Where the window ends before it begins, or nothing is said.
    """
    if visits is None and unpaid is None:
        raise BadValueError("visits", "visits, or customers without an ad", "neither")
    return _counted("the whole site", SITE, since, until, {}, {"visits": visits, "unpaid": unpaid})


def _counted(
    source: str, level: str, since: date, until: date, texts: Mapping[str, str],
    figures: Mapping[str, float | None],
) -> Arriving:  # fmt: skip
    if until < since:
        raise BadValueError("until", f"a day from {since} on", str(until))
    columns: dict[str, Any] = {name: [texts.get(name, "")] for name in TEXTS}
    columns |= {name: [None] for name in FIGURES if name not in BESIDE}
    columns |= {"row": [1], "first": [since.toordinal()], "last": [until.toordinal()]}
    columns |= {name: [0.0] for name in ("impressions", "clicks", "cost", "credit", "customers")}
    columns |= {name: [value] for name, value in figures.items() if value is not None}
    return Arriving(source, level, since, until, until, columns)
