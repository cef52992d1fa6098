import type { Column } from "../../parts/Grid";
import { money, number } from "../../parts/format";
import type { Tray } from "./Gather";
import * as S from "./Gather.styles";
import { fieldName } from "./fieldName";

/** What the tray shows of rows that were read. */
export function takenColumns({ rows }: Tray, near: boolean): Column[] {
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
    ...(near
      ? [
          {
            id: "like",
            head: "Alike",
            label: "alike",
            width: "minmax(120px, 0.5fr)",
            cell: (r: number) => rows.like[r],
          },
        ]
      : []),
    {
      id: "volume",
      head: <>Searches a&nbsp;month</>,
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

/** What it shows of refused rows: which, what stands there, why. */
export function refusedColumns({ refused }: Tray): Column[] {
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
