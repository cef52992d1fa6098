"""Whatever the API's own description allows to be asked, and much that it does not: never a 5xx."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest import SkipTest

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode

from tests.api.conftest import SHEET, client_over

CASES = 2000
# a stream of events ends when the one who listens leaves
ENDLESS = "/api/plans/{plan_id}/events"


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """A program of its own, which keeps all that the requests leave behind."""
    folder: Path = tmp_path_factory.mktemp("any-request")
    with client_over(folder) as client:
        yield client


def living_plan(client: TestClient) -> int:
    """The id of a plan with six keywords; the one of the last call while it lives."""
    for one in client.get("/api/plans").json():
        if one["name"] == "Asked" and one.get("unreadable") is None:
            return int(one["id"])
    plan = client.post("/api/plans", json={"name": "Asked"}).json()["id"]
    address = f"/api/plans/{plan}"
    tray = client.post(f"{address}/gather/text", json={"text": SHEET, "name": "six.csv"}).json()
    assert client.post(f"{address}/gather/{tray['key']}/take").status_code == 200
    return int(plan)


def schema_of(client: TestClient) -> Any:
    schema = schemathesis.openapi.from_dict(client.app.openapi())  # type: ignore[attr-defined]
    return schema.exclude(path=ENDLESS)


def answer_to(client: TestClient, case: Any) -> Any:
    """Send the case as it was made, whatever its headers and body are."""
    sent = case.as_transport_kwargs(base_url=str(client.base_url))
    body = {"content": sent["data"]} if isinstance(sent.get("data"), bytes | str) else {}
    known = {name: sent[name] for name in ("params", "headers", "json", "files", "data")
             if sent.get(name) is not None and not (name == "data" and body)}  # fmt: skip
    return client.request(sent["method"], sent["url"], **known, **body)


def test_no_request_breaks_the_program(served: TestClient) -> None:
    schema = schema_of(served)
    operations = [result.ok() for result in schema.get_all_operations()]
    each = -(-CASES // len(operations) // 2)
    asked: Counter[int] = Counter()

    def ask(case: Any) -> None:
        path = case.path_parameters
        if "plan_id" in path:
            path["plan_id"] = living_plan(served)
        answer = answer_to(served, case)
        asked[answer.status_code] += 1
        assert answer.status_code < 500, f"{case.method} {case.formatted_path}: {answer.text}"

    rules = settings(
        max_examples=each,
        deadline=None,
        database=None,
        derandomize=True,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    for operation in operations:
        for mode in GenerationMode:
            try:
                rules(given(case=operation.as_strategy(generation_mode=mode))(ask))()
            except (Unsatisfiable, SkipTest):
                assert mode.is_negative, "what takes nothing can't be asked wrongly"
    assert asked.total() >= 0.8 * CASES and len(asked) > 4, asked
