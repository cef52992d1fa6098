"""The samples that ship, made into plans."""

from __future__ import annotations

from importlib.resources import files

from sqlalchemy.orm import Session

from milkwort.api.gather.arrivals import arrival_of_row
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.brief.platform import PROFILES
from milkwort.core.brief.values import values_of_brief
from milkwort.formats.ads_table import read_ads_table
from milkwort.formats.brief_toml import read_brief
from milkwort.formats.keyword_rows import columns_by_heading, read_keyword_rows
from milkwort.formats.page_text import read_page
from milkwort.formats.text_table import read_text_table
from milkwort.store.ads import add_ads
from milkwort.store.groups import edit_group
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords
from milkwort.store.negatives import add_negatives
from milkwort.store.pages import set_pages
from milkwort.store.plans import add_plan
from milkwort.store.structure import load_structure

__all__ = ["SAMPLE_NAME", "SECOND_NAME", "add_sample"]

SAMPLE_NAME = "Eastmere Sash & Casement"
SECOND_NAME = "Brackish Jar"
_START = {"eastmere": "2027-09-01", "brackish": "2027-06-01"}
_NOT_ENTERED = ("may_pay_to_learn", "max_cpc", "volume_basis", "pricing", "flat_bid", "policy")
_PAGES = ("home.html", "repairs.html", "draughts.html")
_LEADS = {"Repair": "/repairs", "Restore": "/", "Glazing": "/", "Draught proofing": "/draughts"}
"""Where the ads of a sample's groups lead."""


def add_sample(
    session: Session,
    name: str = SAMPLE_NAME,
    stem: str = "eastmere",
    *,
    client_id: int | None = None,
) -> int:
    """Make a sample plan and return its id.

    Parameters
    ----------
    session : Session
    name : str
    stem : str
        Which of the samples, by the name of its files.
    client_id : int, optional
        Whose plan it is; a new client's where left out.
    """
    folder = files("milkwort.samples")
    brief = read_brief(folder.joinpath(f"{stem}.toml").read_bytes(), f"{stem}.toml").brief
    table = read_text_table(folder.joinpath(f"{stem}.csv").read_bytes(), f"{stem}.csv")
    offers = [offer.name for offer in brief.offers]
    rows = read_keyword_rows(table, columns_by_heading(table), offers=("", *offers))
    values = values_of_brief(brief, _START[stem])
    if brief.pricing == "pay_bid":
        values["profile"] = next(p for p in PROFILES if p.pricing == "pay_bid").as_dict()
    plan_id = add_plan(
        session, name, values, brief.assumed.changes, _NOT_ENTERED, client_id=client_id
    )
    change = Change(session, plan_id, "sample")
    lexicon = lexicon_of(brief)
    arrivals = [arrival_of_row(r, f"{stem}.csv", lexicon=lexicon) for r in rows.taken]
    add_keywords(change, arrivals)
    add_negatives(change, brief.negatives, "file")
    _add_ads(change, stem)
    return plan_id


def _add_ads(change: Change, stem: str) -> None:
    """Write the ads of a sample and read the pages they lead to, where it has them."""
    folder = files("milkwort.samples")
    sheet = folder.joinpath(f"{stem}_ads.csv")
    if not sheet.is_file():
        return
    groups = {g.name: g.id for g in load_structure(change.session, change.plan_id).groups}
    rows, _ = read_ads_table(read_text_table(sheet.read_bytes(), sheet.name))
    add_ads(change, [(groups[row.group], row.ad) for row in rows])
    read = [read_page(folder.joinpath(f"pages/{name}").read_bytes(), name) for name in _PAGES]
    set_pages(change, read)
    for group, address in _LEADS.items():
        edit_group(change, groups[group], {"landing_page": address})
