import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Sums } from "../../app/Sums";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { TextButton } from "../../parts/Button";

type Props = { choice: Schemas["StructureChoice"] };

/** How a structure that is proposed comes to its figures: opened where it is asked for. */
export function ProposalSums({ choice }: Props) {
  const { id, summary } = usePlan();
  const [open, setOpen] = useState(false);
  const found = useQuery({
    queryKey: ["structure workings", id, summary.revision, choice],
    queryFn: () =>
      taken<Schemas["Workings"]>(
        client.POST("/api/plans/{plan_id}/arrange/structures/workings", {
          params: { path: { plan_id: id } },
          body: choice,
        }),
      ),
    enabled: open,
    placeholderData: keepPreviousData,
    retry: false,
  });
  return (
    <>
      <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
        {open ? "Without its workings" : "Its workings"}
      </TextButton>
      {open && found.error && <p role="alert">{found.error.message}</p>}
      {open && found.data && <Sums answer={found.data} />}
    </>
  );
}
