import { ascending, descending } from "d3-array";
import type { SheetBlock } from "../../../data/client";
import type { Sort } from "../../../parts/column";

/** The kept keywords in order of a column; those without a figure last. */
export function sortedKept(sheet: SheetBlock, sort: Sort): number[] {
  const { texts, figures } = sheet;
  const kept = texts.call.flatMap((call, row) => (call === "keep" ? [row] : []));
  if (sort.by === "keyword") {
    const sign = sort.down ? -1 : 1;
    return kept.sort((a, b) => sign * texts.text[a]!.localeCompare(texts.text[b]!));
  }
  const columns: Record<string, (number | null)[]> = {
    price: figures.cpc_at_line,
    bid: figures.bid,
    cpc: figures.cpc,
    clicks: figures.clicks,
    customers: figures.customers,
    spend: figures.spend,
  };
  const column = columns[sort.by] ?? figures.spend;
  const compare = sort.down ? descending : ascending;
  const idle = (row: number) => Number(figures.bid[row] == null);
  return kept.sort((a, b) => idle(a) - idle(b) || compare(column[a] ?? NaN, column[b] ?? NaN));
}
