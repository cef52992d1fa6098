import { money, number, plural } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { LearnView } from "../view";

type Props = { view: LearnView; currency: string };

/** Rows of the results that are no keyword of the plan, codes of things apart from words. */
export function Unmatched({ view, currency }: Props) {
  const words = view.unmatched.filter((one) => !one.item);
  const codes = view.unmatched.filter((one) => one.item);
  const said = `${plural(view.unmatched_rows, "row")} are no keyword of the plan; the dearest first`;
  return (
    <>
      {words.length > 0 && <Rows caption={said} rows={words} currency={currency} nearest />}
      {codes.length > 0 && (
        <Rows caption="codes of things among them" rows={codes} currency={currency} />
      )}
    </>
  );
}

type RowsProps = {
  caption: string;
  rows: LearnView["unmatched"];
  currency: string;
  nearest?: boolean;
};

function Rows({ caption, rows, currency, nearest }: RowsProps) {
  return (
    <S.Table>
      <caption>{caption}</caption>
      <thead>
        <tr>
          <th scope="col">in the results</th>
          <th scope="col">clicks</th>
          <th scope="col">spent, {currency}</th>
          <th scope="col">customers</th>
          {nearest && <th scope="col">nearest in the plan</th>}
        </tr>
      </thead>
      <tbody>
        {rows.map((one) => (
          <tr key={`${one.keyword} ${one.match}`}>
            <th scope="row">
              {one.keyword || "(nothing)"}
              <small>{one.match}</small>
            </th>
            <td data-number>{number(one.clicks)}</td>
            <td data-number>{money(one.cost)}</td>
            <td data-number>{number(one.customers)}</td>
            {nearest && <td>{one.nearest ?? "–"}</td>}
          </tr>
        ))}
      </tbody>
    </S.Table>
  );
}
