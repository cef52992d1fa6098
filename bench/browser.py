"""The server and the browser: a file of 5,000 rows, plans of 1,000 to 20,000 keywords."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path

import httpx
import numpy as np
from playwright.sync_api import Page, sync_playwright

from bench.core import Row
from bench.sheets import write_csv
from tools.program import browser_of, profile_of, served, watched_page

FILE = 5_000
FEW, SIZE, MANY = 1_000, 10_000, 20_000
ON_MAP = 5_000
AT_ONCE = 5_000

# From the key press to the frame after the purse shows the new revision.
_KEY_TO_PURSE = """
async (key) => {
  const trail = document.querySelector('nav[aria-label=Stages]');
  const before = trail.textContent;
  const start = performance.now();
  document.activeElement.dispatchEvent(
    new KeyboardEvent('keydown', {key, bubbles: true, cancelable: true}));
  while (trail.textContent === before) await new Promise(requestAnimationFrame);
  await new Promise(requestAnimationFrame);
  return performance.now() - start;
}
"""
_PAINTED = """
() => [
  performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
  performance.now(),
]
"""
_WATCH_TASKS = """
() => {
  window.longTasks = [];
  new PerformanceObserver((list) => {
    for (const task of list.getEntries()) window.longTasks.push(task.duration);
  }).observe({ entryTypes: ['longtask'] });
}
"""
_SCROLL = """
async () => {
  const grid = document.querySelector('[role=grid]');
  const frames = [];
  let last = performance.now();
  for (let at = 0; at < 120; at++) {
    grid.scrollTop += 120;
    const now = await new Promise(requestAnimationFrame);
    frames.push(now - last);
    last = now;
  }
  return frames.slice(2);
}
"""

_ZOOM = """
async () => {
  const canvas = document.querySelector('canvas');
  const box = canvas.getBoundingClientRect();
  const frames = [];
  let last = performance.now();
  for (let at = 0; at < 60; at++) {
    canvas.dispatchEvent(new WheelEvent('wheel', {
      deltaY: at < 30 ? -1 : 1, bubbles: true, clientX: box.x + 400, clientY: box.y + 200}));
    const now = await new Promise(requestAnimationFrame);
    frames.push(now - last);
    last = now;
  }
  return frames.slice(2);
}
"""


def rows() -> list[Row]:
    """Measure and return (what, figure, wanted)."""
    with (
        tempfile.TemporaryDirectory() as folder,
        served(Path(folder) / "data", verb="serve", port=8780) as url,
        sync_playwright() as playwright,
    ):
        csv = Path(folder) / "rows.csv"
        write_csv(csv, FILE)
        browser = browser_of(playwright)
        page = watched_page(profile_of(browser), [])
        made = httpx.post(f"{url}/api/plans", json={"name": "Bench"}).json()["id"]
        httpx.patch(f"{url}/api/plans/{made}/brief", json={"monthly_spend": 3000.0})
        page.goto(f"{url}/plan/{made}/gather")
        found = [_tray(page, csv)]
        _sifted(page, url, csv, FEW)
        found += [_painted(page), _calls(page, FEW, "≤ 100 ms"), _typing(page)]
        made = _sifted(page, url, csv, SIZE)
        found += [_open(page), _calls(page, SIZE, "≤ 200 ms"), _answer(url, made)]
        found += [_many(url, made), _words(url, made)]
        _sifted(page, url, csv, MANY)
        found += [_calls(page, MANY, ""), _scroll(page)]
        _sifted(page, url, csv, ON_MAP)
        found += [_map(page)]
        browser.close()
    return found


def _tray(page: Page, csv: Path) -> Row:
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Choose a file").click()
    start = time.perf_counter()
    chooser.value.set_files(csv)
    page.get_by_role("grid").wait_for()
    spent = time.perf_counter() - start
    page.get_by_role("button", name="Take in").click()
    page.get_by_role("heading", name="Sift").wait_for()
    return (f"a {FILE:,}-row CSV in the tray", f"{spent:.2f} s", "≤ 2 s")


def _sifted(page: Page, url: str, csv: Path, size: int) -> int:
    """Load a sheet of that size into a new plan and open it in Sift."""
    write_csv(csv, size)
    made = _loaded(url, csv)
    page.goto(f"{url}/plan/{made}/sift")
    page.get_by_role("grid", name="Keywords").wait_for()
    _settled(page)
    return made


def _settled(page: Page) -> None:
    """Wait until the ranges of the last change are drawn."""
    page.wait_for_timeout(1000)
    page.get_by_title("8 months in 10 lie between").first.wait_for()
    page.locator("[data-late]").first.wait_for(state="detached")


def _loaded(url: str, csv: Path) -> int:
    client = httpx.Client(base_url=f"{url}/api", timeout=120)
    made = int(client.post("/plans", json={"name": "Bench, large"}).json()["id"])
    client.patch(f"/plans/{made}/brief", json={"monthly_spend": 3000.0})
    tray = client.post(f"/plans/{made}/gather/file", files={"file": ("k.csv", csv.read_bytes())})
    client.post(f"/plans/{made}/gather/{tray.json()['key']}/take")
    return made


def _open(page: Page) -> Row:
    start = time.perf_counter()
    page.reload()
    page.get_by_role("grid", name="Keywords").get_by_role("row").nth(5).wait_for()
    return (f"opening a {SIZE:,}-keyword plan", f"{time.perf_counter() - start:.2f} s", "≤ 1.5 s")


def _painted(page: Page) -> Row:
    """From asking for the page to its first drawing, and to the first rows of the list."""
    seen = []
    for _ in range(5):
        page.reload()
        page.get_by_role("grid", name="Keywords").get_by_role("row").nth(5).wait_for()
        seen.append(page.evaluate(_PAINTED))
    first, listed = np.median(np.array(seen), axis=0)
    _settled(page)
    return (f"first paint of a plan of {FEW:,} keywords", f"{first:.0f} ms, its list {listed:.0f}",
            "≤ 1 s")  # fmt: skip


def _typing(page: Page) -> Row:
    """The longest task while a field is typed into that moves the whole list at each key."""
    page.evaluate(_WATCH_TASKS)
    field = page.get_by_role("textbox", name="Filter: words in, -words out")
    field.press_sequentially("draught window proofing", delay=60)
    field.fill("")
    page.wait_for_timeout(500)
    longest = page.evaluate("Math.max(0, ...window.longTasks)")
    said = "none over 50 ms" if longest == 0 else f"{longest:.0f} ms at most"
    return ("tasks while a filter is typed", said, "< 100 ms")


def _calls(page: Page, size: int, wanted: str) -> Row:
    page.get_by_role("grid", name="Keywords").focus()
    page.keyboard.press("ArrowDown")
    times = []
    for at in range(14):
        times.append(page.evaluate(_KEY_TO_PURSE, "3" if at % 2 == 0 else "0"))
    return (
        f"a call at {size:,} keywords, key press to new purse",
        f"{np.median(times[2:]):.0f} ms (most {max(times[2:]):.0f})",
        wanted,
    )


def _answer(url: str, plan: int) -> Row:
    client = httpx.Client(base_url=f"{url}/api/plans")
    ids = client.get(f"/{plan}").json()["sheet"]["texts"]["id"]
    times, size = [], 0
    for at in range(8):
        body = {"ids": ids[:1], "call": ("drop", "keep")[at % 2]}
        start = time.perf_counter()
        answer = client.post(f"/{plan}/calls", json=body)
        times.append((time.perf_counter() - start) * 1000)
        size = len(answer.content)
    return (
        "  of which the server's answer",
        f"{np.median(times):.0f} ms, {size / 1024:.0f} KiB",
        "",
    )


def _scroll(page: Page) -> Row:
    _settled(page)
    frames = page.evaluate(_SCROLL)
    return (
        f"scrolling {MANY:,} keywords, 7,200 px a second",
        f"{np.median(frames):.1f} ms a frame, {max(frames):.0f} ms at most",
        "17 ms",
    )


def _many(url: str, plan: int) -> Row:
    client = httpx.Client(base_url=f"{url}/api/plans", timeout=60)
    ids = client.get(f"/{plan}").json()["sheet"]["texts"]["id"][:AT_ONCE]
    times = []
    for call in ("hold", "keep", "drop"):
        start = time.perf_counter()
        client.post(f"/{plan}/calls", json={"ids": ids, "call": call})
        times.append(time.perf_counter() - start)
    return (f"calling {AT_ONCE:,} keywords at once", f"{np.median(times):.2f} s", "≤ 1 s")


def _words(url: str, plan: int) -> Row:
    client = httpx.Client(base_url=f"{url}/api/plans", timeout=60)
    times = []
    for _ in range(3):
        start = time.perf_counter()
        found = client.get(f"/{plan}/sift/words").json()
        times.append(time.perf_counter() - start)
    said = f"{times[0]:.2f} s, then {min(times):.2f}; {len(found['word']):,} words"
    return (f"the words of {SIZE:,} keywords", said, "")


def _map(page: Page) -> Row:
    page.keyboard.press("Escape")
    page.keyboard.press("m")
    page.locator("canvas").wait_for()
    _settled(page)
    frames = page.evaluate(_ZOOM)
    return (
        f"zooming a map of {ON_MAP:,} keywords",
        f"{np.median(frames):.1f} ms a frame, {max(frames):.0f} ms at most",
        "17 ms",
    )
