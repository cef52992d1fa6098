import { usePlan } from "../../data/plan";
import { ink, stepInks } from "../../look/tokens";
import { money, number, percent } from "../../parts/format";
import * as S from "./Brief.styles";

/** From a sale to a click: bars to scale, a hundred dots, the ceiling. */
export function Descent() {
  const { summary } = usePlan();
  const { worth, values } = summary.brief;
  const steps: [string, number][] = [
    ["a sale", worth.sale_value],
    ["kept after cost", worth.kept],
    [`with ${number(values.sales_per_customer, 1)} sales a customer`, worth.contribution],
    ["may go to ads, per customer", worth.allowed],
  ];
  const most = Math.max(...steps.map(([, value]) => value));
  const capped = values.max_cpc !== null && worth.ceiling === values.max_cpc;
  return (
    <S.Steps aria-label="From a sale to a click">
      <h2>From a sale to a click</h2>
      <p>{values.currency}, to scale</p>
      {steps.map(([label, value], at) => (
        <S.Step key={label}>
          <div style={{ width: `${Math.max((100 * value) / most, 2)}%`, background: stepInks[at] }}>
            {money(value)}
          </div>
          {label}
        </S.Step>
      ))}
      <S.Dots>
        {number(
          worth.rate * 100,
          Math.abs(worth.rate * 100 - Math.round(worth.rate * 100)) < 1e-9 ? 0 : 1,
        )}{" "}
        of 100 visitors buy
        <HundredDots buyers={worth.rate * 100} />
      </S.Dots>
      <S.Ceiling>
        <strong>{money(worth.ceiling)}</strong>
        <span>
          the ceiling: the most one click may cost
          {capped ? ", your own highest price" : ""}
          <br />
          break-even at {money(worth.break_even_cpc)}
        </span>
      </S.Ceiling>
      <S.Say>
        If only {percent(worth.rate_low)} of visitors buy, the ceiling is {money(worth.ceiling_low)}
        ; if {percent(worth.rate_high)} do, {money(worth.ceiling_high)}.
      </S.Say>
    </S.Steps>
  );
}

type DotsProps = { buyers: number };

function HundredDots({ buyers }: DotsProps) {
  const whole = Math.floor(buyers);
  const part = buyers - whole;
  return (
    <svg viewBox="0 0 400 62" role="img" aria-label={`${number(buyers, 1)} of 100 dots filled`}>
      {Array.from({ length: 100 }, (_, at) => {
        const [x, y] = [8 + (at % 25) * 16, 8 + Math.floor(at / 25) * 15];
        const fill = at < whole ? 1 : at === whole ? part : 0;
        return (
          <g key={at}>
            <circle cx={x} cy={y} r={4.6} fill="none" stroke={ink.petalMid} />
            {fill > 0 && <circle cx={x} cy={y} r={4.6 * Math.sqrt(fill)} fill={ink.petal} />}
          </g>
        );
      })}
    </svg>
  );
}
