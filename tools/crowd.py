"""Eight windows at once: ``python -m tools.crowd [minutes]`` prints how long and how much."""

from __future__ import annotations

import random
import sys
import tempfile
import threading
import time
from pathlib import Path

import httpx
import numpy as np

from tools.program import served

WINDOWS, PLANS, KEYWORDS = 8, 2, 1000
CALLS = ("keep", "hold", "drop", "none")


def main(minutes: float) -> int:
    """Let eight windows call keywords of two plans, and say what that took."""
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), verb="serve") as url:
        plans = [_plan(url, number) for number in range(PLANS)]
        server = _server(Path(folder))
        times: list[list[float]] = [[] for _ in range(WINDOWS)]
        wrong: list[str] = []
        until = time.monotonic() + minutes * 60
        threads = [
            threading.Thread(
                target=_window, args=(url, plans[n % PLANS], n, until, times[n], wrong)
            )
            for n in range(WINDOWS)
        ]
        for thread in threads:
            thread.start()
        time.sleep(min(30.0, minutes * 20))
        early = _memory(server)
        for thread in threads:
            thread.join()
        late = _memory(server)
    every = np.concatenate([np.array(one) for one in times]) * 1000
    print(f"{len(every):,} changes of {WINDOWS} windows at {KEYWORDS:,} keywords in "
          f"{minutes:g} min; {len(wrong)} went wrong")  # fmt: skip
    print(
        f"a change: {np.median(every):.0f} ms in the middle, "
        f"{np.quantile(every, 0.99):.0f} ms at the 99th, {every.max():.0f} ms at most (<= 500)"
    )
    print(f"the server's memory: {early:.0f} MiB early on, {late:.0f} MiB at the end "
          f"({late / early - 1:+.0%}, <= 15 %)")  # fmt: skip
    print("\n".join(wrong[:5]))
    return 1 if wrong else 0


def _plan(url: str, number: int) -> tuple[int, list[int]]:
    made = httpx.post(f"{url}/api/plans", json={"name": f"Crowd {number}"}, timeout=60)
    plan = made.json()["id"]
    at = f"{url}/api/plans/{plan}"
    sheet = "keyword,volume,cpc_low,cpc_high,match,call\n" + "\n".join(
        f"word{k} number {k},{50 + k},0.5,1.5,exact,keep" for k in range(KEYWORDS)
    )
    tray = httpx.post(f"{at}/gather/text", json={"text": sheet, "name": "s.csv"}, timeout=60).json()
    httpx.post(f"{at}/gather/{tray['key']}/take", timeout=60).raise_for_status()
    return plan, httpx.get(at, timeout=60).json()["sheet"]["texts"]["id"]


def _window(
    url: str, plan: tuple[int, list[int]], number: int, until: float, times: list[float],
    wrong: list[str],
) -> None:  # fmt: skip
    rng, at = random.Random(number), f"{url}/api/plans/{plan[0]}"
    with httpx.Client(timeout=60, headers={"X-Milkwort-Window": f"w{number}"}) as client:
        while time.monotonic() < until:
            begin = time.perf_counter()
            undo = rng.random() < 0.05
            if undo:
                answer = client.post(f"{at}/undo")
            else:
                body = {"ids": rng.sample(plan[1], rng.randint(1, 5)), "call": rng.choice(CALLS)}
                answer = client.post(f"{at}/calls", json=body)
            times.append(time.perf_counter() - begin)
            # two windows may both take the last step back: the second is told so
            if answer.status_code >= 500 or (answer.status_code >= 400 and not undo):
                wrong.append(f"{answer.status_code} {answer.text[:200]}")
            if rng.random() < 0.02:
                client.get(at).raise_for_status()
            time.sleep(rng.random() * 0.1)


def _server(folder: Path) -> int:
    for entry in Path("/proc").iterdir():
        if entry.name.isdecimal():
            said = (entry / "cmdline").read_bytes() if (entry / "cmdline").exists() else b""
            if str(folder).encode() in said and b"milkwort" in said:
                return int(entry.name)
    raise RuntimeError("the server's process was not found")


def _memory(process: int) -> float:
    status = Path(f"/proc/{process}/status").read_text(encoding="utf-8")
    line = next(line for line in status.splitlines() if line.startswith("VmRSS"))
    return int(line.split()[1]) / 1024


if __name__ == "__main__":
    sys.exit(main(float(sys.argv[1]) if len(sys.argv) > 1 else 10.0))
