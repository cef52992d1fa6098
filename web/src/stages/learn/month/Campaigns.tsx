import { money, number, percent } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { LearnView } from "../view";

type Props = { view: LearnView; currency: string };

/** Each campaign of the month against its daily budget. */
export function Campaigns({ view, currency }: Props) {
  const campaigns = view.month?.campaigns ?? [];
  if (campaigns.length === 0) return null;
  return (
    <S.Table>
      <caption>Campaigns this month, against their daily budgets</caption>
      <thead>
        <tr>
          <th scope="col">campaign</th>
          <th scope="col">a day, {currency}</th>
          <th scope="col">spent, {currency}</th>
          <th scope="col">customers</th>
          <th scope="col">days its money was gone</th>
          <th scope="col">searches missed for money</th>
        </tr>
      </thead>
      <tbody>
        {campaigns.map((one) => (
          <tr key={one.name}>
            <th scope="row">{one.name}</th>
            <td data-number>{money(one.daily)}</td>
            <td data-number>{money(one.spend)}</td>
            <td data-number>{number(one.customers)}</td>
            <td data-number>
              {number(one.cut)} of {number(one.days)}
            </td>
            <td data-number>{percent(one.lost)}</td>
          </tr>
        ))}
      </tbody>
    </S.Table>
  );
}
