import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, taken, type Schemas } from "./client";
import { usePlan } from "./plan";

export type Trying = Partial<Schemas["Trying"]>;

const settleMs = 120;

/** What the plan would do under something that is only tried; undefined while nothing is. */
export function useTry(body: Trying | null): Schemas["Tried"] | undefined {
  const { id, frame } = usePlan();
  const text = body ? JSON.stringify(body) : "";
  const [settled, setSettled] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), settleMs);
    return () => clearTimeout(timer);
  }, [text]);
  const query = useQuery({
    queryKey: ["try", id, frame.revision, settled],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/try", {
          params: { path: { plan_id: id } },
          body: JSON.parse(settled) as Schemas["Trying"],
        }),
      ),
    enabled: settled !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
  return text && settled ? query.data : undefined;
}
