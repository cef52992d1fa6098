"""Arrange: the pages of the site, what they say of the groups' words, which are worth writing."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.arrange.group_pages import GroupPage, pages_of_groups
from milkwort.api.arrange.of_client import pages_of
from milkwort.api.arrange.pages_schemas import (
    NewPages,
    PageAddress,
    PageIds,
    PagesRead,
    PagesView,
)
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.group_figures import group_figures
from milkwort.core.arrange.pages.page_words import (
    PageText,
    address_key,
    page_words_of,
    sentence_about,
)
from milkwort.core.arrange.pages.worth_writing import pages_worth_writing
from milkwort.core.counted import counted
from milkwort.core.errors import NotFoundError, PlannerError
from milkwort.formats.page_text import read_page
from milkwort.store.groups import edit_campaign, edit_group
from milkwort.store.journal import Change
from milkwort.store.pages import StoredPage, move_page, remove_pages, set_pages

router = APIRouter(tags=["arrange"])

_NAMED = 6


@router.get("/plans/{plan_id}/arrange/pages", responses=shape_of(PagesView))
def view(plan_id: int, work: Work) -> Response:
    """Return the pages, where each group leads and what is said there, and what no page says."""
    plan = work.plan(plan_id)
    pages = pages_of(work, plan)
    found = pages_of_groups(plan, pages)
    customers = _customers(plan)
    worth = pages_worth_writing(plan.result, [one.page for one in pages], plan.written.lexicon)
    entries = plan.sheet.entries
    return sent(
        {
            "revision": plan.record.revision,
            "pages": [_page(plan, one, found) for one in pages],
            "groups": [
                _group(plan, at, one, customers[at])
                for at, one in enumerate(found)
                if plan.written.facts[at].keywords
            ],
            "worth_writing": [
                {"word": one.word, "keywords": len(one.keywords),
                 "texts": [entries[row].text for row in one.keywords[:_NAMED]],
                 "customers": one.customers, "clicks": one.clicks, "searches": one.searches}
                for one in worth
            ],
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/pages/read", responses=shape_of(PagesRead))
def read(plan_id: int, file: Annotated[list[UploadFile], File()], work: Work) -> Response:
    """Read pages from files, HTML or text; one that can't be read costs no other."""
    plan = work.plan(plan_id)
    there = {address_key(one.page.address) for one in pages_of(work, plan)}
    return sent({"pages": [_read(one, there) for one in file]})


@router.post("/plans/{plan_id}/arrange/pages", responses=shape_of(ChangeAnswer))
def keep(plan_id: int, body: NewPages, work: Work, window: Window = "") -> Response:
    """Keep pages with their text; one whose address is known is read anew."""
    made = [PageText(p.address.strip(), p.title, tuple(p.headings), p.text) for p in body.pages]

    def do(change: Change) -> None:
        set_pages(change, made)
        if body.group_id is not None:
            edit_group(change, body.group_id, {"landing_page": made[0].address})

    one = Decision(f"read {counted(len(made), 'page')}", do)
    return sent(work.change(plan_id, lambda _: one, window=window, of_client=True))


@router.post("/plans/{plan_id}/arrange/pages/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: PageIds, work: Work, window: Window = "") -> Response:
    """Let pages go; groups keep the addresses their ads lead to."""
    label = f"remove {counted(len(body.ids), 'page')}"
    made = Decision(label, lambda c: remove_pages(c, body.ids))
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.post("/plans/{plan_id}/arrange/pages/{page_id}", responses=shape_of(ChangeAnswer))
def edit(
    plan_id: int, page_id: int, body: PageAddress, work: Work, window: Window = ""
) -> Response:
    """Say where a page stands; what leads to it in this plan leads there too."""

    def decide(plan: OpenPlan) -> Decision:
        old = _of_client(work, plan, page_id).page.address
        structure = plan.sheet.structure

        def do(change: Change) -> None:
            move_page(change, page_id, body.address)
            for group in structure.groups:
                if group.page and address_key(group.page) == address_key(old):
                    edit_group(change, group.id, {"landing_page": body.address})
            for campaign in structure.campaigns:
                if campaign.page and address_key(campaign.page) == address_key(old):
                    edit_campaign(change, campaign.id, {"landing_page": body.address})

        return Decision(f"move the page {old}", do)

    return sent(work.change(plan_id, decide, window=window, of_client=True))


def _of_client(work: Workspace, plan: OpenPlan, page_id: int) -> StoredPage:
    for one in pages_of(work, plan):
        if one.id == page_id:
            return one
    raise NotFoundError(f"There is no page {page_id}.", "page")


def _read(file: UploadFile, there: set[str]) -> dict[str, Any]:
    name = (file.filename or "page")[:200]
    try:  # the whole request is bounded already: its size is said as it is
        page = read_page(file.file.read(), name)
    except PlannerError as no:
        return {"name": name, "address": name, "title": "", "headings": [], "text": "",
                "words": 0, "there": False, "refused": str(no)}  # fmt: skip
    return {"name": name, "address": page.address, "title": page.title,
            "headings": page.headings, "text": page.text, "words": len(page.words()),
            "there": address_key(page.address) in there, "refused": ""}  # fmt: skip


def _page(plan: OpenPlan, one: StoredPage, found: list[GroupPage]) -> dict[str, Any]:
    groups = plan.sheet.structure.groups
    return {
        "id": one.id, "address": one.page.address, "title": one.page.title,
        "headings": len(one.page.headings), "words": len(one.page.words()), "at": one.at,
        "groups": [groups[at].id for at, where in enumerate(found) if where.page is one],
    }  # fmt: skip


def _group(plan: OpenPlan, at: int, one: GroupPage, customers: float) -> dict[str, Any]:
    words, label = plan.written.words[at], plan.sheet.labels[at]
    where = one.words.where if one.words is not None else [()] * len(words)
    better = None if one.better is None else page_words_of(words, one.better.page)
    return {
        "group_id": plan.sheet.structure.groups[at].id, "group": label,
        "own": plan.sheet.structure.groups[at].page, "address": one.address,
        "page_id": None if one.page is None else one.page.id,
        "words": [
            {"word": word.word, "share": word.share, "where": parts}
            for word, parts in zip(words, where, strict=True)
        ],
        "said": 0 if one.words is None else one.words.count,
        "better": None if one.better is None else one.better.page.address,
        "better_said": 0 if better is None else better.count,
        "sentence": "" if one.page is None else sentence_about(words, one.page.page),
        "customers": customers,
    }  # fmt: skip


def _customers(plan: OpenPlan) -> list[float]:
    groups = len(plan.sheet.structure.groups)
    figures: list[float] = group_figures(plan.result, groups).customers.tolist()
    return figures
