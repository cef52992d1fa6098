"""A month that was lived is read, decided on, and closed."""

import re
import time

import httpx
from playwright.sync_api import Page, expect

from tests.browser.test_access import findings


def lived(plan: str) -> str:
    """Let a plan with some phrase keywords live a month; return the address of its API."""
    program, number = plan.split("/plan/")
    api = f"{program}/api/plans/{number}"
    with httpx.Client(timeout=60) as client:
        texts = client.get(api).json()["sheet"]["texts"]
        client.post(f"{api}/keywords/edit", json={"ids": texts["id"][:12], "match": "phrase"})
        client.post(f"{api}/practice", json={"seed": 4}).raise_for_status()
        client.post(f"{api}/practice/send", json={}).raise_for_status()
        client.post(f"{api}/practice/clock", json={"days": 30}).raise_for_status()
        while client.get(f"{api}/practice").json()["account"]["clock"] == "running":
            time.sleep(0.1)
    return api


def shown(page: Page, name: str) -> None:
    page.get_by_role("radiogroup", name="What is shown").get_by_text(name).click()


def test_results_are_taken_over_terms_decided_and_the_month_closed(page: Page, plan: str) -> None:
    lived(plan)
    page.goto(f"{plan}/learn")
    expect(page.get_by_text("Here results are held against the plan")).to_be_visible()
    assert findings(page) == []
    page.get_by_role("button", name="Take over from the practice market").click()
    expect(page.get_by_role("radiogroup", name="What is shown")).to_be_visible()
    waits = page.get_by_role("grid", name="What waits")
    expect(waits).to_be_visible()
    before = int(waits.get_attribute("aria-rowcount") or 0)
    assert before > 2
    assert findings(page) == []
    waits.focus()
    page.keyboard.press("Enter")
    expect(waits).not_to_have_attribute("aria-rowcount", str(before))
    page.keyboard.press("Control+z")
    expect(waits).to_have_attribute("aria-rowcount", str(before))

    page.keyboard.press("n")
    expect(waits).to_have_attribute("aria-rowcount", str(before - 1))
    expect(page.get_by_role("button", name="What is shown of the queue")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(waits).to_have_attribute("aria-rowcount", str(before))

    shown(page, "The month")
    expect(page.get_by_role("table", name="Why the customers differ")).to_be_visible()
    expect(page.get_by_role("table", name="Our word so far")).to_be_visible()
    page.get_by_role("textbox", name="Customers counted").click()
    page.keyboard.type("4")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Count them").click()
    expect(page.get_by_text("(with 4 counted by hand)")).to_be_visible()
    page.get_by_label("Visits of the whole site").fill("900")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text(re.compile("With all 900 visits of the site"))).to_be_visible()
    assert findings(page) == []
    shown(page, "Looked over")
    expect(page.get_by_text("What stands out")).to_be_visible()
    assert findings(page) == []
    shown(page, "Terms")
    expect(page.get_by_role("grid", name="Terms")).to_be_visible()
    assert findings(page) == []
    shown(page, "Keywords")
    expect(page.get_by_role("grid", name="Keywords by their results")).to_be_visible()
    assert findings(page) == []
    shown(page, "Corrections")
    expect(page.get_by_text("Close the month").first).to_be_visible()
    assert findings(page) == []
    page.get_by_role("button", name="Close the month").click()
    page.wait_for_url("**/fit?view=versions")
    expect(page.get_by_text("October 2027").first).to_be_visible()

    page.goto(f"{plan}/learn")
    on = page.get_by_role("link", name="Go on with October 2027")
    expect(on).to_be_visible()
    assert findings(page) == []
    page.get_by_role("button", name="Open it again").click()
    expect(on).to_have_count(0)
    page.keyboard.press("g")
    page.keyboard.press("c")
    expect(page.get_by_role("heading", name="All clients")).to_be_visible()
    line = page.get_by_role("row").filter(has_text="Eastmere").first
    expect(line).to_be_visible()
    expect(page.get_by_text("still being looked at")).to_have_count(0)
    assert findings(page) == []
