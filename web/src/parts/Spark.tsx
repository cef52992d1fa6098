import { line } from "d3-shape";
import { ink } from "../look/tokens";

type Props = { months: number[] | null | undefined };

const monthNames = Array.from({ length: 12 }, (_, month) =>
  new Intl.DateTimeFormat(undefined, { month: "long" }).format(new Date(2026, month, 1)),
);
const width = 38;
const height = 16;

/** Twelve months as a line, each keyword on its own height: the season, not the size. */
export function Spark({ months }: Props) {
  if (!months) return <svg width={width} height={height} aria-hidden />;
  const most = Math.max(...months, 1);
  const path = line<number>()
    .x((_, month) => 1 + (month * (width - 2)) / 11)
    .y((searches) => height - 2 - (searches / most) * (height - 4))(months);
  const peak = months.indexOf(Math.max(...months));
  const name = monthNames[peak];
  return (
    <svg width={width} height={height} role="img" aria-label={`most searched in ${name}`}>
      <path d={path ?? undefined} fill="none" stroke={ink.ink3} strokeWidth={1.1} />
    </svg>
  );
}
