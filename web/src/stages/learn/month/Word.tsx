import type { UseQueryResult } from "@tanstack/react-query";
import { NotYet } from "../../../parts/NotYet";
import { count, money, number } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { OurWord } from "../view";

type Props = { asked: UseQueryResult<OurWord>; currency: string };
type Figure = OurWord["months"][number]["figures"][number];

const names: Record<Figure["figure"], string> = {
  clicks: "clicks",
  spend: "money",
  customers: "customers",
  cost_per_customer: "a customer",
  profit: "profit",
};
const shown: Record<Figure["figure"], (value: number | null) => string> = {
  clicks: (value) => number(value),
  spend: money,
  customers: count,
  cost_per_customer: money,
  profit: money,
};

/** Our word so far: every range that was given for a month, and whether it held. */
export function Word({ asked, currency }: Props) {
  const word = asked.data;
  if (!word)
    return (
      <p role="status">
        <S.Faint>
          <NotYet of={asked}>Drawing what was promised of each month …</NotYet>
        </S.Faint>
      </p>
    );
  if (word.months.length === 0) return null;
  const ended = word.months.filter((month) => month.ended).flatMap((month) => month.figures);
  const held = ended.filter((figure) => figure.held).length;
  const figures = word.months[0]!.figures.map((figure) => figure.figure);
  return (
    <S.Table>
      <caption>
        Our word so far, 8 months of 10
        {ended.length > 0 && `: ${number(held)} of ${number(ended.length)} ranges held`}. What came
        stands under each range.
      </caption>
      <thead>
        <tr>
          <th scope="col">month</th>
          {figures.map((figure) => (
            <th scope="col" key={figure}>
              {names[figure]}
              {shown[figure] === money && `, ${currency}`}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {word.months.map((month) => (
          <tr key={month.first}>
            <th scope="row">
              {month.first} to {month.last}
              <small>
                {[
                  month.version,
                  month.afterwards ? "before the plan began: said afterwards" : "",
                  month.ended ? "" : "not over yet",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </small>
            </th>
            {month.figures.map((figure) => (
              <td key={figure.figure}>
                {shown[figure.figure](figure.low)} – {range(figure)}
                <S.Held data-held={figure.held || undefined}>
                  {figure.actual === null ? "nobody" : shown[figure.figure](figure.actual)}{" "}
                  {figure.held ? "held" : "did not hold"}
                </S.Held>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </S.Table>
  );
}

const range = (figure: Figure): string =>
  figure.high === null ? "without bound" : shown[figure.figure](figure.high);
