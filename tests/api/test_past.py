"""What ran before the plan, as the client asks for it."""

import pytest

from milkwort.api.gather.past_schemas import AccountView, TermsView
from tests.api.conftest import texts_of
from tests.api.gathering import take, tray_of

TERMS = """search term,clicks,cost,customers,revenue
sash window jobs,60,50,0,0
sash window repair,500,400,14,4200
window rope broken,40,20,2,700
,3,3,0,0
"""
ACCOUNT = """campaign,ad group,keyword,match type,bid,landing page,clicks,cost,customers
Windows,Repair,sash window repair,exact,1.10,/repair,90,80,3
Windows,Ropes,window rope broken,phrase,0.90,/ropes,30,20,1
Windows,,jobs,negative phrase,,,,,
Windows,Ropes,skipping,negative exact,,,,,
"""


def upload(client, plan, kind, text, view):
    file = {"file": (f"{kind}.csv", text.encode())}
    answer = client.post(f"{plan}/past/{kind}", files=file)
    assert answer.status_code == 200, answer.text
    return view.model_validate(answer.json())


def test_terms_that_sold_come_first_and_bad_rows_are_named(client, plan):
    assert client.get(f"{plan}/past/terms").json() is None
    view = upload(client, plan, "terms", TERMS, TermsView)
    assert view.text[0] == "sash window repair" and view.sold == 2
    assert [r.row for r in view.refused] == [5]
    assert client.get(f"{plan}/past/terms").json()["text"] == view.text
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/past/terms").json() is None


def test_terms_go_to_the_tray_and_known_keywords_keep_their_own_prices(client, plan):
    upload(client, plan, "terms", TERMS, TermsView)
    tray = tray_of(client.post(f"{plan}/past/terms/tray"))
    assert tray.counts["new"] == 2 and tray.counts["there"] == 1
    take(client, plan, tray)
    found = texts_of(client, plan)
    assert found["origin"]["window rope broken"] == "terms.csv"


def test_results_fill_the_brief_and_undo_takes_that_back(client, plan):
    view = upload(client, plan, "terms", TERMS, TermsView)
    before = client.get(plan).json()["summary"]["brief"]["values"]
    answer = client.post(f"{plan}/past/terms/brief", json={"counts": "customers"}).json()
    values = answer["summary"]["brief"]["values"]
    assert values["rate_likely"] == pytest.approx(view.summary.rate.likely, abs=1e-5)
    assert values["sale_value"] == pytest.approx(4900 / 16, abs=0.01)
    undone = client.post(f"{plan}/undo").json()
    assert undone["summary"]["brief"]["values"] == before


def test_too_few_clicks_fill_nothing(client, plan):
    upload(client, plan, "terms", "search term,clicks,customers\nsash,9,1\n", TermsView)
    answer = client.post(f"{plan}/past/terms/brief", json={})
    assert answer.status_code == 422 and "30 clicks" in answer.json()["error"]["message"]


def test_a_window_of_days_is_said_and_nothing_fills_a_brief_before_there_are_results(client, plan):
    assert client.post(f"{plan}/past/terms/days", json={"days": 30}).status_code == 404
    upload(client, plan, "terms", TERMS, TermsView)
    client.post(f"{plan}/past/terms/days", json={"days": 30})
    assert client.get(f"{plan}/past/terms").json()["summary"]["days"] == 30
    assert client.post(f"{plan}/past/terms/days", json={"days": 0}).status_code == 422


def test_the_account_becomes_the_starting_point_of_the_plan(client, plan):
    view = upload(client, plan, "account", ACCOUNT, AccountView)
    assert (view.live, view.negatives, view.missing) == (2, 2, 1)
    answer = client.post(f"{plan}/past/account/take").json()
    assert answer["summary"]["trail"]["keywords"] == 7
    found = texts_of(client, plan)
    assert found["call"]["window rope broken"] == "keep"
    assert found["group"]["window rope broken"] == "Ropes"
    stops = {n["text"]: (n["match"], n["level"]) for n in client.get(f"{plan}/negatives").json()}
    assert stops == {"jobs": ("phrase", "campaign"), "skipping": ("exact", "group")}
    after = AccountView.model_validate(client.get(f"{plan}/past/account").json())
    assert after.missing == 0 and after.plan.spend <= 60 + 1e-9
    client.post(f"{plan}/undo")
    assert client.get(plan).json()["summary"]["trail"]["keywords"] == 6


def test_live_bids_set_by_hand_make_the_plan_run_as_the_account_does(client, plan):
    upload(client, plan, "account", ACCOUNT, AccountView)
    client.post(f"{plan}/past/account/take")
    client.post(f"{plan}/past/account/bids")
    view = AccountView.model_validate(client.get(f"{plan}/past/account").json())
    live = {
        text: (what, now, then)
        for text, what, now, then in zip(
            view.text, view.what, view.bid_now, view.bid_plan, strict=True
        )
    }
    assert live["sash window repair"] == ("same", pytest.approx(1.1), pytest.approx(1.1))


@pytest.mark.parametrize("kind", ["terms", "account"])
def test_made_up_files_ship_to_try_it(client, plan, kind):
    view = client.post(f"{plan}/past/{kind}/sample").json()
    assert view["summary"]["rate"] is not None and view["refused"] == []
