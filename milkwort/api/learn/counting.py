"""What somebody counted: customers by hand or telephone, what the whole site saw.

Every day of a campaign is counted once: a count takes the place of those whose days it holds,
and one that meets another only in part is refused.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from fastapi import APIRouter, Response
from sqlalchemy.orm import Session

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.learn.arriving import BY_HAND, SITE, hand_count, site_count
from milkwort.api.learn.schemas import HandCount, SiteCount
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store.journal import Change
from milkwort.store.models import ResultImport
from milkwort.store.results import (
    Arriving,
    add_imports,
    columns_of,
    imports_of,
    put_in_force,
    result_import,
)

__all__ = ["check_days", "router"]

router = APIRouter(tags=["learn"])

_COUNTED = (BY_HAND, SITE)
_SAID = ("visits", "unpaid")


@router.post("/plans/{plan_id}/learn/counted", responses=shape_of(ChangeAnswer))
def counted_by_hand(plan_id: int, body: HandCount, work: Work, window: Window = "") -> Response:
    """Count customers by hand or telephone: a campaign's, of a window."""

    def decide(plan: OpenPlan) -> Decision:
        keys = {"": ""} | {c.name: c.key for c in plan.sheet.structure.campaigns}
        if body.campaign not in keys:
            raise NotFoundError(f'There is no campaign "{body.campaign[:80]}".', "campaign")
        arriving = hand_count(
            body.campaign, keys[body.campaign], body.since, body.until, body.customers, body.value
        )
        with work.database.begin() as session:
            before = _replaced(session, plan.record.client_id, arriving)
            return _counting(session, plan, arriving, before, "count customers by hand")

    return sent(work.change(plan_id, decide, window=window, of_client=True))


@router.post("/plans/{plan_id}/learn/site", responses=shape_of(ChangeAnswer))
def site_counted(plan_id: int, body: SiteCount, work: Work, window: Window = "") -> Response:
    """Say what the whole site saw in a window; what isn't said stays as it was said before."""

    def decide(plan: OpenPlan) -> Decision:
        arriving = site_count(body.since, body.until, body.visits, body.unpaid)
        with work.database.begin() as session:
            before = _replaced(session, plan.record.client_id, arriving)
            said = _said_before(session, arriving, before)
            return _counting(session, plan, said, before, "count the whole site")

    return sent(work.change(plan_id, decide, window=window, of_client=True))


def check_days(session: Session, found: ResultImport) -> None:
    """See that a count that is to be in force again meets no other.

    Raises
    ------
    BadValueError
        Where some of its days are counted.
    """
    if found.level not in _COUNTED:
        return
    for one in _meeting(session, found.client_id, found.level, _owner(session, found),
                        found.since, found.until):  # fmt: skip
        raise _refused(one, found.since, found.until)


def _counting(
    session: Session, plan: OpenPlan, arriving: Arriving, before: Sequence[int], label: str
) -> Decision:
    record = plan.record
    new = add_imports(session, record.client_id, record.id, [arriving], freed=len(before))

    def do(change: Change) -> None:
        put_in_force(change, before, False)
        put_in_force(change, new, True)

    return Decision(label, do)


def _replaced(session: Session, client_id: int, arriving: Arriving) -> list[int]:
    """Return the counts whose days a new one holds.

    Raises
    ------
    BadValueError
        Where it meets another only in part.
    """
    since, until = arriving.since.isoformat(), arriving.until.isoformat()
    owner = _owner_of(arriving.columns["ref"], arriving.source)
    found = _meeting(session, client_id, arriving.level, owner, since, until)
    for one in found:
        if one.since < since or one.until > until:
            raise _refused(one, since, until)
    return [one.id for one in found]


def _meeting(
    session: Session, client_id: int, level: str, owner: tuple[str, str], since: str, until: str
) -> list[ResultImport]:
    """Return the counts in force of the same that have a day in common with a window."""
    return [one for one in imports_of(session, client_id)
            if one.in_force and one.level == level and one.since <= until and one.until >= since
            and _is_same(_owner(session, one), owner)]  # fmt: skip


def _owner(session: Session, found: ResultImport) -> tuple[str, str]:
    columns = columns_of(result_import(session, found.client_id, found.id))
    return _owner_of(columns["ref"], found.source)


def _owner_of(refs: Sequence[str], source: str) -> tuple[str, str]:
    """Return the campaign's key, and what a count is called.

    Counts of before campaigns were known by their keys are told by what they are called.
    """
    return refs[0], source


def _is_same(one: tuple[str, str], other: tuple[str, str]) -> bool:
    return one[0] == other[0] if one[0] and other[0] else one[1] == other[1]


def _said_before(session: Session, arriving: Arriving, before: Sequence[int]) -> Arriving:
    """Return a count with what the one of the very same days said and this one doesn't."""
    columns = dict(arriving.columns)
    for one in (session.get_one(ResultImport, number) for number in before):
        if (one.since, one.until) != (arriving.since.isoformat(), arriving.until.isoformat()):
            continue
        held = columns_of(result_import(session, one.client_id, one.id))
        columns |= {name: held[name] for name in _SAID if name not in columns and name in held}
    return replace(arriving, columns=columns)


def _refused(one: ResultImport, since: str, until: str) -> BadValueError:
    return BadValueError(
        "since",
        f"days that hold those counted already ({one.since} to {one.until}), or none of them; "
        "or leave that count out first",
        f"{since} to {until}",
    )
