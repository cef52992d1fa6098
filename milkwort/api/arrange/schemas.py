"""What Arrange takes and gives."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Numbers, Taken
from milkwort.formats.plan_values import AudienceValues, PolicyValues, ShowingValues

__all__ = [
    "ArrangeView",
    "CampaignEdit",
    "CampaignValues",
    "ConflictItem",
    "GroupColumns",
    "GroupEdit",
    "GroupIds",
    "GroupsMerge",
    "GroupsMove",
    "KeywordMove",
    "MainWordItem",
    "Misfit",
    "NewPlace",
]


class MainWordItem(Given):
    """A main word of a group, in the singular, and its share of the group's clicks."""

    word: str
    share: float


class Misfit(Given):
    """A keyword that would fit another group better."""

    id: int
    text: str
    group_id: int
    group: str


class GroupColumns(Given):
    """Ad groups, columns of one length; searches, clicks, money and customers a month."""

    id: list[int]
    name: list[str]
    label: list[str]
    campaign_id: list[int]
    campaign: list[str]
    page: list[str] = Field(description="its own, or its campaign’s")
    own_page: list[str]
    page_said: list[int | None] = Field(description="of its words; null where no text is known")
    better_page: list[str | None] = Field(description="one that says more of its words")
    ads: list[int]
    ads_wrong: list[int] = Field(description="ads that a platform would refuse")
    without_ad: list[bool]
    things: list[int] = Field(description="things it shows that can be delivered")
    left_out: list[int] = Field(description="things it shows that can’t")
    bid: list[float | None]
    policy: list[PolicyValues | None]
    locked: list[bool]
    leaves: list[list[str]] = Field(description="texts left to groups that hold them as exact")
    keywords: list[int]
    kept: list[int]
    too_many: list[int] = Field(description="kept keywords over what the platform takes")
    running: list[int]
    searches: Numbers
    clicks: Numbers
    spend: Numbers
    customers: Numbers
    words: list[list[MainWordItem]]
    likeness: Numbers = Field(description="how alike the kept keywords are, 0 to 1")
    least_like: list[list[Misfit]]


class CampaignValues(Given):
    """A campaign; money a month, its least and most, and its share where it scouts."""

    id: int
    name: str
    least_spend: float
    most_spend: float | None
    scouting_share: float | None
    spend: float = Field(description="expected")
    daily_budget: float
    clicks_lost: float = Field(description="clicks a month that busy days lose to the budget")
    share_with: str | None = Field(description="the campaign it would best share its money with")
    share_gain: float = Field(description="clicks a month that both would gain by it")
    binds: Literal["", "least", "most"] = Field(description="the limit that its money meets")
    area_share: float | None
    showing: ShowingValues | None
    shown_share: float | None = Field(description="share of the week’s searches in its own hours")
    note: str
    page: str
    first_day: str
    last_day: str
    bid_moves: str
    partner_sites: bool
    audience: list[AudienceValues]
    policy: PolicyValues | None
    spots: int


class ConflictItem(Given):
    """One conflict: its kind in words, and what it touches a month."""

    kind: str
    says: str
    negative: str
    negative_id: int | None
    pinned: str = Field(description="the list that holds the negative; empty for the plan’s own")
    pinned_id: int | None
    count: int
    ids: list[int]
    texts: list[str]
    searches: float
    customers: float
    spend: float
    terms: list[str]
    group_id: int | None = Field(description="that is to leave them to others")
    campaign_id: int | None = Field(description="that would block the texts")
    to_block: list[str] = Field(description="exact texts that part them")


class ArrangeView(Given):
    """How a plan's keywords are arranged."""

    revision: int
    campaigns: list[CampaignValues]
    groups: GroupColumns
    alone: int
    ads: int
    pages: int
    conflicts: list[ConflictItem]


class GroupEdit(Taken):
    """What is set of a group; what is left out stays."""

    name: str = Field(default="", max_length=400)
    page: str = Field(default="", max_length=4000)
    bid: float | None = Field(default=None, gt=0, le=1e12)
    policy: PolicyValues | None = None
    locked: bool = False
    blocks_twins: bool = False


class CampaignEdit(Taken):
    """What is set of a campaign; what is left out stays. Money a month."""

    name: str = Field(default="", max_length=400)
    least_spend: float = Field(default=0, ge=0, le=1e12)
    most_spend: float | None = Field(default=None, ge=0, le=1e12)
    scouting_share: float | None = Field(default=None, ge=0, le=1)
    area_share: float | None = Field(default=None, ge=0, le=1)
    showing: ShowingValues | None = None
    note: str = Field(default="", max_length=4000)
    page: str = Field(default="", max_length=4000)
    first_day: str = Field(default="", max_length=10)
    last_day: str = Field(default="", max_length=10)
    bid_moves: str = Field(default="", max_length=400)
    partner_sites: bool = False
    audience: list[AudienceValues] = Field(default=[], max_length=50)
    policy: PolicyValues | None = None


class NewPlace(Taken):
    """A campaign to be made, or a group in one."""

    name: str = Field(min_length=1, max_length=400)
    campaign_id: int | None = None


class GroupsMove(Taken):
    """Groups, and the campaign they go to."""

    ids: list[int] = Field(min_length=1, max_length=10_000)
    campaign_id: int


class GroupsMerge(Taken):
    """Groups, and the one of them all their keywords go to."""

    ids: list[int] = Field(min_length=1, max_length=10_000)
    into: int


class GroupIds(Taken):
    """Some groups; none for every empty one."""

    ids: list[int] = Field(default=[], max_length=100_000)


class KeywordMove(Taken):
    """Keywords and the group they go to: one that stands, or one by what it is called.

    A name no group has makes a new group, in the campaign named.
    """

    ids: list[int] = Field(min_length=1, max_length=200_000)
    group_id: int | None = None
    group: str = Field(default="", max_length=400)
    campaign_id: int | None = None
