"""Keywords put together in groups, in the real program."""

import re

import httpx
from playwright.sync_api import Page, expect

from tests.browser.test_access import findings


def arrange(page: Page, plan: str) -> None:
    page.goto(f"{plan}/arrange")
    page.get_by_role("grid", name="Ad groups").get_by_role("row").nth(2).wait_for()
    page.get_by_title("8 months in 10 lie between").first.wait_for()  # from then on marked if late


def bare_in_trail(page: Page) -> int:
    text = page.get_by_role("link", name="Arrange").inner_text()
    return int(re.sub(r"\D", "", text.split("\n")[-1]))


def test_a_ready_structure_is_taken_and_undone_with_keys_alone(plan: str, page: Page):
    arrange(page, plan)
    before = bare_in_trail(page)
    page.keyboard.press("b")
    page.get_by_role("dialog").get_by_text("keywords would move").first.wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    page.get_by_role("button", name="Its workings").focus()
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("heading", name="Beside the plan as it is")).to_be_visible()
    assert findings(page) == []
    dialog.get_by_role("radio", checked=True).focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="arrange by theme")).to_be_visible()
    assert bare_in_trail(page) > before
    page.keyboard.press("Control+z")
    expect(page.get_by_role("link", name="Arrange")).to_contain_text(f"{before} without an ad")


def test_a_keyword_moves_to_a_group_of_its_own_and_stays_there(plan: str, page: Page):
    arrange(page, plan)
    page.keyboard.press("n")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("x")
    page.keyboard.press("m")
    page.get_by_label("to the group").fill("By itself")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="move 1 keyword")).to_be_visible()
    page.reload()
    grid = page.get_by_role("grid", name="Ad groups")
    expect(grid.get_by_role("row").filter(has_text="By itself")).to_contain_text("1 of 1")


def test_a_negative_that_hurts_is_seen_and_taken_out(plan: str, page: Page):
    api = plan.replace("/plan/", "/api/plans/")
    httpx.post(f"{api}/negatives", json={"texts": ["cord"], "match": "phrase"}, timeout=20)
    arrange(page, plan)
    page.keyboard.press("c")
    expect(page.get_by_role("list", name="Conflicts")).to_contain_text("cord: a negative stops")
    assert findings(page) == []
    page.get_by_role("button", name="take “cord” out").click()
    expect(page.get_by_text("Nothing gets in each other")).to_be_visible()


def test_negatives_are_pasted_read_and_what_is_proposed_is_taken_by_keys(plan: str, page: Page):
    api = plan.replace("/plan/", "/api/plans/")
    held = httpx.get(api, timeout=20).json()["sheet"]["texts"]
    ids = dict(zip(held["text"], held["id"], strict=True))
    wide = {"ids": [ids["sash window repair"]], "match": "phrase"}
    httpx.post(f"{api}/keywords/edit", json=wide, timeout=20)
    drop = [i for text, i in ids.items() if text.startswith("sash window repair ")][:4]
    httpx.post(f"{api}/calls", json={"ids": drop, "call": "drop"}, timeout=20)
    arrange(page, plan)
    page.keyboard.press("e")
    page.get_by_role("grid", name="What to block next").get_by_role("row").nth(1).wait_for()
    proposed = page.get_by_role("grid", name="What to block next").get_by_role("row").nth(1)
    proposed.get_by_role("button").click()
    told = page.get_by_role("complementary", name="Workings")
    expect(told).to_contain_text("money that goes to what nobody kept")
    assert findings(page) == []
    told.get_by_role("button", name="Close the workings").click()
    page.keyboard.press("n")
    page.get_by_label("Negatives, one a line").fill("jobs\nsash, phrase\ncourse, nearly")
    lines = page.get_by_role("list", name="What they would do")
    expect(lines).to_contain_text("hurts sash window repair")
    expect(lines).to_contain_text("expected one of exact, phrase, broad")
    assert findings(page) == []
    page.get_by_role("button", name="Add 1 negative").click()
    expect(page.get_by_label("Negatives, one a line")).to_have_value("sash, phrase\ncourse, nearly")
    page.keyboard.press("Escape")
    expect(page.get_by_role("grid", name="Negatives")).to_contain_text("jobs")
    page.keyboard.press("s")
    page.get_by_role("button", name="New list …").click()
    page.get_by_label("called").fill("Learners")
    page.get_by_label("Negatives of the list, one a line").fill("course\ntraining, broad")
    assert findings(page) == []
    page.get_by_role("button", name="Keep the list").click()
    page.get_by_role("button", name="use it in this plan: Learners").click()
    expect(page.get_by_role("list", name="Lists")).to_contain_text("used, edition 1")
    assert findings(page) == []
    page.keyboard.press("Escape")
    page.keyboard.press("Shift+Y")
    expect(page.get_by_role("region", name="What to block next")).to_contain_text("No money goes")
    page.keyboard.press("Control+z")
    page.get_by_role("grid", name="What to block next").get_by_role("row").nth(1).wait_for()


def test_a_campaign_is_made_filled_and_given_hours_of_its_own(plan: str, page: Page):
    arrange(page, plan)
    page.get_by_role("button", name="new campaign").click()
    page.get_by_label("Name of the new campaign").fill("Weekdays")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Open the campaign Weekdays").wait_for()
    page.get_by_role("button", name=re.compile("Campaign of the group$")).click()
    page.get_by_role("option", name="in Weekdays").click()
    page.get_by_role("button", name="Open the campaign Weekdays").click()
    page.get_by_label("Most money a month").fill("90")
    page.keyboard.press("Enter")
    head = page.get_by_role("grid", name="Ad groups")
    expect(head).to_contain_text("at most 90.00")
    page.get_by_label("Days of showing").get_by_text("Sun").click()
    expect(head).to_contain_text("Mon–Sat")
    assert findings(page) == []


def test_ads_and_pages_are_written_by_keys_alone_and_every_view_is_clean(plan: str, page: Page):
    arrange(page, plan)
    trail = page.get_by_role("navigation", name="Stages")
    expect(trail).to_contain_text("3 without an ad")
    page.keyboard.press("u")
    page.get_by_label("headline 1").wait_for()
    page.keyboard.type("Sash cords replaced ‹town›")
    expect(page.get_by_text("‹town› is no placeholder")).to_be_visible()
    for _ in "‹town›":
        page.keyboard.press("Backspace")
    page.keyboard.press("Tab")
    page.keyboard.type("Ask us today")
    page.keyboard.press("Enter")
    expect(trail).to_contain_text("2 without an ad")
    assert findings(page) == []
    page.keyboard.press("Control+a")
    page.get_by_role("grid", name="Ad groups").focus()
    page.keyboard.press("v")
    page.keyboard.press("3")
    page.get_by_role("grid", name="Ads").wait_for()
    page.keyboard.press("r")
    expect(page.get_by_role("radio", name="Ads 8", exact=True)).to_be_visible()
    expect(trail).to_contain_text("1 campaign, 7 groups")
    assert findings(page) == []
    page.keyboard.press("h")
    page.get_by_label("search, capitals or not").fill("ask us")
    page.get_by_label("replace by").fill("Call us")
    expect(page.get_by_role("list", name="What would change")).to_contain_text("Call us today")
    assert findings(page) == []
    page.get_by_role("button", name=re.compile("Replace in")).press("Enter")
    expect(page.get_by_role("grid", name="Ads")).to_contain_text("Call us today")
    page.keyboard.press("v")
    page.keyboard.press("4")
    pages = page.get_by_role("grid", name="Groups and their pages")
    expect(pages.get_by_role("row").nth(1)).to_contain_text("no page")
    page.keyboard.press("r")
    page.get_by_label("The page’s text, pasted").fill("Sash cords\nWe put in new cords.")
    page.get_by_role("button", name="read what is pasted").press("Enter")
    page.get_by_label("Address of pasted").fill("/cords")
    assert findings(page) == []
    page.get_by_role("button", name="Keep 1 page").press("Enter")
    expect(page.get_by_role("radio", name="Pages 4", exact=True)).to_be_visible()
    page.get_by_role("radio", name=re.compile("^All pages")).press("Space")
    expect(page.get_by_role("list", name="All pages")).to_contain_text("Sash cords")
    assert findings(page) == []
    page.get_by_role("radio", name=re.compile("^Worth writing")).press("Space")
    page.get_by_role("list", name="Words no page says").wait_for()
    assert findings(page) == []
    for _ in range(4):
        page.keyboard.press("Control+z")
    expect(trail).to_contain_text("3 without an ad")


def test_groups_and_keywords_are_dragged_where_they_belong(plan: str, page: Page):
    arrange(page, plan)
    page.get_by_role("button", name="new campaign").click()
    page.get_by_label("Name of the new campaign").fill("Colours")
    page.keyboard.press("Enter")
    head = page.get_by_role("button", name="Open the campaign Colours")
    head.wait_for()
    page.get_by_role("button", name="Drag Paint").drag_to(head)
    expect(page.get_by_role("status").filter(has_text="move 1 group to Colours")).to_be_visible()
    groups = page.get_by_role("grid", name="Ad groups")
    groups.get_by_role("row").filter(has_text="Repair").first.click()
    grip = page.get_by_role("button", name="Drag sash window repair", exact=True)
    grip.drag_to(groups.get_by_title(re.compile("^Glazing:")))
    expect(page.get_by_role("status").filter(has_text="move 1 keyword to Glazing")).to_be_visible()
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(groups.get_by_role("row").nth(2)).to_contain_text("Repair")
