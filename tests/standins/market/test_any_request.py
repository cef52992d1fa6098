"""Whatever the market's own description allows to be asked, and much that it does not: no 5xx."""

from __future__ import annotations

import random
from collections import Counter

import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis import GenerationMode

from tests.depth import cases
from tests.standins.market.conftest import SHEETS

CASES = cases(35, 1500)
RULES = settings(
    max_examples=CASES, deadline=None, database=None, derandomize=True, phases=[Phase.generate],
    suppress_health_check=list(HealthCheck),
)  # fmt: skip


def test_no_request_makes_the_market_fall_over_and_every_answer_keeps_to_its_description(market):
    account = market.open()
    market.send(account)
    schema = schemathesis.openapi.from_asgi("/openapi.json", market.app)
    rng, seen = random.Random(5), Counter()
    for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):

        @RULES
        @given(schema.as_strategy(generation_mode=mode))
        def ask(case):
            if case.path.endswith("/events"):
                return  # a stream that ends by itself only once no day passes
            if "account_id" in (case.path_parameters or {}) and rng.random() < 0.9:
                case.path_parameters["account_id"] = account.id
            headers = dict(case.headers or {})
            if rng.random() < 0.9:
                headers["Authorization"] = f"Bearer {account.key}"
            case.headers = headers
            if case.path.endswith("/uploads") and rng.random() < 0.7:
                case.query = {"kind": rng.choice(list(SHEETS))}
            if case.path.endswith("/faults"):
                return  # a fault may well answer with 503
            answer = case.call(session=market.http, base_url="http://testserver")
            assert answer.status_code < 500, (case.method, case.path, answer.text[:300])
            seen[answer.status_code] += 1
            if answer.status_code < 300:
                case.validate_response(answer)

        ask()
    assert sum(seen.values()) > CASES / 2
    assert seen[200] + seen[202] + seen[201] > 5, seen
