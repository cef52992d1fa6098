import { changeOf, showOnPlan } from "../../testing-plan";
import { sheetOf } from "../../testing-sheet";
import type { ArrangeView } from "./view";
import { Arrange } from "./Arrange";

/** A plan with two campaigns and three groups, as Arrange shows it. */
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

export const view: ArrangeView = {
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

export const done = () => ({ body: changeOf({ did: "done" }) });

export const show = (more: Parameters<typeof showOnPlan>[1] = {}) =>
  showOnPlan(<Arrange />, { "GET /arrange": () => ({ body: view }), ...more }, sheet());
