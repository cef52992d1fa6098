"""Written ads as a table, there and back: a row an ad, a column a field."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.errors import Refusal
from milkwort.formats.cells import safe_cell, unguarded
from milkwort.formats.named_rows import Cells, RefusedCellError, read_named_rows
from milkwort.formats.text_table import TextTable

__all__ = ["AdRow", "ads_csv", "read_ads_table"]

_MOST_FIELDS = 20
_LONGEST = 1000

_PATTERNS = {
    "campaign": re.compile(r"campaign( name)?"),
    "group": re.compile(r"(ad )?group( name)?"),
    "ref": re.compile(r"ref|key"),
    **{f"headline {n}": re.compile(rf"headline {n}" + ("|headline" if n == 1 else ""))
       for n in range(1, _MOST_FIELDS + 1)},
    **{f"description {n}": re.compile(rf"description {n}" + ("|description" if n == 1 else ""))
       for n in range(1, _MOST_FIELDS + 1)},
}  # fmt: skip


@dataclass(frozen=True)
class AdRow:
    """One ad of a table: where it belongs by name, and its key where it has one.

    `row` is the row of the file, its first being 1; 0 for one on its way out.
    """

    campaign: str
    group: str
    ref: str
    ad: Ad
    row: int = 0


def ads_csv(rows: Sequence[AdRow], headlines: int, descriptions: int) -> bytes:
    """Return ads as CSV: UTF-8 with a byte-order mark, commas, CRLF.

    Parameters
    ----------
    rows : sequence of AdRow
    headlines, descriptions : int
        Fields of an ad at least; an ad with more gets its columns.
    """
    heads = max([headlines, *(len(row.ad.headlines) for row in rows)])
    texts = max([descriptions, *(len(row.ad.descriptions) for row in rows)])
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(
        ["campaign", "ad group", *(f"headline {n}" for n in range(1, heads + 1)),
         *(f"description {n}" for n in range(1, texts + 1)), "ref"]
    )  # fmt: skip
    for row in rows:
        fields = [*_filled(row.ad.headlines, heads), *_filled(row.ad.descriptions, texts)]
        writer.writerow([safe_cell(cell) for cell in (row.campaign, row.group, *fields, row.ref)])
    return out.getvalue().encode("utf-8-sig")


def read_ads_table(
    table: TextTable, name: str = "file"
) -> tuple[tuple[AdRow, ...], tuple[Refusal, ...]]:
    """Read ads, each row taken or refused with its reason.

    Parameters
    ----------
    table : TextTable
        With headings in its first row: headline 1, description 1 and so on, the group, its
        campaign, and `ref` for ads that are to be written anew.
    name : str
        What to call the file in a message.

    Raises
    ------
    NothingUsableError
        Where a column is missing or no row is usable.
    """
    needed = {"headline 1": "the first headline"}
    return read_named_rows(table, _PATTERNS, needed, _row, name)


def _row(cells: Cells) -> AdRow:
    ref, group = cells.text("ref"), unguarded(cells.text("group"))
    if not ref and not group:
        raise RefusedCellError("group", "the group the ad is of, or its ref", "")
    ad = Ad(_fields(cells, "headline"), _fields(cells, "description"))
    if not any(True for _ in ad.fields()):
        raise RefusedCellError("headline 1", "an ad with at least one field", "")
    return AdRow(unguarded(cells.text("campaign")), group, ref, ad, cells.row)


def _fields(cells: Cells, kind: str) -> tuple[str, ...]:
    texts = []
    for n in range(1, _MOST_FIELDS + 1):
        text = unguarded(cells.text(f"{kind} {n}"))
        if len(text) > _LONGEST:
            raise RefusedCellError(f"{kind} {n}", f"at most {_LONGEST:,} characters", text)
        texts.append(text)
    while texts and not texts[-1]:
        texts.pop()
    return tuple(texts)


def _filled(texts: Sequence[str], many: int) -> list[str]:
    return [*texts, *[""] * (many - len(texts))]
