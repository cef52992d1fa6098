import { useRef, useState } from "react";
import { useActions } from "../../../app/actions";
import type { Schemas } from "../../../data/client";
import { useAsking } from "../../../app/asked";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { TextButton } from "../../../parts/Button";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { money, number } from "../../../parts/format";
import * as A from "../Arrange.styles";
import { nextColumns } from "./columns";

type Props = { view: Schemas["NegativesView"] };

/** What money goes to in vain, each in its narrowest safe form: one, several or all taken. */
export function ToBlock({ view }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const send = usePlanChange();
  const { to_block: next } = view;
  const currency = summary.brief.values.currency;
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const grid = useRef<GridHandle>(null);
  const chosen = [...selected].filter((at) => at < next.length);
  const targets =
    chosen.length > 0 ? chosen : active !== null && active < next.length ? [active] : [];
  const take = (places: readonly number[]) => {
    if (places.length === 0) return;
    const items = places.map((at) => ({ text: next[at]!.text, match: next[at]!.match }));
    void send("post", "/arrange/negatives", { items, by: "advice", note: "" }).then((took) => {
      if (took) setSelected(new Set());
    });
  };
  const all = () => take(next.map((_, at) => at));
  useActions([
    { name: "Go to what to block next", keys: ["u"], run: () => grid.current?.focus() },
    { name: "Block what is proposed and selected", keys: ["y"], run: () => take(targets) },
    { name: "Block all that is proposed", keys: ["Y"], run: all },
  ]);
  return (
    <>
      <A.About>
        <h2>What to block next</h2>
        <p>
          {next.length > 0
            ? `Together ${money(view.saves)} ${currency} a month at least. Each in the shortest words that stop nothing kept and nothing that has sold.`
            : "No money goes to what is dropped, warned of, or never sold."}
        </p>
        {next.length > 0 && (
          <span>
            <TextButton isDisabled={targets.length === 0} onPress={() => take(targets)}>
              block {targets.length > 1 ? number(targets.length) : "it"}
            </TextButton>{" "}
            <kbd>y</kbd> <TextButton onPress={all}>block all {number(next.length)}</TextButton>{" "}
            <kbd>Shift y</kbd>
          </span>
        )}
      </A.About>
      <Grid
        label="What to block next"
        handle={grid}
        columns={nextColumns(next, currency, ask)}
        rows={next.map((_, at) => at)}
        idOf={(at) => at}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={(at) => take([at])}
        empty="Nothing to block: keep a phrase or broad keyword, and what it spills shows here."
      />
    </>
  );
}
