import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Navigate, useNavigate } from "react-router";
import styled from "styled-components";
import { client, taken, type Schemas } from "../data/client";
import { useSaid, useSaying } from "../data/saying";
import { ink } from "../look/tokens";
import { Button, MainButton, TextButton } from "../parts/Button";
import { beginPath } from "./firstPath";
import { DeletedPlans } from "./DeletedPlans";
import { starts } from "./starts";

/** Goes to the first plan; where there is none, says what this is and offers two ways in. */
export function FirstRun() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { complain } = useSaying();
  const said = useSaid();
  const plans = useQuery({
    queryKey: ["plans"],
    queryFn: () => taken<Schemas["PlanItem"][]>(client.GET("/api/plans")),
    retry: false,
    staleTime: 0,
  });
  const make = async (body: Schemas["NewPlan"]) => {
    try {
      const made = await taken(client.POST("/api/plans", { body }));
      await queries.invalidateQueries({ queryKey: ["plans"] });
      if (body.start !== "sample") beginPath(made.id);
      await navigate(`/plan/${made.id}/brief`);
    } catch (error) {
      complain(error);
    }
  };
  if (plans.error) return <Plain>{plans.error.message}</Plain>;
  if (!plans.data || plans.isFetching) return <Plain>Opening …</Plain>;
  const first = plans.data.find((plan) => plan.is_plan) ?? plans.data[0];
  if (first) return <Navigate to={`/plan/${first.id}/brief`} replace />;
  return (
    <Plain>
      <h1>Milkwort</h1>
      <p>
        You have a fixed sum a month for search ads. This worksheet tells you which searches to pay
        for, what to bid on each, and what the money will bring, and shows the arithmetic of every
        figure.
      </p>
      <p>
        It goes in the order people work: the brief, gathering keywords, sifting them, arranging,
        fitting bids to the money, handing over, and learning from what came of it.
      </p>
      <div>
        <MainButton
          onPress={() => void make({ name: "Eastmere Sash & Casement", start: "sample" })}
        >
          Look at the sample
        </MainButton>
        <Button onPress={() => void make({ name: "New plan", start: "blank" })}>
          Start a blank plan
        </Button>
      </div>
      <p>
        Or begin with figures that are usual for{" "}
        {starts
          .filter(({ start }) => ["service", "shop", "subscription"].includes(start))
          .map(({ start, plan, name }, at, all) => (
            <Kept key={start}>
              <TextButton onPress={() => void make({ name: plan, start })}>{name}</TextButton>
              {at < all.length - 1 ? "," : "."}
            </Kept>
          ))}
      </p>
      <DeletedPlans onBack={({ id }) => void navigate(`/plan/${id}/brief`)} />
      {said?.wrong && <p role="alert">{said.text}</p>}
    </Plain>
  );
}

/** What stands together, a comma with the words before it. */
const Kept = styled.span`
  white-space: nowrap;
`;

export const Plain = styled.main`
  max-width: 62ch;
  margin: 14vh auto 0;
  padding: 0 24px;
  font-size: 16px;
  display: flex;
  flex-direction: column;
  gap: 16px;
  color: ${ink.ink};
  overflow-wrap: break-word;
  a {
    color: ${ink.petalDeep};
  }
  > div {
    display: flex;
    gap: 12px;
  }
`;
