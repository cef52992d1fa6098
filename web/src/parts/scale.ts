import { quantile } from "d3-array";
import { useMemo } from "react";
import { scaleLog, type ScaleLogarithmic } from "d3-scale";
import type { Figures } from "../data/client";

export type PriceScale = ScaleLogarithmic<number, number>;

/** One logarithmic scale for every price on a screen, so that whiskers can be compared. */
export function priceScale(
  figures: Pick<Figures, "cpc_low" | "cpc_high">,
  width: number,
): PriceScale {
  // a few odd prices must not squeeze all the others: they are drawn at the edge
  const low = quantile(known(figures.cpc_low), 0.005) ?? 0.1;
  const high = quantile(known(figures.cpc_high), 0.985) ?? 10;
  return scaleLog()
    .domain([low * 0.9, high * 1.1])
    .range([4, width - 4])
    .clamp(true);
}

const known = (prices: (number | null)[]): number[] =>
  prices.filter((p) => p != null && p > 0) as number[];

/** The scale of a sheet, made anew only when its prices change. */
export function usePriceScale({ cpc_low, cpc_high }: Figures, width: number): PriceScale {
  return useMemo(() => priceScale({ cpc_low, cpc_high }, width), [cpc_low, cpc_high, width]);
}

/** The decades and halves that a faint grid is drawn at. */
export function priceTicks(scale: PriceScale): number[] {
  const [low = 0.1, high = 10] = scale.domain();
  const ticks: number[] = [];
  for (let decade = Math.floor(Math.log10(low)); decade <= Math.log10(high); decade++)
    for (const step of [1, 3]) {
      const price = step * 10 ** decade;
      if (price > low && price < high) ticks.push(price);
    }
  return ticks;
}
