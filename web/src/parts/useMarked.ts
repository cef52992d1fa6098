import { useMemo, useState } from "react";

const none: ReadonlySet<string> = new Set();

type Marked = {
  active: number | null;
  setActive: (row: number) => void;
  selected: ReadonlySet<number>;
  setSelected: (rows: ReadonlySet<number>) => void;
  /** Nothing is selected any more, and no row is active, or the first where a list begins so. */
  clear: () => void;
};

/**
 * Which rows of a list are marked, by what they are and not by where they stand: an answer that
 * comes meanwhile may put others there. Where the active row is gone, the one that took its place
 * is active: whoever decides one after another goes on without a key between.
 *
 * `begins` says whether the first row is active before any was chosen.
 */
export function useMarked(
  rows: readonly number[],
  keyOf: (row: number) => string,
  begins = false,
): Marked {
  const [at, setAt] = useState<{ key: string; place: number } | null>(null);
  const [kept, setKept] = useState(none);
  const active = useMemo(() => {
    if (!at) return begins ? (rows[0] ?? null) : null;
    // two rows may be the same by what they are: then the one that stands where it stood
    const there = rows[at.place];
    if (there !== undefined && keyOf(there) === at.key) return there;
    const same = rows.find((row) => keyOf(row) === at.key);
    return same ?? rows[Math.min(at.place, rows.length - 1)] ?? null;
  }, [at, rows, keyOf, begins]);
  const selected = useMemo(
    () => new Set(kept.size > 0 ? rows.filter((row) => kept.has(keyOf(row))) : []),
    [kept, rows, keyOf],
  );
  return {
    active,
    selected,
    setActive: (row) => setAt({ key: keyOf(row), place: rows.indexOf(row) }),
    setSelected: (some) => setKept(new Set([...some].map(keyOf))),
    clear: () => {
      setKept(none);
      setAt(null);
    },
  };
}
