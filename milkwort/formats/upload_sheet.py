"""The upload sheet for an ad platform: what runs, where, at which bid."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass

from milkwort.formats.cells import safe_cell
from milkwort.formats.new_book import new_book

__all__ = ["HEADINGS", "UploadRow", "upload_csv", "upload_xlsx"]

HEADINGS: tuple[str, ...] = ("campaign", "ad group", "keyword", "match", "bid", "run", "ref")
_WIDTHS = (34, 24, 44, 10, 10, 8, 16)


@dataclass(frozen=True)
class UploadRow:
    """One keyword to be uploaded; `bid` is money a click, None where it doesn't run.

    `ref` is its key, by which it is known again when it comes back.
    """

    campaign: str
    group: str
    keyword: str
    match: str
    bid: float | None
    ref: str = ""

    @property
    def cells(self) -> tuple[str | float, ...]:
        """The row under `HEADINGS`, texts defused."""
        bid: str | float = "" if self.bid is None else self.bid
        run = "no" if self.bid is None else "yes"
        texts = (self.campaign, self.group, self.keyword, self.match)
        return (*(str(safe_cell(t)) for t in texts), bid, run, self.ref)


def upload_csv(rows: Sequence[UploadRow]) -> bytes:
    """Return the sheet as CSV: UTF-8 with a byte-order mark, commas, points, CRLF."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEADINGS)
    writer.writerows(row.cells for row in rows)
    return out.getvalue().encode("utf-8-sig")


def upload_xlsx(rows: Sequence[UploadRow], currency: str) -> bytes:
    """Return the sheet as a workbook of one page; texts are texts and never formulas."""
    out = io.BytesIO()
    with new_book(out) as book:
        page = book.add_worksheet("upload")
        bold = book.add_format({"bold": True})
        money = book.add_format({"num_format": "0.00##"})
        page.write_row(0, 0, HEADINGS, bold)
        page.write_comment(0, 4, f"{currency} a click")
        for number, row in enumerate(rows, start=1):
            for column, cell in enumerate(row.cells):
                if isinstance(cell, float):
                    page.write_number(number, column, cell, money)
                else:
                    page.write_string(number, column, cell)
        for column, width in enumerate(_WIDTHS):
            page.set_column(column, column, width)
        page.freeze_panes(1, 0)
        page.autofilter(0, 0, max(len(rows), 1), len(HEADINGS) - 1)
    return out.getvalue()
