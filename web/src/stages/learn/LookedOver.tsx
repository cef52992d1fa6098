import { Link } from "react-router";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { NotYet } from "../../parts/NotYet";
import { ItemsAway } from "../../parts/TakeAway";
import { money } from "../../parts/format";
import * as S from "./Learn.styles";

/** The running account looked over: most money first, then what the checks say, each with its place. */
export function LookedOver() {
  const { id, summary } = usePlan();
  const found = usePlanQuery("/learn/account");
  if (!found.data)
    return (
      <S.Quiet>
        <NotYet of={found}>Looking the account over …</NotYet>
      </S.Quiet>
    );
  const { found: findings } = found.data;
  if (findings.length === 0) return <S.Quiet>Nothing stands out.</S.Quiet>;
  return (
    <S.Page>
      <S.Table>
        <caption>
          What stands out: most money first, then conflicts and last checks in order of harm{" "}
          <ItemsAway
            label="The account looked over"
            items={findings}
            columns={{
              finding: (one) => one.text,
              money: (one) => one.money,
              about: (one) => one.names.join(", "),
              stage: (one) => one.stage,
            }}
          />
        </caption>
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">money, {summary.brief.values.currency}</th>
            <th scope="col">mend it in</th>
          </tr>
        </thead>
        <tbody>
          {findings.map((one) => (
            <tr key={one.text}>
              <th scope="row">
                {one.text}
                {one.names.length > 0 && <small>{one.names.join(", ")}</small>}
              </th>
              <td data-number>{one.money === null ? "" : money(one.money)}</td>
              <td>
                <Link
                  to={`/plan/${id}/${one.stage}`}
                  aria-label={`${one.stage.replace("-", " ")}: ${one.text}`}
                >
                  {one.stage.replace("-", " ")}
                </Link>
              </td>
            </tr>
          ))}
        </tbody>
      </S.Table>
    </S.Page>
  );
}
