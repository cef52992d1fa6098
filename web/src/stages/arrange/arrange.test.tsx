import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../testing-layout";
import type { Schemas } from "../../data/client";
import { done, show } from "./testing-arrange";

beforeAll(giveSizes);

const namesOf = (grid: HTMLElement) =>
  within(grid)
    .getAllByRole("row")
    .slice(1)
    .map((row) => within(row).getAllByRole("gridcell"))
    .filter((cells) => cells.length > 1)
    .map((cells) => cells[0]!.textContent.replace("⠿", ""));

it("a campaign stands above its groups with its limits, and opens beside them", async () => {
  const asked = await show({ "POST /arrange/campaigns/1": done });
  const open = await screen.findByRole("button", { name: "Open the campaign Search" });
  expect(screen.getByText("at most 150.00, its most binds")).toBeTruthy();
  await userEvent.click(open);
  const most = screen.getByLabelText("Most money a month");
  await userEvent.clear(most);
  await userEvent.type(most, "little{Enter}");
  await screen.findByText("Most money a month: expected a number, got “little”.");
  expect(asked).toEqual([]);
  await userEvent.clear(most);
  await userEvent.type(most, "120{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ most_spend: 120 }));
  await userEvent.click(screen.getByRole("button", { name: "back to the group" }));
  expect(screen.getByRole("grid", { name: "Keywords of Cords" })).toBeTruthy();
});

it("groups stand by what they spend, and the first of them is open", async () => {
  await show();
  const groups = await screen.findByRole("grid", { name: "Ad groups" });
  expect(namesOf(groups)).toEqual(["Cords cord", "Repair repair", "Jobs locked "]);
  expect(within(groups).getByText("1 ad, 1 to mend")).toBeTruthy();
  expect(screen.getByText(/3 keywords more than the platform takes/)).toBeTruthy();
  expect(screen.getByText("a keyword alone")).toBeTruthy();
  expect(within(groups).getByText("no ad")).toBeTruthy();
  expect(within(groups).getByText("no page")).toBeTruthy();
  expect(screen.getByRole("grid", { name: "Keywords of Cords" })).toBeTruthy();
  await userEvent.click(within(groups).getByText("Searches"));
  expect(namesOf(groups)).toEqual(["Repair repair", "Cords cord", "Jobs locked "]);
});

it("a group is named anew, and bids for all its keywords, where it stands", async () => {
  const asked = await show({ "POST /arrange/groups/2": done });
  await userEvent.type(await screen.findByLabelText("Bid of the group"), "0.8{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ bid: 0.8 }));
  await userEvent.clear(screen.getByLabelText("Name of the group"));
  await userEvent.type(screen.getByLabelText("Name of the group"), "Sash cords{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ name: "Sash cords" }));
});

it("keywords are moved with keys alone, to a group that is made where there is none", async () => {
  const asked = await show({ "POST /arrange/move": done });
  const groups = await screen.findByRole("grid", { name: "Ad groups" });
  groups.focus();
  await userEvent.keyboard("{ArrowDown}n{ArrowDown}xm");
  const field = await screen.findByLabelText(/to the group/);
  await userEvent.type(field, "Boxes{Enter}");
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ ids: [100], group: "Boxes" });
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
});

it("nothing selected, nothing is moved, and it is said why", async () => {
  await show();
  await screen.findByRole("grid", { name: "Ad groups" });
  await userEvent.keyboard("m");
  expect((await screen.findByTestId("said")).textContent).toContain("Select a keyword");
  expect(screen.queryByRole("dialog")).toBeNull();
});

it("a ready structure says what it would change before it does", async () => {
  const fit = (more: Partial<Schemas["StructureFit"]>) => ({
    ...{ revision: 1, customers: 2, spend: 150, clicks: 60, running: 3, groups: 3 },
    ...{ to_write: 1, bids_set: 0, ...more },
  });
  const items: Schemas["StructureItem"][] = [
    {
      ...{ kind: "theme", says: "one campaign", campaigns: ["Search"] },
      ...{ groups: 3, moves: 0, adds: 0, largest: 2 },
    },
    {
      ...{ kind: "match", says: "exact and phrase", campaigns: ["Exact", "Phrase"] },
      ...{ groups: 6, moves: 3, adds: 2, largest: 1 },
    },
  ];
  const limits = { most: 20, keywords_per_group: 150, platform: "Kestrel" };
  const line = { label: "ads to write", value: 6, unit: "count", text: "", source: "" };
  const lines = [
    { ...line, formula: "groups − those that have one", assumption: "", result: true },
  ];
  const sums = {
    ...{ revision: 1, title: "exact and phrase", about: "", notes: [], readings: null },
    ...{ apart: null, sections: [{ title: "What it asks for", lines }] },
  };
  const asked = await show({
    "POST /arrange/structures": () => ({ body: { revision: 1, items, limits, now: fit({}) } }),
    "POST /arrange/structures/fit": () => ({ body: fit({ customers: 2.5, to_write: 6 }) }),
    "POST /arrange/structures/workings": () => ({ body: sums }),
    "POST /arrange/structure": done,
  });
  await userEvent.click(await screen.findByText("arrange by …"));
  expect(await screen.findByText("as they are arranged now")).toBeTruthy();
  const take = screen.getByRole("button", { name: "Arrange them Enter" });
  await userEvent.click(take);
  const taken = () => asked.filter(({ path }) => path.endsWith("/structure"));
  expect(taken()).toEqual([]);
  expect(
    screen.getByText(
      "6 groups in Exact, Phrase, the fullest of 1; 3 keywords would move, 2 added as phrase match",
    ),
  ).toBeTruthy();
  const brings = await screen.findAllByText(/customers for 150.00 GBP, now/);
  expect(brings[1]!.textContent).toContain("2.5 customers");
  expect(brings[1]!.textContent).toContain("6 ads to write, now 1");
  await userEvent.click(screen.getByRole("radio", { name: /exact and phrase/ }));
  await userEvent.click(screen.getByRole("button", { name: "Its workings" }));
  expect(await screen.findByText("groups − those that have one")).toBeTruthy();
  const opened = asked.filter(({ path }) => path.endsWith("/workings")).at(-1);
  expect(opened!.body).toEqual({
    ...{ kind: "match", most: null, group_ids: [], lower: "neither", by: 0 },
  });
  await userEvent.click(take);
  await waitFor(() =>
    expect(taken().map((a) => a.body)).toEqual([
      { kind: "match", most: null, group_ids: [], lower: "neither", by: 0 },
    ]),
  );
});

it("several groups at once are moved to a campaign", async () => {
  const asked = await show({ "POST /arrange/groups/move": done });
  (await screen.findByRole("grid", { name: "Ad groups" })).focus();
  await userEvent.keyboard("x{ArrowDown}x");
  await userEvent.click(
    await screen.findByRole("button", { name: /Campaign for the selected groups/ }),
  );
  await userEvent.click(await screen.findByRole("option", { name: "Scouting" }));
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ ids: [2, 1], campaign_id: 2 }));
});

const spot: Schemas["SpotItem"] = {
  ...{ id: 9, key: "s9", name: "Front page", campaign_id: 1, campaign: "Search", offer_id: null },
  ...{ pays: "click", price: 0.4, showings: 0, clicks: 90, click_rate: 0, sells: null },
  ...{ usual_sells: 1, click_price: 0.4, ceiling: 2, shown_share: 0.5, expected_showings: 0 },
  ...{ expected_clicks: 45, expected_customers: 0.9, expected_spend: 18 },
};

it("a group shows things, and says which can’t be delivered", async () => {
  const thing = (id: number, name: string, more: Partial<Schemas["ThingItem"]>) => ({
    ...{ id, code: `p${id}`, name, price: 12.5, margin: null, page: "" },
    ...{ deliverable: true, groups: [2], ...more },
  });
  const things = [
    thing(1, "Cord kit", {}),
    thing(2, "Brush seal", { deliverable: false }),
    thing(3, "Pulley", { groups: [] }),
  ];
  const asked = await show({
    "GET /arrange/things": () => ({
      body: { revision: 1, written_ads: true, things, titles: [] },
    }),
    "POST /arrange/groups/2/things": done,
  });
  await userEvent.click(await screen.findByRole("radio", { name: "Things 1" }));
  expect(await screen.findByText(/1 thing can’t be delivered and is left out/)).toBeTruthy();
  await userEvent.type(screen.getByLabelText(/Further thing/), "pulley{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ ids: [1, 2, 3] }));
  await userEvent.click(screen.getByRole("button", { name: "hide Cord kit" }));
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ ids: [2] }));
});

it("a spot is a sentence of its campaign, and says what it takes", async () => {
  const asked = await show({
    "GET /arrange/spots": () => ({ body: { revision: 1, spots: [spot] } }),
    "POST /arrange/spots/9": done,
    "POST /arrange/spots": done,
  });
  await userEvent.click(await screen.findByRole("button", { name: "Open the campaign Search" }));
  expect(await screen.findByText(/takes 18.00 GBP, 50 % of what is to be had/)).toBeTruthy();
  const price = screen.getByLabelText("Price: Front page");
  await userEvent.clear(price);
  await userEvent.type(price, "0.5{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ price: 0.5 }));
  await userEvent.type(screen.getByLabelText("Further spot"), "Category{Enter}");
  await waitFor(() =>
    expect(asked.at(-1)!.body).toMatchObject({ name: "Category", campaign_id: 1, pays: "click" }),
  );
});

it("a conflict says whom it hurts and what it costs, and its negative can go", async () => {
  const negative = { id: 7, text: "cord", match: "phrase", level: "plan", by: "hand", at: "" };
  const asked = await show({
    "GET /negatives": () => ({ body: [negative, { ...negative, id: 8, text: "kit" }] }),
    "POST /negatives/remove": done,
  });
  await userEvent.click(await screen.findByRole("radio", { name: "Conflicts 1" }));
  expect(screen.getByText(/550 searches, 0.74 customers, 28.10/)).toBeTruthy();
  expect(screen.getByText(/sash repair and 2 more/)).toBeTruthy();
  await userEvent.click(await screen.findByText(/take .cord. out/));
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([{ ids: [7] }]));
});
