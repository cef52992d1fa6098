"""Readings of several sources of one keyword: side by side, one of them in use by a rule."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief.brief import Brief
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.market.readings import Figures, mean_of
from milkwort.store import models
from milkwort.store.journal import Change, now

__all__ = [
    "MEAN",
    "NEWEST",
    "OF",
    "PARTS",
    "Part",
    "StoredReading",
    "apply_rule",
    "dates_of_readings",
    "figures_of",
    "readings_of",
    "set_rule",
    "use_mean",
    "use_reading",
]  # fmt: skip

Part = Literal["in_use", "prices_in_use"]
PARTS: tuple[Part, ...] = ("in_use", "prices_in_use")
"""What a reading is in use for: searches, prices."""
NEWEST = "newest"
MEAN = "mean"
OF = "of "
"""A rule is the newest reading, the mean of all, or `of ` and a source that is preferred."""
_MEAN_ORIGIN = "mean of the readings"


@dataclass(frozen=True)
class StoredReading:
    """One reading with its id; searches a period, money a click."""

    id: int
    in_use: bool
    prices_in_use: bool
    origin: str
    origin_row: int | None
    read_at: str
    volume_low: float | None
    volume_high: float | None
    cpc_low: float | None
    cpc_high: float | None
    period: str
    basis: str
    area: str
    shown_at_bid: float | None

    @property
    def made(self) -> bool:
        """Whether it is a mean of others, not a source's own."""
        return self.origin == _MEAN_ORIGIN


def readings_of(session: Session, plan_id: int, keyword_id: int) -> list[StoredReading]:
    """Return every reading of a keyword, the newest first."""
    r = models.Reading
    rows = session.scalars(
        select(r)
        .where(r.plan_id == plan_id, r.keyword_id == keyword_id)
        .order_by(r.read_at.desc(), r.id.desc()),
        execution_options={"populate_existing": True},
    )
    names = StoredReading.__dataclass_fields__
    return [StoredReading(**{name: getattr(row, name) for name in names}) for row in rows]


def figures_of(reading: Any, brief: Brief) -> Figures:
    """Return what the core compares readings by."""
    months = getattr(reading, "months", None)
    return Figures(
        reading.volume_low, reading.volume_high, reading.cpc_low, reading.cpc_high,
        tuple(months) if months else None, reading.period or "month",
        reading.basis or brief.volume_basis, reading.shown_at_bid,
    )  # fmt: skip


def use_reading(
    change: Change, keyword_id: int, reading_id: int, parts: Sequence[Part] = PARTS
) -> None:
    """Take one reading of a keyword into use, for searches, prices or both.

    What it says nothing of stays with the reading that does.

    Raises
    ------
    NotFoundError
        Where the keyword has no such reading.
    """
    held = readings_of(change.session, change.plan_id, keyword_id)
    chosen = next((r for r in held if r.id == reading_id), None)
    if chosen is None:
        raise NotFoundError("That reading is no longer there.", "reading")
    said = [part for part in parts if _says(chosen, part)]
    change.update(models.Reading, {r.id: dict.fromkeys(said, r.id == reading_id) for r in held})


def set_rule(change: Change, rule: str, brief: Brief) -> None:
    """Say which readings are in use from now on, and use them.

    Raises
    ------
    BadValueError
        For an unknown rule.
    """
    if rule not in (NEWEST, MEAN) and not rule.startswith(OF):
        raise BadValueError("rule of readings", "newest, mean, or a source", rule)
    change.update(models.Plan, {change.plan_id: {"reading_rule": rule}})
    apply_rule(change, rule, brief)


def apply_rule(
    change: Change, rule: str, brief: Brief, keywords: Iterable[int] | None = None
) -> None:
    """Take into use what a rule says.

    Parameters
    ----------
    change : Change
    rule : str
        A source that is preferred leaves keywords alone that it says nothing of.
    brief : Brief
        For the mean: what volumes count.
    keywords : iterable of int, optional
        Ids; all where left out.
    """
    held = _by_keyword(change, keywords)
    if rule == MEAN:
        _use_means(change, held, brief)
        return
    preferred = rule.removeprefix(OF) if rule.startswith(OF) else None
    own = {
        keyword: [r for r in rows if r.origin != _MEAN_ORIGIN and preferred in (None, r.origin)]
        for keyword, rows in held.items()
    }
    for part in PARTS:
        _use(change, part, {
            keyword: said[-1].id
            for keyword, rows in own.items()
            if (said := [r for r in rows if _says(r, part)] or (not preferred and rows))
        }, held)  # fmt: skip


def use_mean(change: Change, keywords: Sequence[int], brief: Brief) -> None:
    """Use the mean of their readings for some keywords."""
    if not keywords:
        return
    _use_means(change, _by_keyword(change, keywords), brief)


def _by_keyword(change: Change, keywords: Iterable[int] | None) -> dict[int, list[models.Reading]]:
    """Return the readings of keywords, the newest last."""
    r = models.Reading
    wanted = None if keywords is None else set(keywords)
    held: dict[int, list[models.Reading]] = {}
    for row in change.session.scalars(
        select(r).where(r.plan_id == change.plan_id).order_by(r.read_at, r.id),
        execution_options={"populate_existing": True},
    ):
        if wanted is None or row.keyword_id in wanted:
            held.setdefault(row.keyword_id, []).append(row)
    return held


def _says(row: models.Reading | StoredReading, part: Part) -> bool:
    if part == "in_use":
        return row.volume_low is not None or row.volume_high is not None
    return bool(row.cpc_low or row.cpc_high)


def _use(
    change: Change, part: Part, chosen: dict[int, int], held: dict[int, list[models.Reading]]
) -> None:
    change.update(
        models.Reading,
        {
            row.id: {part: row.id == chosen[keyword]}
            for keyword, rows in held.items()
            if keyword in chosen
            for row in rows
            if getattr(row, part) != (row.id == chosen[keyword])
        },
    )


def _use_means(change: Change, held: dict[int, list[models.Reading]], brief: Brief) -> None:
    own = {k: [r for r in rows if r.origin != _MEAN_ORIGIN] for k, rows in held.items()}
    several = {k: rows for k, rows in own.items() if len(rows) > 1}
    if not several:
        return
    k = models.Keyword
    texts = {
        row.id: row.normalised
        for row in change.session.execute(
            select(k.id, k.normalised).where(k.plan_id == change.plan_id)
        )
        if row.id in several
    }
    old = [r.id for key in several for r in held[key] if r.origin == _MEAN_ORIGIN]
    change.update(
        models.Reading,
        {
            r.id: dict.fromkeys(PARTS, False)
            for rows in several.values()
            for r in rows
            if r.in_use or r.prices_in_use
        },
    )
    change.delete(models.Reading, old)
    change.insert(
        models.Reading,
        [_mean(change.plan_id, key, rows, len(texts[key].split()), brief)
         for key, rows in several.items()],
    )  # fmt: skip


def _mean(
    plan_id: int, keyword: int, rows: Sequence[models.Reading], words: int, brief: Brief
) -> dict[str, Any]:
    mean = mean_of([figures_of(r, brief) for r in rows], words, brief.assumed)
    shares = [r.competition for r in rows if r.competition is not None]
    return {
        "plan_id": plan_id, "keyword_id": keyword, "in_use": True,
        "prices_in_use": True, **vars(mean),
        "months": list(mean.months) if mean.months else None, "area": rows[-1].area,
        "competition": sum(shares) / len(shares) if shares else None,
        "read_at": now(), "origin": _MEAN_ORIGIN, "origin_row": None,
    }  # fmt: skip


def dates_of_readings(session: Session, plan_id: int) -> dict[int, str]:
    """Return when the reading in use of each keyword was read, by the keyword's id."""
    r = models.Reading
    rows = session.execute(select(r.keyword_id, r.read_at).where(r.plan_id == plan_id, r.in_use))
    return {row.keyword_id: row.read_at for row in rows}
