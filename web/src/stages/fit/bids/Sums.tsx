import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { NotYet } from "../../../parts/NotYet";
import { ItemsAway } from "../../../parts/TakeAway";
import { count, money, number, percent } from "../../../parts/format";
import * as S from "./Panels.styles";

type Props = { by: "group" | "campaign" };

/** Groups or campaigns in sum: what they win, what they miss, what they bring and cost. */
export function Sums({ by }: Props) {
  const { summary } = usePlan();
  const found = usePlanQuery("/fit/sums", { query: { by } });
  const view = found.data;
  if (!view)
    return (
      <S.Panel>
        <NotYet of={found}>Adding up …</NotYet>
      </S.Panel>
    );
  const rows = view.name.map((name, at) => ({ name, at }));
  const { currency } = summary.brief.values;
  if (rows.length === 0) return <S.Panel>No keyword is kept yet.</S.Panel>;
  return (
    <S.Tall
      tabIndex={0}
      role="region"
      aria-label={by === "group" ? "Groups in sum" : "Campaigns in sum"}
    >
      <S.Figures>
        <thead>
          <tr>
            <th scope="col">
              <span>{by === "group" ? "Ad group" : "Campaign"}</span>
              <ItemsAway
                label={by === "group" ? "Groups in sum" : "Campaigns in sum"}
                items={rows}
                columns={{
                  name: (row) => row.name,
                  running: ({ at }) => view.running[at]!,
                  searches: ({ at }) => view.searches[at]!,
                  "not won": ({ at }) => view.not_won[at]!,
                  unshown: ({ at }) => view.unshown[at]!,
                  clicks: ({ at }) => view.clicks[at]!,
                  customers: ({ at }) => view.customers[at]!,
                  spend: ({ at }) => view.spend[at]!,
                  profit: ({ at }) => view.profit[at]!,
                }}
              />
            </th>
            <th scope="col">keywords run</th>
            <th scope="col">searches</th>
            <th scope="col">reach</th>
            <th scope="col">not won at these bids</th>
            <th scope="col">unshown for want of money</th>
            <th scope="col">clicks</th>
            <th scope="col">customers</th>
            <th scope="col">spend, {currency}</th>
            <th scope="col">profit, {currency}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, at }) => (
            <tr key={view.id[at] ?? "none"}>
              <th scope="row">{name}</th>
              <td>
                {number(view.running[at])} of {number(view.keywords[at])}
              </td>
              <td>{number(view.searches[at])}</td>
              <td>{percent(view.reach[at], 0)}</td>
              <td>{number(view.not_won[at])}</td>
              <td>{number(view.unshown[at])}</td>
              <td>{count(view.clicks[at])}</td>
              <td>{count(view.customers[at])}</td>
              <td>{money(view.spend[at])}</td>
              <td>{money(view.profit[at])}</td>
            </tr>
          ))}
        </tbody>
      </S.Figures>
    </S.Tall>
  );
}
