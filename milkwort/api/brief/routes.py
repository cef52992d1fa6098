"""The Brief stage."""

from __future__ import annotations

import orjson
from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import (
    AssumptionChange,
    AssumptionItem,
    BriefChange,
    ChangeAnswer,
    PurseChange,
    StepsChange,
)  # fmt: skip
from milkwort.core.assumptions import TABLE
from milkwort.core.brief.fields import FIELDS
from milkwort.core.brief.kinds import RULE_STARTS
from milkwort.core.brief.platform import PROFILES, Profile, profile_of
from milkwort.core.brief.steps import in_steps
from milkwort.core.brief.values import sum_for
from milkwort.core.errors import NothingUsableError
from milkwort.core.market.demand import season_of_months
from milkwort.core.plan.budgets import a_month
from milkwort.formats.plan_values import ProfileValues
from milkwort.store.brief_changes import change_assumptions, change_brief

router = APIRouter(tags=["brief"])

_LABELS = {name: field.label for name, field in FIELDS.items()} | {
    "offer_name": "what is sold",
    "more_offers": "the offers",
}


@router.patch("/plans/{plan_id}/brief", responses=shape_of(ChangeAnswer))
def change(plan_id: int, body: BriefChange, work: Work, window: Window = "") -> Response:
    """Change fields of the brief."""
    given = body.given()
    named = [_LABELS[f] for f in given if f in _LABELS] or ["the brief"]

    def decide(plan: OpenPlan) -> Decision:
        fields, rule = given, given.get("ceiling_rule")
        # another rule starts with a figure of its own; the same one keeps what was entered
        if rule is not None and rule != plan.record.values["ceiling_rule"]:
            fields = {"ceiling_value": RULE_STARTS[rule]} | given
        return Decision(f"change {named[0]}", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))


@router.put("/plans/{plan_id}/brief/steps", responses=shape_of(ChangeAnswer))
def set_steps(plan_id: int, body: StepsChange, work: Work, window: Window = "") -> Response:
    """Count customers in one step, or in two: the whole stays as it is."""

    def decide(plan: OpenPlan) -> Decision:
        fields = in_steps(plan.record.values, body.steps)
        return Decision("change how customers are counted", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))


@router.put("/plans/{plan_id}/purse", responses=shape_of(ChangeAnswer))
def set_purse(plan_id: int, body: PurseChange, work: Work, window: Window = "") -> Response:
    """Set what is left to spend on clicks a month: the sum before tax and fee follows."""

    def decide(plan: OpenPlan) -> Decision:
        days = plan.record.brief.assumed["month_days"]
        fields = sum_for(plan.record.values, a_month(body.purse, body.per, days))
        return Decision("change the purse", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))


@router.get("/plans/{plan_id}/assumptions")
def assumptions(plan_id: int, work: Work) -> list[AssumptionItem]:
    """List every default of the model as the plan sees it."""
    assumed = work.plan(plan_id).record.brief.assumed
    return [
        AssumptionItem(
            name=row.name, label=row.label, value=assumed[name], default=row.value,
            unit=row.unit, least=row.least, most=row.most, why=row.why,
            changed=assumed.is_changed(name),
        )
        for name, row in TABLE.items()
    ]  # fmt: skip


@router.patch("/plans/{plan_id}/assumptions", responses=shape_of(ChangeAnswer))
def change_some(plan_id: int, body: AssumptionChange, work: Work, window: Window = "") -> Response:
    """Change assumptions, or put their defaults back."""
    first = next(iter(body.values), "")
    label = TABLE[first].label if first in TABLE else "nothing"
    made = Decision(
        f"change the assumption on {label}", lambda c: change_assumptions(c, body.values)
    )
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.get("/profiles")
def profiles(work: Work) -> list[ProfileValues]:
    """List the platform profiles that ship."""
    return [ProfileValues(**profile.as_dict()) for profile in (Profile(), *PROFILES)]


@router.get(
    "/plans/{plan_id}/profile.json",
    response_class=Response,
    responses=download_of("application/json"),
)
def profile_file(plan_id: int, work: Work) -> Response:
    """Return the plan's platform profile as a file of its own."""
    profile = profile_of(work.plan(plan_id).record.values["profile"])
    return Response(
        orjson.dumps(profile.as_dict(), option=orjson.OPT_INDENT_2),
        media_type="application/json",
        headers={"Content-Disposition": 'attachment; filename="platform-profile.json"'},
    )


@router.post("/plans/{plan_id}/brief/season", responses=shape_of(ChangeAnswer))
def season_of_keywords(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the season from the months that the keywords' own readings hold."""

    def decide(plan: OpenPlan) -> Decision:
        season = season_of_months(plan.sheet.table)
        if season is None:
            raise NothingUsableError("season: no keyword has twelve months of figures", "season")
        fields = {"season": [round(float(m), 3) for m in season]}
        return Decision("take the season from the keywords", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))
