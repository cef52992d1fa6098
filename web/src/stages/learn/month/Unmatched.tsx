import { money, number, plural } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { LearnView } from "../view";

type Props = { view: LearnView; currency: string };

/** Rows of the results that are no keyword of the plan, with the nearest that is. */
export function Unmatched({ view, currency }: Props) {
  if (view.unmatched.length === 0) return null;
  return (
    <S.Table>
      <caption>
        {plural(view.unmatched_rows, "row")} are no keyword of the plan; the dearest first
      </caption>
      <thead>
        <tr>
          <th scope="col">in the results</th>
          <th scope="col">clicks</th>
          <th scope="col">spent, {currency}</th>
          <th scope="col">customers</th>
          <th scope="col">nearest in the plan</th>
        </tr>
      </thead>
      <tbody>
        {view.unmatched.map((one) => (
          <tr key={`${one.keyword} ${one.match}`}>
            <th scope="row">
              {one.keyword || "(nothing)"}
              <small>{one.match}</small>
            </th>
            <td data-number>{number(one.clicks)}</td>
            <td data-number>{money(one.cost)}</td>
            <td data-number>{number(one.customers)}</td>
            <td>{one.nearest ?? "–"}</td>
          </tr>
        ))}
      </tbody>
    </S.Table>
  );
}
