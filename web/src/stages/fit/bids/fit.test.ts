// @vitest-environment node
import { sheetOf } from "../../../testing-sheet";
import { valueAt } from "./frontier";
import { sortedKept } from "./kept";

it("reads the goal off the frontier, flat past its end", () => {
  const view = { frontier_purse: [0, 10, 30], frontier_value: [0, 2, 4] };
  expect([0, 5, 20, 99].map((money) => valueAt(view, money))).toEqual([0, 1, 3, 4]);
  expect(valueAt({ frontier_purse: [], frontier_value: [] }, 5)).toBe(0);
});

it("lists kept keywords only, those that do not run last", () => {
  const sheet = sheetOf([
    { text: "a", call: "keep", spend: 1, bid: 1 },
    { text: "b", call: "drop", spend: 9, bid: null },
    { text: "c", call: "keep", spend: 0, bid: null },
    { text: "d", call: "keep", spend: 5, bid: 1 },
  ]);
  expect(sortedKept(sheet, { by: "spend", down: true })).toEqual([3, 0, 2]);
  expect(sortedKept(sheet, { by: "spend", down: false })).toEqual([0, 3, 2]);
  expect(sortedKept(sheet, { by: "keyword", down: true })).toEqual([3, 2, 0]);
});
