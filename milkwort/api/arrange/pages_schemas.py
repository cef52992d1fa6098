"""What the pages of Arrange take and give."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.arrange.pages.page_words import PagePart

__all__ = ["NewPages", "PageAddress", "PageIds", "PagesRead", "PagesView"]

_Headings = Annotated[list[Annotated[str, Field(max_length=1000)]], Field(max_length=400)]
_Address = Annotated[str, Field(max_length=2048)]


class PageItem(Given):
    """A page whose text is known, when it was read, and the groups that lead to it."""

    id: int
    address: str
    title: str
    headings: int
    words: int
    at: str
    groups: list[int]


class SaidWord(Given):
    """A main word of a group, its share of the clicks, and where the page says it."""

    word: str
    share: float
    where: list[PagePart]


class GroupPageItem(Given):
    """Where a group's ads lead, and what that page says of its words."""

    group_id: int
    group: str
    own: str
    address: str
    page_id: int | None
    words: list[SaidWord]
    said: int
    better: str | None
    better_said: int
    sentence: str = Field(description="to be sent to whoever writes the page; empty for none")
    customers: float


class WorthWritingItem(Given):
    """A word that several kept keywords ask for and no page says."""

    word: str
    keywords: int
    texts: list[str]
    customers: float
    clicks: float
    searches: float


class PagesView(Given):
    """The pages of a client, what they say of each group, and which are worth writing."""

    revision: int
    pages: list[PageItem]
    groups: list[GroupPageItem]
    worth_writing: list[WorthWritingItem]


class PageValues(Taken):
    """A page as it was read."""

    address: Annotated[str, Field(min_length=1, max_length=2048)]
    title: str = Field(default="", max_length=1000)
    headings: Annotated[list[Annotated[str, Field(max_length=1000)]], Field(max_length=400)] = (
        Field(default=[])
    )
    text: str = Field(default="", max_length=400_000)


class PageRead(PageValues):
    """A file as it was read, or why it can't be: `refused`."""

    name: str
    words: int
    there: bool = Field(description="whether its address has a text already")
    refused: str


class PagesRead(Given):
    """Files as they were read; nothing is kept."""

    pages: list[PageRead]


class NewPages(Taken):
    """Pages to be kept, and the group whose ads lead to the first, where there is one."""

    pages: Annotated[list[PageValues], Field(min_length=1, max_length=2000)]
    group_id: int | None = None


class PageAddress(Taken):
    """Where a page stands."""

    address: _Address


class PageIds(Taken):
    """Some pages."""

    ids: Annotated[list[int], Field(min_length=1, max_length=2000)]
