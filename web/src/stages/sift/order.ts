import type { SheetBlock } from "../../data/client";
import type { Sort } from "../../parts/Grid";

export type Filter = { text: string; call: string; standing: string };

export const everything: Filter = { text: "", call: "any", standing: "any" };

type Value = number | string | null | undefined;

/** The value a column is sorted by; null goes last either way. */
function valueOf(sheet: SheetBlock, by: string): (row: number) => Value {
  const { texts, figures } = sheet;
  const columns: Record<string, (row: number) => Value> = {
    headroom: (row) => figures.headroom[row],
    price: (row) => figures.cpc_at_line[row],
    keyword: (row) => texts.text[row],
    intent: (row) => texts.intent[row],
    match: (row) => texts.match[row],
    call: (row) => ["keep", "hold", "none", "drop", "block"].indexOf(texts.call[row] ?? "none"),
    searches: (row) => figures.searches[row],
    customers: (row) => figures.customers[row],
    spend: (row) => figures.spend[row],
    group: (row) => texts.group[row] || null,
    note: (row) => figures.rate_at_line[row],
    bid: (row) => figures.bid[row],
    cpc: (row) => figures.cpc[row],
    clicks: (row) => figures.clicks[row],
  };
  return columns[by] ?? (() => null);
}

/** Rows in order; ties stay as they came. */
export function ordered(sheet: SheetBlock, rows: number[], sort: Sort): number[] {
  const value = valueOf(sheet, sort.by);
  const sign = sort.down ? -1 : 1;
  return rows.slice().sort((one, other) => {
    const [a, b] = [value(one), value(other)];
    if (a == null || b == null) return a == null ? (b == null ? 0 : 1) : -1;
    if (typeof a === "string") return sign * a.localeCompare(b as string);
    return sign * (a - (b as number));
  });
}

/** Rows that a filter leaves: words in, -words out, a call, a standing. */
export function filtered(sheet: SheetBlock, filter: Filter): number[] {
  const words = filter.text
    .toLocaleLowerCase()
    .split(/\s+/)
    .filter((w) => w && w !== "-");
  const wanted = words.filter((w) => !w.startsWith("-"));
  const unwanted = words.filter((w) => w.startsWith("-")).map((w) => w.slice(1));
  const { texts, figures } = sheet;
  const rows: number[] = [];
  texts.text.forEach((text, row) => {
    const low = text.toLocaleLowerCase();
    if (filter.call !== "any" && texts.call[row] !== filter.call) return;
    if (filter.standing !== "any" && figures.standing[row] !== filter.standing) return;
    if (wanted.every((w) => low.includes(w)) && !unwanted.some((w) => low.includes(w)))
      rows.push(row);
  });
  return rows;
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

/** The highest price that puts the line before a place in price order; null for no limit. */
export function priceAt(sheet: SheetBlock, rows: number[], before: number): number | null {
  const above = rows[before - 1];
  const price = above === undefined ? undefined : sheet.figures.cpc_at_line[above];
  if (before >= rows.length) return null;
  if (price == null) return 0.01;
  return Math.ceil(price * 100 - 1e-6) / 100;
}
