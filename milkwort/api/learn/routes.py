"""The Learn stage: results in, what they teach, decisions, and a month closed."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile
from sqlalchemy.orm import Session

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Window, Work, sent
from milkwort.api.learn.around import around_of
from milkwort.api.learn.closing import (
    corrected_figures,
    next_month,
    stops_of,
    teach,
    term_work,
)
from milkwort.api.learn.history import history_of
from milkwort.api.learn.known import (
    Known,
    arriving_of,
    hand_count,
    known_of,
    results_in_force,
    site_count,
)
from milkwort.api.learn.month_schemas import History, OurWord
from milkwort.api.learn.noticed import said_of_all, said_of_arriving
from milkwort.api.learn.schemas import (
    AsideRequest,
    BidActs,
    Closed,
    CloseRequest,
    HandCount,
    ImportForce,
    KeywordActs,
    LearnView,
    Reopened,
    ResultsTaken,
    SiteCount,
    TermActs,
)
from milkwort.api.learn.view import learn_view, undecided
from milkwort.api.learn.waiting import about_of
from milkwort.api.learn.word import so_far_item, word_item, words_of_plan
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.workspace import Decision, Workspace
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.formats.result_rows import ResultFile, read_result_rows
from milkwort.formats.text_table import MAX_BYTES, read_text_table
from milkwort.platforms.platform import OpenAccount
from milkwort.store.closed import close_plan, closed_as, reopen_plan
from milkwort.store.journal import Change
from milkwort.store.keywords import lock_bids, set_calls
from milkwort.store.models import Plan, ResultImport
from milkwort.store.plans import change_brief
from milkwort.store.practice import practice_of
from milkwort.store.results import (
    Arriving,
    add_import,
    check_room,
    columns_of,
    imports_of,
    put_in_force,
    result_import,
    same_import,
)
from milkwort.store.set_aside import bring_back, set_aside
from milkwort.store.versions import add_version, family_of

router = APIRouter(tags=["learn"])

_LEVELS_TAKEN = ("keyword", "term")


@router.get("/plans/{plan_id}/learn", responses=shape_of(LearnView))
def view(plan_id: int, work: Work) -> Response:
    """Return what the results in force teach about a plan."""
    plan = work.plan(plan_id)
    known = known_of(work, plan)
    with work.database.read() as session:
        around = around_of(session, plan, _label_of(session, plan.record.closed_as))
    _, in_force = results_in_force(work, plan.record.client_id)
    return sent(learn_view(plan, known, around) | {"notices": said_of_all(in_force)})


@router.get("/plans/{plan_id}/learn/word", responses=shape_of(OurWord))
def our_word(plan_id: int, work: Work) -> Response:
    """Return what was promised of each month that is seen, and whether it held."""
    found = words_of_plan(work, plan_id)
    return sent({
        "revision": work.plan(plan_id).record.revision,
        "months": [word_item(one) for one in found.months],
        "so_far": so_far_item(found.so_far), "purse": found.purse,
    })  # fmt: skip


@router.get("/plans/{plan_id}/learn/history", responses=shape_of(History))
def history(plan_id: int, work: Work) -> Response:
    """Return the months so far: what each brought, what was changed for it, what that did."""
    plan = work.plan(plan_id)
    return sent({"revision": plan.record.revision, "months": history_of(work, plan)})


@router.post("/plans/{plan_id}/learn/aside", responses=shape_of(ChangeAnswer))
def leave(plan_id: int, body: AsideRequest, work: Work, window: Window = "") -> Response:
    """Set suggestions aside: for good, until later results, or back into the queue."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        some = {about_of(plan, one.kind, one.key): one.suggestion for one in body.items}
        many = counted(len(some), "suggestion")
        if body.until == "now":
            return Decision(f"ask about {many} again", lambda change: bring_back(change, some))
        as_of = None if known.learned is None else known.learned.as_of.isoformat()
        until = as_of if body.until == "later" else None
        return Decision(f"set {many} aside", lambda change: set_aside(change, some, until))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/bids", responses=shape_of(ChangeAnswer))
def bid_to_be_shown(plan_id: int, body: BidActs, work: Work, window: Window = "") -> Response:
    """Bid what hardly shown keywords need to be shown, and lock it."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        rows = plan.sheet.rows_of(body.ids)
        needed = {} if known.learned is None else dict(
            zip(known.learned.hardly.row.tolist(), known.learned.hardly.next_bid.tolist(),
                strict=True))  # fmt: skip
        missing = [row for row in rows if row not in needed]
        if missing:
            raise BadValueError("keywords", "keywords that are hardly shown",
                                plan.sheet.entries[missing[0]].text)  # fmt: skip
        bids = {i: needed[row] for i, row in zip(body.ids, rows, strict=True)}
        return Decision(f"bid for {counted(len(bids), 'keyword')} what is shown",
                        lambda change: lock_bids(change, bids))  # fmt: skip

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/counted", responses=shape_of(ChangeAnswer))
def counted_by_hand(plan_id: int, body: HandCount, work: Work, window: Window = "") -> Response:
    """Count customers by hand or telephone: a campaign's, of a window; a later count replaces."""

    def decide(plan: OpenPlan) -> Decision:
        keys = {"": ""} | {c.name: c.key for c in plan.sheet.structure.campaigns}
        if body.campaign not in keys:
            raise NotFoundError(f'There is no campaign "{body.campaign[:80]}".', "campaign")
        key = keys[body.campaign]
        arriving = hand_count(
            body.campaign, key, body.since, body.until, body.customers, body.value
        )
        client = plan.record.client_id
        with work.database.begin() as session:
            same = _same_days(session, client, arriving)
            refs = [columns_of(result_import(session, client, one.id))["ref"] for one in same]
            # counts of before campaigns were known by their keys name them
            before = [
                one.id
                for one, ref in zip(same, refs, strict=True)
                if (key and ref == [key]) or (ref == [""] and one.source == arriving.source)
            ]
            new = [add_import(session, client, plan_id, arriving, freed=len(before))]

        def do(change: Change) -> None:
            put_in_force(change, before, False)
            put_in_force(change, new, True)

        return Decision("count customers by hand", do)

    return sent(work.change(plan_id, decide, window=window, of_client=True))


@router.post("/plans/{plan_id}/learn/site", responses=shape_of(ChangeAnswer))
def site_counted(plan_id: int, body: SiteCount, work: Work, window: Window = "") -> Response:
    """Say what the whole site saw in a window; a later count of the same days replaces."""

    def decide(plan: OpenPlan) -> Decision:
        arriving = site_count(body.since, body.until, body.visits, body.unpaid)
        client = plan.record.client_id
        with work.database.begin() as session:
            before = [one.id for one in _same_days(session, client, arriving)]
            new = [add_import(session, client, plan_id, arriving, freed=len(before))]

        def do(change: Change) -> None:
            put_in_force(change, before, False)
            put_in_force(change, new, True)

        return Decision("count the whole site", do)

    return sent(work.change(plan_id, decide, window=window, of_client=True))


def _same_days(session: Session, client: int, arriving: Arriving) -> list[ResultImport]:
    """Return counts of the same kind and days, also those that said as many."""
    days = (arriving.since.isoformat(), arriving.until.isoformat())
    return [one for one in imports_of(session, client) if one.in_force
            and one.level == arriving.level and (one.since, one.until) == days]  # fmt: skip


@router.post("/plans/{plan_id}/results", responses=shape_of(ResultsTaken))
def bring_in(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = "",
    job: Job = "",
) -> Response:  # fmt: skip
    """Bring results in, out of a file; they are in force from then on."""
    name = file.filename or "results"
    data = file.file.read(MAX_BYTES + 1)
    with work.jobs.under_way(plan_id, job) as progress:
        table = work.reader.table(data, name)
        rows = len(table.rows)
        read = read_result_rows(table, name, progress=lambda n: progress("reading", n, rows))
    return sent(_taken(work, plan_id, [(read, name, None)], window))


@router.post("/plans/{plan_id}/results/practice", responses=shape_of(ResultsTaken))
def from_practice(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the results of the practice market over, by keyword and by term."""
    with work.database.read() as session:
        practice = practice_of(session, plan_id)
    if practice is None:
        raise NotFoundError("No practice account is open for this plan.", "practice")
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        today = platform.clock(account).today
        files: list[tuple[ResultFile, str, date | None]] = []
        for level in _LEVELS_TAKEN:
            table = platform.results(account, level, None, None)
            if not table.rows:
                raise BadValueError("results", "days that have passed", "none")
            text = "\n".join(_line(row) for row in (table.heads, *table.rows))
            name = f"practice market {account.id}, by {level}"
            files.append((read_result_rows(read_text_table(text, name), name), name, today))
    return sent(_taken(work, plan_id, files, window))


@router.post("/plans/{plan_id}/results/{import_id}/force", responses=shape_of(ChangeAnswer))
def force(
    plan_id: int, import_id: int, body: ImportForce, work: Work, window: Window = ""
) -> Response:
    """Say whether an import counts."""

    def decide(plan: OpenPlan) -> Decision:
        with work.database.read() as session:
            found = result_import(session, plan.record.client_id, import_id)
            label = f"{'count' if body.in_force else 'leave out'} {found.source}"
            if body.in_force and not found.in_force:
                check_room(session, plan.record.client_id, found.rows)
        return Decision(label, lambda change: put_in_force(change, [import_id], body.in_force))

    return sent(work.change(plan_id, decide, window=window, of_client=True))


@router.post("/plans/{plan_id}/learn/terms", responses=shape_of(ChangeAnswer))
def decide_terms(plan_id: int, body: TermActs, work: Work, window: Window = "") -> Response:
    """Block terms, or make them keywords: as suggested, or as said."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        places = _places_of(known, body.terms)
        done = term_work(plan, known, places, body.act)
        if not done.blocks and not done.added:
            raise BadValueError("terms", "something to be done that is not done yet", "nothing")
        parts = [counted(len(done.blocks), "negative")] if done.blocks else []
        parts += [counted(done.added, "keyword")] if done.added else []
        return Decision(f"add {' and '.join(parts)} from terms", done.do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/keywords", responses=shape_of(ChangeAnswer))
def stop_keywords(plan_id: int, body: KeywordActs, work: Work, window: Window = "") -> Response:
    """Stop keywords: they are dropped, and the results are the reason."""

    def decide(plan: OpenPlan) -> Decision:
        plan.sheet.rows_of(body.ids)
        label = f"stop {counted(len(body.ids), 'keyword')}"
        return Decision(
            label, lambda change: set_calls(change, body.ids, "drop", "results", "results")
        )

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/close", status_code=201, responses=shape_of(Closed, 201))
def close(plan_id: int, body: CloseRequest, work: Work) -> Response:
    """Close the month: the next one as a version, with what was learnt; this one stays."""
    known_of(work, work.plan(plan_id))  # worked out before anything is held
    label = ""
    counts = {"corrected": 0, "stopped": 0, "blocked": 0, "added": 0}

    def write(session: Session) -> int:
        nonlocal label
        # the plan's own: a version has its rows in the same order, and counts other days
        known = known_of(work, work.plan(plan_id))
        learned = known.learned
        if learned is None:
            raise BadValueError("results", "results by keyword", "none")
        start = next_month(learned.last)
        label = _free(session, plan_id, body.label.strip() or f"{start:%B %Y}")
        reason = f"what {learned.first} to {learned.last} taught"
        made = add_version(session, plan_id, label, reason)
        version = work.try_to_open(session, made)
        change = Change(session, made, f"close {learned.last:%B %Y}")
        if body.terms:
            done = term_work(version, known, undecided(version, known), "suggested")
            done.do(change)
            counts["blocked"], counts["added"] = len(done.blocks), done.added
        if body.figures:
            counts["corrected"] = corrected_figures(version, known, change)
        if body.figures or body.ranges:
            teach(change, version, known, figures=body.figures, ranges=body.ranges)
        if body.stops:
            stops = stops_of(version, known)
            set_calls(change, stops, "drop", "results", "results")
            counts["stopped"] = len(stops)
        change_brief(change, {"start_date": start.isoformat()})
        change.finish()
        close_plan(session, plan_id, made)
        return made

    made = work.settle([plan_id], write)
    work.plan(made)
    answer = sent({"id": made, "label": label, **counts})
    answer.status_code = 201
    return answer


@router.post("/plans/{plan_id}/learn/reopen", responses=shape_of(Reopened))
def reopen(plan_id: int, work: Work) -> Response:
    """Open a closed month again; its next month goes while nothing was done in it."""
    with work.database.read() as session:
        made = closed_as(session, plan_id)
        label = _label_of(session, made)
    if made is None:
        raise BadValueError("plan", "a month that is closed", "one that is open")
    removed = work.settle([plan_id, made], lambda session: reopen_plan(session, plan_id, made))
    work.learnt.drop(made)  # the month before ran at other bids from now on
    return sent({"removed": removed, "id": made, "label": label or ""})


def _label_of(session: Session, plan_id: int | None) -> str | None:
    """Return what a version is called; None where there is none, or it is deleted."""
    plan = None if plan_id is None else session.get(Plan, plan_id)
    return None if plan is None or plan.deleted_at is not None else plan.label


def _free(session: Session, plan_id: int, label: str) -> str:
    """Return a name that no version has, with a number where it is taken."""
    taken = {one.label.casefold() for one in family_of(session, plan_id)}
    free, number = label, 2
    while free.casefold() in taken:
        free, number = f"{label}, {number}", number + 1
    return free


def _taken(
    work: Workspace, plan_id: int, files: list[tuple[ResultFile, str, date | None]], window: str
) -> dict[str, Any]:
    """Keep results, and put them in force as one change that can be undone."""
    arriving: list[Arriving] = [arriving_of(*one) for one in files]
    # what is taken over from an account holds all its days, and so all that was taken before
    whole = {name for _, name, as_of in files if as_of is not None}

    def decide(plan: OpenPlan) -> Decision:
        client, new = plan.record.client_id, []
        with work.database.begin() as session:
            before = [one.id for one in imports_of(session, client)
                      if one.in_force and one.source in whole]  # fmt: skip
            freed = [result_import(session, client, one).rows for one in before]
            for one in arriving:
                if same_import(session, client, one) is None:
                    new.append(add_import(session, client, plan_id, one, freed=sum(freed)))

        def do(change: Change) -> None:
            put_in_force(change, before, False)
            put_in_force(change, new, True)

        return Decision(f"take in {files[0][1]}", do)

    client = work.plan(plan_id).record.client_id
    _, before_all = results_in_force(work, client)
    with work.database.read() as session:
        same = all(same_import(session, client, one) is not None for one in arriving)
    summary = work.plan(plan_id).summary
    plan = work.plan(plan_id)
    notices = [said for file, _, _ in files for said in said_of_arriving(plan, file, before_all)]
    if not same:
        work.change(plan_id, decide, window=window, of_client=True)
        summary = work.plan(plan_id).summary
    refused = [one.as_dict() for file, _, _ in files for one in file.refused]
    return {
        "taken": 0 if same else sum(len(file) for file, _, _ in files), "same": same,
        "level": " and ".join(file.level for file, _, _ in files), "refused": refused[:200],
        "notices": [] if same else notices, "summary": summary,
    }  # fmt: skip


def _places_of(known: Known, terms: list[str]) -> list[int]:
    if known.terms is None:
        raise BadValueError("terms", "results by term", "none")
    place: dict[str, list[int]] = {}
    for at, text in enumerate(known.terms.texts):
        place.setdefault(text, []).append(at)
    unknown = next((text for text in terms if text not in place), None)
    if unknown is not None:
        raise NotFoundError(f'There is no term "{unknown[:80]}" in the results.', "terms")
    return [at for text in dict.fromkeys(terms) for at in place[text]]


def _line(cells: Any) -> str:
    return ",".join('"' + str(cell).replace('"', '""') + '"' for cell in cells)
