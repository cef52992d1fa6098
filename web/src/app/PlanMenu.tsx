import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Button, Dialog, DialogTrigger, Modal, ModalOverlay } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { client, uploadOf, taken, type Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import { useSaying } from "../data/saying";
import { ink, serif } from "../look/tokens";
import { Blank } from "../parts/Blank";
import { TextButton } from "../parts/Button";
import { money, plural } from "../parts/format";
import { starts } from "./starts";

type Item = Schemas["PlanItem"];

/** The plan's name, which opens the list of plans. */
export function PlanMenu() {
  const { frame } = usePlan();
  return (
    <DialogTrigger>
      <Name aria-label={`Plans: ${frame.brief.name}`}>
        <span>{frame.brief.name}</span>
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

type ListProps = { close: () => void };

function PlanList({ close }: ListProps) {
  const { id, frame, change } = usePlan();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { complain } = useSaying();
  const [gone, setGone] = useState<Item | null>(null);
  const file = useRef<HTMLInputElement>(null);
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
  const openMade = (
    request: Promise<{ data?: { id: number }; error?: unknown; response: Response }>,
  ) =>
    attempt(async () => {
      const made = await taken(request);
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
  const path = { params: { path: { plan_id: id } } };

  return (
    <List>
      <label>
        Name of this plan{" "}
        <Blank
          label="Name of this plan"
          value={frame.brief.name}
          onCommit={(name) =>
            change(() =>
              taken(client.PATCH("/api/plans/{plan_id}", { ...path, body: { name } })),
            ).then(async (took) => {
              await refresh();
              return took;
            })
          }
        />
      </label>
      <ul>
        {plans.data?.map((plan) => (
          <li key={plan.id} data-current={plan.id === id || undefined}>
            <TextButton
              onPress={() => {
                close();
                void navigate(`/plan/${plan.id}/brief`);
              }}
            >
              {plan.name}
            </TextButton>
            <small>
              {plural(plan.keywords, "keyword")}, {money(plan.monthly_spend)} {plan.currency} a
              month
            </small>
            <TextButton
              aria-label={`Copy ${plan.name}`}
              onPress={() =>
                void openMade(
                  client.POST("/api/plans/{plan_id}/copy", {
                    params: { path: { plan_id: plan.id } },
                    body: { name: `${plan.name}, copy`.slice(0, 120) },
                  }),
                )
              }
            >
              copy
            </TextButton>
            <TextButton aria-label={`Delete ${plan.name}`} onPress={() => void remove(plan)}>
              delete
            </TextButton>
          </li>
        ))}
      </ul>
      {gone && (
        <p>
          Deleted {gone.name}. <TextButton onPress={() => void restore(gone)}>undo</TextButton>
        </p>
      )}
      <footer>
        <span>New plan from</span>
        {starts.map(({ start, plan, name }) => (
          <TextButton
            key={start}
            onPress={() =>
              void openMade(client.POST("/api/plans", { body: { name: plan, start } }))
            }
          >
            {name}
          </TextButton>
        ))}
        <TextButton onPress={() => file.current?.click()}>Load a plan’s JSON …</TextButton>
        <input
          ref={file}
          type="file"
          hidden
          aria-label="Plan file"
          accept=".json,application/json"
          onChange={(event) => {
            const chosen = event.currentTarget.files?.[0];
            event.currentTarget.value = "";
            if (chosen)
              void openMade(
                client.POST("/api/plans/load", {
                  ...uploadOf(chosen),
                }),
              );
          }}
        />
      </footer>
    </List>
  );
}

const Name = styled(Button)`
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 14px 0 20px;
  display: flex;
  align-items: center;
  gap: 8px;
  max-width: 27vw;
  flex: none;
  color: ${ink.ink};
  outline-offset: -3px;
  span {
    font-family: ${serif};
    font-size: 19px;
    font-weight: 600;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  i {
    font-style: normal;
    font-size: 10px;
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
  ul {
    list-style: none;
    padding: 0;
    margin: 12px 0;
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
