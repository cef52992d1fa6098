"""A plan's file made a plan: what points at what, and that each is there once."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy.orm import Session

from milkwort.api.plan.to_file import CLIENT_LISTS
from milkwort.core.assumptions import RETIRED
from milkwort.core.errors import BadValueError
from milkwort.core.words.texts import normalise
from milkwort.formats.plan_document import PlanDocument
from milkwort.store import models
from milkwort.store.briefs import BRIEF_FIELDS
from milkwort.store.journal import now
from milkwort.store.keys import new_keys
from milkwort.store.plan_list import add_client
from milkwort.store.plan_state import (
    PlanState,
    write_client_state,
    write_plan_state,
)

__all__ = ["add_document"]

Row = dict[str, Any]


def add_document(
    session: Session, document: PlanDocument, client_id: int | None = None
) -> tuple[int, list[str]]:
    """Make a plan from a document.

    Parameters
    ----------
    session : Session
    document : PlanDocument
    client_id : int, optional
        Whose plan it becomes, what the client has staying as it is; a new client with what
        the document brings where left out.

    Returns
    -------
    plan_id : int
    notices : list of str
        What of the document the program no longer knows.

    Raises
    ------
    BadValueError
        For a key that stands twice or points at nothing, a keyword that stands twice, a
        field of the brief nobody knows.
    """
    unknown = sorted(set(document.plan.not_entered) - set(BRIEF_FIELDS))
    if unknown:
        raise BadValueError("plan.not_entered", "fields of a brief", ", ".join(unknown))
    if client_id is None:
        client_id = add_client(session, document.client.name)
        owned = {
            table: _numbered(one.model_dump() for one in getattr(document.client, name))
            for name, table in CLIENT_LISTS.items()
        }
        write_client_state(session, owned, client_id)
    state = PlanState(document.plan.model_dump(mode="json"), _tables(document))
    plan_id = write_plan_state(session, state, client_id=client_id)
    retired = [name for name in document.assumptions if name in RETIRED]
    return plan_id, [f"{name} is left out: {RETIRED[name]}." for name in retired]


def _tables(document: PlanDocument) -> dict[str, list[Row]]:
    """Return a document's rows, numbered within it."""
    campaigns, groups = _campaigns(document)
    campaign_of = {row["key"]: row["id"] for row in campaigns}
    group_of = {row["key"]: row["id"] for row in groups}
    assumptions = [
        {"name": name, "value": value}
        for name, value in document.assumptions.items()
        if name not in RETIRED
    ]
    aside = _numbered(one.model_dump(mode="json") for one in document.set_aside)
    _once(aside, "set_aside", lambda row: (row["kind"], row["key"]))
    return {
        "offer": _numbered(o.model_dump() for o in document.offers),
        "assumption": _numbered(assumptions), "campaign": campaigns, "ad_group": groups,
        "ad": _ads(document, group_of), "spot": _spots(document, campaign_of),
        "negative": _negatives(document, campaign_of, group_of),
        "pinned_list": _pinned(document), "set_aside": aside,
        **_thing_tables(document, group_of), **_keyword_tables(document, group_of),
    }  # fmt: skip


def _campaigns(document: PlanDocument) -> tuple[list[Row], list[Row]]:
    """Return campaigns and groups: each name once in its place."""
    campaigns = _numbered(c.model_dump() for c in document.campaigns)
    _give_keys(campaigns, models.Campaign, "campaigns")
    campaign_of = {row["key"]: row["id"] for row in campaigns}
    groups = _numbered(g.model_dump() for g in document.groups)
    _give_keys(groups, models.AdGroup, "groups")
    for row in groups:
        where = f"groups, {row['name']}"
        row["campaign_id"] = _pointed(row.pop("campaign"), campaign_of, where)
    _once(campaigns, "campaigns", lambda row: row["name"])
    _once(groups, "groups", lambda row: (row["campaign_id"], row["name"]))
    return campaigns, groups


def _ads(document: PlanDocument, group_of: dict[str, int]) -> list[Row]:
    ads = _numbered(a.model_dump() for a in document.ads)
    _give_keys(ads, models.Ad, "ads")
    for row in ads:
        row["ad_group_id"] = _pointed(row.pop("group"), group_of, f"ads, number {row['id']}")
    return ads


def _negatives(
    document: PlanDocument, campaign_of: dict[str, int], group_of: dict[str, int]
) -> list[Row]:
    negatives = _numbered(n.model_dump() for n in document.negatives)
    _give_keys(negatives, models.Negative, "negatives")
    for row in negatives:
        _place_negative(row, campaign_of, group_of)
    return negatives


def _spots(document: PlanDocument, campaign_of: dict[str, int]) -> list[Row]:
    spots = _numbered(s.model_dump() for s in document.spots)
    _give_keys(spots, models.Spot, "spots")
    for row in spots:
        where = f"spots, {row['name']}"
        row["campaign_id"] = _pointed(row.pop("campaign"), campaign_of, where)
        row["offer_id"] = _offer(row.pop("offer"), document, where)
    return spots


def _thing_tables(document: PlanDocument, group_of: dict[str, int]) -> dict[str, list[Row]]:
    things = _numbered(one.model_dump() for one in document.things)
    _once(things, "things", lambda row: row["code"])
    thing_of = {row["code"]: row["id"] for row in things}
    shown = _numbered(one.model_dump() for one in document.shown_things)
    for row in shown:
        where = f"shown_things, number {row['id']}"
        row["ad_group_id"] = _pointed(row.pop("group"), group_of, where)
        row["thing_id"] = _pointed(row.pop("thing"), thing_of, where)
    _once(shown, "shown_things", lambda row: (row["ad_group_id"], row["thing_id"]))
    return {"thing": things, "shown_thing": shown}


def _pinned(document: PlanDocument) -> list[Row]:
    pinned = _numbered(one.model_dump() for one in document.pinned_lists)
    _once(pinned, "pinned_lists", lambda row: row["list_key"])
    for row in (row for one in pinned for row in one["rows"]):
        if not normalise(row["text"]):
            raise BadValueError("pinned_lists", "texts with at least one word", row["text"])
    return pinned


def _keyword_tables(document: PlanDocument, group_of: dict[str, int]) -> dict[str, list[Row]]:
    keywords = _numbered(k.model_dump() for k in document.keywords)
    _give_keys(keywords, models.Keyword, "keywords")
    readings: list[Row] = []
    calls: list[Row] = []
    for row in keywords:
        where = f"keywords, number {row['id']}"
        row["normalised"] = normalise(row["text"])
        if not row["normalised"]:
            raise BadValueError(where, "a text with at least one word", row["text"])
        group, offer = row.pop("group"), row.pop("offer")
        row["ad_group_id"] = None if group is None else _pointed(group, group_of, where)
        row["offer_id"] = _offer(offer, document, where)
        call = row.pop("call")
        if call is not None:
            calls.append({"keyword_id": row["id"], **call, "at": call["at"] or now()})
        own = row.pop("readings")
        _check_readings(own, where)
        readings += [{"keyword_id": row["id"], **r, "read_at": r["read_at"] or now()} for r in own]
    _once(keywords, "keywords", lambda row: (row["normalised"], row["match"]))
    return {"keyword": keywords, "reading": _numbered(readings), "call": _numbered(calls)}


def _offer(number: int | None, document: PlanDocument, where: str) -> int | None:
    if number is not None and number > len(document.offers):
        raise BadValueError(where, f"an offer from 1 to {len(document.offers)}", number)
    return number


def _check_readings(readings: list[Row], where: str) -> None:
    for r in readings:
        if r["prices_in_use"] is None:
            r["prices_in_use"] = r["in_use"]
    for part, what in (("in_use", "searches"), ("prices_in_use", "prices")):
        if sum(r[part] for r in readings) > 1:
            raise BadValueError(where, f"one reading in use for {what}", "several")
    for r in readings:
        for low, high in (("volume_low", "volume_high"), ("cpc_low", "cpc_high")):
            ends = [r[name] for name in (low, high) if r[name] is not None]
            if len(ends) == 2 and ends[0] > ends[1]:
                raise BadValueError(where, f"{low} up to {high}", f"{ends[0]} to {ends[1]}")
        if r["months"] is not None and min(r["months"]) < 0:
            raise BadValueError(where, "months of 0 or more searches", min(r["months"]))


def _place_negative(row: Row, campaign_of: dict[str, int], group_of: dict[str, int]) -> None:
    where = f"negatives, {row['text'][:60]}"
    campaign, group = row.pop("campaign"), row.pop("group")
    if campaign is not None and group is not None:
        raise BadValueError(where, "a campaign or a group", "both")
    if not normalise(row["text"]):
        raise BadValueError(where, "a text with at least one word", row["text"])
    row["campaign_id"] = None if campaign is None else _pointed(campaign, campaign_of, where)
    row["ad_group_id"] = None if group is None else _pointed(group, group_of, where)
    row["at"] = row["at"] or now()


def _pointed(key: str, known: dict[str, int], where: str) -> int:
    if key not in known:
        raise BadValueError(where, "a key that the file holds", key)
    return known[key]


def _give_keys(rows: list[Row], model: type[models.Base], where: str) -> None:
    for row, key in zip(rows, new_keys(model, len(rows)), strict=True):
        row["key"] = row["key"] or key
    _once(rows, where, lambda row: row["key"])


def _once(rows: list[Row], where: str, what: Any) -> None:
    seen: dict[Any, int] = {}
    for row in rows:
        earlier = seen.setdefault(what(row), row["id"])
        if earlier != row["id"]:
            got = row.get("text") or row.get("name") or row["key"]
            raise BadValueError(f"{where}, number {row['id']}", f"another than number {earlier}",
                                got)  # fmt: skip


def _numbered(rows: Iterable[Row]) -> list[Row]:
    return [{"id": at, **row} for at, row in enumerate(rows, start=1)]
