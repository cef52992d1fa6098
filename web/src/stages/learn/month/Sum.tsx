import { delta, money } from "../../../parts/format";
import * as S from "../Learn.styles";

const names: Record<string, string> = {
  planned: "planned for these days",
  searches: "how many searched",
  reach: "won by the bid",
  money: "shown while the money lasted",
  showings: "how often it was shown",
  click_rate: "how readily it was clicked",
  price: "what a click cost",
  conversion: "how many of them bought",
  unplanned: "what ran and was not planned",
  late: "not yet reported",
  reported: "reported",
  actual: "spent",
};

type SumProps = {
  title: string;
  days: string;
  parts: Record<string, number>;
};

/** A sum that adds up: what was planned, each part, and what came. */
export function Sum({ title, days, parts }: SumProps) {
  const entries = Object.entries(parts);
  const most = Math.max(...entries.slice(1, -1).map(([, value]) => Math.abs(value)), 1e-9);
  return (
    <S.SumTable aria-label={title}>
      <caption>
        {title} <small>{days}</small>
      </caption>
      <tbody>
        {entries.map(([name, value], at) => {
          const ends = at === 0 || at === entries.length - 1;
          return (
            <tr key={name} data-end={ends || undefined}>
              <th scope="row">{names[name] ?? name}</th>
              <td>{ends ? money(value) : delta(value, 2) || "0"}</td>
              <td aria-hidden>
                {!ends && (
                  <i
                    data-less={value < 0 || undefined}
                    style={{ width: `${(Math.abs(value) / most) * 80}px` }}
                  />
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </S.SumTable>
  );
}
