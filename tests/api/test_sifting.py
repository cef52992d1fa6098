"""Sift as the client asks for it: reasons, words, rules, edits, the line, things tried."""

import pytest

from milkwort.api.gather.past_schemas import TermsView
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.schemas import BlockingWorth, RulePreview, WhatIfAnswer, WordsView
from milkwort.api.sift.workings_schemas import Workings
from tests.api.conftest import ids_of, texts_of
from tests.api.test_past import TERMS
from tests.api.test_past import upload as upload_past


def post(client, path, body, model=ChangeAnswer):
    answer = client.post(path, json=body)
    assert answer.status_code == 200, answer.text
    return model.model_validate(answer.json())


def negatives_of(client, plan):
    return {(n["text"], n["match"], n["by"]) for n in client.get(f"{plan}/negatives").json()}


def test_a_call_keeps_its_reason_and_who_made_it_and_when(client, plan):
    ids = ids_of(client, plan)
    body = {"ids": [ids["windows"]], "call": "drop", "reason": "too dear", "by": "word"}
    post(client, f"{plan}/calls", body)
    found = texts_of(client, plan)
    assert found["reason"]["windows"] == "too dear" and found["by"]["windows"] == "word"
    assert found["at"]["windows"].startswith("20")
    assert found["by"]["sash window repair"] == "file"


def test_block_makes_a_negative_of_the_warning_word_and_another_call_takes_it_back(client, plan):
    ids = ids_of(client, plan)
    post(client, f"{plan}/calls", {"ids": [ids["window jobs"]], "call": "none"})
    post(client, f"{plan}/calls", {"ids": [ids["window jobs"]], "call": "block"})
    assert negatives_of(client, plan) == {("jobs", "phrase", "block")}
    post(client, f"{plan}/calls", {"ids": [ids["window jobs"]], "call": "hold"})
    assert negatives_of(client, plan) == set()
    client.post(f"{plan}/undo")
    assert negatives_of(client, plan) == {("jobs", "phrase", "block")}


def test_every_word_comes_with_its_keywords_warning_words_first(client, plan):
    view = WordsView.model_validate(client.get(f"{plan}/sift/words").json())
    place = {word: at for at, word in enumerate(view.word)}
    assert view.word[0] == "jobs" and view.kind[0] == "!"
    assert "sash window" in place and "cord replacement" not in place
    window = place["window"] if "window" in place else place["windows"]
    ids = ids_of(client, plan)
    held = set(view.ids[view.starts[window] : view.starts[window + 1]])
    assert held == {ids[t] for t in ids if "window" in t}
    assert view.keywords[window] == 5 and view.kept[window] == 1 and view.called[window] == 3
    assert (view.price_low[window], view.price_high[window]) == (0.2, 30.0)


def test_a_block_by_word_says_first_what_it_stops_and_whom_it_hurts(client, plan):
    upload_past(client, plan, "terms", TERMS, TermsView)
    body = {"text": "window", "match": "phrase"}
    worth = post(client, f"{plan}/sift/blocking", body, BlockingWorth)
    assert (worth.stops, worth.called, worth.everyday) == (3, 2, True)
    assert worth.hurts == ["sash window repair"] and worth.customers_gained < 0
    assert worth.sold == ["sash window repair", "window rope broken"]
    assert negatives_of(client, plan) == set()


def test_blocking_a_word_leaves_those_called_already_unless_told(client, plan):
    post(client, f"{plan}/sift/block", {"text": "painting"})
    found = texts_of(client, plan)
    assert found["call"]["sash window painting"] == "block"
    assert found["by"]["sash window painting"] == "word"
    post(client, f"{plan}/sift/block", {"text": "draughty"})
    assert texts_of(client, plan)["call"]["draughty windows"] == "hold"
    post(client, f"{plan}/sift/block", {"text": "draughty", "over": True})
    assert texts_of(client, plan)["call"]["draughty windows"] == "block"


@pytest.mark.parametrize(
    ("kind", "mark", "intent"), [("rival", "r", "firm"), ("warning", "!", "learn")]
)
def test_a_words_kind_is_said_and_intents_that_were_read_are_read_anew(
    client, plan, kind, mark, intent
):
    post(client, f"{plan}/sift/word-kind", {"word": "draughty", "kind": kind})
    view = client.get(f"{plan}/sift/words").json()
    assert view["kind"][view["word"].index("draughty")] == mark
    post(client, f"{plan}/sift/word-kind", {"word": "draughty", "kind": None})
    view = client.get(f"{plan}/sift/words").json()
    assert view["kind"][view["word"].index("draughty")] == "w"


def test_a_place_of_ones_own_joins_the_brief_and_tints_its_keywords(client, plan):
    client.post(f"{plan}/gather/text", json={"text": "x"})
    answer = post(client, f"{plan}/sift/word-kind", {"word": "sash", "kind": "place"})
    assert answer.summary.brief.values.places == ["sash"]
    assert texts_of(client, plan)["kinds"]["sash cord replacement"][0] == "o"


def test_house_rules_say_what_they_would_do_and_never_touch_a_call_by_hand(client, plan):
    ids = ids_of(client, plan)
    preview = RulePreview.model_validate(client.get(f"{plan}/sift/rules").json())
    job, dear = preview.rules
    assert dear.texts == ["windows"] and job.words == ["jobs"]
    post(client, f"{plan}/calls", {"ids": [ids["windows"]], "call": "keep"})
    preview = RulePreview.model_validate(client.get(f"{plan}/sift/rules").json())
    assert (preview.rules[1].ids, preview.rules[1].by_hand) == ([], 1)
    answer = post(client, f"{plan}/sift/rules/apply", {})
    assert "house rules" in answer.did
    found = texts_of(client, plan)
    assert found["call"]["windows"] == "keep" and found["by"]["window jobs"] == "rule"
    assert negatives_of(client, plan) == {("jobs", "phrase", "block")}
    again = client.post(f"{plan}/sift/rules/apply")
    assert again.status_code == 422 and "nothing to do" in again.json()["error"]["message"]


def test_own_reasons_filters_and_rules_are_kept_checked_and_undone(client, plan):
    rule = {"when": [{"field": "words", "least": 5}], "call": "hold", "reason": "long"}
    body = {"quick_reasons": ["too far"], "house_rules": [rule],
            "saved_filters": [{"name": "dear", "query": "price=5-"}]}  # fmt: skip
    frame = client.patch(f"{plan}/own", json=body).json()["summary"]
    assert frame["own"]["quick_reasons"] == ["too far"]
    assert frame["own"]["house_rules"][0]["when"][0]["least"] == 5
    bad = rule | {"when": [{"field": "luck", "value": "good"}]}
    refused = client.patch(f"{plan}/own", json={"house_rules": [bad]})
    assert refused.status_code == 422 and "luck" in refused.json()["error"]["message"]
    frame = client.post(f"{plan}/undo").json()["summary"]
    assert "too dear" in frame["own"]["quick_reasons"]


def test_many_keywords_are_changed_at_once(client, plan):
    ids = ids_of(client, plan)
    both = [ids["windows"], ids["draughty windows"]]
    body = {"ids": both, "intent": "compare", "group": "Wide", "note": "ask the client",
            "volume": 100, "cpc_low": 0.4, "cpc_high": 0.9}  # fmt: skip
    post(client, f"{plan}/keywords/edit", body)
    found = texts_of(client, plan)
    for text in ("windows", "draughty windows"):
        assert (found["intent"][text], found["group"][text]) == ("compare", "Wide")
        assert found["note"][text] == "ask the client"
        assert found["volume_high"][text] == 100
        assert found["origin"][text] == "set by hand"
    client.post(f"{plan}/undo")
    assert texts_of(client, plan)["volume_high"]["windows"] == 60500


def test_keywords_are_repeated_with_another_match_type_where_it_is_free(client, plan):
    ids = ids_of(client, plan)
    body = {"ids": [ids["sash window repair"], ids["sash window painting"]],
            "duplicate_as": "phrase"}  # fmt: skip
    answer = post(client, f"{plan}/keywords/edit", body)
    assert "1 there already" in answer.did and answer.summary.trail.keywords == 7
    body = {"ids": [ids["sash window painting"]], "match": "phrase"}
    refused = client.post(f"{plan}/keywords/edit", json=body)
    assert refused.status_code == 422 and "phrase already" in refused.json()["error"]["message"]
    wrong = {"ids": [ids["windows"]], "cpc_low": 3, "cpc_high": 2}
    assert client.post(f"{plan}/keywords/edit", json=wrong).status_code == 422
    wrong = {"ids": [ids["windows"]], "offer": "moons"}
    assert "moons" in client.post(f"{plan}/keywords/edit", json=wrong).json()["error"]["message"]


def test_a_selection_is_summed_with_its_units(client, plan):
    ids = ids_of(client, plan)
    answer = post(client, f"{plan}/keywords/workings", {"ids": list(ids.values())}, Workings)
    lines = {line.label: line for section in answer.sections for line in section.lines}
    figures = client.get(plan).json()["sheet"]["figures"]
    known = [s for s in figures["searches"] if s is not None]
    assert lines["own searches a month"].value == pytest.approx(sum(known), rel=1e-6)
    purse = client.get(plan).json()["summary"]["purse"]
    assert lines["share of the purse"].value == pytest.approx(purse["spend"] / 60, rel=1e-6)
    assert lines["keywords"].value == 6


def test_what_is_tried_is_shown_and_not_kept(client, plan):
    before = client.get(plan).json()["summary"]
    tried = post(client, f"{plan}/try", {"assumptions": {"click_rate_top": 0.03}}, WhatIfAnswer)
    assert tried.purse.clicks < before["purse"]["clicks"]
    richer = post(client, f"{plan}/try", {"brief": {"monthly_spend": 120}}, WhatIfAnswer)
    assert richer.purse.customers > before["purse"]["customers"]
    assert client.get(plan).json()["summary"] == before


def test_the_line_moved_to_a_keyword_changes_the_rule_so_that_it_just_comes_in(client, plan):
    ids = ids_of(client, plan)
    edit = {"ids": [ids["windows"]], "cpc_low": 2.4, "cpc_high": 5.0}
    post(client, f"{plan}/keywords/edit", edit)
    client.patch(f"{plan}/brief", json={"ceiling_rule": "profit_share", "ceiling_value": 0.5})
    assert texts_standing(client, plan)["windows"] == "beyond"
    tried = post(client, f"{plan}/try", {"line": ids["windows"]}, WhatIfAnswer)
    answer = post(client, f"{plan}/sift/line", {"id": ids["windows"]})
    values = answer.summary.brief.values
    assert values.ceiling_value == tried.ceiling_value and 0 < values.ceiling_value < 0.5
    assert texts_standing(client, plan)["windows"] == "stretch"
    client.post(f"{plan}/undo")
    dear = {"ids": [ids["windows"]], "cpc_low": 90, "cpc_high": 95}
    post(client, f"{plan}/keywords/edit", dear)
    refused = client.post(f"{plan}/sift/line", json={"id": ids["windows"]})
    assert refused.status_code == 422 and "line" in refused.json()["error"]["message"]


def texts_standing(client, plan):
    sheet = client.get(plan).json()["sheet"]
    return dict(zip(sheet["texts"]["text"], sheet["figures"]["standing"], strict=True))


def test_the_long_tail_is_summed(client, plan):
    tail = client.get(plan).json()["summary"]["tail"]
    assert tail["keywords"] >= tail["kept"] >= 0 and tail["spend"] <= 60


def test_themes_put_close_keywords_together_row_by_row_and_a_call_changes_none(client, plan):
    texts = client.get(plan).json()["sheet"]["texts"]
    found = client.get(f"{plan}/sift/themes").json()
    assert len(found["of_row"]) == len(texts["text"])
    assert set(found["of_row"]) == set(range(len(found["names"])))
    client.post(f"{plan}/calls", json={"ids": texts["id"][:2], "call": "drop"})
    assert client.get(f"{plan}/sift/themes").json() == found
    client.patch(f"{plan}/brief", json={"places": ["Windows"]})
    assert client.get(f"{plan}/sift/themes").status_code == 200
