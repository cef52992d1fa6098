import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { FileTrigger, ToggleButton } from "react-aria-components";
import { client, formOf, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Button, MainButton } from "../../../parts/Button";
import { Grid, type Column, type GridHandle } from "../../../parts/Grid";
import { Small } from "../../../parts/Screen";
import { count, money, number, plural } from "../../../parts/format";
import type { Brought } from "../Gather";
import * as S from "../Gather.styles";
import { useReading } from "../useReading";

type Rivals = Schemas["RivalsView"];
type Props = { onTray: Brought };
type Part = "they" | "both";

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
            body: formOf(file) as never,
            bodySerializer: (body) => body as never,
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
        <FileTrigger
          acceptedFileTypes={[".csv", ".xlsx", ".json", "text/csv"]}
          onSelect={(files) => {
            const file = files?.[0];
            if (file) void readFile(file);
          }}
        >
          <Button>Choose a list …</Button>
        </FileTrigger>
        <Button isDisabled={busy !== null} onPress={() => void sample()}>
          Three invented rivals
        </Button>
        <Small>
          {view
            ? `${view.name}: ${view.rivals.join(", ")}`
            : "Columns: rival, keyword; and cpc, clicks, cost, position, share, first seen, last seen, ad"}
        </Small>
      </S.Line>
      {view && <Table view={view} busy={busy !== null} onTake={(texts) => void take(texts)} />}
    </S.Fill>
  );
}

type TableProps = { view: Rivals; busy: boolean; onTake: (texts: string[]) => void };

function Table({ view, busy, onTake }: TableProps) {
  const { currency } = usePlan().frame.brief.values;
  const [part, setPart] = useState<Part>("they");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const grid = useRef<GridHandle>(null);
  const rows = useMemo(
    () => view.rows.flatMap((row, at) => (row.ours === (part === "both") ? [at] : [])),
    [view, part],
  );
  const columns = useMemo(() => columnsOf(view, currency), [view, currency]);
  const chosen = (selected.size > 0 ? [...selected] : rows).filter((at) => rows.includes(at));
  const changes = view.changes.filter((c) => c.new.length + c.given_up.length > 0);
  const take = () => onTake(chosen.map((at) => view.rows[at]?.text ?? ""));
  return (
    <>
      <S.Line>
        <S.Parts
          aria-label="Who buys them"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[part]}
          onSelectionChange={(keys) => {
            setPart([...keys][0] as Part);
            setSelected(new Set());
          }}
        >
          <ToggleButton id="they">
            <b>{number(view.only_they)}</b> only they buy
          </ToggleButton>
          <ToggleButton id="both">
            <b>{number(view.both)}</b> both buy
          </ToggleButton>
        </S.Parts>
        <Small>
          {plural(view.only_we, "keyword")} only we buy. What theirs would bring is worked out with
          the almanac&rsquo;s simulated figures.
        </Small>
        {part === "they" && (
          <MainButton isDisabled={!chosen.length || busy} onPress={take}>
            Put {number(chosen.length)} into the tray <kbd>Enter</kbd>
          </MainButton>
        )}
      </S.Line>
      {changes.length > 0 && (
        <Small>
          Since the list before:{" "}
          {changes
            .map(
              (c) =>
                `${c.rival} began ${number(c.new.length)} and gave up ${number(c.given_up.length)}`,
            )
            .join("; ")}
          .
        </Small>
      )}
      <Grid
        label="Rivals' keywords"
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={take}
        empty="No keyword is of this kind."
      />
    </>
  );
}

function columnsOf({ rows }: Rivals, currency: string): Column[] {
  return [
    {
      id: "text",
      head: "Keyword",
      label: "keyword",
      width: "minmax(200px, 1fr)",
      cell: (r) => rows[r]?.text,
    },
    {
      id: "brings",
      head: (
        <>
          Customers
          <br />
          <i>would bring</i>
        </>
      ),
      label: "customers a month it would bring",
      width: "92px",
      align: "end",
      cell: (r) => (rows[r]?.would_bring == null ? "" : <i>{count(rows[r]?.would_bring)}</i>),
    },
    {
      id: "rivals",
      head: "Rivals",
      label: "rivals",
      width: "minmax(120px, 0.6fr)",
      cell: (r) => rows[r]?.rivals.join(", "),
    },
    {
      id: "days",
      head: "Days seen",
      label: "days seen",
      width: "84px",
      align: "end",
      cell: (r) => (rows[r]?.days == null ? "–" : number(rows[r]?.days)),
    },
    {
      id: "running",
      head: "Running",
      label: "still running",
      width: "72px",
      cell: (r) => (rows[r]?.running ? "yes" : "ended"),
    },
    {
      id: "cost",
      head: <>{currency} a&nbsp;month</>,
      label: "estimated cost a month",
      width: "96px",
      align: "end",
      cell: (r) => money(rows[r]?.monthly_cost),
    },
    {
      id: "ad",
      head: "Ad",
      label: "ad",
      width: "minmax(120px, 0.7fr)",
      cell: (r) => rows[r]?.ads.join(" · "),
    },
  ];
}
