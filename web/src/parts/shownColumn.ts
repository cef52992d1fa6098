import type { SheetBlock } from "../data/client";
import { shownColumns, type ShownColumn } from "../data/columns.generated";
import { count, money, number } from "./format";

type Value = number | string | null | undefined;

/** What a column holds in a row, as the server said it. */
export function valueOf({ texts, figures }: SheetBlock, { from }: ShownColumn) {
  const values: readonly unknown[] = "texts" in from ? texts[from.texts] : figures[from.figures];
  return (row: number) => values[row] as Value;
}

/** The same, as it is written. */
export function writtenOf(sheet: SheetBlock, column: ShownColumn): (row: number) => string {
  const of = valueOf(sheet, column);
  if (column.written === "text") return (row) => String(of(row) ?? "");
  const figure = (row: number) => of(row) as number | null | undefined;
  const written = {
    money: (row: number) => money(figure(row)),
    count: (row: number) => count(figure(row)),
    number: (row: number) => number(figure(row)),
    percent: (row: number) => {
      const share = figure(row);
      return share == null ? "–" : number(share * 100, column.digits);
    },
  };
  return written[column.written];
}

export const headingOf = ({ heading }: ShownColumn, currency: string) =>
  heading.replace("{currency}", currency);

export const columnById = new Map(shownColumns.map((column) => [column.id, column]));
