import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../../data/client";
import type { Tray } from "./tray";

export type Verdict = NonNullable<Schemas["TakeChoice"]["changed"]>;

/** What becomes of rows with new figures: as the plan's rule says, unless said otherwise. */
export function useVerdicts(tray: Tray) {
  const [said, setSaid] = useState<ReadonlyMap<number, Verdict>>(new Map());
  const { verdict } = tray;
  const of = useCallback((row: number) => said.get(row) ?? verdict, [said, verdict]);
  const set = (rows: readonly number[], to: Verdict) =>
    setSaid((now) => new Map([...now, ...rows.map((row) => [row, to] as const)]));
  const body = useMemo(
    () => ({
      changed: verdict,
      verdicts: Object.fromEntries(
        [...said].map(([row, to]) => [String(tray.rows.row[row] ?? row), to]),
      ),
    }),
    [said, verdict, tray.rows.row],
  );
  return { of, set, body };
}
