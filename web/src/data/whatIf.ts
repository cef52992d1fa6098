import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { usePaced } from "../parts/usePaced";
import { client, taken, type Summary, type Schemas } from "./client";
import { usePlan } from "./plan";

export type WhatIf = Partial<Schemas["WhatIf"]>;
type Purse = Summary["purse"];

const paceMilliseconds = 100;

// what is tried somewhere is shown by the purse at the foot
let shown: Purse | null = null;
const listeners = new Set<() => void>();

function show(purse: Purse | null): void {
  shown = purse;
  for (const listener of listeners) listener();
}

/** The purse under what is being tried; null while nothing is. */
export function useTriedPurse(): Purse | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => shown,
  );
}

/** Shows a purse at the foot as long as it is only tried; null for the plan's own. */
export function useShownPurse(purse: Purse | null): void {
  useEffect(() => {
    show(purse);
    return () => show(null);
  }, [purse]);
}

/** What the plan would do under something that is only tried; undefined while nothing is. */
export function useTry(body: WhatIf | null): Schemas["WhatIfAnswer"] | undefined {
  const { id, summary } = usePlan();
  const text = body ? JSON.stringify(body) : "";
  const paced = usePaced(text, paceMilliseconds);
  const query = useQuery({
    queryKey: ["try", id, summary.revision, paced],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/try", {
          params: { path: { plan_id: id } },
          body: JSON.parse(paced) as Schemas["WhatIf"],
        }),
      ),
    enabled: paced !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
  const tried = text && paced ? query.data : undefined;
  useShownPurse(tried?.purse ?? null);
  return tried;
}
