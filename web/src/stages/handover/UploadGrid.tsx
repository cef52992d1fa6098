import { useMemo, useState } from "react";
import type { Schemas } from "../../data/client";
import { Grid } from "../../parts/Grid";
import type { Column } from "../../parts/column";
import { money } from "../../parts/format";
import { leaf } from "../../parts/shownList";

type Rows = Schemas["HandOverView"]["rows"];
type Shape = NonNullable<Schemas["HandOverView"]["shapes"]["keywords"]>;
type Props = { rows: Rows; shape: Shape; currency: string; pending: boolean };

/** The keywords as they will be uploaded: in the columns, order and headings of the file. */
export function UploadGrid({ rows, shape, currency, pending }: Props) {
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const columns = useMemo(
    () => inShape(uploadColumns(rows, currency), shape),
    [rows, shape, currency],
  );
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

/** Columns as the platform's sheet has them; until that is known, as they come. */
function inShape(columns: readonly Column[], shape: Shape): Column[] {
  if (shape.length === 0) return [...columns];
  return shape.flatMap(({ column, heading, sent }) => {
    const found = columns.find((one) => one.id === column);
    if (!found || sent === false) return [];
    return [heading === column ? found : { ...found, head: heading, label: heading }];
  });
}

function uploadColumns(rows: Rows, currency: string): Column[] {
  const text = (
    name: "campaign" | "group" | "keyword" | "match",
    head: string,
    width: string,
  ): Column => ({
    id: name === "group" ? "ad group" : name,
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
