import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../testing-layout";
import { changeOf, showOnPlan } from "../../testing-plan";
import { sheetOf } from "../../testing-sheet";
import type { ArrangeView } from "./view";
import { Arrange } from "./Arrange";

const conflict = {
  kind: "negative_stops_kept",
  says: "a negative stops keywords that are kept",
  negative: "cord",
  negative_id: 7,
  count: 8,
  ids: [100],
  texts: ["sash repair"],
  searches: 550,
  customers: 0.74,
  spend: 28.1,
  terms: [],
};

const view: ArrangeView = {
  revision: 1,
  alone: 0,
  campaigns: [],
  groups: {
    id: [1, 2, 3],
    name: ["Repair", "Cords", "Jobs"],
    label: ["Repair", "Cords", "Jobs"],
    campaign_id: [1, 1, 2],
    campaign: ["Search", "Search", "Scouting"],
    page: ["", "/cords", ""],
    keywords: [2, 1, 1],
    kept: [2, 1, 0],
    running: [2, 1, 0],
    searches: [900, 300, 0],
    clicks: [40, 20, 0],
    spend: [60, 90, 0],
    customers: [1.2, 0.8, 0],
    words: [[{ word: "repair", keywords: 2 }], [{ word: "cord", keywords: 1 }], []],
  },
  conflicts: [conflict],
};

const sheet = () => {
  const made = sheetOf([
    { text: "sash repair", call: "keep", spend: 40 },
    { text: "box repair", call: "keep", spend: 20 },
    { text: "sash cord", call: "keep", spend: 90 },
    { text: "window jobs" },
  ]);
  return {
    ...made,
    texts: { ...made.texts, group: ["Repair", "Repair", "Cords", "Jobs"], group_id: [1, 1, 2, 3] },
  };
};

beforeAll(giveSizes);

const done = () => ({ body: changeOf({ did: "done" }) });

const show = (more: Parameters<typeof showOnPlan>[1] = {}) =>
  showOnPlan(<Arrange />, { "GET /arrange": () => ({ body: view }), ...more }, sheet());

const namesOf = (grid: HTMLElement) =>
  within(grid)
    .getAllByRole("row")
    .slice(1)
    .map((row) => within(row).getAllByRole("gridcell")[0]!.textContent);

it("groups stand by what they spend, and the first of them is open", async () => {
  await show();
  const groups = await screen.findByRole("grid", { name: "Ad groups" });
  expect(namesOf(groups)).toEqual(["Cords", "Repair", "Jobs"]);
  expect(screen.getByText(/2 groups with kept\s+keywords, 2 campaigns/)).toBeTruthy();
  expect(screen.getByRole("grid", { name: "Keywords of Cords" })).toBeTruthy();
  await userEvent.click(within(groups).getByText("Searches"));
  expect(namesOf(groups)).toEqual(["Repair", "Cords", "Jobs"]);
});

it("a group is named anew and led to a page where it stands", async () => {
  const asked = await show({ "POST /arrange/groups/2": done });
  await userEvent.click(await screen.findByLabelText("Landing page"));
  await userEvent.clear(screen.getByLabelText("Landing page"));
  await userEvent.type(screen.getByLabelText("Landing page"), "/sash-cords{Enter}");
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([{ page: "/sash-cords" }]));
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
  const structures = [
    { kind: "theme", says: "one campaign", campaigns: ["Search"], groups: 3, moves: 0, adds: 0 },
    {
      kind: "match",
      says: "exact and phrase",
      campaigns: ["Exact", "Phrase"],
      groups: 6,
      moves: 3,
      adds: 2,
    },
  ];
  const asked = await show({
    "GET /arrange/structures": () => ({ body: structures }),
    "POST /arrange/structure": done,
  });
  await userEvent.click(await screen.findByText("arrange by …"));
  expect(await screen.findByText("as they are arranged now")).toBeTruthy();
  const take = screen.getByRole("button", { name: "Arrange them Enter" });
  await userEvent.click(take);
  expect(asked).toEqual([]);
  expect(
    screen.getByText("6 groups in Exact, Phrase; 3 keywords would move, 2 added as phrase match"),
  ).toBeTruthy();
  await userEvent.click(screen.getByRole("radio", { name: /exact and phrase/ }));
  await userEvent.click(take);
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([{ kind: "match" }]));
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
