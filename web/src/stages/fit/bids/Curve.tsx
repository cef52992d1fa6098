import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useRef, useState } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { groupInks, ink } from "../../../look/tokens";
import { Choice } from "../../../parts/Choice";
import { NotYet } from "../../../parts/NotYet";
import { Pictured } from "../../../parts/Pictured";
import { count, money, number, percent } from "../../../parts/format";
import { useWidth } from "../../../parts/useWidth";
import * as S from "./Panels.styles";
import { Asking } from "./Asking";

type CurveItem = Schemas["CurvesView"]["curves"][number];
type Goal = Schemas["CurvesView"]["goal"];

const height = 186;
const margin = { top: 14, right: 16, bottom: 20, left: 56 };
const sideBySide = 4;
const goals = (["customers", "profit", "clicks", "revenue"] as const).map((id) => ({
  id,
  name: id,
}));

/** The goal against the money: what every purse would bring, and the question turned round. */
export function Curve() {
  const { id, summary } = usePlan();
  const [chosen, setChosen] = useState<Goal | null>(null);
  const goal = chosen ?? summary.brief.values.goal;
  const family = usePlanQuery("/versions").data?.versions ?? [];
  const others = family.filter((one) => one.id !== id).slice(0, sideBySide - 1);
  const asked = { goal, with: others.map((one) => one.id) };
  const revisions = family.map((one) => `${one.id}.${one.revision}`).join(" ");
  const found = usePlanQuery("/fit/curves", { query: asked, of: revisions });
  const curves = found.data?.curves ?? [];
  const points = curves.flatMap((curve) =>
    curve.purse.map((purse, at) => ({
      curve,
      purse,
      value: curve.value[at]!,
      gap: curve.gap[at]!,
    })),
  );
  const widest = Math.max(0, ...points.map(({ gap }) => gap));
  return (
    <S.Split>
      <Pictured
        label="The goal against the money"
        items={points}
        columns={{
          version: ({ curve }) => curve.label,
          "purse a month": ({ purse }) => purse,
          [`${goal} a month`]: ({ value }) => value,
          "or so much more, %": ({ gap }) => gap * 100,
        }}
        head={
          <>
            <Choice
              label="Goal of the curve"
              inline
              value={goal}
              options={goals}
              onChange={setChosen}
            />{" "}
            a month for every purse
          </>
        }
      >
        {curves.length > 0 ? (
          <>
            <Lines curves={curves} goal={goal} />
            {widest > 0 && (
              <S.Aside>
                Under limits not every point is worked out to the end: at some, up to{" "}
                {percent(widest)} more may be had.
              </S.Aside>
            )}
          </>
        ) : (
          <p>
            <NotYet of={found}>Working out what every purse would bring …</NotYet>
          </p>
        )}
      </Pictured>
      <Asking goal={goal} />
    </S.Split>
  );
}

type LinesProps = { curves: CurveItem[]; goal: Goal };

function Lines({ curves, goal }: LinesProps) {
  const { summary } = usePlan();
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const { currency } = summary.brief.values;
  const own = curves[0]!;
  const end = Math.max(1, ...curves.map((curve) => Math.max(curve.saturation, curve.at)));
  const most = Math.max(1e-9, ...curves.flatMap((curve) => curve.value));
  const x = scaleLinear([0, end], [margin.left, width - margin.right]);
  const y = scaleLinear([0, most], [height - margin.bottom, margin.top]).nice(4);
  const isMoney = goal === "profit" || goal === "revenue";
  const said = (value: number) => (isMoney ? number(value) : count(value));
  const path = (curve: CurveItem) => {
    const places = curve.purse.map((_, at) => at);
    const drawn = line<number>(
      (at) => x(curve.purse[at]!),
      (at) => y(curve.value[at]!),
    )(places);
    const flat = `L ${x(end)} ${y(curve.value.at(-1) ?? 0)}`;
    return `${drawn ?? ""} ${drawn ? flat : ""}`;
  };
  return (
    <div ref={box}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`${goal} against money: saturated at ${money(own.saturation)} ${currency}`}
      >
        {y.ticks(4).map((tick) => (
          <g key={tick} fontSize={12} fill={ink.ink2}>
            <line x1={margin.left} x2={width} y1={y(tick)} y2={y(tick)} stroke={ink.rule} />
            <text x={margin.left - 8} y={y(tick) + 4} textAnchor="end">
              {said(tick)}
            </text>
          </g>
        ))}
        {x.ticks(6).map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={height - 5}
            textAnchor="middle"
            fontSize={12}
            fill={ink.ink2}
          >
            {number(tick)}
          </text>
        ))}
        {curves.toReversed().map((curve) => (
          <path
            key={curve.plan_id}
            d={path(curve)}
            fill="none"
            stroke={groupInks[curves.indexOf(curve)]}
            strokeWidth={curve === own ? 2 : 1}
            strokeDasharray={curve === own ? undefined : "5 3"}
          >
            <title>{curve.label || "As first made"}</title>
          </path>
        ))}
        <Marked at={own.at} name={`the purse ${number(own.at)}`} x={x} strong />
        {own.knee !== null && <Marked at={own.knee} name={`knee ${number(own.knee)}`} x={x} low />}
        <Marked at={own.saturation} name={`saturated ${number(own.saturation)}`} x={x} low />
      </svg>
    </div>
  );
}

type MarkedProps = {
  at: number;
  name: string;
  x: (money: number) => number;
  strong?: boolean;
  low?: boolean;
};

/** A sum of money that has a name. */
function Marked({ at, name, x, strong, low }: MarkedProps) {
  const right = x(at) > x(0) + 120;
  return (
    <g>
      <line
        x1={x(at)}
        x2={x(at)}
        y1={margin.top}
        y2={height - margin.bottom}
        stroke={strong ? ink.ink : ink.ink3}
        strokeDasharray={strong ? undefined : "2 3"}
      />
      <text
        x={x(at) + (right ? -5 : 5)}
        y={low ? height - margin.bottom - 6 : margin.top + 10}
        textAnchor={right ? "end" : "start"}
        fontSize={12}
        fill={strong ? ink.ink : ink.ink2}
        fontWeight={strong ? 600 : 400}
      >
        {name}
      </text>
    </g>
  );
}
