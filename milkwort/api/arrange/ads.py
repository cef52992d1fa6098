"""Arrange: the written ads, as they read, what is wrong with them and what they say."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.arrange.ads_schemas import (
    AdCopy,
    AdDraft,
    AdFields,
    AdFileRow,
    AdIds,
    AdLook,
    AdsBrought,
    AdsDrafted,
    AdsFile,
    AdsView,
    Replacement,
    ReplacementView,
)
from milkwort.api.arrange.of_client import rival_ads_of
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, attached, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.arrange.ads.checks import AdFault, faults_of_group, limit_of
from milkwort.core.arrange.ads.drafts import first_drafts
from milkwort.core.arrange.ads.exchange import (
    exchanged,
    in_every_field,
    plurals_of,
    replaced,
    words_between,
)
from milkwort.core.arrange.ads.says import RivalAds, lines_of
from milkwort.core.arrange.ads.text import Ad, characters, written_out
from milkwort.core.counted import counted
from milkwort.core.errors import NotFoundError, NothingUsableError
from milkwort.formats.ads_table import AdRow, ads_csv, read_ads_table
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.ads import StoredAd, add_ads, ads_by_group, remove_ads, rewrite_ads
from milkwort.store.journal import Change

router = APIRouter(tags=["arrange"])


@router.get("/plans/{plan_id}/arrange/ads", responses=shape_of(AdsView))
def view(plan_id: int, work: Work) -> Response:
    """Return all ads as they read, with what is wrong with them and what they say."""
    plan = work.plan(plan_id)
    rivals, faults = rival_ads_of(work, plan), plan.written.faults
    profile = plan.written.profile
    return sent(
        {
            "revision": plan.record.revision,
            "limits": {
                "platform": profile.name, "written_ads": profile.written_ads,
                "headlines": profile.headlines, "descriptions": profile.descriptions,
                "headline_characters": profile.headline_characters,
                "description_characters": profile.description_characters,
                "ads_per_group": profile.ads_per_group,
            },
            "ads": [
                {
                    "id": one.id, "key": one.key, "group_id": one.group_id,
                    "written_headlines": one.ad.headlines,
                    "written_descriptions": one.ad.descriptions,
                    **_look(plan, one.group_id, one.ad, faults[one.id], rivals),
                }
                for one in plan.record.ads
            ],
            "without": plan.written.without,
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/ads/look", responses=shape_of(AdLook))
def look(plan_id: int, body: AdDraft, work: Work) -> Response:
    """Say how an ad reads before it is kept, beside the other ads of its group."""
    plan = work.plan(plan_id)
    ad = Ad(tuple(body.headlines), tuple(body.descriptions))
    number = plan.group_number(body.group_id)
    beside = [one.ad for one in plan.record.ads
              if one.group_id == body.group_id and one.id != body.ad_id]  # fmt: skip
    together = faults_of_group(
        [*beside, ad], plan.written.facts[number].fillings, plan.written.profile
    )
    faults = [*plan.written.faults_of(number, ad), *together[-1]]
    return sent(_look(plan, body.group_id, ad, faults, rival_ads_of(work, plan)))


@router.post("/plans/{plan_id}/arrange/ads", responses=shape_of(ChangeAnswer))
def write(plan_id: int, body: AdDraft, work: Work, window: Window = "") -> Response:
    """Keep an ad: a new one of its group, or the one named written anew."""
    ad = Ad(tuple(body.headlines), tuple(body.descriptions))

    def decide(plan: OpenPlan) -> Decision:
        name = plan.group_label(body.group_id)
        ad_id = body.ad_id
        if ad_id is None:
            return Decision(f"write an ad of {name}", lambda c: add_ads(c, [(body.group_id, ad)]))
        return Decision(f"rewrite an ad of {name}", lambda c: rewrite_ads(c, {ad_id: ad}))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/ads/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: AdIds, work: Work, window: Window = "") -> Response:
    """Take ads out of the plan."""
    made = Decision(f"remove {counted(len(body.ids), 'ad')}", lambda c: remove_ads(c, body.ids))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/ads/draft", responses=shape_of(ChangeAnswer))
def draft(plan_id: int, body: AdsDrafted, work: Work, window: Window = "") -> Response:
    """Write a first draft for groups; for all with kept keywords and no ad where none is named."""

    def decide(plan: OpenPlan) -> Decision:
        ids = body.group_ids or plan.written.without
        if not ids:
            raise NothingUsableError("Every group with kept keywords has an ad.", "groups")
        facts = [plan.written.facts[plan.group_number(i)].to_draft() for i in ids]
        made = first_drafts(facts, plan.written.profile, [one.ad for one in plan.record.ads])
        label = f"draft {counted(len(made), 'ad')}"
        return Decision(label, lambda c: add_ads(c, list(zip(ids, made, strict=True))))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/ads/copy", responses=shape_of(ChangeAnswer))
def copy(plan_id: int, body: AdCopy, work: Work, window: Window = "") -> Response:
    """Copy an ad to other groups, the words of its group exchanged for theirs."""

    def decide(plan: OpenPlan) -> Decision:
        one = of_plan(plan, body.ad_id)
        made = [(group_id, _exchanged(plan, one, group_id)) for group_id in body.group_ids]
        label = f"copy an ad to {counted(len(made), 'group')}"
        return Decision(label, lambda c: add_ads(c, made))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/ads/replace/look", responses=shape_of(ReplacementView))
def look_at_replacing(plan_id: int, body: Replacement, work: Work) -> Response:
    """Say what a replacement in all ads would change; nothing is kept."""
    plan = work.plan(plan_id)
    made = _replaced(plan, body)
    fields = [
        {"ad_id": one.id, "group": plan.group_label(one.group_id), "field": name,
         "before": before, "after": after}
        for one in plan.record.ads
        if one.id in made
        for name, before, after in _differences(one.ad, made[one.id])
    ]  # fmt: skip
    return sent({"revision": plan.record.revision, "fields": fields, "ads": len(made)})


@router.post("/plans/{plan_id}/arrange/ads/replace", responses=shape_of(ChangeAnswer))
def replace(plan_id: int, body: Replacement, work: Work, window: Window = "") -> Response:
    """Replace a text in every field of every ad."""

    def decide(plan: OpenPlan) -> Decision:
        made = _replaced(plan, body)
        if not made:
            raise NothingUsableError(f"No ad says “{body.search}”.", "search")
        label = f"replace “{body.search}” in {counted(len(made), 'ad')}"
        return Decision(label, lambda c: rewrite_ads(c, made))

    return sent(work.change(plan_id, decide, window=window))


@router.get(
    "/plans/{plan_id}/arrange/ads.csv",
    response_class=Response, responses=download_of("text/csv; charset=utf-8"),
)  # fmt: skip
def as_file(
    plan_id: int, work: Work, form: Literal["written", "appearing"] = "written"
) -> Response:
    """Return all ads as a table: as written, to come back, or as they will appear."""
    plan = work.plan(plan_id)
    rows = []
    for one in plan.record.ads:
        group = plan.sheet.structure.group(one.group_id)
        ad = one.ad if form == "written" else _written_out(plan, one)
        campaign = plan.sheet.structure.campaign(group.campaign_id).name
        rows.append(AdRow(campaign, group.name, one.key, ad))
    content = ads_csv(rows, plan.written.profile.headlines, plan.written.profile.descriptions)
    return attached(content, "text/csv; charset=utf-8", f"{plan.record.name} ads.csv")


@router.post("/plans/{plan_id}/arrange/ads/file", responses=shape_of(AdsFile))
def read_file(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Read a table of ads: what would become of each row; nothing is kept."""
    plan = work.plan(plan_id)
    name = (file.filename or "ads")[:200]
    table = work.reader.table(file.file.read(MAX_BYTES + 1), name)
    rows, refused = read_ads_table(table, name)
    known = {one.key: one for one in plan.record.ads}
    items = [AdFileRow(**_found(plan, row, known)) for row in rows]
    items += [AdFileRow(row=no.row, refused=f"{no.column}: {no.why}") for no in refused]
    items.sort(key=lambda item: item.row)
    found = [item.model_dump() for item in items]
    return sent({"revision": plan.record.revision, "name": name, "rows": found})


@router.post("/plans/{plan_id}/arrange/ads/bring", responses=shape_of(ChangeAnswer))
def bring(plan_id: int, body: AdsBrought, work: Work, window: Window = "") -> Response:
    """Take rows of a file in: ads written anew, and new ones."""
    rows = [row for row in body.rows if not row.refused]

    def decide(plan: OpenPlan) -> Decision:
        if not rows:
            raise NothingUsableError("No row of the file can be taken in.", "rows")

        def do(change: Change) -> None:
            rewrite_ads(change, {row.ad_id: _ad(row) for row in rows if row.ad_id is not None})
            new = [(row.group_id or 0, _ad(row)) for row in rows if row.ad_id is None]
            add_ads(change, new)

        return Decision(f"bring in {counted(len(rows), 'ad')}", do)

    return sent(work.change(plan_id, decide, window=window))


def of_plan(plan: OpenPlan, ad_id: int) -> StoredAd:
    """Return an ad of the plan.

    Raises
    ------
    NotFoundError
    """
    for one in plan.record.ads:
        if one.id == ad_id:
            return one
    raise NotFoundError(f"There is no ad {ad_id} in this plan.", "ad")


def _look(
    plan: OpenPlan, group_id: int, ad: Ad, faults: Sequence[AdFault], rivals: RivalAds
) -> dict[str, Any]:
    facts = plan.written.facts[plan.group_number(group_id)]
    brief, fillings = plan.record.brief, facts.fillings
    lines = lines_of(ad, fillings, facts.words, brief.places, rivals, plan.written.lexicon)

    def fields(kind: str, texts: Sequence[str]) -> list[dict[str, Any]]:
        return [
            {"name": f"{kind} {at}", "shown": written_out(text, fillings),
             "characters": characters(text, fillings), "most": limit_of(kind, plan.written.profile)}
            for at, text in enumerate(texts, start=1)
        ]  # fmt: skip

    return {
        "headlines": fields("headline", ad.headlines),
        "descriptions": fields("description", ad.descriptions),
        "faults": [{"kind": f.kind, "field": f.field, "says": f.says, "must": f.must}
                   for f in faults],
        "lines": [{"kind": n.kind, "said": n.said, "says": n.says, "mend": n.mend}
                  for n in lines],
    }  # fmt: skip


def _exchanged(plan: OpenPlan, one: StoredAd, group_id: int) -> Ad:
    ours = plan.written.facts[plan.group_number(one.group_id)]
    theirs = plan.written.facts[plan.group_number(group_id)]
    pairs = words_between([w.word for w in ours.words], [w.word for w in theirs.words])
    plurals = plurals_of(theirs.keywords)
    return in_every_field(one.ad, lambda text: exchanged(text, pairs, plurals))


def _replaced(plan: OpenPlan, body: Replacement) -> dict[int, Ad]:
    made = {
        one.id: in_every_field(one.ad, lambda text: replaced(text, body.search, body.by))
        for one in plan.record.ads
    }
    return {one.id: made[one.id] for one in plan.record.ads if made[one.id] != one.ad}


def _differences(before: Ad, after: Ad) -> list[tuple[str, str, str]]:
    return [
        (f"{kind} {at}", old, new)
        for kind, olds, news in (
            ("headline", before.headlines, after.headlines),
            ("description", before.descriptions, after.descriptions),
        )
        for at, (old, new) in enumerate(zip(olds, news, strict=True), start=1)
        if old != new
    ]


def _written_out(plan: OpenPlan, one: StoredAd) -> Ad:
    fillings = plan.written.facts[plan.group_number(one.group_id)].fillings
    return in_every_field(one.ad, lambda text: written_out(text, fillings))


def _found(plan: OpenPlan, row: AdRow, known: Mapping[str, StoredAd]) -> dict[str, Any]:
    """Say which ad a row writes anew, or which group gets a new one."""
    item: dict[str, Any] = {"row": row.row, "headlines": list(row.ad.headlines),
                            "descriptions": list(row.ad.descriptions)}  # fmt: skip
    there = known.get(row.ref)
    if there is not None:
        return item | {"ad_id": there.id, "group_id": there.group_id,
                       "group": plan.group_label(there.group_id),
                       "same": there.ad == row.ad}  # fmt: skip
    structure = plan.sheet.structure
    campaigns = {c.id: c.name for c in structure.campaigns}
    named = [g for g in structure.groups
             if g.name == row.group and row.campaign in ("", campaigns[g.campaign_id])]  # fmt: skip
    if len(named) == 1:
        same = any(one.ad == row.ad for one in ads_by_group(known.values()).get(named[0].id, ()))
        return item | {"group_id": named[0].id, "group": plan.group_label(named[0].id),
                       "same": same}  # fmt: skip
    expected = "the campaign too: several groups" if named else "a group of the plan: none"
    where = f" in {row.campaign}" if row.campaign else ""
    refused = f'expected {expected} is called "{row.group[:80]}"{where}'
    return item | {"group": row.group, "refused": refused}


def _ad(row: AdFileRow | AdFields) -> Ad:
    return Ad(tuple(row.headlines), tuple(row.descriptions))
