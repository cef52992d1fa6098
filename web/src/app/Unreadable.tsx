import { useState } from "react";
import { useNavigate } from "react-router";
import { client, taken } from "../data/client";
import { TextButton } from "../parts/Button";
import { Plain } from "./FirstRun";

type Props = { id: number; why: string };

/** A plan that can't be opened is still the planner's: it can be saved as it is, and deleted. */
export function Unreadable({ id, why }: Props) {
  const navigate = useNavigate();
  const [refused, setRefused] = useState("");
  const path = { params: { path: { plan_id: id } } };
  const remove = () =>
    taken(client.DELETE("/api/plans/{plan_id}", path)).then(
      () => navigate("/"),
      (error: Error) => setRefused(error.message),
    );
  return (
    <Plain>
      {why} <a href="/">See all plans</a> ·{" "}
      <a href={`/api/plans/${id}/raw.json`}>save its rows as they are stored</a> ·{" "}
      <TextButton onPress={() => void remove()}>delete it</TextButton> {refused}
    </Plain>
  );
}
