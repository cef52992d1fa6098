"""Lists of rivals, held against the plan."""

import pytest

from tests.api.gathering import tray_of

RIVALS = """rival,keyword,cpc,clicks,first seen,last seen,ad
Brightsash,Sash Window Repair,2.0,30,2026-01-01,2026-03-31,Bright sashes
Brightsash,shutter repair,1.0,10,2026-03-01,2026-03-31,Shutters
Mullion,shutter repair,n/a,10,2026-03-01,2026-03-31,Shutters
,shutter,1,1,,,
Mullion,oak door,1.5,4,2026-03-09,2026-03-01,
"""


def test_rivals_are_held_against_the_plan_and_their_gaps_come_to_the_tray(client, plan):
    assert client.get(f"{plan}/gather/rivals").json() is None
    view = client.post(f"{plan}/gather/rivals", files={"file": ("r.csv", RIVALS.encode())}).json()
    assert (view["both"], view["only_they"], view["only_we"]) == (1, 1, 1)
    assert [r["row"] for r in view["refused"]] == [4, 5, 6]
    seen = view["keywords"]
    assert seen["name"] == ["shutter repair", "sash window repair"]
    assert seen["ours"] == [False, True] and seen["days"] == [31, 90]
    assert seen["would_bring"][0] >= 0 and seen["would_bring"][1] is None
    assert seen["monthly_cost"] == [10, 60] and seen["ads"][1] == ["Bright sashes"]
    assert view["months"] == ["2026-01", "2026-02", "2026-03"]
    assert seen["months"] == [[2], [0, 1, 2]]
    body = {"texts": ["shutter repair"]}
    tray = tray_of(client.post(f"{plan}/gather/rivals/tray", json=body))
    assert tray.rows.text == ["shutter repair"] and tray.rows.cpc_low[0] > 0
    june = "rival,keyword\nBrightsash,shutter repair\nBrightsash,bay window\n"
    later = client.post(f"{plan}/gather/rivals", files={"file": ("j.csv", june.encode())}).json()
    assert later["changes"] == [
        {"rival": "Brightsash", "new": ["bay window"], "given_up": ["sash window repair"]}
    ]
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/gather/rivals").json()["name"] == "r.csv"


@pytest.mark.parametrize("text", ["keyword\nsash\n", "rival,cpc\nA,1\n", "rival,keyword\n,\nA,!\n"])
def test_a_list_of_rivals_that_lacks_its_columns_or_rows_says_which(client, plan, text):
    answer = client.post(f"{plan}/gather/rivals", files={"file": ("r.csv", text.encode())})
    assert answer.status_code == 422 and "r.csv" in answer.json()["error"]["message"]


def test_three_invented_rivals_ship(client, plan):
    view = client.post(f"{plan}/gather/rivals/sample").json()
    assert len(view["rivals"]) == 3 and view["only_they"] > 20 and view["refused"] == []
    brings = [b for b in view["keywords"]["would_bring"] if b is not None]
    assert len(brings) == view["only_they"] and brings == sorted(brings, reverse=True)
    assert view["shared"]["rivals"] == view["totals"]["name"]
    assert [row[at] for at, row in enumerate(view["shared"]["counts"])][1:] == (
        view["totals"]["keywords"]
    )


MONTHLY = """Rival,Keyword,Month,Clicks,CPC,Position,Landing page
Brightsash,shutter repair,2026-05,10,1.0,2.0,https://b.example/s
brightsash,shutter repair,Jun 2026,20,1.0,1.5,https://b.example/s
Brightsash,shutter repair,06/2026,30,1.0,1.5,https://b.example/s
Mullion,oak door,2026-13,4,1.0,3.0,
Mullion,oak door,2026-06,5,1.0,3.0,
"""


def test_a_row_a_month_is_read_and_one_rivals_part_can_be_looked_at(client, plan):
    view = client.post(f"{plan}/gather/rivals", files={"file": ("m.csv", MONTHLY.encode())}).json()
    assert view["rivals"] == ["Brightsash", "Mullion"]
    assert [(r["row"], r["column"]) for r in view["refused"]] == [(4, "keyword"), (5, "month")]
    assert "row 3" in view["refused"][0]["why"]
    part = client.get(f"{plan}/gather/rivals", params={"rival": "Brightsash"}).json()
    seen = part["keywords"]
    assert (seen["name"], seen["monthly_cost"]) == (["shutter repair"], [20])
    assert (seen["position"], seen["clicks_share"], seen["months"]) == ([1.5], [1.0], [[0, 1]])
    assert seen["pages"] == [["https://b.example/s"]]
    assert part["only_they"] == 1 and part["totals"]["name"] == ["Brightsash", "Mullion"]
    nobody = client.get(f"{plan}/gather/rivals", params={"rival": "Nobody"}).json()
    assert nobody["keywords"]["name"] == [] and nobody["only_they"] == 0


def test_looking_at_rivals_again_asks_the_almanac_nothing_and_goes_on_without_it(client, plan):
    client.post(f"{plan}/gather/rivals", files={"file": ("m.csv", MONTHLY.encode())})
    almanac = client.app.state.workspace.almanac
    almanac._left = 0
    assert client.get(f"{plan}/gather/rivals").json()["keywords"]["would_bring"][0] is not None
    part = client.get(f"{plan}/gather/rivals", params={"rival": "Mullion"}).json()["keywords"]
    assert part["would_bring"] == [None] and "used up" in part["unknown_why"]
