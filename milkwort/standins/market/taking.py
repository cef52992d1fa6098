"""Uploads: kept as they come, taken in a part at a time, each part whole or not at all."""

from __future__ import annotations

import zlib
from typing import Any

import orjson
from sqlalchemy import func, insert, select
from sqlalchemy.orm import Session

from milkwort.standins.market.accounts import faults_of, standing_of, things_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.faults import Faults, chance_of
from milkwort.standins.market.rows import COLUMNS, Reply, take_row
from milkwort.standins.market.sheets import NotASheetError, read_sheet
from milkwort.standins.market.standing import KINDS, Standing
from milkwort.standins.market.storage import Account, ReplyPart, Thing, Upload

__all__ = ["REPLY_HEADS", "put_upload", "reply_of", "take_part", "upload_of"]

_PART = 1000
_AGAIN = "try_again"
REPLY_HEADS = ("row", "state", "code", "message", "field", "old", "new", "ref")
"""Columns of a reply sheet."""


def put_upload(session: Session, account: Account, kind: str, content: bytes) -> Upload:
    """Keep a sheet, to be taken in.

    Raises
    ------
    MarketError
        422 for an unknown kind, or what is no sheet.
    """
    if kind not in KINDS:
        raise MarketError(422, "kind_unknown", f"Expected one of {', '.join(KINDS)}, got {kind}.",
                          "kind")  # fmt: skip
    try:
        rows = read_sheet(content)
    except NotASheetError as error:
        raise MarketError(422, "not_a_sheet", str(error), "sheet") from error
    if len(rows) > account.limits["upload_rows"]:
        most = account.limits["upload_rows"]
        raise MarketError(422, "too_many_rows", f"Expected at most {most:,} rows, got "
                          f"{len(rows):,}.", "sheet")  # fmt: skip
    lacking = [c for c in COLUMNS[kind] if rows and c not in rows[0] and "ref" not in rows[0]]
    if lacking:
        raise MarketError(422, "column_missing", f'Expected a column "{lacking[0]}".', "sheet")
    account.uploads += 1
    upload = Upload(
        account=account.id, number=account.uploads, kind=kind,
        content=zlib.compress(orjson.dumps(rows), 1), state="waiting", message="", rows=len(rows),
        read=0, taken=0, warned=0, refused=0, asked=0,
    )  # fmt: skip
    session.add(upload)
    session.flush()
    return upload


def upload_of(session: Session, account: Account, number: int) -> Upload:
    """Return one upload; MarketError 404 where there is none."""
    found = session.get(Upload, (account.id, number))
    if found is None:
        raise MarketError(404, "not_found", f"There is no upload {number}.", "upload")
    return found


def take_part(session: Session, upload: Upload) -> bool:
    """Take in the next part of an upload; False once nothing is left of it.

    What was taken, its reply and how far it came are one transaction: whatever is killed,
    no row is taken twice, and none goes unanswered.
    """
    account = session.get(Account, upload.account)
    assert account is not None
    rows: list[dict[str, str]] = orjson.loads(zlib.decompress(upload.content))
    some = rows[upload.read : upload.read + _PART]
    things = things_of(session, account.id)
    standing, faults = standing_of(account, things), faults_of(account)
    failed = _failed_before(session, upload) if faults.half_failed else frozenset()
    replies = []
    for at, row in enumerate(some, start=upload.read + 2):
        reply = _faulty(account, upload, at, row, faults, failed)
        reply = reply or take_row(standing, upload.kind, at, row)
        if faults.deliver_twice and reply.state != "refused":
            take_row(standing, upload.kind, at, row)
        replies.append(reply)
    _keep(session, account, standing, things)
    part = ReplyPart(account=account.id, upload=upload.number, part=upload.read // _PART,
                     content=_packed(replies))  # fmt: skip
    session.add(part)
    upload.read += len(some)
    upload.taken += sum(r.state == "taken" for r in replies)
    upload.warned += sum(r.state == "warned" for r in replies)
    upload.refused += sum(r.state == "refused" for r in replies)
    upload.state = "done" if upload.read >= len(rows) else "processing"
    return upload.state != "done"


def reply_of(session: Session, account: Account, upload: Upload) -> list[list[Any]] | None:
    """Return the reply sheet, by `REPLY_HEADS`; None where it is not there yet."""
    if upload.state != "done" or upload.asked <= faults_of(account).lose_reply:
        return None
    parts = session.scalars(
        select(ReplyPart)
        .where(ReplyPart.account == account.id, ReplyPart.upload == upload.number)
        .order_by(ReplyPart.part)
    )
    return [row for part in parts for row in orjson.loads(zlib.decompress(part.content))]


def _faulty(
    account: Account, upload: Upload, at: int, row: dict[str, str], faults: Faults,
    failed: frozenset[str],
) -> Reply | None:  # fmt: skip
    by_chance = faults.refuse_rows > 0 and (
        chance_of(account.seed, "rows", upload.number, at) < faults.refuse_rows
    )
    half = faults.half_failed and at % 2 == 1 and row.get("ref", "") not in failed
    if not (by_chance or half):
        return None
    message = f"row {at}: refused for no reason of its own; send it again"
    return Reply(at, "refused", _AGAIN, message, "", "", "", row.get("ref", ""))


def _failed_before(session: Session, upload: Upload) -> frozenset[str]:
    """Return the refs of rows that were refused for no reason before this upload."""
    parts = session.scalars(
        select(ReplyPart.content).where(
            ReplyPart.account == upload.account, ReplyPart.upload < upload.number
        )
    )
    code, ref = REPLY_HEADS.index("code"), REPLY_HEADS.index("ref")
    return frozenset(
        row[ref] for part in parts for row in orjson.loads(zlib.decompress(part))
        if row[code] == _AGAIN
    )  # fmt: skip


def _keep(session: Session, account: Account, standing: Standing, things: Any) -> None:
    if not standing.touched:
        return
    held = {(thing.kind, thing.ref): thing for thing in things}
    number = session.scalar(select(func.max(Thing.number))) or 0
    new = []
    for (kind, ref), data in standing.touched.items():
        thing = held.get((kind, ref))
        if thing is None:
            if data is not None:
                number += 1
                new.append({"account": account.id, "kind": kind, "ref": ref, "number": number,
                            "data": data, "gone": False})  # fmt: skip
        elif data is None:
            thing.gone = True
        else:
            thing.data, thing.gone = data, False
    if new:
        session.execute(insert(Thing), new)
    account.made = standing.made
    account.version += 1


def _packed(replies: list[Reply]) -> bytes:
    rows = [[getattr(reply, head) for head in REPLY_HEADS] for reply in replies]
    return zlib.compress(orjson.dumps(rows), 1)
