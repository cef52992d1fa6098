"""Results of a month and the next, and how they are brought in and looked at."""

from __future__ import annotations

from fastapi.testclient import TestClient

HEAD = "keyword,match,day,impressions,clicks,cost,customers,could_show,lost_to_money\n"
RESULTS = HEAD + "".join(
    f"sash window repair,exact,2027-04-{day:02},200,12,{14 + day / 10},{1 if day % 9 == 0 else 0},"
    f"400,0\nsash cord replacement,exact,2027-04-{day:02},40,4,3.2,0,90,0\n"
    for day in range(1, 31)
)
TERMS = "term,keyword,match,day,impressions,clicks,cost,customers\n" + "".join(
    f"sash window repair jobs,sash window repair,exact,2027-04-{day:02},10,1,1.2,0\n"
    f"sash window repair gold,sash window repair,exact,2027-04-{day:02},10,1,1.2,{day % 3 == 0:d}\n"
    for day in range(1, 31)
)


def put(client: TestClient, plan: str, text: str, name: str = "april.csv") -> dict:
    answer = client.post(f"{plan}/results", files={"file": (name, text.encode())})
    assert answer.status_code == 200, answer.text
    return answer.json()


def learn(client: TestClient, plan: str) -> dict:
    answer = client.get(f"{plan}/learn")
    assert answer.status_code == 200, answer.text
    return answer.json()


NOTHING = {"figures": False, "stops": False, "terms": False, "ranges": False}


def stored(client, plan, text: str = "sash window repair") -> tuple[dict, dict]:
    """A keyword of a plan and its reading in use, as they are kept."""
    raw = client.get(f"{plan}/raw.json").json()
    keyword = next(row for row in raw["keyword"] if row["text"] == text)
    (reading,) = (r for r in raw["reading"] if r["keyword_id"] == keyword["id"] and r["in_use"])
    return keyword, reading


def next_month(client, plan) -> str:
    return f"/api/plans/{client.post(f'{plan}/learn/close', json={}).json()['id']}"


MAY = RESULTS.replace("2027-04-", "2027-05-")
