import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.arrange.grouping import group_by_theme
from milkwort.core.arrange.structures import STRUCTURE_KINDS, arrange
from milkwort.core.errors import BadValueError
from milkwort.core.words.lexicon import shipped_lexicon
from tests.depth import cases
from tests.samples import brief, offer, table

PLACES = ["eastmere", "wrenfold", "calder stoke"]
SERVICES = ["sash cord replacement", "sash window repair", "window sill repair", "box sash repair"]
HELPERS = ["", "cost", "near me", "quote", *PLACES]
TEXTS = [f"{s} {h}".strip() for s in SERVICES for h in HELPERS]
LEXICON = shipped_lexicon().extended(places=PLACES)


def together(of_row):
    of_row = np.asarray(of_row)
    return of_row[:, None] == of_row[None, :]


def test_what_is_sought_makes_the_theme_not_where_or_how():
    groups = group_by_theme(TEXTS, lexicon=LEXICON)
    for service in ("sash cord replacement", "window sill repair", "box sash repair"):
        mine = {groups.of_row[i] for i, t in enumerate(TEXTS) if t.startswith(service)}
        assert len(mine) == 1, service
        assert set(service.split()) & set(groups.labels[mine.pop()].casefold().split())


@settings(max_examples=cases(40, 480), deadline=None)
@given(
    st.lists(
        st.lists(st.sampled_from("abcdefgh"), min_size=1, max_size=5).map(" ".join), max_size=60
    ),
    st.integers(1, 12),
)
def test_every_keyword_is_in_one_group_of_at_most_so_many(texts, most):
    groups = group_by_theme(texts, most=most)
    assert len(groups.of_row) == len(texts)
    sizes = np.bincount(groups.of_row, minlength=len(groups.labels))
    assert (sizes >= 1).all() and (sizes <= most).all()
    assert len({label.casefold() for label in groups.labels}) == len(groups.labels)


@pytest.mark.parametrize("new", ["sash window repair oddtown", "quite another thing", "sash cord"])
def test_one_more_keyword_hardly_moves_the_others(new):
    before = together(group_by_theme(TEXTS, lexicon=LEXICON).of_row)
    after = together(group_by_theme([*TEXTS, new], lexicon=LEXICON).of_row[:-1])
    assert (before & after).sum() / (before | after).sum() >= 0.9


def test_the_order_of_the_sheet_does_not_matter():
    turned = group_by_theme(TEXTS[::-1], lexicon=LEXICON)
    straight = group_by_theme(TEXTS, lexicon=LEXICON)
    assert (together(turned.of_row[::-1]) == together(straight.of_row)).all()


def test_a_limit_of_nothing_is_refused():
    with pytest.raises(BadValueError, match="most"):
        group_by_theme(["a"], most=0)


def sheet(**columns):
    from dataclasses import replace

    n = len(TEXTS)
    return replace(table([10.0] * n, [1.0] * n, [2.0] * n, **columns), texts=tuple(TEXTS))


@pytest.mark.parametrize("kind", STRUCTURE_KINDS)
def test_every_structure_places_every_keyword(kind):
    rows = sheet(match=np.arange(len(TEXTS)) % 3, intent=np.arange(len(TEXTS)) % 6)
    made = arrange(kind, brief(), rows, np.ones(len(TEXTS)), lexicon=LEXICON)
    assert made.of_row.max() < len(made.groups)
    assert len(set(made.groups)) == len(made.groups)
    assert all(0 <= campaign < len(made.campaigns) for campaign, _ in made.groups)


def test_by_match_type_an_exact_keyword_gets_its_phrase_twin_once():
    rows = sheet(match=np.zeros(len(TEXTS), dtype=np.int64))
    made = arrange("match", brief(), rows, np.ones(len(TEXTS)), lexicon=LEXICON)
    assert made.campaigns == ("Exact", "Phrase")
    assert made.twins.tolist() == list(range(len(TEXTS)))
    names = [made.groups[g] for g in made.twin_group.tolist()]
    assert all(campaign == 1 for campaign, _ in names)
    assert [n for _, n in names] == [made.groups[g][1] for g in made.of_row.tolist()]


def test_by_aim_names_stand_apart_and_by_offer_each_has_its_campaign():
    from dataclasses import replace

    rows = replace(sheet(), texts=("pane plane windows", "eastmere sash", *TEXTS[2:]))
    made = arrange("aim", brief(), rows, np.ones(len(TEXTS)), brands=("Eastmere Sash",),
                   rivals=("Pane & Plane",))  # fmt: skip
    names = [made.campaigns[made.groups[g][0]] for g in made.of_row[:3].tolist()]
    assert names == ["Others' names", "Our name", "What we do"]
    two = brief(offer=offer(name="repairs"), more_offers=(offer(name="sills"),))
    by_offer = arrange("offer", two, sheet(offer=np.arange(len(TEXTS)) % 2), np.ones(len(TEXTS)))
    assert by_offer.campaigns == ("repairs", "sills")
