// @vitest-environment node
import { shownList, tableText } from "./shownList";
import type { Column } from "./column";

const at = { width: "80px" };
const columns: Column[] = [
  { ...at, id: "word", head: "Word", label: "word", cell: (row) => ["ash", "=1+1", "a\tb"][row] },
  { ...at, id: "size", head: "Size", label: "size", cell: (row) => ["1,234.50", "–", "-3"][row] },
  {
    ...at,
    id: "price",
    head: "Price",
    label: "price",
    cell: () => null,
    leaves: [
      { head: "low", value: (row) => row + 0.25 },
      { head: "high", value: () => undefined },
    ],
  },
];

test("a list leaves with its columns from left to right and its rows in the order shown", () => {
  expect(shownList(columns, [2, 0])).toEqual({
    heads: ["word", "size", "low", "high"],
    columns: [
      ["a\tb", "ash"],
      [-3, 1234.5],
      [2.25, 0.25],
      [null, null],
    ],
  });
});

test("what is copied is one line a row, and nothing that a spreadsheet would run", () => {
  expect(tableText(shownList(columns, [0, 1, 2])).split("\n")).toEqual([
    "word\tsize\tlow\thigh",
    "ash\t1234.5\t0.25\t",
    "'=1+1\t\t1.25\t",
    "a b\t-3\t2.25\t",
  ]);
});

test("a text that only looks like figures stays a text", () => {
  const said: Column[] = [
    { ...at, id: "a", head: "A", label: "a", cell: (row) => ["3 of 4", "12,34", "1e5"][row] },
  ];
  expect(shownList(said, [0, 1, 2]).columns).toEqual([["3 of 4", "12,34", "1e5"]]);
});
