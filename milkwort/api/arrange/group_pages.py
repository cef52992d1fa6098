"""The page each group's ads lead to, and the one that would say more."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.pages.page_words import (
    PageWords,
    address_key,
    best_page,
    page_words_of,
)
from milkwort.store.pages import StoredPage

__all__ = ["GroupPage", "pages_of_groups"]


@dataclass(frozen=True)
class GroupPage:
    """Where one group's ads lead.

    Attributes
    ----------
    address : str
        Its own, else its campaign's; empty where there is none.
    page : StoredPage or None
        The page at that address, where its text is known.
    words : PageWords or None
        What that page says of the group's words.
    better : StoredPage or None
        Another page that says more of them.
    """

    address: str
    page: StoredPage | None
    words: PageWords | None
    better: StoredPage | None


def pages_of_groups(plan: OpenPlan, pages: Sequence[StoredPage]) -> list[GroupPage]:
    """Return where each group's ads lead, by its number."""
    structure = plan.sheet.structure
    of_campaign = {campaign.id: campaign.page for campaign in structure.campaigns}
    at_address = {address_key(one.page.address): at for at, one in enumerate(pages)}
    texts = [one.page for one in pages]
    found = []
    for group, words in zip(structure.groups, plan.written.words, strict=True):
        address = group.page or of_campaign[group.campaign_id]
        own = at_address.get(address_key(address), -1) if address else -1
        best = best_page(words, texts, own)
        said = page_words_of(words, texts[own]) if own >= 0 else None
        better = pages[best] if best >= 0 and best != own else None
        found.append(GroupPage(address, pages[own] if own >= 0 else None, said, better))
    return found
