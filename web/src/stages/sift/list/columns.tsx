import type { SheetBlock } from "../../../data/client";
import { CallMark } from "../../../parts/CallMark";
import type { Column, Plain } from "../../../parts/column";
import { Petal } from "../../../parts/Petal";
import { Spark } from "../../../parts/Spark";
import { count, money, number } from "../../../parts/format";
import { called, leaf } from "../../../parts/shownList";
import { priceColumn } from "../../../parts/priceColumn";
import type { PriceScale } from "../../../parts/scale";
import * as S from "../Sift.styles";
import { Tinted } from "../Tinted";
import { noteWords } from "./notes";

export const whiskerWidth = 116;

/** The columns of the list. */
export function listColumns(sheet: SheetBlock, scale: PriceScale, currency: string): Column[] {
  const { texts, figures } = sheet;
  const kept = (row: number) => texts.call[row] === "keep";
  const figure = (row: number, text: string) => (kept(row) ? text : <S.Would>{text}</S.Would>);
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
        <span className="keyword" title={texts.text[row]}>
          <Tinted text={texts.text[row] ?? ""} kinds={texts.kinds[row]} />
          {texts.match[row] !== "exact" && <S.Match> {texts.match[row]}</S.Match>}
        </span>
      ),
    },
    {
      id: "intent",
      head: "Intent",
      label: "intent",
      width: "72px",
      sortable: true,
      leaves: leaf("intent", (row) => texts.intent[row]),
      cell: (row) => <S.Soft>{texts.intent[row]}</S.Soft>,
    },
    {
      id: "searches",
      head: <>Searches a&nbsp;month</>,
      label: "searches a month",
      width: "104px",
      align: "end",
      sortable: true,
      leaves: leaf("searches a month", (row) => figures.searches[row]),
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
      width: "88px",
      align: "end",
      sortable: true,
      leaves: leaf("customers, or what it would bring", (row) => figures.customers[row]),
      cell: (row) => figure(row, count(figures.customers[row])),
    },
    {
      id: "spend",
      head: <>Spend</>,
      label: "spend",
      width: "64px",
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
    words("own_note", "Own note", (row) => texts.note[row], "minmax(90px, 0.3fr)"),
    words("reason", "Reason", (row) => texts.reason[row], "110px"),
    words("by", "Called by", (row) => texts.by[row], "72px"),
    words("at", "Called", (row) => day(texts.at[row]), "84px"),
    words("match", "Match", (row) => texts.match[row], "64px"),
    words("offer", "Offer", (row) => texts.offer[row], "90px"),
    words("origin", "Source", (row) => texts.origin[row], "120px"),
    {
      ...figureColumn("clicks", "Clicks a month", (row) => count(figures.clicks[row])),
      cell: (row) => figure(row, count(figures.clicks[row])),
      leaves: leaf("clicks a month", (row) => figures.clicks[row]),
    },
    figureColumn("reach", "Reach at ceiling, %", (row) => percents(figures.reach[row])),
    figureColumn("ceiling", `Ceiling, ${currency}`, (row) => money(figures.ceiling[row])),
    figureColumn("rate", "Buy, of 100 clicks", (row) => percents(figures.rate[row], 1)),
    figureColumn("spill", "Spill, searches a month", (row) => number(figures.spill[row])),
    figureColumn("first_sale", "Clicks to a likely sale", (row) => number(figures.first_sale[row])),
    figureColumn("rank", "Unpaid rank", (row) => number(texts.unpaid_rank[row])),
    figureColumn("paid", "Paid rank", (row) => number(texts.paid_rank[row])),
    figureColumn("popularity", "Popularity", (row) => number(texts.popularity[row])),
    figureColumn("gap", "Paid less unpaid rank", (row) => number(texts.rank_gap[row])),
    figureColumn("low", `Low price, ${currency}`, (row) => money(figures.cpc_low[row])),
    figureColumn("middle", `Middle price, ${currency}`, (row) => money(figures.cpc_median[row])),
    figureColumn("high", `High price, ${currency}`, (row) => money(figures.cpc_high[row])),
    figureColumn("competition", "Competition, %", (row) => percents(texts.competition[row])),
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

type Cell = (row: number) => Plain;

const words = (id: string, head: string, cell: Cell, width: string): Column => ({
  id,
  head,
  label: head.toLowerCase(),
  width,
  sortable: true,
  leaves: leaf(head.toLowerCase(), cell),
  cell: (row) => <S.Soft>{cell(row)}</S.Soft>,
});

const figureColumn = (id: string, head: string, cell: Cell): Column => ({
  id,
  head,
  label: head.toLowerCase(),
  width: "88px",
  align: "end",
  sortable: true,
  cell,
});

const percents = (share: number | null | undefined, digits = 0) =>
  share == null ? "–" : number(share * 100, digits);

const day = (at: string | undefined) => (at ? at.slice(0, 10) : "");

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
