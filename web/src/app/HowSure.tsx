import type { FigureName } from "../data/client";
import { usePlan } from "../data/plan";
import { number, percent } from "../parts/format";
import * as S from "./Workings.styles";
import { useRanges, type Ranges } from "./useRanges";

type Props = { figure: FigureName };

/** How wide a figure of the purse is, and why: from the month drawn many times over. */
export function HowSure({ figure }: Props) {
  const { summary } = usePlan();
  const { ranges, late } = useRanges(summary);
  const range = ranges?.figures[figure];
  if (!ranges || !range) return null;
  const digits = figure === "cost_per_customer" ? 2 : 0;
  const said = (value: number | null) => (value === null ? "nobody buys" : number(value, digits));
  const rows: [string, string][] = [
    ["1 month in 10 under", said(range.low)],
    ["the middle month", said(range.middle)],
    ["1 month in 10 over", said(range.high)],
    ["chance of a profit", percent(ranges.profit_chance, 0)],
    ["chance of no customer", percent(ranges.no_customer_chance, 0)],
    ["chance the money is out early", percent(ranges.early_chance, 0)],
    ...(ranges.early_day === null
      ? []
      : [["… then about day", number(ranges.early_day)] as [string, string]]),
    ["what moves customers most", mostMoving(ranges, "customers")],
    ["what moves profit most", mostMoving(ranges, "profit")],
  ];
  return (
    <S.Sum style={{ opacity: late ? 0.5 : 1 }}>
      <h3>How sure is it: the month drawn {number(ranges.draws)} times</h3>
      <dl>
        {rows.map(([label, value]) => (
          <S.Row key={label}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </S.Row>
        ))}
      </dl>
    </S.Sum>
  );
}

function mostMoving(ranges: Ranges, of: "customers" | "profit"): string {
  const span = (move: Ranges["moves"][number]) => [move[`${of}_low`], move[`${of}_high`]] as const;
  const width = (move: Ranges["moves"][number]) => Math.abs(span(move)[1] - span(move)[0]);
  const most = ranges.moves.reduce((a, b) => (width(b) > width(a) ? b : a));
  if (width(most) === 0) return "nothing yet";
  const digits = of === "customers" ? 1 : 0;
  const [low, high] = span(most).toSorted((a, b) => a - b);
  return `${most.input}, ${number(low, digits)} to ${number(high, digits)}`;
}
