import { scaleLinear } from "d3-scale";
import { useRef, useState } from "react";
import { usePlan } from "../../../data/plan";
import { groupInks, ink } from "../../../look/tokens";
import { brought, currencyWord, money, number } from "../../../parts/format";
import { widthOf } from "../../../parts/roomFor";
import { useWidth } from "../../../parts/useWidth";
import type { FitView } from "../view";
import * as S from "./Ladder.styles";
import { valueAt } from "./frontier";

type Props = { view: FitView };

const height = 196;
const margin = { top: 24, right: 20, bottom: 22, left: 64 };
/** How far an arrow key moves the edge, in money. */
const step = 10;

/** Every next step the money could take, best first, cut by the purse's edge. */
export function LadderOfPounds({ view }: Props) {
  const { summary } = usePlan();
  if (view.blocks.length === 0)
    return <S.Empty>No step to lay out yet. {summary.purse.notices[0]}</S.Empty>;
  return <Picture view={view} />;
}

function Picture({ view }: Props) {
  const { summary, changePurse } = usePlan();
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const [dragged, setDragged] = useState<number | null>(null);
  const currency = summary.brief.values.currency;
  const purse = summary.brief.purse;
  const edge = dragged ?? purse;
  const returns = view.blocks.map((block) => block.return);
  // A few first pence bring far more than the rest: their tops are cut so that the rest can be read.
  const most = Math.max(cutTop(returns), 1e-9);
  const x = scaleLinear([0, view.span], [margin.left, width - margin.right]);
  const y = scaleLinear([0, most], [height - margin.bottom, margin.top]).clamp(true);
  const set = (value: number) => {
    const rounded = Math.max(0, Math.round(value));
    if (rounded !== purse) void changePurse(rounded);
  };
  const moneyAt = (clientX: number) => {
    const left = box.current?.getBoundingClientRect().left ?? 0;
    return Math.max(0, Math.min(view.span, x.invert(clientX - left)));
  };
  const goal = view.goal;
  const digits = Math.max(0, Math.ceil(-Math.log10(y.ticks(4)[1] ?? 1) - 1e-9));
  return (
    <S.Ladder ref={box} data-dragging={dragged !== null || undefined}>
      <S.Axis>
        <span>
          {goal} a {currencyWord(currency)} brings, best first
        </span>
        <span>{currency} a month; drag the edge</span>
      </S.Axis>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`Ladder of ${currencyWord(currency)}s: ${view.blocks.length} blocks, the first bringing ${number(returns[0], 3)} ${goal} each`}
      >
        {y.ticks(4).map((tick) => (
          <g key={tick}>
            <line
              x1={margin.left}
              x2={width - margin.right}
              y1={y(tick)}
              y2={y(tick)}
              stroke={ink.rule}
            />
            <text
              x={margin.left - 8}
              y={y(tick) + 4}
              textAnchor="end"
              fontSize={12}
              fill={ink.ink2}
            >
              {number(tick, digits)}
            </text>
          </g>
        ))}
        <Blocks view={view} edge={edge} x={x} y={y} right={width - margin.right} />
        {x.ticks(6).map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={height - 6}
            textAnchor="middle"
            fontSize={12}
            fill={ink.ink2}
          >
            {number(tick)}
          </text>
        ))}
      </svg>
      <S.Edge
        role="slider"
        tabIndex={0}
        aria-label="The purse's edge: monthly spend"
        aria-valuemin={0}
        aria-valuemax={Math.round(view.span)}
        aria-valuenow={Math.round(edge)}
        aria-valuetext={`${money(edge)} ${currency}`}
        style={{ left: x(edge) }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setDragged(moneyAt(event.clientX));
        }}
        onPointerMove={(event) => {
          if (dragged !== null) setDragged(moneyAt(event.clientX));
        }}
        onPointerUp={() => {
          if (dragged !== null) set(dragged);
          setDragged(null);
        }}
        onPointerCancel={() => setDragged(null)}
        onKeyDown={(event) => {
          const by = {
            ArrowLeft: -step,
            ArrowRight: step,
            PageUp: 10 * step,
            PageDown: -10 * step,
          }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          event.stopPropagation();
          set(purse + by);
        }}
      >
        <b style={{ marginLeft: keptInside(number(edge), x(edge), width) }}>{number(edge)}</b>
      </S.Edge>
      <Told view={view} dragged={dragged} at={x(edge)} width={width} />
    </S.Ladder>
  );
}

/** How far a label in the middle of a place moves so that none of it is cut off. */
function keptInside(label: string, at: number, width: number): number {
  const half = widthOf(label) / 2 + 10;
  return Math.max(0, half - at) + Math.min(0, width - half - at);
}

type Scale = ReturnType<typeof scaleLinear<number, number>>;
type BlocksProps = Props & { edge: number; x: Scale; y: Scale; right: number };

/** A block a step or so: filled within the purse, hollow beyond it. */
function Blocks({ view, edge, x, y, right }: BlocksProps) {
  const { summary } = usePlan();
  const { currency } = summary.brief.values;
  const groupAt = groupOrder(
    view,
    summary.purse.segments.flatMap(({ name, spot_id }) => (spot_id === null ? [name] : [])),
  );
  return (
    <>
      {view.blocks.map((block) => {
        const inside = block.start + block.spend / 2 <= edge;
        const hue = groupInks[groupAt(block.group) % groupInks.length];
        const [from, to] = [x(block.start), Math.min(x(block.start + block.spend), right)];
        return (
          <rect
            key={block.start}
            x={from + 0.5}
            y={y(block.return)}
            width={Math.max(to - from - 1, 1)}
            height={y(0) - y(block.return)}
            fill={inside ? hue : ink.paper}
            stroke={inside ? "none" : hue}
          >
            <title>
              {`${view.groups[block.group]}: ${block.keywords.join(", ")}${block.steps > block.keywords.length ? " …" : ""}\n` +
                `${money(block.spend)} ${currency} brings ${number(block.return * block.spend, 3)} ${view.goal}`}
            </title>
          </rect>
        );
      })}
    </>
  );
}

type ToldProps = Props & { dragged: number | null; at: number; width: number };

/** What the next unit of money brings, or what the dragged edge would. */
function Told({ view, dragged, at, width }: ToldProps) {
  const { summary } = usePlan();
  const { currency } = summary.brief.values;
  const { goal } = view;
  return (
    <S.Beside
      style={
        at > width * 0.62
          ? { right: width - at + 12, textAlign: "right" }
          : { left: at + 12, right: margin.right }
      }
    >
      {dragged !== null ? (
        <b>
          at {number(dragged)}: about {number(valueAt(view, dragged), 1)} {goal}
        </b>
      ) : (
        <>
          <b>
            {summary.purse.next_unit > 0
              ? `the next ${currencyWord(currency)} brings ${brought(summary.purse.next_unit)} ${goal}` +
                (goal === "customers" ? `, ${money(1 / summary.purse.next_unit)} a customer` : "")
              : "no further step is worth its price under your rule"}
          </b>
          {view.more && (
            <span>
              {number(view.more.money)} more would bring {number(view.more.value, 2)}:{" "}
              {view.more.keywords.join(", ")}
            </span>
          )}
        </>
      )}
    </S.Beside>
  );
}

/** The height the picture ends at: the tallest block, unless a few stand far above all others. */
function cutTop(returns: number[]): number {
  const tallest = Math.max(0, ...returns);
  const common = returns[Math.floor(returns.length * 0.03)] ?? tallest;
  return Math.min(tallest, common * 1.25);
}

/** Colours go by the purse's order of groups, so that both pictures agree. */
function groupOrder(view: FitView, segments: string[]): (group: number) => number {
  const order = new Map(segments.map((name, at) => [name, at]));
  return (group) => order.get(view.groups[group] ?? "") ?? segments.length + group;
}
