import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { client, taken } from "../data/client";
import { usePlan } from "../data/plan";
import { usePlanChange } from "../data/usePlanChange";
import { useSaying } from "../data/saying";
import { Blank } from "../parts/Blank";
import { TextButton } from "../parts/Button";
import { money, plural } from "../parts/format";
import { DeletedPlans } from "./DeletedPlans";
import { NewPlan } from "./NewPlan";
import { planLines } from "./planLines";
import { byClient, type Item, type Making } from "./plansByClient";

type ListProps = { close: () => void };

/** All plans by client: opened, copied, deleted, and a further one begun. */
export function PlanList({ close }: ListProps) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { say, complain } = useSaying();
  const plans = useQuery({
    queryKey: ["plans"],
    queryFn: () => taken<Item[]>(client.GET("/api/plans")),
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ["plans"] });

  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
      await refresh();
    } catch (error) {
      complain(error);
    }
  };
  const openMade = (request: Making) =>
    attempt(async () => {
      const made = await taken(request);
      for (const notice of made.notices ?? []) say(notice);
      await refresh();
      close();
      await navigate(`/plan/${made.id}/brief`);
    });
  const remove = (plan: Item) =>
    attempt(async () => {
      const path = { params: { path: { plan_id: plan.id } } };
      await taken(client.DELETE("/api/plans/{plan_id}", path));
      queries.removeQueries({ queryKey: ["plan", plan.id] });
      const next = plans.data?.find((p) => p.id !== plan.id);
      if (plan.id === id) {
        close();
        await navigate(next ? `/plan/${next.id}/brief` : "/");
      }
    });
  const clients = byClient(plans.data ?? []);

  return (
    <List>
      <label>
        Name of this plan{" "}
        <Blank
          label="Name of this plan"
          value={summary.brief.name}
          onCommit={(name) =>
            send("patch", "", { name }).then(async (took) => {
              await refresh();
              return took;
            })
          }
        />
      </label>
      <TextButton
        onPress={() => {
          close();
          void navigate("/clients");
        }}
      >
        All clients: money, pace and what waits
      </TextButton>
      {clients.map(({ client_id, client: name, plans: own }) => (
        <div key={client_id}>
          <h2>{name}</h2>
          <ul>
            {own.map((plan) => (
              <PlanLine
                key={plan.id}
                plan={plan}
                current={plan.id === id}
                onOpen={() => {
                  close();
                  void navigate(`/plan/${plan.id}/brief`);
                }}
                onCopy={(request) => void openMade(request)}
                onRemove={() => void remove(plan)}
              />
            ))}
          </ul>
        </div>
      ))}
      <NewPlan clients={clients} onMade={(request) => void openMade(request)} />
      <DeletedPlans />
    </List>
  );
}

type LineProps = {
  plan: Item;
  current: boolean;
  onOpen: () => void;
  onCopy: (request: Making) => void;
  onRemove: () => void;
};

function PlanLine({ plan, current, onOpen, onCopy, onRemove }: LineProps) {
  const copy = () =>
    client.POST("/api/plans/{plan_id}/copy", {
      params: { path: { plan_id: plan.id } },
      body: { name: `${plan.name}, copy`.slice(0, 120) },
    });
  return (
    <li data-current={current || undefined}>
      <TextButton onPress={onOpen}>
        {plan.label ? `${plan.name} · ${plan.label}` : plan.name}
      </TextButton>
      <small>
        {plural(plan.keywords, "keyword")}, {money(plan.monthly_spend)} {plan.currency} a month
        {!plan.is_plan && ", a version"}
      </small>
      <TextButton aria-label={`Copy ${plan.name}`} onPress={() => onCopy(copy())}>
        copy
      </TextButton>
      <TextButton aria-label={`Delete ${plan.name}`} onPress={onRemove}>
        delete
      </TextButton>
    </li>
  );
}

const List = styled.div`
  padding: 16px 20px;
  ${planLines}
  footer {
    flex-wrap: wrap;
    button,
    span {
      white-space: nowrap;
    }
    display: flex;
    gap: 14px;
    margin-top: 10px;
  }
`;
