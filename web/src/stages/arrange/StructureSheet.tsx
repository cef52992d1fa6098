import { keepPreviousData, useQueries, useQuery, type UseQueryResult } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Foot, Sheet } from "../../parts/Sheet";
import { NotYet } from "../../parts/NotYet";
import { useSettled } from "../../parts/useSettled";
import { count, money, number, plural } from "../../parts/format";
import * as S from "./Arrange.styles";
import { GroupSize } from "./GroupSize";
import { ProposalSums } from "./ProposalSums";
import { TwinDial, type Dial } from "./TwinDial";

type Item = Schemas["StructureItem"];
type Fit = Schemas["StructureFit"];
type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** The groups whose keywords are arranged; all of them where none is named. */
  groups: readonly number[];
};

const settleMilliseconds = 200;

/** Ready structures, each with what it would change and bring before it does. */
export function StructureSheet({ open, onOpen, groups }: Props) {
  const whose = groups.length > 0 ? `keywords of ${plural(groups.length, "group")}` : "keywords";
  return (
    <Sheet title={`Arrange the kept ${whose} by`} open={open} onOpen={onOpen} width={640}>
      <Structures groups={groups} onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Structures({ groups, onDone }: { groups: readonly number[]; onDone: () => void }) {
  const send = usePlanChange();
  const [kind, setKind] = useState<Item["kind"]>("theme");
  const [most, setMost] = useState<number | null>(null);
  const [dial, setDial] = useState<Dial>({ lower: "neither", by: 0 });
  const asked = useSettled({ most, group_ids: groups as number[] }, settleMilliseconds);
  const looked = useStructures(asked);
  const found = looked.data;
  const items = found?.items ?? [];
  const fits = useFits(items, asked, dial);
  const take = () =>
    void send("post", "/arrange/structure", { kind, ...asked, ...dial }).then(
      (took) => took && onDone(),
    );
  const picked = items.find((item) => item.kind === kind);
  const changes = picked !== undefined && picked.moves + picked.adds > 0;
  if (!found)
    return (
      <p>
        <NotYet of={looked}>Looking at every structure …</NotYet>
      </p>
    );
  const ready = fits.filter((fit) => fit.data !== undefined).length;
  return (
    <>
      <GroupSize limits={found.limits} most={most ?? found.limits.most} onMost={setMost} />
      <S.Ways role="radiogroup" aria-label="Structure">
        {items.map((item, at) => (
          <label key={item.kind}>
            <input
              type="radio"
              name="structure"
              // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
              autoFocus={item.kind === kind}
              checked={item.kind === kind}
              onChange={() => setKind(item.kind)}
              onKeyDown={(event) => event.key === "Enter" && changes && take()}
            />
            <span>{item.says}</span>
            <small>{outcome(item)}</small>
            <Brings fit={fits[at]!} now={found.now} />
          </label>
        ))}
      </S.Ways>
      {picked && picked.adds > 0 && <TwinDial dial={dial} onDial={setDial} />}
      {picked && <ProposalSums choice={chosen(picked, asked, dial)} />}
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <S.Soft role="status">
          {ready < items.length && `fitted ${number(ready)} of ${number(items.length)}`}
        </S.Soft>
        <MainButton isDisabled={!changes} onPress={take}>
          Arrange them <kbd>Enter</kbd>
        </MainButton>
      </Foot>
    </>
  );
}

/** What a structure brings for the same money, beside the plan as it is. */
function Brings({ fit: asked, now }: { fit: UseQueryResult<Fit>; now: Fit }) {
  const { summary } = usePlan();
  const fit = asked.data;
  if (!fit)
    return (
      <small>
        <NotYet of={asked}>being fitted …</NotYet>
      </small>
    );
  const { currency } = summary.brief.values;
  return (
    <small>
      <b>{count(fit.customers)}</b> customers for {money(fit.spend)} {currency}, now{" "}
      {count(now.customers)} for {money(now.spend)}; {plural(fit.to_write, "ad")} to write, now{" "}
      {number(now.to_write)}
    </small>
  );
}

type Asked = Schemas["StructureAsked"];

/** The dial says nothing where no twins are added. */
const chosen = ({ kind, adds }: Item, asked: Asked, dial: Dial): Schemas["StructureChoice"] => ({
  kind,
  ...asked,
  ...(adds > 0 && dial),
});

function useStructures(asked: Asked) {
  const { id, summary } = usePlan();
  return useQuery({
    queryKey: ["structures", id, summary.revision, asked],
    queryFn: () =>
      taken<Schemas["StructuresView"]>(
        client.POST("/api/plans/{plan_id}/arrange/structures", {
          params: { path: { plan_id: id } },
          body: asked,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Each structure fitted for the same money, as they become ready. */
function useFits(items: readonly Item[], asked: Asked, dial: Dial): UseQueryResult<Fit>[] {
  const { id, summary } = usePlan();
  return useQueries({
    queries: items.map((item) => {
      const body = chosen(item, asked, dial);
      return {
        queryKey: ["structure fit", id, summary.revision, body],
        queryFn: () =>
          taken<Fit>(
            client.POST("/api/plans/{plan_id}/arrange/structures/fit", {
              params: { path: { plan_id: id } },
              body,
            }),
          ),
        retry: false,
      };
    }),
  });
}

function outcome({ groups, campaigns, moves, adds, largest }: Item): string {
  if (moves === 0 && adds === 0) return "as they are arranged now";
  const where = `${plural(groups, "group")} in ${campaigns.length > 3 ? plural(campaigns.length, "campaign") : campaigns.join(", ")}`;
  const added = adds > 0 ? `, ${number(adds)} added as phrase match` : "";
  return `${where}, the fullest of ${number(largest)}; ${plural(moves, "keyword")} would move${added}`;
}
