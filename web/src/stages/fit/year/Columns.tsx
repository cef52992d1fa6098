import { scaleLinear } from "d3-scale";
import { useRef, useState } from "react";
import { usePlan } from "../../../data/plan";
import { ink } from "../../../look/tokens";
import { Blank } from "../../../parts/Blank";
import { count, money, number, parsed, short } from "../../../parts/format";
import { useWidth } from "../../../parts/useWidth";
import type { YearRanges, YearView } from "./view";
import * as S from "./Year.styles";
import { monthName, monthShort } from "./months";

const height = 150;
const margin = { top: 10, bottom: 4 };
/** How far an arrow key moves a month's money. */
const step = 10;

type Props = {
  view: YearView;
  ranges: YearRanges | null;
  open: number | null;
  onOpen: (month: number) => void;
  onPut: (month: number, money: number) => Promise<boolean>;
};

/** Twelve columns, each as high as its money, over what each month brings. */
export function Columns(props: Props) {
  const { view, onPut } = props;
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const moneyOf = (at: number) => (dragged?.month === at ? dragged.money : view.purse[at]!);
  return (
    <div>
      <Bars view={view} moneyOf={moneyOf} dragged={dragged} onDragged={setDragged} onPut={onPut} />
      <Figures {...props} moneyOf={moneyOf} />
    </div>
  );
}

type Dragged = { month: number; money: number };
type BarsProps = Pick<Props, "view" | "onPut"> & {
  moneyOf: (month: number) => number;
  dragged: Dragged | null;
  onDragged: (dragged: Dragged | null) => void;
};

/** The money of each month as a bar with a handle; what is spent of it is filled. */
function Bars({ view, moneyOf, dragged, onDragged, onPut }: BarsProps) {
  const { currency } = usePlan().summary.brief.values;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const top = Math.max(1, ...view.purse, ...view.purse.map((_, at) => moneyOf(at)));
  const most = scaleLinear([0, top * (1 + 1 / 6)], [height - margin.bottom, margin.top]);
  const cell = width / view.first.length;
  const at = (clientY: number) => {
    const from = box.current?.getBoundingClientRect().top ?? 0;
    return Math.max(0, Math.round(most.invert(clientY - from)));
  };
  const put = (month: number, sum: number) => {
    if (Math.round(view.purse[month]! * 100) !== Math.round(sum * 100)) void onPut(month, sum);
  };
  const down = (money: number) => ({
    top: most(money),
    height: height - margin.bottom - most(money),
  });
  return (
    <S.Bars ref={box} style={{ height }}>
      {view.first.map((first, month) => (
        <S.Column key={first} style={{ left: month * cell, width: cell }}>
          <i style={down(moneyOf(month))} />
          <u
            style={{
              ...down(view.spend[month]!),
              background: view.days[month] === 0 ? ink.rule : undefined,
            }}
          />
          {view.days[month]! > 0 && (
            <S.Handle
              role="slider"
              tabIndex={0}
              aria-label={`Money of ${monthName(first)}`}
              aria-valuemin={0}
              aria-valuemax={Math.round(view.sums.purse)}
              aria-valuenow={Math.round(moneyOf(month))}
              aria-valuetext={`${money(moneyOf(month))} ${currency}`}
              style={{ top: most(moneyOf(month)) }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                onDragged({ month, money: at(event.clientY) });
              }}
              onPointerMove={(event) => {
                if (dragged) onDragged({ month, money: at(event.clientY) });
              }}
              onPointerUp={() => {
                if (dragged) put(month, dragged.money);
                onDragged(null);
              }}
              onPointerCancel={() => onDragged(null)}
              onKeyDown={(event) => {
                const by = { ArrowUp: step, ArrowDown: -step }[event.key];
                if (by === undefined) return;
                event.preventDefault();
                event.stopPropagation();
                put(month, Math.max(0, Math.round(view.purse[month]!) + by));
              }}
            />
          )}
        </S.Column>
      ))}
    </S.Bars>
  );
}

/** What each month holds and brings, a column each; its name opens its days. */
function Figures({
  view,
  ranges,
  open,
  onOpen,
  onPut,
  moneyOf,
}: Props & Pick<BarsProps, "moneyOf">) {
  const { currency } = usePlan().summary.brief.values;
  return (
    <S.Months>
      <tbody>
        <tr>
          <td />
          {view.first.map((first, month) => (
            <th key={first} scope="col">
              <S.Opener
                aria-expanded={open === month}
                isDisabled={view.days[month] === 0}
                aria-label={`${monthShort(first)}: ${monthName(first)} by its days`}
                onPress={() => onOpen(month)}
              >
                {monthShort(first)}
              </S.Opener>
              {view.days[month]! > 0 && view.days[month]! < 28 && (
                <small>{number(view.days[month])} days</small>
              )}
            </th>
          ))}
        </tr>
        <tr>
          <th scope="row">money, {currency}</th>
          {view.first.map((first, month) => (
            <td key={first}>
              {view.days[month] === 0 ? (
                ""
              ) : (
                <Blank
                  label={`Sum for ${monthName(first)}`}
                  value={short(moneyOf(month))}
                  onCommit={(text) => {
                    const sum = parsed(text);
                    return sum === null || sum < 0 ? "a sum from 0" : onPut(month, sum);
                  }}
                />
              )}
            </td>
          ))}
        </tr>
        <Line label="spent" view={view} of={(month) => short(view.spend[month])} />
        <Line
          label="customers"
          view={view}
          of={(month) => count(view.customers[month])}
          range={(month) => ranges?.months[month]?.customers}
          strong
        />
        <Line
          label="profit"
          view={view}
          of={(month) => short(view.profit[month])}
          range={(month) => ranges?.months[month]?.profit}
        />
        <Line
          label="a customer costs"
          view={view}
          of={(month) => short(view.cost_per_customer[month])}
        />
        <Line label="the market" view={view} of={(month) => whyOf(view, month)} note />
      </tbody>
    </S.Months>
  );
}

type LineProps = {
  label: string;
  view: YearView;
  of: (month: number) => string;
  range?: (month: number) => YearRanges["year"][string] | undefined;
  strong?: boolean;
  note?: boolean;
};

function Line({ label, view, of, range, strong, note }: LineProps) {
  return (
    <tr data-note={note || undefined}>
      <th scope="row">{label}</th>
      {view.first.map((first, month) => {
        const found = range?.(month);
        return (
          <td key={first}>
            {view.days[month] === 0 ? "" : strong ? <b>{of(month)}</b> : of(month)}
            {found && view.days[month]! > 0 && (
              <small>
                {short(found.low)}–<wbr />
                {short(found.high)}
              </small>
            )}
          </td>
        );
      })}
    </tr>
  );
}

/** Which of the two is short: the market for the money, or the money for the market. */
function whyOf(view: YearView, month: number): string {
  const [purse, spend, market] = [view.purse[month]!, view.spend[month]!, view.market[month]!];
  if (purse - spend >= 1) return "takes less";
  return market - purse >= 1 ? "could take more" : "";
}
