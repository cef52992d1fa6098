"""Whatever goes wrong, the account stands as the plan does, or a sentence says what doesn't."""

import csv
import io

import pytest

from milkwort.platforms import http
from milkwort.platforms.handing_over import hand_over, live_of, parcels_of
from milkwort.platforms.platform import SHEET_ORDER, PlatformError
from tests.standins.market.conftest import SHEETS, Market

ALL_KINDS = {
    "refused": {"refuse_rows": 0.3},
    "slow": {"slow_ms": 1},
    "unavailable": {"unavailable": 0.3},
    "cut": {"cut_after": 0.3},
    "late": {"lose_reply": 2},
    "twice": {"deliver_twice": True},
    "half": {"half_failed": True},
    "together": {"refuse_rows": 0.2, "unavailable": 0.2, "cut_after": 0.2, "lose_reply": 1,
                 "deliver_twice": True, "half_failed": True},
}  # fmt: skip


@pytest.fixture(autouse=True)
def _no_waiting(monkeypatch):
    monkeypatch.setattr(http, "_waits", lambda state: 0.0)
    monkeypatch.setattr(http, "_ATTEMPTS", 30)


def plan_of(keywords: int = 40) -> dict[str, list[dict[str, object]]]:
    found = {kind: list(csv.DictReader(io.StringIO(text))) for kind, text in SHEETS.items()}
    for row in found["campaigns"]:
        row["daily budget"] = 20.0
    found["keywords"] = [
        {"campaign": "Search", "ad group": "Repair", "keyword": f"sash word{i}", "match": "exact",
         "bid": 1.0 + i / 100, "run": "yes", "ref": f"k{i}"}
        for i in range(keywords)
    ]  # fmt: skip
    return found | {"spots": []}


def written(rows) -> bytes:
    heads = list(dict.fromkeys(head for row in rows for head in row))
    out = io.StringIO()
    writer = csv.DictWriter(out, heads)
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue().encode()


def sent(market: Market, account, plan, once: str, *, whole: bool = False):
    parcels = parcels_of(plan, live_of(market.platform, account), whole=whole)
    return hand_over(market.platform, account, parcels, plan, once, written)


@pytest.mark.parametrize("faults", list(ALL_KINDS.values()), ids=list(ALL_KINDS))
def test_under_every_fault_what_was_refused_can_be_sent_until_the_account_is_the_plan(
    market, faults
):
    account, plan = market.open(), plan_of()
    market.platform.set_faults(account, faults)
    outcome = sent(market, account, plan, "first")
    for attempt in range(12):
        wrong = {one.ref for one in outcome.differs}
        refused = {r.ref for rows in outcome.replies.values() for r in rows if r.state == "refused"}
        assert {ref for ref in wrong if ref.startswith("k")} >= {
            ref for ref in refused if ref.startswith("k")
        }  # what was refused is said not to stand
        if not wrong:
            break
        outcome = sent(market, account, plan, f"again {attempt}")
    assert not outcome.differs
    live = live_of(market.platform, account)
    assert {kind: len(live[kind]) for kind in SHEET_ORDER} == {
        kind: len(plan[kind]) for kind in SHEET_ORDER
    }
    # nothing was uploaded twice under another number
    assert market.platform.state(account)["live"]["keywords"] == 40


def test_a_connection_cut_after_the_work_uploads_nothing_twice(market):
    account = market.open()
    market.platform.set_faults(account, {"cut_after": 0.7})
    numbers = [market.platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "u")
               for _ in range(5)]  # fmt: skip
    market.platform.set_faults(account, {})
    assert len(set(numbers)) == 1
    with market.app.state.database.read() as session:
        from milkwort.standins.market.storage import Account

        assert session.get(Account, account.id).uploads == 1


def test_too_many_calls_a_minute_are_asked_for_again_later_or_said(market, monkeypatch):
    account = market.open()
    market.platform.set_faults(account, {"throttle_per_minute": 3})
    monkeypatch.setattr(http, "_ATTEMPTS", 2)
    for _ in range(3):
        market.platform.state(account)
    with pytest.raises(PlatformError, match=r"after 2 tries: Too many calls a minute"):
        market.platform.state(account)


def test_where_nothing_answers_that_is_said(monkeypatch):
    monkeypatch.setattr(http, "_ATTEMPTS", 2)
    nowhere = http.HttpPlatform("http://127.0.0.1:9")
    with nowhere, pytest.raises(PlatformError, match="nothing answers at its address"):
        nowhere.open_account({}, "x")


def test_a_day_that_is_missing_is_there_when_it_is_asked_for_again(market):
    account = market.open()
    market.send(account)
    market.platform.pass_days(account, 20, "d")
    whole = market.platform.results(account, "day")
    market.platform.set_faults(account, {"clock_jump": 0.4})
    assert len(market.platform.results(account, "day").rows) < 20
    assert market.platform.results(account, "day") == whole


def test_the_way_back_to_fewer_things_is_removals(market):
    account, plan = market.open(), plan_of()
    sent(market, account, plan, "first")
    fewer = plan | {"keywords": plan["keywords"][:10], "negatives": []}
    outcome = sent(market, account, fewer, "second")
    assert not outcome.differs
    assert outcome.replies["keywords to be removed"][0].code == "removed"
    moved = [dict(row, **{"ad group": "Other"}) for row in fewer["keywords"]]
    groups = [{"campaign": "Search", "ad group": "Other", "page": "/", "ref": "g2"}]
    ads = [dict(row, **{"ad group": "Other"}) for row in plan["ads"]]
    outcome = sent(market, account,
                   fewer | {"keywords": moved, "groups": groups, "ads": ads}, "third")  # fmt: skip
    assert not outcome.differs
