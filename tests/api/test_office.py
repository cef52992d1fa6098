"""Books as an office program opens them: each cell of each page is what was written.

Only in the long tests: the office program is larger than all else that the tests install.
"""

import csv
import shutil
import subprocess

import openpyxl
import pytest

from milkwort.core.brief.upload_shape import SHEET_NAMES
from tests.api.conftest import Shell
from tests.depth import DEEP

pytestmark = pytest.mark.skipif(not DEEP, reason="tried by the long tests")

EVERY_PAGE_AS_IT_IS = (
    "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,false,false,false,false,-1"
)


@pytest.fixture(scope="module")
def books(tmp_path_factory):
    """The client's sheet and all upload sheets of the sample, as books in a folder."""
    folder = tmp_path_factory.mktemp("books")
    with Shell(folder / "data").over(folder / "data") as client:
        made = client.post("/api/plans", json={"name": "Sash", "start": "sample"}).json()
        plan = f"/api/plans/{made['id']}"
        texts = ["free", "=1+1", "-2 jobs", "@home", "naïve “quoted” ✓"]
        items = [{"text": text, "match": "exact"} for text in texts]
        client.post(f"{plan}/arrange/negatives", json={"items": items})
        (folder / "report.xlsx").write_bytes(client.get(f"{plan}/report/xlsx").content)
        body = {"kind": "xlsx", "sheets": list(SHEET_NAMES)}
        sent = client.post(f"{plan}/hand-over", json=body).json()["made"]
        content = client.get(f"{plan}/hand-over/{sent['id']}/file").content
        (folder / "upload.xlsx").write_bytes(content)
    return folder


@pytest.mark.parametrize("name", ["report", "upload"])
def test_every_cell_is_what_was_written(books, tmp_path, name):
    office = shutil.which("soffice")
    assert office, "the long tests need LibreOffice Calc: apt-get install libreoffice-calc"
    home = f"-env:UserInstallation=file://{tmp_path}/home"
    made = [office, home, "--headless", "--convert-to", EVERY_PAGE_AS_IT_IS,
            "--outdir", str(tmp_path), str(books / f"{name}.xlsx")]  # fmt: skip
    subprocess.run(made, check=True, capture_output=True, timeout=120)
    book = openpyxl.load_workbook(books / f"{name}.xlsx")
    cells = 0
    for page in book.worksheets:
        with (tmp_path / f"{name}-{page.title}.csv").open(encoding="utf-8", newline="") as file:
            opened = list(csv.reader(file))
        for at, row in enumerate(page.iter_rows(values_only=True)):
            shown = opened[at] if at < len(opened) else []
            for column, wrote in enumerate(row):
                got = shown[column] if column < len(shown) else ""
                where = f"{page.title}, row {at + 1}, column {column + 1}"
                if isinstance(wrote, (int, float)):
                    assert float(got) == pytest.approx(wrote, rel=1e-12, abs=1e-12), where
                else:
                    assert got == (wrote or ""), where
                cells += wrote is not None
    assert cells > 500
