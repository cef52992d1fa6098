"""What taking in a tray does: new keywords, new figures, ranks."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

from milkwort.api.gather.arrivals import arrival_of_row
from milkwort.api.gather.schemas import TakeChoice, Verdict
from milkwort.api.gather.tray_rows import Identity, sort_rows
from milkwort.api.gather.trays import Tray
from milkwort.api.http.jobs import Progress
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.brief.brief import Brief
from milkwort.core.counted import counted
from milkwort.formats.keyword_row import KeywordRow
from milkwort.store.entries import Arrival, ReadingEntry
from milkwort.store.journal import Change, Reserve
from milkwort.store.keywords import (
    PreparedKeywords,
    add_readings,
    prepare_keywords,
    set_standing,
)
from milkwort.store.readings import use_mean

__all__ = ["Taking", "taking_of"]

_AT_ONCE = 5000


@dataclass(frozen=True)
class Taking:
    """What will be written.

    Attributes
    ----------
    new : list of callable
        Each makes one new keyword.
    readings : dict of verdict to list of (int, ReadingEntry)
        Keyword's id, and its new figures.
    standing : dict of int to dict of str to float
        Keyword's id, and its ranks and popularity where they are said anew.
    merged : list of (identity, ReadingEntry)
        Figures to stand beside those of a keyword that may itself be new.
    known : dict of identity to int
        Ids of the sheet's keywords.
    brief : Brief
    """

    new: list[Callable[[], Arrival]]
    readings: dict[Verdict, list[tuple[int, ReadingEntry]]]
    standing: dict[int, dict[str, float]]
    merged: list[tuple[Identity, ReadingEntry]]
    known: dict[Identity, int]
    brief: Brief

    @property
    def nothing(self) -> bool:
        """Whether there is nothing to take in."""
        return not (self.new or self.standing or self.merged or any(self.readings.values()))

    @property
    def said(self) -> str:
        """What is taken in, in words."""
        known = len({i for rows in self.readings.values() for i, _ in rows} | set(self.standing))
        if self.new or not known:
            return counted(len(self.new), "keyword")
        return "new figures of " + counted(known, "keyword")

    def prepared(self, plan: OpenPlan, reserve: Reserve, progress: Progress) -> PreparedKeywords:
        """Make the rows of the new keywords, telling how far it is."""
        arrivals = []
        for done, make in enumerate(self.new):
            if done % _AT_ONCE == 0:
                progress("preparing keywords", done, len(self.new))
            arrivals.append(make())
        offers = {name: i for i, name in plan.offer_names.items() if i is not None and name}
        structure = plan.sheet.structure
        return prepare_keywords(reserve, plan.record.id, structure, offers, arrivals)

    def do(self, change: Change, new: PreparedKeywords, progress: Progress) -> None:
        """Write the rest; the new keywords are there by now."""
        rows = zip(new.keywords.rows, new.keywords.ids, strict=True)
        ids = self.known | {(row["normalised"], row["match"]): i for row, i in rows}
        add_readings(change, self.readings["take"])
        add_readings(change, [*self.readings["keep"], *self.readings["mean"]], in_use=False)
        use_mean(change, [i for i, _ in self.readings["mean"]], self.brief)
        beside = [(ids[identity], reading) for identity, reading in self.merged if identity in ids]
        add_readings(change, beside, in_use=False)
        set_standing(change, self.standing)


def taking_of(loaded: OpenPlan, tray: Tray, choice: TakeChoice) -> Taking:
    """Say what taking in a tray would write.

    Parameters
    ----------
    loaded : OpenPlan
    tray : Tray
    choice : TakeChoice
    """
    rows = sort_rows(loaded, tray)
    lexicon = lexicon_of(loaded.record.brief)
    units = tray.file.units if tray.file else None
    numbered = tray.file is not None

    def entry(row: KeywordRow) -> Arrival:
        return arrival_of_row(row, tray.name, units, numbered=numbered, lexicon=lexicon)

    def dropped(row: KeywordRow) -> Arrival:
        return _dropped(entry(row))

    new = [partial(entry, row) for row in rows.new]
    if choice.near == "take":
        new += [partial(entry, row) for _, row in rows.near]
    if choice.caught:
        new += [partial(dropped, row) for row in rows.caught]
    readings: dict[Verdict, list[tuple[int, ReadingEntry]]] = {"take": [], "keep": [], "mean": []}
    for keyword, row in rows.changed:
        verdict = choice.verdicts.get(row.row, choice.changed)
        readings[verdict].append((keyword, entry(row).entry.reading))
    return Taking(
        new=list(new),
        readings=readings,
        standing=dict(rows.standing),
        merged=[(other, entry(row).entry.reading) for other, row in rows.near]
        if choice.near == "merge"
        else [],
        known={
            (e.normalised, e.match): i
            for i, e in zip(loaded.sheet.ids, loaded.sheet.entries, strict=True)
        },
        brief=loaded.record.brief,
    )


def _dropped(arrival: Arrival) -> Arrival:
    if arrival.entry.call != "none":
        return arrival
    entry = replace(arrival.entry, call="drop", reason="a word never wanted", call_by="rule")
    return replace(arrival, entry=entry)
