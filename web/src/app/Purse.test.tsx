import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { usePlan } from "../data/plan";
import { useTry } from "../data/whatIf";
import { delta, money } from "../parts/format";
import { changeOf, refusal, showOnPlan } from "../testing-plan";
import { summaryOf } from "../testing-summary";
import { sheetOf } from "../testing-sheet";
import { Purse } from "./Purse";
import { Workings } from "./Workings";

function Keep() {
  const { call, sheet, undo } = usePlan();
  return (
    <>
      <button onClick={() => void call([101], "keep")}>keep it</button>
      <button onClick={() => void undo()}>take it back</button>
      <output>{sheet.texts.call.join(" ")}</output>
    </>
  );
}

const ranges = {
  revision: 1,
  draws: 2000,
  figures: {
    clicks: { low: 300, middle: 400, high: 480 },
    customers: { low: 6, middle: 12, high: 20 },
    cost_per_customer: { low: 25, middle: 41, high: null },
    profit: { low: 700, middle: 2000, high: 4000 },
  },
  profit_chance: 0.99,
  no_customer_chance: 0.002,
  early_chance: 0.69,
  early_day: 24,
  moves: [
    { input: "prices", customers_low: 14, customers_high: 10, profit_low: 2100, profit_high: 1800 },
    {
      input: "conversion",
      customers_low: 8,
      customers_high: 18.5,
      profit_low: 1200,
      profit_high: 3100,
    },
  ],
};

it("shows the money, its parts and what the next pound brings", async () => {
  await showOnPlan(<Purse />);
  const purse = screen.getByRole("region", { name: "Purse" });
  expect(purse.textContent).toContain("500.00 of 600.00 GBP a month, 16.40 a day");
  expect(purse.textContent).toContain("next pound brings 0.0145 customers");
  expect(purse.textContent).toContain("Repair 500");
});

it("a change moves every figure at once and says by how much", async () => {
  const rows = { id: [101], text: ["sash jobs"], call: ["keep"] };
  const asked = await showOnPlan(
    <>
      <Purse />
      <Keep />
    </>,
    {
      "POST /calls": () => ({
        body: changeOf({
          did: "keep 1 keyword",
          summary: summaryOf(2, { customers: 12.6, profit: 1900, cost_per_customer: 40 }),
          rows: { ...emptyRows(), ...rows } as never,
        }),
      }),
    },
  );
  await userEvent.click(screen.getByText("keep it"));
  await waitFor(() => expect(screen.getByText("+0.6")).toBeTruthy());
  expect(screen.getByText("+0.6").dataset.good).toBe("true");
  expect(screen.getByText("−100").dataset.good).toBeUndefined();
  expect(screen.getByText("−1.67").dataset.good).toBe("true");
  expect(screen.getByRole("status").textContent).toBe("keep keep");
  expect(asked).toEqual([
    { method: "POST", path: "/calls", body: { ids: [101], call: "keep", reason: "", by: "hand" } },
  ]);
  expect(screen.getByTestId("said").textContent).toBe("keep 1 keyword");
});

it("a refused change moves nothing and says why", async () => {
  await showOnPlan(<Keep />, {
    "POST /undo": () => ({ status: 404, body: refusal("There is nothing to undo.") }),
  });
  await userEvent.click(screen.getByText("take it back"));
  await waitFor(() => expect(screen.getByTestId("said").textContent).toContain("nothing to undo"));
  expect(screen.getByRole("status").textContent).toBe("keep none");
});

it("an answer of another revision makes the plan be read anew", async () => {
  let reads = 0;
  await showOnPlan(<Keep />, {
    "POST /calls": () => ({ body: changeOf({ was: 9 }) }),
    "GET ": () => {
      reads += 1;
      return { body: { summary: summaryOf(reads), sheet: emptySheet } };
    },
  });
  await userEvent.click(screen.getByText("keep it"));
  await waitFor(() => expect(reads).toBe(2));
});

it("an empty purse says what is missing where the money would stand", async () => {
  await showOnPlan(<Purse />, {
    "GET ": () => ({
      body: {
        summary: summaryOf(1, {
          segments: [],
          spend: 0,
          next_unit: 0,
          notices: ["No keyword is kept yet."],
        }),
        sheet: emptySheet,
      },
    }),
  });
  expect(screen.getByText("No keyword is kept yet.")).toBeTruthy();
  expect(screen.getByText(/brings nothing more/)).toBeTruthy();
});

it("ranges follow a moment later, and a figure says how sure it is", async () => {
  await showOnPlan(
    <>
      <Purse />
      <Workings />
    </>,
    {
      "GET /ranges": () => ({ body: ranges }),
      "GET /workings/customers": () => ({
        body: { revision: 1, title: "Customers a month", about: "", notes: [], sections: [] },
      }),
    },
  );
  await waitFor(() => expect(screen.getByText("300 to 480")).toBeTruthy(), { timeout: 3000 });
  expect(screen.getByText("25.0 to ∞")).toBeTruthy();
  await userEvent.click(screen.getByText("customers a month"));
  await waitFor(() => expect(screen.getByText(/month drawn 2,000 times/)).toBeTruthy(), {
    timeout: 3000,
  });
  expect(screen.getByText("conversion, 8.0 to 18.5")).toBeTruthy();
  expect(screen.getByText("conversion, 1,200 to 3,100")).toBeTruthy();
  expect(screen.getByText("69 %")).toBeTruthy();
});

it("assumptions are changed in the workings, in their own unit, and put back", async () => {
  const line = (changes: object) => ({
    label: "",
    value: 0,
    unit: "count",
    formula: "",
    source: "",
    assumption: "",
    text: "",
    result: false,
    ...changes,
  });
  const answer = {
    revision: 1,
    title: "Spend",
    about: "six.csv, row 5",
    notes: ["thin"],
    sections: [
      {
        title: "A sum",
        lines: [
          line({
            label: "× area share",
            value: 0.04,
            unit: "share",
            source: "assumption",
            assumption: "area_share",
          }),
          line({ label: "price", value: 1.5, unit: "money", source: "reading" }),
          line({ label: "none", text: "not forecast" }),
          line({ label: "in", value: 3.25, unit: "months", result: true }),
        ],
      },
    ],
  };
  const asked = await showOnPlan(
    <>
      <Purse />
      <Workings />
    </>,
    {
      "GET /workings/spend": () => ({ body: answer }),
      "PATCH /assumptions": () => ({
        body: changeOf({
          summary: {
            ...summaryOf(2),
            brief: { ...summaryOf(2).brief, assumptions: { area_share: 0.05 } },
          },
        }),
      }),
    },
  );
  expect(screen.getByText(/Select a keyword/)).toBeTruthy();
  await userEvent.click(screen.getByText(/a day/));
  const field = await screen.findByLabelText("Assumption: × area share");
  expect(field).toHaveProperty("value", "4\u00a0%");
  await userEvent.clear(field);
  await userEvent.type(field, "5{Enter}");
  await userEvent.click(await screen.findByLabelText(/Put the default of × area share back/));
  const kept = asked.filter((a) => a.path === "/assumptions").map((a) => a.body);
  expect(kept).toEqual([{ values: { area_share: 0.05 } }, { values: { area_share: null } }]);
  expect(screen.getByText("3.3 months")).toBeTruthy();
});

function TryPrice({ price }: { price: number | null }) {
  useTry(price === null ? null : { brief: { max_cpc: price } });
  return null;
}

function Tries() {
  const [price, setPrice] = useState<number | null>(null);
  return (
    <>
      <button onClick={() => setPrice(2)}>try it</button>
      <button onClick={() => setPrice(null)}>let it be</button>
      <TryPrice price={price} />
    </>
  );
}

it("shows what a thing that is only tried would do, and goes back to the plan's own figures", async () => {
  const tried = {
    purse: summaryOf(1, { customers: 14.2, spend: 402 }).purse,
    ceiling_rule: "profit_share",
    ceiling_value: 0.25,
    max_cpc: 2,
    beyond: 60,
  };
  const { customers, spend } = summaryOf(1).purse;
  await showOnPlan(
    <>
      <Purse />
      <Tries />
    </>,
    { "POST /try": () => ({ body: tried }) },
  );
  const purse = screen.getByRole("region", { name: "Purse" });
  expect(purse.textContent).toContain(money(spend));
  await userEvent.click(screen.getByText("try it"));
  await waitFor(() => expect(purse.textContent).toContain("if kept: 402.00 of"));
  expect(purse.textContent).toContain(`14.2${delta(14.2 - customers, 1)}`);
  await userEvent.click(screen.getByText("let it be"));
  await waitFor(() => expect(purse.textContent).not.toContain("if kept"));
  expect(purse.textContent).toContain(money(spend));
});

const emptySheet = {
  groups: [],
  texts: emptyRows(),
  figures: Object.fromEntries(
    [
      "searches",
      "rate",
      "cpc_low",
      "cpc_high",
      "cpc_median",
      "cpc_at_line",
      "rate_at_line",
      "ceiling",
      "headroom",
      "reach",
      "standing",
      "bid",
      "bid_reach",
      "cpc",
      "clicks",
      "spend",
      "customers",
      "notes",
    ].map((name) => [name, []]),
  ),
};

function emptyRows() {
  return Object.fromEntries(Object.keys(sheetOf([]).texts).map((name) => [name, []]));
}
