import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
  type ReactNode,
} from "react";
import { useSearchParams } from "react-router";
import { useDesk } from "../../app/desk";
import type { CallName } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { filtered, fromAddress, intoAddress, type Filter } from "./filter";

export type Judged = { call: CallName; ids: number[]; reason: string };
type How = { reason?: string; by?: "hand" | "word" | "rule" };

type SiftDesk = {
  filter: Filter;
  setFilter: (filter: Filter) => void;
  /** Rows that the filter leaves, in the sheet's order; a call takes none away. */
  shown: number[];
  idOf: (row: number) => number;
  rowOf: ReadonlyMap<number, number>;
  selected: ReadonlySet<number>;
  setSelected: (ids: ReadonlySet<number>) => void;
  /** What an action acts on: the selection, else the keyword one stands on. */
  targets: number[];
  last: Judged | null;
  judge: (call: CallName, ids?: number[], how?: How) => Promise<boolean>;
};

const Context = createContext<SiftDesk | null>(null);

export function useSift(): SiftDesk {
  const desk = useContext(Context);
  if (!desk) throw new Error("useSift outside of SiftProvider");
  return desk;
}

/** What the ways into the sheet share: filter, selection, calls. */
export function SiftProvider({ children }: { children: ReactNode }) {
  const { sheet, call } = usePlan();
  const { active, ask, asked } = useDesk();
  const { say } = useSaying();
  const [params, setParams] = useSearchParams();
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [last, setLast] = useState<Judged | null>(null);
  const address = params.toString();
  const filter = useMemo(() => fromAddress(new URLSearchParams(address)), [address]);
  const setFilter = useCallback(
    (next: Filter) => setParams((now) => intoAddress(next, now), { replace: true }),
    [setParams],
  );
  const shown = useShown(filter);
  const { id: ids } = sheet.texts;
  const rowOf = useMemo(() => new Map(ids.map((id, row) => [id, row])), [ids]);
  const idOf = useCallback((row: number) => ids[row]!, [ids]);
  const targets = useMemo(() => {
    if (selected.size === 0) return active === null ? [] : [active];
    const there = new Set(shown.map(idOf));
    return [...selected].filter((id) => there.has(id));
  }, [selected, active, shown, idOf]);

  useEffect(() => {
    if (targets.length > 1) ask({ kind: "selection", ids: targets }, false);
    else if (asked?.kind === "selection")
      ask(active === null ? null : { kind: "keyword", id: active });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is asked follows the selection, not the other way round
  }, [targets]);

  const judge = useCallback(
    async (name: CallName, some?: number[], how: How = {}) => {
      const wanted = some ?? targets;
      if (wanted.length === 0) {
        say("Select a keyword first: arrows move, x selects.");
        return false;
      }
      const reason = how.reason ?? "";
      const took = await call(wanted, name, { ...how, reason });
      if (took) setLast({ call: name, ids: wanted, reason });
      return took;
    },
    [targets, call, say],
  );
  const desk = useMemo(
    () => ({ filter, setFilter, shown, idOf, rowOf, selected, setSelected, targets, last, judge }),
    [filter, setFilter, shown, idOf, rowOf, selected, targets, last, judge],
  );
  return <Context.Provider value={desk}>{children}</Context.Provider>;
}

/** Rows change when the filter, the keywords or the ceilings do: never because of a call. */
function useShown(filter: Filter): number[] {
  const { sheet } = usePlan();
  const { ceiling, cpc_at_line } = sheet.figures;
  return useMemo(
    () => filtered(sheet, filter),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the sheet itself is left out on purpose
    [sheet.texts.id, filter, ceiling, cpc_at_line],
  );
}
