import type { ReactNode } from "react";

/** What a cell says where it is text alone. */
export type Plain = string | number | null | undefined;

/** What leaves of a column with the list: one value a row under a head of its own. */
export type Leaf = { head: string; value: (row: number) => Plain };

type Place = {
  id: string;
  /** What stands over it; with its unit. */
  head: ReactNode;
  /** The same as plain text. */
  label: string;
  /** A track of the grid's template, such as 80px or minmax(160px, 1fr). */
  width: string;
  align?: "end";
  sortable?: boolean;
};

/** A column says what it shows, and, where that is drawn, what of it leaves with the list. */
export type Column = Place &
  (
    | { cell: (row: number) => Plain; leaves?: readonly Leaf[] }
    | { cell: (row: number) => ReactNode; leaves: readonly Leaf[] }
  );

type Order = { by: string; down: boolean };
/** Two deep: rows alike in the first are ordered by the second. */
export type Sort = Order & { then?: Order };
