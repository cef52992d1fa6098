import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, showOnPlan } from "../../../testing-plan";
import { summaryOf } from "../../../testing-summary";
import { AccountSource } from "./AccountSource";
import { TermsSource } from "./TermsSource";

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
const terms = {
  summary,
  sold: 1,
  text: ["sash rope", "sash jobs"],
  clicks: [40, 60],
  cost: [20, 50],
  customers: [2, 0],
  cpc: [0.5, null],
  refused: [],
};
const sums = { clicks: 100, spend: 200, customers: 4, profit: 500 };
const account = {
  summary,
  live: 2,
  negatives: 1,
  missing: 1,
  campaigns: ["Windows"],
  now: sums,
  plan: { ...sums, customers: 6, profit: 900 },
  text: ["sash rope", "sash cord"],
  match: ["exact", "exact"],
  group: ["Ropes", "Ropes"],
  what: ["raise", "start"],
  bid_now: [0.9, null],
  bid_plan: [1.1, 1.4],
  spend_now: [10, 0],
  spend_plan: [12, 20],
  customers_now: [0.3, 0],
  customers_plan: [0.4, 0.6],
  refused: [{ row: 4, column: "match", value: "wide", why: "expected exact, phrase or broad" }],
};

it("terms that sold come first and all go to the tray at once", async () => {
  const brought = vi.fn();
  const asked = await showOnPlan(<TermsSource onTray={brought} />, {
    "GET /past/terms": () => ({ body: terms }),
    "POST /past/terms/tray": () => ({ body: { key: "t", name: "terms.csv" } }),
  });
  expect(await screen.findByText(/1,519 clicks at 1.19 GBP, 41 customers/)).toBeTruthy();
  await userEvent.click(screen.getByText(/Put 2 into the tray, 1 that sold first/));
  await waitFor(() => expect(brought).toHaveBeenCalled());
  expect(asked[0]!.path).toBe("/past/terms/tray");
});

it("before there is a report, the screen says which columns one has", async () => {
  await showOnPlan(<TermsSource onTray={() => undefined} />, {
    "GET /past/terms": () => ({ body: null }),
  });
  expect(await screen.findByText(/Columns: search term/)).toBeTruthy();
  expect(screen.getByText("A made-up report")).toBeTruthy();
});

it("the account says what the plan changes and what that is worth", async () => {
  const asked = await showOnPlan(<AccountSource />, {
    "GET /past/account": () => ({ body: account }),
    "POST /past/account/take": () => ({ body: changeOf({ summary: summaryOf(2) }) }),
  });
  expect(await screen.findByText(/customers \+2\.0, profit \+400 GBP/)).toBeTruthy();
  await userEvent.click(screen.getByRole("radio", { name: "1 raised" }));
  expect(screen.getByRole("grid", { name: "What the plan changes, by keyword" })).toBeTruthy();
  await userEvent.click(screen.getByText("Start from its 2 keywords"));
  await waitFor(() => expect(asked.map((a) => a.path)).toContain("/past/account/take"));
});

it("rows of an account that were left out say why", async () => {
  await showOnPlan(<AccountSource />, {
    "GET /past/account": () => ({ body: null }),
    "POST /past/account/sample": () => ({ body: account }),
  });
  await userEvent.click(await screen.findByText("A made-up account"));
  expect(await screen.findByText("1 row left out")).toBeTruthy();
  expect(screen.getByText("expected exact, phrase or broad")).toBeTruthy();
});
