import { scaleLinear } from "d3-scale";
import { useRef } from "react";
import type { Schemas } from "../../../data/client";
import { ink } from "../../../look/tokens";
import { count, money, number } from "../../../parts/format";
import { useWidth } from "../../../parts/useWidth";

type Drawn = Schemas["HowSureView"]["figures"][string];
type Props = { figure: string; drawn: Drawn; monthsADot: number };

const height = 190;
const margin = { left: 20, right: 20, top: 8, bottom: 32 };
/** So many piles side by side; counts have one for each number where that is fewer. */
const mostColumns = 44;

/** A figure as it reads under its dots. */
export function said(figure: string, value: number | null): string {
  if (value === null) return "nobody buys";
  if (figure === "cost_per_customer") return money(value);
  return figure === "customers" && !Number.isInteger(value) ? count(value) : number(value);
}

/** A hundred dots, each as many months: where they pile up is where a month is likely to fall. */
export function Dots({ figure, drawn, monthsADot }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const known = drawn.dots.filter((dot): dot is number => dot !== null);
  const endless = drawn.dots.length - known.length;
  if (known.length === 0)
    return <div ref={box}>Nobody buys in any month, so there is no {figure} to draw.</div>;
  const [least, most] = [Math.min(...known), Math.max(...known)];
  const span = most - least || 1;
  const counts = known.every(Number.isInteger) && span <= mostColumns;
  const columns = counts ? span + 2 : mostColumns;
  const aside = counts ? 1 : span / mostColumns;
  const x = scaleLinear([least - aside, most + aside], [margin.left, width - margin.right]);
  const slot = (width - margin.left - margin.right) / columns;
  const piles = new Map<number, number>();
  const placed = known.map((value) => {
    const column = Math.round((x(value) - margin.left) / slot);
    const pile = piles.get(column) ?? 0;
    piles.set(column, pile + 1);
    return { value, column, pile };
  });
  const room = height - margin.top - margin.bottom;
  const step = Math.min(slot, room / Math.max(...piles.values()));
  const radius = Math.max(step / 2 - 1, 1);
  const ground = height - margin.bottom;
  const at = (value: number | null) => (value === null ? width - margin.right : x(value));
  return (
    <div ref={box}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`8 months in 10 lie between ${said(figure, drawn.low)} and ${said(figure, drawn.high)}, the middle one at ${said(figure, drawn.middle)}`}
      >
        {placed.map(({ value, column, pile }, place) => (
          <circle
            key={place}
            cx={margin.left + column * slot}
            cy={ground - radius - 1 - pile * step}
            r={radius}
            fill={
              value < (drawn.low ?? value) || value > (drawn.high ?? Infinity)
                ? ink.petalMid
                : ink.petal
            }
          >
            <title>{`about ${said(figure, value)} in ${monthsADot} months`}</title>
          </circle>
        ))}
        <line
          x1={margin.left}
          x2={width - margin.right}
          y1={ground}
          y2={ground}
          stroke={ink.ink3}
        />
        {x.ticks(6).map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={ground + 14}
            textAnchor="middle"
            fontSize={12}
            fill={ink.ink2}
          >
            {number(tick, Number.isInteger(tick) ? 0 : 1)}
          </text>
        ))}
        <line
          x1={at(drawn.low)}
          x2={at(drawn.high)}
          y1={ground + 22}
          y2={ground + 22}
          stroke={ink.ink}
          strokeWidth={2}
        />
        <circle cx={at(drawn.middle)} cy={ground + 22} r={4} fill={ink.ink} />
        {drawn.expected !== null && (
          <g>
            <line
              x1={at(drawn.expected)}
              x2={at(drawn.expected)}
              y1={margin.top + 12}
              y2={ground}
              stroke={ink.ink}
              strokeDasharray="2 3"
            />
            <text
              x={at(drawn.expected) + (at(drawn.expected) > width / 2 ? -5 : 5)}
              y={margin.top + 12}
              textAnchor={at(drawn.expected) > width / 2 ? "end" : "start"}
              fontSize={12}
              fill={ink.ink}
            >
              expected {said(figure, drawn.expected)}
            </text>
          </g>
        )}
      </svg>
      {endless > 0 && <small>In {number(endless * monthsADot)} more months nobody buys.</small>}
    </div>
  );
}
