"""Several windows at once: every change is decided from the plan as it then stands."""

import random
import threading
from concurrent.futures import ThreadPoolExecutor

import numpy as np
import pytest

from milkwort.api.plan import opening as opening_module
from milkwort.api.plan import workspace as workspace_module
from milkwort.core.errors import BadValueError
from milkwort.store.plans import load_plan
from milkwort.store.sheet import load_sheet
from tests.api.conftest import ids_of
from tests.depth import cases


def lines(count):
    return "keyword,volume,cpc_low,cpc_high\n" + "".join(
        f"keyword {n} of many,{100 + n},0.50,1.50\n" for n in range(count)
    )


def take(client, plan, text, name="many.csv"):
    tray = client.post(f"{plan}/gather/text", json={"text": text, "name": name}).json()
    return client.post(f"{plan}/gather/{tray['key']}/take")


def memory_is_the_database(client, plan):
    """Compare what is held in memory, and was sent, with a fresh reading of the file."""
    work = client.app.state.workspace
    plan_id = int(plan.rsplit("/", 1)[1])
    held = work.plan(plan_id)
    with work.database.read() as session:
        record = load_plan(session, plan_id)
        sheet = load_sheet(session, record)
    assert held.record == record
    assert held.sheet.ids == sheet.ids and held.sheet.entries == sheet.entries
    assert held.sheet.structure == sheet.structure and held.sheet.labels == sheet.labels
    for name, column in vars(sheet.table).items():
        if isinstance(column, np.ndarray):
            same = np.array_equal(
                getattr(held.sheet.table, name), column, equal_nan=column.dtype.kind == "f"
            )
            assert same, name
        else:
            assert getattr(held.sheet.table, name) == column


@pytest.mark.parametrize("seed", range(cases(1, 3)))
def test_calls_against_removals_name_the_keyword_that_was_meant(client, plan, seed):
    take(client, plan, lines(120))
    texts = {i: t for t, i in ids_of(client, plan).items()}
    ids = sorted(texts)
    rng = random.Random(seed)
    to_call, to_remove = rng.sample(ids, 60), rng.sample(ids, 40)
    answers = []

    def call(keyword):
        answers.append((keyword, client.post(f"{plan}/calls", json={
            "ids": [keyword], "call": rng.choice(["keep", "hold", "drop"])})))  # fmt: skip

    def remove(keyword):
        client.post(f"{plan}/keywords/remove", json={"ids": [keyword]})

    with ThreadPoolExecutor(10) as pool:
        work = [(call, i) for i in to_call] + [(remove, i) for i in to_remove]
        rng.shuffle(work)
        list(pool.map(lambda one: one[0](one[1]), work))
    for keyword, answer in answers:
        assert answer.status_code in (200, 404)
        rows = answer.json().get("rows") if answer.status_code == 200 else None
        if rows:
            assert rows["id"] == [keyword] and rows["text"] == [texts[keyword]]
    memory_is_the_database(client, plan)


@pytest.mark.parametrize("seed", range(cases(2, 4)))
def test_after_every_change_of_any_mixture_memory_is_the_database(client, plan, seed):
    rng = random.Random(seed)
    take(client, plan, lines(12))

    def ids():
        return list(ids_of(client, plan).values()) or [0]

    def groups():
        return client.get(f"{plan}/arrange").json()["groups"]["id"]

    steps = {
        "call": lambda: client.post(f"{plan}/calls", json={
            "ids": rng.sample(ids(), 1), "call": rng.choice(["keep", "drop", "block", "none"])}),
        "remove": lambda: client.post(f"{plan}/keywords/remove",
                                      json={"ids": rng.sample(ids(), 1)}),
        "take": lambda: take(client, plan, lines(rng.randrange(1, 20)), f"{rng.random()}.csv"),
        "move": lambda: client.post(f"{plan}/arrange/move", json={
            "ids": rng.sample(ids(), 1), "group": rng.choice(["A", "B", "General"])}),
        "structure": lambda: client.post(f"{plan}/arrange/structure", json={
            "kind": rng.choice(["theme", "match", "intent", "aim"])}),
        "empty": lambda: client.post(f"{plan}/arrange/groups/remove", json={}),
        "name": lambda: client.post(f"{plan}/arrange/groups/{rng.choice(groups() or [0])}",
                                    json={"name": f"name {rng.random()}"}),
        "block": lambda: client.post(f"{plan}/sift/block", json={
            "text": "many", "group_id": rng.choice(groups() or [0])}),
        "brief": lambda: client.patch(f"{plan}/brief", json={"volume_basis": rng.choice(
            ["exact", "broad"]), "places": rng.choice([[], ["Eastmere"]])}),
        "offers": lambda: client.patch(f"{plan}/brief", json={"offer_name": "one",
            "more_offers": [{"name": "two", "sale_value": 9, "gross_margin": 0.5,
            "rate_low": 0.01, "rate_likely": 0.02, "rate_high": 0.03}][: rng.randrange(2)]}),
        "figures": lambda: client.post(f"{plan}/keywords/edit", json={
            "ids": rng.sample(ids(), 1), "volume": 77, "note": "seen"}),
        "bid": lambda: client.post(f"{plan}/bids", json={"ids": rng.sample(ids(), 1), "bid": 1}),
        "undo": lambda: client.post(f"{plan}/undo"),
        "redo": lambda: client.post(f"{plan}/redo"),
    }  # fmt: skip
    for _ in range(24):
        name = rng.choice(sorted(steps))
        answer = steps[name]()
        assert answer.status_code < 500, (name, answer.text)
        memory_is_the_database(client, plan)


def test_a_plan_is_changed_while_another_takes_much_in(client, plan, monkeypatch):
    """The other plan's call is answered before the take-in is done."""
    other = client.post("/api/plans", json={"name": "Other", "start": "sample"}).json()["id"]
    address = f"/api/plans/{other}"
    keyword = next(iter(ids_of(client, address).values()))
    begun, may_end = threading.Event(), threading.Event()
    written = workspace_module.carry_out

    def slow(database, plan_id, label, ahead, do, progress):
        def told(done, of):
            begun.set()
            if done:
                assert may_end.wait(20)

        return written(database, plan_id, label, ahead, do, told)

    monkeypatch.setattr(workspace_module, "carry_out", slow)
    with ThreadPoolExecutor(1) as pool:
        taken = pool.submit(take, client, plan, lines(5000))
        assert begun.wait(20)
        monkeypatch.setattr(workspace_module, "carry_out", written)
        before = client.get(plan).json()["summary"][
            "revision"
        ]  # a look at the plan itself: no wait
        answer = client.post(f"{address}/calls", json={"ids": [keyword], "call": "drop"})
        assert answer.status_code == 200 and not taken.done()
        may_end.set()
        assert taken.result().status_code == 200
    assert client.get(plan).json()["summary"]["revision"] > before
    assert len(ids_of(client, plan)) == 5006
    memory_is_the_database(client, plan)


def test_a_change_that_would_leave_no_plan_is_not_kept(client, plan, monkeypatch):
    before = client.get(plan).json()
    whole = opening_module.run_plan

    def fails(brief, table, old=None):
        if brief.monthly_spend == 99:
            raise BadValueError("row 1", "a price", "none")
        return whole(brief, table, old)

    monkeypatch.setattr(opening_module, "run_plan", fails)
    answer = client.patch(f"{plan}/brief", json={"monthly_spend": 99})
    assert answer.status_code == 422
    now = client.get(plan).json()
    assert now["sheet"] == before["sheet"]
    assert now["summary"]["purse"] == before["summary"]["purse"]
    assert now["summary"]["journal"]["undo"] == before["summary"]["journal"]["undo"]
    assert client.patch(f"{plan}/brief", json={"monthly_spend": 98}).status_code == 200


def test_what_a_client_shares_is_seen_in_all_its_plans(client, plan):
    twin = client.post(f"{plan}/copy", json={"name": "Twin"}).json()["id"]
    address = f"/api/plans/{twin}"
    before = client.get(address).json()["summary"]["revision"]
    parts = [{"words": ["sash"]}, {"words": ["repair"]}]
    client.post(f"{plan}/recipes", json={"name": "cross", "parts": parts})
    assert [r["name"] for r in client.get(f"{address}/recipes").json()] == ["cross"]
    assert client.get(address).json()["summary"]["revision"] == before + 1
    client.post(f"{plan}/undo")
    assert client.get(f"{address}/recipes").json() == []
    stranger = client.post("/api/plans", json={"name": "Stranger"}).json()["id"]
    client.post(f"{plan}/redo")
    assert client.get(f"/api/plans/{stranger}/recipes").json() == []


def test_restoring_a_plan_that_lives_changes_nothing(client, plan):
    client.patch(f"{plan}/brief", json={"monthly_spend": 71})
    answer = client.post(f"{plan}/restore")
    assert answer.status_code == 422 and "deleted" in answer.json()["error"]["message"]
    assert client.get(plan).json()["summary"]["purse"]["purse"] == 71
