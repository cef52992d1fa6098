import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../data/client";
import { changeOf, refusal, showOnPlan } from "../../testing-plan";
import { Gather } from "./Gather";
import { fieldName } from "./fieldName";

type Tray = Schemas["TrayView"];

const tray = (changes: Partial<Tray> = {}): Tray => ({
  key: "k1",
  name: "gates.csv",
  separator: "semicolon",
  decimal: "comma",
  encoding: "UTF-8",
  headings: ["Search term", "Searches", "Remark"],
  first_row: 2,
  columns: { keyword: 0, volume: 1 },
  fields: ["keyword", "volume", "cpc_low", "m01"],
  sample: [
    ["gate post", "10", "x"],
    ["gate latch", "20", "y"],
  ],
  counts: { new: 1, near: 0, caught: 0, changed: 1, there: 0, refused: 1 },
  sheets: [],
  sheet: "",
  period: "month",
  basis: "",
  area: "",
  shown_at_bid: null,
  currency: "",
  price_rate: null,
  price: "click",
  more: false,
  quota_left: null,
  rows: {
    row: [2, 3],
    text: ["gate post", "gate latch"],
    match: ["exact", "exact"],
    status: ["new", "changed"],
    like: ["", ""],
    volume_low: [10, 20],
    volume_high: [100, 20],
    cpc_low: [null, 0.5],
    cpc_high: [null, 1.5],
    call: ["none", "keep"],
    group: ["", "Gates"],
    unpaid_rank: [null, null],
  },
  was: { 1: [15, 15, 0.4, 1.2] },
  cleaned: {},
  verdict: "take",
  refused: [
    { row: 4, column: "cpc_low", value: "n/a", why: 'expected a price above 0, got "n/a"' },
  ],
  ...changes,
});

async function pasted(answers: Parameters<typeof showOnPlan>[1], text = "gate post\t10") {
  const asked = await showOnPlan(<Gather />, {
    "POST /gather/text": () => ({ body: tray() }),
    ...answers,
  });
  await userEvent.click(screen.getByLabelText("Pasted rows"));
  await userEvent.paste(text);
  await userEvent.click(screen.getByText("Read what is pasted"));
  return asked;
}

it("Gather explains what will happen, and nothing pasted can't be read", async () => {
  await showOnPlan(<Gather />);
  expect(screen.getByText("What happens next")).toBeTruthy();
  expect(screen.getByText("Read what is pasted").hasAttribute("disabled")).toBe(true);
});

it("what is read is sorted by what would become of it", async () => {
  const asked = await pasted({});
  expect(asked[0]!.body).toEqual({ text: "gate post\t10", name: "pasted" });
  const parts = await screen.findByRole("radiogroup", { name: "Rows of the file" });
  expect(
    within(parts)
      .getAllByRole("radio")
      .map((part) => part.textContent),
  ).toEqual([
    "1 new",
    "0 alike another",
    "0 never wanted",
    "1 new figures",
    "0 already there",
    "0 cleaned",
    "1 refused",
  ]);
  expect(screen.getByText("UTF-8, semicolon between cells, decimal comma")).toBeTruthy();
  expect(screen.getByText("Take in 2")).toBeTruthy();
});

it("a refused row says which, what stands there, and why", async () => {
  await pasted({});
  await userEvent.click(await screen.findByRole("radio", { name: "1 refused" }));
  expect(screen.getByRole("grid", { name: "Rows: refused" })).toBeTruthy();
  await userEvent.click(screen.getByRole("radio", { name: "0 already there" }));
  expect(screen.getByText(/None of the 2 rows/)).toBeTruthy();
});

it("a column is given another meaning by its heading", async () => {
  const asked = await pasted({
    "PUT /gather/k1/columns": () => ({ body: tray({ columns: { keyword: 0, cpc_low: 1 } }) }),
  });
  await userEvent.click(await screen.findByRole("button", { name: /Column 2, Searches/ }));
  await userEvent.click(screen.getByRole("option", { name: "low price" }));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toMatchObject({
    columns: { keyword: 0, cpc_low: 1 },
    first_row: 2,
    period: "month",
  });
});

it("volumes counted a day are said to be so, and the file is read again by that", async () => {
  const asked = await pasted({
    "PUT /gather/k1/columns": () => ({ body: tray({ period: "day" }) }),
  });
  await userEvent.click(await screen.findByRole("button", { name: /Volumes are for/ }));
  await userEvent.click(screen.getByRole("option", { name: /a day/ }));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toMatchObject({ columns: { keyword: 0, volume: 1 }, period: "day" });
});

it("what was said of a file stays said when something else of it changes", async () => {
  const asked = await pasted({
    "POST /gather/text": () => ({ body: tray({ shown_at_bid: 0.8, price_rate: 0.9 }) }),
    "PUT /gather/k1/columns": () => ({ body: tray({ period: "day" }) }),
  });
  await userEvent.click(await screen.findByRole("button", { name: /Volumes are for/ }));
  await userEvent.click(await screen.findByRole("option", { name: /a day/ }));
  await waitFor(() =>
    expect(asked.at(-1)!.body).toMatchObject({
      ...{ period: "day", shown_at_bid: 0.8, price_rate: 0.9 },
    }),
  );
});

it("prices in other money are left out until what one of it is is said", async () => {
  const asked = await pasted({
    "POST /gather/text": () => ({ body: tray({ currency: "USD" }) }),
    "PUT /gather/k1/columns": () => ({ body: tray({ currency: "USD", price_rate: 0.79 }) }),
  });
  expect(await screen.findByText(/prices are left out/)).toBeTruthy();
  const rate = screen.getByRole("textbox", { name: "One USD in GBP" });
  await userEvent.type(rate, "0{Enter}");
  expect(asked.filter(({ method }) => method === "PUT")).toEqual([]);
  await userEvent.clear(rate);
  await userEvent.type(rate, "0.79{Enter}");
  await waitFor(() => expect(screen.queryByText(/prices are left out/)).toBeNull());
  expect(asked.at(-1)!.body).toMatchObject({ price_rate: 0.79 });
});

it("near-duplicates are left out until they are asked for", async () => {
  const counts = { new: 1, near: 1, caught: 0, changed: 0, there: 0, refused: 0 };
  const rows = { ...tray().rows, status: ["new", "near"], like: ["", "gate post"] };
  const asked = await pasted({
    "POST /gather/text": () => ({ body: tray({ counts, rows }) }),
    "POST /gather/k1/take": () => ({ body: changeOf({ did: "take in 2 keywords" }) }),
  });
  expect(await screen.findByText("Take in 1")).toBeTruthy();
  await userEvent.click(screen.getByRole("radio", { name: "1 alike another" }));
  await userEvent.click(screen.getByText("take them in too"));
  await userEvent.click(screen.getByText("Take in 2"));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toEqual({
    near: "take",
    caught: false,
    changed: "take",
    verdicts: {},
  });
});

it("what is taken in leaves the tray", async () => {
  const asked = await pasted({
    "POST /gather/k1/take": () => ({ body: changeOf({ did: "take in 1 keywords" }) }),
  });
  await userEvent.click(await screen.findByText("Take in 2"));
  await waitFor(() => expect(screen.getByText("What happens next")).toBeTruthy());
  expect(asked.map((a) => a.path)).toEqual(["/gather/text", "/gather/k1/take"]);
});

it("what is left is gone, also where the server no longer holds it", async () => {
  await pasted({
    "DELETE /gather/k1": () => ({ status: 404, body: refusal("no longer in the tray") }),
  });
  await userEvent.click(await screen.findByText("Leave"));
  await waitFor(() => expect(screen.getByText("What happens next")).toBeTruthy());
  expect(screen.getByTestId("said").textContent).toContain("no longer in the tray");
});

it("an unreadable text is said, and what was pasted stays", async () => {
  await pasted({
    "POST /gather/text": () => ({ status: 422, body: refusal("expected rows of keywords") }),
  });
  await waitFor(() => expect(screen.getByTestId("said").textContent).toContain("expected rows"));
  expect(screen.getByLabelText("Pasted rows")).toHaveProperty("value", "gate post\t10");
});

it("fields have names for people", () => {
  expect(["cpc_low", "m03", "group"].map(fieldName)).toEqual(["low price", "month 03", "group"]);
});

it("new figures of one row are refused with a key while the rest is taken", async () => {
  const asked = await pasted({
    "POST /gather/k1/take": () => ({ body: changeOf({ did: "take in 1 keyword" }) }),
  });
  await userEvent.click(await screen.findByRole("radio", { name: /^1 (new figures|changed)/ }));
  const grid = screen.getByRole("grid", { name: /Rows: (changed|new figures)/ });
  expect(screen.getByText("All of them:", { exact: false })).toBeTruthy();
  grid.focus();
  await userEvent.keyboard("xk");
  await userEvent.click(screen.getByText(/^Take in/));
  await waitFor(() => expect(asked).toHaveLength(2));
  const body = asked[1]!.body as { changed: string; verdicts: Record<string, string> };
  expect(body.changed).toBe("take");
  expect(Object.values(body.verdicts)).toEqual(["keep"]);
});
