"""Learn and the page of all clients, as figures: what a window waits for."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable, Iterator
from datetime import date, timedelta
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from milkwort.api.http.app import make_app
from milkwort.settings import Settings

Row = tuple[str, str, str]
_KEYWORDS, _DAYS, _CLIENTS = 1000, 199, 50


def rows() -> Iterator[Row]:
    """Print what 199,000 rows of results and fifty clients take."""
    with tempfile.TemporaryDirectory() as folder:
        app = make_app(Settings(data=Path(folder)))
        with TestClient(app, base_url="http://127.0.0.1:8710") as client:
            yield from _results(client, app.state.workspace)
            yield _all(client)


def _timed(ask: Callable[[], Any]) -> str:
    begin = time.perf_counter()
    answer = ask()
    assert answer.status_code < 300, answer.text
    took = time.perf_counter() - begin
    return f"{took:.2f} s" if took >= 1 else f"{took * 1000:.0f} ms"


def _results(client: TestClient, work: Any) -> Iterator[Row]:
    plan = client.post("/api/plans", json={"name": "Bench"}).json()["id"]
    at = f"/api/plans/{plan}"
    sheet = "keyword,volume,cpc_low,cpc_high,match,call,group\n" + "\n".join(
        f"keyword number {k},{100 + k},0.5,1.5,exact,keep,G{k // 20}" for k in range(_KEYWORDS)
    )
    tray = client.post(f"{at}/gather/text", json={"text": sheet, "name": "s.csv"}).json()
    client.post(f"{at}/gather/{tray['key']}/take").raise_for_status()
    file = {"file": ("results.csv", _file())}
    took = _timed(lambda: client.post(f"{at}/results", files=file))
    yield "199,000 rows of results, from the file to the plan", took, "≤ 5 s"
    work.forget(plan)
    work.memory.learnt.drop(plan)
    work.memory.result_rows.drop(work.plan(plan).record.client_id)
    yield "Learn opens over them", _timed(lambda: client.get(f"{at}/learn")), "≤ 1.5 s"
    ids = [client.get(f"{at}/learn").json()["keywords"][0]["id"]]
    took = _timed(lambda: client.post(f"{at}/learn/decide", json={"keywords": {"ids": ids}}))
    yield "a decision", took, "≤ 200 ms"
    yield "closing that month", _timed(lambda: client.post(f"{at}/learn/close", json={})), "≤ 2 s"


def _all(client: TestClient) -> Row:
    for number in range(_CLIENTS):
        body = {"name": f"Client {number}", "start": "service"}
        client.post("/api/plans", json=body).raise_for_status()
    first = _timed(lambda: client.get("/api/clients"))
    begin = time.perf_counter()
    for line in client.get("/api/clients").json():
        client.get(f"/api/plans/{line['plan_id']}/glance").raise_for_status()
    glances = time.perf_counter() - begin
    again = _timed(lambda: client.get("/api/clients"))
    said = f"{first}; a glance at each in {glances:.1f} s, then {again}"
    return "the page of 51 clients", said, "≤ 1 s"


def _file() -> bytes:
    lines = ["keyword,match,day,impressions,clicks,cost,customers,could_show,lost_to_money"]
    for number in range(_DAYS):
        day = (date(2027, 1, 1) + timedelta(number)).isoformat()
        lines += [
            f"keyword number {k},exact,{day},{k % 50},{k % 7},{k % 7 * 0.83:.2f},"
            f"{int(k % 97 == 0)},{k % 90},0"
            for k in range(_KEYWORDS)
        ]
    return "\n".join(lines).encode()
