"""Any list leaves as a file: as it was shown, and harmless."""

import io

import pytest
from openpyxl import load_workbook

HEADS = ["Keyword", "Searches", "=SUM(A1)"]
COLUMNS = [["sash repair", "+44 joiner", "–"], [420, None, 0.5], ["=1+1", "@cmd", "plain"]]


def asked(client, **other):
    body = {"name": "Keywords", "heads": HEADS, "columns": COLUMNS, "kind": "csv"} | other
    return client.post("/api/lists", json=body)


def test_a_csv_holds_what_was_shown(client):
    answer = asked(client, name="Keywords, Eastmère")
    assert answer.headers["content-disposition"].endswith('"Keywords--Eastm-re.csv"')
    assert answer.content.decode("utf-8-sig").splitlines() == [
        "Keyword,Searches,'=SUM(A1)", "sash repair,420,'=1+1", "'+44 joiner,,'@cmd", "–,0.5,plain",
    ]  # fmt: skip


def test_a_workbook_holds_figures_as_figures_and_no_formula(client):
    page = load_workbook(io.BytesIO(asked(client, kind="xlsx").content)).active
    rows = list(page.iter_rows(values_only=True))
    assert rows[1] == ("sash repair", 420, "'=1+1") and rows[3] == ("–", 0.5, "plain")
    assert {cell.data_type for row in page.iter_rows() for cell in row} <= {"s", "n"}


@pytest.mark.parametrize(
    ("other", "said"),
    [
        ({"columns": COLUMNS[:2]}, "one for each of 3 heads"),
        ({"columns": [["a"], [1, 2], ["b"]]}, "Searches"),
        ({"kind": "pdf"}, "csv"),
        ({"columns": [["x" * 5001], [1], ["b"]]}, "5000"),
    ],
)
def test_what_is_no_list_is_refused(client, other, said):
    answer = asked(client, **other)
    assert answer.status_code == 422 and said in answer.json()["error"]["message"]


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_an_empty_list_leaves_with_its_heads(client, kind):
    assert asked(client, kind=kind, columns=[[], [], []]).status_code == 200
