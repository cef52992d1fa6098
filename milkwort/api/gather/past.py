"""What ran before the plan: search terms, and the account that is live."""

from __future__ import annotations

from collections.abc import Sequence
from importlib.resources import files
from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.gather.past_schemas import AccountView, PastApplied, PastWindow, TermsView
from milkwort.api.gather.tray_rows import tray_view
from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.gather.trays import Tray
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.gather.account import CHANGES, changes_of_account
from milkwort.core.gather.past import PastRow, PastSummary, past_summary, terms_by_worth
from milkwort.core.words.negatives import Negative
from milkwort.formats.keyword_row import KeywordRow
from milkwort.formats.keyword_rows import KeywordRows
from milkwort.formats.past_rows import PastFile, read_past_rows
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.brief_changes import change_brief
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import make_campaigns, make_places
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, lock_bids, set_calls, set_last_cpc
from milkwort.store.negatives import WHOLE_PLAN, Owner, add_negatives
from milkwort.store.past_lists import PastKind, PastList, load_past, set_past
from milkwort.store.structure import FIRST_CAMPAIGN, Place

router = APIRouter(tags=["gather"])

_USUAL_DAYS = 90.0


@router.get("/plans/{plan_id}/past/terms", responses=shape_of(TermsView, or_none=True))
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


@router.get("/plans/{plan_id}/past/account", responses=shape_of(AccountView, or_none=True))
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

    def decide(plan: OpenPlan) -> Decision:
        sheet = plan.sheet
        known = {(e.normalised, e.match): i for i, e in zip(sheet.ids, sheet.entries, strict=True)}
        lexicon = lexicon_of(plan.record.brief)
        live = {(r.normalised, r.match): r for r in held.rows if not r.negative}
        there = {known[identity]: row for identity, row in live.items() if identity in known}
        new = [
            _arrival(row, held.name, lexicon.intent(row.normalised).intent)
            for identity, row in live.items()
            if identity not in known
        ]
        stops = [row for row in held.rows if row.negative]

        def do(change: Change) -> None:
            add_keywords(change, new)
            set_calls(change, list(there), "keep", "runs now", "account")
            paid = {i: row.cpc for i, row in there.items() if row.cpc is not None}
            set_last_cpc(change, paid)
            negatives = [Negative(row.text, row.match) for row in stops]
            add_negatives(change, negatives, "account", _owners(change, stops))

        return Decision(f"start from {held.name}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/past/account/bids", responses=shape_of(ChangeAnswer))
def lock_account_bids(plan_id: int, work: Work, window: Window = "") -> Response:
    """Set every live keyword's bid by hand to what it is now."""
    held = _needed(work, plan_id, "account")

    def decide(plan: OpenPlan) -> Decision:
        rows, bids = _running(plan, held)
        locked: dict[int, float | None] = {
            plan.sheet.ids[row]: float(bid) for row, bid in zip(rows, bids, strict=True)
        }
        return Decision("keep the bids that run now", lambda c: lock_bids(c, locked))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/past/{kind}/days", responses=shape_of(ChangeAnswer))
def set_days(
    plan_id: int, kind: PastKind, body: PastWindow, work: Work, window: Window = ""
) -> Response:
    """Say how many days the figures cover."""
    _needed(work, plan_id, kind)

    def decide(plan: OpenPlan) -> Decision:
        held = _needed(work, plan_id, kind)
        return Decision(
            "say how many days the results cover",
            lambda c: set_past(c, kind, held.name, body.days, held.rows),
        )

    return sent(work.change(plan_id, decide, window=window, of_client=True))


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
    made = Decision("fill the brief from results", lambda c: change_brief(c, fields))
    return sent(work.change(plan_id, lambda _: made, window=window))


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
    read = read_past_rows(work.reader.table(data, name), name)

    def decide(plan: OpenPlan) -> Decision:
        before = _held(work, plan_id, kind)
        days = before.days if before else _USUAL_DAYS
        return Decision(f"bring in {name}", lambda c: set_past(c, kind, name, days, read.rows))

    work.change(plan_id, decide, window=window, of_client=True)
    return read, _needed(work, plan_id, kind)


def _held(work: Workspace, plan_id: int, kind: PastKind) -> PastList | None:
    client_id = work.plan(plan_id).record.client_id
    with work.database.read() as session:
        return load_past(session, client_id, kind)


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
    rows, bids = _running(loaded, held)
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
        "group": loaded.sheet.group_labels(found.rows.tolist()),
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


def _running(plan: OpenPlan, held: PastList) -> tuple[Any, Any]:
    """Return the sheet's rows that run now, with their bids; the price paid where none is said."""
    place = {(e.normalised, e.match): at for at, e in enumerate(plan.sheet.entries)}
    bids: dict[int, float] = {}
    for row in held.rows:
        bid = row.bid if row.bid is not None else row.cpc
        at = place.get((row.normalised, row.match))
        if at is not None and bid and not row.negative:
            bids[at] = bid
    return np.array(list(bids), dtype=np.int64), np.array(list(bids.values()), dtype=np.float64)


def _arrival(row: PastRow, origin: str, intent: str) -> Arrival:
    entry = KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=intent,
        call="keep",
        reason="runs now",
        call_by="account",
        last_cpc=row.cpc,
        reading=ReadingEntry(cpc_low=row.cpc, origin=origin),
    )
    return Arrival(entry, row.group, row.campaign, row.page)


def _owners(change: Change, rows: Sequence[PastRow]) -> list[Owner]:
    """Return where live negatives act: in the group or campaign they name, else everywhere."""
    campaigns = make_campaigns(change, [r.campaign for r in rows if r.campaign and not r.group])
    places = [Place(r.campaign or FIRST_CAMPAIGN, r.group) for r in rows if r.group]
    groups = make_places(change, places)
    owners = []
    for row in rows:
        if row.group:
            place = Place(row.campaign or FIRST_CAMPAIGN, row.group)
            owners.append(Owner(group_id=groups[place]))
        elif row.campaign:
            owners.append(Owner(campaign_id=campaigns[row.campaign]))
        else:
            owners.append(WHOLE_PLAN)
    return owners
