import type { Column, Plain } from "../../../../parts/column";
import { leaf } from "../../../../parts/shownList";
import { count, money, number, percent } from "../../../../parts/format";
import { MonthStrip, seenSaid, stripWidth } from "./MonthStrip";
import { columnsOf, type Part, type Rivals, type Value } from "./rows";

/** A column of this list, with what it is ordered by. */
export type RivalColumn = Column & { value: (row: number) => Value };

/** What a part of the list shows, from left to right. */
export function rivalColumns(view: Rivals, part: Part, currency: string): RivalColumn[] {
  if (part === "rivals") return totalColumns(view, currency);
  if (part === "ads") return adColumns(view, currency);
  return keywordColumns(view, currency);
}

function keywordColumns(view: Rivals, currency: string): RivalColumn[] {
  const { name, would_bring, pages, ads } = view.keywords;
  return [
    text("text", "Keyword", "minmax(170px, 1fr)", (r) => name[r]),
    {
      id: "brings",
      head: (
        <>
          Customers
          <br />
          <i>would bring</i>
        </>
      ),
      label: "customers a month it would bring",
      width: "84px",
      align: "end",
      sortable: true,
      value: (r) => would_bring[r],
      leaves: leaf("customers a month it would bring", (r) => would_bring[r]),
      cell: (r) => (would_bring[r] == null ? "" : <i>{count(would_bring[r])}</i>),
    },
    ...(view.of === null ? [whose(view, "they")] : []),
    ...standing(view, "they", currency),
    text("page", "Landing page", "minmax(100px, 0.6fr)", (r) => bare(pages[r])),
    text("ad", "Ad", "minmax(100px, 0.6fr)", (r) => ads[r]?.join(" · ")),
  ];
}

function adColumns(view: Rivals, currency: string): RivalColumn[] {
  const { name, keywords, pages } = view.ads;
  return [
    text("text", "Ad", "minmax(190px, 1fr)", (r) => name[r]),
    ...(view.of === null ? [whose(view, "ads")] : []),
    ...standing(view, "ads", currency),
    figure("count", "Keywords", "keywords", "76px", (r) => keywords[r]?.length, number),
    text("keywords", "Shown for", "minmax(120px, 0.8fr)", (r) => keywords[r]?.join(" · ")),
    text("page", "Landing page", "minmax(100px, 0.6fr)", (r) => bare(pages[r])),
  ];
}

function totalColumns(view: Rivals, currency: string): RivalColumn[] {
  const { name, keywords, shared, alone, running_keywords, clicks } = view.totals;
  return [
    text("text", "Rival", "minmax(140px, 1fr)", (r) => name[r]),
    figure("count", "Keywords", "keywords", "76px", (r) => keywords[r], number),
    figure("shared", "Ours too", "of them ours too", "70px", (r) => shared[r], number),
    figure("alone", "Nobody else’s", "of them no other rival's", "96px", (r) => alone[r], number),
    figure("now", "Running", "still running", "68px", (r) => running_keywords[r], number),
    figure("clicks", "Clicks", "clicks a month", "64px", (r) => clicks[r], number),
    ...standing(view, "rivals", currency),
  ];
}

/** Place, share of clicks, months and money: the same for a keyword, an ad and a rival. */
function standing(view: Rivals, part: Part, currency: string): RivalColumn[] {
  const seen = columnsOf(view, part);
  const said = (r: number) => seenSaid(view.months, seen.months[r] ?? []);
  const share = figure(
    "share",
    "Of their clicks",
    "share of their clicks",
    "62px",
    (r) => seen.clicks_share[r],
    percent,
  );
  return [
    figure(
      "place",
      "Place",
      "average place",
      "50px",
      (r) => seen.position[r],
      (v) => number(v, 1),
    ),
    ...(part === "rivals" ? [] : [share]),
    {
      id: "months",
      head: "Months seen",
      label: "months seen",
      width: `${Math.max(stripWidth(view.months.length), 46) + 14}px`,
      sortable: true,
      value: (r) => seen.days[r],
      leaves: [
        { head: "months seen", value: said },
        { head: "days seen", value: (r) => seen.days[r] },
        { head: "still running", value: (r) => (seen.running[r] ? "yes" : "ended") },
      ],
      cell: (r) => <MonthStrip months={view.months} seen={seen.months[r] ?? []} />,
    },
    figure(
      "cost",
      `${currency} a month`,
      "estimated cost a month",
      "82px",
      (r) => seen.monthly_cost[r],
      money,
    ),
  ];
}

const whose = (view: Rivals, part: Part): RivalColumn =>
  text("rivals", "Rivals", "minmax(100px, 0.6fr)", (r) =>
    columnsOf(view, part)
      .rivals[r]?.map((at) => view.rivals[at])
      .join(", "),
  );

const text = (
  id: string,
  head: string,
  width: string,
  cell: (row: number) => string | undefined,
): RivalColumn => ({
  id,
  head,
  label: head.toLowerCase(),
  width,
  sortable: true,
  value: cell,
  cell: cell as (row: number) => Plain,
});

const figure = (
  id: string,
  head: string,
  label: string,
  width: string,
  value: (row: number) => number | null | undefined,
  say: (value: number | null | undefined) => string,
): RivalColumn => ({
  id,
  head,
  label,
  width,
  align: "end",
  sortable: true,
  value,
  cell: (r) => say(value(r)),
});

/** Addresses as they are read: without how they are fetched. */
const bare = (pages: readonly string[] | undefined): string =>
  (pages ?? []).map((page) => page.replace(/^https?:\/\/(www\.)?/, "")).join(" · ");
