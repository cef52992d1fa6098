import json

from milkwort.api.plan.schemas import ChangeAnswer, PlanAnswer
from milkwort.api.plan.summary_schemas import Ranges
from tests.api.conftest import DRAWS, ids_of


def without_times(answer):
    answer["summary"].pop("revision")
    answer["summary"].pop("journal")
    return answer


def test_a_new_plan_is_all_assumption(client):
    made = client.post("/api/plans", json={"name": "Fresh"}).json()
    brief = client.get(f"/api/plans/{made['id']}").json()["summary"]["brief"]
    assert "sale_value" in brief["not_entered"] and brief["worth"]["ceiling"] > 0


def test_the_sample_opens_and_keeps_to_the_described_shape(client):
    made = client.post("/api/plans", json={"name": "Sample", "start": "sample"}).json()
    answer = PlanAnswer.model_validate(client.get(f"/api/plans/{made['id']}").json())
    assert len(answer.sheet.texts.id) >= 600
    assert len(answer.sheet.figures.bid) == len(answer.sheet.texts.id)
    assert answer.summary.purse.spend <= 600.000001


def test_a_copy_is_equal_and_apart(client, plan):
    copy = client.post(f"{plan}/copy", json={"name": "Twin"}).json()
    twin = f"/api/plans/{copy['id']}"
    one, other = client.get(plan).json(), client.get(twin).json()
    assert one["sheet"]["figures"] == other["sheet"]["figures"]
    client.patch(f"{twin}/brief", json={"monthly_spend": 5})
    assert client.get(plan).json()["summary"]["purse"]["purse"] == 60


def test_plans_are_renamed_deleted_and_brought_back(client, plan):
    client.patch(plan, json={"name": "  Better   name "})
    assert [p["name"] for p in client.get("/api/plans").json()] == ["Better name"]
    assert client.delete(plan).status_code == 204
    assert client.get("/api/plans").json() == []
    assert client.get(plan).status_code == 404
    assert client.post(f"{plan}/restore").status_code == 204
    assert client.get(plan).json()["summary"]["brief"]["name"] == "Better name"


def test_deleted_plans_stay_on_a_list_of_their_own_until_they_are_brought_back(shell, tmp_path):
    def deleted(client):
        return [(p["name"], p["label"]) for p in client.get("/api/plans/deleted").json()]

    with shell.over(tmp_path) as client:
        assert deleted(client) == []
        ids = [client.post("/api/plans", json={"name": name}).json()["id"] for name in "ABC"]
        for made in (ids[2], ids[0]):
            client.delete(f"/api/plans/{made}").raise_for_status()
    with shell.over(tmp_path) as client:  # a restart forgets nothing of it
        assert sorted(deleted(client)) == [("A", ""), ("C", "")]
        line = next(p for p in client.get("/api/plans/deleted").json() if p["name"] == "A")
        assert (line["id"], line["client"]) == (ids[0], "A") and line["deleted_at"] > "2026"
        client.post(f"/api/plans/{ids[0]}/restore").raise_for_status()
        assert deleted(client) == [("C", "")]
        assert [p["name"] for p in client.get("/api/plans").json()] == ["A", "B"]


def test_undo_and_redo_take_back_and_do_again_and_survive_a_restart(shell, tmp_path):
    with shell.over(tmp_path) as client:
        made = client.post("/api/plans", json={"name": "P", "start": "sample"}).json()
        plan = f"/api/plans/{made['id']}"
        first = without_times(client.get(plan).json())
        ids = list(ids_of(client, plan).values())[:50]
        client.post(f"{plan}/calls", json={"ids": ids, "call": "drop"})
        client.patch(f"{plan}/brief", json={"monthly_spend": 321})
        client.patch(f"{plan}/assumptions", json={"values": {"stretch": 0.3}})
        client.post(f"{plan}/bids", json={"ids": ids[:2], "bid": 1.5})
        client.post(f"{plan}/keywords/remove", json={"ids": ids[:5]})
        last = without_times(client.get(plan).json())
    with shell.over(tmp_path) as client:
        done = [client.post(f"{plan}/undo").json()["did"] for _ in range(5)]
        assert done[0] == "undid: remove 5 keywords" and done[-1] == "undid: drop 50 keywords"
        assert without_times(client.get(plan).json()) == first
        assert client.post(f"{plan}/undo").status_code == 404
    with shell.over(tmp_path) as client:
        for _ in range(5):
            assert client.post(f"{plan}/redo").status_code == 200
        assert without_times(client.get(plan).json()) == last
        assert client.post(f"{plan}/redo").status_code == 404


def test_a_new_change_ends_what_could_be_redone(client, plan):
    client.patch(f"{plan}/brief", json={"monthly_spend": 70})
    client.post(f"{plan}/undo")
    answer = client.patch(f"{plan}/brief", json={"monthly_spend": 80}).json()
    assert answer["summary"]["journal"]["redo"] is None


def test_every_change_raises_the_revision_and_says_what_it_was_laid_upon(client, plan):
    before = client.get(plan).json()["summary"]["revision"]
    answer = ChangeAnswer.model_validate(
        client.patch(f"{plan}/brief", json={"monthly_spend": 70}).json()
    )
    assert answer.was == before and answer.summary.revision == before + 1


def test_a_plan_goes_out_as_json_and_loads_back_equal(client, plan):
    client.patch(f"{plan}/assumptions", json={"values": {"intent_learn": 0.3}})
    client.post(f"{plan}/bids", json={"ids": [ids_of(client, plan)["windows"]], "bid": 2}).json()
    made = client.post(f"{plan}/hand-over", json={"kind": "json"}).json()["made"]
    content = client.get(f"{plan}/hand-over/{made['id']}/file").content
    loaded = client.post("/api/plans/load", files={"file": ("p.json", content)}).json()
    twin = f"/api/plans/{loaded['id']}"
    again = client.post(f"{twin}/hand-over", json={"kind": "json"}).json()["made"]
    assert json.loads(client.get(f"{twin}/hand-over/{again['id']}/file").content) == json.loads(
        content
    )
    assert (
        client.get(plan).json()["sheet"]["figures"] == client.get(twin).json()["sheet"]["figures"]
    )


def test_a_file_that_is_no_plan_is_refused_and_makes_none(client):
    for content in (b"{}", b'{"name": "x", "brief": {"luck": 1}}', b"\x00"):
        answer = client.post("/api/plans/load", files={"file": ("p.json", content)})
        assert answer.status_code == 422 and answer.json()["error"]["message"]
    assert client.get("/api/plans").json() == []


def test_each_figure_of_the_purse_has_workings(client, plan):
    for figure in ("spend", "clicks", "customers", "cost_per_customer", "profit", "next_unit"):
        answer = client.get(f"{plan}/workings/{figure}").json()
        assert answer["sections"][0]["lines"]


def test_ranges_hold_the_middle_and_belong_to_a_revision(client, plan):
    frame = client.get(plan).json()["summary"]
    ranges = Ranges.model_validate(client.get(f"{plan}/ranges").json())
    assert ranges.revision == frame["revision"] and ranges.draws == DRAWS
    clicks = ranges.figures["clicks"]
    assert clicks.low <= frame["purse"]["clicks"] * 1.1 and clicks.low <= clicks.high
    assert ranges.figures["spend"].high <= 60
    client.patch(f"{plan}/brief", json={"monthly_spend": 30})
    assert client.get(f"{plan}/ranges").json()["revision"] == frame["revision"] + 1
