import { sheetOf } from "../../testing-sheet";
import { everything, filtered, lineBefore, ordered, priceAt } from "./order";

const sheet = sheetOf([
  { text: "sash repair", headroom: 2, line: 1, call: "keep" },
  { text: "sash jobs", headroom: -2, line: 3, standing: "beyond" },
  { text: "window repair", headroom: 1, line: 2 },
  { text: "no price", standing: "unknown" },
]);
const all = [0, 1, 2, 3];
const byHeadroom = { by: "headroom", down: true };
const byPrice = { by: "price", down: false };

it("orders by a column, what has no figure last either way", () => {
  expect(ordered(sheet, all, byHeadroom)).toEqual([0, 2, 1, 3]);
  expect(ordered(sheet, all, { by: "headroom", down: false })).toEqual([1, 2, 0, 3]);
  expect(ordered(sheet, all, { by: "keyword", down: false })).toEqual([3, 1, 0, 2]);
});

it("filters by words in, words out, call and standing", () => {
  expect(filtered(sheet, { ...everything, text: "sash -jobs" })).toEqual([0]);
  expect(filtered(sheet, { ...everything, text: "REPAIR" })).toEqual([0, 2]);
  expect(filtered(sheet, { ...everything, text: "-" })).toEqual(all);
  expect(filtered(sheet, { ...everything, call: "keep" })).toEqual([0]);
  expect(filtered(sheet, { ...everything, standing: "beyond" })).toEqual([1]);
});

it("draws the line before the first keyword beyond, in order of headroom", () => {
  expect(lineBefore(sheet, [0, 2, 1, 3], byHeadroom, 9)).toBe(2);
  expect(lineBefore(sheet, [0, 2], byHeadroom, 9)).toBe(2);
});

it("draws the line at the highest price, in order of price, and nowhere else", () => {
  const rows = ordered(sheet, all, byPrice);
  expect(lineBefore(sheet, rows, byPrice, 2.5)).toBe(2);
  expect(lineBefore(sheet, rows, { by: "spend", down: true }, 2.5)).toBeNull();
});

it("gives the price that puts the line before a place", () => {
  const rows = ordered(sheet, all, byPrice);
  expect(priceAt(sheet, rows, 2)).toBe(2);
  expect(priceAt(sheet, rows, rows.length)).toBeNull();
});
