"""All that is a plan goes along: nothing is forgotten, nothing points elsewhere."""

import pytest
from sqlalchemy import select

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.arrange.pages.page_words import PageText
from milkwort.core.arrange.things import Thing
from milkwort.core.words.negatives import Negative
from milkwort.formats import plan_document
from milkwort.store import models
from milkwort.store.ads import add_ads
from milkwort.store.brief_changes import change_assumptions, change_brief
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import edit_campaign, edit_group
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, add_readings
from milkwort.store.negative_lists import add_list, pin_list
from milkwort.store.negatives import Owner, add_negatives
from milkwort.store.own_ways import set_own
from milkwort.store.pages import set_pages
from milkwort.store.plan_state import (
    CLIENT_TABLES,
    LEFT_OUT,
    PLAN_TABLES,
    read_plan_state,
    write_plan_state,
)
from milkwort.store.plans import add_plan, load_plan
from milkwort.store.readings import set_rule
from milkwort.store.set_aside import set_aside
from milkwort.store.sheet import load_sheet
from milkwort.store.spots import put_spot
from milkwort.store.structure import load_structure
from milkwort.store.things import put_things, show_things


@pytest.mark.parametrize(
    ("column", "known"), [("plan_id", PLAN_TABLES), ("client_id", CLIENT_TABLES)]
)
def test_every_table_of_a_plan_or_client_goes_along_or_says_why_not(column, known):
    owned = {
        mapper.class_
        for mapper in models.Base.registry.mappers
        if column in mapper.class_.__table__.c
    }
    assert owned == set(known) | (owned & set(LEFT_OUT))
    assert all(LEFT_OUT.values())


def test_a_tables_rows_come_after_what_they_point_at():
    for at, model in enumerate(PLAN_TABLES):
        points = {key.column.table.name for key in model.__table__.foreign_keys} - {"plan"}
        assert points <= {m.__tablename__ for m in PLAN_TABLES[:at]}, model


_IN_A_FILE = {
    models.Offer: plan_document.OfferDocument,
    models.Campaign: plan_document.CampaignDocument,
    models.AdGroup: plan_document.GroupDocument,
    models.Ad: plan_document.AdDocument,
    models.Keyword: plan_document.KeywordDocument,
    models.Reading: plan_document.ReadingDocument,
    models.Call: plan_document.CallDocument,
    models.Negative: plan_document.NegativeDocument,
    models.Plan: plan_document.PlanValues,
    models.Recipe: plan_document.RecipeDocument,
    models.RivalList: plan_document.RivalListDocument,
    models.PastList: plan_document.PastListDocument,
    models.Page: plan_document.PageDocument,
    models.Spot: plan_document.SpotDocument,
    models.NegativeList: plan_document.NegativeListDocument,
    models.PinnedList: plan_document.PinnedListDocument,
    models.Thing: plan_document.ThingDocument,
    models.ShownThing: plan_document.ShownThingDocument,
    models.SetAside: plan_document.SetAsideDocument,
}
_POINTS = {
    "ad_group_id": "group",
    "campaign_id": "campaign",
    "offer_id": "offer",
    "thing_id": "thing",
}
_NOT_SAID = {"id", "plan_id", "client_id", "keyword_id", "normalised", "revision", "created_at",
             "deleted_at", "version_of", "chosen", "closed_as"}  # fmt: skip


@pytest.mark.parametrize("model", _IN_A_FILE, ids=lambda m: m.__tablename__)
def test_every_column_has_its_field_in_the_file(model):
    columns = {_POINTS.get(c.name, c.name) for c in model.__table__.columns} - _NOT_SAID
    fields = set(_IN_A_FILE[model].model_fields) - {"id", "readings", "call"}
    assert columns - {"call"} == fields


def test_every_table_has_its_place_in_the_file():
    assert {*PLAN_TABLES, *CLIENT_TABLES} - set(_IN_A_FILE) == {models.Assumption}


@pytest.fixture
def full(database):
    """Return the id of a plan that has something in every table and column group."""
    with database.begin() as session:
        plan_id = add_plan(session, "Full")
        change = Change(session, plan_id, "fill")
        change_brief(
            change,
            {
                "offer_name": "jobs",
                "more_offers": [
                    {
                        "name": "kits",
                        "sale_value": 40.0,
                        "gross_margin": 0.4,
                        "rate_low": 0.01,
                        "rate_likely": 0.02,
                        "rate_high": 0.03,
                    }
                ],
                "odd_step": True,
                "cap_clicks": 4.0,
            },
        )
        change_assumptions(change, {"stretch": 0.3})
        reading = ReadingEntry(volume_low=100, volume_high=400, cpc_low=0.5, cpc_high=1.5)
        ids = add_keywords(
            change,
            [
                Arrival(
                    KeywordEntry(
                        "sash paint",
                        "sash paint",
                        "exact",
                        reading,
                        call="keep",
                        call_by="hand",
                        last_cpc=0.7,
                    ),
                    "Paint",
                    "Brand",
                ),
                Arrival(
                    KeywordEntry(
                        "box paint",
                        "box paint",
                        "phrase",
                        reading,
                        call="keep",
                        call_by="hand",
                        locked_bid=1.1,
                    ),
                    "Paint",
                    "Search",
                ),
                Arrival(KeywordEntry("paint kit", "paint kit", "exact", reading), offer="kits"),
            ],
        )
        add_readings(change, [(ids[0], ReadingEntry(volume_low=9, volume_high=9))], in_use=False)
        structure = load_structure(session, plan_id)
        brand, paint = structure.campaigns[0], structure.groups[0]
        edit_campaign(change, brand.id, {"most_spend": 30.0, "scouting_share": 0.2})
        add_negatives(
            change,
            [Negative("box"), Negative("cheap"), Negative("jobs")],
            "hand",
            [Owner(group_id=paint.id), Owner(campaign_id=brand.id), Owner()],
        )
        edit_group(change, paint.id, {"bid": 0.8, "locked": True, "landing_page": "/paint"})
        add_ads(change, [(paint.id, Ad(("Paint ‹place›", "Ask us"), ("We paint.",)))])
        set_pages(change, [PageText("/paint", "Paint", ("Boxes",), "All of it.")])
        put_spot(change, {"campaign_id": brand.id, "name": "Front page", "pays": "showings",
                          "price": 2.5, "showings": 9000.0, "click_rate": 0.01})  # fmt: skip
        free = add_list(change, "Free", [Negative("free")], of_client=True)
        pin_list(change, free)
        (pot,) = put_things(change, [Thing("p1", "Pot of paint", 12.5, 0.4, "/pot", True)])
        show_things(change, paint.id, [pot])
        set_own(change, {"quick_reasons": ["mine"], "word_kinds": {"sash": "what"}})
        set_aside(change, {("term", "free paint"): "block_text"}, "2027-04-30")
        set_rule(change, "mean", load_plan(session, plan_id).brief)
        change.finish()
        return plan_id


def seen(session, plan_id):
    """Return what a planner sees of a plan, all ids put aside."""
    record = load_plan(session, plan_id)
    sheet = load_sheet(session, record)
    values = {k: v for k, v in record.values.items() if k != "more_offers"}
    keyword, reading = models.Keyword, models.Reading
    readings = session.execute(
        select(keyword.text, reading.volume_low, reading.in_use, reading.origin)
        .join(reading, reading.keyword_id == keyword.id)
        .where(keyword.plan_id == plan_id)
        .order_by(keyword.text, reading.id)
    )
    return (
        values, record.brief, record.not_entered, record.assumptions, record.own,
        record.reading_rule,
        [(e.key, e.text, e.call, e.reading, e.last_cpc, e.locked_bid) for e in sheet.entries],
        sheet.table.group.tolist(), sheet.table.campaign.tolist(), sheet.table.offer.tolist(),
        [(c.key, c.name, c.most_spend) for c in record.structure.campaigns],
        [(g.key, g.name, g.page, g.bid, g.locked) for g in record.structure.groups],
        [(one.key, one.ad) for one in record.ads],
        [one.key for one in record.structure.spots],
        [(one.list_key, one.negatives) for one in record.structure.lists],
        [one.thing for one in record.structure.things],
        len(record.structure.shown),
        [n.key for n in record.negatives],
        [tuple(row) for row in readings],
    )  # fmt: skip


def test_a_copy_is_equal_and_stands_on_its_own_rows(database, full):
    with database.begin() as session:
        client = session.get_one(models.Plan, full).client_id
        state = read_plan_state(session, full)
        assert all(state.tables[m.__tablename__] for m in PLAN_TABLES), "something in each table"
        copy = write_plan_state(session, state, client_id=client, version_of=full)
        assert seen(session, copy) == seen(session, full)
        assert load_plan(session, copy).version_of == full
        for model in PLAN_TABLES:
            column = model.__table__.c
            ids = {p: set(session.scalars(select(column.id).where(column.plan_id == p)))
                   for p in (full, copy)}  # fmt: skip
            assert not ids[full] & ids[copy]
            for key in model.__table__.foreign_keys:
                target = key.column.table
                if "plan_id" in target.c:
                    points = select(target.c.plan_id).join(
                        model.__table__, key.parent == target.c.id
                    )
                    found = session.scalars(points.where(column.plan_id == copy)).all()
                    assert set(found) <= {copy}, key
