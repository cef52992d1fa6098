import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useMemo, type ReactNode } from "react";
import {
  client,
  taken,
  windowName,
  type CallName,
  type ChangeAnswer,
  type Summary,
  type PlanAnswer,
  type Schemas,
  type SheetBlock,
} from "./client";
import { merged } from "./merge";
import { tellJob, type Progress } from "./progress";
import { useSaying } from "./saying";
import type { Per } from "../parts/format";

type OpenPlan = {
  id: number;
  summary: Summary;
  sheet: SheetBlock;
  /** Send a change; true where it was taken, otherwise the reason is said. */
  change: (request: () => Promise<ChangeAnswer>) => Promise<boolean>;
  changeBrief: (fields: Schemas["BriefChange"]) => Promise<boolean>;
  /** Set what is left to spend on clicks; the sum before tax and fee follows. */
  changePurse: (purse: number, per?: Per) => Promise<boolean>;
  changeAssumption: (name: string, value: number | null) => Promise<boolean>;
  call: (ids: number[], call: CallName, more?: CallMore) => Promise<boolean>;
  lockBid: (ids: number[], bid: number | null) => Promise<boolean>;
  undo: () => Promise<boolean>;
  redo: () => Promise<boolean>;
  setSummary: (summary: Summary) => void;
};

type CallMore = { reason?: string; by?: Schemas["CallChange"]["by"] };

/** What the server tells: how far long work is, that the plan has changed, is deleted or back. */
type Told =
  | ({ job: string } & Progress)
  | { revision: number; window: string }
  | { stands: number }
  | { gone: boolean; window: string };

const Context = createContext<OpenPlan | null>(null);

/** The plan that is open. */
export function usePlan(): OpenPlan {
  const open = useContext(Context);
  if (!open) throw new Error("usePlan outside of PlanProvider");
  return open;
}

type Props = {
  id: number;
  waiting: ReactNode;
  failed: (why: string) => ReactNode;
  children: ReactNode;
};

export function PlanProvider({ id, waiting, failed, children }: Props) {
  const queries = useQueryClient();
  const key = useMemo(() => ["plan", id], [id]);
  const query = useQuery({
    queryKey: key,
    queryFn: () =>
      taken<PlanAnswer>(client.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
    staleTime: Infinity,
    retry: false,
  });
  const { say, complain } = useSaying();

  const change = useCallback(
    async (request: () => Promise<ChangeAnswer>) => {
      try {
        const answer = await request();
        const now = queries.getQueryData<PlanAnswer>(key);
        const next = now && merged(now, answer);
        if (next) queries.setQueryData(key, next);
        else await queries.invalidateQueries({ queryKey: key });
        say(answer.did);
        return true;
      } catch (error) {
        complain(error);
        return false;
      }
    },
    [queries, key, say, complain],
  );

  useEffect(() => {
    const stream = new EventSource(`/api/plans/${id}/events`);
    stream.onmessage = (event: MessageEvent<string>) => {
      const told = JSON.parse(event.data) as Told;
      if ("job" in told) {
        tellJob(told.job, told);
        return;
      }
      const now = queries.getQueryData<PlanAnswer>(key);
      if ("stands" in told) {
        if (now && told.stands !== now.summary.revision)
          void queries.invalidateQueries({ queryKey: key });
        return;
      }
      if ("gone" in told) {
        if (told.window !== windowName) void queries.resetQueries({ queryKey: key });
        return;
      }
      if (told.window !== windowName && now && told.revision >= now.summary.revision)
        void queries.invalidateQueries({ queryKey: key });
    };
    return () => stream.close();
  }, [id, key, queries]);

  const acts = useMemo(() => {
    const path = { params: { path: { plan_id: id } } };
    return {
      id,
      change,
      changeBrief: (body: Schemas["BriefChange"]) =>
        change(() => taken(client.PATCH("/api/plans/{plan_id}/brief", { ...path, body }))),
      changePurse: (purse: number, per: Per = "month") => {
        const body = { purse, per };
        return change(() => taken(client.PUT("/api/plans/{plan_id}/purse", { ...path, body })));
      },
      changeAssumption: (name: string, value: number | null) => {
        const body = { values: { [name]: value } };
        return change(() =>
          taken(client.PATCH("/api/plans/{plan_id}/assumptions", { ...path, body })),
        );
      },
      call: (ids: number[], call: CallName, { reason = "", by = "hand" }: CallMore = {}) => {
        const body = { ids, call, reason, by };
        return change(() => taken(client.POST("/api/plans/{plan_id}/calls", { ...path, body })));
      },
      lockBid: (ids: number[], bid: number | null) =>
        change(() =>
          taken(client.POST("/api/plans/{plan_id}/bids", { ...path, body: { ids, bid } })),
        ),
      undo: () => change(() => taken(client.POST("/api/plans/{plan_id}/undo", path))),
      redo: () => change(() => taken(client.POST("/api/plans/{plan_id}/redo", path))),
      setSummary: (summary: Summary) =>
        queries.setQueryData<PlanAnswer>(key, (now) => now && { ...now, summary }),
    };
  }, [id, change, queries, key]);
  const open: OpenPlan | null = useMemo(
    () => (query.data ? { ...acts, ...query.data } : null),
    [acts, query.data],
  );

  if (query.error && !open) return failed(query.error.message);
  if (!open) return waiting;
  return <Context.Provider value={open}>{children}</Context.Provider>;
}
