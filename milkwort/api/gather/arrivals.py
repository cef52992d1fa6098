"""Rows of a file as keywords on their way in."""

from __future__ import annotations

from milkwort.api.gather.trays import Units
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.formats.keyword_row import KeywordRow
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry

__all__ = ["arrival_of_row", "reading_of_row"]


def arrival_of_row(
    row: KeywordRow,
    origin: str,
    units: Units | None = None,
    *,
    numbered: bool = True,
    lexicon: Lexicon | None = None,
) -> Arrival:
    """Return a row as a keyword to be stored.

    Parameters
    ----------
    row : KeywordRow
    origin : str
    units : Units, optional
    numbered : bool
        Whether its row number means something.
    lexicon : Lexicon, optional
        What reads an intent that the row doesn't say; the shipped one where left out.
    """
    words = lexicon or shipped_lexicon()
    entry = KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=row.intent or words.intent(row.normalised).intent,
        call=row.call,
        reason="from the file" if row.call != "none" else "",
        rate=row.rate,
        unpaid_rank=row.unpaid_rank,
        paid_rank=row.paid_rank,
        popularity=row.popularity,
        reading=reading_of_row(row, origin, units, numbered=numbered),
    )
    return Arrival(entry, group=row.group, campaign=row.campaign, offer=row.offer)


def reading_of_row(
    row: KeywordRow, origin: str, units: Units | None = None, *, numbered: bool = True
) -> ReadingEntry:
    """Return the figures of a row as one source's reading."""
    units = units or Units()
    low, high = row.volume or (None, None)
    return ReadingEntry(
        volume_low=low,
        volume_high=high,
        cpc_low=row.cpc_low,
        cpc_high=row.cpc_high,
        competition=row.competition,
        months=row.months,
        basis=row.basis or units.basis,
        area=units.area,
        period=units.period,
        shown_at_bid=row.shown_at_bid or units.shown_at_bid,
        origin=origin,
        origin_row=row.row if numbered else None,
    )
