"""Further sources of Gather, and the brief in full, through the real interface."""

import re

from playwright.sync_api import Page, expect

from tests.browser.test_access import findings


def source(page: Page, name: str) -> None:
    page.get_by_role("link", name="Gather").click()
    page.get_by_role("option", name=re.compile(name)).click()


def test_a_crossing_is_counted_as_it_is_written_and_taken_in(sample: Page):
    source(sample, "Crossing")
    lists = sample.get_by_label("List 1, words between commas")
    lists.fill("pulley, staff bead")
    lists.press("Enter")
    expect(sample.get_by_role("status").filter(has_text="new keywords")).to_contain_text(
        "56 new keywords"
    )
    sample.get_by_role("button", name="Put 56 into the tray").click()
    sample.get_by_role("button", name="Take in 56").click()
    expect(sample.get_by_role("link", name="Gather")).to_contain_text("657 keywords")
    sample.keyboard.press("Control+z")
    expect(sample.get_by_role("link", name="Gather")).to_contain_text("601 keywords")


def test_the_almanac_says_that_it_is_simulated_and_brings_figures(sample: Page):
    source(sample, "Almanac")
    expect(sample.get_by_text("It is simulated")).to_be_visible()
    sample.get_by_label("Root words, between commas").fill("staff bead")
    sample.get_by_role("button", name="Ask the almanac").click()
    expect(sample.get_by_text(re.compile("simulated; .* look-ups left"))).to_be_visible()
    expect(sample.get_by_role("grid", name="Rows: new")).to_contain_text("staff bead")


def test_what_only_rivals_buy_goes_to_the_tray_with_one_key(sample: Page):
    source(sample, "Rivals")
    sample.get_by_role("button", name="Three invented rivals").click()
    grid = sample.get_by_role("grid", name="Rivals' keywords")
    grid.get_by_role("row").nth(1).click()
    grid.press("Control+a")
    grid.press("Enter")
    expect(sample.get_by_role("grid", name="Rows: new")).to_be_visible()
    source(sample, "Rivals")
    assert findings(sample) == []


def test_each_rival_stands_in_sum_and_its_part_can_be_looked_at_in_a_small_window(sample: Page):
    source(sample, "Rivals")
    sample.get_by_role("button", name="Three invented rivals").click()
    sample.get_by_role("radio", name="by rival").click()
    expect(sample.get_by_role("region", name="Keywords that two both buy")).to_be_visible()
    assert findings(sample) == []
    sample.set_viewport_size({"width": 640, "height": 400})
    totals = sample.get_by_role("grid", name="Rivals in sum")
    totals.get_by_text("Brightsash", exact=True).click()
    expect(totals.get_by_role("row").nth(2)).to_be_in_viewport()
    sample.get_by_role("button", name="Whose").click()
    sample.get_by_role("option", name="Brightsash").click()
    sample.get_by_role("radio", name="both buy").click()
    expect(sample.get_by_role("grid", name="Keywords both buy")).to_be_visible()
    sample.set_viewport_size({"width": 1280, "height": 800})


def test_another_towns_keywords_come_back_with_ones_own(sample: Page):
    source(sample, "Other places")
    sample.get_by_role("button", name=re.compile("lythe bay")).click()
    sample.get_by_role("button", name="Block 1 place").click()
    expect(sample.get_by_role("status").filter(has_text="block")).to_contain_text("lythe bay")
    source(sample, "Never wanted")
    expect(sample.get_by_role("row").filter(has_text="lythe bay")).to_contain_text("phrase")


def test_thirty_to_start_with_are_picked_and_kept(sample: Page):
    source(sample, "To start with")
    sample.get_by_role("button", name="Pick them").click()
    sample.get_by_role("button", name="Keep these 30").click()
    expect(sample.get_by_role("heading", name="Sift")).to_be_visible()


def test_the_season_is_moved_by_keys_and_tax_leaves_the_purse(sample: Page):
    month = sample.get_by_role("slider", name="September")
    month.focus()
    month.press("ArrowUp")
    expect(month).to_have_attribute("aria-valuenow", "1.1")
    sample.get_by_role("button", name="tax or a fee is in it").click()
    tax = sample.get_by_label("Tax on it, per cent")
    tax.fill("20")
    tax.press("Enter")
    expect(sample.get_by_role("region", name="Purse")).to_contain_text("of 500.00 GBP a month")


def test_a_second_offer_and_a_platform_change_the_brief(sample: Page):
    sample.get_by_role("button", name="we sell something else too").click()
    expect(sample.get_by_label("Name of offer 2")).to_have_value("another offer 2")
    sample.get_by_role("button", name=re.compile("Ad platform")).click()
    sample.get_by_role("option", name="Harbour Market").click()
    expect(sample.get_by_label("Least bid")).to_have_value("0.03")
    expect(sample.get_by_role("button", name=re.compile("How clicks are priced"))).to_contain_text(
        "exactly what was bid"
    )


def test_the_running_account_becomes_the_start_and_results_fill_the_brief(sample: Page):
    source(sample, "The running account")
    sample.get_by_role("button", name="A made-up account").click()
    expect(sample.get_by_text("By this plan’s own figures")).to_contain_text("customers +")
    sample.get_by_role("button", name="Keep all that runs").click()
    expect(sample.get_by_role("status").filter(has_text="start from account.csv")).to_be_visible()
    sample.get_by_role("link", name="Brief").click()
    sample.get_by_role("button", name="these were enquiries").click()
    expect(sample.get_by_role("status").filter(has_text="from results")).to_be_visible()
    expect(sample.get_by_label("Enquiries of 100 visitors, likely")).to_have_value("3.01")


def test_a_trays_rows_can_be_come_by_in_a_small_window_and_lie_over_nothing(sample: Page):
    source(sample, "A file or a list")
    rows = "".join(f"\nsash lift number {n}\t{n}" for n in range(40))
    sample.get_by_label("Pasted rows").fill(f"keyword\tvolume{rows}")
    sample.get_by_role("button", name="Read what is pasted").click()
    sample.set_viewport_size({"width": 640, "height": 400})
    grid = sample.get_by_role("grid", name="Rows: new")
    grid.get_by_text("sash lift number 3", exact=True).click()
    row = grid.get_by_role("row").nth(2).bounding_box()
    purse = sample.get_by_role("region", name="Purse").bounding_box()
    assert row is not None and purse is not None
    assert row["y"] + row["height"] <= purse["y"] + 1
    sample.set_viewport_size({"width": 1280, "height": 800})
