import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../../data/client";
import { changeOf, refusal, showOnPlan } from "../../../testing-plan";
import { HowSure } from "./HowSure";

type View = Schemas["HowSureView"];

const figure: Schemas["DottedFigure"] = {
  dots: [6, 9, 12, 15],
  low: 7,
  middle: 12,
  high: 18,
  expected: 12.2,
};
const turn = (changes: Partial<Schemas["TurnItem"]>): Schemas["TurnItem"] => ({
  times: 0.8,
  value: null,
  chance: 0.25,
  ...changes,
});

const view: View = {
  revision: 1,
  draws: 2000,
  months_a_dot: 20,
  figures: {
    customers: figure,
    spend: { ...figure, low: 520, middle: 580, high: 600 },
  },
  odds: [
    { says: "fewer than 10 customers", share: 0.31 },
    { says: "nobody buys", share: 0.004 },
    { says: "the purse is never passed", share: 1 },
  ],
  use: {
    purse: 600,
    spent: 560,
    low: 520,
    middle: 580,
    high: 600,
    cut: 25,
    not_searched: 15,
    not_planned: 0,
    remedies: [
      { name: "sharing one purse", spend: 12.5, customers: 0.4 },
      { name: "wider matches", spend: 0, customers: 0 },
    ],
  },
  moves: [
    {
      input: "conversion",
      assumption: "",
      spread: null,
      customers_low: 16,
      customers_high: 8,
      profit_low: 3000,
      profit_high: 900,
    },
    {
      input: "searches",
      assumption: "spread_searches",
      spread: 0.25,
      customers_low: 9,
      customers_high: 14,
      profit_low: 1200,
      profit_high: 2600,
    },
  ],
  groups: [
    { group_id: 1, key: "g1", name: "Repair", share: 0.7, low: 3, middle: 6, high: 9 },
    { group_id: null, key: "", name: "no group", share: 0.1, low: 0, middle: 1, high: 2 },
  ],
  must: [
    {
      input: "conversion",
      now: 0.03,
      rule: turn({ times: 0.7, value: 0.021 }),
      even: turn({ times: 0.4, value: 0.012, chance: 0.004 }),
      nothing: turn({ times: null, chance: null }),
    },
    {
      input: "prices",
      now: null,
      rule: turn({ times: 1.4, chance: 0 }),
      even: turn({}),
      nothing: turn({}),
    },
  ],
};

const shown = (answer: { status?: number; body: unknown } = { body: view }) =>
  showOnPlan(<HowSure />, {
    "GET /how-sure": () => answer,
    "PATCH /assumptions": () => ({ body: changeOf({}) }),
    "PUT /assumptions/spread_searches": () => ({ body: changeOf({}) }),
  });

it("says how wide the month is, and how often what happens", async () => {
  await shown();
  expect(await screen.findByText(/8 in 10 between 7 and 18, the middle 12/)).toBeTruthy();
  const chances = screen.getByRole("region", { name: "Chances" });
  expect(within(chances).getByText("in 3 of 10 months")).toBeTruthy();
  expect(within(chances).getByText("in 0.4 % of months")).toBeTruthy();
  expect(within(chances).getByText("in every month")).toBeTruthy();
});

it("another figure is drawn in the same dots", async () => {
  await shown();
  await userEvent.click(await screen.findByRole("button", { name: /Figure/ }));
  await userEvent.click(screen.getByRole("option", { name: "money spent a month" }));
  expect(await screen.findByText(/8 in 10 between 520.* and 600/)).toBeTruthy();
});

it("says what of the purse stays, why, and what would use it", async () => {
  await shown();
  const used = await screen.findByLabelText("What of the purse will go");
  expect(used.textContent).toContain("Of 600.00 GBP about 580 will go");
  expect(used.textContent).toContain("25.00 wanted on busy days");
  expect(used.textContent).toContain("15.00 for searches and clicks that don’t come");
  expect(used.textContent).toContain("sharing one purse (+12.50 GBP, +0.40 customers)");
  expect(used.textContent).not.toContain("wider matches");
});

it("what moves it is said from low to high, whichever way the input turns it", async () => {
  await shown();
  const moves = await screen.findByRole("region", { name: "What moves it" });
  expect(within(moves).getByText(/8.0 to 16.0 customers, 900 to 3,000 profit/)).toBeTruthy();
  expect(within(moves).getByRole("button", { name: "the brief says" })).toBeTruthy();
});

it("says at which value the plan stops to pay, and how likely that is", async () => {
  await shown();
  const must = await screen.findByRole("region", { name: "What would have to be true" });
  const [, conversion, prices] = within(must).getAllByRole("row");
  expect(conversion!.textContent).toBe(
    "customers per click3\u00a0%2.10\u00a0%25\u00a0% likely1.20\u00a0%1 in 250no value would",
  );
  expect(prices!.textContent).toBe(
    "click pricesas read40\u00a0% higherhardly ever20\u00a0% lower25\u00a0% likely20\u00a0% lower25\u00a0% likely",
  );
});

it("says why where it could not be drawn, and draws again when told to", async () => {
  let times = 0;
  await showOnPlan(<HowSure />, {
    "GET /how-sure": () =>
      times++ ? { body: view } : { status: 422, body: refusal("nothing is kept") },
  });
  expect(await screen.findByText(/Not drawn: nothing is kept/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "draw again" }));
  await waitFor(() => expect(screen.getByRole("region", { name: "How sure" })).toBeTruthy());
});
