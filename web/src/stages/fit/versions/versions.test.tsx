import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../../data/client";
import { changeOf, refusal, showOnPlan } from "../../../testing-plan";
import { Versions } from "./Versions";
import type { Version } from "./version";

const version = (id: number, changes: Partial<Version> = {}): Version => ({
  id,
  label: "",
  reason: "",
  is_first: id === 1,
  is_plan: id === 1,
  closed: false,
  created_at: "2027-03-01T10:00:00Z",
  start_date: "2027-04-01",
  revision: 3,
  ...changes,
});

const family = [version(1), version(2, { label: "Dearer", reason: "more money" })];

const standing: Schemas["StandingValues"] = {
  purse: 600,
  spend: 580,
  clicks: 400,
  customers: 12,
  cost_per_customer: 48.3,
  profit: 2000,
  revenue: 4800,
  running: 150,
  kept: 160,
  searches: 9000,
  year_spend: 7000,
  year_customers: 140,
  year_profit: 24_000,
};

const none: Schemas["DifferenceColumns"] = {
  kind: [],
  what: [],
  was: [],
  now: [],
  unit: [],
  of_kind: {},
};

const side = (
  plan_id: number,
  changes: Partial<Schemas["StandingValues"]> = {},
  differences = none,
): Schemas["VersionSide"] => ({
  plan_id,
  label: "",
  currency: "GBP",
  revision: 3,
  standing: { ...standing, ...changes },
  differences,
});

const odds: Schemas["OddsView"] = {
  draws: 2000,
  sides: [1, 2].map((plan_id) => ({
    plan_id,
    revision: 3,
    figures: {
      customers: { low: 8, middle: 12, high: 17 },
      cost_per_customer: { low: 30, middle: 48, high: null },
    },
  })),
  pairs: [{ first: 1, second: 2, more: 0.64, same: 0.1, fewer: 0.26, more_profit: 0.5, by: {} }],
};

const differing: Schemas["DifferenceColumns"] = {
  kind: ["brief", "brief", "call"],
  what: ["monthly spend", "may pay to learn", "sash repair"],
  was: [600, false, "keep"],
  now: [800, true, null],
  unit: ["money a month", "", ""],
  of_kind: { brief: 2, call: 40 },
};

const both = [side(1), side(2, { purse: 800, customers: 15 }, differing)];

const shown = (sides = both, answers = {}, versions = family) =>
  showOnPlan(<Versions family={versions} />, {
    "GET /compare": () => ({ body: { sides } }),
    "GET /compare/odds": () => ({ body: odds }),
    ...answers,
  });

it("sets versions side by side, with what differs, its range, and how often one wins", async () => {
  await shown();
  const customers = (await screen.findByText("customers a month")).closest("tr")!;
  const [mine, other] = within(customers).getAllByRole("cell");
  await waitFor(() => expect(mine!.textContent).toBe("12.08 to 17"));
  expect(other!.textContent).toBe("15.0+3.08 to 17");
  const kept = screen.getByText("keywords kept").closest("tr")!;
  expect(within(kept).getAllByRole("cell")[1]!.hasAttribute("data-same")).toBe(true);
  expect(await screen.findByText("in 64 % of months")).toBeTruthy();
  expect(screen.getByText("as many in 10 %, fewer in 26 %")).toBeTruthy();
  // where some months sell nothing, what a customer costs has no end
  expect(screen.getAllByText(/30.00 to ∞/)).toHaveLength(2);
});

it("says what is not as in the plan that is open, and how much more there is", async () => {
  await shown();
  const differs = await screen.findByRole("region", { name: "What differs in Dearer" });
  const [money, learn, call] = within(differs).getAllByRole("listitem");
  expect(money!.textContent).toBe("monthly spend600.00 800.00");
  expect(learn!.textContent).toBe("may pay to learnno yes");
  expect(call!.textContent).toBe("sash repairkeep none");
  expect(within(differs).getByText("… and 39 more")).toBeTruthy();
});

it("says so where nothing differs", async () => {
  await shown([side(1), side(2)]);
  expect(await screen.findByText(/Nothing differs/)).toBeTruthy();
});

it("a version is made with a press, and the plan stays open", async () => {
  const asked = await shown([side(1)], { "POST /versions": () => ({ body: { id: 9 } }) }, [
    version(1),
  ]);
  await userEvent.click(await screen.findByRole("button", { name: /make a version/ }));
  await waitFor(() =>
    expect(screen.getByTestId("said").textContent).toContain("made a version of the plan"),
  );
  expect(asked.at(-1)!.body).toEqual({ label: "", reason: "" });
});

it("another version is named and made the plan where it stands, and a refusal is said", async () => {
  const asked = await shown(both, {
    "PATCH /api/plans/2/version": () => ({ body: changeOf({ did: "name a version" }) }),
    "POST /api/plans/2/choose": () => ({ status: 422, body: refusal("its month is closed") }),
  });
  const name = await screen.findByLabelText("Name of Dearer");
  await userEvent.clear(name);
  await userEvent.type(name, "Dear{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ label: "Dear" }));
  await userEvent.click(screen.getByRole("button", { name: "make it the plan" }));
  await waitFor(() =>
    expect(screen.getByTestId("said").textContent).toContain("its month is closed"),
  );
});

it("of many versions three stand beside the one that is open, and which is chosen", async () => {
  const many = [1, 2, 3, 4, 5].map((id) => version(id, { label: `v${id}` }));
  const asked: string[][] = [];
  await shown(
    both,
    {
      "GET /compare": (_: unknown, query: URLSearchParams) => {
        asked.push(query.getAll("with"));
        return { body: { sides: [] } };
      },
    },
    many,
  );
  await waitFor(() => expect(asked.at(-1)).toEqual(["2", "3", "4"]));
  await userEvent.click(screen.getByRole("button", { name: "v3", pressed: true }));
  await waitFor(() => expect(asked.at(-1)).toEqual(["2", "4", "5"]));
});
