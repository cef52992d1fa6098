"""The routers of all stages, in the order in which the description of the API names them."""

from __future__ import annotations

from fastapi import APIRouter

from milkwort.api.arrange import ads, negatives, pages, shaping, spots, structures, things
from milkwort.api.arrange import lists as negative_lists
from milkwort.api.arrange import routes as arrange
from milkwort.api.arrange import traced as arranged_traced
from milkwort.api.brief import routes as brief
from milkwort.api.clients import routes as clients
from milkwort.api.fit import choices, how_sure, traced, versions, year
from milkwort.api.fit import routes as fit
from milkwort.api.gather import past, rivals, sources
from milkwort.api.gather import routes as gather
from milkwort.api.handover import account as account_file
from milkwort.api.handover import back as sheets_back
from milkwort.api.handover import practice, report, shapes
from milkwort.api.handover import routes as handover
from milkwort.api.http import lists
from milkwort.api.learn import account as account_looked_over
from milkwort.api.learn import bringing, counting, deciding, month_over, monthly
from milkwort.api.learn import routes as learn
from milkwort.api.plan import routes as plans
from milkwort.api.sift import editing, own_ways, themes, what_if
from milkwort.api.sift import routes as sift
from milkwort.api.sift import words as sift_words

__all__ = ["ROUTERS"]

ROUTERS: tuple[APIRouter, ...] = (
    plans.router,
    brief.router,
    sources.router,
    rivals.router,
    past.router,
    gather.router,
    sift.router,
    sift_words.router,
    own_ways.router,
    editing.router,
    what_if.router,
    themes.router,
    arrange.router,
    structures.router,
    shaping.router,
    things.router,
    spots.router,
    negative_lists.router,
    negatives.router,
    ads.router,
    pages.router,
    arranged_traced.router,
    fit.router,
    choices.router,
    how_sure.router,
    year.router,
    versions.router,
    traced.router,
    handover.router,
    sheets_back.router,
    report.router,
    shapes.router,
    practice.router,
    learn.router,
    bringing.router,
    counting.router,
    month_over.router,
    deciding.router,
    account_looked_over.router,
    monthly.router,
    clients.router,
    account_file.router,
    lists.router,
)
