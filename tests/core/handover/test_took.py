from milkwort.core.handover.took import differences_of, name_of_row, rows_to_send

PLAN = [
    {"campaign": "Search", "ad group": "Repair", "keyword": "sash", "match": "exact", "bid": 1.5,
     "run": "yes", "ref": "k1"},
    {"campaign": "Search", "ad group": "Repair", "keyword": "cord", "match": "exact", "bid": None,
     "run": "no", "ref": "k2"},
]  # fmt: skip


def test_what_stands_as_it_should_has_no_difference():
    live = [dict(row, bid=1.5 + 1e-12 if row["bid"] else None) for row in PLAN]
    assert differences_of("keywords", PLAN, live) == []


def test_each_field_that_differs_is_said_with_what_was_wanted_and_what_stands():
    live = [dict(PLAN[0], bid=1.4, match="phrase"), PLAN[1]]
    found = differences_of("keywords", PLAN, live)
    assert [(one.ref, one.field, one.wanted, one.stands) for one in found] == [
        ("k1", "match", "exact", "phrase"), ("k1", "bid", "1.5", "1.4"),
    ]  # fmt: skip
    assert found[0].name == "sash · exact"


def test_a_row_too_few_and_a_row_too_many_are_said_whole():
    live = [PLAN[0], dict(PLAN[0], ref="k9", keyword="old")]
    found = differences_of("keywords", PLAN, live)
    assert [(one.ref, one.wanted, one.stands) for one in found] == [
        ("k2", "cord · exact", ""), ("k9", "", "old · exact"),
    ]  # fmt: skip
    rows, gone = rows_to_send("keywords", PLAN, live, whole=False)
    assert [row["ref"] for row in rows] == ["k2"]
    assert [row["ref"] for row in gone] == ["k9"]
    assert len(rows_to_send("keywords", PLAN, live, whole=True)[0]) == 2


def test_an_ads_texts_are_one_however_they_are_numbered():
    ad = {"campaign": "S", "ad group": "R", "headline 1": "One", "headline 2": "",
          "description 1": "Two", "ref": "a1"}  # fmt: skip
    live = {"campaign": "S", "ad group": "R", "fields": ["One", "", "", "Two"], "ref": "a1"}
    assert differences_of("ads", [ad], [live]) == []
    assert len(differences_of("ads", [ad], [live | {"fields": ["Two", "One"]}])) == 1
    assert name_of_row("ads", ad) == "R · S"
