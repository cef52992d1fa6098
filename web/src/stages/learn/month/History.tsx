import { daySaid } from "../../../parts/days";
import { count, money, number, plural } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { History as Months } from "../view";

type Props = { history: Months | undefined; currency: string };
type Month = Months["months"][number];
type Change = Month["changes"][number];

const said: Record<Change["change"], (n: number) => string> = {
  raised: (n) => `${plural(n, "bid")} raised`,
  lowered: (n) => `${plural(n, "bid")} lowered`,
  stopped: (n) => `${plural(n, "keyword")} stopped`,
  added: (n) => `${plural(n, "keyword")} added`,
  same: (n) => `${plural(n, "keyword")} left as ${n === 1 ? "it was" : "they were"}`,
};

/** Month by month: what each brought, what was changed for it, and what that did. */
export function History({ history, currency }: Props) {
  if (!history || history.months.length < 2) return null;
  return (
    <S.Table>
      <caption>
        Month by month, and what each change did: before → after, in 30 days. What was left as it
        was shows how the months themselves differ.
      </caption>
      <thead>
        <tr>
          <th scope="col">month</th>
          <th scope="col">spent, {currency}</th>
          <th scope="col">clicks</th>
          <th scope="col">customers</th>
          <th scope="col">a customer, {currency}</th>
          <th scope="col">keywords that ran</th>
          <th scope="col">negatives</th>
        </tr>
      </thead>
      {history.months.map((month) => (
        <tbody key={month.first}>
          <Line month={month} />
          {month.changes.map((change) => (
            <Done key={change.change} change={change} />
          ))}
        </tbody>
      ))}
    </S.Table>
  );
}

function Line({ month }: { month: Month }) {
  return (
    <tr>
      <th scope="row">
        {daySaid(month.first)} to {daySaid(month.last)}
        {month.version && <small>{month.version}</small>}
      </th>
      <td data-number>{money(month.spend)}</td>
      <td data-number>{number(month.clicks)}</td>
      <td data-number>{count(month.customers)}</td>
      <td data-number>{month.customers > 0 ? money(month.spend / month.customers) : "–"}</td>
      <td data-number>{number(month.running)}</td>
      <td data-number>{number(month.negatives)}</td>
    </tr>
  );
}

function Done({ change }: { change: Change }) {
  const { before, after } = change;
  return (
    <tr>
      <th scope="row">
        <small>{said[change.change](change.keywords)}</small>
      </th>
      <td data-number>
        {money(before.spend)} → {money(after.spend)}
      </td>
      <td data-number>
        {number(before.clicks)} → {number(after.clicks)}
      </td>
      <td data-number>
        {count(before.customers)} → {count(after.customers)}
      </td>
      <td colSpan={3} />
    </tr>
  );
}
