"""A page of the site, read from a file."""

import pytest

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats.page_text import read_page

HTML = """<!doctype html><html><head><title> Sash
 repairs </title><link rel=canonical href="/repair"><style>b{}</style></head><body>
<h1>Sash <em>windows</em></h1><p>We mend <b>cords</b>.</p><script>var hidden</script>
<h2>Prices</h2><noscript>off</noscript></body></html>"""


def test_title_headings_and_text_are_told_apart_and_the_address_is_the_pages_own():
    page = read_page(HTML.encode(), "repair.html")
    assert (page.address, page.title) == ("/repair", "Sash repairs")
    assert page.headings == ("Sash", "windows", "Prices")
    assert page.words() >= {"cord", "mend", "sash", "price"} and "hidden" not in page.words()
    assert read_page(HTML, "x.html", "/mine").address == "/mine"


def test_of_plain_text_the_first_line_is_the_title():
    page = read_page("\n  Sash repairs \n\nWe mend   cords.\n", "notes.txt")
    assert (page.address, page.title, page.text) == ("notes.txt", "Sash repairs", "We mend cords.")


@pytest.mark.parametrize(
    "broken",
    ["<title>sash cords " + "x " * 3000, "<h1>sash cords " + "x " * 3000, "<p>sash cords <div><a <",
     "<div>" * 900_000 + "sash cords", "<svg><h1>" * 500_000 + "sash cords",
     "<p>cords " + "<p>sash " * 500_000, "<" * 300_000 + " sash cords <b>"],
    ids=["title", "heading", "tag", "deep", "deep-pictures", "paragraphs", "brackets"],
)  # fmt: skip
def test_html_that_never_closes_is_read_all_the_same(broken):
    page = read_page(broken, "open.html")
    assert {"sash", "cord"} <= page.words()
    assert len(page.title) <= 1000 and all(len(h) <= 1000 for h in page.headings)


def test_what_is_no_page_is_refused_by_name():
    with pytest.raises(TooLargeError, match=r"big\.html: expected at most 5 MB, got 20 MB"):
        read_page(b"x" * (20 * 2**20), "big.html")
    with pytest.raises(NothingUsableError, match=r"blank\.html"):
        read_page("<html><body></body></html>", "blank.html")
    with pytest.raises(BadValueError, match=r"image\.png"):
        read_page(b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR" + bytes(range(256)), "image.png")


def test_other_encodings_are_read():
    assert read_page("Fenêtres à guillotine".encode("cp1252"), "a").title.startswith("Fenêtres")
    assert read_page("Fenêtres".encode("utf-16"), "a").title == "Fenêtres"
