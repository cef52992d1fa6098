"""Arrange: the plan's negatives, what each does, and what to block next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.arrange.negatives_schemas import (
    AddNegatives,
    NegativesRead,
    NegativesText,
    NegativesView,
    PastedNegatives,
)
from milkwort.api.gather.sold import past_terms, sold_terms, unsold_terms
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.where_negatives import negative_at, owner_named, owner_of
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.negatives_at_work import AtWork, negatives_at_work, without_negatives
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.arrange.to_block import SafeForms, to_block
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError
from milkwort.core.sift.blocking import stands_in_kept
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import normalise
from milkwort.formats.pasted_negatives import (
    PastedNegative,
    lines_of_table,
    read_pasted_negatives,
)
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.negatives import Owner, add_negatives

router = APIRouter(tags=["arrange"])

_NAMED = 6
"""So many texts are named; the rest is counted."""


@router.get("/plans/{plan_id}/arrange/negatives", responses=shape_of(NegativesView))
def view(plan_id: int, work: Work) -> Response:
    """Return the negatives with what each stops, saves and hurts, and what to block next."""
    plan = work.plan(plan_id)
    record = plan.record
    free = without_negatives(plan.result)
    terms, sold = past_terms(work, plan), sold_terms(work, plan)
    found = negatives_at_work(free, record.brief.negatives, terms, sold)
    next_ones = to_block(plan.result, lexicon_of(record.brief), sold, unsold_terms(work, plan))
    would = negatives_at_work(free, [Negative(one.text, one.match) for one in next_ones])
    return sent(
        {
            "revision": record.revision,
            "negatives": [
                {
                    "id": n.id, "text": n.text, "match": n.match, "level": n.owner.level,
                    "where": _where(plan, n.owner), "by": n.by, "at": n.at, "note": n.note,
                    **_said(plan, one),
                }
                # what the pinned lists hold comes after the plan's own
                for n, one in zip(record.negatives, found, strict=False)
            ],
            "to_block": [
                {
                    "text": one.text, "match": one.match, "saves": one.saves,
                    "source": one.source, "stops": len(works.stops),
                    "uncalled": _uncalled(plan, works), "texts": list(one.stops[:_NAMED]),
                }
                for one, works in zip(next_ones, would, strict=True)
            ],
            "saves": sum(one.saves for one in next_ones),
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/negatives/read", responses=shape_of(NegativesRead))
def read(plan_id: int, body: PastedNegatives, work: Work) -> Response:
    """Say what pasted negatives would do before they are added; nothing is kept."""
    plan = work.plan(plan_id)
    lines = read_pasted_negatives(body.text, body.match)
    of_all = owner_of(body.campaign_id, body.group_id)
    _where(plan, of_all)  # refused before any line is looked at where it isn't there
    lines, owners = _placed(plan, lines, of_all)
    good = [line for line in lines if not line.refused]
    made = [negative_at(plan, line.text, line.match, owners[line.line]) for line in good]
    found = dict(zip((line.line for line in good), _at_work(work, plan, made), strict=True))
    firms = _firms(plan)
    safe = SafeForms(plan.result, sold_terms(work, plan), [line.text for line in good])
    return sent(
        {
            "revision": plan.record.revision,
            "lines": [
                {
                    "line": line.line, "text": line.text, "match": line.match,
                    "refused": line.refused,
                    "campaign_id": owners[line.line].campaign_id,
                    "group_id": owners[line.line].group_id,
                    "where": _where(plan, owners[line.line]),
                    "firm": normalise(line.text) in firms
                    and stands_in_kept(plan.result, line.text),
                    **_said(plan, found.get(line.line, _NOTHING)),
                    "narrower": _narrower(safe, line.text)
                    if found.get(line.line, _NOTHING).harms else None,
                }
                for line in lines
            ],
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/negatives/file", responses=shape_of(NegativesText))
def read_file(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Return a table of negatives as lines that can be pasted: text, then match type."""
    work.plan(plan_id)
    name = (file.filename or "negatives")[:200]
    table = work.reader.table(file.file.read(MAX_BYTES + 1), name)
    return sent({"text": "\n".join(lines_of_table(table.rows))})


def _placed(
    plan: OpenPlan, lines: Sequence[PastedNegative], otherwise: Owner
) -> tuple[list[PastedNegative], dict[int, Owner]]:
    """Return lines and where each acts; one that names no place of the plan is refused."""
    placed, owners = [], {}
    for line in lines:
        owner, refused = otherwise, line.refused
        try:
            owner = owner_named(plan, line.campaign, line.group) or otherwise
        except BadValueError as error:
            refused = refused or str(error)
        placed.append(replace(line, refused=refused))
        owners[line.line] = owner
    return placed, owners


def _firms(plan: OpenPlan) -> set[str]:
    """Return the words that the planner said are firms' names."""
    kinds = plan.record.brief.word_kinds
    return {normalise(word) for word, kind in kinds if kind in ("rival", "own")}


@router.post("/plans/{plan_id}/arrange/negatives", responses=shape_of(ChangeAnswer))
def add(plan_id: int, body: AddNegatives, work: Work, window: Window = "") -> Response:
    """Add negatives; one that stops what is kept or has sold needs a note that says why."""

    def decide(plan: OpenPlan) -> Decision:
        of_all = owner_of(body.campaign_id, body.group_id)
        owners = [
            of_all if one.campaign_id is None and one.group_id is None
            else owner_of(one.campaign_id, one.group_id)
            for one in body.items
        ]  # fmt: skip
        made = [
            negative_at(plan, one.text, one.match, owner)
            for one, owner in zip(body.items, owners, strict=True)
        ]
        if not body.note.strip():
            _refuse_harm(plan, made, _at_work(work, plan, made))
        return Decision(
            f"block {counted(len(made), 'text')}" if len(made) > 1 else f"block {made[0].text}",
            lambda c: add_negatives(c, made, body.by, owners, body.note.strip()),
        )

    return sent(work.change(plan_id, decide, window=window))


_NOTHING = AtWork((), (), 0.0, (), (), 0.0, 0.0)


def _refuse_harm(plan: OpenPlan, made: Sequence[Negative], found: Sequence[AtWork]) -> None:
    for negative, one in zip(made, found, strict=True):
        if one.harms:
            kept = [plan.sheet.entries[row].text for row in one.hurts]
            names = ", ".join([*kept, *one.sold][:_NAMED])
            expected = "one that stops nothing kept and nothing that has sold, or a note"
            raise BadValueError(f"negative {negative.text}", expected, f"it stops {names}")


def _at_work(work: Workspace, plan: OpenPlan, negatives: Sequence[Negative]) -> list[AtWork]:
    if not negatives:
        return []
    free = without_negatives(plan.result)
    return negatives_at_work(free, negatives, past_terms(work, plan), sold_terms(work, plan))


def _uncalled(plan: OpenPlan, one: AtWork) -> int:
    return sum(plan.sheet.entries[row].call == "none" for row in one.stops)


def _said(plan: OpenPlan, one: AtWork) -> dict[str, Any]:
    texts = [plan.sheet.entries[row].text for row in one.stops]
    return {
        "stops": len(one.stops),
        "texts": texts[:_NAMED],
        "terms": len(one.terms),
        "saves": one.saves,
        "hurts": [plan.sheet.entries[row].text for row in one.hurts[:_NAMED]],
        "hurt": len(one.hurts),
        "sold": list(one.sold[:_NAMED]),
        "customers": one.customers,
        "spend": one.spend,
    }


def _narrower(safe: SafeForms, text: str) -> dict[str, str] | None:
    form = safe.of(text)
    return None if form is None else {"text": form[0], "match": form[1]}


def _where(plan: OpenPlan, owner: Owner) -> str:
    """Return what the place is called where a negative acts; empty for the whole plan.

    Raises
    ------
    NotFoundError
        Where the plan has no such campaign or group.
    """
    structure = plan.record.structure
    if owner.group_id is not None:
        return plan.sheet.labels[structure.groups.index(structure.group(owner.group_id))]
    if owner.campaign_id is not None:
        return structure.campaign(owner.campaign_id).name
    return ""
