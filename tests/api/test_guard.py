"""What every request is asked first, and what the API says of itself."""

import subprocess
from pathlib import Path

import pytest
from pydantic import ValidationError

from milkwort.api.http.openapi import openapi_text
from milkwort.api.plan.shown import client_columns
from milkwort.formats.text_table import MAX_BYTES
from milkwort.settings import Settings

WEB = Path(__file__).parents[2] / "web"


@pytest.mark.parametrize("host", ["evil.test", "evil.test:8710", "127.0.0.1.evil.test", ""])
def test_another_host_is_turned_away(client, host):
    answer = client.get("/api/plans", headers={"Host": host})
    assert answer.status_code == 403 and answer.json()["error"]["code"] == "wrong_host"


@pytest.mark.parametrize("origin", ["http://evil.test", "http://127.0.0.1:9999", "null"])
def test_another_sites_page_changes_nothing(client, origin):
    answer = client.post("/api/plans", json={"name": "x"}, headers={"Origin": origin})
    assert answer.status_code == 403 and answer.json()["error"]["code"] == "wrong_origin"
    assert client.get("/api/plans").json() == []


def test_milkworts_own_page_is_let_in(client):
    headers = {"Origin": "http://127.0.0.1:8710"}
    assert client.post("/api/plans", json={"name": "x"}, headers=headers).status_code == 201


def test_an_upload_past_the_bound_is_refused_before_it_is_read(client, plan):
    content = b"x" * (MAX_BYTES + 2**20 + 1)
    answer = client.post(f"{plan}/gather/file", files={"file": ("x.csv", content)})
    assert answer.status_code == 413 and answer.json()["error"]["code"] == "too_large"


def test_a_file_a_little_past_the_bound_is_refused_too(client, plan):
    content = b"keyword\n" + b"x" * MAX_BYTES
    answer = client.post(f"{plan}/gather/file", files={"file": ("x.csv", content)})
    assert answer.status_code == 413 and "20 MB" in answer.json()["error"]["message"]


@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("get", "/api/plans/99", 404),
        ("get", "/api/plans/x", 422),
        ("get", "/api/nowhere", 404),
        ("put", "/api/plans", 405),
        ("get", "/api/plans/1/workings/luck", 422),
    ],
)
def test_every_error_has_the_one_shape(client, method, path, status):
    answer = client.request(method, path)
    assert answer.status_code == status
    assert set(answer.json()["error"]) == {"code", "message", "where"}


def test_the_clients_types_are_those_of_the_api(tmp_path):
    described = tmp_path / "openapi.json"
    described.write_text(openapi_text(), encoding="utf-8")
    made = tmp_path / "api.ts"
    tool = WEB / "node_modules" / ".bin" / "openapi-typescript"
    subprocess.run(
        [tool, described, "--default-non-nullable=false", "-o", made],
        check=True,
        capture_output=True,
        timeout=120,
    )
    assert made.read_text() == (WEB / "src" / "data" / "api.generated.ts").read_text()
    assert client_columns() == (WEB / "src" / "data" / "columns.generated.ts").read_text()


def test_every_setting_says_what_it_is_and_stands_in_the_docs():
    docs = (WEB.parent / "docs" / "settings.md").read_text(encoding="utf-8")
    for name, field in Settings.model_fields.items():
        assert f"| `{name}` |" in docs, name
        assert field.description, name


def test_a_planners_month_is_drawn_two_thousand_times():
    assert Settings.model_fields["draws"].default == 2000
    for wrong in (0, 199, 20_001):
        with pytest.raises(ValidationError):
            Settings(draws=wrong)
