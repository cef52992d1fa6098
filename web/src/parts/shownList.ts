import type { Column, Leaf, Plain } from "./column";

/** A list by columns, as it leaves. */
export type Shown = { heads: string[]; columns: (string | number | null)[][] };

/** A call as it leaves: nothing where none was made. */
export const called = (call: string | undefined): string => (call === "none" ? "" : (call ?? ""));

/** What leaves of a column whose cells are drawn: one value a row. */
export const leaf = (head: string, value: Leaf["value"]): readonly Leaf[] => [{ head, value }];

/** What a list shows: its columns from left to right, its rows from top to bottom. */
export function shownList(columns: readonly Column[], rows: readonly number[]): Shown {
  const all = columns.flatMap(
    (column) =>
      column.leaves ?? [{ head: column.label, value: column.cell as (row: number) => Plain }],
  );
  // what two columns show alike, such as the match beside a keyword, leaves once
  const parts = all.filter(({ head }, at) => all.findIndex((one) => one.head === head) === at);
  return {
    heads: parts.map((part) => part.head),
    columns: parts.map((part) => rows.map((row) => figureOf(part.value(row)))),
  };
}

/** Items with what leaves of each, by its head. */
export const listed = <T>(
  items: readonly T[],
  columns: Record<string, (item: T) => Plain>,
): Shown => ({
  heads: Object.keys(columns),
  columns: Object.values(columns).map((of) => items.map((item) => figureOf(of(item)))),
});

/** A figure that was written for people, such as 1,234.50, as a figure again. */
function figureOf(value: Plain): string | number | null {
  if (value == null || value === "–") return null;
  if (typeof value === "number") return Number.isFinite(value) ? value : null;
  if (value.length < 20 && /^-?\d{1,3}(,\d{3})*(\.\d+)?$/.test(value))
    return Number(value.replaceAll(",", ""));
  return value;
}

/** Rows on lines of their own, cells apart by tabs; no text that a spreadsheet would run. */
export function tableText({ heads, columns }: Shown): string {
  const rows = (columns[0] ?? []).map((_, at) => columns.map((column) => column[at] ?? ""));
  return [heads, ...rows].map((row) => row.map(harmless).join("\t")).join("\n");
}

const harmless = (cell: string | number): string => {
  const text = String(cell).replace(/[\t\r\n]+/g, " ");
  return typeof cell === "string" && /^ *[=+\-@]/.test(text) ? `'${text}` : text;
};
