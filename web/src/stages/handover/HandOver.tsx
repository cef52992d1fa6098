import { useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { useSaying } from "../../data/saying";
import { Button, MainButton } from "../../parts/Button";
import { ItemsAway } from "../../parts/TakeAway";
import type { Column } from "../../parts/column";
import { Grid } from "../../parts/Grid";
import { leaf } from "../../parts/shownList";
import { Small } from "../../parts/Screen";
import { money, number, plural } from "../../parts/format";
import * as S from "./HandOver.styles";

type View = Schemas["HandOverView"];
type Item = Schemas["HandOverItem"];
type Kind = Schemas["HandOverRequest"]["kind"];

/** The upload sheet as it will be sent, what to look at first, and copies of what was sent. */
export function HandOver() {
  const { id, summary, setSummary } = usePlan();
  const { say, complain } = useSaying();
  const queries = useQueryClient();
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const path = { params: { path: { plan_id: id } } };
  const view = usePlanQuery("/hand-over");
  const rows = useMemo(() => view.data?.rows ?? [], [view.data]);
  const columns = useMemo(
    () => uploadColumns(rows, summary.brief.values.currency),
    [rows, summary],
  );

  const make = async (kind: Kind) => {
    try {
      const { made, summary: next } = await taken(
        client.POST("/api/plans/{plan_id}/hand-over", { ...path, body: { kind } }),
      );
      setSummary(next);
      await queries.invalidateQueries({ queryKey: ["/hand-over", id] });
      say(`kept a copy of ${made.filename}`);
      const link = document.createElement("a");
      link.href = fileOf(id, made);
      link.download = made.filename;
      link.click();
    } catch (error) {
      complain(error);
    }
  };
  const running = rows.filter((row) => row.bid !== null).length;

  return (
    <S.Split>
      <S.Sheet>
        <S.Head>
          <h1>Hand over</h1>
          <Small>
            {plural(running, "keyword")} run, {number(rows.length - running)} kept but not run
          </Small>
          <span>
            <MainButton isDisabled={rows.length === 0} onPress={() => void make("csv")}>
              Upload sheet, CSV
            </MainButton>
            <Button isDisabled={rows.length === 0} onPress={() => void make("xlsx")}>
              Upload sheet, XLSX
            </Button>
            <Button onPress={() => void make("json")}>Whole plan, JSON</Button>
          </span>
        </S.Head>
        <Grid
          label="Upload sheet"
          columns={columns}
          rows={useMemo(() => rows.map((_, row) => row), [rows])}
          idOf={(row) => row}
          active={active}
          onActive={setActive}
          selected={selected}
          onSelected={setSelected}
          empty={
            view.isPending
              ? "Making the sheet …"
              : "No keyword is kept yet, so there is nothing to upload."
          }
        />
      </S.Sheet>
      <S.Side>
        <h2>
          Before you send it
          <ItemsAway
            label="Before you send it"
            items={view.data?.checks}
            columns={{ check: (c) => c.text, stage: (c) => c.stage }}
          />
        </h2>
        {view.data?.checks.length === 0 && <p>Nothing stands out.</p>}
        <ul>
          {view.data?.checks.map((check) => (
            <li key={check.text}>
              {check.text} <Link to={`/plan/${id}/${check.stage}`}>look</Link>
            </li>
          ))}
        </ul>
        <h2>
          What was sent
          <ItemsAway
            label="What was sent"
            items={view.data?.sent}
            columns={{
              file: (item) => item.filename,
              at: (item) => item.at,
              rows: (item) => item.rows,
              revision: (item) => item.revision,
              "SHA-256": (item) => item.sha256,
            }}
          />
        </h2>
        {view.data?.sent.length === 0 && <p>Nothing yet. Each file is kept here as it was.</p>}
        <ul>
          {view.data?.sent.map((item) => (
            <li key={item.id}>
              <a href={fileOf(id, item)} download={item.filename}>
                {item.filename}
              </a>
              <small>
                {new Date(item.at).toLocaleString()} · {plural(item.rows, "row")} · revision{" "}
                {number(item.revision)}
              </small>
              <small title={item.sha256}>SHA-256 {item.sha256.slice(0, 12)}…</small>
            </li>
          ))}
        </ul>
      </S.Side>
    </S.Split>
  );
}

const fileOf = (plan: number, item: Item) => `/api/plans/${plan}/hand-over/${item.id}/file`;

function uploadColumns(rows: View["rows"], currency: string): Column[] {
  const text = (
    name: "campaign" | "group" | "keyword" | "match",
    head: string,
    width: string,
  ): Column => ({
    id: name,
    head,
    label: head,
    width,
    leaves: leaf(head, (row) => rows[row]?.[name]),
    cell: (row) => <span title={rows[row]?.[name]}>{rows[row]?.[name]}</span>,
  });
  return [
    text("campaign", "Campaign", "minmax(130px, 0.8fr)"),
    text("group", "Ad group", "130px"),
    text("keyword", "Keyword", "minmax(180px, 1fr)"),
    text("match", "Match", "72px"),
    {
      id: "bid",
      head: `Bid, ${currency}`,
      label: "bid",
      width: "84px",
      align: "end",
      cell: (row) => (rows[row]?.bid == null ? "" : money(rows[row].bid)),
    },
    {
      id: "run",
      head: "Run",
      label: "run",
      width: "56px",
      cell: (row) => (rows[row]?.bid == null ? "no" : "yes"),
    },
  ];
}
