"""Written ads as a table, there and back."""

import pytest

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.errors import NothingUsableError
from milkwort.formats.ads_table import AdRow, ads_csv, read_ads_table
from milkwort.formats.text_table import read_text_table


def test_ads_come_back_as_they_left_guards_and_all():
    rows = [
        AdRow("Search", "Repair", "a1", Ad(("=SUM(1)", "Ask ‹place›"), ("-10 % off, 🪟",))),
        AdRow("Search", "'quoted'", "a2", Ad(("نوافذ", "", "third"), ())),
    ]
    sheet = ads_csv(rows, 2, 1)
    assert sheet.splitlines()[0].decode("utf-8-sig") == (
        "campaign,ad group,headline 1,headline 2,headline 3,description 1,ref"
    )
    assert b",=SUM" not in sheet and b",-10" not in sheet
    back, refused = read_ads_table(read_text_table(sheet))
    assert [(r.campaign, r.group, r.ref, r.ad) for r in back] == [
        (r.campaign, r.group, r.ref, r.ad) for r in rows
    ]
    assert refused == () and [r.row for r in back] == [2, 3]


def test_a_bad_row_costs_no_other_and_says_why():
    text = f"Ad group;Headline;Description\nRepair;ok;fine\n;none;x\nRepair;;\nRepair;{'x' * 1001};"
    rows, refused = read_ads_table(read_text_table(text))
    assert [r.ad for r in rows] == [Ad(("ok",), ("fine",))]
    assert [(r.row, r.column) for r in refused] == [
        (3, "group"), (4, "headline 1"), (5, "headline 1"),
    ]  # fmt: skip


def test_a_table_without_headlines_is_refused_by_name():
    with pytest.raises(
        NothingUsableError, match=r"ads\.csv, row 1: expected a column for the first"
    ):
        read_ads_table(read_text_table("keyword,bid\na,1"), "ads.csv")
