"""Which columns an upload sheet has for a platform, in which order, called what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal, get_args

from milkwort.core.errors import BadValueError

__all__ = [
    "FILE_NAME", "FILE_NAME_WORDS", "SHEET_NAMES", "ColumnChange", "SheetName", "UploadColumn",
    "check_file_name", "check_upload_columns", "columns_of_sheet", "file_name", "with_changes",
    "with_sheet_columns",
]  # fmt: skip

SheetName = Literal["keywords", "campaigns", "groups", "negatives", "ads", "spots"]
SHEET_NAMES: tuple[str, ...] = get_args(SheetName)

FILE_NAME_WORDS = ("client", "plan", "what", "date", "revision")
"""What a file's name can say; `what` is the sheet, and the part where there are several."""
FILE_NAME = "‹plan›-‹what›-‹date›-r‹revision›"
_LONGEST_WORD = 60
_LONGEST_HEADING = 80
_MOST_COLUMNS = 400
_OF_CHANGES = ("change", "was")
"""What changed rows have beside the columns of their sheet: no heading of its own may be one."""


@dataclass(frozen=True)
class UploadColumn:
    """One column of an upload sheet.

    Attributes
    ----------
    sheet : str
        From `SHEET_NAMES`.
    column : str
        Its own name.
    heading : str
        What the platform calls it.
    sent : bool
        Whether it leaves at all.
    """

    sheet: str
    column: str
    heading: str
    sent: bool = True


@dataclass(frozen=True)
class ColumnChange:
    """What becomes of one column; what is None stays.

    Attributes
    ----------
    column : str
        Its own name.
    heading : str or None
    sent : bool or None
    place : int or None
        Counted from 0; one past the end is the end.
    """

    column: str
    heading: str | None = None
    sent: bool | None = None
    place: int | None = None


def columns_of_sheet(
    sheet: str, names: Sequence[str], own: Sequence[UploadColumn]
) -> list[UploadColumn]:
    """Return a sheet's columns as they leave: those said first, others after them as they are.

    Parameters
    ----------
    sheet : str
    names : sequence of str
        Columns that the sheet has now.
    own : sequence of UploadColumn
        As the profile says, of any sheet; what the sheet does not have now is passed over.

    Returns
    -------
    list of UploadColumn, one a name
        No two that are sent have the same heading: a later one that would gets a number.
    """
    said = {one.column: one for one in own if one.sheet == sheet and one.column in names}
    rest = [UploadColumn(sheet, name, name) for name in names if name not in said]
    found: list[UploadColumn] = []
    used = set(_OF_CHANGES)
    for one in [*said.values(), *rest]:
        heading, again = one.heading, 2
        while one.sent and heading.casefold() in used:
            heading, again = f"{one.heading} {again}", again + 1
        if one.sent:
            used.add(heading.casefold())
        found.append(replace(one, heading=heading))
    return found


def with_changes(
    now: Sequence[UploadColumn], changes: Sequence[ColumnChange]
) -> list[UploadColumn]:
    """Return a sheet's columns with changes made to them, one after the other.

    Parameters
    ----------
    now : sequence of UploadColumn
    changes : sequence of ColumnChange

    Raises
    ------
    BadValueError
        For a column that the sheet doesn't have.
    """
    found = list(now)
    for change in changes:
        at = next((at for at, one in enumerate(found) if one.column == change.column), None)
        if at is None:
            names = ", ".join(one.column for one in now) or "a column of a sheet with rows"
            raise BadValueError("column", names, change.column)
        one = found.pop(at)
        heading = one.heading if change.heading is None else change.heading.strip()
        sent = one.sent if change.sent is None else change.sent
        place = at if change.place is None else change.place
        found.insert(place, replace(one, heading=heading, sent=sent))
    return found


def with_sheet_columns(
    own: Sequence[UploadColumn], sheet: str, now: Sequence[UploadColumn]
) -> tuple[UploadColumn, ...]:
    """Return a profile's columns with those of one sheet said anew.

    What the sheet does not have now and was said before stays behind them, for the day when
    it has it again.

    Parameters
    ----------
    own : sequence of UploadColumn
        Of all sheets.
    sheet : str
    now : sequence of UploadColumn
        Of that sheet, whole.
    """
    named = {one.column for one in now}
    kept = [one for one in own if one.sheet == sheet and one.column not in named]
    return (*(one for one in own if one.sheet != sheet), *now, *kept)


def check_upload_columns(columns: Sequence[UploadColumn]) -> None:
    """Check the columns of a profile.

    Parameters
    ----------
    columns : sequence of UploadColumn

    Raises
    ------
    BadValueError
        For a sheet there isn't, a heading that is empty, too long or holds a line break, the
        same column or heading twice in a sheet, or a sheet of which nothing would leave.
    """
    if len(columns) > _MOST_COLUMNS:
        raise BadValueError("upload columns", f"at most {_MOST_COLUMNS}", str(len(columns)))
    by_sheet: dict[str, list[UploadColumn]] = {}
    for one in columns:
        by_sheet.setdefault(one.sheet, []).append(one)
    for sheet, of_sheet in by_sheet.items():
        if sheet not in SHEET_NAMES:
            raise BadValueError("upload sheet", "one of " + ", ".join(SHEET_NAMES), sheet)
        for one in of_sheet:
            _check_text(f"column of {sheet}", one.column)
            _check_text(f"heading of {one.column}", one.heading)
        _check_once(f"columns of {sheet}", [one.column for one in of_sheet])
        sent = [one.heading.strip().casefold() for one in of_sheet if one.sent]
        _check_once(f"headings of {sheet}", [*_OF_CHANGES, *sent])
        if not sent:
            raise BadValueError(f"columns of {sheet}", "at least one that is sent", "none")


def _check_text(what: str, text: str) -> None:
    if not (1 <= len(text.strip()) <= _LONGEST_HEADING and text.isprintable()):
        raise BadValueError(what, f"1 to {_LONGEST_HEADING} characters in one line", repr(text))


def _check_once(what: str, texts: Sequence[str]) -> None:
    twice = next((text for text in texts if texts.count(text) > 1), None)
    if twice is not None:
        raise BadValueError(what, "each of them once", twice)


def check_file_name(rule: str) -> None:
    """Check a rule by which files are named.

    Parameters
    ----------
    rule : str
        With words of `FILE_NAME_WORDS` between ‹ and ›.

    Raises
    ------
    BadValueError
        Where it is too long, doesn't say `‹what›` (two files would have one name), or holds a
        mark that stands for nothing.
    """
    left = rule
    for word in FILE_NAME_WORDS:
        left = left.replace(f"‹{word}›", "")
    known = ", ".join(f"‹{word}›" for word in FILE_NAME_WORDS)
    if "‹" in left or "›" in left:
        raise BadValueError("file name", f"only {known}", rule)
    if "‹what›" not in rule or not rule.isprintable() or len(rule) > _LONGEST_HEADING:
        raise BadValueError("file name", f"up to {_LONGEST_HEADING} characters with ‹what›", rule)


def file_name(rule: str, words: Mapping[str, str]) -> str:
    """Return a file's name without its ending: letters, figures, points and hyphens only.

    Parameters
    ----------
    rule : str
        As `check_file_name` takes it.
    words : mapping
        By word of `FILE_NAME_WORDS`.
    """
    name = rule
    for word in FILE_NAME_WORDS:
        name = name.replace(f"‹{word}›", _plain(words[word])[:_LONGEST_WORD])
    return _plain(name).strip("-.") or "file"


def _plain(text: str) -> str:
    """Return a text in which nothing means anything to a file system."""
    kept = "".join(c if c.isalnum() or c in "._-" else " " for c in text)
    return "-".join(kept.split()).strip("-")
