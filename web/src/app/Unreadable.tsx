import { useState } from "react";
import { useNavigate } from "react-router";
import { client, taken } from "../data/client";
import { Button, MainButton, TextButton } from "../parts/Button";
import { Plain } from "./FirstRun";
import { useDeleted } from "./useDeleted";

type Props = {
  id: number;
  why: string;
  /** Opens the plan anew. */
  onBack?: () => void;
};

/**
 * A plan that can't be opened is still the planner's: where it is deleted it can be brought back,
 * else saved as it is, and deleted.
 */
export function Unreadable({ id, why, onBack = () => window.location.reload() }: Props) {
  const navigate = useNavigate();
  const { plans, asking, bringBack } = useDeleted();
  const [refused, setRefused] = useState("");
  const refuse = (error: Error) => setRefused(error.message);
  const path = { params: { path: { plan_id: id } } };
  const remove = () =>
    taken(client.DELETE("/api/plans/{plan_id}", path)).then(() => navigate("/"), refuse);
  const deleted = plans?.find((plan) => plan.id === id);
  if (asking) return <Plain>{why}</Plain>;
  return (
    <Plain>
      <h1>{deleted ? deleted.name : "This plan can’t be opened"}</h1>
      <p>{deleted ? "It is deleted; nothing of it is lost." : why}</p>
      <div>
        {deleted && (
          <MainButton onPress={() => void bringBack(id).then(onBack, refuse)}>
            Bring it back
          </MainButton>
        )}
        <Button onPress={() => void navigate("/")}>See all plans</Button>
      </div>
      {!deleted && (
        <p>
          <a href={`/api/plans/${id}/raw.json`}>save its rows as they are stored</a> ·{" "}
          <TextButton onPress={() => void remove()}>delete it</TextButton>
        </p>
      )}
      {refused && <p role="alert">{refused}</p>}
    </Plain>
  );
}
