import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../data/client";

export type DeletedPlan = Schemas["DeletedPlan"];

/** Plans that were deleted, and the way to bring one back. */
export function useDeleted() {
  const queries = useQueryClient();
  const found = useQuery({
    queryKey: ["plans", "deleted"],
    queryFn: () => taken<DeletedPlan[]>(client.GET("/api/plans/deleted")),
    staleTime: 0,
  });
  const bringBack = async (id: number) => {
    const path = { params: { path: { plan_id: id } } };
    await taken(client.POST("/api/plans/{plan_id}/restore", path));
    await queries.invalidateQueries({ queryKey: ["plans"] });
  };
  return { plans: found.data, asking: found.isPending, bringBack };
}
