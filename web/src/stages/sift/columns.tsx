import type { SheetBlock } from "../../data/client";
import { CallMark } from "../../parts/CallMark";
import type { Column } from "../../parts/Grid";
import { Petal } from "../../parts/Petal";
import { Spark } from "../../parts/Spark";
import { count, money, number } from "../../parts/format";
import { priceColumn } from "../../parts/priceColumn";
import type { PriceScale } from "../../parts/scale";
import * as S from "./Sift.styles";
import { noteWords } from "./notes";

export const whiskerWidth = 124;

/** The columns of the ladder. */
export function ladderColumns(sheet: SheetBlock, scale: PriceScale, currency: string): Column[] {
  const { texts, figures } = sheet;
  const kept = (row: number) => texts.call[row] === "keep";
  const figure = (row: number, text: string) => (kept(row) ? text : <S.Would>{text}</S.Would>);
  return [
    {
      id: "call",
      head: "Call",
      label: "call",
      width: "52px",
      sortable: true,
      cell: (row) => <CallMark call={texts.call[row] ?? "none"} />,
    },
    {
      id: "keyword",
      head: "Keyword",
      label: "keyword",
      width: "minmax(184px, 1fr)",
      sortable: true,
      cell: (row) => (
        <span className="keyword" title={texts.text[row]}>
          {texts.text[row]}
          {texts.match[row] !== "exact" && <S.Match> {texts.match[row]}</S.Match>}
        </span>
      ),
    },
    {
      id: "intent",
      head: "Intent",
      label: "intent",
      width: "80px",
      sortable: true,
      cell: (row) => <S.Soft>{texts.intent[row]}</S.Soft>,
    },
    {
      id: "searches",
      head: <>Searches a&nbsp;month</>,
      label: "searches a month",
      width: "106px",
      align: "end",
      sortable: true,
      cell: (row) => (
        <S.Searches>
          {figures.searches[row] == null
            ? "–"
            : number(figures.searches[row], (figures.searches[row] ?? 0) < 10 ? 1 : 0)}
          <Spark months={texts.months[row]} />
        </S.Searches>
      ),
    },
    priceColumn({ figures, scale, width: whiskerWidth, head: `Price, ${currency}` }),
    {
      id: "headroom",
      head: (
        <>
          Head-
          <br />
          room
        </>
      ),
      label: "headroom",
      width: "64px",
      sortable: true,
      cell: (row) => <Petal standing={figures.standing[row] ?? "unknown"} />,
    },
    {
      id: "customers",
      head: (
        <>
          Customers
          <br />
          <i>would bring</i>
        </>
      ),
      label: "customers",
      width: "80px",
      align: "end",
      sortable: true,
      cell: (row) => figure(row, count(figures.customers[row])),
    },
    {
      id: "spend",
      head: <>Spend</>,
      label: "spend",
      width: "74px",
      align: "end",
      sortable: true,
      cell: (row) => figure(row, money(figures.spend[row])),
    },
    {
      id: "group",
      head: "Group",
      label: "group",
      width: "74px",
      sortable: true,
      cell: (row) => <S.Soft title={texts.group[row]}>{texts.group[row]}</S.Soft>,
    },
    {
      id: "note",
      head: "Note",
      label: "note",
      sortable: true,
      width: "minmax(104px, 0.2fr)",
      cell: (row) => <Note figures={figures} row={row} />,
    },
  ];
}

type NoteProps = { figures: SheetBlock["figures"]; row: number };

/** Beyond the line: what would bring it in. Elsewhere: what is odd about it. */
function Note({ figures, row }: NoteProps) {
  const notes = noteWords(figures.notes[row], true);
  if (figures.standing[row] !== "beyond")
    return <S.Soft title={notes}>{noteWords(figures.notes[row])}</S.Soft>;
  const needed = figures.rate_at_line[row];
  return (
    <S.ComeIn title={notes}>
      {needed == null ? "no rate would" : `if 1 in ${number(1 / needed)} buy`}
    </S.ComeIn>
  );
}
