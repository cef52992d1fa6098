"""The practice market and what results teach, as figures."""

from __future__ import annotations

import csv
import io
import tempfile
import time
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np

from bench.core import alone
from milkwort.formats.headless import headless_run
from milkwort.platforms.handing_over import hand_over, live_of, parcels_of
from milkwort.platforms.http import HttpPlatform
from milkwort.platforms.platform import OpenAccount
from milkwort.practice.loop import Practice
from milkwort.practice.runs import practised_all
from milkwort.standins.market.account import Ad, Campaign, Group, Keyword, Live
from milkwort.standins.market.days import run_day
from milkwort.standins.market.levels import level_of
from milkwort.standins.market.schemas import Opening
from milkwort.standins.market.serving import serving_of
from milkwort.standins.market.told import known_of
from milkwort.standins.market.world import World, draw_world
from tools.program import served

Row = tuple[str, str, str]
_PORT = 8760


def rows() -> Iterator[Row]:
    """Print what the market and Learn take."""
    yield _days()
    yield _truths()
    with (
        tempfile.TemporaryDirectory() as folder,
        served(Path(folder), verb="serve", port=_PORT) as url,
        HttpPlatform(f"{url}/practice") as platform,
    ):
        yield _sheets(platform)


def _opening(n: int, level: str = "usual") -> dict[str, Any]:
    rng = np.random.default_rng(1)
    volumes = rng.lognormal(5, 1, n)
    return {
        "name": "bench", "currency": "GBP", "level": level, "seed": 7, "start": "2027-04-01",
        "limits": {"keywords_per_group": 100_000},
        "offers": [{"low": 0.02, "likely": 0.03, "high": 0.045}],
        "keywords": [
            {"text": f"alpha{i} beta{i % 37} gamma{i % 11}", "searches": float(v),
             "price_low": 0.8, "price_high": 2.4, "intent": "buy"}
            for i, v in enumerate(volumes)
        ],
    }  # fmt: skip


def _sheets_of(n: int) -> dict[str, list[dict[str, Any]]]:
    place = {"campaign": "Search", "ad group": "All"}
    return {
        "campaigns": [{"campaign": "Search", "daily budget": 1000.0, "ref": "c"}],
        "groups": [{**place, "page": "/alpha", "ref": "g"}],
        "keywords": [
            {**place, "keyword": f"alpha{i} beta{i % 37} gamma{i % 11}", "match": "phrase",
             "bid": 1.5, "run": "yes", "ref": f"k{i}"} for i in range(n)
        ],
        "negatives": [], "spots": [],
        "ads": [{**place, "headline 1": "alpha beta gamma", "description 1": "", "ref": "a"}],
    }  # fmt: skip


def _written(rows: Any) -> bytes:
    out = io.StringIO()
    writer = csv.DictWriter(out, list(rows[0]))
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue().encode()


def _sheets(platform: HttpPlatform) -> Row:
    account = platform.open_account(_opening(5000), "bench")
    sheets = _sheets_of(5000)
    begin = time.perf_counter()
    parcels = parcels_of(sheets, live_of(platform, account), whole=True)
    done = hand_over(platform, account, parcels, sheets, "bench", _written)
    took = time.perf_counter() - begin
    longest = _while_days_pass(platform, account)
    said = f"{took:.2f} s ({len(done.differs)} fields differ); a call while days pass {longest} ms"
    return "5,000 keywords sent, answered and read back", said, "≤ 5 s, ≤ 200 ms"


def _while_days_pass(platform: HttpPlatform, account: OpenAccount) -> str:
    platform.pass_days(account, 20, "days")
    longest = 0.0
    while True:
        begin = time.perf_counter()
        state = platform.clock(account)
        longest = max(longest, time.perf_counter() - begin)
        if state.state != "running":
            return f"{longest * 1000:.0f}"
        time.sleep(0.02)


def _days() -> Row:
    searches, texts = thirty_days(*market_of(1000))
    seconds, peak = alone(
        "from bench.practice import market_of, thirty_days\nworld, live = market_of(1000)",
        "thirty_days(world, live)",
    )
    said = (
        f"{seconds:.2f} s, {searches:,} searches, {texts:,} texts, {peak * 2**10:.0f} MiB at most"
    )
    return "30 days of 1,000 keywords in the practice market", said, "≤ 3 s, ≤ 400 MiB"


def market_of(n: int) -> tuple[World, Live]:
    """Return a hidden truth about so many keywords, and an account that holds them all."""
    known = known_of(Opening.model_validate(_opening(n)))
    keywords = tuple(
        Keyword(f"k{i}", "g", k.text, ("exact", "phrase", "broad")[i % 3], 1.5)
        for i, k in enumerate(known.keywords)
    )
    live = Live((Campaign("c", "C", 10**12),), (Group("g", "c", "G", "alpha"),), keywords, (),
                (Ad("a", "g", ("alpha",)),))  # fmt: skip
    return draw_world(known, level_of("usual"), 7), live


def thirty_days(world: World, live: Live) -> tuple[int, int]:
    """Let a month pass; return its searches, and how many texts were searched for."""
    serving = serving_of(live, world)
    first = date(2027, 4, 1).toordinal()
    searches = 0
    for day in range(first, first + 30):
        done = run_day(world, level_of("usual"), live, serving, day, np.zeros(1, dtype=np.int64))
        searches += int(done.could_show.sum())
    return searches, len(world.texts)


def _truths() -> Row:
    run = headless_run(Path("demo/eastmere.toml"), Path("demo/eastmere.csv"))
    practice = Practice(run.result, run.lexicon, tuple(run.texts), "usual", "unchanged", 1,
                        date(2027, 4, 1))  # fmt: skip
    begin = time.perf_counter()
    practised_all(practice, list(range(1, 101)))
    took = time.perf_counter() - begin
    return "100 one-month truths of 601 keywords, both cores", f"{took:.1f} s", "≤ 60 s of 500"
