import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useActions } from "../../../app/actions";
import { client, taken } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { useSaying } from "../../../data/saying";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { MainButton, TextButton } from "../../../parts/Button";
import { Differences } from "./Differences";
import { SideBySide } from "./SideBySide";
import * as S from "./Versions.styles";
import { nameOf, type Version } from "./version";

type Props = { family: Version[] };

const sideBySide = 4;

/** The plan and its versions side by side: what each brings, how sure that is, what differs. */
export function Versions({ family }: Props) {
  const { id } = usePlan();
  const [hidden, setHidden] = useState<ReadonlySet<number>>(new Set());
  const make = useMaking();
  useActions([{ name: "Make a version of the plan as it stands", keys: ["y"], run: make }]);
  const others = family.filter((one) => one.id !== id);
  const shown = others.filter((one) => !hidden.has(one.id)).slice(0, sideBySide - 1);
  const revisions = family.map((one) => `${one.id}.${one.revision}`).join(" ");
  const asked = { query: { with: shown.map((one) => one.id) }, of: revisions };
  const sides = usePlanQuery("/compare", asked).data?.sides ?? [];
  const toggle = (version: number) =>
    setHidden((now) => {
      const next = new Set(now);
      if (!next.delete(version)) next.add(version);
      return next;
    });
  return (
    <S.Page>
      <S.Bar>
        <MainButton onPress={make}>
          <kbd>y</kbd> make a version
        </MainButton>
        <span>
          {others.length === 0
            ? "A copy of the plan as it stands, with a name and a reason. Change it as you like; the plan stays as it is, and the two stand here side by side."
            : "A copy of what is open now. Each keeps its own calls, groups, bids and history."}
        </span>
        {others.length >= sideBySide && (
          <S.Chosen aria-label="Which stand side by side">
            {others.map((one) => (
              <TextButton
                key={one.id}
                aria-pressed={shown.includes(one)}
                onPress={() => toggle(one.id)}
              >
                {nameOf(one)}
              </TextButton>
            ))}
          </S.Chosen>
        )}
      </S.Bar>
      <SideBySide family={family} sides={sides} revisions={revisions} />
      <Differences family={family} sides={sides.slice(1)} />
    </S.Page>
  );
}

/** Makes a version of the plan and says so; the plan stays open. */
function useMaking(): () => void {
  const { id } = usePlan();
  const queries = useQueryClient();
  const { say, complain } = useSaying();
  return () => {
    const path = { params: { path: { plan_id: id } }, body: { label: "", reason: "" } };
    taken<{ id: number }>(client.POST("/api/plans/{plan_id}/versions", path)).then(
      async () => {
        await queries.invalidateQueries({ queryKey: ["/versions"] });
        await queries.invalidateQueries({ queryKey: ["plans"] });
        say("made a version of the plan as it stands");
      },
      (error: unknown) => complain(error),
    );
  };
}
