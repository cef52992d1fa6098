import { useState } from "react";
import type { Schemas } from "../../data/client";
import { usePlanChange } from "../../data/usePlanChange";
import { TextButton } from "../../parts/Button";
import { money, plural } from "../../parts/format";
import { usePlan } from "../../data/plan";
import * as L from "./ads/ads.styles";
import * as S from "./Arrange.styles";
import { AddSheet } from "./negatives/AddSheet";

type Props = {
  negatives: Schemas["NegativesView"]["negatives"];
  group: number;
  /** Texts that are left to groups that hold them as exact. */
  leaves: readonly string[];
};

/** What is blocked in this group alone. */
export function GroupNegatives({ negatives, group, leaves }: Props) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const [adding, setAdding] = useState(false);
  const { currency } = summary.brief.values;
  return (
    <L.Leaf>
      <L.Ways>
        <TextButton onPress={() => setAdding(true)}>add …</TextButton>
      </L.Ways>
      <S.Plain aria-label="Negatives of the group">
        {negatives.map((one) => (
          <li key={one.id}>
            <b>{one.text}</b> <S.Soft>{one.match}</S.Soft>{" "}
            <TextButton
              aria-label={`take out ${one.text}`}
              onPress={() => void send("post", "/negatives/remove", { ids: [one.id] })}
            >
              take out
            </TextButton>
            <br />
            <small>
              stops {plural(one.stops, "keyword")}
              {one.saves > 0 && `, saves ${money(one.saves)} ${currency} a month`}
              {one.hurt > 0 && `; hurts ${one.hurts.join(", ")}`}
            </small>
          </li>
        ))}
      </S.Plain>
      {leaves.length > 0 && (
        <p>
          {plural(leaves.length, "text")} {leaves.length === 1 ? "is" : "are"} left to the groups
          that hold {leaves.length === 1 ? "it" : "them"} as exact, and blocked here exactly at the
          platform: <S.Soft>{leaves.join(", ")}</S.Soft>
        </p>
      )}
      {negatives.length === 0 && <p>Nothing is blocked in this group alone.</p>}
      <AddSheet open={adding} onOpen={setAdding} start={`g${group}`} />
    </L.Leaf>
  );
}
