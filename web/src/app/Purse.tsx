import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import type { FigureName, Summary } from "../data/client";
import { usePlan } from "../data/plan";
import { useTriedPurse } from "../data/whatIf";
import { groupInks } from "../look/tokens";
import { brought, count, currencyWord, delta, money, number } from "../parts/format";
import * as S from "./Purse.styles";
import { useAsking } from "./asked";
import { useRanges, type Ranges } from "./useRanges";

type PurseFigures = Summary["purse"];
type Shown = {
  name: FigureName;
  label: string;
  digits: number;
  of: (purse: PurseFigures) => number | null;
};

const figures: Shown[] = [
  { name: "clicks", label: "clicks a month", digits: 0, of: (p) => p.clicks },
  { name: "customers", label: "customers a month", digits: 1, of: (p) => p.customers },
  { name: "cost_per_customer", label: "a customer", digits: 2, of: (p) => p.cost_per_customer },
  { name: "profit", label: "profit a month", digits: 0, of: (p) => p.profit },
];
const shownSeconds = 5;

/** The month's money, at the foot of every screen, with what the plan does with it. */
export function Purse() {
  const { summary, id } = usePlan();
  const { ask } = useAsking();
  const navigate = useNavigate();
  const tried = useTriedPurse();
  const purse = tried ?? summary.purse;
  const currency = summary.brief.values.currency;
  const kept = useChanges(summary);
  const changes = tried ? movesOf(summary.purse, tried) : kept;
  const { ranges, late } = useRanges(summary);
  const over = purse.spend > purse.purse * 1.000001;
  return (
    <S.Band aria-label="Purse" data-tried={tried !== null || undefined}>
      <S.Money>
        <S.Line>
          <S.Figure onPress={() => ask({ kind: "figure", name: "spend" })}>
            {tried && "if kept: "}
            <b>{money(purse.spend)}</b> of {money(purse.purse)} {currency} a month
            <S.Wide>, {money(purse.per_day)} a day</S.Wide>
            {!tried && !late && ranges && <S.Widest>{probably(ranges, purse.purse)}</S.Widest>}
          </S.Figure>
          <S.Figure onPress={() => ask({ kind: "figure", name: "next_unit" })}>
            {purse.next_unit > 0
              ? `next ${currencyWord(currency)} brings ${nextBrings(purse)}`
              : `the next ${currencyWord(currency)} brings nothing more`}
          </S.Figure>
        </S.Line>
        <S.Track onPress={() => void navigate(`/plan/${id}/fit`)}>
          <span className="unseen">Open Fit: </span>
          {purse.segments.map((segment, at) => (
            <S.Segment
              key={`${segment.id} ${segment.spot_id}`}
              style={{ width: `${(100 * segment.spend) / Math.max(purse.purse, purse.spend, 1)}%` }}
            >
              <span>
                {segment.name} <b>{number(segment.spend)}</b>
              </span>
              <i style={{ background: groupInks[at % groupInks.length] }} />
            </S.Segment>
          ))}
          {!over && (
            <S.Free>
              {purse.segments.length === 0 && <span>{purse.notices[0]}</span>}
              <i />
            </S.Free>
          )}
        </S.Track>
      </S.Money>
      {figures.map((figure) => {
        const value = figure.of(purse);
        return (
          <S.Total key={figure.name} onPress={() => ask({ kind: "figure", name: figure.name })}>
            <span>
              <strong>{figure.digits === 1 ? count(value) : number(value, figure.digits)}</strong>
              <em data-good={isGood(figure.name, changes[figure.name] ?? 0) || undefined}>
                {delta(changes[figure.name] ?? 0, figure.digits)}
              </em>
            </span>
            <small>
              {figure.label}
              {!tried && between(ranges, figure) && (
                <S.Between data-late={late || undefined} title="8 months in 10 lie between">
                  {between(ranges, figure)}
                </S.Between>
              )}
            </small>
          </S.Total>
        );
      })}
    </S.Band>
  );
}

/** A budget is not a spend: what of the purse will go in the middle of the draws. */
function probably(ranges: Ranges, purse: number): string {
  const middle = ranges.figures.spend?.middle;
  return middle == null || purse <= 0 ? "" : `; probably ${number(middle)} will go`;
}

function between(ranges: Ranges | undefined, figure: Shown): string {
  const range = ranges?.figures[figure.name];
  if (!range || range.low === null) return "";
  const digits = figure.name === "cost_per_customer" && range.low < 100 ? 1 : 0;
  const high = range.high === null ? "∞" : number(range.high, digits);
  return `${number(range.low, digits)} to ${high}`;
}

function nextBrings(purse: PurseFigures): string {
  return `${brought(purse.next_unit)} ${purse.goal}`;
}

const change = (before: number | null, after: number | null) =>
  before === null || after === null ? 0 : after - before;

const isGood = (name: FigureName, change: number) =>
  name === "cost_per_customer" ? change < 0 : change > 0;

const movesOf = (from: PurseFigures, to: PurseFigures): Changes =>
  Object.fromEntries(figures.map((f) => [f.name, change(f.of(from), f.of(to))]));

type Changes = Partial<Record<FigureName, number>>;

/** By how much each figure moved with the last change, for a few seconds. */
function useChanges(summary: Summary): Changes {
  const [held, setHeld] = useState<{ summary: Summary; changes: Changes }>({
    summary,
    changes: {},
  });
  if (held.summary !== summary) setHeld({ summary, changes: changesOf(held.summary, summary) });
  const { revision } = summary;
  useEffect(() => {
    const timer = window.setTimeout(
      () => setHeld((now) => ({ ...now, changes: {} })),
      shownSeconds * 1000,
    );
    return () => window.clearTimeout(timer);
  }, [revision]);
  return held.changes;
}

function changesOf(old: Summary, now: Summary): Changes {
  return old.revision === now.revision || old.plan_id !== now.plan_id
    ? {}
    : movesOf(old.purse, now.purse);
}
