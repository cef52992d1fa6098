import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Summary, type Schemas } from "../data/client";
import { useSettled } from "../parts/useSettled";

export type Ranges = Schemas["Ranges"];

/** Changes that follow each other within this time are drawn once, at their end. */
const settleMilliseconds = 350;

/** How wide the forecast is: a moment after the figures, and marked while it is of an older plan. */
export function useRanges(summary: Summary): { ranges: Ranges | undefined; late: boolean } {
  const settled = useSettled(summary.revision, settleMilliseconds, -1);
  const id = summary.plan_id;
  const query = useQuery({
    queryKey: ["ranges", id, settled],
    queryFn: () =>
      taken<Ranges | null>(
        client.GET("/api/plans/{plan_id}/ranges", { params: { path: { plan_id: id } } }),
      ),
    enabled: settled === summary.revision,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const [held, setHeld] = useState<{ id: number; ranges: Ranges } | null>(null);
  const drawn = query.data;
  if (drawn && (held?.ranges !== drawn || held.id !== id)) setHeld({ id, ranges: drawn });
  // none was drawn where the plan changed meanwhile: the last ones stay until there are others
  const ranges = drawn ?? (held?.id === id ? held.ranges : undefined);
  return { ranges, late: ranges?.revision !== summary.revision };
}
