import { render, screen, within } from "@testing-library/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { MemoryRouter } from "react-router";
import type { Schemas } from "../data/client";
import { AllClients } from "./AllClients";

type Line = Schemas["ClientLine"];
type Glance = Schemas["Glance"];

const glance = (changes: Partial<Glance>): Glance => ({
  plan_id: 1,
  revision: 1,
  first: "2027-04-01",
  last: "2027-04-20",
  spent: 90,
  purse: 100,
  out: null,
  left: 10,
  customers: 3,
  low: 1,
  high: 6,
  refused: 0,
  stops: 0,
  reviews: 0,
  terms: 0,
  month_over: false,
  money: 0,
  next_review: null,
  urgency: 5,
  ...changes,
});

const line = (plan_id: number, name: string, known: Glance | null): Line => ({
  plan_id,
  client: name,
  name,
  label: "",
  currency: "GBP",
  monthly_spend: 100,
  keywords: 9,
  handed_over: 0,
  glance: known,
});

function show(lines: Line[], seen: Record<number, Response>) {
  vi.stubGlobal("fetch", (request: Request) => {
    const asked = /plans\/(\d+)\/glance/.exec(request.url);
    return Promise.resolve(asked ? seen[Number(asked[1])]! : Response.json(lines));
  });
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <AllClients />
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

const names = () =>
  screen
    .getAllByRole("row")
    .slice(1)
    .map((row) => within(row).getByRole("link").textContent);

it("puts the most urgent first, and those not looked at yet last until they are", async () => {
  const late = glance({ plan_id: 3, out: "2027-04-24", urgency: 0 });
  const lines = [
    line(1, "Quiet", glance({})),
    line(2, "Terms", glance({ plan_id: 2, terms: 4, urgency: 4 })),
    line(3, "Money out", null),
  ];
  show(lines, { 3: Response.json(late) });
  await screen.findByText("gone by 24 April 2027");
  expect(names()).toEqual(["Money out", "Terms", "Quiet"]);
  expect(screen.getByText("4 terms")).toBeTruthy();
});

it("says why a plan can’t be read, and looks at the others all the same", async () => {
  const refusal = { error: { code: "unreadable", message: "It can’t be read.", where: "plan" } };
  show([line(1, "Broken", null), line(2, "Whole", null)], {
    1: Response.json(refusal, { status: 422 }),
    2: Response.json(glance({ plan_id: 2 })),
  });
  expect(await screen.findByText("It can’t be read.")).toBeTruthy();
  expect(await screen.findByText("10.00 will be left")).toBeTruthy();
});

it("offers a way in where there is no plan", async () => {
  show([], {});
  expect(await screen.findByRole("link", { name: /look at the sample/ })).toBeTruthy();
});
