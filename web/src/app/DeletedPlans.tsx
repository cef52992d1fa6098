import { useQuery, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { client, taken, type Schemas } from "../data/client";
import { useSaying } from "../data/saying";
import { TextButton } from "../parts/Button";
import { dayOf, daySaid } from "../parts/days";
import { planLines } from "./planLines";

type Deleted = Schemas["DeletedPlan"];
type Props = { onBack?: (plan: Deleted) => void };

/** Plans that were deleted, the last one first: none is gone, each can be brought back. */
export function DeletedPlans({ onBack }: Props) {
  const queries = useQueryClient();
  const { complain } = useSaying();
  const found = useQuery({
    queryKey: ["plans", "deleted"],
    queryFn: () => taken<Deleted[]>(client.GET("/api/plans/deleted")),
    staleTime: 0,
  });
  const bring = async (plan: Deleted) => {
    try {
      const path = { params: { path: { plan_id: plan.id } } };
      await taken(client.POST("/api/plans/{plan_id}/restore", path));
      await queries.invalidateQueries({ queryKey: ["plans"] });
      onBack?.(plan);
    } catch (error) {
      complain(error);
    }
  };
  if (!found.data?.length) return null;
  return (
    <Gone aria-label="Deleted plans">
      <h2>Deleted</h2>
      <ul>
        {found.data.map((plan) => (
          <li key={plan.id}>
            <span>{plan.label ? `${plan.name} · ${plan.label}` : plan.name}</span>{" "}
            <small>
              of {plan.client}, on {daySaid(dayOf(plan.deleted_at))}
            </small>
            <TextButton aria-label={`Bring ${plan.name} back`} onPress={() => void bring(plan)}>
              bring back
            </TextButton>
          </li>
        ))}
      </ul>
    </Gone>
  );
}

const Gone = styled.section`
  ${planLines}
`;
