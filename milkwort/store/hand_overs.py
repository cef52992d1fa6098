"""What was sent: each hand-over with its files, the plan and its forecast as they stood."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, Literal, get_args

import orjson
from sqlalchemy import func, select
from sqlalchemy.orm import Session, defer

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.handover.changed_rows import Row
from milkwort.store.journal import now
from milkwort.store.models import HandOver, HandOverFile, Plan

__all__ = [
    "Run",
    "Sending",
    "SentFile",
    "Status",
    "count_hand_overs",
    "files_of",
    "forecast_sent",
    "hand_over_counts",
    "last_sheets",
    "list_hand_overs",
    "runs_of",
    "send",
    "set_status",
    "sheets_of",
    "state_of",
    "thaw_file",
    "thawed",
]  # fmt: skip

Status = Literal["written", "running", "paused"]
_LONGEST_NOTE = 4000


@dataclass(frozen=True)
class SentFile:
    """A file to be sent: `kind` is ``csv``, ``xlsx``, ``json`` …"""

    kind: str
    filename: str
    rows: int
    content: bytes


@dataclass(frozen=True)
class Sending:
    """Everything a hand-over keeps.

    Attributes
    ----------
    revision : int
    label : str
        Of the version it is sent from.
    files : sequence of SentFile
    sheets : mapping of str to sequence of Row
        Rows by sheet, also of sheets that no file holds.
    state : bytes
        The plan's file.
    forecast : mapping of str to sequence
        What each keyword is expected to do, by column.
    points : sequence of str
        What is still open.
    note : str
    """

    revision: int
    label: str
    files: Sequence[SentFile]
    sheets: Mapping[str, Sequence[Row]]
    state: bytes
    forecast: Mapping[str, Any]
    points: Sequence[str] = ()
    note: str = ""


def send(session: Session, plan_id: int, sending: Sending) -> HandOver:
    """Keep what is handed over; it is never changed or undone."""
    made = HandOver(
        plan_id=plan_id,
        at=now(),
        revision=sending.revision,
        label=sending.label,
        status="written",
        note=_note(sending.note),
        points=list(sending.points),
        sheets=_packed(sending.sheets),
        state=zlib.compress(sending.state, 6),
        forecast=_packed(sending.forecast),
    )
    session.add(made)
    session.flush()
    for file in sending.files:
        session.add(HandOverFile(
            hand_over_id=made.id, kind=file.kind, filename=file.filename, rows=file.rows,
            sha256=hashlib.sha256(file.content).hexdigest(), content=file.content,
        ))  # fmt: skip
    session.flush()
    return made


def hand_over_counts(session: Session) -> dict[int, int]:
    """Return how often each plan was handed over."""
    rows = session.execute(
        select(HandOver.plan_id, func.count(HandOver.id)).group_by(HandOver.plan_id)
    )
    return {row[0]: row[1] for row in rows}


def list_hand_overs(session: Session, plan_id: int) -> list[HandOver]:
    """Return a plan's hand-overs without what they hold, the newest first."""
    held = (HandOver.sheets, HandOver.state, HandOver.forecast)
    return list(
        session.scalars(
            select(HandOver)
            .options(*(defer(column) for column in held))
            .where(HandOver.plan_id == plan_id)
            .order_by(HandOver.id.desc())
        )
    )


def files_of(session: Session, hand_overs: Sequence[HandOver]) -> dict[int, list[HandOverFile]]:
    """Return the files of hand-overs without their bytes, by the hand-over's id."""
    ids = [one.id for one in hand_overs]
    found: dict[int, list[HandOverFile]] = {one: [] for one in ids}
    rows = session.scalars(
        select(HandOverFile)
        .options(defer(HandOverFile.content))
        .where(HandOverFile.hand_over_id.in_(ids))
        .order_by(HandOverFile.id)
    )
    for file in rows:
        found[file.hand_over_id].append(file)
    return found


def count_hand_overs(session: Session, plan_id: int) -> int:
    """Return how many hand-overs a plan has."""
    count = select(func.count(HandOver.id)).where(HandOver.plan_id == plan_id)
    return session.scalar(count) or 0


def thawed(session: Session, plan_id: int, hand_over_id: int) -> HandOver:
    """Return one hand-over.

    Raises
    ------
    NotFoundError
        Where the plan has no such hand-over.
    """
    found = session.get(HandOver, hand_over_id)
    if found is None or found.plan_id != plan_id:
        raise NotFoundError(f"There is no hand-over {hand_over_id} in this plan.", "hand-over")
    return found


def thaw_file(session: Session, plan_id: int, hand_over_id: int, file_id: int) -> HandOverFile:
    """Return one file of a hand-over, with its bytes.

    Raises
    ------
    NotFoundError
        Where the plan's hand-over has no such file.
    """
    thawed(session, plan_id, hand_over_id)
    file = session.get(HandOverFile, file_id)
    if file is None or file.hand_over_id != hand_over_id:
        raise NotFoundError(f"There is no file {file_id} in this hand-over.", "file")
    return file


def set_status(
    session: Session,
    plan_id: int,
    hand_over_id: int,
    status: str | None,
    note: str | None,
    runs_from: date | None = None,
) -> HandOver:
    """Say that a hand-over runs or is paused, and since when, or write a note to it.

    Parameters
    ----------
    session : Session
    plan_id, hand_over_id : int
    status, note : str or None
        What is None stays.
    runs_from : date or None
        Its first day; where nobody says and it had none, today, but not before its plan begins.

    Raises
    ------
    NotFoundError, BadValueError
    """
    found = thawed(session, plan_id, hand_over_id)
    if status is not None:
        if status not in get_args(Status):
            raise BadValueError("status", "one of " + ", ".join(get_args(Status)), status)
        found.status = status
    if runs_from is not None:
        if found.status == "written":
            raise BadValueError("runs_from", "a hand-over that runs or is paused", "written")
        found.runs_from = runs_from.isoformat()
    if found.status == "written":
        found.runs_from = None
    elif found.runs_from is None:
        found.runs_from = max(date.today().isoformat(), _begins(session, plan_id))
    if note is not None:
        found.note = _note(note)
    return found


def _begins(session: Session, plan_id: int) -> str:
    start = select(Plan.__table__.columns.start_date).where(Plan.id == plan_id)
    return str(session.scalar(start))


@dataclass(frozen=True)
class Run:
    """A hand-over that ran.

    Attributes
    ----------
    id, plan_id : int
    at : str
        When it was sent.
    first : date
        From which day it ran, until the next one did.
    """

    id: int
    plan_id: int
    at: str
    first: date


def runs_of(session: Session, plan_ids: Sequence[int]) -> list[Run]:
    """Return the hand-overs of some plans that ran and whose plan was kept, by first day.

    Of two that ran from one day the one sent later is the later one.
    """
    columns = (HandOver.id, HandOver.plan_id, HandOver.at, HandOver.runs_from)
    rows = session.execute(
        select(*columns)
        .where(HandOver.plan_id.in_(plan_ids), HandOver.runs_from.is_not(None),
               HandOver.state.is_not(None))
        .order_by(HandOver.runs_from, HandOver.id)
    )  # fmt: skip
    return [Run(row.id, row.plan_id, row.at, date.fromisoformat(row.runs_from)) for row in rows]


def sheets_of(hand_over: HandOver) -> dict[str, list[Row]] | None:
    """Return the rows that were sent, by sheet; None where they were not kept."""
    if hand_over.sheets is None:
        return None
    found: dict[str, list[Row]] = orjson.loads(zlib.decompress(hand_over.sheets))
    return found


def last_sheets(session: Session, plan_id: int) -> dict[str, list[Row]] | None:
    """Return the rows of a plan's newest hand-over; None where nothing was sent."""
    newest = session.scalars(
        select(HandOver)
        .where(HandOver.plan_id == plan_id, HandOver.sheets.is_not(None))
        .order_by(HandOver.id.desc())
        .limit(1)
    ).one_or_none()
    return None if newest is None else sheets_of(newest)


def state_of(hand_over: HandOver) -> bytes:
    """Return the plan's file as it stood.

    Raises
    ------
    NotFoundError
        For a hand-over of before it was kept.
    """
    if hand_over.state is None:
        raise NotFoundError("This hand-over was made before the plan was kept with it.", "plan")
    return zlib.decompress(hand_over.state)


def forecast_sent(hand_over: HandOver) -> dict[str, Any]:
    """Return what was expected when it was sent; empty where that was not kept."""
    if hand_over.forecast is None:
        return {}
    found: dict[str, Any] = orjson.loads(zlib.decompress(hand_over.forecast))
    return found


def _packed(value: Any) -> bytes:
    return zlib.compress(orjson.dumps(value, option=orjson.OPT_SERIALIZE_NUMPY), 6)


def _note(note: str) -> str:
    if len(note) > _LONGEST_NOTE:
        raise BadValueError("note", f"at most {_LONGEST_NOTE:,} characters", len(note))
    return note.strip()
