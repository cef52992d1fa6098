"""One plan at one revision, and what is different between two of them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from operator import eq, is_
from typing import Any

from milkwort.api.plan.columns import FigureColumns, text_columns
from milkwort.api.plan.written import Written
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.errors import NotFoundError
from milkwort.core.plan.run import PlanResult
from milkwort.core.sift.sheet_words import kinds_of_texts
from milkwort.store.plans import PlanRecord
from milkwort.store.sheet import Sheet

__all__ = ["OpenPlan", "difference", "kinds_of", "whole"]


@dataclass(frozen=True)
class OpenPlan:
    """One plan at one revision."""

    record: PlanRecord
    sheet: Sheet
    result: PlanResult
    columns: FigureColumns
    kinds: list[str]
    summary: dict[str, Any]
    handed_over: int

    @property
    def offer_names(self) -> dict[int | None, str]:
        """What each offer is called, by its id; a keyword of the first says none."""
        ids, offers = self.record.offer_ids, self.record.brief.offers
        return {i: offer.name for i, offer in zip(ids, offers, strict=True)}

    @cached_property
    def written(self) -> Written:
        """The plan's ads, and what they have to do with it."""
        return Written(self.record, self.sheet, self.result)

    @cached_property
    def _group_numbers(self) -> dict[int, int]:
        return {group.id: at for at, group in enumerate(self.sheet.structure.groups)}

    def group_number(self, group_id: int) -> int:
        """Return a group's number.

        Raises
        ------
        NotFoundError
        """
        if group_id not in self._group_numbers:
            raise NotFoundError(f"There is no ad group {group_id} in this plan.", "group")
        return self._group_numbers[group_id]

    def group_label(self, group_id: int) -> str:
        """Return what a group is called among all; NotFoundError where there is none."""
        return self.sheet.labels[self.group_number(group_id)]


def kinds_of(record: PlanRecord, sheet: Sheet, before: OpenPlan | None) -> list[str]:
    """Return the kinds of each keyword's words; the last ones where nothing of that changed."""
    if (
        before is not None
        and before.sheet.ids == sheet.ids
        and _words_of(before.record) == _words_of(record)
    ):
        return before.kinds
    return kinds_of_texts([e.text for e in sheet.entries], lexicon_of(record.brief))


def _words_of(record: PlanRecord) -> tuple[Any, ...]:
    brief = record.brief
    names = tuple(offer.name for offer in brief.offers)
    return (brief.places, brief.other_places, brief.word_kinds, names)


def whole(loaded: OpenPlan) -> dict[str, Any]:
    """Return all keywords, for a window that opens the plan."""
    return {
        "texts": text_columns(loaded.sheet, loaded.kinds, loaded.offer_names),
        "figures": loaded.columns.sent,
        **_places(loaded.sheet),
    }


def _places(sheet: Sheet) -> dict[str, Any]:
    """Return the plan's groups and campaigns by id, also those that hold nothing."""
    structure = sheet.structure
    return {
        "groups": [
            {"id": group.id, "name": group.name, "label": label, "campaign_id": group.campaign_id}
            for group, label in zip(structure.groups, sheet.labels, strict=True)
        ],
        "campaigns": [{"id": c.id, "name": c.name} for c in structure.campaigns],
    }


def difference(before: OpenPlan, after: OpenPlan) -> dict[str, Any]:
    """Return what a change made different: rows, columns, or all where keywords came or went."""
    moved = before.sheet.structure is not after.sheet.structure and (
        _places(before.sheet) != _places(after.sheet)
    )
    if before.sheet.ids != after.sheet.ids or moved or before.offer_names != after.offer_names:
        return {"summary": after.summary, "sheet": whole(after), "rows": None, "columns": None}
    old, new = before.sheet.entries, after.sheet.entries
    touched = [row for row, same in enumerate(map(is_, old, new)) if not same]
    rows = [row for row in touched if old[row] != new[row]]
    if before.kinds is not after.kinds:
        same = map(eq, before.kinds, after.kinds)
        rows = sorted({*rows, *(row for row, alike in enumerate(same) if not alike)})
    return {
        "summary": after.summary,
        "sheet": None,
        "rows": text_columns(after.sheet, after.kinds, after.offer_names, rows) if rows else None,
        "columns": after.columns.moved_from(before.columns),
    }
