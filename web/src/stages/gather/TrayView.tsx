import { useEffect, useMemo, useRef, useState } from "react";
import { ToggleButton } from "react-aria-components";
import { useNavigate } from "react-router";
import { useKeys } from "../../app/keys";
import { client, taken } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Button, MainButton } from "../../parts/Button";
import { Grid, type Column, type GridHandle } from "../../parts/Grid";
import { Small } from "../../parts/Screen";
import { money, number, plural } from "../../parts/format";
import { ColumnTable } from "./ColumnTable";
import type { Tray } from "./Gather";
import * as S from "./Gather.styles";
import { fieldName } from "./fieldName";

type Part = "new" | "changed" | "there" | "refused";

const parts: { id: Part; name: string }[] = [
  { id: "new", name: "new" },
  { id: "changed", name: "new figures" },
  { id: "there", name: "already there" },
  { id: "refused", name: "refused" },
];

type Props = { tray: Tray; onTray: (tray: Tray | null) => void; onDone: () => void };

/** One file on its way in, sorted by what would become of each row. */
export function TrayView({ tray, onTray, onDone }: Props) {
  const { id, change } = usePlan();
  const { complain } = useSaying();
  const navigate = useNavigate();
  const [part, setPart] = useState<Part>(() => parts.find((p) => tray.counts[p.id])?.id ?? "new");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const grid = useRef<GridHandle>(null);
  const path = { params: { path: { plan_id: id, key: tray.key } } };
  const bring = (tray.counts.new ?? 0) + (tray.counts.changed ?? 0);

  const rows = useMemo(() => rowsOf(tray, part), [tray, part]);
  const columns = useMemo(
    () => (part === "refused" ? refusedColumns(tray) : takenColumns(tray)),
    [tray, part],
  );
  useEffect(() => grid.current?.focus(), [tray.key]);

  const take = async () => {
    if (bring === 0) return;
    if (await change(() => taken(client.POST("/api/plans/{plan_id}/gather/{key}/take", path)))) {
      onTray(null);
      onDone();
      await navigate(`/plan/${id}/sift`);
    }
  };
  const leave = async () => {
    try {
      await taken(client.DELETE("/api/plans/{plan_id}/gather/{key}", path));
    } catch (error) {
      complain(error);
    }
    onTray(null);
  };
  const assign = async (columnsChosen: Record<string, number>, first_row: number) => {
    try {
      onTray(
        await taken(
          client.PUT("/api/plans/{plan_id}/gather/{key}/columns", {
            ...path,
            body: { columns: columnsChosen, first_row },
          }),
        ),
      );
    } catch (error) {
      complain(error);
    }
  };
  useKeys({ Enter: () => void take() });

  return (
    <S.Tray aria-label="Tray">
      <S.TrayHead>
        <h2>{tray.name}</h2>
        <Small>
          {tray.encoding === "text" ? "" : `${tray.encoding}, `}
          {tray.separator} between cells, decimal {tray.decimal}
        </Small>
        <span>
          <MainButton isDisabled={bring === 0} onPress={() => void take()}>
            Take in {number(bring)} <kbd>Enter</kbd>
          </MainButton>
          <Button onPress={() => void leave()}>Leave</Button>
        </span>
      </S.TrayHead>
      <ColumnTable tray={tray} onAssign={(chosen, first) => void assign(chosen, first)} />
      <S.Parts
        aria-label="Rows of the file"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[part]}
        onSelectionChange={(keys) => setPart([...keys][0] as Part)}
      >
        {parts.map((p) => (
          <ToggleButton key={p.id} id={p.id}>
            <b>{number(tray.counts[p.id])}</b> {p.name}
          </ToggleButton>
        ))}
      </S.Parts>
      <Grid
        label={`Rows: ${parts.find((p) => p.id === part)?.name ?? ""}`}
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={() => void take()}
        empty={
          part === "refused"
            ? "No row was refused."
            : `None of the ${plural(tray.rows.row.length, "row")} is of this kind.`
        }
      />
    </S.Tray>
  );
}

function rowsOf(tray: Tray, part: Part): number[] {
  if (part === "refused") return tray.refused.map((_, row) => row);
  return tray.rows.status.flatMap((status, row) => (status === part ? [row] : []));
}

function takenColumns({ rows }: Tray): Column[] {
  return [
    {
      id: "row",
      head: "Row",
      label: "row",
      width: "64px",
      align: "end",
      cell: (r) => number(rows.row[r]),
    },
    {
      id: "text",
      head: "Keyword",
      label: "keyword",
      width: "minmax(200px, 1fr)",
      cell: (r) => rows.text[r],
    },
    { id: "match", head: "Match", label: "match", width: "72px", cell: (r) => rows.match[r] },
    {
      id: "volume",
      head: "Searches",
      label: "searches",
      width: "130px",
      align: "end",
      cell: (r) => range(rows.volume_low[r], rows.volume_high[r]),
    },
    {
      id: "low",
      head: "Low price",
      label: "low price",
      width: "86px",
      align: "end",
      cell: (r) => money(rows.cpc_low[r]),
    },
    {
      id: "high",
      head: "High price",
      label: "high price",
      width: "86px",
      align: "end",
      cell: (r) => money(rows.cpc_high[r]),
    },
    {
      id: "call",
      head: "Call",
      label: "call",
      width: "64px",
      cell: (r) => (rows.call[r] === "none" ? "" : rows.call[r]),
    },
    { id: "group", head: "Group", label: "group", width: "120px", cell: (r) => rows.group[r] },
  ];
}

function refusedColumns({ refused }: Tray): Column[] {
  return [
    {
      id: "row",
      head: "Row",
      label: "row",
      width: "64px",
      align: "end",
      cell: (r) => number(refused[r]?.row),
    },
    {
      id: "column",
      head: "Column",
      label: "column",
      width: "110px",
      cell: (r) => fieldName(refused[r]?.column ?? ""),
    },
    {
      id: "value",
      head: "What stands there",
      label: "value",
      width: "minmax(140px, 0.6fr)",
      cell: (r) => refused[r]?.value,
    },
    {
      id: "why",
      head: "Why it was refused",
      label: "reason",
      width: "minmax(260px, 1.4fr)",
      cell: (r) => <S.Why title={refused[r]?.why}>{refused[r]?.why}</S.Why>,
    },
  ];
}

function range(low: number | null | undefined, high: number | null | undefined): string {
  if (low == null || high == null) return "–";
  return low === high ? number(high) : `${number(low)} to ${number(high)}`;
}
