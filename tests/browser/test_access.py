"""axe finds nothing on any screen."""

from pathlib import Path

import pytest
from playwright.sync_api import Page

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
SCREENS = ["brief", "gather", "sift", "arrange", "fit", "hand-over", "learn"]


def findings(page: Page) -> list[str]:
    page.evaluate(AXE.read_text(encoding="utf-8"))
    result = page.evaluate("axe.run(document, {resultTypes: ['violations']})")
    return [
        f"{v['id']}: {v['help']}: {[n['html'][:160] for n in v['nodes'][:3]]}"
        for v in result["violations"]
    ]


@pytest.mark.parametrize("screen", SCREENS)
def test_axe_finds_nothing(plan: str, page: Page, screen: str):
    page.goto(f"{plan}/{screen}")
    page.get_by_role("region", name="Purse").wait_for()
    if screen in ("sift", "fit"):
        page.get_by_role("grid").get_by_role("row").nth(2).click(position={"x": 60, "y": 15})
        page.get_by_role("complementary", name="Workings").get_by_role("heading").first.wait_for()
    page.wait_for_timeout(300)
    assert findings(page) == []


def test_axe_finds_nothing_in_the_tray(plan: str, page: Page):
    page.goto(f"{plan}/gather")
    page.get_by_label("Pasted rows").fill("keyword\tvolume\nsash stop\t10\nsash lift\tmany")
    page.get_by_role("button", name="Read what is pasted").click()
    page.get_by_role("radio", name="refused").click()
    assert findings(page) == []


def test_axe_finds_nothing_in_the_plan_list_and_the_keys(plan: str, page: Page):
    page.goto(f"{plan}/brief")
    page.get_by_role("button", name="Plans:").click()
    page.get_by_role("dialog", name="Plans").wait_for()
    assert findings(page) == []
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Keys").click()
    page.get_by_role("dialog", name="Keys").wait_for()
    assert findings(page) == []
