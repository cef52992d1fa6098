import type { Schemas } from "../../../../data/client";
import type { Sort } from "../../../../parts/column";

export type Rivals = Schemas["RivalsView"];
export type Seen = Omit<Schemas["RivalKeywords"], "ours" | "would_bring" | "unknown_why">;
export type Part = "they" | "both" | "ads" | "rivals";

/** What stands in a part, as columns. */
export const columnsOf = (view: Rivals, part: Part): Seen =>
  part === "rivals" ? view.totals : part === "ads" ? view.ads : view.keywords;

/** Rows of a part that hold all words asked for and none with a minus before it. */
export function rowsOf(view: Rivals, part: Part, words: string): number[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const { name } = columnsOf(view, part);
  return name.flatMap((text, at) => {
    if (part === "they" || part === "both")
      if (view.keywords.ours[at] !== (part === "both")) return [];
    const said = text.toLowerCase();
    const fits = wanted.every((word) =>
      word.length > 1 && word.startsWith("-") ? !said.includes(word.slice(1)) : said.includes(word),
    );
    return fits ? [at] : [];
  });
}

/** Only-they keywords of some rows, or of some ads. */
export function textsOf(view: Rivals, part: Part, rows: readonly number[]): string[] {
  const { name, ours } = view.keywords;
  if (part === "they") return rows.map((at) => name[at] ?? "");
  if (part !== "ads") return [];
  const shownFor = new Set(rows.flatMap((at) => view.ads.keywords[at] ?? []));
  return name.filter((text, at) => !ours[at] && shownFor.has(text));
}

export type Value = number | string | boolean | null | undefined;

/** Rows by one column; what has no value comes last either way. */
export function ordered(rows: readonly number[], sort: Sort | null, value: (row: number) => Value) {
  if (!sort) return rows;
  const way = sort.down ? -1 : 1;
  return [...rows].sort((a, b) => {
    const [one, other] = [value(a), value(b)];
    if (one == null || other == null) return Number(one == null) - Number(other == null) || a - b;
    if (one === other) return a - b;
    return (
      (typeof one === "string" ? one.localeCompare(String(other)) : one < other ? -1 : 1) * way
    );
  });
}
