type IdOf = (row: number) => number;

/** The place of an id among the rows shown, −1 where it isn't. */
export function place(rows: readonly number[], idOf: IdOf, id: number | null): number {
  return id === null ? -1 : rows.findIndex((row) => idOf(row) === id);
}

/** The ids from one place to another, both included. */
export function span(rows: readonly number[], idOf: IdOf, from: number, to: number): number[] {
  const [first, last] = from < to ? [from, to] : [to, from];
  return rows.slice(first, last + 1).map(idOf);
}

export function withRange(ids: ReadonlySet<number>, more: number[]): Set<number> {
  return new Set([...ids, ...more]);
}

export function withToggled(ids: ReadonlySet<number>, id: number): Set<number> {
  const next = new Set(ids);
  if (!next.delete(id)) next.add(id);
  return next;
}
