"""The files of a hand-over: sheets whole or changed, in shape, in parts, named by a rule."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.brief.upload_shape import UploadColumn, columns_of_sheet, file_name
from milkwort.core.errors import BadValueError
from milkwort.core.handover.changed_rows import Row, changed_rows
from milkwort.core.words.texts import normalise
from milkwort.formats.upload_sheets import (
    Table,
    changed_table,
    descriptor,
    in_shape,
    sheet_csv,
    sheet_table,
    sheets_xlsx,
)
from milkwort.store.hand_overs import SentFile

__all__ = ["columns_held", "files_to_send", "looked_at", "shape_of_sheet"]

Sheets = Mapping[str, Sequence[Row]]


def files_to_send(
    plan: OpenPlan,
    client: str,
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
    client : str
        Its name.
    sheets : mapping of str to sequence of Row
    kind : {"csv", "xlsx", "json"}
    wanted : sequence of str
        Names of the sheets.
    before : mapping or None
        Sheets as they were sent last, where only what changed is wanted.
    state : bytes
        The plan's own file.
    """

    def named(what: str, ending: str) -> str:
        return _name(plan, client, what, ending)

    if kind == "json":
        return [SentFile("json", named("plan", "json"), len(plan.sheet.ids), state)]
    shapes = {name: shape_of_sheet(plan, name, _all_rows(sheets, name, before))
              for name in dict.fromkeys(wanted)}  # fmt: skip
    tables = {name: _table(sheets, name, before, shape) for name, shape in shapes.items()}
    what = "changes" if before is not None else "upload"
    if kind == "xlsx":
        rows = sum(_rows(table) for table in tables.values())
        return [SentFile("xlsx", named(what, "xlsx"), rows, sheets_xlsx(tables))]
    files: list[SentFile] = []
    described: dict[str, tuple[str, Table]] = {}
    refs: dict[str, str] = {}
    for name, table in tables.items():
        label = what if name == "keywords" else f"{what}-{name}"
        for number, part in enumerate(_parts(table, plan.written.profile.upload_rows), start=1):
            numbered = label if number == 1 else f"{label}-{number}"
            filename = named(numbered, "csv")
            files.append(SentFile("csv", filename, _rows(part), sheet_csv(part)))
            resource = name if number == 1 else f"{name}-{number}"
            described[resource] = (filename, part)
            if ref := _ref_of(shapes[name]):
                refs[resource] = ref
    if len(tables) > 1:
        package = descriptor(_stem(plan), described, refs)
        files.append(SentFile("json", named("datapackage", "json"), 0, package))
    return files


def looked_at(
    plan: OpenPlan,
    client: str,
    sheets: Sheets,
    kind: str,
    sheet: str,
    before: Sheets | None,
    state: bytes,
) -> SentFile:
    """Return one file to look at; errors as `files_to_send`."""
    if kind not in ("csv", "xlsx", "json"):
        raise BadValueError("kind", "one of csv, xlsx, json", kind)
    return files_to_send(plan, client, sheets, kind, [sheet], before, state)[0]


def shape_of_sheet(plan: OpenPlan, name: str, rows: Sequence[Row]) -> list[UploadColumn]:
    """Return the columns of a sheet as the plan's platform takes them."""
    return columns_of_sheet(name, columns_held(rows), plan.written.profile.upload_columns)


def columns_held(rows: Sequence[Row]) -> list[str]:
    """Return the names of the columns that any of the rows has, in order."""
    return list(dict.fromkeys(head for row in rows for head in row))


def _table(
    sheets: Sheets, name: str, before: Sheets | None, shape: Sequence[UploadColumn]
) -> Table:
    if before is None:
        return in_shape(sheet_table(sheets[name]), shape)
    return changed_table(changed_rows(before.get(name, []), sheets[name]), shape)


def _ref_of(shape: Sequence[UploadColumn]) -> str | None:
    """Return the heading by which rows are known again; None where it is not sent."""
    return next((one.heading for one in shape if one.column == "ref" and one.sent), None)


def _all_rows(sheets: Sheets, name: str, before: Sheets | None) -> list[Row]:
    """Return the rows of now and then: one that was removed has columns too."""
    return [*sheets[name], *(before or {}).get(name, [])]


def _rows(table: Table) -> int:
    return len(table[1][0]) if table[1] else 0


def _parts(table: Table, most: int) -> list[Table]:
    """Return a sheet in parts that a platform takes; one that is empty is one part."""
    heads, columns = table
    starts = range(0, max(_rows(table), 1), most)
    return [(heads, [column[start : start + most] for column in columns]) for start in starts]


def _stem(plan: OpenPlan) -> str:
    return normalise(plan.record.name).replace(" ", "-")[:60] or "plan"


def _name(plan: OpenPlan, client: str, what: str, ending: str) -> str:
    words = {
        "client": normalise(client),
        "plan": _stem(plan),
        "what": what,
        "date": date.today().isoformat(),
        "revision": str(plan.record.revision),
    }
    return f"{file_name(plan.written.profile.upload_name, words)}.{ending}"
