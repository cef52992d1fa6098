import { useMemo, useRef, useState } from "react";
import { useActions } from "../../app/actions";
import { type SheetBlock } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { TextButton } from "../../parts/Button";
import { CallMark } from "../../parts/CallMark";
import { called, leaf } from "../../parts/shownList";
import type { Column } from "../../parts/column";
import { Grip } from "../../parts/dragging";
import { Grid, type GridHandle } from "../../parts/Grid";
import { count, money, number, plural } from "../../parts/format";
import { roomFor } from "../../parts/roomFor";
import type { ArrangeView } from "./view";
import * as S from "./Arrange.styles";
import { MoveSheet } from "./MoveSheet";

type Props = { view: ArrangeView; at: number };

/** Who is in a group, to be moved elsewhere. */
export function GroupKeywords({ view: { groups }, at }: Props) {
  const { sheet, summary } = usePlan();
  const { say } = useSaying();
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [moving, setMoving] = useState(false);
  const grid = useRef<GridHandle>(null);
  const group = groups.id[at]!;
  const rows = useMemo(() => members(sheet, group), [sheet, group]);
  const there = new Set(rows.map((row) => sheet.texts.id[row]!));
  const chosen = [...selected].filter((one) => there.has(one));
  const columns = columnsOf(sheet, summary.brief.values.currency, chosen);
  const targets = chosen.length > 0 ? chosen : active !== null && there.has(active) ? [active] : [];
  const move = () =>
    targets.length > 0
      ? setMoving(true)
      : say("Select a keyword of the group first: arrows move, x selects.");
  useActions([
    { name: "Move the selected keywords to another group", keys: ["m"], run: move },
    { name: "Go to the group’s keywords", keys: ["n"], run: () => grid.current?.focus() },
  ]);
  return (
    <>
      <S.Bar>
        <TextButton onPress={move}>
          move {targets.length > 0 ? plural(targets.length, "keyword") : "keywords"} …
        </TextButton>{" "}
        <kbd>m</kbd>
      </S.Bar>
      <Grid
        label={`Keywords of ${groups.name[at]!}`}
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => sheet.texts.id[row]!}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        look={(row) => ({ dim: sheet.texts.call[row] !== "keep" })}
        onEnter={move}
        empty="No keyword is in this group."
      />
      <MoveSheet
        open={moving}
        onOpen={setMoving}
        ids={targets}
        from={groups.label[at]!}
        groups={groups.label}
        onMoved={() => setSelected(new Set())}
      />
    </>
  );
}

/** Who is in a group: the kept first, then by what they spend or would. */
function members({ texts, figures }: SheetBlock, group: number): number[] {
  const rows = texts.group_id.flatMap((one, row) => (one === group ? [row] : []));
  const kept = (row: number) => Number(texts.call[row] === "keep");
  const spend = (row: number) => figures.spend[row] ?? 0;
  return rows.sort((a, b) => kept(b) - kept(a) || spend(b) - spend(a) || a - b);
}

function columnsOf(
  { texts, figures }: SheetBlock,
  currency: string,
  chosen: readonly number[],
): Column[] {
  const kept = (row: number) => texts.call[row] === "keep";
  return [
    {
      id: "call",
      head: "Call",
      label: "call",
      width: "40px",
      leaves: leaf("call", (row) => called(texts.call[row])),
      cell: (row) => <CallMark call={texts.call[row] ?? "none"} />,
    },
    {
      id: "keyword",
      head: "Keyword",
      label: "keyword",
      width: "minmax(150px, 1fr)",
      leaves: [
        { head: "keyword", value: (row) => texts.text[row] },
        { head: "match", value: (row) => texts.match[row] },
      ],
      cell: (row) => (
        <span title={texts.text[row]}>
          <Grip
            kind="keywords"
            ids={chosen.includes(texts.id[row]!) ? chosen : [texts.id[row]!]}
            label={texts.text[row]!}
          />
          {texts.text[row]} {texts.match[row] !== "exact" && <S.Soft>{texts.match[row]}</S.Soft>}
        </span>
      ),
    },
    {
      id: "searches",
      head: "Searches",
      label: "searches a month",
      width: roomFor(70, figures.searches, number),
      align: "end",
      cell: (row) => number(figures.searches[row]),
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: "76px",
      align: "end",
      cell: (row) => (kept(row) ? count(figures.customers[row]) : ""),
    },
    {
      id: "spend",
      head: `Spend, ${currency}`,
      label: "spend",
      width: roomFor(92, figures.spend, money),
      align: "end",
      cell: (row) => (kept(row) ? money(figures.spend[row]) : ""),
    },
  ];
}
