import { useRef } from "react";
import { scaleLinear } from "d3-scale";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Pictured } from "../../../parts/Pictured";
import { dayShort, daySaid } from "../../../parts/days";
import { money, number, percent, plural } from "../../../parts/format";
import { useWidth } from "../../../parts/useWidth";
import * as S from "./Practice.styles";

type Day = Schemas["DayItem"];
const height = 190;
const margin = { top: 14, bottom: 22, left: 44, right: 12 };
const levels = ["day", "campaign", "group", "keyword", "term"] as const;

/** What came of it by day: the money as bars, a dot for each customer. */
export function Days({ days }: { days: Day[] }) {
  const { id, summary } = usePlan();
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const { currency } = summary.brief.values;
  if (days.length === 0)
    return <S.Quiet>No day has passed yet. Send the plan, then let some days pass.</S.Quiet>;
  const sum = (of: (day: Day) => number) => days.reduce((total, day) => total + of(day), 0);
  const spent = sum((day) => day.cost - day.credit);
  const customers = sum((day) => day.customers);
  const clicks = sum((day) => day.clicks);
  return (
    <S.Results>
      <p>
        <b>{plural(days.length, "day")}</b>: {money(spent)} {currency} spent,{" "}
        {plural(clicks, "click")}
        {clicks > 0 && ` at ${money(spent / clicks)}`}, <b>{plural(customers, "customer")}</b>
        {customers > 0 && ` at ${money(spent / customers)}`} so far; some are reported late. Of{" "}
        {number(sum((day) => day.could_show))} searches {number(sum((day) => day.lost_to_money))}{" "}
        came when the day’s money was gone (
        {percent(
          sum((day) => day.lost_to_money) /
            Math.max(
              sum((day) => day.could_show),
              1,
            ),
        )}
        ).
      </p>
      <Pictured
        label="What came by day"
        head={`${currency} by day; outlined: the money was gone before midnight; a dot: a customer`}
        items={days}
        columns={{
          day: (day) => day.day,
          [`cost less credit, ${currency}`]: (day) => day.cost - day.credit,
          clicks: (day) => day.clicks,
          customers: (day) => day.customers,
          enquiries: (day) => day.enquiries,
          impressions: (day) => day.impressions,
          "could show": (day) => day.could_show,
          "lost to money": (day) => day.lost_to_money,
          "invalid clicks": (day) => day.invalid_clicks,
        }}
      >
        <div ref={box}>
          <Bars days={days} width={width} currency={currency} />
        </div>
      </Pictured>
      <p>
        As files, by day and{" "}
        {levels.map((level) => (
          <a key={level} href={`/api/plans/${id}/practice/results?level=${level}`} download>
            {level === "day" ? "in sum" : level}
          </a>
        ))}
      </p>
    </S.Results>
  );
}

type BarsProps = { days: Day[]; width: number; currency: string };

function Bars({ days, width, currency }: BarsProps) {
  const top = Math.max(...days.map((day) => day.cost - day.credit), 1);
  const y = scaleLinear([0, top * (1 + 1 / 7)], [height - margin.bottom, margin.top]).nice(4);
  const step = Math.max((width - margin.left - margin.right) / days.length, 1);
  const every = Math.max(Math.ceil(44 / step), 1);
  const spent = days.reduce((total, day) => total + day.cost - day.credit, 0);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Money by day, ${daySaid(days[0]!.day)} to ${daySaid(days[days.length - 1]!.day)}, in all ${money(spent)} ${currency}; a dot is a customer`}
    >
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={margin.left} x2={width - margin.right} y1={y(tick)} y2={y(tick)} />
          <text x={margin.left - 6} y={y(tick)} dy="0.32em" textAnchor="end">
            {number(tick)}
          </text>
        </g>
      ))}
      {days.map((day, at) => {
        const left = margin.left + at * step;
        const bar = day.cost - day.credit;
        return (
          <g key={day.day}>
            <rect
              x={left + 1}
              width={Math.max(step - 2, 1)}
              y={y(bar)}
              height={Math.max(y(0) - y(bar), 0)}
              data-cut={day.lost_to_money > 0 || undefined}
            />
            {Array.from({ length: Math.min(day.customers, 12) }, (_, n) => (
              <circle key={n} cx={left + step / 2} cy={y(0) - 6 - n * 8} r={3} />
            ))}
            {at % every === 0 && (
              <text x={left + step / 2} y={height - 6} textAnchor="middle">
                {dayShort(day.day)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
