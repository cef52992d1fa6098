"""Workbooks that leave: texts stay texts, whatever they look like."""

from __future__ import annotations

import io
from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from xlsxwriter import Workbook

__all__ = ["new_book"]


@contextmanager
def new_book(out: io.BytesIO) -> Iterator[Workbook]:
    """Open a workbook that is written to memory; it is whole when this ends.

    Parameters
    ----------
    out : BytesIO
    """
    import xlsxwriter

    options = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False}
    with xlsxwriter.Workbook(out, options) as book:
        yield book
