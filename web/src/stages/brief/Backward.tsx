import { usePlan } from "../../data/plan";
import { money, number } from "../../parts/format";
import * as S from "./Brief.styles";

/** The same read backwards: at a click price, one click in how many must buy. */
export function Backward() {
  const { summary } = usePlan();
  const { backward } = summary.brief;
  return (
    <S.Table>
      <caption>Read backwards: how few clicks may pass for one customer</caption>
      <thead>
        <tr>
          <th scope="col">at a click price of, {summary.brief.values.currency}</th>
          {backward.map((column) => (
            <th scope="col" key={column.price}>
              {money(column.price)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">to meet your rule, one click in</th>
          {backward.map((column) => (
            <td key={column.price} data-missed={!column.meets_rule || undefined}>
              {number(column.rule)}
              {!column.meets_rule && " ✕"}
            </td>
          ))}
        </tr>
        <tr>
          <th scope="row">to break even, one in</th>
          {backward.map((column) => (
            <td key={column.price} data-missed={!column.breaks_even || undefined}>
              {number(column.break_even)}
              {!column.breaks_even && " ✕"}
            </td>
          ))}
        </tr>
        <tr>
          <th scope="row">you expect one in</th>
          {backward.map((column) => (
            <td key={column.price}>{number(column.expected)}</td>
          ))}
        </tr>
      </tbody>
    </S.Table>
  );
}
