import { scaleLog, type ScaleLogarithmic } from "d3-scale";
import type { Figures } from "../data/client";

export type PriceScale = ScaleLogarithmic<number, number>;

/** One logarithmic scale for every price on a screen, so that whiskers can be compared. */
export function priceScale(figures: Figures, width: number): PriceScale {
  let low = Infinity;
  let high = 0;
  for (let row = 0; row < figures.cpc_low.length; row++) {
    const from = figures.cpc_low[row];
    const to = figures.cpc_high[row];
    if (from != null && from < low) low = from;
    if (to != null && to > high) high = to;
  }
  if (!(high > 0)) [low, high] = [0.1, 10];
  return scaleLog()
    .domain([low * 0.9, high * 1.1])
    .range([4, width - 4])
    .clamp(true);
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
