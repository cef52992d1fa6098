import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import type { operations } from "../data/api.generated";
import type { FigureName, Schemas } from "../data/client";

export type Sure =
  operations["sure_api_plans__plan_id__how_sure_workings__of__get"]["parameters"]["path"]["of"];
export type Standing = keyof Schemas["StandingValues"];

/** What the workings panel is asked about. */
export type Asked =
  | { kind: "keyword"; id: number }
  | { kind: "selection"; ids: number[] }
  | { kind: "figure"; name: FigureName }
  /** A month of the year ahead, 0 for the first. */
  | { kind: "month"; month: number }
  /** What the draws of the month say. */
  | { kind: "sure"; of: Sure; name: string }
  /** A figure of a version; its revision, for it may change while another is open. */
  | { kind: "standing"; plan: number; revision: number; figure: Standing }
  /** How often one version brings more than another. */
  | { kind: "apart"; first: number; second: number; revisions: string }
  | { kind: "group" | "campaign" | "negative"; id: number }
  /** Keywords of a conflict. */
  | { kind: "together"; ids: number[] }
  /** A negative that might be added. */
  | { kind: "block"; text: string; match: Schemas["Form"]["match"] }
  /** A word that no page says. */
  | { kind: "word"; word: string };

type Asking = {
  setActive: (id: number | null) => void;
  /** Ask for workings; opens the panel unless told not to. */
  ask: (asked: Asked | null, opens?: boolean) => void;
  open: boolean;
  setOpen: (open: boolean) => void;
};

type Stand = {
  /** The keyword the planner stands on, kept from stage to stage. */
  active: number | null;
  asked: Asked | null;
};

// two, so that a step in a sheet draws only what shows where the planner stands
const Context = createContext<Asking | null>(null);
const Standing = createContext<Stand>({ active: null, asked: null });

export function useAsking(): Asking {
  const asking = useContext(Context);
  if (!asking) throw new Error("useAsking outside of AskedProvider");
  return asking;
}

export const useAsked = (): Stand => useContext(Standing);

type Props = { children: ReactNode };

export function AskedProvider({ children }: Props) {
  const [active, setActive] = useState<number | null>(null);
  const [asked, ask] = useState<Asked | null>(null);
  const [open, setOpen] = useState(() => window.innerWidth >= 1180);
  const asking = useMemo(
    () => ({
      setActive: (id: number | null) => {
        setActive(id);
        ask(id === null ? null : { kind: "keyword", id });
      },
      ask: (next: Asked | null, opens = true) => {
        ask(next);
        if (next && opens) setOpen(true);
      },
      open,
      setOpen,
    }),
    [open],
  );
  const stand = useMemo(() => ({ active, asked }), [active, asked]);
  return (
    <Context.Provider value={asking}>
      <Standing.Provider value={stand}>{children}</Standing.Provider>
    </Context.Provider>
  );
}
