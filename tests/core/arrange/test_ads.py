"""Written ads: counted as they will appear, held against the platform and the brief, drafted."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.arrange.ads.checks import faults_of, faults_of_group, prices_in
from milkwort.core.arrange.ads.drafts import DraftFor, first_drafts
from milkwort.core.arrange.ads.exchange import (
    exchanged,
    in_every_field,
    plurals_of,
    replaced,
    words_between,
)
from milkwort.core.arrange.ads.hours_said import against_hours
from milkwort.core.arrange.ads.says import RivalAds, lines_of
from milkwort.core.arrange.ads.text import (
    PLACEHOLDERS,
    Ad,
    Fillings,
    characters,
    loose_ends,
    written_out,
)
from milkwort.core.arrange.main_words import MainWord, said_of
from milkwort.core.brief.platform import Profile
from milkwort.core.brief.showing import ALWAYS, Showing
from milkwort.core.errors import BadValueError
from milkwort.core.words.lexicon import shipped_lexicon
from tests.depth import cases
from tests.samples import brief

FILLINGS = Fillings(
    {"place": ("Eastmere", "Upper Tansley"), "price": ("£340",), "keyword": ("sash repair",)}
)
LIMITS = Profile(headline_characters=20, description_characters=40, ads_per_group=2)
OFFICE = Showing(days=(True,) * 5 + (False,) * 2, from_hour=8, to_hour=18)


def kinds(ad, showing=ALWAYS, **of_brief):
    return [f.kind for f in faults_of(ad, FILLINGS, brief(**of_brief), LIMITS, showing)]


def test_placeholders_count_at_their_longest_and_leave_at_their_first():
    assert characters("in ‹place›", FILLINGS) == len("in Upper Tansley")
    assert written_out("‹Keyword› in ‹ place ›, ‹price›", FILLINGS) == (
        "sash repair in Eastmere, £340"
    )


def test_code_points_are_counted_not_bytes_and_not_what_looks_like_one():
    assert characters("naïve 🪟", FILLINGS) == 7
    assert characters("👩‍🔧", FILLINGS) == 3
    assert characters("نوافذ", FILLINGS) == 5


@pytest.mark.parametrize(
    ("text", "ends"),
    [
        ("‹place› at ‹price›", 0), ("‹town›", 1), ("‹offer›", 1), ("‹place", 1), ("a › b", 1),
        ("‹‹place››", 1),
    ],
)  # fmt: skip
def test_what_cannot_be_written_out_is_named(text, ends):
    assert len(loose_ends(text, FILLINGS)) == ends


def test_each_fault_of_a_platform_is_found_in_its_field():
    long = Ad(("x" * 21, "ok", "third", "fourth"), ("y" * 41,))
    found = faults_of(long, FILLINGS, brief(), LIMITS, ALWAYS)
    assert [(f.kind, f.field) for f in found] == [
        ("too_many_fields", "headline 4"), ("too_long", "headline 1"),
        ("too_long", "description 1"),
    ]  # fmt: skip
    assert "1 over 20" in found[1].says and all(f.must for f in found)
    assert kinds(Ad(("Sash #1",), ("ok",))) == ["refused_characters"]
    assert kinds(Ad((), ("ok",))) == kinds(Ad(("ok",), ())) == ["nothing_written"]
    assert kinds(Ad(("x" * 19 + "🪟",), ("ok",))) == []


def test_a_placeholder_may_be_too_long_only_for_the_longest_place():
    assert kinds(Ad(("Windows in ‹place›",), ("ok",))) == ["too_long"]
    assert kinds(Ad(("Sashes ‹place›",), ("ok",))) == []


def test_a_price_or_a_place_that_the_brief_contradicts_is_said_but_a_platform_would_take_it():
    sells = brief().offer.sale_value
    assert kinds(Ad((f"From £{sells:.0f}",), ("ok",))) == []
    other = faults_of(Ad(("From £99.50",), ("ok",)), FILLINGS, brief(), LIMITS, ALWAYS)
    assert [(f.kind, f.must) for f in other] == [("other_price", False)]
    assert kinds(Ad(("Now in Calder Stoke",), ("ok",)), other_places=("Calder Stoke",)) == [
        "other_place"
    ]


@pytest.mark.parametrize(
    ("text", "prices"),
    [
        ("£1,250.50 or 12 EUR", [1250.5, 12.0]), ("€ 3.000", [3000.0]), ("12 windows", []),
        ("12 MPH", []), ("99,95 €", [99.95]), ("$" + "9" * 40, [999999999.0]),
    ],
)  # fmt: skip
def test_sums_of_money_are_told_from_other_figures(text, prices):
    assert prices_in(text) == prices


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("24-hour help", ("24 hour",)), ("Open at weekends", ("weekends",)),
        ("Monday to Friday", ()), ("Call on Sunday evening", ("evening", "sunday")),
        ("Round the clock", ("round the clock",)), ("Sundays", ("sundays",)),
    ],
)  # fmt: skip
def test_words_of_time_are_held_against_the_hours_of_showing(text, said):
    assert set(against_hours(text, OFFICE)) == set(said)
    assert against_hours(text, ALWAYS) == ()


def test_hours_past_midnight_are_shown_at_night():
    late = Showing(from_hour=18, to_hour=6)
    assert against_hours("all night", late) == ()
    assert against_hours("24 hours", late) == ("24 hours",)


def test_the_same_ad_twice_and_one_too_many_are_said_of_the_later_ones():
    one = Ad(("Sash repair",), ("Ask us",))
    again = Ad(("sash  REPAIR!",), ("ask us.",))
    found = faults_of_group([one, again, Ad(("Other",), ("x",))], FILLINGS, LIMITS)
    assert [[f.kind for f in some] for some in found] == [[], ["same_twice"], ["too_many_ads"]]


def test_what_an_ad_says_is_a_line_each_and_what_it_does_not_has_its_answer():
    words = [MainWord("sash", 1.0), MainWord("repair", 0.6), MainWord("cord", 0.3)]
    ad = Ad(("Sashes repaired in ‹place›",), ("Ask for a visit. Hand made seals.",))
    rivals = RivalAds.of(["Sash windows, ask now", "Visit us", ""])
    lines = lines_of(ad, FILLINGS, words, ("Eastmere",), rivals, shipped_lexicon())
    said = {line.kind: line for line in lines if line.said}
    assert set(said) == {"words", "place", "doing", "apart"}
    assert said["words"].says == "a word of the group: sash"
    assert "2 known ads" in said["apart"].says and "seal" in said["apart"].says
    left = [line for line in lines if not line.said]
    assert [line.kind for line in left] == ["unsaid", "unsaid", "figure"]
    assert "60\u00a0%" in left[0].says and all(line.mend for line in left)


def test_nothing_is_said_of_rivals_or_places_where_none_is_known():
    lines = lines_of(Ad(("a",), ("b",)), FILLINGS, [], (), RivalAds(), shipped_lexicon())
    assert [line.kind for line in lines] == ["figure", "doing"]


def test_a_copy_takes_the_other_groups_words_with_capitals_and_plurals():
    pairs = words_between(["sash", "repair", "window"], ["window", "door", "paint"])
    assert pairs == {"sash": "door", "repair": "paint"}
    plurals = plurals_of(["oak doors painted", "paint"])
    assert exchanged("Sashes and sash windows. REPAIR!", pairs, plurals) == (
        "Doors and door windows. PAINT!"
    )


def test_search_and_replace_is_plain_text():
    assert replaced("Call (now). call (NOW).", "call (now)", r"\1 Ask") == r"\1 Ask. \1 Ask."
    assert replaced("as it is", "", "x") == "as it is"
    ad = Ad(("a", ""), ("b a",))
    assert in_every_field(ad, lambda t: replaced(t, "a", "c")) == Ad(("c", ""), ("b c",))


WORDS = st.text("abcdefghij€#é🪟9", min_size=1, max_size=16)


@st.composite
def groups_to_draft(draw):
    keywords = draw(st.lists(st.lists(WORDS, min_size=1, max_size=6).map(" ".join), max_size=5))
    words = draw(st.lists(WORDS, max_size=5, unique=True))
    shares = [MainWord(w, 1 / (n + 1)) for n, w in enumerate(words)]
    name = st.one_of(st.just(""), WORDS)
    return DraftFor(keywords, shares, draw(name), draw(name))


@given(
    st.lists(groups_to_draft(), max_size=8),
    st.integers(1, 40), st.integers(1, 60), st.integers(1, 3),
)  # fmt: skip
@settings(max_examples=cases(60, 600), deadline=None)
def test_drafts_keep_to_every_limit_and_promise_no_figure(groups, head, text, many):
    profile = Profile(headline_characters=head, description_characters=text, headlines=many)
    for ad in first_drafts(groups, profile):
        found = faults_of(ad, Fillings(), brief(), profile, ALWAYS)
        assert [f for f in found if f.must] == []
        assert not any(c.isdigit() for _, field in ad.fields() for c in field)


def test_drafts_say_two_main_words_and_what_to_do_and_no_two_are_alike():
    words = [MainWord("sash", 1.0), MainWord("repair", 0.5)]
    same = DraftFor(["sash window repair", "repair sash"], words, "Eastmere", "Sash windows")
    made = first_drafts([same] * 120, Profile())
    assert len({tuple(field for _, field in ad.fields()) for ad in made}) == 120
    for ad in made:
        whole = " ".join(field for _, field in ad.fields())
        assert all(said_of(words, whole))
        lines = lines_of(ad, Fillings(), words, (), RivalAds(), shipped_lexicon())
        assert any(line.kind == "doing" and line.said for line in lines)


def test_a_draft_is_unlike_what_is_there():
    group = DraftFor(["sash repair"], [MainWord("sash", 1.0)])
    (first,) = first_drafts([group], Profile())
    assert first_drafts([group], Profile(), taken=[first]) != [first]


def test_no_platform_has_such_fields():
    for bad in (lambda: Ad(("x" * 1001,)), lambda: Ad(descriptions=("x",) * 51)):
        with pytest.raises(BadValueError):
            bad()
    assert set(PLACEHOLDERS) == {"place", "offer", "price", "keyword"}
