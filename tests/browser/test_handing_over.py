"""Hand over as a planner works in it: checks mended, sheets sent, changes told, one printed."""

import re

from playwright.sync_api import FilePayload, Page, Route, expect

from tests.browser.test_access import Walk


def opened(page: Page, plan: str) -> None:
    page.goto(f"{plan}/hand-over")
    page.get_by_role("grid", name="Upload sheet").get_by_role("row").nth(2).wait_for()


def view(page: Page, name: str) -> None:
    page.get_by_role("radiogroup", name="What is shown").get_by_text(name).click()


def test_what_changed_since_it_was_sent_is_told_and_gone_back_to(plan: str, page: Page):
    opened(page, plan)
    with page.expect_download():
        page.get_by_role("button", name="Send CSV").click()
    expect(page.get_by_role("link", name="Hand over")).to_contain_text("1 sent")
    page.goto(f"{plan}/fit")
    purse = page.get_by_role("textbox", name="Purse")
    purse.fill("300")
    purse.press("Enter")
    expect(page.get_by_role("region", name="Purse")).to_contain_text("of 300.00")
    opened(page, plan)
    page.get_by_role("button", name="Which rows").click()
    page.get_by_role("option", name=re.compile("only what changed")).click()
    changed = page.get_by_role("region", name="Changed rows")
    expect(changed).to_contain_text("campaigns")
    expect(changed).to_contain_text(re.compile(r"Then 13\.5 customers for 600\.00 GBP"))
    view(page, "What was sent 1")
    page.get_by_role("button", name="State of what was sent").click()
    page.get_by_role("option", name="running").click()
    expect(page.get_by_role("button", name="State of what was sent")).to_contain_text("running")
    page.get_by_role("button", name="go back to it as a version").click()
    page.wait_for_url(re.compile(r"fit\?view=versions"))
    expect(page.get_by_role("region", name="Purse")).to_contain_text("of 600.00")


def test_a_check_is_mended_by_one_key(plan: str, page: Page):
    page.goto(f"{plan}/fit")
    bids = page.get_by_role("grid", name="Bids")
    bids.get_by_role("row").nth(1).get_by_role("button", name=re.compile("^Bid for")).click()
    bids.get_by_role("textbox").fill("40")
    bids.get_by_role("textbox").press("Enter")
    expect(page.get_by_role("button", name="Undo: lock the bid")).to_be_visible()
    opened(page, plan)
    checks = page.get_by_role("complementary", name="Last checks")
    expect(checks).to_contain_text("1 bid is above its ceiling")
    page.keyboard.press("m")
    expect(checks).not_to_contain_text("above its ceiling")
    expect(page.get_by_role("button", name="Undo: give the bids back")).to_be_visible()


def test_the_clients_sheet_is_shown_as_it_is_printed_and_chosen_from(plan: str, page: Page):
    opened(page, plan)
    view(page, "The client’s sheet")
    sheet = page.frame_locator("iframe")
    expect(sheet.get_by_role("heading", name="To buy now")).to_be_visible()
    page.get_by_role("checkbox", name="to buy now").click(force=True)
    expect(sheet.get_by_role("heading", name="Next in line")).to_be_visible()
    expect(sheet.get_by_role("heading", name="To buy now")).to_have_count(0)
    letterhead = page.get_by_role("textbox", name="Letter-head")
    letterhead.fill("Ann Grove, Wrenfold")
    letterhead.press("Enter")
    expect(sheet.get_by_text("Ann Grove")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="PDF").click()
    assert download.value.path().read_bytes().startswith(b"%PDF")


def picked(page: Page, button: str, file: FilePayload) -> None:
    """Press what asks for a file, and choose one."""
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name=button).click()
    chooser.value.set_files([file])


ACCOUNT = (
    "No;Wording;Kind;Top;Lit\n7;sash window repair;Exact;0,40;ON\n9;a stranger;Exact;0,10;ON\n"
)


def test_a_file_brought_in_before_the_view_has_its_first_answer_is_shown(plan: str, page: Page):
    held: list[Route] = []

    def late(route: Route) -> None:
        if route.request.method == "GET" and not held:
            held.append(route)  # asked for before the file came in, answered long after
        else:
            route.continue_()

    opened(page, plan)
    page.route("**/hand-over/account", late)
    view(page, "Your account’s file")
    file = {"name": "konto.csv", "mimeType": "text/csv", "buffer": ACCOUNT.encode()}
    with page.expect_response(lambda answer: answer.request.method == "POST"):
        picked(page, "bring in a file", file)
    assert held
    held[0].fulfill(json=None)
    expect(page.get_by_text("konto.csv")).to_be_visible()


def test_an_accounts_file_is_assigned_and_written_back(plan: str, page: Page):
    opened(page, plan)
    view(page, "Your account’s file")
    file = {"name": "konto.csv", "mimeType": "text/csv", "buffer": ACCOUNT.encode()}
    picked(page, "bring in a file", file)
    page.get_by_text("konto.csv").wait_for()
    for role, heading in (("keyword", "Wording"), ("bid", "Top"), ("whether it runs", "Lit")):
        page.get_by_role("button", name=f"Column of {role}").click()
        page.get_by_role("option", name=heading).click()
        expect(page.get_by_role("button", name=f"Column of {role}")).to_contain_text(heading)
    expect(page.get_by_role("table", name="Rows that change")).to_contain_text("sash window repair")
    with page.expect_download() as download:
        page.get_by_role("button", name="take the changed rows").click()
    assert download.value.path().read_text().startswith("No;Wording;Kind;Top;Lit")


def test_axe_finds_nothing_in_any_view_of_hand_over(plan: str, page: Page):
    opened(page, plan)
    walk = Walk(page)
    walk.look("upload")
    page.get_by_role("button", name="Sheet", exact=False).first.click()
    page.get_by_role("option", name=re.compile("^campaigns")).click()
    page.get_by_role("columnheader", name="daily budget").wait_for()
    walk.look("campaigns")
    with page.expect_download():
        page.get_by_role("button", name="Send CSV").click()
    view(page, "What was sent")
    page.get_by_role("button", name="compare with now").click()
    page.get_by_text("nothing changed").wait_for()
    walk.look("sent")
    view(page, "The client’s sheet")
    page.frame_locator("iframe").get_by_role("heading", level=1).wait_for()
    walk.look("the client's sheet")
    view(page, "Your account’s file")
    page.get_by_role("button", name="bring in a file").wait_for()
    walk.look("account's file")
    walk.end()


def test_a_sheet_leaves_in_the_platforms_own_columns(plan: str, page: Page):
    opened(page, plan)
    page.get_by_role("button", name="columns and names").click()
    shape = page.get_by_role("region", name="Columns of keywords")
    heading = shape.get_by_role("textbox", name="Heading of keyword")
    heading.fill("Phrase")
    heading.press("Enter")
    grid = page.get_by_role("grid", name="Upload sheet")
    expect(grid.get_by_role("columnheader", name="Phrase")).to_be_visible()
    expect(page.get_by_role("button", name="Undo: shape of upload sheets")).to_be_visible()
    shape.get_by_role("button", name="keyword one place forward").click()
    shape.get_by_text("campaign", exact=True).click()
    expect(grid.get_by_role("columnheader").first).to_contain_text("Phrase")
    heading = shape.get_by_role("textbox", name="Heading of bid")
    heading.fill("phrase")
    heading.press("Enter")
    expect(heading).to_have_attribute("aria-invalid", "true")
    shape.get_by_role("button", name="columns as they come").click()
    expect(grid.get_by_role("columnheader", name="Campaign")).to_be_visible()


def test_a_sheet_that_somebody_changed_is_read_back_and_its_bids_taken(plan: str, page: Page):
    opened(page, plan)
    page.get_by_role("button", name="Country whose public holidays").click()
    page.get_by_role("option", name="Germany", exact=True).click()
    page.get_by_role("button", name="Part of the country").click()
    page.get_by_role("option", name="Bayern").click()
    expect(page.get_by_role("button", name="Part of the country")).to_contain_text("Bayern")
    address = f"{plan.replace('/plan/', '/api/plans/')}/hand-over/look?kind=csv&sheet=keywords"
    left = page.request.get(address).text()
    changed = re.sub(r",exact,[\d.]+,yes,", ",exact,0.77,yes,", left, count=1)
    back = {"name": "back.csv", "mimeType": "text/csv", "buffer": changed.encode()}
    picked(page, "read a sheet back", back)
    shown = page.get_by_role("region", name="What came back")
    expect(shown).to_contain_text(re.compile(r"159 rows as in the plan.*1 row say"))
    shown.get_by_role("button", name="take over 1 bid").click()
    expect(page.get_by_role("button", name="Undo: take over 1 bid")).to_be_visible()
    grid = page.get_by_role("grid", name="Upload sheet")
    expect(grid.get_by_role("row").filter(has_text="0.77")).to_have_count(1)
