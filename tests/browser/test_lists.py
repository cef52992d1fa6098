"""Any list leaves as it is shown: copied, or saved as a file."""

import csv
import io
from pathlib import Path

import pytest
from openpyxl import load_workbook
from playwright.sync_api import Page, expect

LISTS = [("sift", "Keywords"), ("arrange", "Ad groups"), ("fit", "Bids"),
         ("hand-over", "Upload sheet"), ("sift?view=words", "Words")]  # fmt: skip


def leave(page: Page, label: str, way: str) -> None:
    page.get_by_role("button", name=f"Take away: {label}", exact=True).click()
    page.get_by_role("menuitem", name=way).click()


@pytest.mark.parametrize(("where", "label"), LISTS)
def test_a_list_is_saved_as_it_is_shown(sample: Page, plan: str, where: str, label: str):
    sample.goto(f"{plan}/{where}")
    grid = sample.get_by_role("grid", name=label, exact=True)
    grid.get_by_role("row").nth(1).wait_for()
    shown = int(grid.get_attribute("aria-rowcount") or 0) - 1
    with sample.expect_download() as download:
        leave(sample, label, "Save as CSV")
    rows = list(csv.reader(io.StringIO(Path(download.value.path()).read_text("utf-8-sig"))))
    assert len(rows) == shown + 1 and len({len(row) for row in rows}) == 1
    with sample.expect_download() as download:
        leave(sample, label, "Save as XLSX")
    book = tmp_of(download.value.path())
    assert len(list(load_workbook(book).active.iter_rows())) == shown + 1


def test_a_list_that_is_no_grid_leaves_too(sample: Page, plan: str):
    sample.goto(f"{plan}/hand-over")
    items = sample.get_by_role("listitem").filter(has=sample.get_by_role("link", name="look"))
    items.first.wait_for()
    with sample.expect_download() as download:
        leave(sample, "Before you send it", "Save as CSV")
    text = Path(download.value.path()).read_text("utf-8-sig")
    heads, *rows = list(csv.reader(io.StringIO(text)))
    assert heads == ["check", "must be mended", "about", "stage"]
    assert len(rows) == items.count()


def tmp_of(path) -> io.BytesIO:
    return io.BytesIO(Path(path).read_bytes())


def test_what_is_filtered_ordered_and_chosen_is_what_is_copied(sample: Page, plan: str):
    sample.context.grant_permissions(["clipboard-read", "clipboard-write"])
    sample.goto(f"{plan}/sift")
    grid = sample.get_by_role("grid", name="Keywords", exact=True)
    grid.get_by_role("row").nth(1).wait_for()
    sample.get_by_role("button", name="columns").click()
    sample.get_by_role("checkbox", name="low price").check(force=True)
    sample.keyboard.press("Escape")
    sample.get_by_placeholder("words in, -words out").fill("cord")
    expect(sample.get_by_role("main")).to_contain_text("of 601")
    sample.get_by_role("button", name="Searches a month").click()
    leave(sample, "Keywords", "Copy as a table")
    expect(sample.get_by_role("status").first).to_contain_text("copied")
    heads, *rows = [line.split("\t") for line in copied(sample).split("\n")]
    assert heads[:3] == ["call", "keyword", "match"] and "low price, gbp" in heads
    assert len(rows) > 3 and all("cord" in row[1] for row in rows)
    searches = [float(row[heads.index("searches a month")]) for row in rows]
    assert searches == sorted(searches, reverse=True)
    grid.focus()
    for key in ("ArrowDown", "x", "ArrowDown", "x", "Control+c"):
        sample.keyboard.press(key)
    expect(sample.get_by_role("status").first).to_contain_text("copied 2 rows")
    assert len(copied(sample).split("\n")) == 3


def copied(page: Page) -> str:
    return str(page.evaluate("navigator.clipboard.readText()"))
