"""What is live, as rows under the headings of the sheets that bring it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.standins.market.cells import DAYS
from milkwort.standins.market.storage import Account, Thing

__all__ = ["live_rows"]

Row = dict[str, Any]


def live_rows(
    session: Session, account: Account, kind: str, after: int, most: int
) -> tuple[list[Row], int | None]:
    """Return what is live of one kind, a page of it.

    Parameters
    ----------
    session, account
    kind : str
    after : int
        Number of the last row of the page before; 0 for the first page.
    most : int

    Returns
    -------
    rows : list of dict
    next : int or None
        What to ask for the next page by; None after the last.
    """
    some = session.scalars(
        select(Thing)
        .where(Thing.account == account.id, Thing.kind == kind, Thing.gone.is_(False),
               Thing.number > after)
        .order_by(Thing.number).limit(most + 1)
    ).all()  # fmt: skip
    names = _names(session, account)
    rows = [_row(kind, thing.ref, thing.data, names) for thing in some[:most]]
    return rows, some[most - 1].number if len(some) > most else None


def _names(session: Session, account: Account) -> dict[tuple[str, str], str]:
    found = session.execute(
        select(Thing.kind, Thing.ref, Thing.data).where(
            Thing.account == account.id, Thing.kind.in_(("campaigns", "groups"))
        )
    )
    return {(kind, ref): data["name"] for kind, ref, data in found}


def _row(kind: str, ref: str, data: Mapping[str, Any], names: Mapping[tuple[str, str], str]) -> Row:
    if kind == "campaigns":
        return {
            "campaign": data["name"], "daily budget": data["daily budget"],
            "first day": data["first day"], "last day": data["last day"],
            "days": "" if len(data["days"]) == len(DAYS) else " ".join(data["days"]),
            "from hour": data["from hour"], "to hour": data["to hour"],
            "spread": _yes(data["spread"]), "partner sites": _yes(data["partner sites"]),
            "bid moves": data["bid moves"], "ref": ref,
        }  # fmt: skip
    campaign = names.get(("campaigns", data["campaign"]), "")
    group = names.get(("groups", data.get("group", "")), "")
    if kind == "groups":
        return {"campaign": campaign, "ad group": data["name"], "page": data["page"],
                "bid": data["bid"], "ref": ref}  # fmt: skip
    if kind == "keywords":
        return {"campaign": campaign, "ad group": group, "keyword": data["text"],
                "match": data["match"], "bid": data["bid"], "run": _yes(data["run"]),
                "ref": ref}  # fmt: skip
    if kind == "negatives":
        return {"campaign": campaign, "ad group": group, "negative": data["text"],
                "match": data["match"], "ref": ref}  # fmt: skip
    if kind == "ads":
        return {"campaign": campaign, "ad group": group, "fields": data["fields"], "ref": ref}
    return {"campaign": campaign, "spot": data["name"], "pays": data["pays"],
            "price": data["price"], "money a month": data["money"], "ref": ref}  # fmt: skip


def _yes(value: bool) -> str:
    return "yes" if value else "no"
