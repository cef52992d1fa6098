"""The client's sheet of a plan: seen as it will be printed, taken away as a file."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime
from typing import Annotated, Any, Literal

from fastapi import APIRouter, File, Query, Response, UploadFile

from milkwort.api.fit.versions import Others, family_plans
from milkwort.api.fit.year import sum_of, year_of
from milkwort.api.handover.schemas import StyleFrom
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, attached, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.ads.text import written_out
from milkwort.core.errors import StoppedError
from milkwort.core.handover.report.shape import ForReport, Options, Other, Report
from milkwort.core.handover.report.sheet import report_of
from milkwort.core.handover.report.words import spoken
from milkwort.core.handover.rhythm import reviews_of
from milkwort.core.handover.said import NumberStyle
from milkwort.core.plan.draws import Draws
from milkwort.core.words.texts import normalise
from milkwort.formats.report_files import (
    MAX_LOGO,
    Logo,
    Paper,
    checked_logo,
    logo_of,
    logo_said,
    report_file,
)
from milkwort.formats.rhythm_ics import rhythm_ics
from milkwort.store.journal import Change
from milkwort.store.own_ways import set_own
from milkwort.store.report_logos import put_logo, report_logo

__all__ = [
    "TYPES", "file_of", "options_of", "page_of", "report_for", "router", "style_of",
    "written_report",
]  # fmt: skip

router = APIRouter(tags=["hand over"])

TYPES = {
    "html": "text/html; charset=utf-8",
    "pdf": "application/pdf",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "csv": "text/csv; charset=utf-8",
}
ALONE = {
    "Cache-Control": "no-store",
    "Content-Security-Policy": (
        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox; "
        "frame-ancestors 'self'"
    ),
}
"""A page that shows itself and does nothing."""


@router.get(
    "/plans/{plan_id}/report.html",
    response_class=Response,
    responses={200: {"content": {"text/html": {"schema": {"type": "string"}}}}},
)
def preview(plan_id: int, work: Work, others: Others = []) -> Response:  # noqa: B006 -- read only
    """Return the client's sheet as it will be printed, to be looked at."""
    plan, report = _made(work, plan_id, others)
    return page_of(work, plan, report)


@router.get(
    "/plans/{plan_id}/report/{kind}",
    response_class=Response,
    responses=download_of(*TYPES.values()),
)
def take(
    plan_id: int,
    kind: Literal["html", "pdf", "xlsx", "csv"],
    work: Work,
    others: Others = [],  # noqa: B006 -- read only
    paper: Paper | None = Query(default=None),
) -> Response:
    """Return the client's sheet as a file."""
    plan, report = _made(work, plan_id, others)
    return file_of(work, plan, report, kind, paper)


def page_of(work: Workspace, plan: OpenPlan, report: Report) -> Response:
    """Return a report as a page of its own, to be looked at."""
    content = report_file("html", report, logo=logo_of_plan(work, plan),
                          language=spoken(style_of(plan)["language"]))  # fmt: skip
    return Response(content, media_type=TYPES["html"], headers=ALONE)


def file_of(
    work: Workspace, plan: OpenPlan, report: Report, kind: str, paper: Paper | None, of: str = ""
) -> Response:
    """Return a report as a file, named by the plan, what it is of, and today."""
    style = style_of(plan)
    logo, language = logo_of_plan(work, plan), spoken(style["language"])
    content = report_file(kind, report, paper=paper or style["paper"], logo=logo, language=language)
    stem = normalise(plan.record.name).replace(" ", "-")[:60] or "plan"
    return attached(content, TYPES[kind], f"{stem}{of}-{date.today().isoformat()}.{kind}")


@router.post("/plans/{plan_id}/report/logo", responses=shape_of(ChangeAnswer))
def set_logo(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = ""
) -> Response:
    """Put a picture into the letter-head: PNG or SVG, up to 1 MB."""
    said = logo_said(checked_logo(file.file.read(MAX_LOGO + 1)))
    made = Decision("the logo of the client’s sheet", lambda c: put_logo(c, said))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/report/style", responses=shape_of(ChangeAnswer))
def style_from(plan_id: int, body: StyleFrom, work: Work, window: Window = "") -> Response:
    """Take over how another plan's sheet is written, logo and all; the note stays."""
    other = work.plan(body.of)
    logo = None
    with work.database.read() as session:
        logo = report_logo(session, body.of)

    def decide(plan: OpenPlan) -> Decision:
        style = {**style_of(other), "note": style_of(plan)["note"]}

        def do(change: Change) -> None:
            set_own(change, {"report_style": style})
            put_logo(change, logo)

        return Decision(f"the client’s sheet as {other.record.name} has it", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/report/logo/remove", responses=shape_of(ChangeAnswer))
def remove_logo(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the picture out of the letter-head."""
    made = Decision("take the logo away", lambda c: put_logo(c, None))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.get(
    "/plans/{plan_id}/rhythm.ics",
    response_class=Response,
    responses=download_of("text/calendar"),
)
def rhythm(plan_id: int, work: Work) -> Response:
    """Return when the running plan is looked at, as a calendar."""
    plan = work.plan(plan_id)
    last = plan.record.values["last_day"]
    first = date.fromisoformat(str(plan.record.values["start_date"]))
    found = reviews_of(first, date.fromisoformat(last) if last else None)
    name = plan.record.name
    content = rhythm_ics(name, f"plan-{plan_id}", found, datetime.now(UTC))
    return attached(content, "text/calendar", f"{normalise(name).replace(' ', '-')[:60]}.ics")


def logo_of_plan(work: Workspace, plan: OpenPlan) -> Logo | None:
    """Return the picture of a plan's letter-head."""
    with work.database.read() as session:
        return logo_of(report_logo(session, plan.record.id))


def _made(work: Workspace, plan_id: int, others: Sequence[int]) -> tuple[OpenPlan, Report]:
    plans = family_plans(work, plan_id, others)
    drawn = []
    for plan in plans:
        found = work.drawing.drawn(plan.record.id)
        if found is None:
            raise StoppedError("The plan changed while its sheet was made; ask again.", "plan")
        drawn.append(found.draws)
    beside = list(zip(plans[1:], drawn[1:], strict=True))
    return plans[0], report_for(plans[0], drawn[0], options_of(plans[0]), beside)


def style_of(plan: OpenPlan) -> dict[str, Any]:
    """Return how a plan's sheets are written."""
    return plan.record.own.report_style


def options_of(plan: OpenPlan) -> Options:
    """Return what a plan's own style chooses of its sheet."""
    style = style_of(plan)
    marks = style["marks"]
    chosen = {name: style[name] for name in ("sections", "columns", "short", "language", "note")}
    return Options(
        **chosen,
        letterhead=tuple(style["letterhead"]),
        style=NumberStyle(
            currency=plan.record.brief.currency, thousands=marks[1], decimal=marks[5],
            sign_first=style["sign_first"],
        ),
    )  # fmt: skip


def report_for(
    plan: OpenPlan,
    draws: Draws,
    options: Options,
    beside: Sequence[tuple[OpenPlan, Draws]] = (),
) -> Report:
    """Return the client's sheet of a plan, with some of its versions beside it."""
    ahead = year_of(plan)
    purse = plan.record.brief.monthly_spend
    gross = sum_of(plan, purse)
    structure = plan.sheet.structure
    number = {g.id: at for at, g in enumerate(structure.groups)}
    ads = []
    for one in plan.record.ads:
        at = number[one.group_id]
        fillings = plan.written.facts[at].fillings
        lines = [written_out(text, fillings) for text in (*one.ad.headlines, *one.ad.descriptions)]
        ads.append((plan.sheet.labels[at], lines))
    return report_of(
        ForReport(
            result=plan.result,
            name=plan.record.name,
            texts=[entry.text for entry in plan.sheet.entries],
            groups=plan.sheet.labels,
            draws=draws,
            year=ahead.sums(),
            first_day=ahead.months.first[0],
            today=date.today(),
            gross=gross if abs(gross - purse) >= 0.01 else None,
            ads=ads,
            values=plan.record.values,
            not_entered=plan.record.not_entered,
            label=plan.record.label,
            others=[Other(one.record.label, one.result, drawn) for one, drawn in beside],
        ),
        options,
    )


def written_report(
    plan: OpenPlan, draws: Draws, kind: str, paper: Paper, logo: Logo | None
) -> bytes:
    """Return the client's sheet as a file, outside of a server."""
    return report_file(kind, report_for(plan, draws, options_of(plan)), paper=paper, logo=logo)
