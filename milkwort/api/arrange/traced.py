"""Workings of what Arrange shows: groups, campaigns, negatives, words that no page says."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Response

from milkwort.api.arrange.of_client import pages_of
from milkwort.api.gather.sold import past_terms, sold_terms
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.routes import workings_answer
from milkwort.api.plan.workspace import Workspace
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.arrange.negatives_at_work import negatives_at_work, without_negatives
from milkwort.core.arrange.pages.worth_writing import pages_worth_writing
from milkwort.core.errors import NotFoundError
from milkwort.core.plan.budgets import best_partners, daily_budgets
from milkwort.core.words.match_types import Match
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import MAX_TEXT
from milkwort.core.workings.arranged import (
    campaign_workings,
    group_workings,
    negative_workings,
    word_workings,
)

router = APIRouter(tags=["arrange"])

Text = Annotated[str, Query(min_length=1, max_length=MAX_TEXT)]


@router.get("/plans/{plan_id}/arrange/workings/group/{group_id}", responses=shape_of(Workings))
def of_group(plan_id: int, group_id: int, work: Work) -> Response:
    """Return the sums of a group."""
    plan = work.plan(plan_id)
    groups = plan.sheet.structure.groups
    at = groups.index(plan.sheet.structure.group(group_id))
    sections = group_workings(plan.result, at, plan.written.words[at])
    title, revision = plan.sheet.labels[at], plan.record.revision
    return sent(workings_answer(revision, title, "ad group", [], sections))


@router.get(
    "/plans/{plan_id}/arrange/workings/campaign/{campaign_id}", responses=shape_of(Workings)
)
def of_campaign(plan_id: int, campaign_id: int, work: Work) -> Response:
    """Return the sums of a campaign, and how its day comes about."""
    plan = work.plan(plan_id)
    structure, assumed = plan.sheet.structure, plan.result.brief.assumed
    number = structure.campaigns.index(structure.campaign(campaign_id))
    budgets = daily_budgets(plan.result)
    _, gains = best_partners(budgets, assumed["month_days"], assumed["day_over"])
    place = budgets.campaign.tolist().index(number) if number in budgets.campaign else None
    gain = 0.0 if place is None else float(gains[place])
    sections = campaign_workings(plan.result, number, budgets, gain)
    title, revision = structure.campaigns[number].name, plan.record.revision
    return sent(workings_answer(revision, title, "campaign", [], sections))


@router.get(
    "/plans/{plan_id}/arrange/workings/negative/{negative_id}", responses=shape_of(Workings)
)
def of_negative(plan_id: int, negative_id: int, work: Work) -> Response:
    """Return what one of the plan's negatives saves and costs."""
    plan = work.plan(plan_id)
    # the brief's negatives stand in the order of those that are stored
    pairs = zip(plan.record.negatives, plan.record.brief.negatives, strict=False)
    found = next((acts for one, acts in pairs if one.id == negative_id), None)
    if found is None:
        raise NotFoundError(f"There is no negative {negative_id}.", "negative")
    return _said(work, plan, found)


@router.get("/plans/{plan_id}/arrange/workings/block", responses=shape_of(Workings))
def of_block(plan_id: int, text: Text, match: Match, work: Work) -> Response:
    """Return what a negative that might be added would save and cost."""
    return _said(work, work.plan(plan_id), Negative(text, match))


@router.get("/plans/{plan_id}/arrange/workings/word", responses=shape_of(Workings))
def of_word(plan_id: int, word: Text, work: Work) -> Response:
    """Return who stands behind a word that no page says."""
    plan = work.plan(plan_id)
    pages = [one.page for one in pages_of(work, plan)]
    worth = pages_worth_writing(plan.result, pages, plan.written.lexicon)
    found = next((one for one in worth if one.word == word), None)
    if found is None:
        raise NotFoundError("Some page says this word, or no keyword asks for it.", "word")
    sections = word_workings(plan.result, found, _texts(plan))
    return sent(workings_answer(plan.record.revision, word, "no page says it", [], sections))


def _said(work: Workspace, plan: OpenPlan, negative: Negative) -> Response:
    free = without_negatives(plan.result)
    (found,) = negatives_at_work(free, [negative], past_terms(work, plan), sold_terms(work, plan))
    sections = negative_workings(free, negative, found, _texts(plan))
    about = f"{negative.match} negative"
    return sent(workings_answer(plan.record.revision, negative.text, about, [], sections))


def _texts(plan: OpenPlan) -> list[str]:
    return [entry.text for entry in plan.sheet.entries]
