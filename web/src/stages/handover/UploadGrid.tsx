import { useMemo, useState } from "react";
import type { Schemas } from "../../data/client";
import { Grid } from "../../parts/Grid";
import type { Column } from "../../parts/column";
import { money } from "../../parts/format";
import { leaf } from "../../parts/shownList";

type Rows = Schemas["HandOverView"]["rows"];
type Props = { rows: Rows; currency: string; pending: boolean };

/** The keywords as they will be uploaded. */
export function UploadGrid({ rows, currency, pending }: Props) {
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const columns = useMemo(() => uploadColumns(rows, currency), [rows, currency]);
  return (
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
        pending ? "Making the sheet …" : "No keyword is kept yet, so there is nothing to upload."
      }
    />
  );
}

function uploadColumns(rows: Rows, currency: string): Column[] {
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
