import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { useSearchParams } from "react-router";
import { useAsked, useAsking } from "../../app/asked";
import type { CallName } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { filtered, fromAddress, intoAddress, queryOf, type Filter } from "./filter/filter";
import { useForms } from "./filter/useForms";

export const views = [
  { id: "list", name: "List", key: "t" },
  { id: "words", name: "Words", key: "i" },
  { id: "one", name: "One by one", key: "o" },
  { id: "map", name: "Map", key: "m" },
  { id: "compare", name: "Compare", key: "c" },
] as const;
export type View = (typeof views)[number]["id"];

export type Called = { call: CallName; ids: number[]; reason: string };
type How = { reason?: string; by?: "hand" | "word" | "rule" };

type Sifting = {
  filter: Filter;
  setFilter: (filter: Filter) => void;
  /** Rows that the filter leaves, in the sheet's order; a call takes none away. */
  shown: number[];
  idOf: (row: number) => number;
  rowOf: ReadonlyMap<number, number>;
  selected: ReadonlySet<number>;
  setSelected: (ids: ReadonlySet<number>) => void;
  last: Called | null;
  view: View;
  setView: (view: View) => void;
  /** Filter and order anew: what was called meanwhile may go or move. */
  refresh: () => void;
};

type Calls = {
  /** What an action acts on: the selection, else the keyword one stands on. */
  targets: number[];
  callAs: (call: CallName, ids?: number[], how?: How) => Promise<boolean>;
};

// two, so that a step in the sheet leaves the filter's chips alone
const Context = createContext<Sifting | null>(null);
const CallsContext = createContext<Calls | null>(null);

export function useSift(): Sifting {
  const sifting = useContext(Context);
  if (!sifting) throw new Error("useSift outside of SiftProvider");
  return sifting;
}

export function useCalls(): Calls {
  const calls = useContext(CallsContext);
  if (!calls) throw new Error("useCalls outside of SiftProvider");
  return calls;
}

/** What the ways into the sheet share: filter, selection, calls. */
export function SiftProvider({ children }: { children: ReactNode }) {
  const { sheet, call } = usePlan();
  const { ask } = useAsking();
  const { active, asked: askedOf } = useAsked();
  const { say } = useSaying();
  const { params, setParams } = useAddress();
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [last, setLast] = useState<Called | null>(null);
  const [filter, setFilter] = useFilter(params, setParams);
  const [anew, setAnew] = useState(0);
  const shown = useShown(filter, anew);
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
    else if (askedOf?.kind === "selection")
      ask(active === null ? null : { kind: "keyword", id: active });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is asked follows the selection, not the other way round
  }, [targets]);

  const callAs = useCallback(
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
  const asked = params.get("view");
  const view = views.find(({ id }) => id === asked)?.id ?? "list";
  const setView = useCallback(
    (next: View) =>
      setParams((now) => {
        const changed = new URLSearchParams(now);
        if (next === "list") changed.delete("view");
        else changed.set("view", next);
        return changed;
      }, false),
    [setParams],
  );
  const refresh = useCallback(() => setAnew((n) => n + 1), []);
  const sifting = useMemo(
    () => ({
      filter,
      setFilter,
      shown,
      idOf,
      rowOf,
      selected,
      setSelected,
      last,
      view,
      setView,
      refresh,
    }),
    [filter, setFilter, shown, idOf, rowOf, selected, last, view, setView, refresh],
  );
  const calls = useMemo(() => ({ targets, callAs }), [targets, callAs]);
  return (
    <Context.Provider value={sifting}>
      <CallsContext.Provider value={calls}>{children}</CallsContext.Provider>
    </Context.Provider>
  );
}

type Write = (now: URLSearchParams) => URLSearchParams;

/** The address, written to from where it is going rather than from where it last was. */
function useAddress() {
  const [params, set] = useSearchParams();
  const going = useRef(params);
  useEffect(() => {
    going.current = params;
  }, [params]);
  const setParams = useCallback(
    (write: Write, replace: boolean) => {
      going.current = write(going.current);
      set(going.current, { replace });
    },
    [set],
  );
  return { params, setParams };
}

/**
 * The filter, mirrored in the address. It is held here and not only there, since an address
 * changes a moment later, and typing must not wait for it.
 */
function useFilter(params: URLSearchParams, setParams: (write: Write, replace: boolean) => void) {
  const [filter, setHeld] = useState(() => fromAddress(params));
  const onItsWay = useRef<string | null>(null);
  const query = queryOf(fromAddress(params));
  const here = useRef(query);
  useEffect(() => {
    here.current = query;
    if (onItsWay.current === null) setHeld(fromAddress(new URLSearchParams(query)));
    else if (onItsWay.current === query) onItsWay.current = null;
  }, [query]);
  const setFilter = useCallback(
    (next: Filter) => {
      const wanted = queryOf(next);
      onItsWay.current = wanted === here.current ? null : wanted;
      setHeld(next);
      setParams((now) => intoAddress(next, now), true);
    },
    [setParams],
  );
  return [filter, setFilter] as const;
}

/** Rows change when the filter, the keywords or the brief do, or when asked: never by a call. */
function useShown(filter: Filter, asked: number): number[] {
  const { sheet, summary } = usePlan();
  const { values, assumptions } = summary.brief;
  const brief = JSON.stringify([values, assumptions]);
  const forms = useForms(filter);
  return useMemo(
    () => filtered(sheet, filter, forms),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the sheet itself is left out on purpose
    [sheet.texts.id, filter, forms, brief, asked],
  );
}
