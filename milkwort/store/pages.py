"""The pages of a client's site, with their text."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.arrange.pages.page_words import PageText, same_address
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change, now
from milkwort.store.plan_list import client_of

__all__ = ["MOST_PAGES", "StoredPage", "list_pages", "move_page", "remove_pages", "set_pages"]

MOST_PAGES = 2000
"""Pages of a client at most."""
_LONGEST_ADDRESS = 2048


@dataclass(frozen=True)
class StoredPage:
    """A page with its id, and when its text was read."""

    id: int
    at: str
    page: PageText


def list_pages(session: Session, client_id: int) -> list[StoredPage]:
    """Return a client's pages in the order they came."""
    p = models.Page
    rows = session.execute(
        select(p.id, p.at, p.address, p.title, p.headings, p.text)
        .where(p.client_id == client_id)
        .order_by(p.id)
    )
    return [
        StoredPage(r.id, r.at, PageText(r.address, r.title, tuple(r.headings), r.text))
        for r in rows
    ]


def set_pages(change: Change, pages: Sequence[PageText]) -> None:
    """Keep pages; one whose address is there takes the place of what was read before.

    Raises
    ------
    BadValueError
        Past 2,000 pages.
    """
    client_id = client_of(change.session, change.plan_id)
    held = list_pages(change.session, client_id)
    for page in pages:
        there = _at(held, page.address)
        at = now()
        columns = {"title": page.title, "headings": list(page.headings), "text": page.text,
                   "at": at}  # fmt: skip
        if there is not None:
            change.update(models.Page, {there.id: columns})
            continue
        if len(held) >= MOST_PAGES:
            raise BadValueError("pages", f"at most {MOST_PAGES:,}", len(held) + 1)
        row = {"client_id": client_id, "address": page.address, **columns}
        (made,) = change.insert(models.Page, [row])
        held.append(StoredPage(made, at, page))


def move_page(change: Change, page_id: int, address: str) -> None:
    """Say at which address a page stands.

    Raises
    ------
    NotFoundError
        For a page that the client doesn't have.
    BadValueError
        For an address that is empty, too long, or another page's.
    """
    held = list_pages(change.session, client_of(change.session, change.plan_id))
    if page_id not in [one.id for one in held]:
        raise NotFoundError(f"There is no page {page_id}.", "page")
    bare = address.strip()
    if not 1 <= len(bare) <= _LONGEST_ADDRESS:
        raise BadValueError("address", f"one of 1 to {_LONGEST_ADDRESS:,} characters", address)
    other = _at([one for one in held if one.id != page_id], bare)
    if other is not None:
        raise BadValueError("address", "one that no other page has", bare)
    change.update(models.Page, {page_id: {"address": bare}})


def remove_pages(change: Change, ids: Sequence[int]) -> None:
    """Let pages go; groups keep the addresses their ads lead to.

    Raises
    ------
    NotFoundError
        For a page that the client doesn't have.
    """
    held = list_pages(change.session, client_of(change.session, change.plan_id))
    mine = {one.id for one in held}
    for one in ids:
        if one not in mine:
            raise NotFoundError(f"There is no page {one}.", "page")
    change.delete(models.Page, list(ids))


def _at(pages: Sequence[StoredPage], address: str) -> StoredPage | None:
    return next((one for one in pages if same_address(one.page.address, address)), None)
