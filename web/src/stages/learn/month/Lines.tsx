import { useRef } from "react";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { Pictured } from "../../../parts/Pictured";
import { daysBetween } from "../../../parts/days";
import { number } from "../../../parts/format";
import { useWidth } from "../../../parts/useWidth";
import * as S from "../Learn.styles";
import type { LearnView, SoFar } from "../view";

type Props = {
  view: LearnView;
  of: "cost" | "customers";
  title: string;
  shown: (value: number) => string;
  /** The range that was given; null while it is drawn. */
  soFar: SoFar | null;
};
type Point = { day: string; at: number; came: number; planned: number };
type Mark = { day: string; at: number; low: number; middle: number; high: number };

const height = 170;
const margin = { top: 10, bottom: 20, left: 46, right: 10 };

/** What came so far this month, over the range that was given for it. */
export function Lines({ view, of, title, shown, soFar }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const month = view.month;
  if (!month) return null;
  const points = sums(view, month.first, of);
  const marks = marksOf(soFar, month.first, of);
  const whole = daysBetween(month.first, month.end) + 1;
  const highs = [...points.flatMap((p) => [p.came, p.planned]), ...marks.map((m) => m.high)];
  const top = Math.max(...highs, 1e-9);
  const x = scaleLinear([0, whole], [margin.left, width - margin.right]);
  const y = scaleLinear([0, top * (1 + 1 / 9)], [height - margin.bottom, margin.top]).nice(4);
  const path = (value: (point: Point) => number) =>
    line<Point>(
      (point) => x(point.at),
      (point) => y(value(point)),
    )([{ day: "", at: 0, came: 0, planned: 0 }, ...points]) ?? "";
  const range = area<Mark>()
    .x((mark) => x(mark.at))
    .y0((mark) => y(mark.low))
    .y1((mark) => y(mark.high));
  const last = points[points.length - 1];
  return (
    <Pictured
      label={title}
      head={`${title}: full what came, broken what was planned, shaded 8 months of 10`}
      items={points}
      columns={{
        day: (point) => point.day,
        came: (point) => point.came,
        planned: (point) => point.planned,
        "8 in 10 from": (point) => marks.find((mark) => mark.day === point.day)?.low ?? null,
        "8 in 10 to": (point) => marks.find((mark) => mark.day === point.day)?.high ?? null,
      }}
    >
      <div ref={box}>
        <S.Chart
          width={width}
          height={height}
          role="img"
          aria-label={
            last ? `${title}: ${shown(last.came)} of ${shown(last.planned)} planned` : title
          }
        >
          {y.ticks(4).map((tick) => (
            <g key={tick}>
              <line x1={margin.left} x2={width - margin.right} y1={y(tick)} y2={y(tick)} />
              <text x={margin.left - 6} y={y(tick)} dy="0.32em" textAnchor="end">
                {number(tick, top < 4 ? 1 : 0)}
              </text>
            </g>
          ))}
          {marks.length > 0 && (
            <path
              data-range
              d={range([{ ...marks[0]!, at: 0, low: 0, high: 0 }, ...marks]) ?? ""}
            />
          )}
          <path d={path((point) => point.planned)} data-planned />
          <path d={path((point) => point.came)} />
          <text x={margin.left} y={height - 5}>
            {month.first}
          </text>
          <text x={width - margin.right} y={height - 5} textAnchor="end">
            {month.end}
          </text>
        </S.Chart>
      </div>
    </Pictured>
  );
}

function sums(view: LearnView, first: string, of: "cost" | "customers"): Point[] {
  let came = 0;
  let planned = 0;
  return view.days
    .filter(({ day }) => day >= first)
    .map((day) => {
      came += day[of];
      planned += day[`planned_${of}`];
      return { day: day.day, at: daysBetween(first, day.day) + 1, came, planned };
    });
}

function marksOf(soFar: SoFar | null, first: string, of: "cost" | "customers"): Mark[] {
  if (!soFar || !soFar.days.every((day) => day >= first)) return [];
  const ranges = soFar[of === "cost" ? "spend" : "customers"];
  return soFar.days.map((day, at) => ({
    day,
    at: daysBetween(first, day) + 1,
    ...ranges[at]!,
  }));
}
