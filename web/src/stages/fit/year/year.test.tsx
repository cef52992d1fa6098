import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, showOnPlan } from "../../../testing-plan";
import { Year } from "./Year";
import type { YearRanges, YearView } from "./view";

const months = [...Array(12).keys()];
const each = (value: number) => months.map(() => value);

const view: YearView = {
  kind: "flat",
  refit: false,
  can_refit: true,
  revision: 1,
  first: months.map((at) => `2027-${String(at + 1).padStart(2, "0")}-01`),
  days: [...each(30).slice(0, 10), 9, 0],
  purse: each(600),
  spend: [...each(600).slice(0, 11), 0],
  market: each(600),
  clicks: each(400),
  customers: each(12),
  profit: each(2000),
  revenue: each(4000),
  gross: each(600),
  index: each(1),
  cost_per_customer: each(50),
  sums: {
    purse: 7200,
    spend: 6600,
    clicks: 4800,
    customers: 140,
    revenue: 48_000,
    profit: 24_000,
    gross: 7200,
    cost_per_customer: 47.1,
  },
};

const ranges: YearRanges = {
  draws: 400,
  revision: 1,
  year: { customers: { low: 110, middle: 140, high: 180 } },
  months: months.map(() => ({ customers: { low: 8, middle: 12, high: 17 } })),
};

const shown = (changes: Partial<YearView> = {}, drawn: YearRanges | null = ranges) =>
  showOnPlan(<Year />, {
    "GET /year": () => ({ body: { ...view, ...changes } }),
    "GET /year/ranges": () => ({ body: drawn }),
    "POST /year/month": () => ({ body: changeOf({ did: "give a month other money" }) }),
    "POST /year/best": () => ({ body: changeOf({ did: "spread the year’s money" }) }),
    "PATCH /brief": () => ({ body: changeOf({ did: "change the brief" }) }),
  });

const rowOf = (name: string) => screen.getByRole("rowheader", { name }).closest("tr")!;

it("says how the year's money is spread, what it brings, and how sure that is", async () => {
  await shown();
  expect(await screen.findByText("7,200.00")).toBeTruthy();
  expect(await screen.findByText("110 to 180")).toBeTruthy();
  const customers = within(rowOf("customers")).getAllByRole("cell");
  expect(customers[0]!.textContent).toBe("12.08–17");
});

it("a month the plan has no day in holds nothing, and a short one says its days", async () => {
  await shown();
  const opener = await screen.findByRole("button", { name: /December by its days/ });
  expect(opener.hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("9 days")).toBeTruthy();
  expect(screen.queryByLabelText("Sum for December")).toBeNull();
  expect(screen.queryByRole("slider", { name: "Money of December" })).toBeNull();
});

it("a month takes other money by keys or as typed, and the year keeps its sum or not", async () => {
  const asked = await shown();
  const slider = await screen.findByRole("slider", { name: "Money of March" });
  fireEvent.keyDown(slider, { key: "ArrowUp" });
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ month: 2, money: 610, keep_sum: true }));
  await userEvent.click(screen.getByRole("button", { name: /What dragging does/ }));
  await userEvent.click(screen.getByRole("option", { name: /the year’s sum changes/ }));
  const blank = screen.getByLabelText("Sum for April");
  await userEvent.clear(blank);
  await userEvent.type(blank, "450{Enter}");
  await waitFor(() =>
    expect(asked.at(-1)!.body).toEqual({ month: 3, money: 450, keep_sum: false }),
  );
});

it("less than nothing is no sum", async () => {
  const asked = await shown();
  const blank = await screen.findByLabelText("Sum for April");
  await userEvent.clear(blank);
  await userEvent.type(blank, "-5{Enter}");
  expect(asked).toEqual([]);
});

it("says of each month which is short, the market or the money", async () => {
  const spend = [...each(600)];
  spend[0] = 480;
  const market = [...each(600)];
  market[1] = 900;
  await shown({ spend, market });
  await screen.findByText("7,200.00");
  const notes = within(rowOf("the market")).getAllByRole("cell");
  expect(notes.slice(0, 3).map((note) => note.textContent)).toEqual([
    "takes less",
    "could take more",
    "",
  ]);
});

it("the year's own months begin with what they have now", async () => {
  const asked = await shown();
  await userEvent.click(await screen.findByRole("button", { name: /How the year's money/ }));
  await userEvent.click(screen.getByRole("option", { name: /as you set it/ }));
  await waitFor(() =>
    expect(asked.at(-1)!.body).toEqual({ year_purse: "own", year_months: view.purse }),
  );
});

it("the best way to spread it is one press, where bids can be fitted anew", async () => {
  const asked = await shown();
  await userEvent.click(await screen.findByRole("button", { name: "best way to spread 7,200" }));
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: "/year/best" }));
});

it("has no best way where bids can't be fitted anew", async () => {
  await shown({ can_refit: false });
  const best = await screen.findByRole("button", { name: /best way to spread/ });
  expect(best.hasAttribute("disabled")).toBe(true);
});

it("ranges of an older plan are not shown beside the figures of this one", async () => {
  await shown({}, { ...ranges, revision: 0 });
  await screen.findByText("7,200.00");
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("small: 8 years in 10"));
  expect(screen.queryByText("110 to 180")).toBeNull();
});
