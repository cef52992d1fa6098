"""Arrange: things sold, read from a file, and which group shows which."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, File, Response, UploadFile
from pydantic import Field

from milkwort.api.http.described import Given, shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, Taken
from milkwort.core.arrange.things import Thing, unsaid_by_titles
from milkwort.core.counted import counted
from milkwort.formats.text_table import MAX_BYTES
from milkwort.formats.things_table import read_things_table
from milkwort.store.things import MOST_THINGS, put_things, remove_things, show_things

router = APIRouter(tags=["arrange"])


class ThingValues(Taken):
    """A thing: money, and the share of its price that is left."""

    code: str = Field(min_length=1, max_length=80)
    name: str = Field(min_length=1, max_length=400)
    price: float | None = Field(default=None, gt=0, le=1e12)
    margin: float | None = Field(default=None, ge=0, le=1)
    page: str = Field(default="", max_length=2048)
    deliverable: bool = True


class ThingItem(Given):
    """A thing with its id, and the groups that show it."""

    id: int
    code: str
    name: str
    price: float | None
    margin: float | None
    page: str
    deliverable: bool
    groups: list[int]


class TitleItem(Given):
    """What the title of a thing doesn't say of the words of a group that shows it."""

    group_id: int
    thing_id: int
    unsaid: list[str]


class ThingsView(Given):
    """All things, and what their titles leave out where they are the ad."""

    revision: int
    written_ads: bool
    things: list[ThingItem]
    titles: list[TitleItem]


class ThingRefused(Given):
    """A row of a file that was left out."""

    row: int
    why: str


class ThingsFile(Given):
    """The things of a file before they are taken in."""

    things: list[ThingValues]
    refused: list[ThingRefused]


class ThingsBrought(Taken):
    """Things that are taken in; one whose code is there is changed."""

    things: Annotated[list[ThingValues], Field(min_length=1, max_length=MOST_THINGS)]


class ThingIds(Taken):
    """Some things."""

    ids: Annotated[list[int], Field(max_length=MOST_THINGS)]


@router.get("/plans/{plan_id}/arrange/things", responses=shape_of(ThingsView))
def view(plan_id: int, work: Work) -> Response:
    """Return the things with the groups that show them."""
    plan = work.plan(plan_id)
    structure = plan.sheet.structure
    groups_of: dict[int, list[int]] = {}
    for group, thing in structure.shown:
        groups_of.setdefault(thing, []).append(group)
    of_id = {one.id: one.thing for one in structure.things}
    titles = [
        {"group_id": group, "thing_id": thing,
         "unsaid": next(iter(unsaid_by_titles(
             plan.written.words[plan.group_number(group)], [of_id[thing]]).values()))}
        for group, thing in structure.shown
    ]  # fmt: skip
    return sent(
        {
            "revision": plan.record.revision,
            "written_ads": plan.written.profile.written_ads,
            "things": [
                {"id": one.id, "code": one.thing.code, "name": one.thing.name,
                 "price": one.thing.price, "margin": one.thing.margin, "page": one.thing.page,
                 "deliverable": one.thing.deliverable, "groups": groups_of.get(one.id, [])}
                for one in structure.things
            ],
            "titles": titles,
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/things/file", responses=shape_of(ThingsFile))
def read_file(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Read a table of things; nothing is kept."""
    work.plan(plan_id)
    name = (file.filename or "things")[:200]
    table = work.reader.table(file.file.read(MAX_BYTES + 1), name)
    things, refused = read_things_table(table, name)
    return sent({"things": things, "refused": [{"row": n.row, "why": f"{n.column}: {n.why}"}
                                               for n in refused]})  # fmt: skip


@router.post("/plans/{plan_id}/arrange/things", responses=shape_of(ChangeAnswer))
def bring(plan_id: int, body: ThingsBrought, work: Work, window: Window = "") -> Response:
    """Take things in."""
    things = [Thing(**one.model_dump()) for one in body.things]
    label = f"bring in {counted(len(things), 'thing')}"
    made = Decision(label, lambda c: put_things(c, things))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/things/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: ThingIds, work: Work, window: Window = "") -> Response:
    """Let things go, also from the groups that show them."""
    label = f"remove {counted(len(body.ids), 'thing')}"
    made = Decision(label, lambda c: remove_things(c, body.ids))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/groups/{group_id}/things", responses=shape_of(ChangeAnswer))
def show(plan_id: int, group_id: int, body: ThingIds, work: Work, window: Window = "") -> Response:
    """Say which things a group shows, and no others."""

    def decide(plan: OpenPlan) -> Decision:
        label = f"show {counted(len(body.ids), 'thing')} in {plan.group_label(group_id)}"
        return Decision(label, lambda c: show_things(c, group_id, body.ids))

    return sent(work.change(plan_id, decide, window=window))
