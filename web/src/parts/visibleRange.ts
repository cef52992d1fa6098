import { defaultRangeExtractor, type Range } from "@tanstack/react-virtual";

/** Which items are mounted: those in view, and the active one wherever it is. */
export function visibleRange(range: Range, active: number | null): number[] {
  const items = defaultRangeExtractor(range);
  if (active === null || items.includes(active) || active >= range.count) return items;
  return [...items, active].sort((a, b) => a - b);
}
