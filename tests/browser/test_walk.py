"""The walk of a first-time user, in the real program."""

import csv
import io
import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import stage

OWN_FILE = "\ufeffSearch term;Searches a month;Low price;High price\r\n" + "\r\n".join(
    [
        "garden gate repair;170;0,75 €;1,70",
        "garden gate painter;10 to 100;0,60;1,90",
        '"garden gate\nlatch";< 10;0,40;1,10',
        "gate hinge fitter;1,2K;1,90;0,70",
        "gate post;about forty;0,30;0,80",
        "garden gate repair;90;0,50;1,00",
        "=cmd gate;20;0,20;0,60",
    ]
)


def purse_figure(page: Page, label: str) -> float:
    text = page.get_by_role("region", name="Purse").get_by_role("button", name=label).inner_text()
    return float(text.split("\n")[0].replace(",", ""))


def test_the_sample_opens_with_its_money_spent(sample: Page):
    expect(sample.get_by_role("link", name="Gather")).to_contain_text("601 keywords")
    expect(sample.get_by_role("region", name="Purse")).to_contain_text("of 600.00 GBP a month")
    assert purse_figure(sample, "customers a month") > 5


def test_a_changed_brief_moves_ceiling_and_purse_at_once_and_is_undone(sample: Page):
    before = purse_figure(sample, "customers a month")
    field = sample.get_by_label("Sale value", exact=True)
    field.fill("170")
    field.press("Enter")
    expect(sample.get_by_role("link", name="Brief")).to_contain_text("ceiling 2.36")
    assert purse_figure(sample, "customers a month") < before
    sample.keyboard.press("Control+z")
    expect(field).to_have_value("340")
    expect(sample.get_by_role("status")).to_contain_text("undid: change the sale value")
    sample.keyboard.press("Control+Shift+z")
    expect(field).to_have_value("170")


def test_an_impossible_figure_is_said_and_stays_to_be_mended(sample: Page):
    field = sample.get_by_label("Gross margin, per cent")
    field.fill("155")
    field.press("Enter")
    expect(sample.get_by_role("status")).to_contain_text("at most 1 (100 %)")
    expect(field).to_have_value("155")
    field.fill("60")
    field.press("Enter")
    expect(sample.get_by_role("link", name="Brief")).to_contain_text("ceiling 5.14")


def test_a_file_of_ones_own_lands_in_the_tray_and_is_taken_in(sample: Page, tmp_path: Path):
    stage(sample, "Gather")
    file = tmp_path / "gates.csv"
    file.write_text(OWN_FILE, encoding="utf-8", newline="")
    with sample.expect_file_chooser() as chooser:
        sample.get_by_role("button", name="Choose a file").click()
    chooser.value.set_files(file)
    tabs = sample.get_by_role("radiogroup", name="Rows of the file")
    expect(tabs).to_contain_text("4 new")
    expect(sample.get_by_text("semicolon between cells, decimal comma")).to_be_visible()
    tabs.get_by_role("radio", name="3 refused").click()
    refused = sample.get_by_role("grid", name="Rows: refused")
    expect(refused).to_contain_text('expected a price not above the high price (0,70), got "1,90"')
    expect(refused).to_contain_text("about forty")
    expect(refused).to_contain_text("row 2 has it")
    sample.get_by_role("button", name="Take in 4").click()
    expect(sample.get_by_role("heading", name="Sift")).to_be_visible()
    expect(sample.get_by_role("link", name="Gather")).to_contain_text("605 keywords")
    sample.get_by_label("Filter: words in").fill("gate")
    expect(sample.get_by_role("grid", name="Keywords")).to_contain_text("garden gate latch")


def test_columns_are_corrected_in_the_tray(sample: Page):
    stage(sample, "Gather")
    sample.get_by_label("Pasted rows").fill("one\ttwo\n10\tgate post\n20\tgate latch")
    sample.get_by_role("button", name="Read what is pasted").click()
    sample.get_by_role("button", name=re.compile("Column 1")).click()
    sample.get_by_role("option", name="searches a month", exact=True).click()
    grid = sample.get_by_role("grid", name="Rows: new")
    row = grid.get_by_role("row").filter(has_text="gate post")
    expect(row).to_contain_text("10")


def test_keywords_are_called_with_keys_alone(sample: Page):
    sample.keyboard.press("g")
    sample.keyboard.press("s")
    grid = sample.get_by_role("grid", name="Keywords")
    expect(grid).to_be_focused()
    sample.keyboard.press("/")
    sample.keyboard.type("painting -wrenfold")
    sample.keyboard.press("Enter")
    expect(grid).to_be_focused()
    trail = sample.get_by_role("link", name="Sift")
    expect(trail).to_contain_text("160 kept · 385 to call")
    texts = grid.get_by_role("row").all_inner_texts()
    sample.keyboard.press("ArrowDown")
    sample.keyboard.press("Control+a")
    sample.keyboard.press("1")
    expect(trail).not_to_contain_text("160 kept")
    expect(grid.get_by_role("img", name="not yet called")).to_have_count(0)
    expect(grid.get_by_role("img", name="drop")).to_have_count(0)
    # rows stay where they were: only their marks and figures changed
    assert [t.split("\n")[1] for t in grid.get_by_role("row").all_inner_texts()[1:]] == [
        t.split("\n")[1] for t in texts[1:]
    ]
    sample.keyboard.press("Control+z")
    expect(trail).to_contain_text("160 kept · 385 to call")


def test_a_selection_is_extended_and_called_and_the_call_repeated(sample: Page):
    stage(sample, "Sift")
    sample.get_by_label("Filter: words in").fill("slimline")
    sample.keyboard.press("Enter")
    sample.keyboard.press("ArrowDown")
    sample.keyboard.press("Shift+ArrowDown")
    sample.keyboard.press("Shift+ArrowDown")
    expect(sample.get_by_text("3 selected")).to_be_visible()
    sample.keyboard.press("2")
    grid = sample.get_by_role("grid", name="Keywords")
    expect(grid.get_by_role("img", name="hold")).to_have_count(3)
    sample.keyboard.press("j")
    sample.keyboard.press(".")
    expect(grid.get_by_role("img", name="hold")).to_have_count(4)


def test_single_keys_rest_while_a_field_has_focus_and_can_be_switched_off(sample: Page):
    stage(sample, "Sift")
    grid = sample.get_by_role("grid", name="Keywords")
    grid.get_by_role("row").nth(3).click()
    sample.get_by_label("Filter: words in").fill("1")
    expect(sample.get_by_role("link", name="Sift")).to_contain_text("160 kept")
    sample.get_by_label("Filter: words in").fill("")
    sample.get_by_role("button", name="Keys").click()
    sample.get_by_label("single keys work").uncheck()
    sample.get_by_role("button", name="Close", exact=True).click()
    grid.focus()
    sample.keyboard.press("4")
    expect(sample.get_by_role("link", name="Sift")).to_contain_text("385 to call")


def test_the_line_is_dragged_in_order_of_price_and_sets_the_highest_price(sample: Page):
    stage(sample, "Sift")
    sample.get_by_role("button", name="Price, GBP").click()
    line = sample.get_by_role("slider", name="The line")
    box = line.bounding_box()
    assert box
    sample.mouse.move(box["x"] + 20, box["y"] + 8)
    sample.mouse.down()
    sample.mouse.move(box["x"] + 20, box["y"] - 200, steps=6)
    sample.mouse.up()
    expect(line).to_have_attribute("aria-valuetext", re.compile(r"^[23]\.\d\d a click"))
    ceiling = sample.get_by_role("link", name="Brief").inner_text()
    assert float(ceiling.split()[-1]) < 4.71
    sample.keyboard.press("Control+z")
    expect(sample.get_by_role("link", name="Brief")).to_contain_text("ceiling 4.71")


def test_workings_show_the_selected_keyword_and_change_its_assumptions(sample: Page):
    stage(sample, "Sift")
    sample.get_by_label("Filter: words in").fill("draughty windows")
    sample.keyboard.press("Enter")
    sample.keyboard.press("ArrowDown")
    panel = sample.get_by_role("complementary", name="Workings")
    expect(panel).to_contain_text("eastmere.csv, row")
    field = panel.get_by_label("Assumption: × learn intent")
    field.fill("0.5")
    field.press("Enter")
    expect(panel).to_contain_text("2.36")
    sample.get_by_role("button", name="profit a month").click()
    expect(panel).to_contain_text("contribution of a customer")
    expect(panel).to_contain_text("chance of no customer")
    expect(sample.get_by_role("button", name="clicks a month")).to_contain_text(
        re.compile(r"\d+ to \d+")
    )
    sample.keyboard.press("w")
    expect(panel).to_be_hidden()


def test_the_edge_of_the_purse_is_dragged(sample: Page):
    stage(sample, "Fit")
    edge = sample.get_by_role("slider", name="The purse's edge")
    before = purse_figure(sample, "customers a month")
    box = edge.bounding_box()
    assert box
    sample.mouse.move(box["x"] + 8, box["y"] + 60)
    sample.mouse.down()
    sample.mouse.move(box["x"] + 150, box["y"] + 60, steps=8)
    expect(sample.get_by_text(re.compile(r"at \d+: about"))).to_be_visible()
    sample.mouse.up()
    expect(sample.get_by_role("link", name="Fit")).not_to_contain_text("of 600")
    assert purse_figure(sample, "customers a month") > before
    edge.focus()
    sample.keyboard.press("ArrowLeft")
    expect(sample.get_by_role("status")).to_contain_text("change the purse")


def test_a_bid_is_typed_locked_and_given_back(sample: Page):
    stage(sample, "Fit")
    bids = sample.get_by_role("grid", name="Bids")
    row = bids.get_by_role("row").nth(1)
    row.get_by_role("button", name=re.compile("^Bid for")).click()
    field = bids.get_by_role("textbox")
    field.fill("1.11")
    field.press("Enter")
    expect(row).to_contain_text("1.11")
    held = row.get_by_role("button", name=re.compile("^Give the bid"))
    expect(held).to_have_attribute("aria-pressed", "true")
    held.click()
    expect(row).not_to_contain_text("1.11")


def test_another_policy_and_goal_are_chosen(sample: Page):
    stage(sample, "Fit")
    sample.get_by_role("button", name="Bid policy").click()
    sample.get_by_role("option", name=re.compile("low price for all")).click()
    expect(sample.get_by_text(re.compile("fitted bids would bring"))).to_be_visible()
    sample.get_by_role("button", name="Goal").click()
    sample.get_by_role("option", name="profit").click()
    expect(sample.get_by_role("region", name="Purse")).to_contain_text("profit")


def test_the_upload_sheet_is_taken_away_and_read_back(sample: Page, tmp_path: Path):
    stage(sample, "Hand over")
    with sample.expect_download() as download:
        sample.get_by_role("button", name="Send CSV").click()
    content = Path(download.value.path()).read_text(encoding="utf-8-sig")
    rows = list(csv.DictReader(io.StringIO(content)))
    assert len(rows) == 160 and all(float(r["bid"]) >= 0.05 for r in rows if r["run"] == "yes")
    expect(sample.get_by_role("link", name="Hand over")).to_contain_text("1 sent")
    with sample.expect_download() as download:
        sample.get_by_role("button", name="Send the plan, JSON").click()
    plan = tmp_path / "plan.json"
    download.value.save_as(plan)
    assert len(json.loads(plan.read_text())["keywords"]) == 601
    sample.get_by_role("button", name="Plans:").click()
    with sample.expect_file_chooser() as chooser:
        sample.get_by_role("button", name="Load a plan’s JSON").click()
    chooser.value.set_files(plan)
    expect(sample).not_to_have_url(re.compile("hand-over"))
    expect(sample.get_by_role("region", name="Purse")).to_contain_text("of 600.00 GBP a month")


def test_a_blank_plan_explains_itself(sample: Page):
    sample.get_by_role("button", name="Plans:").click()
    sample.get_by_role("button", name="a blank page").click()
    expect(sample.get_by_label("Sale value", exact=True)).to_have_attribute("data-assumed", "true")
    for name, words in (
        ("Sift", "No keywords yet"),
        ("Fit", "No keyword is kept yet"),
        ("Hand over", "nothing to upload"),
        ("Gather", "What happens next"),
        ("Arrange", "No groups yet"),
        ("Learn", "Here results are held against the plan"),
    ):
        stage(sample, name)
        expect(sample.get_by_role("main")).to_contain_text(words)
