import shutil
from collections.abc import Iterator
from functools import cached_property
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from milkwort.api.http.app import make_app, opened
from milkwort.settings import Settings

SHEET = """keyword,volume,cpc_low,cpc_high,match,intent,call,group
sash window repair,500 to 5000,0.80,2.40,exact,buy,keep,Repair
sash cord replacement,420,0.60,1.50,exact,buy,keep,Repair
sash window painting,300,0.50,1.40,phrase,buy,,Paint
draughty windows,2400,0.20,0.50,broad,learn,hold,
window jobs,90,0.30,0.90,exact,job,block,
windows,60500,9,30,exact,unknown,,
"""


def settings_over(folder: Path) -> Settings:
    return Settings(data=folder, draws=DRAWS)


DRAWS = 400
"""Times a month is drawn, a fifth as often as for a planner."""


class Shell:
    """One application a worker, which costs half a second, over the folder of each test.

    Parameters
    ----------
    folder : Path
        Where it keeps what databases begin as: empty and up to date, or with a plan.
    """

    def __init__(self, folder: Path) -> None:
        settings = settings_over(folder)
        self.app: FastAPI = make_app(settings)
        self.app.state.workspace.close()
        self.template = settings.database

    def over(self, folder: Path, template: Path | None = None) -> TestClient:
        """Return a client over a folder, whose database begins as a copy of another."""
        settings = settings_over(folder)
        if not settings.database.exists():
            folder.mkdir(parents=True, exist_ok=True)
            shutil.copy(template or self.template, settings.database)
        self.app.state.workspace = opened(settings)
        return TestClient(self.app, base_url="http://127.0.0.1:8710")

    @cached_property
    def with_plan(self) -> Path:
        """A database with a plan of six keywords, two of them kept, made as a planner makes it."""
        folder = self.template.parent / "with a plan"
        with self.over(folder) as client:
            made = client.post("/api/plans", json={"name": "Six keywords"}).json()
            address = f"/api/plans/{made['id']}"
            brief = {"sale_value": 340, "gross_margin": 0.55, "monthly_spend": 60}
            assert client.patch(f"{address}/brief", json=brief).status_code == 200
            text = {"text": SHEET, "name": "six.csv"}
            tray = client.post(f"{address}/gather/text", json=text).json()
            assert client.post(f"{address}/gather/{tray['key']}/take").status_code == 200
        return Settings(data=folder).database


@pytest.fixture(scope="session")
def shell(tmp_path_factory: pytest.TempPathFactory) -> Shell:
    return Shell(tmp_path_factory.mktemp("shell"))


@pytest.fixture
def client(shell: Shell, tmp_path: Path, request: pytest.FixtureRequest) -> Iterator[TestClient]:
    """A client over an empty folder; over one with the plan where a test asks for that."""
    template = shell.with_plan if "plan" in request.fixturenames else None
    with shell.over(tmp_path, template) as client:
        yield client


@pytest.fixture
def plan(client: TestClient) -> str:
    """The address of a plan with six keywords, two of them kept."""
    (made,) = client.get("/api/plans").json()
    return f"/api/plans/{made['id']}"


def ids_of(client: TestClient, address: str) -> dict[str, int]:
    texts = client.get(address).json()["sheet"]["texts"]
    return dict(zip(texts["text"], texts["id"], strict=True))


def texts_of(client: TestClient, address: str) -> dict[str, dict[str, object]]:
    """Every column of the sheet, what is read and what is worked out, by the keyword's text."""
    sheet = client.get(address).json()["sheet"]
    columns = sheet["texts"] | sheet["figures"]
    return {name: dict(zip(columns["text"], columns[name], strict=True)) for name in columns}
