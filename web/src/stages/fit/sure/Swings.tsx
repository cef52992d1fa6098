import { useNavigate } from "react-router";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { useAsking } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import { ItemsAway } from "../../../parts/TakeAway";
import { A_NUMBER, count, number, parsed, percent } from "../../../parts/format";
import * as S from "./Sure.styles";

type Move = Schemas["HowSureView"]["moves"][number];
type Props = { moves: Move[] };

const names: Record<string, string> = {
  searches: "how many search",
  variants: "how many search something close",
  prices: "what clicks cost",
  "click rate": "how many click",
  conversion: "how many buy",
};

/** What moves the month, one input at a time, the widest first. */
export function Swings({ moves }: Props) {
  const { id, summary } = usePlan();
  const navigate = useNavigate();
  const { ask } = useAsking();
  const ends = moves.flatMap((move) => [move.customers_low, move.customers_high]);
  const [least, most] = [Math.min(0, ...ends), Math.max(1e-9, ...ends)];
  const at = (value: number) => `${(100 * (value - least)) / (most - least)}%`;
  const expected = summary.purse.customers;
  return (
    <section aria-label="What moves it">
      <S.Titled>
        <h2>What moves it, one input at a time</h2>
        <ItemsAway
          label="What moves the month"
          items={moves}
          columns={{
            input: (move) => move.input,
            "customers at its low": (move) => move.customers_low,
            "customers at its high": (move) => move.customers_high,
            "profit at its low": (move) => move.profit_low,
            "profit at its high": (move) => move.profit_high,
          }}
        />
      </S.Titled>
      {moves.map((move) => (
        <S.Bar key={move.input} $told={250}>
          <span>
            {names[move.input] ?? move.input}{" "}
            {move.assumption ? (
              <Spread
                name={move.assumption}
                spread={move.spread}
                of={names[move.input] ?? move.input}
              />
            ) : move.spread !== null ? (
              <small>± {percent(move.spread, 0)}, as results leave it</small>
            ) : (
              <TextButton onPress={() => void navigate(`/plan/${id}/brief`)}>
                the brief says
              </TextButton>
            )}
          </span>
          <div aria-hidden>
            <i
              style={{
                left: at(Math.min(move.customers_low, move.customers_high)),
                right: `calc(100% - ${at(Math.max(move.customers_low, move.customers_high))})`,
              }}
            />
            <u style={{ left: at(expected) }} />
          </div>
          <Traced onPress={() => ask({ kind: "sure", of: "move", name: move.input })}>
            {between(move.customers_low, move.customers_high, count)} customers,{" "}
            {between(move.profit_low, move.profit_high, number)} profit
          </Traced>
        </S.Bar>
      ))}
    </section>
  );
}

/** Two ends, the lower first, whichever the input's own end was. */
const between = (one: number, other: number, said: (value: number) => string) =>
  `${said(Math.min(one, other))} to ${said(Math.max(one, other))}`;

type SpreadProps = { name: string; spread: number | null; of: string };

/** How far an input is spread, changed where it acts. */
function Spread({ name, spread, of }: SpreadProps) {
  const { summary, changeAssumption } = usePlan();
  return (
    <Blank
      label={`Spread of ${of}, per cent`}
      value={`± ${percent(spread, 0)}`}
      assumed={!(name in summary.brief.assumptions)}
      onCommit={(text) => {
        if (text.trim() === "") return changeAssumption(name, null);
        const share = parsed(text);
        return share === null ? A_NUMBER : changeAssumption(name, share / 100);
      }}
    />
  );
}
