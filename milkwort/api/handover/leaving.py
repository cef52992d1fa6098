"""A plan with all that is looked at before it leaves."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

from milkwort.api.arrange.group_pages import pages_of_groups
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange import conflicts as core_conflicts
from milkwort.core.arrange.crossed import CROSSED_KINDS, crossed
from milkwort.core.handover.checks import Leaving, LeavingCampaign, LeavingGroup
from milkwort.store.pages import StoredPage

__all__ = ["leaving_of"]


def leaving_of(
    plan: OpenPlan,
    pages: Sequence[StoredPage],
    sold: Sequence[str],
    read_at: Mapping[int, str],
    today: date,
) -> Leaving:
    """Return a plan as it is about to be handed over; `read_at` is by the keyword's id."""
    values, result = plan.record.values, plan.result
    last = values["last_day"]
    structure = plan.sheet.structure
    kept_in = [0] * len(structure.campaigns)
    for number in result.table.campaign[result.table.kept].tolist():
        if number >= 0:
            kept_in[number] += 1
    spots = {c.id: 0 for c in structure.campaigns}
    for spot in structure.spots:
        spots[spot.campaign_id] += 1
    return Leaving(
        result=result,
        texts=[entry.text for entry in plan.sheet.entries],
        profile=plan.written.profile,
        today=today,
        first_day=date.fromisoformat(str(values["start_date"])),
        last_day=date.fromisoformat(last) if last else None,
        groups=_groups(plan, pages),
        campaigns=[
            LeavingCampaign(c.name, kept, spots[c.id], c.first_day, c.last_day)
            for c, kept in zip(structure.campaigns, kept_in, strict=True)
        ],
        conflicts=_conflicts(plan, sold),
        notices=plan.summary["purse"]["notices"],
        not_entered=plan.record.not_entered,
        read_at=[read_at.get(one, "") for one in plan.sheet.ids],
        stale_days=values["stale_days"],
        counted_by=values["counted_by"],
        visit_tag=values["visit_tag"],
        tell_weekend=values["tell_weekend"],
        holidays_of=values["holidays_of"],
    )


def _groups(plan: OpenPlan, pages: Sequence[StoredPage]) -> list[LeavingGroup]:
    structure, table = plan.sheet.structure, plan.sheet.table
    kept = [0] * len(structure.groups)
    for number in table.group[table.kept].tolist():
        if number >= 0:
            kept[number] += 1
    ads: dict[int, int] = {}
    faults: dict[int, list[str]] = {}
    for one in plan.record.ads:
        ads[one.group_id] = ads.get(one.group_id, 0) + 1
        refused = [
            f"{fault.field}: {fault.says}".removeprefix(": ")
            for fault in plan.written.faults[one.id]
            if fault.must
        ]
        faults.setdefault(one.group_id, []).extend(refused)
    found = []
    for at, (group, page) in enumerate(
        zip(structure.groups, pages_of_groups(plan, pages), strict=True)
    ):
        unsaid = page.words.missing if page.words is not None else ()
        found.append(LeavingGroup(
            name=plan.sheet.labels[at], kept=kept[at], ads=ads.get(group.id, 0),
            faults=tuple(faults.get(group.id, ())), address=page.address, unsaid=tuple(unsaid),
        ))  # fmt: skip
    return found


def _conflicts(plan: OpenPlan, sold: Sequence[str]) -> list[tuple[str, str]]:
    found = []
    blocks_twins = [group.blocks_twins for group in plan.sheet.structure.groups]
    for c in core_conflicts.conflicts_of(plan.result, sold, blocks_twins):
        named = ", ".join(plan.sheet.entries[row].text for row in c.rows[:3])
        about = c.negative or named
        said = core_conflicts.CONFLICT_KINDS[c.kind]
        found.append((f"{about}: {said}." if about else f"{said}.", "arrange"))
    for one in crossed(plan.result, blocks_twins):
        found.append((f"{plan.sheet.labels[one.group]}: {CROSSED_KINDS[one.kind]}.", "arrange"))
    return found
