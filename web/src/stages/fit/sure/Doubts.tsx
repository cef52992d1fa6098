import type { Schemas } from "../../../data/client";
import { useAsking } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import { ItemsAway } from "../../../parts/TakeAway";
import { number, percent } from "../../../parts/format";
import * as S from "./Sure.styles";

type Props = { groups: Schemas["HowSureView"]["groups"] };

/** Which groups hold most of the month's doubt. */
export function Doubts({ groups }: Props) {
  const { ask } = useAsking();
  const most = Math.max(1e-9, ...groups.map((group) => group.share));
  if (groups.length === 0) return null;
  return (
    <section aria-label="Where the doubt lies">
      <S.Titled>
        <h2>Where the doubt lies</h2>
        <ItemsAway
          label="Where the doubt lies"
          items={groups}
          columns={{
            group: (group) => group.name,
            "share of the doubt": (group) => group.share,
            "customers, low": (group) => group.low,
            "customers, middle": (group) => group.middle,
            "customers, high": (group) => group.high,
          }}
        />
      </S.Titled>
      {groups.map((group) => (
        <S.Bar key={group.key} $told={145}>
          <span>{group.name}</span>
          <div aria-hidden>
            <i style={{ left: 0, right: `${100 - (100 * Math.max(group.share, 0)) / most}%` }} />
          </div>
          <Traced onPress={() => ask({ kind: "sure", of: "doubt", name: group.key })}>
            {percent(Math.max(group.share, 0), 0)}; {number(group.low)} to {number(group.high)}{" "}
            customers
          </Traced>
        </S.Bar>
      ))}
    </section>
  );
}
