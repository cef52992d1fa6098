"""What Hand over takes and gives."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import IsoDay, Taken
from milkwort.api.plan.summary_schemas import Summary
from milkwort.core.brief.upload_shape import SheetName, UploadColumn
from milkwort.core.handover.changed_rows import Turn
from milkwort.store.hand_overs import Status

__all__ = [
    "ChangesView", "CheckItem", "HandOverItem", "HandOverMade", "HandOverRequest", "HandOverState",
    "HandOverView", "MendRequest", "SentView", "SheetShape", "SheetView",
    "UploadColumnChange", "UploadLine",
]  # fmt: skip

Cell = str | float | bool | None


class HandOverRequest(Taken):
    """Which files to send: the plan's own file, or sheets, whole or only what changed."""

    kind: Literal["csv", "xlsx", "json"]
    sheets: list[SheetName] = Field(default=["keywords"], min_length=1, max_length=6)
    only: Literal["all", "changed"] = "all"
    note: str = Field(default="", max_length=4000)


class HandOverFileItem(Given):
    """One file of a hand-over."""

    id: int
    kind: str
    filename: str
    rows: int
    sha256: str


class HandOverItem(Given):
    """What was sent at one time."""

    id: int
    at: str
    revision: int
    label: str
    status: Status
    runs_from: str | None = Field(description="its first day; null where it was only written")
    note: str
    points: list[str]
    files: list[HandOverFileItem]
    comparable: bool = Field(description="whether the plan was kept with it")


class HandOverState(Taken):
    """What became of a hand-over; what is left out stays."""

    status: Status | None = None
    runs_from: IsoDay | None = Field(default=None, description="its first day, where it ran")
    note: str | None = Field(default=None, max_length=4000)


class UploadLine(Given):
    """One row of the upload sheet; bid is money a click, null where it doesn't run."""

    campaign: str
    group: str
    keyword: str
    match: str
    bid: float | None
    ref: str


class CheckItem(Given):
    """One thing to look at before the plan leaves."""

    code: str
    text: str
    stage: str
    must: bool
    names: list[str]
    mend: str = Field(description="what one key does about it; empty where only a person can")


class SheetView(Given):
    """One sheet by column, as it would leave."""

    name: SheetName
    heads: list[str]
    columns: list[list[Cell]]


class HandOverView(Given):
    """The upload sheet as it stands, what to look at, and what went before."""

    revision: int
    rows: list[UploadLine]
    shapes: dict[SheetName, list[UploadColumn]] = Field(description="columns as they leave")
    file_name: str = Field(description="the rule by which files are named")
    file_name_words: list[str]
    counts: dict[SheetName, int]
    changed: dict[SheetName, int] | None = Field(description="rows; null where nothing was sent")
    checks: list[CheckItem]
    sent: list[HandOverItem]


class HolidaysView(Given):
    """Countries whose public holidays are known."""

    countries: dict[str, dict[str, str]] = Field(
        description="by ISO 3166-1 code: what each part with days of its own is called, by code"
    )


class ChangedLine(Given):
    """One row that is not as it was sent; `was` holds the cells that were different."""

    sheet: SheetName
    turn: Turn
    ref: str
    row: dict[str, Cell]
    was: dict[str, Cell]


class SentFigures(Given):
    """What was promised then and what is now, a month."""

    then: dict[str, float | None]
    now: dict[str, float | None]


class ChangesView(Given):
    """What is not as it was sent."""

    revision: int
    since: str | None
    changes: list[ChangedLine]
    more: int = Field(description="changes that are not sent here")
    figures: SentFigures | None


class SheetReadBack(Given):
    """One upload sheet that came back, held against the plan."""

    sheet: SheetName
    rows: int = Field(description="rows of the file that could be read")
    same: int
    absent: int = Field(description="rows of the plan that the file has not")
    refused: list[str]


class ReadBack(Given):
    """Upload sheets that came back; `was` of a change is what the plan says."""

    revision: int
    name: str
    sheets: list[SheetReadBack]
    changes: list[ChangedLine]
    more: int = Field(description="changes that are not sent here")
    bids: dict[str, float] = Field(
        description="by ref of a keyword: the bid of the file, where it is another"
    )


class BidsBack(Taken):
    """Bids of a file that are to be taken over."""

    bids: dict[str, float] = Field(min_length=1, max_length=200_000)


class UploadColumnChange(Taken):
    """What becomes of one column of a sheet; what is left out stays."""

    column: str = Field(min_length=1, max_length=80)
    heading: str | None = Field(default=None, min_length=1, max_length=80)
    sent: bool | None = None
    place: int | None = Field(default=None, ge=0, le=60, description="counted from 0")


class SheetShape(Taken):
    """What upload sheets look like for this platform; what is left out stays."""

    sheet: SheetName | None = None
    columns: list[UploadColumnChange] = Field(default=[], max_length=60)
    as_it_comes: bool = Field(default=False, description="forget what was said of that sheet")
    file_name: str | None = Field(default=None, max_length=80)


class StyleFrom(Taken):
    """The plan whose style the client's sheet takes over."""

    of: int


class MendRequest(Taken):
    """The check whose mend is made."""

    code: str = Field(max_length=80)


class SentView(Given):
    """A plan that a hand-over became again."""

    id: int


class HandOverMade(Given):
    """A hand-over and the plan's summary after it."""

    made: HandOverItem
    summary: Summary
