from datetime import date

import pytest

from milkwort.platforms.platform import PlatformError, table_rows
from milkwort.standins.market.clock import LIFE_DAYS
from milkwort.standins.market.storage import Account
from tests.standins.market.conftest import OPENING, SHEETS


def test_a_plan_is_taken_in_and_read_back(market):
    account = market.open()
    replies = market.send(account)
    assert {code for rows in replies.values() for _, code, _ in rows} == {"taken"}
    live = market.platform.live(account, "keywords")
    assert live[0] == {
        "campaign": "Search", "ad group": "Repair", "keyword": "sash window repair",
        "match": "phrase", "bid": 1.5, "run": "yes", "ref": "k1",
    }  # fmt: skip
    assert market.platform.state(account)["live"] == {
        "campaigns": 1, "groups": 1, "keywords": 2, "negatives": 1, "ads": 1, "spots": 0,
    }  # fmt: skip


def test_the_same_again_is_as_before_and_a_rename_is_one_changed_row(market):
    account = market.open()
    market.send(account)
    again = {kind: text + "\n" for kind, text in SHEETS.items()}
    assert {c for rows in market.send(account, **again).values() for _, c, _ in rows} == {
        "same_as_before"
    }
    renamed = market.platform.upload(
        account, "campaigns", b"campaign,daily budget,ref\nFound,20,c1\n", "r"
    )
    (row,) = market.platform.reply(account, renamed)
    assert (row.state, row.field, row.old, row.new) == ("taken", "name", "Search", "Found")
    assert market.platform.live(account, "keywords")[0]["campaign"] == "Found"


@pytest.mark.parametrize(
    ("kind", "row", "code"),
    [
        ("campaigns", "Other,x,c9", "not_a_price"),
        ("campaigns", "Search,5,c9", "name_twice"),
        ("groups", "Nowhere,New,/,g9", "campaign_unknown"),
        ("keywords", "Search,Nothing,sash,exact,1,yes,k9", "group_unknown"),
        ("keywords", "Search,Repair,sash,exact,0.01,yes,k9", "bid_under_least"),
        ("keywords", "Search,Repair,sash,exact,0.055,yes,k9", "bid_off_step"),
        ("keywords", "Search,Repair,sash,exact,21,yes,k9", "bid_over_day"),
        ("keywords", "Search,Repair,sash,exact,,yes,k9", "bid_missing"),
        ("keywords", "Search,Repair,sash,wide,1,yes,k9", "match_not_offered"),
        ("keywords", "Search,Repair,Sash Windows Repair,phrase,1,yes,k9", "keyword_twice"),
        ("keywords", "Search,Repair,sash <b>,exact,1,yes,k9", "character_refused"),
        ("keywords", "Search,Repair,,exact,1,yes,k9", "name_missing"),
        ("keywords", "Search,Repair,sash jobs,exact,1,yes,k9", "negative_stops_keyword"),
        ("keywords", "Search,Repair,sash,exact,1,maybe,k9", "yes_or_no"),
        ("negatives", ",,window,phrase,n9", "negative_stops_keyword"),
        ("ads", f"Search,Repair,{'x' * 37},Cords,a9", "too_long"),
    ],
)
def test_each_bad_row_is_answered_by_itself_with_which_expected_got_where(market, kind, row, code):
    account = market.open()
    market.send(account)
    head, good = SHEETS[kind].splitlines()[:2]
    number = market.platform.upload(account, kind, f"{head}\n{row}\n{good}\n".encode(), "bad")
    first, second = market.platform.reply(account, number)
    assert (first.code, second.code) == (code, "same_as_before")
    assert first.state == ("warned" if code == "negative_stops_keyword" else "refused")
    assert first.message.startswith("row 2, ")
    assert "expected" in first.message


def test_a_group_takes_no_more_than_its_limit(market):
    account = market.open(limits={"keywords_per_group": 3})
    market.send(account)
    rows = "".join(f"Search,Repair,word{i},exact,1,yes,x{i}\n" for i in range(3))
    found = market.send(account, keywords=SHEETS["keywords"].splitlines()[0] + "\n" + rows)
    assert [code for _, code, _ in found["keywords"]] == ["taken", "group_full", "group_full"]


def test_what_is_removed_takes_along_what_hangs_on_it_and_may_come_again(market):
    account = market.open()
    market.send(account)
    gone = market.platform.upload(account, "campaigns", b"change,campaign,ref\nremoved,Search,c1\n",
                                  "gone")  # fmt: skip
    assert market.platform.reply(account, gone)[0].code == "removed"
    live = market.platform.state(account)["live"]
    assert (live["campaigns"], live["keywords"], live["ads"], live["negatives"]) == (0, 0, 0, 1)
    again = {kind: text + " \n" for kind, text in SHEETS.items()}
    market.send(account, **again)
    assert market.platform.state(account)["live"]["keywords"] == 2


def test_a_sheet_that_is_none_is_refused_whole(market):
    account = market.open()
    for content, code in (
        (b"", "not_a_sheet"), (b"PK\x03\x04nonsense", "not_a_sheet"),
        (b"keyword\nsash\n", "column_missing"), (b"\xff\xfe\x00", "not_a_sheet"),
    ):  # fmt: skip
        with pytest.raises(PlatformError) as error:
            market.platform.upload(account, "keywords", content, f"{content!r}")
        assert error.value.platform_code == code
    with pytest.raises(PlatformError) as error:
        market.platform.upload(account, "words", b"a\nb\n", "kind")
    assert error.value.platform_code == "kind_unknown"


def test_formula_guards_are_taken_off_again(market):
    account = market.open()
    market.send(account)
    head = SHEETS["keywords"].splitlines()[0]
    market.send(account, keywords=f"{head}\nSearch,Repair,'-sash,exact,1,yes,k7\n")
    assert market.platform.live(account, "keywords")[-1]["keyword"] == "-sash"


def test_only_the_account_s_own_key_opens_it(market):
    account, other = market.open(), market.open(once="p")
    for key in ("", "nonsense", other.key):
        answer = market.http.get(f"/v1/accounts/{account.id}",
                                 headers={"Authorization": f"Bearer {key}"})  # fmt: skip
        assert answer.status_code == 401
    nobody = market.http.get("/v1/accounts/zzz", headers={"Authorization": "Bearer k"})
    assert nobody.status_code == 404
    # also where the same thing was asked before
    market.platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "once")
    answer = market.http.post(
        f"/v1/accounts/{account.id}/uploads?kind=campaigns", content=SHEETS["campaigns"],
        headers={"Authorization": f"Bearer {other.key}", "Idempotency-Key": "once"},
    )  # fmt: skip
    assert answer.status_code == 401


def test_the_same_key_gets_the_first_answer_and_another_body_is_refused(market):
    account = market.open()
    assert market.open() == account
    first = market.platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "u")
    assert market.platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "u") == first
    with pytest.raises(PlatformError) as error:
        market.platform.upload(account, "campaigns", b"campaign,ref\nOther,c3\n", "u")
    assert error.value.platform_code == "key_used"
    without = market.http.post(
        f"/v1/accounts/{account.id}/uploads?kind=campaigns", content=b"campaign\nA\n",
        headers={"Authorization": f"Bearer {account.key}"},
    )  # fmt: skip
    assert (without.status_code, without.json()["error"]["code"]) == (422, "once_key_missing")


def test_results_of_every_level_add_up_to_the_days(market):
    account = market.open()
    market.send(account)
    state = market.platform.pass_days(account, 30, "d")
    assert state.state == "running"
    assert market.platform.clock(account).today == date(2027, 5, 1)
    days = table_rows(market.platform.results(account, "day"))
    assert len(days) == 30
    for level in ("campaign", "group", "keyword", "term"):
        rows = table_rows(market.platform.results(account, level))
        for name in ("impressions", "could_show", "clicks", "customers", "cost", "credit"):
            assert sum(r[name] for r in rows) == pytest.approx(sum(d[name] for d in days)), level
    assert sum(d["cost"] - d["credit"] for d in days) <= 20 * 30
    terms = table_rows(market.platform.results(account, "term"))
    assert "sash window repair" in {row["term"] for row in terms}


def test_a_term_is_named_with_all_its_days_once_it_was_shown_twice(market):
    account = market.open(keywords=[OPENING["keywords"][0] | {"searches": 40}])
    market.send(account)
    market.platform.pass_days(account, 30, "d")
    rows = table_rows(market.platform.results(account, "term"))
    shown: dict[str, int] = {}
    for row in rows:
        shown[row["term"]] = shown.get(row["term"], 0) + row["impressions"]
    assert shown.pop("seldom typed") > 0
    assert min(shown.values()) >= 2


def test_a_month_at_once_is_thirty_times_a_day(make_a_market):
    market = make_a_market()
    one, other = market.open(), market.open(once="second")
    for account in (one, other):
        market.send(account)
    market.platform.pass_days(one, 30, "all")
    for day in range(30):
        market.platform.pass_days(other, 1, f"d{day}")
    for level in ("day", "term"):
        assert market.platform.results(one, level) == market.platform.results(other, level)


def test_customers_reported_late_appear_on_the_day_of_their_click(market):
    account = market.open(keywords=[OPENING["keywords"][0] | {"searches": 90_000}])
    market.send(account, **{k: v.replace(",20,c1", ",2000,c1") for k, v in SHEETS.items()})
    market.platform.pass_days(account, 3, "a")
    early = table_rows(market.platform.results(account, "day"))
    market.platform.pass_days(account, 20, "b")
    later = table_rows(market.platform.results(account, "day", until=date(2027, 4, 3)))
    assert [d["clicks"] for d in later] == [d["clicks"] for d in early]
    assert sum(d["customers"] for d in later) > sum(d["customers"] for d in early)
    assert sum(d["credit"] for d in later) > sum(d["credit"] for d in early)


def test_the_envelope_is_closed_until_it_is_opened_and_then_for_good(market):
    account = market.open()
    market.send(account)
    market.platform.pass_days(account, 5, "a")
    with pytest.raises(PlatformError) as error:
        market.platform.envelope(account)
    assert error.value.platform_code == "envelope_closed"
    with pytest.raises(PlatformError):
        market.platform.options(account, date(2027, 4, 1), date(2027, 4, 5), [1.0])
    truth = market.platform.open_envelope(account)
    assert truth["texts"] == ["sash window repair", "sash cord replacement"]
    assert market.platform.state(account)["envelope"] == truth["opened"]
    market.platform.open_envelope(account)
    assert market.platform.state(account)["envelope"] == truth["opened"]
    options = market.platform.options(account, date(2027, 4, 1), date(2027, 4, 5), [0.5, 1.0, 2.0])
    first = options["clicks"][options["ref"].index("k1")]
    assert first[0] < first[1] < first[3] < first[2]  # its own bid, 1.50, comes last


def test_no_answer_shows_the_truth_while_the_envelope_is_closed(market):
    account = market.open()
    market.send(account)
    market.platform.pass_days(account, 5, "a")
    described = market.http.get("/openapi.json").json()
    told = {"invalid_share", "true_rate", "useful", "mu", "sigma"}
    for path, ways in described["paths"].items():
        if "get" in ways and "envelope" not in path and "events" not in path:
            address = path.replace("{account_id}", account.id).replace("{number}", "1")
            headers = {"Authorization": f"Bearer {account.key}"}
            answer = market.http.get(address, params={"kind": "keywords"}, headers=headers)
            assert not told & set(answer.text.replace('"', " ").split())


def test_nothing_is_sent_while_days_pass_and_no_day_passes_twice(market):
    account = market.open()
    market.send(account)
    with market.app.state.database.begin() as session:
        from milkwort.standins.market.storage import Clock

        session.get(Clock, account.id).state = "running"
    with pytest.raises(PlatformError) as error:
        market.platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "w")
    assert error.value.platform_code == "days_pass"
    with pytest.raises(PlatformError) as error:
        market.platform.pass_days(account, 1, "again")
    assert error.value.platform_code == "days_pass_already"
    assert market.platform.stop_clock(account).state == "stopped"


@pytest.mark.parametrize("number", [2**63, 2**80, -(2**70)])
def test_a_number_past_what_a_database_counts_is_not_found(market, number):
    account = market.open()
    headers = {"Authorization": f"Bearer {account.key}"}
    for path in (f"uploads/{number}", f"uploads/{number}/reply"):
        answer = market.http.get(f"/v1/accounts/{account.id}/{path}", headers=headers)
        assert answer.status_code == 404 and answer.json()["error"]["code"] == "not_found"


def test_an_account_lives_five_years_and_says_so(market):
    account = market.open()
    with market.app.state.database.begin() as session:
        held = session.get(Account, account.id)
        held.start = held.today - LIFE_DAYS + 2
    with pytest.raises(PlatformError, match="2 are left") as error:
        market.platform.pass_days(account, 3, "too many")
    assert error.value.platform_code == "life_over"
    assert market.platform.pass_days(account, 2, "the last").wanted == 2
