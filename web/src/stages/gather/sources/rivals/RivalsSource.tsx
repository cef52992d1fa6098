import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, uploadOf, taken, type Schemas } from "../../../../data/client";
import { usePlanQuery } from "../../../../data/usePlanQuery";
import { Button } from "../../../../parts/Button";
import { Small } from "../../../../parts/Screen";
import type { Brought } from "../../tray";
import * as S from "../../Gather.styles";
import { RefusedRows } from "../../RefusedRows";
import { useReading } from "../../useReading";
import { ChooseFile } from "../ChooseFile";
import { RivalsTable } from "./RivalsTable";

type Rivals = Schemas["RivalsView"];
type Props = { onTray: Brought };

/** What rivals pay for, held against the plan. */
export function RivalsSource({ onTray }: Props) {
  const { busy, read, path } = useReading();
  const queries = useQueryClient();
  const [rival, setRival] = useState<string | null>(null);
  const [refused, setRefused] = useState<Rivals["refused"]>([]);
  const held = usePlanQuery("/gather/rivals", { query: { rival } });
  const view = held.data ?? null;
  const bring = (came: Rivals) => {
    setRefused(came.refused);
    setRival(null);
    return queries.invalidateQueries({ queryKey: ["/gather/rivals"] });
  };
  const readFile = (file: File) =>
    read(
      file.name,
      () =>
        taken(client.POST("/api/plans/{plan_id}/gather/rivals", { ...path, ...uploadOf(file) })),
      (came) => void bring(came),
    );
  const sample = () =>
    read(
      "the sample",
      () => taken(client.POST("/api/plans/{plan_id}/gather/rivals/sample", path)),
      (came) => void bring(came),
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
            : "Columns: rival, keyword; and month (a row a month) or first seen, last seen; cpc, clicks, cost, position, share, share of clicks, ad, page"}
        </Small>
      </S.Line>
      <RefusedRows rows={refused} />
      {view && (
        <RivalsTable
          view={view}
          busy={busy !== null}
          onTake={(texts) => void take(texts)}
          onRival={setRival}
        />
      )}
    </S.Fill>
  );
}
