"""A plan beyond its one window: in another, deleted and brought back, after a restart."""

from pathlib import Path

import httpx
from playwright.sync_api import Page, expect

from tests.browser.conftest import stage
from tools.program import served, watched_page


def test_the_first_run_explains_itself_and_a_deleted_plan_is_brought_back(
    page: Page, tmp_path: Path
):
    with served(tmp_path, verb="serve") as url:
        page.goto(url)
        expect(page.get_by_role("main")).to_contain_text("You have a fixed sum a month")
        page.get_by_role("button", name="Look at the sample").click()
        page.get_by_role("button", name="Plans:").click()
        page.get_by_role("button", name="Delete Eastmere").click()
        expect(page.get_by_role("heading", name="Milkwort")).to_be_visible()
        page.reload()
        page.get_by_role("button", name="Bring Eastmere").click()
        expect(page.get_by_role("heading", name="What a click is worth")).to_be_visible()
        page.goto("about:blank")


def test_a_plan_deleted_elsewhere_says_so_and_is_brought_back_where_it_stood(
    sample: Page, plan: str
):
    api = plan.replace("/plan/", "/api/plans/")
    stage(sample, "Fit")
    httpx.delete(api, timeout=20).raise_for_status()
    expect(sample.get_by_role("main")).to_contain_text("It is deleted; nothing of it is lost")
    sample.get_by_role("button", name="Bring it back").click()
    expect(sample.get_by_role("heading", name="Fit", exact=True)).to_be_visible()
    # brought back elsewhere, it is there again without a press
    httpx.delete(api, timeout=20).raise_for_status()
    expect(sample.get_by_role("button", name="Bring it back")).to_be_visible()
    httpx.post(f"{api}/restore", timeout=20).raise_for_status()
    expect(sample.get_by_role("heading", name="Fit", exact=True)).to_be_visible()


def test_another_window_shows_a_change_within_a_moment(sample: Page, plan: str):
    other = watched_page(sample.context, [])
    other.goto(f"{plan}/sift")
    expect(other.get_by_role("link", name="Sift")).to_contain_text("160 kept")
    stage(sample, "Sift")
    sample.get_by_label("Filter: words in").fill("slimline")
    sample.keyboard.press("Enter")
    sample.keyboard.press("ArrowDown")
    sample.keyboard.press("3")
    expect(sample.get_by_role("link", name="Sift")).not_to_contain_text("160 kept · 385 to call")
    expect(other.get_by_role("link", name="Sift")).not_to_contain_text("160 kept · 385 to call")
    other.close()


def test_what_was_entered_is_there_after_a_restart(page: Page, tmp_path: Path):
    for spend in ("432", None):
        with served(tmp_path, draws=400) as url:
            page.goto(f"{url}/plan/1/brief")
            field = page.get_by_label("Monthly spend", exact=True)
            if spend:
                field.fill(spend)
                field.press("Enter")
                expect(page.get_by_role("region", name="Purse")).to_contain_text("of 432.00")
            else:
                expect(field).to_have_value("432")
            page.goto("about:blank")
