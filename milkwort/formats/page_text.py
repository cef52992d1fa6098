"""A page of the site, read from a file: title, headings and text."""

from __future__ import annotations

from collections.abc import Iterator

from selectolax.lexbor import LexborHTMLParser

from milkwort.core.arrange.pages.page_words import PageText
from milkwort.core.errors import NothingUsableError, TooLargeError
from milkwort.formats.text_table import decoded

__all__ = ["MOST_PAGE_BYTES", "read_page"]

MOST_PAGE_BYTES = 5 * 2**20
_LONGEST_ADDRESS = 2048
_MOST_CHARACTERS = 400_000
"""Of a page's text: what comes after is not kept."""
_SKIPPED = frozenset({"script", "style", "noscript", "template", "svg", "head"})
_HEADINGS = frozenset({"h1", "h2", "h3"})
_MOST_HEADINGS = 400
_LONGEST_HEADING = 1000
"""A longer one is a heading that nobody closed, and text."""
_DEEP = 2000
"""Tags left open, past which a page is made shallow first: a parser goes through all that are
open with each further one, so that a file of them would take hours."""
_KEPT_OPEN = 512
_LEAVES = frozenset({"br", "hr", "img", "input", "link", "meta", "source", "wbr", "col", "area"})


def read_page(data: bytes | str, name: str, address: str = "") -> PageText:
    """Read a page, HTML or plain text.

    Parameters
    ----------
    data : bytes or str
        A file in UTF-8, UTF-16 or Windows-1252, or pasted text.
    name : str
        What the file is called: its address where nothing else says one.
    address : str
        Where the page is, if that is known.

    Returns
    -------
    PageText
        Of plain text the first line is the title.

    Raises
    ------
    TooLargeError
        Past 5 MB.
    BadValueError
        Where the bytes are no text.
    NothingUsableError
        Where no words are found.
    """
    if len(data) > MOST_PAGE_BYTES:
        raise TooLargeError(f"{name}: expected at most 5 MB, got {len(data) / 2**20:.0f} MB", name)
    text, _ = decoded(data, name)
    page = _of_html(text) if "<" in text and ">" in text else _of_plain(text)
    title, headings, body, canonical = page
    if not any(part.strip() for part in (title, *headings, body)):
        raise NothingUsableError(f"{name}: expected a page with words on it, got none", name)
    where = address.strip() or canonical or name
    return PageText(
        where[:_LONGEST_ADDRESS],
        title[:_LONGEST_HEADING],
        headings[:_MOST_HEADINGS],
        body[:_MOST_CHARACTERS],
    )


_Read = tuple[str, tuple[str, ...], str, str]


def _of_plain(text: str) -> _Read:
    lines = [" ".join(line.split()) for line in text.splitlines()]
    lines = [line for line in lines if line]
    return (lines[0] if lines else "", (), "\n".join(lines[1:]), "")


def _of_html(text: str) -> _Read:
    tree = LexborHTMLParser(_shallow(text))
    title = tree.css_first("title")
    link = tree.css_first("link[rel=canonical]")
    canonical = (link.attributes.get("href") or "") if link is not None else ""
    headings: list[str] = []
    body: list[str] = []
    for piece, is_heading in _pieces(tree):
        short = is_heading and len(piece) <= _LONGEST_HEADING
        (headings if short else body).append(piece)
    said = "" if title is None else " ".join(title.text().split())
    if len(said) > _LONGEST_HEADING:
        said, body = "", [said, *body]
    return said, tuple(headings), "\n".join(body), canonical.strip()


def _shallow(text: str) -> str:
    """Return a page whose tags nest no deeper than a page's do; one that was shallow as it is."""
    if text.count("<") - 2 * text.count("</") <= _DEEP:
        return text
    parts: list[str] = []
    at = is_open = 0
    while (start := text.find("<", at)) >= 0 and (end := text.find(">", start)) >= 0:
        parts.append(text[at:start])
        tag, at = text[start : end + 1], end + 1
        name = tag.strip("</>").split(None, 1)[0].lower() if tag.strip("</> ") else ""
        if tag.startswith("</"):
            is_open = max(is_open - 1, 0)
        elif name not in _LEAVES and not tag.endswith("/>"):
            # what is read otherwise than as plain text keeps its tags longest
            most = 2 * _KEPT_OPEN if name in _SKIPPED | _HEADINGS | {"title"} else _KEPT_OPEN
            if is_open >= most:
                parts.append(" ")
                continue
            is_open += 1
        parts.append(tag)
    return "".join([*parts, text[at:]])


def _pieces(tree: LexborHTMLParser) -> Iterator[tuple[str, bool]]:
    """Yield the texts of a page in their order, and whether each stands in a heading."""
    # a stack, not recursion: a page may be nested as deep as it is long
    todo = [(tree.root, False)] if tree.root is not None else []
    while todo:
        node, in_heading = todo.pop()
        if node.next is not None:
            todo.append((node.next, in_heading))
        if node.is_text_node:
            piece = " ".join((node.text_content or "").split())
            if piece:
                yield piece, in_heading
        elif node.tag not in _SKIPPED and node.child is not None:
            todo.append((node.child, in_heading or node.tag in _HEADINGS))
