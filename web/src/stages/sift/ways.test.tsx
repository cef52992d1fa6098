import { giveSizes } from "../../testing-layout";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { CommandBox } from "../../app/CommandBox";
import { changeOf, showOnPlan } from "../../testing-plan";
import { summaryOf } from "../../testing-summary";
import { sheetOf } from "../../testing-sheet";
import { Sift } from "./Sift";
import {
  clearLabels,
  endsOf,
  inShape,
  nearest,
  placesOf,
  scalesOf,
  zoomed,
  zoomedTo,
} from "./map/mapShapes";
import { chosenColumns, inOrder, movedColumn } from "./list/columnPlan";
import { ruleWords } from "./ruleWords";

const sheet = sheetOf([
  { text: "sash window repair", call: "none", headroom: 2, spend: 5 },
  { text: "sash window jobs", call: "none", headroom: 1, spend: 9 },
  { text: "box sash", call: "keep", headroom: 0 },
]);
sheet.figures.searches = [100, 10, 1000];
sheet.figures.cpc_median = [1, 2, 4];

beforeAll(giveSizes);
beforeEach(() => localStorage.clear());

const called = { "POST /calls": () => ({ body: changeOf({ did: "called" }) }) };
const words = {
  revision: 1,
  word: ["jobs", "sash", "window"],
  kind: ["!", "w", "w"],
  keywords: [1, 3, 2],
  kept: [0, 1, 0],
  called: [0, 1, 0],
  searches: [10, 1110, 110],
  price_low: [1, 1, 1],
  price_high: [3, 5, 3],
  customers: [0, 1, 0.5],
  starts: [0, 1, 4, 6],
  ids: [101, 100, 101, 102, 100, 101],
};
const worth = {
  stops: 1,
  uncalled: 1,
  called: 0,
  hurts: [],
  sold: [],
  everyday: true,
  spill_saved: 12,
  spend_freed: 3.4,
  customers_gained: 0.1,
  profit_gained: 20,
};
const open = (name: string) => userEvent.click(screen.getByRole("radio", { name }));

it("a call may be given a quick reason by a digit", async () => {
  const asked = await showOnPlan(<Sift />, called, sheet);
  fireEvent.keyDown(screen.getByRole("grid"), { key: "ArrowDown" });
  fireEvent.keyDown(window, { key: "3" });
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ ids: [100], call: "drop", reason: "", by: "hand" });
  fireEvent.keyDown(window, { key: "r" });
  await userEvent.keyboard("2");
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toMatchObject({ call: "drop", reason: "another town" });
});

it("chips leave some keywords and are counted", async () => {
  await showOnPlan(<Sift />, called, sheet);
  expect(screen.getByText("3 keywords")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "call: any" }));
  await userEvent.click(screen.getByRole("option", { name: /not yet called/ }));
  expect(await screen.findByText("2 of 3 keywords")).toBeTruthy();
});

it("an end of a range that is no number is said, and filters nothing away", async () => {
  await showOnPlan(<Sift />, called, sheet);
  await userEvent.click(screen.getByRole("button", { name: /Filter by something else/ }));
  await userEvent.click(screen.getByRole("option", { name: "searches" }));
  const from = await screen.findByLabelText("searches, from");
  await userEvent.type(from, "50");
  expect(await screen.findByText("2 of 3 keywords")).toBeTruthy();
  await userEvent.clear(from);
  await userEvent.type(from, "abc");
  expect(from.getAttribute("aria-invalid")).toBe("true");
  expect(screen.getByText("expected a number")).toBeTruthy();
  await userEvent.clear(from);
  await userEvent.type(from, "0.5K");
  expect(from.getAttribute("aria-invalid")).toBeNull();
  expect(await screen.findByText("1 of 3 keywords")).toBeTruthy();
});

it("a filter is saved under a name", async () => {
  const asked = await showOnPlan(
    <Sift />,
    { "PATCH /own": () => ({ body: changeOf({ summary: summaryOf(2) }) }) },
    sheet,
  );
  await userEvent.type(screen.getByLabelText(/Filter: words in/), "jobs");
  await userEvent.click(screen.getByRole("button", { name: "saved" }));
  await userEvent.type(screen.getByLabelText("save this one as"), "bad ones{Enter}");
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ saved_filters: [{ name: "bad ones", query: "q=jobs" }] });
});

it("a word calls the uncalled keywords with it, once those called are asked about", async () => {
  const answers = { ...called, "GET /sift/words": () => ({ body: words }) };
  const asked = await showOnPlan(<Sift />, answers, sheet);
  await open("Words");
  const grid = await screen.findByRole("grid", { name: "Words" });
  fireEvent.keyDown(grid, { key: "ArrowDown" });
  fireEvent.keyDown(grid, { key: "ArrowDown" });
  fireEvent.keyDown(window, { key: "3" });
  await userEvent.click(await screen.findByText("Only the 2 others"));
  const calls = () => asked.filter(({ path }) => path === "/calls");
  await waitFor(() => expect(calls()).toHaveLength(1));
  expect(calls()[0]!.body).toMatchObject({ ids: [100, 101], call: "drop", by: "word" });
});

it("a block by word shows what it saves and warns of everyday words", async () => {
  const asked = await showOnPlan(
    <Sift />,
    {
      "GET /sift/words": () => ({ body: words }),
      "POST /sift/blocking": () => ({ body: worth }),
      "POST /sift/block": () => ({ body: changeOf({ did: "block jobs" }) }),
    },
    sheet,
  );
  await open("Words");
  fireEvent.keyDown(await screen.findByRole("grid", { name: "Words" }), { key: "ArrowDown" });
  fireEvent.keyDown(window, { key: "4" });
  expect(await screen.findByText(/12 searches a month less .* 3.40 GBP freed/)).toBeTruthy();
  expect(screen.getByText(/everyday word too/)).toBeTruthy();
  await userEvent.click(screen.getByText("Block it"));
  await waitFor(() => expect(asked.some(({ path }) => path === "/sift/block")).toBe(true));
});

it("one by one, what takes most of the purse comes first and a call brings the next", async () => {
  const asked = await showOnPlan(<Sift />, called, sheet);
  await open("One by one");
  expect(screen.getByText("1 of 2 · 2 left")).toBeTruthy();
  expect(screen.getByRole("article", { name: "sash window jobs" })).toBeTruthy();
  fireEvent.keyDown(window, { key: "4" });
  await waitFor(() => expect(asked[0]?.body).toMatchObject({ ids: [101], call: "block" }));
  expect(await screen.findByRole("article", { name: "sash window repair" })).toBeTruthy();
});

it("several keywords are changed at once, figures read as they are typed", async () => {
  const asked = await showOnPlan(
    <Sift />,
    {
      "POST /keywords/edit": () => ({ body: changeOf({ did: "set" }) }),
      "POST /keywords/workings": () => ({ body: null }),
    },
    sheet,
  );
  const grid = screen.getByRole("grid");
  fireEvent.keyDown(grid, { key: "a", ctrlKey: true });
  fireEvent.keyDown(window, { key: "e" });
  await userEvent.selectOptions(await screen.findByLabelText("intent"), "learn");
  await userEvent.type(screen.getByLabelText(/low price/), "0,45 to 0,60");
  await userEvent.click(screen.getByText("Change them"));
  const edits = () => asked.filter(({ path }) => path === "/keywords/edit");
  const why = await within(screen.getByRole("dialog")).findByRole("alert");
  expect(why.textContent).toBe("low price, GBP a click: expected a number, got “0,45 to 0,60”.");
  expect(edits()).toEqual([]);
  await userEvent.clear(screen.getByLabelText(/low price/));
  await userEvent.type(screen.getByLabelText(/low price/), "0,45");
  await userEvent.click(screen.getByText("Change them"));
  await waitFor(() => expect(edits()).toHaveLength(1));
  expect(edits()[0]!.body).toEqual({ ids: [100, 101, 102], intent: "learn", cpc_low: 0.45 });
});

it("two keywords stand side by side, the learner first", async () => {
  sheet.texts.intent = ["buy", "learn", "buy"];
  await showOnPlan(<Sift />, { "POST /keywords/workings": () => ({ body: null }) }, sheet);
  const grid = screen.getByRole("grid");
  fireEvent.keyDown(grid, { key: "a", ctrlKey: true });
  await open("Compare");
  const heads = screen.getAllByRole("columnheader").map((head) => head.textContent);
  expect(heads[1]).toBe("sash window jobs");
});

function Commands() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button onClick={() => setOpen(true)}>what can be done</button>
      <CommandBox open={open} onOpen={setOpen} />
    </>
  );
}

it("the command box finds an action by name and runs it", async () => {
  await showOnPlan(
    <>
      <Sift />
      <Commands />
    </>,
    { "GET /sift/rules": () => ({ body: { revision: 1, rules: [] } }) },
    sheet,
  );
  await userEvent.click(screen.getByText("what can be done"));
  await userEvent.type(await screen.findByLabelText("Command"), "house ru");
  expect(screen.queryByRole("menuitem", { name: /Keep/ })).toBeNull();
  await userEvent.click(screen.getByRole("menuitem", { name: "House rules u" }));
  expect(await screen.findByText("No house rules yet.")).toBeTruthy();
});

it("columns are ordered, left out and sized", () => {
  const columns = ["a", "keyword", "c"].map((id) => ({ id, width: "10px" }) as never);
  const plan = { order: ["c"], hidden: ["a", "keyword"], widths: { c: 90 } };
  expect(inOrder(columns, plan).map(({ id }) => id)).toEqual(["c", "a", "keyword"]);
  expect(chosenColumns(columns, plan).map(({ id, width }) => [id, width])).toEqual([
    ["c", "90px"],
    ["keyword", "10px"],
  ]);
  expect(movedColumn(columns, plan, "keyword", -1).order).toEqual(["c", "keyword", "a"]);
});

it("on the map a rectangle, a lasso and a press find keywords", () => {
  const scales = scalesOf(endsOf(sheet, 3), [600, 400], { k: 1, x: 0, y: 0 });
  const places = placesOf(sheet, [0, 1, 2], scales);
  expect(places.map(({ row }) => row)).toEqual([0, 1, 2]);
  const [first, second] = [places[0]!, places[1]!];
  expect(
    inShape(
      places,
      [
        [first.x - 5, first.y - 5],
        [first.x + 5, first.y + 5],
      ],
      false,
    ),
  ).toEqual([0]);
  const round: [number, number][] = [
    [second.x - 9, second.y - 9],
    [second.x + 9, second.y - 9],
    [second.x, second.y + 20],
  ];
  expect(inShape(places, round, true)).toEqual([1]);
  expect(nearest(places, [first.x + 3, first.y])).toBe(0);
  expect(nearest(places, [0, 0])).toBeNull();
});

it("the map is zoomed about a point and never past the whole", () => {
  const whole = { k: 1, x: 0, y: 0 };
  const closer = zoomed(whole, [600, 400], 2, [100, 100]);
  expect(closer).toEqual({ k: 2, x: -100, y: -100 });
  expect(zoomed(closer, [600, 400], 0.1)).toEqual(whole);
});

it("labels lie over no mark and over none before them", () => {
  const at = (row: number, x: number, y: number) => ({ row, x, y });
  const places = [at(0, 0, 100), at(1, 40, 100), at(2, 0, 300)];
  expect(clearLabels(places, places, () => 60, 14, 9).map(({ row }) => row)).toEqual([1, 2]);
});

it("the rule behind the ceilings is said in words", () => {
  expect(ruleWords("profit_share", 0.255)).toBe("your 25.50\u00a0% profit share");
  expect(ruleWords("break_even", null)).toBe("breaking even");
  expect(ruleWords("cost_per_customer", 40)).toBe("40.00 a customer");
});

it("a zoomed map's places are those its scales give", () => {
  const ends = endsOf(sheet, 2);
  const zoom = { k: 3, x: -200, y: 40 };
  const there = placesOf(sheet, [0, 1], scalesOf(ends, [600, 400], zoom));
  const unzoomed = placesOf(sheet, [0, 1], scalesOf(ends, [600, 400], { k: 1, x: 0, y: 0 }));
  zoomedTo(unzoomed, zoom).forEach((place, at) => {
    expect(place.row).toBe(there[at]!.row);
    expect(place.x).toBeCloseTo(there[at]!.x, 6);
    expect(place.y).toBeCloseTo(there[at]!.y, 6);
  });
});
