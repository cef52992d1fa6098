"""What Arrange reads of the client: its pages, and the ads of its rivals that are known."""

from __future__ import annotations

from functools import lru_cache

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.ads.says import RivalAds
from milkwort.store.database import Database
from milkwort.store.pages import StoredPage, list_pages
from milkwort.store.rival_lists import load_rival_lists

__all__ = ["pages_of", "rival_ads_of"]


def pages_of(work: Workspace, plan: OpenPlan) -> tuple[StoredPage, ...]:
    """Return the pages of the plan's client."""
    return _pages(work.database, plan.record.client_id, plan.record.id, plan.record.revision)


def rival_ads_of(work: Workspace, plan: OpenPlan) -> RivalAds:
    """Return the words of the rivals' ads that the newest list shows."""
    return _rivals(work.database, plan.record.client_id, plan.record.id, plan.record.revision)


# a change of what a client owns raises the revision of all its plans


@lru_cache(maxsize=8)
def _pages(
    database: Database, client_id: int, plan_id: int, revision: int
) -> tuple[StoredPage, ...]:
    with database.read() as session:
        return tuple(list_pages(session, client_id))


@lru_cache(maxsize=8)
def _rivals(database: Database, client_id: int, plan_id: int, revision: int) -> RivalAds:
    with database.read() as session:
        held = load_rival_lists(session, client_id)
    return RivalAds.of(row.ad for row in held[-1].rows) if held else RivalAds()
