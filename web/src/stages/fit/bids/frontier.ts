import { bisectRight } from "d3-array";
import type { FitView } from "../view";

/** The goal at a sum of money, read off the points the server gave. */
export function valueAt(
  view: Pick<FitView, "frontier_purse" | "frontier_value">,
  money: number,
): number {
  const { frontier_purse: purse, frontier_value: value } = view;
  const after = bisectRight(purse, money);
  if (after === 0) return value[0] ?? 0;
  const [x0, y0] = [purse[after - 1]!, value[after - 1]!];
  if (after >= purse.length) return y0;
  const [x1, y1] = [purse[after]!, value[after]!];
  return y0 + ((y1 - y0) * (money - x0)) / (x1 - x0 || 1);
}
