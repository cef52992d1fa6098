"""Sift: the planner's own reasons, filters and house rules."""

from __future__ import annotations

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.calling import call_rows
from milkwort.api.sift.schemas import OwnChange, RulePreview
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.core.sift.house_rules import RuleWork, rules_at_work
from milkwort.store.journal import Change
from milkwort.store.own_ways import set_own

router = APIRouter(tags=["sift"])

_LABELS = {
    "quick_reasons": "the quick reasons", "saved_filters": "the saved filters",
    "house_rules": "the house rules", "report_style": "the client’s sheet",
}  # fmt: skip
_NAMED = 12


@router.patch("/plans/{plan_id}/own", responses=shape_of(ChangeAnswer))
def change(plan_id: int, body: OwnChange, work: Work, window: Window = "") -> Response:
    """Set quick reasons, saved filters or house rules."""
    values = {k: v for k, v in body.given().items() if v is not None}
    label = "change " + ", ".join(_LABELS[name] for name in values)
    made = Decision(label, lambda c: set_own(c, values))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.get("/plans/{plan_id}/sift/rules", responses=shape_of(RulePreview))
def preview(plan_id: int, work: Work) -> Response:
    """Say what the house rules would do before they do it."""
    loaded = work.plan(plan_id)
    lexicon = lexicon_of(loaded.record.brief)
    texts = loaded.sheet.table.texts
    rules = []
    for rule, found in zip(loaded.record.own.house_rules, _work_of(loaded), strict=True):
        words = {w for r in found.rows for w in lexicon.warning_words(texts[r])}
        rules.append(
            {
                "ids": [loaded.sheet.ids[r] for r in found.rows],
                "by_hand": found.by_hand,
                "texts": [texts[r] for r in found.rows[:_NAMED]],
                "words": sorted(words) if rule.call == "block" else [],
            }
        )
    return sent({"revision": loaded.record.revision, "rules": rules})


@router.post("/plans/{plan_id}/sift/rules/apply", responses=shape_of(ChangeAnswer))
def apply(plan_id: int, work: Work, window: Window = "") -> Response:
    """Call what the house rules say; calls made by hand stay."""

    def decide(plan: OpenPlan) -> Decision:
        rules, found = plan.record.own.house_rules, _work_of(plan)
        count = sum(len(one.rows) for one in found)
        if count == 0:
            raise NothingUsableError("The house rules have nothing to do.", "house rules")

        def do(change: Change) -> None:
            for rule, one in zip(rules, found, strict=True):
                if one.rows:
                    call_rows(change, plan, one.rows, rule.call, rule.reason, "rule")

        many = counted(count, "keyword")
        return Decision(f"call {many} by the house rules", do)

    return sent(work.change(plan_id, decide, window=window))


def _work_of(loaded: OpenPlan) -> list[RuleWork]:
    entries = loaded.sheet.entries
    return rules_at_work(
        loaded.record.own.house_rules,
        loaded.result,
        lexicon_of(loaded.record.brief),
        [e.call_by if e.call != "none" else "" for e in entries],
        [e.reading.origin for e in entries],
        [e.reason for e in entries],
    )
