"""What goes out, and that it comes back."""

import csv
import io
import json
from dataclasses import replace

import jsonschema
import numpy as np
import openpyxl
import pytest

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.errors import BadValueError
from milkwort.core.plan.run import run_plan
from milkwort.formats.brief_toml import read_brief
from milkwort.formats.cells import safe_cell
from milkwort.formats.keyword_rows import TablePlaces
from milkwort.formats.plan_document import PlanDocument
from milkwort.formats.plan_json import read_plan_json, write_plan_json
from milkwort.formats.plan_result import (
    result_csv,
    result_document,
    result_json,
    result_table,
    workings_text,
)
from milkwort.formats.result_schema import SCHEMA_FILE, schema_text
from milkwort.formats.upload_sheet import HEADINGS, UploadRow, upload_csv, upload_xlsx
from tests.samples import brief, random_table

EVIL = ["=1+1", "+cmd|calc", "-2", "@SUM(A1)", " =1", "\t=1"]
ROWS = [UploadRow("Plan – Search", "Repair", text, "exact", 1.25, "k1") for text in EVIL] + [
    UploadRow("Plan – Search", "Repair", "sash, repair", "phrase", None, "k2")
]
SEASON = b"[1, 1, 1, 1, 1, 1, 1, 1, 3, 1, 1, 1]"
TOML = b"""
[plan]
monthly_spend = 600
[offer]
sale_value = 340
gross_margin = 0.55
conversion = 0.03
"""


@pytest.mark.parametrize("text", EVIL)
def test_formulas_are_defused(text):
    assert safe_cell(text) == "'" + text


def test_numbers_and_plain_words_are_left_alone():
    assert (safe_cell(-2.5), safe_cell("sash repair")) == (-2.5, "sash repair")


def test_the_upload_sheet_reads_back_as_csv():
    rows = list(csv.reader(io.StringIO(upload_csv(ROWS).decode("utf-8-sig"))))
    assert tuple(rows[0]) == HEADINGS
    assert rows[1] == ["Plan – Search", "Repair", "'=1+1", "exact", "1.25", "yes", "k1"]
    assert rows[-1][2:] == ["sash, repair", "phrase", "", "no", "k2"]


def test_the_upload_sheet_reads_back_as_xlsx_with_texts_and_no_formulas():
    page = openpyxl.load_workbook(io.BytesIO(upload_xlsx(ROWS, "GBP"))).active
    cells = [[c.value for c in row] for row in page.iter_rows()]
    assert tuple(cells[0]) == HEADINGS
    assert cells[1][2:5] == ["'=1+1", "exact", 1.25]
    assert all(c.data_type != "f" for row in page.iter_rows() for c in row)


def test_the_result_keeps_to_its_published_schema():
    result = run_plan(brief(), random_table(1, 30))
    texts = [f"word {i}" for i in range(30)]
    document = json.loads(result_json(result_document(result, texts)))
    jsonschema.validate(document, json.loads(SCHEMA_FILE.read_text(encoding="utf-8")))
    assert document["totals"]["spend"] == pytest.approx(
        sum(k["expected"]["spend"] for k in document["keywords"])
    )


def test_the_published_schema_is_the_one_the_code_describes():
    assert SCHEMA_FILE.read_text(encoding="utf-8") == schema_text()


def test_the_flat_result_has_a_row_for_each_keyword():
    result = run_plan(brief(), random_table(1, 5))
    rows = list(csv.DictReader(io.StringIO(result_csv(result, ["=evil", "b", "c", "d", "e"]))))
    assert len(rows) == 5 and rows[0]["keyword"] == "'=evil"


def test_the_summary_and_the_workings_are_for_people():
    result = run_plan(brief(), random_table(1, 30))
    texts = [f"word {i}" for i in range(30)]
    assert "customers" in result_table(result, texts)
    assert "ceiling per click" in workings_text(result, 0, texts[0])


def test_a_plan_document_comes_back_equal():
    document = PlanDocument.model_validate({
        "client": {"name": "C"}, "assumptions": {"stretch": 0.3},
        "plan": {"name": "P", "goal": "clicks", "start_date": "2027-03-01"},
        "offers": [{"name": "jobs", "sale_value": 340.0, "gross_margin": 0.55, "rate_low": 0.02,
                    "rate_likely": 0.03, "rate_high": 0.045}],
    })  # fmt: skip
    assert read_plan_json(write_plan_json(document)) == document


@pytest.mark.parametrize(
    "data", [b"{", b"[]", b'{"name": 1, "brief": {}}', b'{"format": "x", "name": "a", "brief": {}}']
)
def test_what_is_no_plan_is_refused(data):
    with pytest.raises(BadValueError):
        read_plan_json(data)


def test_a_briefs_campaigns_limit_the_money_by_name():
    more = (
        TOML
        + b'[[campaign]]\nname = "Brand"\nmost = 50\n[[campaign]]\nname = "Search"\nleast = 9\n'
    )
    read = read_brief(more)
    assert read.lists.campaigns == ("Brand", "Search")
    assert read.lists.limits["Brand"].most == 50.0
    assert read.lists.limits["Search"].least == 9.0
    with pytest.raises(BadValueError, match="campaign"):
        read_brief(more.replace(b"Search", b"Brand"))


def test_what_the_model_no_longer_assumes_is_left_out_and_told():
    read = read_brief(TOML + b"[assumptions]\nsettle_days = 5\nstretch = 0.3\n")
    assert read.brief.assumed.changes == {"stretch": 0.3}
    assert "settle_days" in read.left_out[0]


def test_a_limit_that_cannot_be_kept_stands_in_the_result():
    plan = brief(monthly_spend=1.0, limits=Limits(campaigns={0: SpendLimit(5.0, 9.0)}))
    rows = replace(random_table(1, 5), campaign=np.zeros(5, dtype=np.int64))
    document = result_document(
        run_plan(plan, rows), list("abcde"), places=TablePlaces(("Search",), ())
    )
    (unmet,) = document["unmet"]
    assert (unmet["limit"], unmet["campaign"], unmet["wanted"]) == ("least_spend", "Search", 5.0)
    assert unmet["got"] <= 1.0
    assert [p["purse"] for p in document["frontier"]] == sorted(
        p["purse"] for p in document["frontier"]
    )


def test_a_brief_takes_the_defaults_it_does_not_name():
    read = read_brief(TOML)
    assert read.brief.goal == "customers" and read.brief.ceiling.rule == "break_even"
    assert read.brief.offer.conversion.as_tuple() == (0.03, 0.03, 0.03)
    assert read.left_out == ()


def test_what_a_brief_does_not_know_is_left_out_and_said():
    said = read_brief(TOML + b"\n[luck]\n[market]\nmagic = 1\n").left_out
    assert [s.split(":")[0] for s in said] == ["[luck]", "[market] magic"]


def test_a_brief_carries_its_limits_negatives_and_season():
    more = TOML + b'\n[negatives]\nphrase = ["jobs"]\nexact = ["window"]\n'
    more = more.replace(b"600", b"600\nmax_keywords = 40\nmin_clicks = 2\nseason = " + SEASON)
    brief = read_brief(more).brief
    assert (brief.limits.max_keywords, brief.limits.min_clicks) == (40, 2.0)
    assert [(n.text, n.match) for n in brief.negatives] == [("window", "exact"), ("jobs", "phrase")]
    assert brief.season is not None and brief.season[8] == 3.0


@pytest.mark.parametrize(
    ("old", "new", "where"),
    [
        (b"340", b'"dear"', "sale_value"),
        (b"0.55", b"1.55", "gross_margin"),
        (b"conversion = 0.03", b"", "conversion"),
        (b"monthly_spend = 600", b"", "monthly_spend"),
        (b"[offer]", b"[[offer]]\n[[offer]]", "offer"),
        (b"600", b"600\nmax_keywords = 0", "max_keywords"),
        (b"600", b"600\nmin_clicks = -1", "min_clicks"),
        (b"600", b"600\nseason = [1, 2]", "season"),
        (b"[plan]", b"[plan", "TOML"),
    ],
)
def test_a_brief_that_cannot_be_says_which_field(old, new, where):
    with pytest.raises(BadValueError, match=where):
        read_brief(TOML.replace(old, new))
