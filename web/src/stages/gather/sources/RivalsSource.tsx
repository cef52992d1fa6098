import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, uploadOf, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Button } from "../../../parts/Button";
import { Small } from "../../../parts/Screen";
import type { Brought } from "../Gather";
import * as S from "../Gather.styles";
import { RefusedRows } from "../RefusedRows";
import { useReading } from "../useReading";
import { ChooseFile } from "./ChooseFile";
import { RivalsTable } from "./RivalsTable";

type Rivals = Schemas["RivalsView"];
type Props = { onTray: Brought };

/** What rivals pay for, held against the plan. */
export function RivalsSource({ onTray }: Props) {
  const { frame } = usePlan();
  const { busy, read, path } = useReading();
  const [brought, setBrought] = useState<Rivals | null>(null);
  const held = useQuery({
    queryKey: ["rivals", path.params.path.plan_id, frame.revision],
    queryFn: () => taken(client.GET("/api/plans/{plan_id}/gather/rivals", path)).catch(() => null),
  });
  const view = brought ?? held.data ?? null;
  const readFile = (file: File) =>
    read(
      file.name,
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/rivals", {
            ...path,
            ...uploadOf(file),
          }),
        ),
      setBrought,
    );
  const sample = () =>
    read(
      "the sample",
      () => taken(client.POST("/api/plans/{plan_id}/gather/rivals/sample", path)),
      setBrought,
    );
  const take = (texts: string[]) =>
    read(
      "the rivals",
      () =>
        taken(client.POST("/api/plans/{plan_id}/gather/rivals/tray", { ...path, body: { texts } })),
      (tray) => onTray(tray),
    );
  return (
    <S.Fill>
      <h2>Rivals</h2>
      <S.Line>
        <ChooseFile
          name="Choose a list …"
          busy={busy !== null}
          onFile={(file) => void readFile(file)}
        />
        <Button isDisabled={busy !== null} onPress={() => void sample()}>
          Three invented rivals
        </Button>
        <Small>
          {view
            ? `${view.name}: ${view.rivals.join(", ")}`
            : "Columns: rival, keyword; and cpc, clicks, cost, position, share, first seen, last seen, ad"}
        </Small>
      </S.Line>
      {brought && <RefusedRows rows={brought.refused} />}
      {view && (
        <RivalsTable view={view} busy={busy !== null} onTake={(texts) => void take(texts)} />
      )}
    </S.Fill>
  );
}
