import { useCallback, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { useActions } from "../../app/actions";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Grid } from "../../parts/Grid";
import { money, number, plural } from "../../parts/format";
import * as S from "./Learn.styles";
import { useMarked } from "../../parts/useMarked";
import { usePace } from "../../parts/usePace";
import { waitColumns } from "./waitColumns";
import type { LearnView, Waiting } from "./view";

type Which = "waits" | "aside";
type Props = { view: LearnView; onClose: () => void };

/** Everything that is to be decided, most money first; one key each. */
export function Waits({ view, onClose }: Props) {
  const { summary } = usePlan();
  const [which, setWhich] = useState<Which>("waits");
  const shown = which === "waits" ? view.waiting : view.aside;
  const { currency } = summary.brief.values;
  const columns = useMemo(() => waitColumns(shown, currency), [shown, currency]);
  const rows = useMemo(() => shown.map((_, at) => at), [shown]);
  const keyOf = useCallback((at: number) => `${shown[at]!.kind} ${shown[at]!.key}`, [shown]);
  const { active, setActive, selected, setSelected, clear } = useMarked(rows, keyOf, true);
  const chosen = selected.size > 0 ? [...selected] : active === null ? [] : [active];
  const meant = chosen.flatMap((at) => (shown[at] ? [shown[at]] : []));
  const { take, leave } = useDecisions(onClose);
  const pace = usePace();
  const after = (work: Promise<unknown>) => {
    pace.tick();
    setSelected(new Set());
    void work;
  };
  const act = {
    do: (some: readonly Waiting[]) => after(take(some)),
    leave: (until: "turned" | "later" | "now") => meant.length > 0 && after(leave(meant, until)),
  };
  const actions = {
    waits: [
      { name: "Leave the suggestion that is marked", keys: ["n"], run: () => act.leave("turned") },
      { name: "Ask again with later results", keys: ["l"], run: () => act.leave("later") },
    ],
    aside: [{ name: "Ask again now", keys: ["n"], run: () => act.leave("now") }],
  };
  useActions(actions[which]);
  const doable = meant.filter(canBeDone);
  return (
    <>
      <S.Line>
        {which === "waits" ? (
          <>
            <MainButton isDisabled={doable.length === 0} onPress={() => act.do(doable)}>
              {doable.length > 1 ? `Do these ${doable.length}` : "Do it"} <kbd>Enter</kbd>
            </MainButton>
            <Button isDisabled={meant.length === 0} onPress={() => act.leave("turned")}>
              Leave it <kbd>n</kbd>
            </Button>
            <Button isDisabled={meant.length === 0} onPress={() => act.leave("later")}>
              With later results <kbd>l</kbd>
            </Button>
            <AllOf view={view} kind="block" name="Block all that is suggested" onDo={act.do} />
            <AllOf view={view} kind="own_keyword" name="Keep all that sold" onDo={act.do} />
          </>
        ) : (
          <MainButton isDisabled={meant.length === 0} onPress={() => act.leave("now")}>
            Ask again <kbd>n</kbd>
          </MainButton>
        )}
        {(view.aside.length > 0 || which === "aside") && (
          <Choice
            label="What is shown of the queue"
            inline
            value={which}
            options={[
              { id: "waits", name: `what waits, ${number(view.waiting.length)}` },
              { id: "aside", name: `what was set aside, ${number(view.aside.length)}` },
            ]}
            onChange={(next) => {
              setWhich(next);
              clear();
            }}
          />
        )}
        <small>
          {plural(shown.length, "decision")}
          {which === "waits" && pace.minutes(shown.length)}, about {money(sum(shown))} {currency} of
          money spent. A raise follows when the month is closed: its bid is fitted anew.
        </small>
      </S.Line>
      <Grid
        label={which === "waits" ? "What waits" : "What was set aside"}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={(at) => {
          const one = shown[at];
          if (which === "waits" && one && canBeDone(one))
            act.do(doable.includes(one) ? doable : [one]);
        }}
        empty={
          which === "waits"
            ? "Nothing waits: everything the results suggest is done or set aside."
            : "Nothing is set aside."
        }
      />
    </>
  );
}

type AllProps = {
  view: LearnView;
  kind: Waiting["kind"];
  name: string;
  onDo: (some: readonly Waiting[]) => void;
};

function AllOf({ view, kind, name, onDo }: AllProps) {
  const all = view.waiting.filter((one) => one.kind === kind);
  return (
    <Button isDisabled={all.length === 0} onPress={() => onDo(all)}>
      {name}
    </Button>
  );
}

/** A raise is fitted when the month is closed; a bid that would not pay is not offered. */
const canBeDone = (one: Waiting): boolean =>
  one.kind !== "raise" && (one.kind !== "hardly" || one.bid !== null);

const sum = (some: readonly Waiting[]): number => some.reduce((total, one) => total + one.money, 0);

/** What doing and leaving lines of the queue sends, and where some of them lead. */
function useDecisions(onClose: () => void) {
  const { id } = usePlan();
  const send = usePlanChange();
  const navigate = useNavigate();
  const keys = (some: readonly Waiting[], ...kinds: Waiting["kind"][]) =>
    some.filter((one) => kinds.includes(one.kind)).map((one) => one.key);
  const aside = (some: readonly Waiting[], until: "turned" | "later" | "now") => ({
    until,
    items: some.map(({ kind, key, suggestion }) => ({ kind, key, suggestion })),
  });
  const leave = (some: readonly Waiting[], until: "turned" | "later" | "now") =>
    send("post", "/learn/decide", { aside: aside(some, until) });
  const take = async (some: readonly Waiting[]) => {
    const terms = keys(some, "block", "own_keyword");
    const items = keys(some, "spot");
    const stops = keys(some, "stop").map(Number);
    const bids = keys(some, "hardly").map(Number);
    const looked = some.filter((one) => one.kind === "review");
    const decided = {
      ...(terms.length > 0 && { terms: { terms, act: "suggested" as const } }),
      ...(items.length > 0 && { items: { terms: items } }),
      ...(stops.length > 0 && { keywords: { ids: stops } }),
      ...(bids.length > 0 && { bids: { ids: bids } }),
      ...(looked.length > 0 && { aside: aside(looked, "turned") }),
    };
    if (Object.keys(decided).length > 0 && !(await send("post", "/learn/decide", decided))) return;
    if (keys(some, "close").length > 0) onClose();
    if (keys(some, "refused").length > 0) await navigate(`/plan/${id}/hand-over`);
  };
  return { take, leave };
}
