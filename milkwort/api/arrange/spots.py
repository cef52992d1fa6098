"""Arrange: spots, places to be shown that have no keyword."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import Field

from milkwort.api.http.described import Given, shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, Taken
from milkwort.core.brief.spots import SELLS, Pays
from milkwort.core.counted import counted
from milkwort.core.fit.options import SPOT_STEPS
from milkwort.core.plan.spots import spot_choices
from milkwort.store.groups import add_campaign
from milkwort.store.journal import Change
from milkwort.store.spots import put_spot, remove_spots
from milkwort.store.structure import FIRST_CAMPAIGN

router = APIRouter(tags=["arrange"])


class SpotItem(Given):
    """A spot, and what the plan takes of it a month."""

    id: int
    key: str
    name: str
    campaign_id: int
    campaign: str
    offer_id: int | None
    pays: Pays
    price: float
    showings: float
    clicks: float
    click_rate: float
    sells: float | None
    usual_sells: float
    click_price: float
    ceiling: float
    shown_share: float = Field(description="of what is to be had, taken by the fit")
    expected_showings: float
    expected_clicks: float
    expected_customers: float
    expected_spend: float


class SpotsView(Given):
    """All spots of a plan."""

    revision: int
    spots: list[SpotItem]


class NewSpot(Taken):
    """A spot to be made; without a campaign it goes to the first."""

    name: str = Field(min_length=1, max_length=200)
    pays: Pays
    price: float = Field(gt=0, le=1e12)
    showings: float = Field(default=0, ge=0, le=1e12)
    clicks: float = Field(default=0, ge=0, le=1e12)
    click_rate: float = Field(default=0, ge=0, le=1)
    sells: float | None = Field(default=None, ge=0, le=1000)
    campaign_id: int | None = None
    offer_id: int | None = None


class SpotEdit(Taken):
    """What is set of a spot; what is left out stays."""

    name: str = Field(default="", max_length=200)
    pays: Pays = "click"
    price: float = Field(default=0, gt=0, le=1e12)
    showings: float = Field(default=0, ge=0, le=1e12)
    clicks: float = Field(default=0, ge=0, le=1e12)
    click_rate: float = Field(default=0, ge=0, le=1)
    sells: float | None = Field(default=None, ge=0, le=1000)
    campaign_id: int = 0
    offer_id: int | None = None


class SpotIds(Taken):
    """Some spots."""

    ids: list[int] = Field(min_length=1, max_length=1000)


@router.get("/plans/{plan_id}/arrange/spots", responses=shape_of(SpotsView))
def view(plan_id: int, work: Work) -> Response:
    """Return the spots with what the plan takes of each."""
    plan = work.plan(plan_id)
    brief, found = plan.record.brief, plan.result.spots
    choices = spot_choices(brief)
    campaigns = {c.id: c.name for c in plan.sheet.structure.campaigns}
    return sent(
        {
            "revision": plan.record.revision,
            "spots": [
                {
                    "id": one.id, "key": one.key, "name": one.spot.name,
                    "campaign_id": one.campaign_id, "campaign": campaigns[one.campaign_id],
                    "offer_id": one.offer_id, "pays": one.spot.pays, "price": one.spot.price,
                    "showings": one.spot.showings, "clicks": one.spot.clicks,
                    "click_rate": one.spot.click_rate, "sells": one.spot.sells,
                    "usual_sells": SELLS[one.spot.pays], "click_price": one.spot.click_price,
                    "ceiling": float(choices.allowed[at] * choices.rate[at]),
                    "shown_share": int(found.steps[at]) / SPOT_STEPS,
                    "expected_showings": float(found.showings[at]),
                    "expected_clicks": float(found.clicks[at]),
                    "expected_customers": float(found.customers[at]),
                    "expected_spend": float(found.spend[at]),
                }
                for at, one in enumerate(plan.sheet.structure.spots)
            ],
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/spots", responses=shape_of(ChangeAnswer))
def new(plan_id: int, body: NewSpot, work: Work, window: Window = "") -> Response:
    """Make a spot."""
    values = body.model_dump()

    def decide(plan: OpenPlan) -> Decision:
        campaigns = plan.sheet.structure.campaigns

        def do(change: Change) -> None:
            home = body.campaign_id
            if home is None:
                home = campaigns[0].id if campaigns else add_campaign(change, FIRST_CAMPAIGN)
            put_spot(change, values | {"campaign_id": home})

        return Decision(f"add the spot {body.name}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/spots/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: SpotIds, work: Work, window: Window = "") -> Response:
    """Take spots out of the plan."""
    made = Decision(f"remove {counted(len(body.ids), 'spot')}", lambda c: remove_spots(c, body.ids))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/spots/{spot_id}", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, spot_id: int, body: SpotEdit, work: Work, window: Window = "") -> Response:
    """Change a spot."""
    values = body.given()
    made = Decision("change a spot", lambda c: put_spot(c, values, spot_id))
    return sent(work.change(plan_id, lambda _: made, window=window))
