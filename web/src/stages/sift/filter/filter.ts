import type { SheetBlock } from "../../../data/client";
import { shownColumns } from "../../../data/columns.generated";
import { beginOf } from "../../../parts/days";
import { valueOf } from "../../../parts/shownColumn";

export type Range = readonly [number | null, number | null];

/** What of the sheet is shown. It stands in the address, so that it can be kept and sent. */
export type Filter = {
  /** Words in, -words out. */
  words: string;
  picks: Record<string, string[]>;
  ranges: Record<string, Range>;
  flags: string[];
  /** Called on this day or later, as 2026-11-25. */
  since: string;
};

export const everything: Filter = { words: "", picks: {}, ranges: {}, flags: [], since: "" };

/** The singular of a word that has another. */
export type Forms = Readonly<Record<string, string>>;

type Of<T> = (sheet: SheetBlock, row: number) => T;

/** What keywords can be picked by. A source is picked without the row of its file. */
export const picks: { id: string; name: string; of: Of<string> }[] = shownColumns
  .filter((column) => column.picked)
  .map((column) => ({
    id: column.id,
    name: column.picked,
    of: (sheet, row) => String(valueOf(sheet, column)(row) ?? "").replace(/, row \d+$/, ""),
  }));

/** What has a least and a most. Beyond the line, what a keyword would need to come in. */
export const ranges: { id: string; name: string; of: Of<number | null | undefined> }[] = [
  ...shownColumns
    .filter((column) => column.ranged)
    .map((column) => ({
      id: column.id,
      name: column.ranged,
      of: (sheet: SheetBlock, row: number) => {
        const value = valueOf(sheet, column)(row) as number | null | undefined;
        return column.written === "percent" ? times(value, 100) : value;
      },
    })),
  { id: "price", name: "price", of: ({ figures }, row) => figures.cpc_median[row] },
  { id: "length", name: "words", of: ({ texts }, row) => texts.text[row]?.split(/\s+/).length },
  { id: "rate", name: "in if % buy", of: beyond("rate_at_line", 100) },
  { id: "value", name: "in if a sale is", of: beyond("value_at_line", 1) },
  { id: "cheaper", name: "in if % of price", of: beyond("price_at_line", 100) },
];

/** What a keyword is or isn't. */
export const flags: { id: string; name: string; of: Of<boolean> }[] = [
  { id: "thin", name: "long tail", of: ({ figures }, row) => has(figures.notes[row], "thin") },
  { id: "warning", name: "warning word", of: ({ texts }, row) => /!/.test(texts.kinds[row] ?? "") },
  { id: "place", name: "another place", of: ({ texts }, row) => /p/.test(texts.kinds[row] ?? "") },
  {
    id: "unpaid",
    name: "strong unpaid, no paid",
    of: ({ texts }, row) => texts.strong_unpaid[row] ?? false,
  },
  { id: "spill", name: "spills", of: ({ figures }, row) => has(figures.notes[row], "spills") },
  { id: "note", name: "with a note", of: ({ texts }, row) => Boolean(texts.note[row]) },
];

function beyond(name: "rate_at_line" | "value_at_line" | "price_at_line", times: number) {
  return ({ figures }: SheetBlock, row: number) => {
    const value = figures.standing[row] === "beyond" ? figures[name][row] : null;
    return value == null ? null : value * times;
  };
}

const has = (notes: string[] | undefined, code: string) => Boolean(notes?.includes(code));

type Test = { id: string; fits: (row: number) => boolean };

/** The tests a filter puts to each row, by what each is about. */
export function testsOf(sheet: SheetBlock, filter: Filter, forms: Forms = {}): Test[] {
  const tests: Test[] = [];
  if (filter.words.trim()) tests.push({ id: "words", fits: wordTest(sheet, filter.words, forms) });
  for (const { id, of } of picks) {
    const wanted = filter.picks[id];
    if (wanted?.length) tests.push({ id, fits: (row) => wanted.includes(of(sheet, row)) });
  }
  for (const { id, of } of ranges) {
    const range = filter.ranges[id];
    if (range) tests.push({ id, fits: (row) => within(of(sheet, row), range) });
  }
  for (const { id, of } of flags)
    if (filter.flags.includes(id)) tests.push({ id, fits: (row) => of(sheet, row) });
  const since = beginOf(filter.since);
  if (since) {
    const { at } = sheet.texts;
    tests.push({ id: "since", fits: (row) => (at[row] ?? "") >= since });
  }
  return tests;
}

/** Rows that a filter leaves, in the sheet's order. */
export function filtered(sheet: SheetBlock, filter: Filter, forms: Forms = {}, but = ""): number[] {
  const tests = testsOf(sheet, filter, forms).filter((test) => test.id !== but);
  const rows: number[] = [];
  for (let row = 0; row < sheet.texts.id.length; row++)
    if (tests.every((test) => test.fits(row))) rows.push(row);
  return rows;
}

/** How many of the rows that the rest of a filter leaves have each value. */
export function counts(
  sheet: SheetBlock,
  filter: Filter,
  forms: Forms,
  id: string,
): Map<string, number> {
  const of = picks.find((pick) => pick.id === id)?.of;
  const found = new Map<string, number>();
  if (!of) return found;
  for (const row of filtered(sheet, filter, forms, id)) {
    const value = of(sheet, row);
    found.set(value, (found.get(value) ?? 0) + 1);
  }
  return found;
}

function within(value: number | null | undefined, [least, most]: Range): boolean {
  if (value == null) return false;
  return (least === null || value >= least) && (most === null || value <= most);
}

/** Words in and words out; a word is found in its singular too, where the server knows one. */
function wordTest({ texts }: SheetBlock, typed: string, forms: Forms): (row: number) => boolean {
  const words = bareWords(typed);
  const either = (word: string) => [word, forms[word] ?? word];
  const wanted = words.filter((word) => !word.startsWith("-")).map(either);
  const unwanted = words
    .filter((word) => word.startsWith("-"))
    .map((word) => either(word.slice(1)));
  const low = texts.text.map((text) => text.toLocaleLowerCase());
  return (row) => {
    const text = low[row] ?? "";
    const holds = (spellings: string[]) => spellings.some((word) => text.includes(word));
    return wanted.every(holds) && !unwanted.some(holds);
  };
}

const bareWords = (typed: string) =>
  typed
    .toLocaleLowerCase()
    .split(/\s+/)
    .filter((word) => word && word !== "-");

/** The words a filter asks for, as the server is asked for their other forms. */
export const wordsOf = (typed: string) =>
  bareWords(typed)
    .map((word) => word.replace(/^-/, ""))
    .sort()
    .join(" ");

const rangeOf = (text: string): Range => {
  const [least = "", most = ""] = text.split("..");
  const end = (one: string) => (one === "" || Number.isNaN(Number(one)) ? null : Number(one));
  return [end(least), end(most)];
};

/** Read a filter out of an address. */
export function fromAddress(params: URLSearchParams): Filter {
  const ranged = ranges.flatMap(({ id }) => {
    const text = params.get(id);
    return text === null ? [] : [[id, rangeOf(text)] as const];
  });
  return {
    words: params.get("q") ?? "",
    picks: Object.fromEntries(
      picks.filter(({ id }) => params.has(id)).map(({ id }) => [id, params.getAll(id)]),
    ),
    ranges: Object.fromEntries(ranged),
    flags: params.getAll("is"),
    since: params.get("since") ?? "",
  };
}

/** Write a filter into an address, beside what else stands there. */
export function intoAddress(filter: Filter, beside: URLSearchParams): URLSearchParams {
  const params = new URLSearchParams();
  const own = new Set(["q", "is", "since", ...picks.map((p) => p.id), ...ranges.map((r) => r.id)]);
  for (const [name, value] of beside) if (!own.has(name)) params.append(name, value);
  if (filter.words) params.set("q", filter.words);
  for (const { id } of picks) for (const value of filter.picks[id] ?? []) params.append(id, value);
  for (const { id } of ranges) {
    const range = filter.ranges[id];
    if (range) params.set(id, `${range[0] ?? ""}..${range[1] ?? ""}`);
  }
  for (const flag of filter.flags) params.append("is", flag);
  if (filter.since) params.set("since", filter.since);
  return params;
}

/** A filter as it is saved: its part of the address. */
export const queryOf = (filter: Filter): string =>
  intoAddress(filter, new URLSearchParams()).toString();

function times(value: number | null | undefined, by: number) {
  return value == null ? null : value * by;
}
