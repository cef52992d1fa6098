"""Things sold, read from a table."""

import pytest

from milkwort.core.arrange.main_words import MainWord
from milkwort.core.arrange.things import Thing, prices_of_things, unsaid_by_titles
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.formats.text_table import read_text_table
from milkwort.formats.things_table import read_things_table


def test_headings_in_the_trades_words_and_figures_in_any_spelling_are_read():
    text = "SKU;Product;Price;Margin;URL;Availability\nA-1;'=Kit;1.250,50;35 %;/kit;in stock\n"
    (thing,), refused = read_things_table(read_text_table(text))
    assert thing == Thing("A-1", "=Kit", 1250.5, 0.35, "/kit", True) and refused == ()
    (bare,), _ = read_things_table(read_text_table("code,name\n7,Pot"))
    assert bare == Thing("7", "Pot")


def test_a_table_without_codes_is_refused_and_a_bad_row_costs_no_other():
    with pytest.raises(NothingUsableError, match="a column for the code"):
        read_things_table(read_text_table("name,price\nPot,3"))
    text = f"code,name,price,margin\n1,Pot,3,2\n2,{'x' * 401},3,\n3,Lid,0,\n4,Ring,2,0.5\n"
    things, refused = read_things_table(read_text_table(text))
    assert [t.code for t in things] == ["4"]
    assert [(r.row, r.column) for r in refused] == [(2, "margin"), (3, "name"), (4, "price")]


def test_only_what_can_be_delivered_has_a_price_and_titles_say_words_in_any_form():
    things = [Thing("a", "Sash cords", 9.0), Thing("b", "Sash lift", 4.0, deliverable=False)]
    assert prices_of_things(things) == [9.0]
    words = [MainWord("sash", 1.0), MainWord("cord", 0.5)]
    assert unsaid_by_titles(words, things) == {"a": [], "b": ["cord"]}


@pytest.mark.parametrize(
    "bad", [{"code": ""}, {"name": " "}, {"price": 0.0}, {"margin": 1.1}, {"page": "x" * 2049}]
)
def test_a_thing_out_of_its_ranges_is_none(bad):
    with pytest.raises(BadValueError):
        Thing(**({"code": "a", "name": "b"} | bad))
