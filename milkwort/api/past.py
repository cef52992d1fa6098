"""What ran before the plan: search terms, and the account that is live."""

from __future__ import annotations

from importlib.resources import files
from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.past_schemas import AccountView, PastApplied, PastWindow, TermsView
from milkwort.api.schemas import ChangeAnswer, shape_of
from milkwort.api.shared import Window, Work, sent
from milkwort.api.tray_rows import tray_view
from milkwort.api.tray_schemas import TrayView
from milkwort.api.trays import Tray
from milkwort.api.workspace import Workspace
from milkwort.core.account import CHANGES, changes_of_account
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.negatives import Negative
from milkwort.core.past import PastRow, PastSummary, past_summary, terms_by_worth
from milkwort.core.structures import lexicon_of
from milkwort.formats.keyword_row import KeywordRow
from milkwort.formats.keyword_rows import KeywordRows
from milkwort.formats.past_rows import PastFile, read_past_rows
from milkwort.formats.tables import read_table
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, lock_bids, set_calls
from milkwort.store.negatives import add_negatives
from milkwort.store.past_lists import PastKind, PastList, load_past, set_past
from milkwort.store.plans import change_brief

router = APIRouter(tags=["gather"])

_USUAL_DAYS = 90.0


@router.get("/plans/{plan_id}/past/terms", responses=shape_of(TermsView))
def terms(plan_id: int, work: Work) -> Response:
    """Return the search terms of the past, those that sold first; null where there are none."""
    held = _held(work, plan_id, "terms")
    return sent(_terms_view(held, ()) if held else None)


@router.post("/plans/{plan_id}/past/terms", responses=shape_of(TermsView))
def read_terms(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = ""
) -> Response:
    """Read a report of what people typed, with what came of it."""
    read, held = _read(work, plan_id, "terms", file, window)
    return sent(_terms_view(held, read.refused))


@router.post("/plans/{plan_id}/past/terms/sample", responses=shape_of(TermsView))
def sample_terms(plan_id: int, work: Work, window: Window = "") -> Response:
    """Read a made-up report of ninety days."""
    read, held = _put(work, plan_id, "terms", "terms.csv", _sample("terms.csv"), window)
    return sent(_terms_view(held, read.refused))


@router.post("/plans/{plan_id}/past/terms/tray", responses=shape_of(TrayView))
def terms_to_tray(plan_id: int, work: Work) -> Response:
    """Put the terms into the tray, those that sold first, at the price they were clicked for."""
    held = _needed(work, plan_id, "terms")
    known = set(work.plan(plan_id).sheet.table.texts)
    rows: dict[str, KeywordRow] = {}
    for number, term in enumerate(terms_by_worth(held.rows), start=1):
        if not term.negative:
            # what the sheet has keeps its own prices: an average paid is not a market
            paid = None if term.normalised in known else term.cpc
            row = KeywordRow(number, term.normalised, term.normalised, cpc_low=paid)
            rows.setdefault(term.normalised, row)
    tray = Tray(plan_id, held.name, KeywordRows(tuple(rows.values())))
    return sent(tray_view(work, tray, None))


@router.get("/plans/{plan_id}/past/account", responses=shape_of(AccountView))
def account(plan_id: int, work: Work) -> Response:
    """Return what the plan changes of the account that runs; null where none is known."""
    held = _held(work, plan_id, "account")
    return sent(_account_view(work, plan_id, held, ()) if held else None)


@router.post("/plans/{plan_id}/past/account", responses=shape_of(AccountView))
def read_account(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = ""
) -> Response:
    """Read what is live now."""
    read, held = _read(work, plan_id, "account", file, window)
    return sent(_account_view(work, plan_id, held, read.refused))


@router.post("/plans/{plan_id}/past/account/sample", responses=shape_of(AccountView))
def sample_account(plan_id: int, work: Work, window: Window = "") -> Response:
    """Read a made-up account."""
    read, held = _put(work, plan_id, "account", "account.csv", _sample("account.csv"), window)
    return sent(_account_view(work, plan_id, held, read.refused))


@router.post("/plans/{plan_id}/past/account/take", responses=shape_of(ChangeAnswer))
def start_from_account(plan_id: int, work: Work, window: Window = "") -> Response:
    """Start from the account: its keywords kept in their groups, its negatives in force."""
    held = _needed(work, plan_id, "account")
    sheet = work.plan(plan_id).sheet
    known = {(e.normalised, e.match): i for i, e in zip(sheet.ids, sheet.entries, strict=True)}
    lexicon = lexicon_of(work.plan(plan_id).record.brief)
    live = {(r.normalised, r.match): r for r in held.rows if not r.negative}
    there = [known[identity] for identity in live if identity in known]
    entries = [
        _entry(row, held.name, lexicon.intent(row.normalised).intent)
        for identity, row in live.items()
        if identity not in known
    ]
    stops = [_negative(row) for row in held.rows if row.negative]

    def do(change: Change) -> None:
        add_keywords(change, entries)
        set_calls(change, there, "keep", "runs now", "account")
        add_negatives(change, [n for n, _ in stops], "account", [owner for _, owner in stops])

    return sent(work.change(plan_id, f"start from {held.name}", do, window=window))


@router.post("/plans/{plan_id}/past/account/bids", responses=shape_of(ChangeAnswer))
def lock_account_bids(plan_id: int, work: Work, window: Window = "") -> Response:
    """Set every live keyword's bid by hand to what it is now."""
    held = _needed(work, plan_id, "account")
    rows, bids = _running(work, plan_id, held)
    sheet = work.plan(plan_id).sheet
    locked: dict[int, float | None] = {
        sheet.ids[row]: float(bid) for row, bid in zip(rows, bids, strict=True)
    }
    return sent(
        work.change(
            plan_id, "keep the bids that run now", lambda c: lock_bids(c, locked), window=window
        )
    )


@router.post("/plans/{plan_id}/past/{kind}/days", responses=shape_of(ChangeAnswer))
def set_days(
    plan_id: int, kind: PastKind, body: PastWindow, work: Work, window: Window = ""
) -> Response:
    """Say how many days the figures cover."""
    held = _needed(work, plan_id, kind)
    return sent(
        work.change(
            plan_id, "say how many days the results cover",
            lambda c: set_past(c, kind, held.name, body.days, held.rows), window=window,
            sheet_after=lambda sheet: sheet,
        )
    )  # fmt: skip


@router.post("/plans/{plan_id}/past/{kind}/brief", responses=shape_of(ChangeAnswer))
def fill_brief(
    plan_id: int, kind: PastKind, body: PastApplied, work: Work, window: Window = ""
) -> Response:
    """Fill the conversion rate, and the sale value where it is known, from what happened."""
    summary = _summary(_needed(work, plan_id, kind))
    if summary.rate is None:
        raise BadValueError("results", "at least 30 clicks with their customers",
                            f"{summary.clicks:g} clicks")  # fmt: skip
    fields: dict[str, Any] = {
        "rate_low": round(summary.rate.low, 5),
        "rate_likely": round(summary.rate.likely, 5),
        "rate_high": round(summary.rate.high, 5),
    }
    if body.counts == "customers":
        fields |= {"close_low": None, "close_likely": None, "close_high": None}
    if summary.sale_value is not None and body.counts == "customers":
        fields["sale_value"] = round(summary.sale_value, 2)
    return sent(
        work.change(
            plan_id, "fill the brief from results", lambda c: change_brief(c, fields),
            window=window, sheet_after=lambda sheet: sheet,
        )
    )  # fmt: skip


def _read(
    work: Workspace, plan_id: int, kind: PastKind, file: UploadFile, window: str
) -> tuple[PastFile, PastList]:
    name = (file.filename or kind)[:200]
    return _put(work, plan_id, kind, name, file.file.read(MAX_BYTES + 1), window)


def _sample(name: str) -> bytes:
    return files("milkwort.samples").joinpath(name).read_bytes()


def _put(
    work: Workspace, plan_id: int, kind: PastKind, name: str, data: bytes, window: str
) -> tuple[PastFile, PastList]:
    work.plan(plan_id)
    read = read_past_rows(read_table(data, name), name)
    before = _held(work, plan_id, kind)
    days = before.days if before else _USUAL_DAYS
    work.change(
        plan_id, f"bring in {name}", lambda c: set_past(c, kind, name, days, read.rows),
        window=window, sheet_after=lambda sheet: sheet,
    )  # fmt: skip
    return read, _needed(work, plan_id, kind)


def _held(work: Workspace, plan_id: int, kind: PastKind) -> PastList | None:
    work.plan(plan_id)
    with work.database.begin() as session:
        return load_past(session, plan_id, kind)


def _needed(work: Workspace, plan_id: int, kind: PastKind) -> PastList:
    held = _held(work, plan_id, kind)
    if held is None:
        raise NotFoundError("No such results were brought in yet.", kind)
    return held


def _summary(held: PastList) -> PastSummary:
    return past_summary(held.rows, held.days)


def _summary_view(held: PastList) -> dict[str, Any]:
    s = _summary(held)
    rate = None if s.rate is None else {"low": s.rate.low, "likely": s.rate.likely,
                                        "high": s.rate.high}  # fmt: skip
    return {
        "name": held.name, "at": held.at, "days": s.days, "clicks": s.clicks, "cost": s.cost,
        "customers": s.customers, "rate": rate, "cpc": s.cpc, "sale_value": s.sale_value,
    }  # fmt: skip


def _terms_view(held: PastList, refused: tuple[Any, ...]) -> dict[str, Any]:
    rows = [row for row in terms_by_worth(held.rows) if not row.negative]
    return {
        "summary": _summary_view(held),
        "sold": sum(1 for row in rows if row.customers),
        "text": [row.text for row in rows],
        "clicks": [row.clicks for row in rows],
        "cost": [row.cost for row in rows],
        "customers": [row.customers for row in rows],
        "cpc": [row.cpc for row in rows],
        "refused": [r.as_dict() for r in refused],
    }


def _account_view(
    work: Workspace, plan_id: int, held: PastList, refused: tuple[Any, ...]
) -> dict[str, Any]:
    loaded = work.plan(plan_id)
    rows, bids = _running(work, plan_id, held)
    live = [r for r in held.rows if not r.negative]
    found = changes_of_account(loaded.result, rows, bids)
    entries = [loaded.sheet.entries[row] for row in found.rows.tolist()]
    return {
        "summary": _summary_view(held),
        "live": len(live),
        "negatives": len(held.rows) - len(live),
        "missing": len(live) - len(rows),
        "campaigns": sorted({r.campaign for r in live if r.campaign}),
        "now": _totals(found.now),
        "plan": _totals(found.plan),
        "text": [e.text for e in entries],
        "match": [e.match for e in entries],
        "group": [e.group for e in entries],
        "what": [CHANGES[w] for w in found.what.tolist()],
        "bid_now": found.bid_now,
        "bid_plan": found.bid_plan,
        "spend_now": found.spend_now,
        "spend_plan": found.spend_plan,
        "customers_now": found.customers_now,
        "customers_plan": found.customers_plan,
        "refused": [r.as_dict() for r in refused],
    }


def _totals(totals: Any) -> dict[str, float]:
    return {name: getattr(totals, name) for name in ("clicks", "spend", "customers", "profit")}


def _running(work: Workspace, plan_id: int, held: PastList) -> tuple[Any, Any]:
    """Return the sheet's rows that run now, with their bids; the price paid where none is said."""
    sheet = work.plan(plan_id).sheet
    place = {(e.normalised, e.match): at for at, e in enumerate(sheet.entries)}
    bids: dict[int, float] = {}
    for row in held.rows:
        bid = row.bid if row.bid is not None else row.cpc
        at = place.get((row.normalised, row.match))
        if at is not None and bid and not row.negative:
            bids[at] = bid
    return np.array(list(bids), dtype=np.int64), np.array(list(bids.values()), dtype=np.float64)


def _entry(row: PastRow, origin: str, intent: str) -> KeywordEntry:
    return KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=intent,
        call="keep",
        reason="runs now",
        call_by="account",
        group=row.group,
        campaign=row.campaign,
        landing_page=row.page,
        reading=ReadingEntry(cpc_low=row.cpc, origin=origin),
    )


def _negative(row: PastRow) -> tuple[Negative, str]:
    """Return a live negative with the campaign or group it acts in."""
    if row.group:
        return Negative(row.text, row.match, "group"), row.group
    if row.campaign:
        return Negative(row.text, row.match, "campaign"), row.campaign
    return Negative(row.text, row.match), ""
