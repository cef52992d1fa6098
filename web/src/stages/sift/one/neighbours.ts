import type { SheetBlock } from "../../../data/client";

const shown = 7;

/** Rows near one in meaning (words shared, rare words more) and in price. */
export function neighbours({ texts, figures }: SheetBlock, row: number) {
  const words = texts.text.map((text) => text.toLocaleLowerCase().split(/\s+/));
  const often = new Map<string, number>();
  for (const some of words)
    for (const word of new Set(some)) often.set(word, (often.get(word) ?? 0) + 1);
  const own = new Set(words[row]);
  const alike = (other: number) =>
    (words[other] ?? []).reduce(
      (sum, word) => sum + (own.has(word) ? 1 / (often.get(word) ?? 1) : 0),
      0,
    ) -
    1e-6 * Math.abs((words[other]?.length ?? 0) - own.size);
  const price = figures.cpc_median[row];
  const apart = (other: number) => {
    const its = figures.cpc_median[other];
    return price && its ? Math.abs(Math.log(its / price)) : Infinity;
  };
  const others = texts.id.map((_, at) => at).filter((at) => at !== row);
  const best = (value: (at: number) => number) =>
    others
      .map((at) => ({ at, value: value(at) }))
      .sort((a, b) => b.value - a.value || a.at - b.at)
      .slice(0, shown)
      .map(({ at }) => at);
  return {
    meaning: best(alike).filter((at) => alike(at) > 0),
    price: best((at) => -apart(at)).filter((at) => apart(at) < Infinity),
  };
}
