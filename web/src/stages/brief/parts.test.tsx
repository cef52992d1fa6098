import { fireEvent, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, showOnPlan } from "../../testing-plan";
import { summaryOf } from "../../testing-summary";
import { Money } from "./Money";
import { AddOffer } from "./MoreOffers";
import { PastResults } from "./PastResults";
import { Season } from "./Season";
import { Showing } from "./Showing";
import { currenciesWith, shareOfArea } from "./fields";

const patched = { "PATCH /brief": () => ({ body: changeOf({ did: "change the brief" }) }) };

it("a month is moved by the arrow keys, and only that month", async () => {
  const asked = await showOnPlan(<Season />, patched);
  fireEvent.keyDown(screen.getByRole("slider", { name: "August" }), { key: "ArrowUp" });
  await waitFor(() => expect(asked).toHaveLength(1));
  const { season } = asked[0]!.body as { season: number[] };
  expect(season[7]).toBeCloseTo(1.1);
  expect(season.filter((share) => share === 1)).toHaveLength(11);
});

it("a monthly sum with tax in it starts from what was spent", async () => {
  const asked = await showOnPlan(<Money />, patched);
  await userEvent.click(screen.getByText("tax or a fee is in it"));
  await waitFor(() => expect(asked[0]?.body).toEqual({ gross_spend: 600 }));
});

it("another offer begins with the first one's figures and a name of its own", async () => {
  const asked = await showOnPlan(<AddOffer />, patched);
  await userEvent.click(screen.getByText("we sell something else too"));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toMatchObject({
    more_offers: [{ name: "another offer 2", sale_value: 340, rate_likely: 0.03 }],
  });
});

it("a plan's own currency can be chosen whatever it is", () => {
  expect(currenciesWith("SEK").map(({ id }) => id)).toEqual(currenciesWith("GBP").map((c) => c.id));
  expect(currenciesWith("ISK")[0]).toEqual({ id: "ISK", name: "ISK" });
});

it("a share of the area is a percentage, or people here over people there", () => {
  expect(shareOfArea("60")).toBeCloseTo(0.6);
  expect(shareOfArea("30,000 / 750,000")).toBeCloseTo(0.04);
  for (const odd of ["", "a / b", "1 / 0", "1 / 2 / 3"]) expect(shareOfArea(odd)).toBeNull();
});

it("a day that is left out and an own share of searches are sent with the whole of showing", async () => {
  const asked = await showOnPlan(<Showing />, patched);
  await userEvent.click(screen.getByRole("button", { name: "Sun" }));
  await waitFor(() => expect(asked).toHaveLength(1));
  const { showing } = asked[0]!.body as { showing: { days: boolean[]; from_hour: number } };
  expect(showing.days).toEqual([true, true, true, true, true, true, false]);
  expect(showing.from_hour).toBe(0);
  const share = screen.getByLabelText("Share of searches shown, per cent");
  await userEvent.clear(share);
  await userEvent.type(share, "62,5{Enter}");
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toMatchObject({ showing: { share: 0.625 } });
});

const summary = {
  name: "terms.csv",
  at: "2026-11-01",
  days: 90,
  clicks: 1519,
  cost: 1800,
  customers: 41,
  rate: { low: 0.0219, likely: 0.0271, high: 0.0331 },
  cpc: 1.19,
  sale_value: null,
};

it("results of the past offer to fill the brief, and say how sure they are", async () => {
  const asked = await showOnPlan(<PastResults />, {
    "GET /past/account": () => ({ body: null }),
    "GET /past/terms": () => ({ body: { summary } }),
    "POST /past/terms/brief": () => ({ body: changeOf({ summary: summaryOf(2) }) }),
  });
  expect(await screen.findByText(/80 % sure between 2\.2 % and 3\.3 %/)).toBeTruthy();
  await userEvent.click(screen.getByText("use it"));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ counts: "customers" });
});
