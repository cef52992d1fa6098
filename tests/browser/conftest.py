from collections.abc import Iterator

import httpx
import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from tools.program import browser_of, profile_of, served, watched_page

PATIENCE = 30_000
"""Milliseconds: the draws of a month give way to everything else, on a busy machine for long."""
expect.set_options(timeout=PATIENCE)

TWO_FRAMES = "() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))"
"""What was just done has been drawn by then, and what it asks for is on its way."""

NOTHING_KEPT = """
if (window === top && location.protocol !== "about:" && !sessionStorage.getItem("test")) {
  localStorage.clear();
  sessionStorage.setItem("test", "begun");
}
"""
"""What an earlier test's page kept is gone before this one's first script runs."""


def settled(page: Page) -> None:
    """Wait until the stage has drawn what was just done and every answer has come."""
    page.evaluate(TWO_FRAMES)
    expect(page.locator("main[aria-busy=false]")).to_be_visible()
    page.evaluate(TWO_FRAMES)


def stage(page: Page, name: str) -> None:
    """Go to a stage by the trail."""
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=name).click()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = browser_of(playwright)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def program(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """The address of the running program with its sample."""
    with served(tmp_path_factory.mktemp("data"), draws=400) as url:
        yield url


@pytest.fixture(scope="session")
def looked(program: str) -> str:
    """The address of a plan for tests that only look: nothing of it is changed."""
    return made_from_sample(program)


@pytest.fixture
def plan(program: str) -> str:
    """The address of a plan made from the sample for one test alone."""
    return made_from_sample(program)


def made_from_sample(program: str) -> str:
    body = {"name": "Eastmere Sash & Casement", "start": "sample"}
    made = httpx.post(f"{program}/api/plans", json=body, timeout=20).json()
    return f"{program}/plan/{made['id']}"


@pytest.fixture(scope="session")
def profile(browser: Browser) -> BrowserContext:
    """One for all tests: the program's scripts are read and compiled once."""
    return profile_of(browser)


@pytest.fixture
def page(profile: BrowserContext) -> Iterator[Page]:
    """A page that fails its test where the browser complains."""
    faults: list[str] = []
    page = watched_page(profile, faults)
    page.add_init_script(NOTHING_KEPT)
    page.set_default_timeout(PATIENCE)
    yield page
    page.close()
    profile.clear_permissions()
    # an answer of 4xx is a refusal that the test itself asked for
    assert [f for f in faults if "status of 4" not in f] == []


@pytest.fixture
def sample(plan: str, page: Page) -> Page:
    """The sample plan, open at its brief."""
    page.goto(plan)
    page.get_by_role("heading", name="What a click is worth").wait_for()
    return page
