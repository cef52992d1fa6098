"""Kills at random writes: ``python -m tools.kills [how many]`` says what was lost or doubled.

A server with its practice market is killed outright while a plan is changed, sent and lived in;
started again, it must hold everything that it answered, and nothing twice.
"""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import httpx

CALLS = ("keep", "hold", "drop", "none")
PORT = 8760
PATIENCE = 60.0
"""Seconds for one answer; a sheet of the sample is sent, answered and read back in two."""


@dataclass
class Held:
    """What the server said yes to, and what it was asked last and never answered."""

    calls: dict[int, str] = field(default_factory=dict)
    spend: float = 600.0
    days: int = 0
    revision: int = 0
    asked: tuple[str, Any] | None = None


def main(kills: int, seed: int = 1, port: int = PORT) -> int:
    """Kill a server so many times, and print what was wrong each time."""
    rng, wrong = random.Random(seed), []
    with tempfile.TemporaryDirectory() as folder:
        process, url = _started(Path(folder), port)
        plan = _plan(url)
        begun = httpx.get(url + plan, timeout=PATIENCE).json()
        texts, ids = begun["sheet"]["texts"], begun["sheet"]["texts"]["id"]
        calls = dict(zip(ids, texts["call"], strict=True))
        held = Held(calls, revision=begun["summary"]["revision"])
        for number in range(1, kills + 1):
            writer = threading.Thread(target=_write, args=(url + plan, ids, held, rng))
            writer.start()
            time.sleep(rng.uniform(0.02, 1.2))
            os.killpg(process.pid, signal.SIGKILL)
            process.wait()
            writer.join()
            assert process.stdout is not None
            process.stdout.close()
            process, url = _started(Path(folder), port)
            wrong += [f"kill {number}: {one}" for one in _look(url + plan, held)]
            if number % 25 == 0:
                print(f"{number} kills, {len(wrong)} wrong", flush=True)
        process.terminate()
        process.wait()
    print(f"{kills} kills: {len(wrong)} acknowledged changes lost, doubled or not whole; "
          f"{held.revision:,} revisions, {held.days} days passed")  # fmt: skip
    print("\n".join(wrong[:20]))
    return 1 if wrong else 0


def _started(folder: Path, port: int) -> tuple[subprocess.Popen[str], str]:
    command = [sys.executable, "-m", "milkwort", "serve", "--data", str(folder),
               "--port", str(port)]  # fmt: skip
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, start_new_session=True)
    assert process.stdout is not None
    for line in process.stdout:
        if "http://" in line:
            return process, line.split("at ")[1].split()[0]
    raise RuntimeError("the server did not start")


def _plan(url: str) -> str:
    body = {"name": "Killed", "start": "sample"}
    made = httpx.post(f"{url}/api/plans", json=body, timeout=PATIENCE).json()["id"]
    plan = f"/api/plans/{made}"
    account = {"level": "usual", "seed": 3}
    for path, sent in (("", account), ("/send", {"only": "all"})):
        httpx.post(f"{url}{plan}/practice{path}", json=sent, timeout=PATIENCE).raise_for_status()
    return plan


def _write(plan: str, ids: list[int], held: Held, rng: random.Random) -> None:
    """Change the plan, send it, let days pass, until the server is no more."""
    with httpx.Client(timeout=PATIENCE) as client:
        while True:
            what = rng.choices(("calls", "spend", "send", "day"), (6, 3, 1, 2))[0]
            try:
                _ask(client, plan, ids, held, rng, what)
            except httpx.HTTPError:
                return


def _ask(
    client: httpx.Client, plan: str, ids: list[int], held: Held, rng: random.Random, what: str
) -> None:
    if what == "calls":
        some, call = rng.sample(ids, 5), rng.choice(CALLS)
        held.asked = ("calls", dict.fromkeys(some, call))
        answer = client.post(f"{plan}/calls", json={"ids": some, "call": call})
        if answer.status_code == 200:
            held.calls |= dict.fromkeys(some, call)
    elif what == "spend":
        spend = float(rng.randint(100, 900))
        held.asked = ("spend", spend)
        answer = client.patch(f"{plan}/brief", json={"monthly_spend": spend})
        if answer.status_code == 200:
            held.spend = spend
    elif what == "send":
        held.asked = ("send", None)
        answer = client.post(f"{plan}/practice/send", json={"only": "changed"})
    else:
        held.asked = ("day", 1)
        answer = client.post(f"{plan}/practice/clock", json={"days": 1})
        if answer.status_code == 200:
            held.days += 1
    said = answer.json()
    revision = (said.get("summary") or {}).get("revision")
    held.revision = max(held.revision, revision or 0)
    held.asked = None


def _look(plan: str, held: Held) -> list[str]:
    """Return what is not as it was answered; what was never answered may be either way, whole."""
    wrong = []
    view = httpx.get(plan, timeout=PATIENCE).json()
    texts, summary = view["sheet"]["texts"], view["summary"]
    stands = dict(zip(texts["id"], texts["call"], strict=True))
    kind, asked = held.asked or ("", None)
    maybe: dict[int, str] = asked if kind == "calls" and asked else {}
    lost = {i: c for i, c in held.calls.items() if stands[i] != c and maybe.get(i) != stands[i]}
    if lost:
        wrong.append(f"{len(lost)} calls are not as they were answered")
    took = [i for i, c in maybe.items() if stands[i] == c and held.calls.get(i) != c]
    open_ones = [i for i, c in maybe.items() if held.calls.get(i) != c]
    if took and len(took) != len(open_ones):
        wrong.append(f"{len(took)} of {len(open_ones)} calls of one change")
    spend = summary["brief"]["values"]["monthly_spend"]
    if spend != held.spend and not (kind == "spend" and spend == asked):
        wrong.append(f"the purse is {spend}, {held.spend} was answered")
    if summary["revision"] < held.revision:
        wrong.append(f"revision {summary['revision']} after {held.revision} was answered")
    wrong += _lived(plan, held, unanswered=kind == "day")
    held.calls |= {i: stands[i] for i in maybe}
    held.spend, held.revision, held.asked = spend, summary["revision"], None
    return [*wrong, *_undone_and_done(plan)]


def _lived(plan: str, held: Held, *, unanswered: bool) -> list[str]:
    """Return what is wrong with the days: each once, as many as were asked for."""
    until = time.monotonic() + PATIENCE
    while True:
        found = httpx.get(f"{plan}/practice", timeout=PATIENCE).json()
        if found["account"]["clock"] != "running" or time.monotonic() > until:
            break
        time.sleep(0.05)
    days = [one["day"] for one in found["days"]]
    wrong = [] if len(days) == len(set(days)) else ["a day stands there twice"]
    if len(days) not in (held.days, held.days + unanswered):
        wrong.append(f"{len(days)} days passed, {held.days} were answered")
    held.days = len(days)
    return wrong


def _undone_and_done(plan: str) -> list[str]:
    """Undo the last change and do it again: the plan must come back as it was."""
    before = httpx.get(plan, timeout=PATIENCE).json()
    if before["summary"]["journal"]["undo"] is None:
        return []
    for way in ("undo", "redo"):
        answer = httpx.post(f"{plan}/{way}", timeout=PATIENCE)
        if answer.status_code != 200:
            return [f"{way}: {answer.text[:200]}"]
    after = httpx.get(plan, timeout=PATIENCE).json()
    return [] if after["sheet"]["texts"] == before["sheet"]["texts"] else ["undo is not whole"]


if __name__ == "__main__":
    asked = [int(one) for one in sys.argv[1:]]
    sys.exit(main(*asked or (300,)))
