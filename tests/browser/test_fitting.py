"""Fit as a planner works in it: bids moved, limits set, versions, the year; by hand and by keys."""

import re

from playwright.sync_api import Page, expect

from tests.browser.test_access import Walk


def opened(page: Page, plan: str, view: str = "bids") -> None:
    page.goto(f"{plan}/fit" + ("" if view == "bids" else f"?view={view}"))
    page.get_by_role("heading", name="Fit").wait_for()


def settled(page: Page) -> None:
    page.get_by_title("8 months in 10 lie between").first.wait_for()


def above(page: Page, name: str) -> None:
    page.get_by_role("radiogroup", name="What stands above the bids").get_by_text(
        name, exact=True
    ).click()


def test_a_bulk_step_shows_what_it_does_before_it_is_made(plan: str, page: Page):
    opened(page, plan)
    settled(page)
    grid = page.get_by_role("grid", name="Bids")
    grid.get_by_role("row").nth(1).click(position={"x": 60, "y": 15})
    page.keyboard.press("x")
    page.keyboard.press("Shift+ArrowDown")
    moves = page.get_by_role("region", name="Move bids")
    expect(moves).to_contain_text(re.compile(r"\d+ bids of the plan would change"))
    expect(page.get_by_role("region", name="Purse")).to_contain_text("if kept")
    moves.get_by_role("button", name="How bids move").click()
    page.get_by_role("option", name="to the low price").click()
    expect(moves).to_contain_text("would change")
    moves.get_by_role("button", name="move them").click()
    expect(moves).to_have_count(0)
    expect(page.get_by_role("button", name="Undo: bids of 2 keywords")).to_be_visible()
    expect(grid.get_by_role("button", name="Give the bid")).to_have_count(2)


def test_a_limit_is_set_as_a_sentence_and_says_what_it_costs(plan: str, page: Page):
    opened(page, plan)
    above(page, "Limits")
    page.get_by_role("textbox", name="Most keywords").fill("12")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile(r"[\d.]+ customers fewer"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("customers fewer")).to_have_count(0)


def test_the_question_is_turned_round(looked: str, page: Page):
    opened(page, looked)
    above(page, "Curve")
    asked = page.get_by_role("region", name="Asked the other way round")
    expect(asked).to_contain_text(re.compile(r"[\d.,]+ GBP more a month"))
    asked.get_by_role("textbox", name="How many I need").fill("5000")
    page.keyboard.press("Enter")
    expect(asked).to_contain_text("no money brings them")
    page.get_by_role("button", name="as a table").click()
    expect(page.get_by_role("columnheader", name="purse a month")).to_be_visible()


def test_a_version_is_made_in_one_key_changed_and_made_the_plan(plan: str, page: Page):
    opened(page, plan, "versions")
    page.get_by_text("Change it as you like").wait_for()
    page.keyboard.press("y")
    page.get_by_role("button", name="open", exact=True).click()
    page.wait_for_url(re.compile(r"/plan/\d+/fit\?view=versions"))
    # a version's name gives way on the trail, never a stage
    stages = page.get_by_role("navigation", name="Stages")
    expect(stages.get_by_role("link", name="Learn")).to_be_in_viewport(ratio=1)
    page.get_by_role("textbox", name="Reason for Version 2").fill("a richer month")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo: name the version")).to_be_visible()
    page.get_by_role("radio", name="Bids").click()
    page.get_by_role("textbox", name="Purse").fill("700")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Purse")).to_contain_text("of 700.00")
    page.keyboard.press("v")
    page.keyboard.press("2")
    expect(page.get_by_role("table")).to_contain_text("−100.00")
    expect(page.get_by_text(re.compile(r"in \d+\s% of months"))).to_be_visible()
    told = page.get_by_role("complementary", name="Workings")
    page.get_by_role("button", name="customers a month:").first.click()
    expect(told).to_contain_text("Σ clicks · rate")
    page.get_by_role("button", name=re.compile(r"in \d+\s% of months")).click()
    expect(told).to_contain_text("just as many")
    page.get_by_text("the purse", exact=True).wait_for()
    page.get_by_role("button", name="make it the plan").first.click()
    expect(page.get_by_role("button", name="Undo: make this version the plan")).to_be_visible()


def test_money_is_shifted_between_months_by_keys_and_the_sum_stays(plan: str, page: Page):
    opened(page, plan, "year")
    page.get_by_role("slider", name="Money of October").focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("slider", name="Money of October")).to_have_attribute(
        "aria-valuenow", "610"
    )
    expect(page.get_by_text("7,200.00")).to_be_visible()
    page.get_by_role("button", name="best way to spread").click()
    expect(page.get_by_role("button", name="Undo: the best spread of the year")).to_be_visible()
    expect(page.get_by_role("button", name="are fitted anew each month")).to_be_visible()
    page.get_by_role("button", name="December by its days").click()
    expect(page.get_by_role("region", name="December by its days")).to_contain_text(
        "All daily budgets together come to"
    )


def test_axe_finds_nothing_in_any_view_of_fit(plan: str, page: Page):
    opened(page, plan)
    settled(page)
    walk = Walk(page)
    page.get_by_role("grid").get_by_role("row").nth(2).click(position={"x": 60, "y": 15})
    page.get_by_role("complementary", name="Workings").get_by_role("heading").first.wait_for()
    walk.look("bids")
    for name in ("Curve", "Ways to bid", "Limits", "One cap"):
        above(page, name)
        page.get_by_role("region", name=re.compile("|".join(SHOWN[name]))).first.wait_for()
        walk.look(name)
    page.get_by_role("button", name="Rows").click()
    page.get_by_role("option", name="groups").click()
    page.get_by_role("region", name="Groups in sum").wait_for()
    walk.look("groups")
    page.keyboard.press("v")
    page.keyboard.press("2")
    page.get_by_text("Change it as you like").wait_for()
    page.keyboard.press("y")
    page.get_by_text("Nothing differs").wait_for()
    walk.look("versions")
    page.keyboard.press("v")
    page.keyboard.press("3")
    page.get_by_role("heading", name="What would have to be true").wait_for()
    told = page.get_by_role("complementary", name="Workings")
    for pressed, opens in (
        ("8 in 10 between", "Customers a month"),
        ("nobody buys", "Nobody buys"),
        ("GBP about", "What of the purse will go"),
        ("customers,.* profit$", "What moves it: conversion"),
        ("^the margin$", "What would have to be true: margin"),
        ("; \\d+ to \\d+ customers$", "Where the doubt lies"),
    ):
        page.get_by_role("button", name=re.compile(pressed)).first.click()
        expect(told.get_by_role("heading", level=2)).to_have_text(opens)
    walk.look("how sure")
    page.keyboard.press("v")
    page.keyboard.press("4")
    page.get_by_role("button", name="October by its days").click()
    page.get_by_role("table", name="Money by weekday and hour").wait_for()
    page.get_by_text("small: 8 years in 10").wait_for()
    walk.look("year")
    walk.end()


SHOWN = {
    "Curve": ["Asked the other way round"], "Ways to bid": ["Ways to bid"],
    "Limits": ["Limits of the fit"], "One cap": ["The one cap"],
}  # fmt: skip
