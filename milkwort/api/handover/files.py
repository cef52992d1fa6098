"""The files of a hand-over: sheets whole or changed, in parts, named by plan, date and what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.errors import BadValueError
from milkwort.core.handover.changed_rows import Row, changed_rows
from milkwort.core.words.texts import normalise
from milkwort.formats.upload_sheets import (
    Table,
    changed_table,
    descriptor,
    sheet_csv,
    sheet_table,
    sheets_xlsx,
)
from milkwort.store.hand_overs import SentFile

__all__ = ["files_to_send", "looked_at"]

Sheets = Mapping[str, Sequence[Row]]


def files_to_send(
    plan: OpenPlan,
    sheets: Sheets,
    kind: str,
    wanted: Sequence[str],
    before: Sheets | None,
    state: bytes,
) -> list[SentFile]:
    """Return the files that are sent.

    Parameters
    ----------
    plan : OpenPlan
    sheets : mapping of str to sequence of Row
    kind : {"csv", "xlsx", "json"}
    wanted : sequence of str
        Names of the sheets.
    before : mapping or None
        Sheets as they were sent last, where only what changed is wanted.
    state : bytes
        The plan's own file.
    """
    if kind == "json":
        return [SentFile("json", _name(plan, "plan", "json"), len(plan.sheet.ids), state)]
    tables = {name: _table(sheets, name, before) for name in dict.fromkeys(wanted)}
    what = "changes" if before is not None else "upload"
    if kind == "xlsx":
        rows = sum(_rows(table) for table in tables.values())
        return [SentFile("xlsx", _name(plan, what, "xlsx"), rows, sheets_xlsx(tables))]
    files: list[SentFile] = []
    described: dict[str, tuple[str, Table]] = {}
    for name, table in tables.items():
        label = what if name == "keywords" else f"{what}-{name}"
        for number, part in enumerate(_parts(table, plan.written.profile.upload_rows), start=1):
            numbered = label if number == 1 else f"{label}-{number}"
            filename = _name(plan, numbered, "csv")
            files.append(SentFile("csv", filename, _rows(part), sheet_csv(part)))
            described.setdefault(name, (filename, part))
    if len(described) > 1:
        package = descriptor(_stem(plan), described)
        files.append(SentFile("json", _name(plan, "datapackage", "json"), 0, package))
    return files


def looked_at(
    plan: OpenPlan, sheets: Sheets, kind: str, sheet: str, before: Sheets | None, state: bytes
) -> SentFile:
    """Return one file to look at; errors as `files_to_send`."""
    if kind not in ("csv", "xlsx", "json"):
        raise BadValueError("kind", "one of csv, xlsx, json", kind)
    return files_to_send(plan, sheets, kind, [sheet], before, state)[0]


def _table(sheets: Sheets, name: str, before: Sheets | None) -> Table:
    if before is None:
        return sheet_table(sheets[name])
    return changed_table(changed_rows(before.get(name, []), sheets[name]))


def _rows(table: Table) -> int:
    return len(table[1][0]) if table[1] else 0


def _parts(table: Table, most: int) -> list[Table]:
    """Return a sheet in parts that a platform takes; one that is empty is one part."""
    heads, columns = table
    starts = range(0, max(_rows(table), 1), most)
    return [(heads, [column[start : start + most] for column in columns]) for start in starts]


def _stem(plan: OpenPlan) -> str:
    return normalise(plan.record.name).replace(" ", "-")[:60] or "plan"


def _name(plan: OpenPlan, what: str, kind: str) -> str:
    return f"{_stem(plan)}-{what}-{date.today().isoformat()}-r{plan.record.revision}.{kind}"
