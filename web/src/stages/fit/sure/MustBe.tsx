import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { useAsking } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import { ItemsAway } from "../../../parts/TakeAway";
import { money, number, percent } from "../../../parts/format";
import * as S from "./Sure.styles";

type Must = Schemas["HowSureView"]["must"][number];
type Turn = Must["rule"];
type Props = { must: Must[] };

const names: Record<Must["input"], string> = {
  conversion: "customers per click",
  prices: "click prices",
  searches: "searches",
  "click rate": "click rates",
  "sale value": "one sale",
  margin: "the margin",
};

/** At which value of each input, alone, the plan stops to pay. */
export function MustBe({ must }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const { currency } = summary.brief.values;
  if (must.length === 0) return null;
  const valued = (input: Must["input"], value: number) =>
    input === "sale value"
      ? `${money(value)} ${currency}`
      : percent(value, input === "conversion" ? 2 : 0);
  const said = (one: Must, turn: Turn) => {
    if (turn.times === null) return <span>no value would</span>;
    const far =
      turn.value === null
        ? `${percent(Math.abs(turn.times - 1), 0)} ${turn.times < 1 ? "lower" : "higher"}`
        : valued(one.input, turn.value);
    return (
      <>
        <b>{far}</b>
        <small>{turn.chance === null ? "" : chanceSaid(turn.chance)}</small>
      </>
    );
  };
  return (
    <section aria-label="What would have to be true">
      <S.Titled>
        <h2>What would have to be true</h2>
        <ItemsAway
          label="What would have to be true"
          items={must}
          columns={{
            input: (one) => names[one.input],
            now: (one) => one.now,
            "just meets the rule, times": (one) => one.rule.times,
            "breaks even, times": (one) => one.even.times,
            "under one customer, times": (one) => one.nothing.times,
          }}
        />
      </S.Titled>
      <p>
        One input moved by itself, every bid as it is; beside each how likely the draws think a
        value beyond it is.
      </p>
      <S.Table>
        <thead>
          <tr>
            <th scope="col">input</th>
            <th scope="col">now</th>
            <th scope="col">the rule is just met at</th>
            <th scope="col">it breaks even at</th>
            <th scope="col">under one customer a month at</th>
          </tr>
        </thead>
        <tbody>
          {must.map((one) => (
            <tr key={one.input}>
              <th scope="row">
                <Traced onPress={() => ask({ kind: "sure", of: "must", name: one.input })}>
                  {names[one.input]}
                </Traced>
              </th>
              <td>{one.now === null ? "as read" : valued(one.input, one.now)}</td>
              <td>{said(one, one.rule)}</td>
              <td>{said(one, one.even)}</td>
              <td>{said(one, one.nothing)}</td>
            </tr>
          ))}
        </tbody>
      </S.Table>
    </section>
  );
}

function chanceSaid(chance: number): string {
  if (chance < 1 / 1000) return "hardly ever";
  return chance < 1 / 100 ? `1 in ${number(1 / chance)}` : `${percent(chance, 0)} likely`;
}
