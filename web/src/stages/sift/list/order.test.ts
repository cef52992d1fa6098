import { sheetOf } from "../../../testing-sheet";
import { inSections, inThemes, lineBefore, ordered } from "./order";

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

it("orders rows alike in the first column by the second", () => {
  const alike = sheetOf([
    { text: "b", headroom: 1 },
    { text: "a", headroom: 1 },
    { text: "c", headroom: 2 },
  ]);
  const sort = { ...byHeadroom, then: { by: "keyword", down: false } };
  expect(ordered(alike, [0, 1, 2], sort)).toEqual([2, 1, 0]);
});

it("themes stand as they first come, and a row of none has a place of its own", () => {
  const themes = { names: ["cords", "paint"], of_row: [1, 0, 1] };
  const { rows, sections } = inThemes(themes, [2, 1, 0, 3]);
  expect(rows).toEqual([2, 0, 1, 3]);
  expect(sections.map(({ name, before, length }) => [name, before, length])).toEqual([
    ["paint", 0, 2],
    ["cords", 2, 1],
    ["no theme", 3, 1],
  ]);
});

it("sections keep the order within them and leave out those that are empty", () => {
  const { rows, sections } = inSections(sheet, [2, 1, 0, 3]);
  expect(rows).toEqual([0, 2, 3, 1]);
  expect(sections.map(({ name, before, length }) => [name, before, length])).toEqual([
    ["kept", 0, 1],
    ["not yet called", 1, 2],
    ["beyond the line", 3, 1],
  ]);
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
