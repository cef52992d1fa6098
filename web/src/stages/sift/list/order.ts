import type { SheetBlock } from "../../../data/client";
import type { Sort } from "../../../parts/column";

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
    own_note: (row) => texts.note[row] || null,
    reason: (row) => texts.reason[row] || null,
    by: (row) => texts.by[row] || null,
    at: (row) => texts.at[row] || null,
    origin: (row) => texts.origin[row] || null,
    offer: (row) => texts.offer[row] || null,
    rank: (row) => texts.unpaid_rank[row],
    paid: (row) => texts.paid_rank[row],
    popularity: (row) => texts.popularity[row],
    gap: (row) => texts.rank_gap[row],
    low: (row) => figures.cpc_low[row],
    middle: (row) => figures.cpc_median[row],
    high: (row) => figures.cpc_high[row],
    competition: (row) => texts.competition[row],
    reach: (row) => figures.reach[row],
    rate: (row) => figures.rate[row],
    ceiling: (row) => figures.ceiling[row],
    spill: (row) => figures.spill[row],
    first_sale: (row) => figures.first_sale[row],
    bid: (row) => figures.bid[row],
    cpc: (row) => figures.cpc[row],
    clicks: (row) => figures.clicks[row],
  };
  return columns[by] ?? (() => null);
}

/** Rows in order, two deep; ties stay as they came. */
export function ordered(sheet: SheetBlock, rows: readonly number[], sort: Sort): number[] {
  const first = comparing(sheet, sort.by, sort.down);
  const second = sort.then ? comparing(sheet, sort.then.by, sort.then.down) : () => 0;
  return rows.slice().sort((one, other) => first(one, other) || second(one, other));
}

function comparing(sheet: SheetBlock, by: string, down: boolean) {
  const value = valueOf(sheet, by);
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
