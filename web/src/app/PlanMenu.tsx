import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Dialog, DialogTrigger, Modal, ModalOverlay } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { client, uploadOf, taken, type Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import { usePlanChange } from "../data/usePlanChange";
import { useSaying } from "../data/saying";
import { ink, serif, whenNarrow } from "../look/tokens";
import { Blank } from "../parts/Blank";
import { TextButton } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FilePick } from "../parts/FilePick";
import { money, plural } from "../parts/format";
import { starts } from "./starts";

type Item = Schemas["PlanItem"];

/** The plan's name, which opens the list of plans. */
export function PlanMenu() {
  const { summary } = usePlan();
  const { name, label } = summary.brief;
  const which = [label, summary.closed_as === null ? "" : "closed"].filter(Boolean).join(" ");
  const said = [name, which].filter(Boolean).join(" ");
  return (
    <DialogTrigger>
      <Name aria-label={`Plans: ${said}`}>
        <span>{name}</span>
        {which && <small> {which}</small>}
        <i aria-hidden>▾</i>
      </Name>
      <Overlay isDismissable>
        <Panel>
          <Dialog aria-label="Plans">{({ close }) => <PlanList close={close} />}</Dialog>
        </Panel>
      </Overlay>
    </DialogTrigger>
  );
}

type Made = { id: number; notices?: string[] };
type ListProps = { close: () => void };

function PlanList({ close }: ListProps) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { say, complain } = useSaying();
  const [gone, setGone] = useState<Item | null>(null);
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
      setGone(plan);
      const next = plans.data?.find((p) => p.id !== plan.id);
      if (plan.id === id) {
        close();
        await navigate(next ? `/plan/${next.id}/brief` : "/", { state: { gone: plan } });
      }
    });
  const restore = (plan: Item) =>
    attempt(async () => {
      await taken(
        client.POST("/api/plans/{plan_id}/restore", { params: { path: { plan_id: plan.id } } }),
      );
      setGone(null);
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
      {gone && (
        <p>
          Deleted {gone.name}. <TextButton onPress={() => void restore(gone)}>undo</TextButton>
        </p>
      )}
      <NewPlan clients={clients} onMade={(request) => void openMade(request)} />
    </List>
  );
}

type Making = Promise<{ data?: Made; error?: unknown; response: Response }>;

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

type NewProps = { clients: Client[]; onMade: (request: Making) => void };

/** A further plan: blank, of a sample or of a file, for a client there is or a new one. */
function NewPlan({ clients, onMade }: NewProps) {
  const [whose, setWhose] = useState("new");
  const client_id = whose === "new" ? null : Number(whose);
  const load = (chosen: File) =>
    client.POST("/api/plans/load", { params: { query: { client_id } }, ...uploadOf(chosen) });
  return (
    <footer>
      <span>
        New plan for{" "}
        <Choice
          label="Whose plan"
          inline
          value={whose}
          options={[
            { id: "new", name: "a new client" },
            ...clients.map((one) => ({ id: String(one.client_id), name: one.client })),
          ]}
          onChange={setWhose}
        />{" "}
        from
      </span>
      {starts.map(({ start, plan, name }) => (
        <TextButton
          key={start}
          onPress={() =>
            onMade(client.POST("/api/plans", { body: { name: plan, start, client_id } }))
          }
        >
          {name}
        </TextButton>
      ))}
      <FilePick accept={[".json", "application/json"]} onFile={(chosen) => onMade(load(chosen))}>
        Load a plan’s JSON …
      </FilePick>
    </footer>
  );
}

type Client = { client_id: number; client: string; plans: Item[] };

/** Plans under the clients they are for; they come client by client. */
function byClient(plans: Item[]): Client[] {
  const found: Client[] = [];
  for (const plan of plans) {
    const last = found.at(-1);
    if (last?.client_id === plan.client_id) last.plans.push(plan);
    else found.push({ client_id: plan.client_id, client: plan.client, plans: [plan] });
  }
  return found;
}

const Name = styled(Button)`
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 14px 0 20px;
  display: grid;
  grid-template-columns: minmax(0, auto) auto;
  align-content: center;
  align-items: center;
  justify-items: start;
  column-gap: 8px;
  max-width: 27vw;
  min-width: 130px;
  @media (max-width: 1180px) {
    max-width: 22vw;
    padding: 0 10px 0 14px;
  }
  /* where all is wider than the window the name gives way, never a stage */
  flex: 0 1000 auto;
  color: ${ink.ink};
  outline-offset: -3px;
  span,
  small {
    max-width: 100%;
  }
  i {
    grid-area: 1 / 2 / span 2;
  }
  span {
    font-family: ${serif};
    font-size: 19px;
    font-weight: 600;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    font-size: 12px;
    color: ${ink.petalDeep};
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 24px;
  }
  i {
    font-style: normal;
    font-size: 10px;
  }
  ${whenNarrow} {
    display: flex;
  }
`;

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
`;

const Panel = styled(Modal)`
  position: absolute;
  left: 12px;
  top: 54px;
  max-height: 80vh;
  background: ${ink.paper};
  border: 1px solid ${ink.ink};
  border-radius: 2px;
  width: 620px;
  max-width: 92vw;
  overflow: auto;
  [role="dialog"] {
    outline: none;
  }
`;

const List = styled.div`
  padding: 16px 20px;
  h2 {
    font-family: ${serif};
    font-size: 13.5px;
    font-weight: 600;
    margin: 14px 0 2px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 8px;
    border-top: 1px solid ${ink.rule};
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 8px;
    padding: 5px 4px;
    border-bottom: 1px solid ${ink.rule};
  }
  li[data-current] {
    background: ${ink.petalWash};
  }
  li small {
    flex: 1;
    color: ${ink.ink2};
    font-size: 12px;
  }
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
