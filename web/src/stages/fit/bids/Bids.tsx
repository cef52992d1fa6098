import { Lock, LockOpen } from "lucide-react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Button } from "react-aria-components";
import { useAsked, useAsking } from "../../../app/asked";
import { useKeys } from "../../../app/keys";
import type { SheetBlock } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Blank } from "../../../parts/Blank";
import { leaf } from "../../../parts/shownList";
import type { Column, Sort } from "../../../parts/column";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { A_NUMBER, count, money, parsed, percent } from "../../../parts/format";
import { KeywordCell } from "../../../parts/KeywordCell";
import { roomFor } from "../../../parts/roomFor";
import { priceColumn } from "../../../parts/priceColumn";
import { usePriceScale, type PriceScale } from "../../../parts/scale";
import * as S from "./Bids.styles";
import { sortedKept } from "./kept";

const whiskerWidth = 200;

type Props = {
  selected: ReadonlySet<number>;
  onSelected: (selected: ReadonlySet<number>) => void;
};

/** The kept keywords with their bids, to type or to lock. */
export function Bids({ selected, onSelected }: Props) {
  const { sheet, summary, lockBid } = usePlan();
  const { setActive } = useAsking();
  const { active } = useAsked();
  const [sort, setSort] = useState<Sort>({ by: "spend", down: true });
  const [editing, setEditing] = useState<number | null>(null);
  const grid = useRef<GridHandle>(null);
  const { id, call } = sheet.texts;
  const rows = useMemo(
    () => sortedKept(sheet, sort),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- figures that move must not make rows jump
    [id, call, sort],
  );
  const idOf = useCallback((row: number) => id[row]!, [id]);
  const toggle = useCallback(
    (keyword: number, row: number) => {
      const held = sheet.texts.locked_bid[row];
      void lockBid([keyword], held == null ? (sheet.figures.bid[row] ?? null) : null);
    },
    [sheet, lockBid],
  );
  const scale = usePriceScale(sheet.figures, whiskerWidth);
  const columns = useMemo(
    () =>
      bidColumns(sheet, scale, summary.brief.values.currency, {
        editing,
        onEdit: setEditing,
        onToggle: toggle,
        onBid: (keyword, bid) => lockBid(selected.has(keyword) ? [...selected] : [keyword], bid),
      }),
    [sheet, scale, summary.brief.values.currency, editing, toggle, lockBid, selected],
  );
  useEffect(() => grid.current?.focus(), []);
  const rowOf = (keyword: number) => id.indexOf(keyword);
  useKeys({
    j: () => grid.current?.move(1),
    k: () => grid.current?.move(-1),
    l: () => active !== null && toggle(active, rowOf(active)),
    "Ctrl+a": () => onSelected(new Set(rows.map(idOf))),
  });
  return (
    <Grid
      label="Bids"
      handle={grid}
      columns={columns}
      rows={rows}
      idOf={idOf}
      active={active}
      onActive={setActive}
      selected={selected}
      onSelected={onSelected}
      sort={sort}
      onSort={setSort}
      onEnter={setEditing}
      look={(row) => ({ dim: sheet.figures.bid[row] == null })}
      empty="No keyword is kept yet. Keep some under Sift (g s), and their bids appear here."
    />
  );
}

/** Pixels of the lock beside a bid. */
const lockWidth = 30;

type Editing = {
  editing: number | null;
  onEdit: (id: number | null) => void;
  onToggle: (id: number, row: number) => void;
  onBid: (id: number, bid: number | null) => Promise<boolean>;
};

function bidColumns(
  sheet: SheetBlock,
  scale: PriceScale,
  currency: string,
  edit: Editing,
): Column[] {
  const { texts, figures } = sheet;
  const runs = (row: number) => figures.bid[row] != null;
  const figure = (row: number, text: string) => (runs(row) ? text : "");
  return [
    {
      id: "keyword",
      head: "Keyword",
      label: "keyword",
      width: "minmax(190px, 1fr)",
      sortable: true,
      leaves: [
        { head: "keyword", value: (row) => texts.text[row] },
        { head: "match", value: (row) => texts.match[row] },
      ],
      cell: (row) => <KeywordCell text={texts.text[row] ?? ""} match={texts.match[row]} />,
    },
    priceColumn({
      figures,
      scale,
      width: whiskerWidth,
      head: `bid, price, ceiling, ${currency}`,
      bids: true,
    }),
    {
      id: "bid",
      head: "Bid",
      label: "bid",
      width: roomFor(112, figures.bid, money, lockWidth),
      align: "end",
      sortable: true,
      leaves: leaf(`bid, ${currency}`, (row) => figures.bid[row]),
      cell: (row) => <BidCell sheet={sheet} row={row} {...edit} />,
    },
    {
      id: "cpc",
      head: "You pay about",
      label: "price paid",
      width: roomFor(104, figures.cpc, money),
      align: "end",
      sortable: true,
      cell: (row) => figure(row, money(figures.cpc[row])),
    },
    {
      id: "reach",
      head: "Reach",
      label: "reach",
      width: "66px",
      align: "end",
      cell: (row) => figure(row, percent(figures.bid_reach[row], 0)),
    },
    {
      id: "clicks",
      head: "Clicks",
      label: "clicks",
      width: roomFor(72, figures.clicks, count),
      align: "end",
      sortable: true,
      cell: (row) => figure(row, count(figures.clicks[row])),
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: roomFor(90, figures.customers, count),
      align: "end",
      sortable: true,
      cell: (row) => figure(row, count(figures.customers[row])),
    },
    {
      id: "spend",
      head: "Spend",
      label: "spend",
      width: roomFor(78, figures.spend, money),
      align: "end",
      sortable: true,
      cell: (row) => figure(row, money(figures.spend[row])),
    },
  ];
}

type BidCellProps = Editing & { sheet: SheetBlock; row: number };

function BidCell({ sheet, row, editing, onEdit, onToggle, onBid }: BidCellProps) {
  const id = sheet.texts.id[row]!;
  const text = sheet.texts.text[row] ?? "";
  const bid = sheet.figures.bid[row];
  const held = sheet.texts.locked_bid[row] != null;
  if (editing === id)
    return (
      <Blank
        label={`Bid for ${text}`}
        value={bid == null ? "" : money(bid)}
        least={5}
        focused
        onLeave={() => onEdit(null)}
        onCommit={(typed) => {
          if (typed.trim() === "") return onBid(id, null);
          const value = parsed(typed);
          return value === null ? A_NUMBER : onBid(id, value);
        }}
      />
    );
  return (
    <S.BidCell>
      <S.BidButton
        onPress={() => onEdit(id)}
        aria-label={`Bid for ${text}: ${bid == null ? "not run" : money(bid)}`}
      >
        {bid == null ? "not run" : money(bid)}
      </S.BidButton>
      <Button
        aria-label={held ? `Give the bid of ${text} back` : `Lock the bid of ${text}`}
        aria-pressed={held}
        isDisabled={!held && bid == null}
        onPress={() => onToggle(id, row)}
      >
        {held ? <Lock size={12} aria-hidden /> : <LockOpen size={12} aria-hidden />}
      </Button>
    </S.BidCell>
  );
}
