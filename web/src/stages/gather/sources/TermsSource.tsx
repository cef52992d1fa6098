import { useMemo, useState } from "react";
import { client, uploadOf, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Button, MainButton } from "../../../parts/Button";
import type { Column } from "../../../parts/column";
import { Grid } from "../../../parts/Grid";
import { Small } from "../../../parts/Screen";
import { money, number, plural } from "../../../parts/format";
import type { Brought } from "../tray";
import * as S from "../Gather.styles";
import { RefusedRows } from "../RefusedRows";
import { useReading } from "../useReading";
import { ChooseFile } from "./ChooseFile";
import { PastWindow } from "./PastWindow";

type Terms = Schemas["TermsView"];
type Props = { onTray: Brought };

/** What people really typed, with what came of it: terms that sold first. */
export function TermsSource({ onTray }: Props) {
  const { busy, read, path } = useReading();
  const [brought, setBrought] = useState<Terms | null>(null);
  const held = usePlanQuery("/past/terms");
  const view = held.data ?? brought;
  const readFile = (file: File) =>
    read(
      file.name,
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/past/terms", {
            ...path,
            ...uploadOf(file),
          }),
        ),
      setBrought,
    );
  const sample = () =>
    void read(
      "the made-up report",
      () => taken(client.POST("/api/plans/{plan_id}/past/terms/sample", path)),
      setBrought,
    );
  const bring = () =>
    void read(
      "the terms",
      () => taken(client.POST("/api/plans/{plan_id}/past/terms/tray", path)),
      (tray) => onTray(tray),
    );
  return (
    <S.Fill>
      <h2>Past search terms</h2>
      <S.Line>
        <ChooseFile
          name="Choose a report …"
          busy={busy !== null}
          onFile={(file) => void readFile(file)}
        />
        {view ? (
          <MainButton isDisabled={busy !== null} onPress={bring}>
            Put {number(view.text.length)} into the tray, {number(view.sold)} that sold first
          </MainButton>
        ) : (
          <>
            <Button isDisabled={busy !== null} onPress={sample}>
              A made-up report
            </Button>
            <Small>
              Columns: search term; and clicks, cost, customers, revenue, campaign, group where it
              has them.
            </Small>
          </>
        )}
      </S.Line>
      {view && (
        <S.Line>
          <PastWindow kind="terms" summary={view.summary} />
        </S.Line>
      )}
      {brought && <RefusedRows rows={brought.refused} />}
      {view && <Table view={view} onEnter={bring} />}
    </S.Fill>
  );
}

type TableProps = { view: Terms; onEnter: () => void };

function Table({ view, onEnter }: TableProps) {
  const { currency } = usePlan().summary.brief.values;
  const [active, setActive] = useState<number | null>(null);
  const rows = useMemo(() => view.text.map((_, row) => row), [view]);
  const columns: Column[] = useMemo(
    () => [
      {
        id: "text",
        head: "Search term",
        label: "search term",
        width: "minmax(220px, 1fr)",
        cell: (r) => view.text[r],
      },
      ...(
        [
          ["customers", "Customers", number],
          ["clicks", "Clicks", number],
          ["cost", `Cost, ${currency}`, money],
          ["cpc", `${currency} a click`, money],
        ] as const
      ).map(([id, head, said]) => ({
        id,
        head,
        label: head.toLowerCase(),
        width: "108px",
        align: "end" as const,
        cell: (r: number) => said(view[id][r]),
      })),
    ],
    [view, currency],
  );
  return (
    <Grid
      label={`${plural(rows.length, "search term")}`}
      columns={columns}
      rows={rows}
      idOf={(row) => row}
      active={active}
      onActive={setActive}
      selected={new Set()}
      onSelected={() => undefined}
      onEnter={onEnter}
      empty="The report holds no term."
    />
  );
}
