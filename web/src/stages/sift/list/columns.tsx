import type { SheetBlock } from "../../../data/client";
import { shownColumns, type ShownColumn } from "../../../data/columns.generated";
import { CallMark } from "../../../parts/CallMark";
import type { Column } from "../../../parts/column";
import { KeywordCell } from "../../../parts/KeywordCell";
import { Petal } from "../../../parts/Petal";
import { Spark } from "../../../parts/Spark";
import { count, money, number } from "../../../parts/format";
import { dayOf } from "../../../parts/days";
import { called, leaf } from "../../../parts/shownList";
import { priceColumn } from "../../../parts/priceColumn";
import { roomFor } from "../../../parts/roomFor";
import { headingOf, valueOf, writtenOf } from "../../../parts/shownColumn";
import type { PriceScale } from "../../../parts/scale";
import * as S from "../Sift.styles";
import { Tinted } from "../Tinted";
import { noteWords } from "./notes";

export const whiskerWidth = 116;
/** Pixels of the twelve months beside a figure. */
const sparkWidth = 58;

const searchesSaid = (value: number | null | undefined): string =>
  value == null ? "–" : number(value, value < 10 ? 1 : 0);

/** The columns of the list. */
export function listColumns(sheet: SheetBlock, scale: PriceScale, currency: string): Column[] {
  const { texts, figures } = sheet;
  return [
    {
      id: "call",
      head: "Call",
      label: "call",
      width: "42px",
      sortable: true,
      leaves: leaf("call", (row) => called(texts.call[row])),
      cell: (row) => <CallMark call={texts.call[row] ?? "none"} />,
    },
    {
      id: "keyword",
      head: "Keyword",
      label: "keyword",
      width: "minmax(210px, 1fr)",
      sortable: true,
      leaves: [
        { head: "keyword", value: (row) => texts.text[row] },
        { head: "match", value: (row) => texts.match[row] },
      ],
      cell: (row) => (
        <KeywordCell text={texts.text[row] ?? ""} match={texts.match[row]}>
          <Tinted text={texts.text[row] ?? ""} kinds={texts.kinds[row]} />
        </KeywordCell>
      ),
    },
    {
      id: "intent",
      head: "Intent",
      label: "intent",
      width: "80px",
      sortable: true,
      leaves: leaf("intent", (row) => texts.intent[row]),
      cell: (row) => <S.Soft>{texts.intent[row]}</S.Soft>,
    },
    {
      id: "searches",
      head: <>Searches a&nbsp;month</>,
      label: "searches a month",
      width: roomFor(104, figures.searches, searchesSaid, sparkWidth),
      align: "end",
      sortable: true,
      leaves: leaf("searches a month", (row) => figures.searches[row]),
      cell: (row) => (
        <S.Searches>
          {searchesSaid(figures.searches[row])}
          <Spark months={texts.months[row]} />
        </S.Searches>
      ),
    },
    priceColumn({ figures, scale, width: whiskerWidth, head: `Price, ${currency}` }),
    ...planColumns(sheet, currency),
    ...shownColumns
      .filter((column) => column.listed)
      .map((column) => plainColumn(sheet, column, currency)),
  ];
}

/** What the plan says of each: where it stands, what it brings or would bring, what is odd. */
function planColumns({ texts, figures }: SheetBlock, currency: string): Column[] {
  const kept = (row: number) => texts.call[row] === "keep";
  const figure = (row: number, text: string) => (kept(row) ? text : <S.Would>{text}</S.Would>);
  return [
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
      width: "58px",
      sortable: true,
      leaves: leaf("headroom", (row) => figures.standing[row]),
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
      width: roomFor(88, figures.customers, count),
      align: "end",
      sortable: true,
      leaves: leaf("customers, or what it would bring", (row) => figures.customers[row]),
      cell: (row) => figure(row, count(figures.customers[row])),
    },
    {
      id: "spend",
      head: <>Spend</>,
      label: "spend",
      width: roomFor(64, figures.spend, money),
      align: "end",
      sortable: true,
      leaves: leaf(`spend, ${currency}`, (row) => figures.spend[row]),
      cell: (row) => figure(row, money(figures.spend[row])),
    },
    {
      id: "group",
      head: "Group",
      label: "group",
      width: "74px",
      sortable: true,
      leaves: leaf("group", (row) => texts.group[row]),
      cell: (row) => <S.Soft title={texts.group[row]}>{texts.group[row]}</S.Soft>,
    },
    {
      id: "note",
      head: "Note",
      label: "note",
      sortable: true,
      width: "minmax(56px, 0.12fr)",
      leaves: leaf("note", (row) => noteWords(figures.notes[row], true)),
      cell: (row) => (
        <Note figures={figures} row={row} unpaid={texts.strong_unpaid[row] ?? false} />
      ),
    },
  ];
}

/**
 * All that the sheet says of a keyword, as one text made once: a row is drawn anew only where
 * it changed. `look` is what all rows share.
 */
export function rowStamps({ texts, figures }: SheetBlock, look: string): (row: number) => string {
  const held = new Map<number, string>();
  const columns = [...Object.values(texts), ...Object.values(figures)] as unknown[][];
  return (row) => {
    const known = held.get(row);
    if (known !== undefined) return known;
    const made = look + JSON.stringify(columns.map((column) => column[row]));
    held.set(row, made);
    return made;
  };
}

/** Widths of words, where the usual one is too narrow or too wide. */
const widths: Record<string, string> = {
  own_note: "minmax(90px, 0.3fr)",
  reason: "110px",
  at: "84px",
  match: "64px",
  offer: "90px",
  origin: "120px",
};

/** A column that is only written: a figure, or words. */
function plainColumn(sheet: SheetBlock, shown: ShownColumn, currency: string): Column {
  const head = headingOf(shown, currency);
  const written = writtenOf(sheet, shown);
  const base = { id: shown.id, head, label: head.toLowerCase(), sortable: true };
  if (shown.written === "text") {
    const cell = shown.id === "at" ? (row: number) => dayOf(written(row)) : written;
    return {
      ...base,
      width: widths[shown.id] ?? "72px",
      leaves: leaf(base.label, cell),
      cell: (row) => <S.Soft>{cell(row)}</S.Soft>,
    };
  }
  const figure: Column = { ...base, width: "88px", align: "end", cell: written };
  if (shown.written !== "count") return figure;
  const of = valueOf(sheet, shown);
  return {
    ...figure,
    cell: (row) =>
      sheet.texts.call[row] === "keep" ? written(row) : <S.Would>{written(row)}</S.Would>,
    leaves: leaf(base.label, of),
  };
}

type NoteProps = { figures: SheetBlock["figures"]; row: number; unpaid: boolean };

/** Beyond the line: what would bring it in. Elsewhere: what is odd about it. */
function Note({ figures, row, unpaid }: NoteProps) {
  const notes = noteWords(figures.notes[row], true);
  if (figures.standing[row] !== "beyond")
    return (
      <S.Soft title={notes}>
        {unpaid && (
          <S.Unpaid title="the site ranks well here unpaid, and no ad runs">unpaid </S.Unpaid>
        )}
        {noteWords(figures.notes[row])}
      </S.Soft>
    );
  const needed = figures.rate_at_line[row];
  return (
    <S.ComeIn title={notes}>
      {needed == null ? "no rate would" : `if 1 in ${number(1 / needed)} buy`}
    </S.ComeIn>
  );
}
