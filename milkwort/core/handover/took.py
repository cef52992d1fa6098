"""Whether an account stands as the plan does: read back, and held against it field by field."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from milkwort.core.handover.changed_rows import Row

__all__ = ["Difference", "differences_of", "name_of_row", "rows_to_send", "said"]

_FIELDS_OF_ADS = ("headline", "description")
_CLOSE = 1e-9


@dataclass(frozen=True)
class Difference:
    """One field of one row that stands otherwise.

    Attributes
    ----------
    sheet, ref, name : str
        `name` is what a person knows the row by.
    field : str
        Empty where the whole row is missing, or is there and should not be.
    wanted, stands : str
        What the plan says, and what the account says; empty for a row that isn't there.
    """

    sheet: str
    ref: str
    name: str
    field: str
    wanted: str
    stands: str


def differences_of(sheet: str, plan: Sequence[Row], live: Sequence[Row]) -> list[Difference]:
    """Hold what is live against a sheet of the plan.

    Parameters
    ----------
    sheet : str
        Its name.
    plan : sequence of Row
        Rows as they would be sent, each with a `ref`.
    live : sequence of Row
        Rows as the platform says them; `fields` of an ad stands for its numbered columns.

    Returns
    -------
    list of Difference
        In the order of the plan; rows that only the account has last.
    """
    there = {str(row["ref"]): _flat(row) for row in live}
    found: list[Difference] = []
    for row in plan:
        ref, name = str(row["ref"]), name_of_row(sheet, row)
        stands = there.pop(ref, None)
        if stands is None:
            found.append(Difference(sheet, ref, name, "", name, ""))
        else:
            found.extend(_fields(sheet, ref, name, _flat(row), stands))
    found.extend(
        Difference(sheet, ref, name_of_row(sheet, row), "", "", name_of_row(sheet, row))
        for ref, row in there.items()
    )
    return found


def rows_to_send(
    sheet: str, plan: Sequence[Row], live: Sequence[Row], *, whole: bool
) -> tuple[list[Row], list[Row]]:
    """Return what must be sent for an account to stand as the plan does.

    Parameters
    ----------
    sheet : str
    plan, live : sequence of Row
        As for `differences_of`.
    whole : bool
        Whether rows that stand as they should are sent all the same.

    Returns
    -------
    rows : list of Row
        To be taken, in the order of the plan.
    gone : list of Row
        To be removed: what the account has and the plan doesn't.
    """
    differs = {one.ref for one in differences_of(sheet, plan, live)}
    refs = {str(row["ref"]) for row in plan}
    rows = [row for row in plan if whole or str(row["ref"]) in differs]
    return rows, [row for row in live if str(row["ref"]) not in refs]


def _fields(
    sheet: str, ref: str, name: str, wanted: Mapping[str, Any], stands: Mapping[str, Any]
) -> Iterable[Difference]:
    for field in wanted:
        if not _same(wanted[field], stands.get(field)):
            yield Difference(sheet, ref, name, field, said(wanted[field]),
                             said(stands.get(field)))  # fmt: skip


def _flat(row: Row) -> dict[str, Any]:
    """Return a row with an ad's texts in their order, whichever way they are written."""
    texts = row.get("fields")
    if isinstance(texts, Sequence) and not isinstance(texts, str):
        return {k: v for k, v in row.items() if k != "fields"} | {
            "texts": "\n".join(text for text in texts if text)
        }
    numbered = [k for k in row if k.startswith(_FIELDS_OF_ADS)]
    if not numbered:
        return dict(row)
    kept = {k: v for k, v in row.items() if k not in numbered}
    return kept | {"texts": "\n".join(str(row[k]) for k in numbered if row[k])}


def _same(wanted: Any, stands: Any) -> bool:
    if isinstance(wanted, float | int) and isinstance(stands, float | int):
        return math.isclose(wanted, stands, rel_tol=_CLOSE, abs_tol=_CLOSE)
    return said(wanted) == said(stands)


def said(value: Any) -> str:
    """Return a cell as it is read; nothing and an empty text are one.

    Parameters
    ----------
    value : object
        Of a cell.
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else str(value).strip()


_NAMES = {"campaigns": ("campaign",), "groups": ("ad group", "campaign"),
          "keywords": ("keyword", "match"), "negatives": ("negative", "match"),
          "ads": ("ad group", "campaign"), "spots": ("spot", "campaign")}  # fmt: skip


def name_of_row(sheet: str, row: Mapping[str, Any]) -> str:
    """Return what a person knows a row of a sheet by.

    Parameters
    ----------
    sheet : str
    row : mapping of str to object
    """
    return " · ".join(said(row.get(column)) for column in _NAMES[sheet] if row.get(column))
