import { useMemo, useState } from "react";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Grid } from "../../parts/Grid";
import type { Column } from "../../parts/column";
import { money, plural } from "../../parts/format";
import * as S from "./Learn.styles";
import type { LearnView, Waiting } from "./view";

const kinds: Record<Waiting["kind"], string> = {
  block: "block",
  own_keyword: "own keyword",
  stop: "stop",
  raise: "raise",
};
const none: ReadonlySet<number> = new Set();

/** Everything that is to be decided, most money first; one key each. */
export function Waits({ view }: { view: LearnView }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const { waiting } = view;
  const [active, setActive] = useState<number | null>(0);
  const [selected, setSelected] = useState<ReadonlySet<number>>(none);
  const { currency } = summary.brief.values;
  const columns = useMemo(() => waitColumns(waiting, currency), [waiting, currency]);
  const rows = useMemo(() => waiting.map((_, at) => at), [waiting]);
  const chosen = selected.size > 0 ? [...selected] : active === null ? [] : [active];
  const doable = chosen.flatMap((at) => (waiting[at] ? [waiting[at]] : []));
  const take = async (some: readonly Waiting[]) => {
    const terms = some.filter((one) => one.kind === "block" || one.kind === "own_keyword");
    const stops = some.filter((one) => one.kind === "stop");
    setSelected(none);
    if (terms.length > 0)
      await send("post", "/learn/terms", { terms: terms.map((one) => one.key), act: "suggested" });
    if (stops.length > 0)
      await send("post", "/learn/keywords", { ids: stops.map((one) => Number(one.key)) });
  };
  const raises = doable.length > 0 && doable.every((one) => one.kind === "raise");
  return (
    <>
      <S.Line>
        <MainButton isDisabled={doable.length === 0 || raises} onPress={() => void take(doable)}>
          {doable.length > 1 ? `Do these ${doable.length}` : "Do it"} <kbd>Enter</kbd>
        </MainButton>
        <Button
          isDisabled={!waiting.some((one) => one.kind === "block")}
          onPress={() => void take(waiting.filter((one) => one.kind === "block"))}
        >
          Block all that is suggested
        </Button>
        <Button
          isDisabled={!waiting.some((one) => one.kind === "own_keyword")}
          onPress={() => void take(waiting.filter((one) => one.kind === "own_keyword"))}
        >
          Keep all that sold
        </Button>
        <small>
          {plural(waiting.length, "decision")}, about {money(sum(waiting))} {currency} of money
          spent. A raise follows when the month is closed: its bid is fitted anew.
        </small>
      </S.Line>
      <Grid
        label="What waits"
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={(at) => {
          const one = waiting[at];
          if (one && one.kind !== "raise") void take(doable.includes(one) ? doable : [one]);
        }}
        empty="Nothing waits: everything the results suggest is done."
      />
    </>
  );
}

const sum = (waiting: readonly Waiting[]): number =>
  waiting.reduce((total, one) => total + one.money, 0);

function waitColumns(waiting: readonly Waiting[], currency: string): Column[] {
  return [
    {
      ...{ id: "kind", head: "what", label: "what", width: "110px" },
      cell: (row) => <S.Kind data-kind={waiting[row]!.kind}>{kinds[waiting[row]!.kind]}</S.Kind>,
      leaves: [{ head: "what", value: (row) => kinds[waiting[row]!.kind] }],
    },
    {
      ...{ id: "name", head: "of", label: "of", width: "minmax(200px, 1.4fr)" },
      cell: (row) => waiting[row]!.name,
    },
    {
      ...{ id: "says", head: "because", label: "because", width: "minmax(260px, 2fr)" },
      cell: (row) => waiting[row]!.says,
    },
    {
      ...{ id: "money", head: `spent, ${currency}`, label: "spent", width: "110px" },
      align: "end",
      cell: (row) => money(waiting[row]!.money),
      leaves: [{ head: `spent, ${currency}`, value: (row) => waiting[row]!.money }],
    },
  ];
}
