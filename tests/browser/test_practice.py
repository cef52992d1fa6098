"""A planner tries the plan on the simulated platform before paying for it."""

from playwright.sync_api import Page, expect

from tests.browser.test_access import findings


def test_a_plan_is_sent_its_reply_read_a_month_lived_and_the_envelope_opened(
    page: Page, plan: str
) -> None:
    page.goto(f"{plan}/hand-over")
    page.get_by_role("radiogroup", name="What is shown").get_by_text("Practice").click()
    expect(page.get_by_text("Try it before a penny is spent")).to_be_visible()
    assert findings(page) == []
    page.get_by_role("button", name="Open the account").click()
    expect(page.get_by_text("Nothing was sent to it yet")).to_be_visible()
    page.get_by_role("button", name="Send the whole plan").click()
    reply = page.get_by_role("grid", name="The reply sheet")
    expect(reply).to_be_visible()
    first = reply.get_by_role("row").nth(1)
    expect(first).to_contain_text("refused")
    expect(first).to_contain_text("expected at most 36 characters, got 40")
    expect(page.get_by_text("1 row of it not as in the plan")).to_be_visible()
    assert findings(page) == []
    page.get_by_role("button", name="a week").click()
    expect(page.get_by_text("7 days")).to_be_visible()
    expect(page.get_by_role("img", name="Money by day", exact=False)).to_be_visible()
    page.get_by_role("button", name="What of the practice market is shown").click()
    page.get_by_role("option", name="the envelope").click()
    page.get_by_role("button", name="Open the envelope").click()
    expect(page.get_by_text("the best for the same money and keywords")).to_be_visible(
        timeout=20_000
    )
    expect(page.get_by_text("The envelope was opened.")).to_be_visible()
    assert findings(page) == []
