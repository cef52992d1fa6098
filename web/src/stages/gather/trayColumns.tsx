import type { ReactNode } from "react";
import type { Column, Plain } from "../../parts/column";
import { leaf } from "../../parts/shownList";
import { money, number } from "../../parts/format";
import type { Tray } from "./tray";
import * as S from "./Gather.styles";
import { fieldName } from "./fieldName";
import type { Part } from "./tray";
import type { Verdict } from "./useVerdicts";

const words: Record<Verdict, string> = { take: "the new", keep: "the old", mean: "the mean" };

/** What the tray shows of rows that were read. */
export function takenColumns(tray: Tray, part: Part): Column[] {
  const { rows } = tray;
  const ranked = rows.unpaid_rank.some((rank) => rank !== null);
  return [
    ...startOf(tray),
    ...(part === "near"
      ? [text("like", "Alike", "alike", "minmax(120px, 0.5fr)", (r) => rows.like[r])]
      : []),
    ...(part === "cleaned"
      ? [text("was", "As it stood", "as it stood", "minmax(120px, 0.7fr)", (r) => tray.cleaned[r])]
      : []),
    figure("volume", ...counted(tray), "130px", (r) =>
      range(rows.volume_low[r], rows.volume_high[r]),
    ),
    figure("low", "Low price", "low price", "86px", (r) => money(rows.cpc_low[r])),
    figure("high", "High price", "high price", "86px", (r) => money(rows.cpc_high[r])),
    ...(ranked
      ? [figure("rank", "Unpaid rank", "unpaid rank", "92px", (r) => number(rows.unpaid_rank[r]))]
      : []),
    text("call", "Call", "call", "64px", (r) => (rows.call[r] === "none" ? "" : rows.call[r])),
    text("group", "Group", "group", "120px", (r) => rows.group[r]),
  ];
}

/** What the volumes of a file are, as a head and in a word. */
const counted = ({ shown_at_bid: bid, period }: Tray): [ReactNode, string] => {
  const [head, word] = bid === null ? ["Searches", "searches"] : ["Times shown", "times shown"];
  return [`${head} a ${period}`, word];
};

/** Old and new figures side by side, with which will be used. */
export function changedColumns(tray: Tray, verdict: (row: number) => Verdict): Column[] {
  const { rows, was } = tray;
  const used = (row: number) => (row in was ? words[verdict(row)] : "ranks");
  const old = (row: number, at: number) => was[row]?.[at];
  return [
    ...startOf(tray),
    figure("old", <>Searches now</>, "searches now", "112px", (r) =>
      r in was ? range(old(r, 0), old(r, 1)) : "",
    ),
    figure("volume", <>new</>, "new searches", "112px", (r) =>
      range(rows.volume_low[r], rows.volume_high[r]),
    ),
    figure("old-price", <>Price now</>, "price now", "112px", (r) =>
      r in was ? prices(old(r, 2), old(r, 3)) : "",
    ),
    figure("price", <>new</>, "new price", "112px", (r) =>
      prices(rows.cpc_low[r], rows.cpc_high[r]),
    ),
    {
      ...text("verdict", "Will be used", "which will be used", "96px", used),
      cell: (r) => (r in was ? <b>{used(r)}</b> : used(r)),
      leaves: leaf("which will be used", used),
    },
  ];
}

/** What it shows of refused rows: which, what stands there, why. */
export function refusedColumns({ refused }: Tray): Column[] {
  const why = (row: number) => refused[row]?.why;
  return [
    figure("row", "Row", "row", "64px", (r) => number(refused[r]?.row)),
    text("column", "Column", "column", "110px", (r) => fieldName(refused[r]?.column ?? "")),
    text("value", "What stands there", "value", "minmax(140px, 0.6fr)", (r) => refused[r]?.value),
    {
      ...text("why", "Why it was refused", "reason", "minmax(260px, 1.4fr)", why),
      cell: (r) => <S.Why title={why(r)}>{why(r)}</S.Why>,
      leaves: leaf("why it was refused", why),
    },
  ];
}

function startOf({ rows }: Tray): Column[] {
  return [
    figure("row", "Row", "row", "64px", (r) => number(rows.row[r])),
    text("text", "Keyword", "keyword", "minmax(200px, 1fr)", (r) => rows.text[r]),
    text("match", "Match", "match", "72px", (r) => rows.match[r]),
  ];
}

type Cell = (row: number) => Plain;

const text = (id: string, head: Column["head"], label: string, width: string, cell: Cell) => ({
  id,
  head,
  label,
  width,
  cell,
});

const figure = (id: string, head: Column["head"], label: string, width: string, cell: Cell) => ({
  ...text(id, head, label, width, cell),
  align: "end" as const,
});

type End = number | null | undefined;

function range(low: End, high: End): string {
  if (low == null || high == null) return "–";
  return low === high ? number(high) : `${number(low)} to ${number(high)}`;
}

function prices(low: End, high: End): string {
  if (low == null && high == null) return "–";
  if (low == null || high == null || low === high) return money(low ?? high);
  return `${money(low)} to ${money(high)}`;
}
