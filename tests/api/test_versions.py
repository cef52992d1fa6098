"""Versions: made in one step, named, chosen, set side by side; none leaks into another."""

import pytest

from milkwort.api.fit.versions_schemas import CompareView, OddsView, VersionsView
from tests.api.conftest import ids_of, texts_of


def family(client, plan):
    view = VersionsView.model_validate(client.get(f"{plan}/versions").json())
    return {v.id: v for v in view.versions}


def make(client, plan, **said):
    made = client.post(f"{plan}/versions", json=said)
    assert made.status_code == 201, made.text
    return f"/api/plans/{made.json()['id']}"


def compared(client, plan, *others):
    asked = "&".join(f"with={one.rsplit('/', 1)[1]}" for one in others)
    view = client.get(f"{plan}/compare?{asked}").json()
    return CompareView.model_validate(view).sides


def test_a_version_is_the_plan_again_and_differs_by_exactly_nothing(client, plan):
    other = make(client, plan, reason="to see what 90 would bring")
    first, second = compared(client, plan, other)
    assert first.standing == second.standing
    assert second.differences.of_kind == {}
    drawn = OddsView.model_validate(client.get(f"{plan}/compare/odds?with={second.plan_id}").json())
    assert drawn.sides[0].figures == drawn.sides[1].figures
    assert drawn.pairs[0].same == 1
    said = family(client, plan)[second.plan_id]
    assert (said.label, said.reason) == ("Version 2", "to see what 90 would bring")


def test_changes_of_a_version_leave_the_plan_alone_and_are_said(client, plan):
    other = make(client, plan)
    before = client.get(plan).json()
    client.patch(f"{other}/brief", json={"monthly_spend": 90})
    ids = ids_of(client, other)
    client.post(f"{other}/calls", json={"ids": [ids["window jobs"]], "call": "drop"})
    assert client.get(plan).json() == before
    _, second = compared(client, plan, other)
    found = second.differences
    said = dict(zip(found.what, zip(found.was, found.now, strict=True), strict=True))
    assert said["the purse"] == (60, 90)
    assert said["window jobs"] == ("block", "drop")
    assert second.standing.spend >= 60


def test_what_is_said_of_a_version_can_be_taken_back(client, plan):
    other = make(client, plan, label="Dearer")
    number = int(other.rsplit("/", 1)[1])
    client.patch(f"{other}/version", json={"label": "Richer", "reason": "more money"})
    assert family(client, plan)[number].label == "Richer"
    client.post(f"{other}/undo")
    assert family(client, plan)[number].label == "Dearer"
    assert family(client, plan)[number].reason == ""


@pytest.mark.parametrize("label", ["", "  ", "x" * 121, "dearer"])
def test_a_name_that_is_none_or_taken_is_refused(client, plan, label):
    make(client, plan, label="Dearer")
    other = make(client, plan, label="Cheaper")
    before = family(client, plan)
    assert client.patch(f"{other}/version", json={"label": label}).status_code == 422
    assert family(client, plan) == before


def test_the_one_chosen_last_is_the_plan_and_taking_it_back_gives_the_place_back(client, plan):
    one, two = make(client, plan), make(client, plan)
    root, first, second = (int(p.rsplit("/", 1)[1]) for p in (plan, one, two))

    def the_plan():
        (found,) = [v.id for v in family(client, plan).values() if v.is_plan]
        (listed,) = [p["id"] for p in client.get("/api/plans").json() if p["is_plan"]]
        assert found == listed
        return found

    assert the_plan() == root
    client.post(f"{one}/choose")
    assert the_plan() == first
    client.post(f"{two}/choose")
    assert the_plan() == second
    # in whichever order they are taken back, there is always one
    client.post(f"{one}/undo")
    assert the_plan() == second
    client.post(f"{two}/undo")
    assert the_plan() == root


def test_a_deleted_version_is_out_of_the_way_and_comes_back_as_it_was(client, plan):
    other = make(client, plan)
    client.post(f"{other}/choose")
    assert client.delete(other).status_code == 204
    assert [v.is_plan for v in family(client, plan).values()] == [True]
    client.post(f"{other}/restore")
    assert [v.is_plan for v in family(client, plan).values()] == [False, True]


def test_a_version_of_a_version_stands_in_the_same_family(client, plan):
    other = make(client, make(client, plan))
    assert len(family(client, other)) == 3
    assert sum(v.is_first for v in family(client, other).values()) == 1


def test_only_versions_of_the_plan_are_set_beside_it(client, plan):
    stranger = client.post("/api/plans", json={"name": "Another"}).json()["id"]
    answer = client.get(f"{plan}/compare?with={stranger}")
    assert answer.status_code == 422
    assert str(stranger) in answer.json()["error"]["message"]


def test_a_version_keeps_keys_but_no_ids_so_that_nothing_points_across(client, plan):
    other = make(client, plan)
    assert not set(ids_of(client, plan).values()) & set(ids_of(client, other).values())
    assert texts_of(client, plan)["bid"] == texts_of(client, other)["bid"]


def test_versions_survive_a_restart(client, plan, shell, tmp_path):
    other = make(client, plan, label="Kept", reason="why not")
    client.post(f"{other}/choose")
    before = family(client, plan)
    client.app.state.workspace.close()
    with shell.over(tmp_path) as again:
        assert family(again, plan) == before
