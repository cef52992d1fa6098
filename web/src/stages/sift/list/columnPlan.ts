import { useSyncExternalStore } from "react";
import type { Column } from "../../../parts/column";

/** Which columns are shown, in which order, how wide; kept in this browser. */
export type ColumnPlan = { order: string[]; hidden: string[]; widths: Record<string, number> };

/** As it is kept: with the columns that could be hidden then, so that later ones start hidden. */
type Kept = Partial<ColumnPlan> & { known?: string[] };

const store = "milkwort.ladder";
const listeners = new Set<() => void>();
const usual: ColumnPlan = {
  order: [],
  hidden: ["clicks", "reach", "ceiling", "rate", "spill", "first_sale", "own_note", "reason", "by",
    "at", "origin", "offer", "rank", "match", "paid", "gap",
    "low", "middle", "high", "competition", "popularity"],
  widths: {},
}; // prettier-ignore
/** What could be hidden before this was kept with a plan. */
const knownAtFirst = usual.hidden.slice(0, usual.hidden.indexOf("paid"));
let held: { text: string | null; plan: ColumnPlan } = { text: null, plan: usual };

function read(): ColumnPlan {
  const text = localStorage.getItem(store);
  if (text === held.text) return held.plan;
  let plan = usual;
  try {
    if (text !== null) plan = withLater(JSON.parse(text) as Kept);
  } catch {
    // what can't be read is as if it were never written
  }
  held = { text, plan };
  return plan;
}

function withLater({ known = knownAtFirst, ...kept }: Kept): ColumnPlan {
  const plan = { ...usual, ...kept };
  const later = usual.hidden.filter((id) => !known.includes(id));
  return { ...plan, hidden: [...new Set([...plan.hidden, ...later])] };
}

function write(plan: ColumnPlan | null): void {
  if (plan) localStorage.setItem(store, JSON.stringify({ ...plan, known: usual.hidden }));
  else localStorage.removeItem(store);
  for (const listener of listeners) listener();
}

export function useColumnPlan() {
  const plan = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);
  return { plan, setPlan: write };
}

/** All columns in the planner's order: those it names first, the rest as they come. */
export function inOrder(columns: Column[], plan: ColumnPlan): Column[] {
  const place = new Map(plan.order.map((id, at) => [id, at]));
  const at = (column: Column, own: number) => place.get(column.id) ?? plan.order.length + own;
  return columns
    .map((column, own) => ({ column, at: at(column, own) }))
    .sort((a, b) => a.at - b.at)
    .map(({ column }) => column);
}

/** The columns that are shown, in order and as wide as asked. */
export function chosenColumns(columns: Column[], plan: ColumnPlan): Column[] {
  return inOrder(columns, plan)
    .filter(({ id }) => id === "keyword" || !plan.hidden.includes(id))
    .map((column) => {
      const width = plan.widths[column.id];
      return width ? { ...column, width: `${width}px` } : column;
    });
}

/** A column moved up or down among all. */
export function movedColumn(columns: Column[], plan: ColumnPlan, id: string, by: number) {
  const order = inOrder(columns, plan).map((column) => column.id);
  const from = order.indexOf(id);
  const to = Math.max(0, Math.min(order.length - 1, from + by));
  order.splice(to, 0, ...order.splice(from, 1));
  return { ...plan, order };
}
