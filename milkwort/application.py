"""The application as it is served: with its samples where they are wanted.

It is made beside the server's first answers: what is imported here takes its time.
"""

from __future__ import annotations

import gc
from datetime import date

from fastapi import FastAPI

from milkwort.api.http.app import make_app
from milkwort.api.learn.arriving import arriving_of_columns
from milkwort.api.plan.samples import SAMPLE_NAME, SECOND_NAME, add_sample
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.structures import lexicon_of
from milkwort.settings import Settings
from milkwort.store.database import Database
from milkwort.store.journal import Change
from milkwort.store.plan_list import list_plans
from milkwort.store.plans import remove_plan
from milkwort.store.results import add_imports, result_import

__all__ = ["application"]


def application(
    settings: Settings, database: Database, market: str, *, sample: bool, fresh: bool
) -> FastAPI:
    """Return the application.

    Parameters
    ----------
    settings : Settings
    database : Database
        Brought up to date.
    market : str
        Where the practice market answers.
    sample : bool
        Load the sample plans where there is no plan yet.
    fresh : bool
        Put the samples' plans away and load them anew; other plans stay.
    """
    app = make_app(settings, database)
    # what stands by now stays, and need not be looked through again
    gc.freeze()
    workspace: Workspace = app.state.workspace
    workspace.practice.address = market
    if sample:
        _with_sample(workspace, fresh)
    return app


def _with_sample(workspace: Workspace, fresh: bool) -> None:
    with workspace.database.begin() as session:
        present = list_plans(session)
        if fresh:
            for line in present:
                if line.name in (SAMPLE_NAME, SECOND_NAME):
                    change = Change(session, line.id, "delete the plan")
                    remove_plan(change)
                    change.finish()
        made = []
        if fresh or not present:
            made = [add_sample(session), add_sample(session, SECOND_NAME, "brackish")]
    for plan_id in made if workspace.settings.history else ():
        _with_history(workspace, plan_id)


def _with_history(workspace: Workspace, plan_id: int) -> None:
    """Give a sample results of months before it begins, made up in the practice market."""
    from milkwort.practice.history import made_up_history  # with a sample only

    plan = workspace.plan(plan_id)
    first = date.fromisoformat(str(plan.record.values["start_date"]))
    lexicon, months = lexicon_of(plan.record.brief), workspace.settings.history
    history = made_up_history(plan.result, lexicon, first, months, seed=plan_id)
    with workspace.database.begin() as session:
        for level, columns in (("keyword", history.keywords), ("term", history.terms)):
            source = f"made-up history, by {level}"
            arriving = arriving_of_columns(columns, level, source, history.last)
            (made,) = add_imports(session, plan.record.client_id, plan_id, [arriving])
            result_import(session, plan.record.client_id, made).in_force = True
