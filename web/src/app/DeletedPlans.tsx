import styled from "styled-components";
import { useSaying } from "../data/saying";
import { TextButton } from "../parts/Button";
import { dayOf, daySaid } from "../parts/days";
import { planLines } from "./planLines";
import { useDeleted, type DeletedPlan } from "./useDeleted";

type Props = { onBack?: (plan: DeletedPlan) => void };

/** Plans that were deleted, the last one first: none is gone, each can be brought back. */
export function DeletedPlans({ onBack }: Props) {
  const { complain } = useSaying();
  const { plans, bringBack } = useDeleted();
  const bring = async (plan: DeletedPlan) => {
    try {
      await bringBack(plan.id);
      onBack?.(plan);
    } catch (error) {
      complain(error);
    }
  };
  if (!plans?.length) return null;
  return (
    <Gone aria-label="Deleted plans">
      <h2>Deleted</h2>
      <ul>
        {plans.map((plan) => (
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
