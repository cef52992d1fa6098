"""Plans between the store and their files."""

from __future__ import annotations

from dataclasses import asdict
from importlib.resources import files
from typing import Any, cast

from sqlalchemy.orm import Session

from milkwort.api.trays import Units
from milkwort.core.brief import MATCHES
from milkwort.core.errors import BadValueError
from milkwort.core.keyword_table import CALLS, INTENTS
from milkwort.core.lexicon import Lexicon, shipped_lexicon
from milkwort.core.match_types import Match
from milkwort.core.negatives import Level, Negative
from milkwort.core.platform import PROFILES
from milkwort.core.structures import lexicon_of
from milkwort.core.words import normalise
from milkwort.formats.brief_toml import read_brief
from milkwort.formats.keyword_row import KeywordRow
from milkwort.formats.keyword_rows import columns_by_heading, read_keyword_rows
from milkwort.formats.plan_json import KeywordDocument, NegativeDocument, PlanDocument
from milkwort.formats.text_table import read_text_table
from milkwort.store.briefs import plan_values
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords
from milkwort.store.negatives import add_negatives
from milkwort.store.own_ways import OwnWays
from milkwort.store.plans import BRIEF_FIELDS, PlanRecord, add_plan
from milkwort.store.sheet import Sheet

__all__ = [
    "SAMPLE_NAME",
    "SECOND_NAME",
    "add_document",
    "add_sample",
    "document_of",
    "entry_of_row",
]

SAMPLE_NAME = "Eastmere Sash & Casement"
SECOND_NAME = "Brackish Jar"
_START_MONTH = {"eastmere": 9, "brackish": 6}
_SAMPLE_UNSAID = ("may_pay_to_learn", "max_cpc", "volume_basis", "pricing", "flat_bid", "policy")


def entry_of_row(
    row: KeywordRow,
    origin: str,
    units: Units | None = None,
    *,
    numbered: bool = True,
    lexicon: Lexicon | None = None,
) -> KeywordEntry:
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
    units = units or Units()
    words = lexicon or shipped_lexicon()
    low, high = row.volume or (None, None)
    return KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=row.intent or words.intent(row.normalised).intent,
        call=row.call,
        reason="from the file" if row.call != "none" else "",
        group=row.group,
        rate=row.rate,
        offer=row.offer,
        unpaid_rank=row.unpaid_rank,
        paid_rank=row.paid_rank,
        reading=ReadingEntry(
            volume_low=low,
            volume_high=high,
            cpc_low=row.cpc_low,
            cpc_high=row.cpc_high,
            competition=row.competition,
            months=row.months,
            basis=row.basis or units.basis,
            area=units.area,
            period=units.period,
            origin=origin,
            origin_row=row.row if numbered else None,
        ),
    )


def add_sample(session: Session, name: str = SAMPLE_NAME, stem: str = "eastmere") -> int:
    """Make a sample plan and return its id.

    Parameters
    ----------
    session : Session
    name : str
    stem : str
        Which of the samples, by the name of its files.
    """
    folder = files("milkwort.samples")
    brief = read_brief(folder.joinpath(f"{stem}.toml").read_bytes(), f"{stem}.toml").brief
    table = read_text_table(folder.joinpath(f"{stem}.csv").read_bytes(), f"{stem}.csv")
    offers = [offer.name for offer in brief.offers]
    rows = read_keyword_rows(table, columns_by_heading(table), offers=("", *offers))
    values = plan_values(brief, start_month=_START_MONTH[stem])
    if brief.pricing == "pay_bid":
        values["profile"] = next(p for p in PROFILES if p.pricing == "pay_bid").as_dict()
    plan_id = add_plan(session, name, values, brief.assumed.changes, _SAMPLE_UNSAID)
    change = Change(session, plan_id, "sample")
    lexicon = lexicon_of(brief)
    entries = [entry_of_row(r, f"{stem}.csv", lexicon=lexicon) for r in rows.taken]
    add_keywords(change, entries)
    add_negatives(change, brief.negatives, "file")
    return plan_id


def document_of(record: PlanRecord, sheet: Sheet) -> PlanDocument:
    """Return a plan as a document that loads back to an equal plan."""
    return PlanDocument(
        name=record.name,
        brief=record.values,
        unsaid=list(record.unsaid),
        assumptions=record.assumptions,
        own=asdict(record.own),
        keywords=[_keyword_document(entry) for entry in sheet.entries],
        negatives=[
            NegativeDocument(text=n.text, match=n.match, level=n.level, owner=owner)
            for n, owner in zip(record.brief.negatives, record.negative_owners, strict=True)
        ],
    )


def add_document(session: Session, document: PlanDocument) -> int:
    """Make a plan from a document and return its id.

    Raises
    ------
    BadValueError
        For a field, a word or a figure that no plan could hold.
    """
    unknown = sorted(set(document.brief) - set(BRIEF_FIELDS))
    if unknown:
        raise BadValueError("brief", "fields of a brief", ", ".join(unknown))
    unknown = sorted(set(document.own) - set(OwnWays.__dataclass_fields__))
    if unknown:
        raise BadValueError("own", "a plan's own ways", ", ".join(unknown))
    entries = [_entry(k, at) for at, k in enumerate(document.keywords, start=1)]
    seen: dict[tuple[str, str], int] = {}
    for at, entry in enumerate(entries, start=1):
        earlier = seen.setdefault((entry.normalised, entry.match), at)
        if earlier != at:
            raise BadValueError(
                f"keywords, number {at}", f"another text than number {earlier}", entry.text
            )
    plan_id = add_plan(
        session, document.name, document.brief, document.assumptions, tuple(document.unsaid),
        asdict(OwnWays(**document.own)),
    )  # fmt: skip
    change = Change(session, plan_id, "load")
    add_keywords(change, entries)
    add_negatives(
        change,
        [Negative(n.text, cast(Match, n.match), cast(Level, n.level)) for n in document.negatives],
        "file",
        [n.owner for n in document.negatives],
    )
    return plan_id


def _keyword_document(entry: KeywordEntry) -> KeywordDocument:
    reading = vars(entry.reading)
    own = {k: v for k, v in vars(entry).items() if k not in ("reading", "normalised")}
    months = {"months": list(entry.reading.months) if entry.reading.months else None}
    return KeywordDocument(**(own | reading | months))


def _entry(document: KeywordDocument, number: int) -> KeywordEntry:
    where = f"keywords, number {number}"
    for value, known in (
        (document.match, MATCHES), (document.intent, INTENTS), (document.call, CALLS),
        (document.basis or "exact", MATCHES), (document.period, ("day", "month")),
    ):  # fmt: skip
        if value not in known:
            raise BadValueError(where, "one of " + ", ".join(known), value)
    normalised = normalise(document.text)
    if not normalised:
        raise BadValueError(where, "a text with at least one word", document.text)
    for name, low, high in (
        ("volume", document.volume_low, document.volume_high),
        ("cpc", document.cpc_low, document.cpc_high),
    ):
        ends = [v for v in (low, high) if v is not None]
        if any(v < 0 for v in ends) or (len(ends) == 2 and ends[0] > ends[1]):
            raise BadValueError(where, f"{name}_low from 0 to {name}_high", f"{low} to {high}")
    if document.rate is not None and not 0 <= document.rate <= 1:
        raise BadValueError(where, "a rate from 0 to 1", document.rate)
    fields: dict[str, Any] = document.model_dump()
    fields["months"] = tuple(document.months) if document.months else None
    reading = ReadingEntry(**{k: fields[k] for k in ReadingEntry.__dataclass_fields__})
    own = {
        k: v for k, v in fields.items()
        if k in KeywordEntry.__dataclass_fields__ and k != "reading"
    }  # fmt: skip
    return KeywordEntry(**own, normalised=normalised, reading=reading)
