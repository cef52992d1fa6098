import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { number } from "../../parts/format";
import { Changes } from "./Changes";
import * as S from "./HandOver.styles";
import { OtherSheet } from "./OtherSheet";
import { useSheetsBack } from "./SheetsBack";
import { SheetShape } from "./SheetShape";
import { UploadGrid } from "./UploadGrid";

type Kind = Schemas["HandOverRequest"]["kind"];
type Only = Schemas["HandOverRequest"]["only"];
type Sheet = NonNullable<Schemas["HandOverRequest"]["sheets"]>[number];
type Props = { view: Schemas["HandOverView"] | undefined; pending: boolean };

const sheets: readonly Sheet[] = ["keywords", "campaigns", "groups", "negatives", "ads", "spots"];

/** What a platform takes: a sheet looked at, and sent whole or only what changed. */
export function Upload({ view, pending }: Props) {
  const { id, summary } = usePlan();
  const send = useSending();
  const [sheet, setSheet] = useState<Sheet>("keywords");
  const [only, setOnly] = useState<NonNullable<Only>>("all");
  const back = useSheetsBack();
  const [shaping, setShaping] = useState(false);
  const rows = view?.rows ?? [];
  const counts = view?.counts;
  const changed = view?.changed;
  const make = (kind: Kind, all: readonly Sheet[] = [sheet]) =>
    void send({ kind, sheets: [...all], only });
  const filled = sheets.filter((one) => (counts?.[one] ?? 0) > 0);
  const nothing = only === "all" ? rows.length === 0 : !changed;
  return (
    <>
      <S.Line>
        <Choice
          label="Sheet"
          inline
          value={sheet}
          options={sheets.map((one) => ({
            id: one,
            name: `${one} ${number(counts?.[one] ?? 0)}`,
          }))}
          onChange={setSheet}
        />
        <Choice
          label="Which rows"
          inline
          value={only}
          options={[
            { id: "all", name: "whole" },
            {
              id: "changed",
              name: changed
                ? `only what changed (${number(Object.values(changed).reduce((a, b) => a + b, 0))})`
                : "only what changed",
            },
          ]}
          onChange={setOnly}
        />
        <a href={`/api/plans/${id}/hand-over/look?kind=csv&sheet=${sheet}&only=${only}`} download>
          look at the file
        </a>
        <TextButton aria-expanded={shaping} onPress={() => setShaping(!shaping)}>
          columns and names
        </TextButton>
        {back.chooser}
        <span>
          <MainButton isDisabled={nothing} onPress={() => make("csv")}>
            Send CSV
          </MainButton>
          <Button isDisabled={nothing} onPress={() => make("csv", filled)}>
            Send all sheets, CSV
          </Button>
          <Button isDisabled={nothing} onPress={() => make("xlsx", filled)}>
            Send all sheets, XLSX
          </Button>
          <Button onPress={() => make("json")}>Send the plan, JSON</Button>
        </span>
      </S.Line>
      {shaping && view && <SheetShape sheet={sheet} view={view} />}
      {back.held}
      {only === "changed" ? (
        <Changes since={null} />
      ) : sheet === "keywords" ? (
        <UploadGrid
          rows={rows}
          shape={view?.shapes.keywords ?? []}
          currency={summary.brief.values.currency}
          pending={pending}
        />
      ) : (
        <OtherSheet sheet={sheet} />
      )}
    </>
  );
}

/** Send files: they are kept as sent, and taken away. */
function useSending() {
  const { id, setSummary } = usePlan();
  const { say, complain } = useSaying();
  const queries = useQueryClient();
  return async (body: Schemas["HandOverRequest"]) => {
    try {
      const { made, summary: next } = await taken(
        client.POST("/api/plans/{plan_id}/hand-over", {
          params: { path: { plan_id: id } },
          body,
        }),
      );
      setSummary(next);
      await queries.invalidateQueries({ queryKey: ["/hand-over", id] });
      say(`sent and kept: ${made.files.map((file) => file.filename).join(", ")}`);
      for (const file of made.files) {
        const link = document.createElement("a");
        link.href = `/api/plans/${id}/hand-over/${made.id}/files/${file.id}`;
        link.download = file.filename;
        link.click();
      }
    } catch (error) {
      complain(error);
    }
  };
}
