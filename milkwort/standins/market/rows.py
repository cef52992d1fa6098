"""Taking a sheet in, row by row: what is taken, what is warned of, what is refused and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from milkwort.standins.market.cells import (
    LONGEST,
    RefusedError,
    cell_said,
)
from milkwort.standins.market.standing import Data, Standing, identity
from milkwort.standins.market.takers import TAKERS, Warned

__all__ = ["COLUMNS", "Reply", "take_row"]


COLUMNS: dict[str, tuple[str, ...]] = {
    "campaigns": ("campaign",),
    "groups": ("campaign", "ad group"),
    "keywords": ("campaign", "ad group", "keyword", "match"),
    "negatives": ("negative", "match"),
    "ads": ("campaign", "ad group"),
    "spots": ("campaign", "spot"),
}
"""Columns that a sheet of each kind must have."""


@dataclass(frozen=True)
class Reply:
    """The answer to one row.

    Attributes
    ----------
    row : int
        Of the sheet, its heading being 1.
    state : str
        ``taken``, ``warned`` or ``refused``.
    code, message, field, old, new : str
    ref : str
        What it is known by.
    """

    row: int
    state: str
    code: str
    message: str
    field: str = ""
    old: str = ""
    new: str = ""
    ref: str = ""


def take_row(standing: Standing, kind: str, number: int, row: Mapping[str, str]) -> Reply:
    """Take one row of a sheet in; the account changes only where it is taken.

    Parameters
    ----------
    standing : Standing
        Changed in place.
    kind : str
        From `KINDS`.
    number : int
        Of the row, the heading being 1.
    row : mapping of str to str
    """
    try:
        ref, data, warning, before = _understood(standing, kind, row)
    except RefusedError as no:
        message = f"row {number}, {no.column}: {no.message}"
        return Reply(number, "refused", no.code, message, no.column, no.old, no.new,
                     row.get("ref", ""))  # fmt: skip
    if data is None:
        standing.drop(kind, ref)
        return Reply(number, "taken", "removed", f"row {number}: removed", "", ref=ref)
    if data == before and warning is None:
        return Reply(number, "taken", "same_as_before", f"row {number}: as it was", ref=ref)
    if data != before:
        standing.set(kind, ref, data)
    if warning is not None:
        message = f"row {number}, {warning.column}: {warning.message}"
        return Reply(number, "warned", warning.code, message, warning.column, warning.old,
                     warning.new, ref)  # fmt: skip
    changed = next((n for n in data if before is not None and before.get(n) != data[n]), "")
    old = cell_said(before.get(changed)) if before is not None and changed else ""
    new = cell_said(data[changed]) if changed else ""
    return Reply(number, "taken", "taken", f"row {number}: taken", changed, old, new, ref)


def _understood(
    standing: Standing, kind: str, row: Mapping[str, str]
) -> tuple[str, Data | None, Warned | None, Data | None]:
    removed = row.get("change", "").casefold() == "removed"
    given = row.get("ref", "")
    if len(given) > LONGEST:
        raise RefusedError("too_long", f"expected at most {LONGEST} characters", "ref")
    if removed and given:
        if given not in standing.things[kind]:
            raise RefusedError("not_there", f'expected what stands here, got "{given}"', "ref")
        return given, None, None, standing.things[kind][given]
    data, warning = TAKERS[kind](standing, row, given)
    named = standing.find(kind, identity(kind, data))
    if given and named is not None and named != given:
        code = "keyword_twice" if kind == "keywords" else "name_twice"
        what = cell_said(data.get("text", data.get("name", "")))
        raise RefusedError(code, f'expected each once in its place, got "{what}" again',
                            COLUMNS[kind][-1], named, given)  # fmt: skip
    ref = given or named or _new_ref(standing, kind)
    return ref, None if removed else data, warning, standing.things[kind].get(ref)


def _new_ref(standing: Standing, kind: str) -> str:
    while True:
        standing.made += 1
        ref = f"m-{kind[:2]}-{standing.made}"
        if ref not in standing.things[kind]:
            return ref
