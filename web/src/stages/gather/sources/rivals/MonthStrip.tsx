import { ink } from "../../../../look/tokens";

type Props = {
  /** Every month the list tells of, such as 2026-05. */
  months: readonly string[];
  /** Places of those in which it was seen. */
  seen: readonly number[];
};

const step = 6;
const height = 12;

/** How wide a strip of so many months is. */
export const stripWidth = (months: number): number => months * step;

/** The months in which something was seen: a full mark each, a low one for the others. */
export function MonthStrip({ months, seen }: Props) {
  const there = new Set(seen);
  const width = Math.max(stripWidth(months.length), step);
  return (
    <svg width={width} height={height} role="img" aria-label={seenSaid(months, seen)}>
      {months.map((month, at) => (
        <rect
          key={month}
          x={at * step}
          y={there.has(at) ? 0 : height - 2}
          width={step - 1.5}
          height={there.has(at) ? height : 2}
          fill={there.has(at) ? ink.petalMid : ink.ink3}
        />
      ))}
    </svg>
  );
}

/** The same in words: runs of months by their first and last. */
export function seenSaid(months: readonly string[], seen: readonly number[]): string {
  if (seen.length === 0) return "no month known";
  const runs: [number, number][] = [];
  for (const at of seen) {
    const last = runs.at(-1);
    if (last && last[1] === at - 1) last[1] = at;
    else runs.push([at, at]);
  }
  return runs
    .map(([from, to]) => (from === to ? months[from] : `${months[from]} to ${months[to]}`))
    .join(", ");
}
