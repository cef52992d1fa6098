import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";

export type PracticeView = Schemas["PracticeView"];

const beat = 400;

/** The practice account as it stands; asked for again and again while days pass. */
export function usePractice() {
  const { id, summary } = usePlan();
  const queries = useQueryClient();
  const key = ["/practice", id, summary.revision] as const;
  const found = useQuery({
    queryKey: key,
    queryFn: () =>
      taken<PracticeView>(
        client.GET("/api/plans/{plan_id}/practice", { params: { path: { plan_id: id } } }),
      ),
    refetchInterval: (query) => (query.state.data?.account?.clock === "running" ? beat : false),
  });
  const set = async (view: PracticeView) => {
    // what was asked before this was done would come later and say that it was not
    await queries.cancelQueries({ queryKey: key });
    queries.setQueryData(key, view);
    void queries.invalidateQueries({ queryKey: ["/hand-over", id] });
  };
  return { found, set };
}
