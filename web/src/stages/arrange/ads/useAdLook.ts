import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { useSettled } from "../../../parts/useSettled";

const settleMilliseconds = 90;

/** How an ad reads as it is being written: its counts, faults and what it says. */
export function useAdLook(draft: Schemas["AdDraft"]): Schemas["AdLook"] | undefined {
  const { id, summary } = usePlan();
  const body = useSettled(JSON.stringify(draft), settleMilliseconds);
  return useQuery({
    queryKey: ["ad look", id, summary.revision, body],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/arrange/ads/look", {
          params: { path: { plan_id: id } },
          body: JSON.parse(body) as Schemas["AdDraft"],
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  }).data;
}
