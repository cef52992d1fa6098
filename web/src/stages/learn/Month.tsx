import { useRef } from "react";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { usePlan } from "../../data/plan";
import { Pictured } from "../../parts/Pictured";
import { count, delta, money, number } from "../../parts/format";
import { useWidth } from "../../parts/useWidth";
import * as S from "./Learn.styles";
import type { LearnView } from "./view";

const names: Record<string, string> = {
  planned: "planned for these days",
  searches: "how many searched",
  reach: "won by the bid",
  money: "shown while the money lasted",
  showings: "how often it was shown",
  click_rate: "how readily it was clicked",
  price: "what a click cost",
  conversion: "how many of them bought",
  unplanned: "what ran and was not planned",
  late: "not yet reported",
  reported: "reported",
  actual: "spent",
};

/** The month: what came against what was planned, and why it differs. */
export function Month({ view }: { view: LearnView }) {
  const { summary } = usePlan();
  const { currency } = summary.brief.values;
  const spent = view.spend["actual"] ?? 0;
  const planned = view.spend["planned"] ?? 0;
  const came = view.customers["reported"] ?? 0;
  const due = view.customers["planned"] ?? 0;
  return (
    <S.Page>
      <p>
        <b>{money(spent)}</b> {currency} spent where {money(planned)} were planned (
        {delta(spent - planned, 2)}); <b>{number(came)} customers</b> reported where {count(due)}{" "}
        were planned, and about {count(view.late)} more are still expected to be reported.
        {view.unmatched > 0 && ` ${number(view.unmatched)} rows are no keyword of the plan.`}
      </p>
      <S.Pair>
        <Lines view={view} of="cost" title={`Money so far, ${currency}`} shown={money} />
        <Lines view={view} of="customers" title="Customers so far" shown={count} />
      </S.Pair>
      <S.Pair>
        <Sum title="Why the customers differ" parts={view.customers} shown={(v) => delta(v, 2)} />
        <Sum
          title={`Why the money differs, ${currency}`}
          parts={view.spend}
          shown={(v) => delta(v, 2)}
        />
      </S.Pair>
    </S.Page>
  );
}

type SumProps = {
  title: string;
  parts: Record<string, number>;
  shown: (value: number) => string;
};

/** A sum that adds up: what was planned, each part, and what came. */
function Sum({ title, parts, shown }: SumProps) {
  const entries = Object.entries(parts);
  const most = Math.max(...entries.slice(1, -1).map(([, value]) => Math.abs(value)), 1e-9);
  return (
    <S.SumTable aria-label={title}>
      <caption>{title}</caption>
      <tbody>
        {entries.map(([name, value], at) => {
          const ends = at === 0 || at === entries.length - 1;
          return (
            <tr key={name} data-end={ends || undefined}>
              <th scope="row">{names[name] ?? name}</th>
              <td>{ends ? money(value) : shown(value) || "0"}</td>
              <td aria-hidden>
                {!ends && (
                  <i
                    data-less={value < 0 || undefined}
                    style={{ width: `${(Math.abs(value) / most) * 80}px` }}
                  />
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </S.SumTable>
  );
}

type LinesProps = {
  view: LearnView;
  of: "cost" | "customers";
  title: string;
  shown: (value: number) => string;
};
const height = 170;
const margin = { top: 10, bottom: 20, left: 46, right: 10 };

/** What came so far, over what was planned, day by day. */
function Lines({ view, of, title, shown }: LinesProps) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const points = sums(view, of);
  const top = Math.max(...points.flatMap((point) => [point.came, point.planned]), 1e-9);
  const x = scaleLinear([0, Math.max(points.length - 1, 1)], [margin.left, width - margin.right]);
  const y = scaleLinear([0, top * (1 + 1 / 9)], [height - margin.bottom, margin.top]).nice(4);
  const path = (value: (point: Point) => number) =>
    line<Point>(
      (_, at) => x(at),
      (point) => y(value(point)),
    )(points) ?? "";
  const last = points[points.length - 1];
  return (
    <Pictured
      label={title}
      head={`${title}: full what came, broken what was planned`}
      items={points}
      columns={{
        day: (point) => point.day,
        came: (point) => point.came,
        planned: (point) => point.planned,
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
          <path d={path((point) => point.planned)} data-planned />
          <path d={path((point) => point.came)} />
          {points.length > 0 && (
            <>
              <text x={margin.left} y={height - 5}>
                {points[0]!.day}
              </text>
              <text x={width - margin.right} y={height - 5} textAnchor="end">
                {last!.day}
              </text>
            </>
          )}
        </S.Chart>
      </div>
    </Pictured>
  );
}

type Point = { day: string; came: number; planned: number };

function sums(view: LearnView, of: "cost" | "customers"): Point[] {
  let came = 0;
  let planned = 0;
  return view.days.map((day) => {
    came += day[of];
    planned += day[`planned_${of}`];
    return { day: day.day, came, planned };
  });
}
