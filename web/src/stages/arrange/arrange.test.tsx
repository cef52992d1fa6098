import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../testing-layout";
import { changeOf, showOnPlan } from "../../testing-plan";
import { sheetOf } from "../../testing-sheet";
import type { Schemas } from "../../data/client";
import type { ArrangeView } from "./view";
import { Arrange } from "./Arrange";

const conflict = {
  kind: "negative_stops_kept",
  says: "a negative stops keywords that are kept",
  negative: "cord",
  pinned: "",
  pinned_id: null,
  negative_id: 7,
  count: 8,
  ids: [100],
  texts: ["sash repair"],
  searches: 550,
  customers: 0.74,
  spend: 28.1,
  terms: [],
  group_id: null,
  campaign_id: null,
  to_block: [],
};

const campaign = (id: number, name: string, spend: number) => ({
  id,
  name,
  spend,
  least_spend: 0,
  most_spend: id === 1 ? 150 : null,
  scouting_share: null,
  daily_budget: 4.93,
  clicks_lost: 0.4,
  share_with: null,
  share_gain: 0,
  binds: id === 1 ? ("most" as const) : ("" as const),
  area_share: null,
  showing: null,
  shown_share: null,
  note: "",
  page: "",
  first_day: "",
  last_day: "",
  bid_moves: "",
  partner_sites: false,
  audience: [],
  policy: null,
  spots: 0,
});

const view: ArrangeView = {
  revision: 1,
  alone: 0,
  ads: 1,
  pages: 1,
  campaigns: [campaign(1, "Search", 150), campaign(2, "Scouting", 0)],
  groups: {
    id: [1, 2, 3],
    name: ["Repair", "Cords", "Jobs"],
    label: ["Repair", "Cords", "Jobs"],
    campaign_id: [1, 1, 2],
    campaign: ["Search", "Search", "Scouting"],
    page: ["", "/cords", ""],
    own_page: ["", "/cords", ""],
    page_said: [null, 1, null],
    better_page: [null, null, null],
    ads: [0, 1, 0],
    ads_wrong: [0, 1, 0],
    without_ad: [true, false, false],
    bid: [null, null, null],
    policy: [null, null, null],
    locked: [false, false, true],
    leaves: [[], [], []],
    things: [0, 1, 0],
    left_out: [0, 1, 0],
    keywords: [2, 1, 1],
    kept: [2, 1, 0],
    running: [2, 1, 0],
    too_many: [0, 3, 0],
    searches: [900, 300, 0],
    clicks: [40, 20, 0],
    spend: [60, 90, 0],
    customers: [1.2, 0.8, 0],
    words: [[{ word: "repair", share: 1 }], [{ word: "cord", share: 1 }], []],
    likeness: [0.8, 1, null],
    least_like: [[], [], []],
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
  await userEvent.type(most, "120{Enter}");
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ most_spend: 120 }));
  await userEvent.click(screen.getByRole("button", { name: "back to the group" }));
  expect(screen.getByRole("grid", { name: "Keywords of Cords" })).toBeTruthy();
});

const works = {
  stops: 1,
  texts: ["sash jobs"],
  terms: 0,
  saves: 0,
  hurts: [],
  hurt: 0,
  sold: [],
  customers: 0,
  spend: 0,
};

it("what to block next is taken one by one or all at once, and what is pasted is read first", async () => {
  const asked = await show({
    "GET /arrange/negatives": () => ({
      body: {
        revision: 1,
        saves: 9.5,
        negatives: [
          {
            ...works,
            id: 7,
            text: "cord",
            match: "phrase",
            level: "plan",
            where: "",
            by: "hand",
            at: "2026-11-20T10:00:00Z",
            note: "",
            hurt: 2,
            hurts: ["sash cord"],
          },
        ],
        to_block: [
          {
            text: "jobs",
            match: "phrase",
            saves: 6.5,
            source: "warning",
            stops: 3,
            uncalled: 1,
            texts: [],
          },
          {
            text: "diy",
            match: "phrase",
            saves: 3,
            source: "dropped",
            stops: 1,
            uncalled: 0,
            texts: [],
          },
        ],
      },
    }),
    "POST /arrange/negatives/read": () => ({
      body: {
        revision: 1,
        lines: [
          { ...works, line: 1, text: "free", match: "phrase", refused: "", narrower: null },
          {
            ...works,
            line: 2,
            text: "sash",
            match: "phrase",
            refused: "",
            hurt: 9,
            hurts: ["sash repair"],
            narrower: { text: "old sash", match: "phrase" },
          },
        ],
      },
    }),
    "POST /arrange/negatives": done,
  });
  await userEvent.click(await screen.findByRole("radio", { name: "Negatives 1" }));
  expect(screen.getByText("2 kept")).toBeTruthy();
  expect(screen.getByText(/Together 9.50/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "block all 2" }));
  await waitFor(() =>
    expect(asked.at(-1)!.body).toMatchObject({
      by: "advice",
      items: [{ text: "jobs" }, { text: "diy" }],
    }),
  );
  await userEvent.click(screen.getByRole("button", { name: "add …" }));
  await userEvent.type(screen.getByLabelText("Negatives, one a line"), "free\nsash");
  expect(await screen.findByText("hurts sash repair")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Add 1 negative" }));
  const added = () => asked.find(({ body }) => (body as { by?: string }).by === "hand");
  await waitFor(() => expect(added()?.body).toMatchObject({ items: [{ text: "free" }] }));
  expect(screen.getByLabelText("Negatives, one a line")).toHaveProperty("value", "sash");
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

const look = (text: string): Schemas["AdLook"] => ({
  headlines: [{ name: "headline 1", shown: text, characters: text.length, most: 10 }],
  descriptions: [{ name: "description 1", shown: "Ask.", characters: 4, most: 20 }],
  faults: [{ kind: "too_long", field: "headline 1", says: "11 characters", must: true }],
  lines: [{ kind: "doing", said: true, says: "what to do next: ask", mend: "" }],
});

const adsView: Schemas["AdsView"] = {
  revision: 1,
  limits: {
    platform: "Kestrel",
    written_ads: true,
    headlines: 1,
    descriptions: 1,
    headline_characters: 10,
    description_characters: 20,
    ads_per_group: 2,
  },
  ads: [
    {
      ...look("Sash cords!"),
      id: 5,
      key: "a5",
      group_id: 2,
      written_headlines: ["Sash ‹keyword›"],
      written_descriptions: ["Ask."],
    },
  ],
  without: [1],
};

const withAds = {
  "GET /arrange/ads": () => ({ body: adsView }),
  "POST /arrange/ads/look": () => ({ body: look("Sash cords!") }),
  "POST /arrange/ads": done,
};

const written = (asked: { path: string; body: unknown }[]) =>
  asked.filter(({ path }) => path.endsWith("/arrange/ads")).map(({ body }) => body);

const openAds = async () => {
  const leaves = await screen.findByRole("radiogroup", { name: "Leaves of the group" });
  await userEvent.click(within(leaves).getByRole("radio", { name: "Ads 1" }));
};

it("an ad is read on a slip with its counts, and kept with Enter", async () => {
  const asked = await show(withAds);
  await openAds();
  expect((await screen.findByLabelText("The ad as it would be read")).textContent).toContain(
    "Sash cords!",
  );
  expect(screen.getByText("11, 1 over")).toBeTruthy();
  await userEvent.type(screen.getByLabelText("description 1"), " Now.{Enter}");
  await waitFor(() =>
    expect(written(asked)).toEqual([
      { group_id: 2, ad_id: 5, headlines: ["Sash ‹keyword›"], descriptions: ["Ask. Now."] },
    ]),
  );
});

it("the next group without an ad is reached and written by keys alone", async () => {
  const asked = await show(withAds);
  (await screen.findByRole("grid", { name: "Ad groups" })).focus();
  await userEvent.keyboard("u");
  expect(await screen.findByText("0 ads, Kestrel takes 2")).toBeTruthy();
  await waitFor(() => expect(document.activeElement?.tagName).toBe("TEXTAREA"));
  await userEvent.keyboard("Repairs{Enter}");
  await waitFor(() =>
    expect(written(asked)).toEqual([
      { group_id: 1, ad_id: null, headlines: ["Repairs"], descriptions: [""] },
    ]),
  );
});

it("what was typed and left is kept, and what was not changed is not", async () => {
  const asked = await show(withAds);
  await openAds();
  await userEvent.click(await screen.findByLabelText("headline 1"));
  await userEvent.click(screen.getByRole("heading", { name: "Arrange" }));
  expect(written(asked)).toEqual([]);
  await userEvent.type(screen.getByLabelText("headline 1"), "s");
  await userEvent.tab();
  expect(written(asked)).toEqual([]);
  await userEvent.click(screen.getByRole("heading", { name: "Arrange" }));
  await waitFor(() => expect(written(asked)).toHaveLength(1));
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
