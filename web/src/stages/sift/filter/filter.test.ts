import { sheetOf } from "../../../testing-sheet";
import {
  counts,
  everything,
  filtered,
  fromAddress,
  intoAddress,
  queryOf,
  type Filter,
} from "./filter";

const sheet = sheetOf([
  { text: "sash window repair", call: "keep", standing: "in_reach" },
  { text: "window jobs", call: "none", standing: "beyond" },
  { text: "box sash", call: "none", standing: "in_reach" },
]);
sheet.texts.kinds = ["www", "w!", "ww"];
sheet.texts.unpaid_rank = [2, null, 40];
sheet.texts.competition = [0.2, 0.9, null];
sheet.texts.reason = ["", "a rival's name, dear", ""];
sheet.texts.strong_unpaid = [true, false, false];
sheet.texts.at = ["2026-11-20T10:00:00Z", "", ""];
sheet.figures.cpc_median = [1.2, 3, null];
sheet.figures.rate_at_line = [0.01, 0.08, 0.02];

const forms = { windows: "window" };
const only = (some: Partial<Filter>) => filtered(sheet, { ...everything, ...some }, forms);

it("words are in or out, a plural finds its singular", () => {
  expect(only({ words: "sash" })).toEqual([0, 2]);
  expect(only({ words: "sash -windows" })).toEqual([2]);
  expect(only({ words: "job" })).toEqual([1]);
});

it("picks, ranges and flags are combined", () => {
  expect(only({ picks: { call: ["none"] } })).toEqual([1, 2]);
  expect(only({ picks: { call: ["none"], standing: ["in_reach"] } })).toEqual([2]);
  expect(only({ ranges: { price: [1, 2] } })).toEqual([0]);
  expect(only({ ranges: { price: [null, null] } })).toEqual([0, 1]);
  expect(only({ flags: ["warning"] })).toEqual([1]);
});

it("strong unpaid ranks without a paid one are found, and a range of ranks", () => {
  expect(only({ flags: ["unpaid"] })).toEqual([0]);
  expect(only({ ranges: { rank: [10, 50] } })).toEqual([2]);
});

it("competition, and by how many places ads stand below the unpaid listing", () => {
  const ranked = {
    ...sheet,
    texts: { ...sheet.texts, paid_rank: [1, 3, 4], rank_gap: [-1, null, -36] },
  };
  const by = (ranges: Filter["ranges"]) => filtered(ranked, { ...everything, ranges });
  expect(by({ gap: [null, 0] })).toEqual([0, 2]);
  expect(by({ gap: [-10, 0] })).toEqual([0]);
  expect(by({ paid: [2, 3] })).toEqual([1]);
  expect(by({ competition: [50, null] })).toEqual([1]);
});

it("what would come in is asked of keywords beyond the line alone", () => {
  expect(only({ ranges: { rate: [null, 10] } })).toEqual([1]);
  expect(only({ ranges: { rate: [null, 5] } })).toEqual([]);
});

it("calls since a day", () => {
  expect(only({ since: "2026-11-20" })).toEqual([0]);
  expect(only({ since: "2026-11-21" })).toEqual([]);
  expect(only({ since: "soon" })).toEqual(only({}));
});

it("each value of a chip is counted among what the other chips leave", () => {
  const filter = { ...everything, picks: { call: ["keep"], standing: ["in_reach"] } };
  expect(Object.fromEntries(counts(sheet, filter, {}, "call"))).toEqual({ keep: 1, none: 1 });
});

it("a filter goes into the address and comes back, and leaves what else stands there", () => {
  const filter: Filter = {
    words: "sash -job",
    picks: { reason: ["a rival's name, dear"], call: ["none", "hold"] },
    ranges: { price: [0.5, null], rank: [null, 5] },
    flags: ["thin", "note"],
    since: "2026-11-01",
  };
  const address = intoAddress(filter, new URLSearchParams("view=map&call=keep"));
  expect(address.get("view")).toBe("map");
  expect(fromAddress(new URLSearchParams(address.toString()))).toEqual(filter);
  expect(fromAddress(new URLSearchParams(queryOf(filter)))).toEqual(filter);
  expect(queryOf(everything)).toBe("");
});
