import type { SheetBlock } from "../../../data/client";
import type { Sort } from "../../../parts/column";
import { columnById, valueOf } from "../../../parts/shownColumn";

const calls = ["keep", "hold", "none", "drop", "block"];

/** The value a column is sorted by; nothing goes last either way. */
function sortedBy(sheet: SheetBlock, by: string): (row: number) => number | string | null {
  const { texts, figures } = sheet;
  if (by === "headroom") return (row) => figures.headroom[row] ?? null;
  if (by === "price") return (row) => figures.cpc_at_line[row] ?? null;
  if (by === "note") return (row) => figures.rate_at_line[row] ?? null;
  if (by === "call") return (row) => calls.indexOf(texts.call[row] ?? "none");
  const column = columnById.get(by);
  if (!column) return () => null;
  const of = valueOf(sheet, column);
  return (row) => {
    const value = of(row);
    return value === "" || value === undefined ? null : value;
  };
}

/** Rows in order, two deep; ties stay as they came. */
export function ordered(sheet: SheetBlock, rows: readonly number[], sort: Sort): number[] {
  const first = comparing(sheet, sort.by, sort.down);
  const second = sort.then ? comparing(sheet, sort.then.by, sort.then.down) : () => 0;
  return rows.slice().sort((one, other) => first(one, other) || second(one, other));
}

function comparing(sheet: SheetBlock, by: string, down: boolean) {
  const value = sortedBy(sheet, by);
  const sign = down ? -1 : 1;
  return (one: number, other: number): number => {
    const [a, b] = [value(one), value(other)];
    if (a == null || b == null) return a == null ? (b == null ? 0 : 1) : -1;
    if (typeof a === "string") return sign * a.localeCompare(b as string);
    return sign * (a - (b as number));
  };
}

export type Section = { id: string; name: string; before: number; length: number };

const sectionNames = ["kept", "not yet called", "held, dropped, blocked", "beyond the line"];

/** The same rows by section, each in its order, and where each section begins. */
export function inSections(
  { texts, figures }: SheetBlock,
  rows: readonly number[],
): { rows: number[]; sections: Section[] } {
  const parts: number[][] = sectionNames.map(() => []);
  for (const row of rows) {
    const call = texts.call[row] ?? "none";
    const beyond = figures.standing[row] === "beyond";
    parts[call === "keep" ? 0 : beyond ? 3 : call === "none" ? 1 : 2]!.push(row);
  }
  let before = 0;
  const sections = parts.map((part, at) => {
    const section = { id: `section-${at}`, name: sectionNames[at]!, before, length: part.length };
    before += part.length;
    return section;
  });
  return { rows: parts.flat(), sections: sections.filter((section) => section.length > 0) };
}

export type Themes = { names: readonly string[]; of_row: readonly number[] };

/** The same rows by theme, the themes as they first come. */
export function inThemes(
  { names, of_row }: Themes,
  rows: readonly number[],
): { rows: number[]; sections: Section[] } {
  const parts = new Map<number, number[]>();
  for (const row of rows) {
    const theme = of_row[row] ?? -1;
    const part = parts.get(theme);
    if (part) part.push(row);
    else parts.set(theme, [row]);
  }
  let before = 0;
  const sections = [...parts].map(([theme, part]) => {
    const id = `theme-${theme}`;
    const section = { id, name: names[theme] ?? "no theme", before, length: part.length };
    before += part.length;
    return section;
  });
  return { rows: [...parts.values()].flat(), sections };
}

/** Where the line lies among ordered rows; null in orders that have none. */
export function lineBefore(
  sheet: SheetBlock,
  rows: number[],
  sort: Sort,
  limit: number,
): number | null {
  const { figures } = sheet;
  if (sort.by === "headroom" && sort.down) {
    const first = rows.findIndex((row) => figures.standing[row] === "beyond");
    return first < 0 ? rows.length : first;
  }
  if (sort.by === "price" && !sort.down) {
    const first = rows.findIndex((row) => {
      const price = figures.cpc_at_line[row];
      return price == null || price > limit;
    });
    return first < 0 ? rows.length : first;
  }
  return null;
}
