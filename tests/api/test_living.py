"""The running server: killed, asked nonsense, and listened to by several windows."""

import asyncio
import json
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

import httpx
import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from milkwort.api.http.events import Events
from tests.api.conftest import Shell
from tests.depth import cases

JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=6), inner,
                                                                max_size=3),
    max_leaves=6,
)  # fmt: skip
FIELDS = ["sale_value", "gross_margin", "rate_low", "rate_likely", "rate_high", "close_low",
          "close_likely", "monthly_spend", "ceiling_rule", "ceiling_value", "max_cpc", "places",
          "currency", "goal", "policy", "flat_bid", "start_month", "offer_name"]  # fmt: skip


PATIENCE = httpx.Timeout(60)
"""Seconds that an answer may take on a machine that does much else."""


@contextmanager
def started(
    data: Path, stderr: int | None = None
) -> Iterator[tuple[subprocess.Popen[str], httpx.Client]]:
    """A server over a folder, and who asks it; it is gone afterwards, however the test went."""
    command = [sys.executable, "-m", "milkwort", "serve", "--data", str(data), "--port", "8750"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=stderr, text=True) as process:
        assert process.stdout is not None
        try:
            line = next(line for line in process.stdout if "http://" in line)
            url = line.split("at ")[1].split()[0]
            with httpx.Client(base_url=url, timeout=PATIENCE) as client:
                yield process, client
        finally:
            process.kill()


def test_a_killed_server_loses_nothing_that_it_answered(shell, tmp_path):
    with started(tmp_path) as (process, client):
        made = client.post("/api/plans", json={"name": "P", "start": "sample"}).json()
        plan = f"/api/plans/{made['id']}"
        ids = client.get(plan).json()["sheet"]["texts"]["id"]
        answered = 0
        for keyword in ids[:40]:
            answer = client.post(f"{plan}/calls", json={"ids": [keyword], "call": "hold"})
            answered += answer.status_code == 200
        process.send_signal(signal.SIGKILL)
        process.wait(timeout=60)
    with shell.over(tmp_path) as client:
        texts = client.get(plan).json()["sheet"]["texts"]
        assert answered == 40 and texts["call"][:40] == ["hold"] * 40


def test_a_server_that_is_told_to_stop_stops_though_windows_listen(tmp_path):
    with started(tmp_path) as (process, client):
        made = client.post("/api/plans", json={"name": "P"}).json()
        # who listens reads on until the server ends the stream
        with client.stream("GET", f"/api/plans/{made['id']}/events") as stream:
            lines = stream.iter_lines()
            assert next(lines) == 'data: {"stands":1}'
            process.terminate()
            assert list(lines)[-1:] in ([""], [])
        assert process.wait(timeout=60) in (0, -signal.SIGTERM)


def large_tray(client: httpx.Client, rows: int) -> tuple[str, str]:
    """The address of a new plan, and the key of a tray of that many keywords, all of them kept."""
    made = client.post("/api/plans", json={"name": "Large"}).json()
    plan = f"/api/plans/{made['id']}"
    brief = {"sale_value": 340, "gross_margin": 0.55, "monthly_spend": 3000}
    assert client.patch(f"{plan}/brief", json=brief).status_code == 200
    lines = [f"sash number{n} repair,{50 + n % 400},0.5,2,keep" for n in range(rows)]
    text = "\n".join(["keyword,volume,cpc_low,cpc_high,call", *lines])
    tray = client.post(f"{plan}/gather/text", json={"text": text, "name": "l.csv"})
    return plan, tray.json()["key"]


def test_keywords_whose_window_closed_half_way_are_taken_in_whole(tmp_path):
    with started(tmp_path) as (_, client):
        plan, key = large_tray(client, 4000)
        with pytest.raises(httpx.ReadTimeout):
            client.post(f"{plan}/gather/{key}/take", timeout=0.05)
        found: set[int] = set()
        until = time.monotonic() + 120
        while 4000 not in found and time.monotonic() < until:
            found.add(len(client.get(plan).json()["sheet"]["texts"]["id"]))
            time.sleep(0.1)
        assert found <= {0, 4000} and 4000 in found


def test_a_server_told_to_stop_in_the_middle_of_its_draws_stops_without_a_fuss(tmp_path):
    with started(tmp_path, stderr=subprocess.PIPE) as (process, client):
        plan, key = large_tray(client, 4000)
        assert client.post(f"{plan}/gather/{key}/take").status_code == 200
        client.get(plan)  # from now on it is connected
        with ThreadPoolExecutor(1) as thread:
            drawn = thread.submit(client.get, f"{plan}/ranges")
            time.sleep(1)  # of the three and more that so many keywords take
            process.terminate()
            assert drawn.result().json() is None
        _, complaints = process.communicate(timeout=60)
    assert "Traceback" not in complaints


def test_every_window_of_a_plan_is_told_and_no_other():
    async def scene():
        events = Events()
        events.bind()
        mine, also_mine, other = (events.listen(plan, lambda: {"stands": 6}) for plan in (1, 1, 2))
        for stream in (mine, also_mine, other):
            assert await anext(stream) == b'data: {"stands":6}\n\n'
        events.tell(1, {"revision": 7})
        await asyncio.sleep(0)
        told = [json.loads((await anext(s)).removeprefix(b"data: ")) for s in (mine, also_mine)]
        events.close()
        return told, [chunk async for chunk in other]

    # in a thread of its own: a browser's test may have left a loop running in this one
    with ThreadPoolExecutor(1) as thread:
        told, others = thread.submit(lambda: asyncio.run(scene())).result()
    assert told == [{"revision": 7}] * 2 and others == []


def test_a_change_tells_whose_window_made_it(client, plan):
    told = []
    client.app.state.workspace.events.tell = lambda plan_id, message: told.append(message)
    headers = {"X-Milkwort-Window": "left"}
    client.patch(f"{plan}/brief", json={"monthly_spend": 70}, headers=headers)
    assert [m["window"] for m in told] == ["left"]


@pytest.fixture(scope="module")
def asked(tmp_path_factory):
    folder = tmp_path_factory.mktemp("asked")
    with Shell(folder).over(folder) as client:
        client.post("/api/plans", json={"name": "Asked"})
        yield client


def answered(client: TestClient, method: str, path: str, body: object) -> None:
    content = json.dumps(body).encode()  # NaN and Infinity go out as such
    headers = {"Content-Type": "application/json"}
    answer = client.request(method, path, content=content, headers=headers)
    assert answer.status_code in (200, 201, 204, 404, 409, 422), answer.text
    if answer.status_code >= 400:
        assert set(answer.json()["error"]) == {"code", "message", "where"}


@settings(max_examples=cases(30, 120), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(st.dictionaries(st.sampled_from(FIELDS), JSON, max_size=4))
def test_no_brief_however_odd_breaks_the_server(asked, fields):
    answered(asked, "PATCH", "/api/plans/1/brief", fields)
    assert asked.get("/api/plans/1").status_code == 200


@settings(max_examples=cases(25, 100), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    st.sampled_from([
        ("POST", "/api/plans/1/calls"), ("POST", "/api/plans/1/bids"), ("POST", "/api/plans"),
        ("PATCH", "/api/plans/1/assumptions"), ("POST", "/api/plans/1/gather/text"),
        ("PUT", "/api/plans/1/gather/x/columns"), ("POST", "/api/plans/1/hand-over"),
        ("POST", "/api/plans/1/keywords/remove"), ("PATCH", "/api/plans/1"),
    ]),
    JSON,
)  # fmt: skip
def test_no_body_however_odd_breaks_the_server(asked, route, body):
    answered(asked, *route, body)


@settings(max_examples=cases(20, 100), deadline=None)
@given(st.text(max_size=200))
def test_no_pasted_text_breaks_the_tray(asked, text):
    answered(asked, "POST", "/api/plans/1/gather/text", {"text": text})


@pytest.mark.parametrize(
    ("sent", "month"),
    [({"purse": 20, "per": "day"}, 608.33), ({"purse": 140, "per": "week"}, 608.33),
     ({"purse": 20.005}, 20.005), ({"purse": 600, "per": "month"}, 600)],
)  # fmt: skip
def test_money_may_be_said_a_day_or_a_week(client, plan, sent, month):
    """A month has 365/12 days: 20 a day are 7300 a year."""
    frame = client.put(f"{plan}/purse", json=sent).json()["summary"]
    assert frame["purse"]["purse"] == pytest.approx(month, abs=1e-9)
    assert client.put(f"{plan}/purse", json=sent | {"per": "year"}).status_code == 422


def test_the_day_follows_the_days_that_the_plan_assumes(client, plan):
    client.patch(f"{plan}/assumptions", json={"values": {"month_days": 30}})
    frame = client.put(f"{plan}/purse", json={"purse": 7, "per": "week"}).json()["summary"]
    assert frame["purse"]["purse"] == 30
