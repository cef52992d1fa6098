"""The program as its users have it: served from its own folder, in headless Chromium."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, Playwright

__all__ = ["CHROMIUM", "VIEWPORT", "browser_of", "profile_of", "served", "watched_page"]

CHROMIUM = next(
    (
        path
        for path in ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")
        if Path(path).exists()
    ),
    "/usr/bin/chromium",
)
VIEWPORT = {"width": 1280, "height": 800}
_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@contextmanager
def served(
    data: Path, *, verb: str = "demo", port: int = 8730, history: int = 0, draws: int = 2000
) -> Iterator[str]:
    """Run the program over a data folder and yield its address.

    The samples begin with so many months of made-up results; a month is drawn so many times.
    """
    command = [sys.executable, "-m", "milkwort", verb, "--data", str(data), "--port", str(port)]
    env = os.environ | {"MILKWORT_HISTORY": str(history), "MILKWORT_DRAWS": str(draws)}
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=env)
    assert process.stdout is not None
    try:
        for line in process.stdout:
            found = re.search(r"http://\S+", line)
            if found:
                yield found.group()
                break
        else:
            raise RuntimeError("the program ended before it said where it is")
    finally:
        process.terminate()
        process.wait(timeout=30)
        process.stdout.close()


def browser_of(playwright: Playwright) -> Browser:
    """Start Debian's Chromium without a screen."""
    return playwright.chromium.launch(executable_path=CHROMIUM, args=_FLAGS)


def profile_of(browser: Browser) -> BrowserContext:
    """A profile of its own, with nothing kept in it yet."""
    return browser.new_context(viewport=VIEWPORT, locale="en-GB")  # type: ignore[arg-type] # literal


def watched_page(profile: BrowserContext, faults: list[str]) -> Page:
    """Open a page whose errors are collected."""
    page = profile.new_page()
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on(
        "console",
        lambda message: faults.append(message.text) if message.type == "error" else None,
    )
    return page
