from milkwort.core.gather.likeness import likeness


def test_order_number_and_accents_make_no_keyword_of_its_own_but_the_match_type_does():
    assert likeness("sash windows", "exact") == likeness("window sash", "exact")
    assert likeness("café sashes", "exact") == likeness("cafe sash", "exact")
    assert likeness("sash window", "exact") != likeness("sash window", "phrase")
    assert likeness("sash window", "exact") != likeness("sash windows repair", "exact")
