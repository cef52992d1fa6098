import { ink, rowHeight } from "../look/tokens";
import { money } from "./format";
import type { PriceScale } from "./scale";

type Props = {
  scale: PriceScale;
  ticks: number[];
  low: number | null | undefined;
  median: number | null | undefined;
  high: number | null | undefined;
  ceiling: number | null | undefined;
  bid?: number | null;
  beyond?: boolean;
  width: number;
};

/** A price as a whisker, low to high, with the ceiling's tick and, where given, the bid. */
export function Whisker({ scale, ticks, low, median, high, ceiling, bid, beyond, width }: Props) {
  const middle = rowHeight / 2;
  const known = low != null && high != null;
  const words = known
    ? `${money(low)} to ${money(high)}, ceiling ${money(ceiling)}` +
      (bid != null ? `, bid ${money(bid)}` : "")
    : "no price";
  return (
    <svg width={width} height={rowHeight} role="img" aria-label={words}>
      <path d={ticksPath(scale, ticks)} stroke={ink.rule} strokeOpacity={0.6} />
      {known && (
        <>
          <rect
            x={scale(low)}
            y={middle - 3}
            width={Math.max(scale(high) - scale(low), 2)}
            height={6}
            fill={beyond ? ink.stone : ink.petalMid}
          />
          {median != null && bid == null && (
            <line
              x1={scale(median)}
              x2={scale(median)}
              y1={middle - 5}
              y2={middle + 5}
              stroke={ink.ink}
              strokeWidth={1.6}
            />
          )}
        </>
      )}
      {ceiling != null && ceiling > 0 && (
        <path
          d={`M${scale(ceiling) - 3.5} 3h7l-2.9 5v${rowHeight - 14}h-1.2v-${rowHeight - 14}z`}
          fill={ink.petalDeep}
        />
      )}
      {bid != null && bid > 0 && (
        <circle
          cx={scale(bid)}
          cy={middle}
          r={5}
          fill={ink.ink}
          stroke={ink.paper}
          strokeWidth={1.4}
        />
      )}
    </svg>
  );
}

/** All ticks as one line: a long sheet draws as few shapes as it can. */
const ticksPath = (scale: PriceScale, ticks: number[]): string =>
  ticks.map((tick) => `M${scale(tick)} 0V${rowHeight}`).join("");
