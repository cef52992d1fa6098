"""Whatever the API's own description allows to be asked, and much that it does not: never a 5xx.

The requests of one test go to one program, one after another, and use what its earlier answers
named: plans, keywords, groups, trays. So each finds what the ones before it left behind.
"""

from __future__ import annotations

import random
from collections import Counter
from functools import cache
from json import dumps, loads
from typing import Any
from unittest import SkipTest

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from jsonschema import Draft202012Validator
from schemathesis import GenerationMode

from tests.api.conftest import SHEET
from tests.depth import cases

CASES = cases(45, 2500)
"""How many of each mode: as the description says, and against it."""

# a stream of events ends when the one who listens leaves
ENDLESS = "/api/plans/{plan_id}/events"
RULES = settings(
    deadline=None,
    database=None,
    derandomize=True,
    phases=[Phase.generate],
    suppress_health_check=list(HealthCheck),
)


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


class Named:
    """Ids and keys that answers named, to be asked for again."""

    def __init__(self) -> None:
        self.rng = random.Random(3)
        self.ids: list[int] = [1]
        self.keys: list[str] = ["none"]

    def learn(self, tree: Any) -> None:
        """Remember what one answer names."""
        if isinstance(tree, list):
            for one in tree[:10]:
                self.learn(one)
        elif isinstance(tree, dict):
            for name, value in tree.items():
                if name == "key" and isinstance(value, str):
                    self.keys = [*self.keys[-5:], value]
                elif name == "id" or name.endswith("_id"):
                    several = value if isinstance(value, list) else [value]
                    self.ids = [*self.ids[-40:], *(v for v in several if isinstance(v, int))]
                else:
                    self.learn(value)

    def put_into(self, tree: Any) -> None:
        """Put known ids and keys in the place of three made-up ones in four."""
        for name in list(tree) if isinstance(tree, dict) else []:
            if self.rng.random() < 0.25 or name == "plan_id":
                continue
            if name == "key":
                tree[name] = self.rng.choice(self.keys)
            elif name == "ids":
                tree[name] = self.rng.sample(self.ids, min(3, len(self.ids)))
            elif name.endswith("_id"):
                tree[name] = self.rng.choice(self.ids)


def answer_to(client: TestClient, case: Any) -> Any:
    """Send the case as it was made, whatever its body is."""
    sent = case.as_transport_kwargs(base_url=str(client.base_url))
    body = {"content": sent["data"]} if isinstance(sent.get("data"), bytes | str) else {}
    known = {name: sent[name] for name in ("params", "headers", "json", "files", "data")
             if sent.get(name) is not None and not (name == "data" and body)}  # fmt: skip
    return client.request(sent["method"], sent["url"], **known, **body)


@cache
def validator(schema: str) -> Any:
    """Return what holds an answer against a part of the description."""
    return Draft202012Validator(loads(schema) | {"components": COMPONENTS["components"]})


COMPONENTS: dict[str, Any] = {}


def unlike(case: Any, answer: Any) -> str | None:
    """Return how an answer differs from what is described for its status."""
    described = case.operation.definition.raw["responses"].get(str(answer.status_code))
    if described is None:
        return f"{case.method} {case.path}: {answer.status_code} is not described"
    schema = described.get("content", {}).get("application/json", {}).get("schema")
    if not schema or schema.get("format") == "binary":
        return None
    wrong = next(validator(dumps(schema)).iter_errors(answer.json()), None)
    return wrong and f"{case.method} {case.path}, {wrong.json_path}: {wrong.message[:120]}"


@pytest.mark.parametrize("mode", GenerationMode)
def test_no_request_breaks_the_program(client: TestClient, mode: GenerationMode) -> None:
    description = client.app.openapi()  # type: ignore[attr-defined]
    COMPONENTS.update(description)
    schema = schemathesis.openapi.from_dict(description).exclude(path=ENDLESS)
    operations = [result.ok() for result in schema.get_all_operations()]
    rules = settings(RULES, max_examples=-(-CASES // len(operations)))
    answers: Counter[int] = Counter()
    named = Named()
    differs: set[str | None] = set()

    def ask(case: Any) -> None:
        if "plan_id" in case.path_parameters:
            case.path_parameters["plan_id"] = living_plan(client)
        named.put_into(case.path_parameters)
        named.put_into(case.body)
        answer = answer_to(client, case)
        answers[answer.status_code] += 1
        assert answer.status_code < 500, f"{case.method} {case.path}: {answer.text}"
        if answer.content and answer.headers["content-type"] == "application/json":
            differs.add(unlike(case, answer))
            named.learn(answer.json())

    for operation in operations:
        try:
            rules(given(case=operation.as_strategy(generation_mode=mode))(ask))()
        except (Unsatisfiable, SkipTest):
            assert mode.is_negative, "what takes nothing can't be asked wrongly"
    print(mode.value, dict(answers))
    assert differs <= {None}
    assert answers.total() >= 0.9 * CASES
    assert answers[200] > 0.1 * CASES and answers[422] > 0.1 * CASES
    assert living_plan(client)
