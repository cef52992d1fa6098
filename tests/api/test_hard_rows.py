"""Files as they come, and work that takes long: each ends well or with a clear message."""

import threading

import pytest

from milkwort.api.http.jobs import Jobs
from milkwort.core.errors import StoppedError
from tests.api.conftest import ids_of
from tests.api.gathering import paste, take, tray_of


def figures_of(client, plan, text):
    texts = client.get(plan).json()["sheet"]["texts"]
    return texts["volume_high"][texts["text"].index(text)]


def test_merging_a_near_duplicate_puts_its_figures_beside_those_in_use(client, plan):
    tray = paste(client, plan, "keyword\tsearches\nreplacement sash cord\t900\n")
    take(client, plan, tray, near="merge")
    ids = ids_of(client, plan)
    assert "replacement sash cord" not in ids
    readings = client.get(f"{plan}/keywords/{ids['sash cord replacement']}/workings").json()
    assert [r["in_use"] for r in readings["readings"]].count(True) == 1
    assert {r["volume_high"] for r in readings["readings"]} == {420, 900}
    assert figures_of(client, plan, "sash cord replacement") == 420


@pytest.mark.parametrize(("verdict", "volume"), [("take", 900), ("keep", 420), ("mean", 614.8)])
def test_new_figures_are_taken_left_beside_or_averaged(client, plan, verdict, volume):
    tray = paste(client, plan, "keyword\tsearches\nsash cord replacement\t900\n")
    assert tray.was and tray.verdict == "take"
    take(client, plan, tray, changed="keep", verdicts={tray.rows.row[0]: verdict})
    assert figures_of(client, plan, "sash cord replacement") == pytest.approx(volume, abs=0.1)


def test_what_was_cleaned_is_shown_beside_what_was_written(client, plan):
    tray = paste(client, plan, "keyword\n  Sash   LIFT#\n")
    assert tray.rows.text == ["sash lift"]
    assert list(tray.cleaned.values()) == ["Sash LIFT#"]


def test_columns_set_by_hand_are_remembered_past_a_restart(shell, tmp_path):
    text = "keyword\tflop\nsash lift\tabout\n"
    with shell.over(tmp_path) as client:
        made = client.post("/api/plans", json={"name": "A"}).json()["id"]
        tray = paste(client, f"/api/plans/{made}", text)
        body = {"columns": {"keyword": 0, "volume": 1}, "first_row": 1, "period": "day"}
        client.put(f"/api/plans/{made}/gather/{tray.key}/columns", json=body)
    with shell.over(tmp_path) as client:
        again = paste(client, f"/api/plans/{made}", text.replace("about", "7"))
    assert (again.columns, again.period) == ({"keyword": 0, "volume": 1}, "day")


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "x.csv"),
        (b"PK\x03\x04 not an archive", "workbook"),
        (b"\xff\xfe\x00", "x.csv"),
        (b"\n" * 400_000, "200,000 rows"),
    ],
    ids=["nothing", "a broken archive", "half a character", "empty rows"],
)
def test_what_is_no_list_of_keywords_harms_nothing(client, plan, data, said):
    before = client.get(plan).json()["sheet"]
    answer = client.post(f"{plan}/gather/file", files={"file": ("x.csv", data)})
    assert answer.status_code in (413, 422)
    assert said in answer.json()["error"]["message"]
    assert client.get(plan).json()["sheet"] == before


def test_formulas_in_cells_are_texts_and_leave_defused(client, plan):
    take(client, plan, paste(client, plan, "keyword\tcall\n=1+1 sash\tkeep\n"))
    made = client.post(f"{plan}/hand-over", json={"kind": "csv"}).json()["made"]
    sheet = client.get(f"{plan}/hand-over/{made['id']}/file").text
    assert "1+1 sash" in sheet and ",=" not in sheet


def test_long_work_is_told_of_and_stops_where_it_is_asked_to():
    told = []

    class Window:
        def tell(self, plan_id, message):
            told.append((plan_id, message["what"], message["done"]))

    jobs = Jobs(Window())
    with pytest.raises(StoppedError), jobs.under_way(3, "mine") as progress:
        progress("reading", 1, 9)
        assert jobs.stop("mine") and not jobs.stop("another's")
        progress("reading", 2, 9)
    assert told == [(3, "reading", 1)]
    assert not jobs.stop("mine")


def test_a_stopped_take_keeps_nothing_and_the_tray_is_still_there(client, plan):
    rows = "".join(f"sash part {n}\n" for n in range(6000))
    tray = paste(client, plan, f"keyword\n{rows}")
    jobs = client.app.state.workspace.jobs
    stopped = threading.Event()
    tell = jobs._events.tell

    def stop_at_once(plan_id, message):
        if message.get("job") == "mine":
            jobs.stop("mine")
            stopped.set()
        tell(plan_id, message)

    jobs._events.tell = stop_at_once
    answer = client.post(f"{plan}/gather/{tray.key}/take", headers={"X-Milkwort-Job": "mine"})
    assert stopped.is_set() and answer.status_code == 409
    assert client.get(plan).json()["summary"]["trail"]["keywords"] == 6
    jobs._events.tell = tell
    take(client, plan, tray)
    assert client.get(plan).json()["summary"]["trail"]["keywords"] == 6006


def test_two_sheets_of_one_name_keep_their_own_readings(client, plan):
    first = tray_of(client.post(f"{plan}/gather/text", json={"text": "keyword\nsill\n"}))
    take(client, plan, first)
    again = client.post(f"{plan}/gather/{first.key}/take")
    assert again.status_code == 404
