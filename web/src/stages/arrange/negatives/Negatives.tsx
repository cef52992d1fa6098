import { useRef, useState } from "react";
import { useActions } from "../../../app/actions";
import type { Schemas } from "../../../data/client";
import { useAsking } from "../../../app/asked";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSaying } from "../../../data/saying";
import { TextButton } from "../../../parts/Button";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { money, number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";
import { AddSheet } from "./AddSheet";
import { ListsSheet } from "./ListsSheet";
import { ToBlock } from "./ToBlock";
import { negativeColumns } from "./columns";

type View = Schemas["NegativesView"];
type Props = { view: View };

/** All that is blocked, with what it does; beside it what to block next. */
export function Negatives({ view }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const send = usePlanChange();
  const { say } = useSaying();
  const { negatives } = view;
  const currency = summary.brief.values.currency;
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [adding, setAdding] = useState(false);
  const [listing, setListing] = useState(false);
  const grid = useRef<GridHandle>(null);
  const there = new Set(negatives.map(({ id }) => id));
  const chosen = [...selected].filter((id) => there.has(id));
  const targets = chosen.length > 0 ? chosen : active !== null && there.has(active) ? [active] : [];
  const takeOut = () =>
    targets.length > 0
      ? void send("post", "/negatives/remove", { ids: targets }).then(() => setSelected(new Set()))
      : say("Select a negative first: arrows move, x selects.");
  useActions([
    { name: "Add negatives", keys: ["n"], run: () => setAdding(true) },
    { name: "Take the selected negatives out", keys: ["t"], run: takeOut },
    { name: "Named lists of negatives", keys: ["s"], run: () => setListing(true) },
    { name: "Go to the negatives", keys: ["o"], run: () => grid.current?.focus() },
  ]);
  const shown = negatives.find(({ id }) => id === active);
  return (
    <A.Halves>
      <A.Half aria-label="Negatives">
        <A.About>
          <p>
            {plural(negatives.length, "negative")}; {hurting(negatives)}
          </p>
          <span>
            <TextButton onPress={() => setAdding(true)}>add …</TextButton> <kbd>n</kbd>{" "}
            <TextButton isDisabled={targets.length === 0} onPress={takeOut}>
              take {targets.length > 1 ? number(targets.length) : "it"} out
            </TextButton>{" "}
            <kbd>t</kbd> <TextButton onPress={() => setListing(true)}>lists …</TextButton>{" "}
            <kbd>s</kbd>
          </span>
        </A.About>
        <Grid
          label="Negatives"
          handle={grid}
          columns={negativeColumns(negatives, currency, ask)}
          rows={negatives.map((_, at) => at)}
          idOf={(at) => negatives[at]!.id}
          active={active}
          onActive={setActive}
          selected={selected}
          onSelected={setSelected}
          empty="Nothing is blocked yet. Add words (n), block keywords in Sift, or take what is proposed."
        />
        {shown && <A.Foot role="status">{about(shown, currency)}</A.Foot>}
      </A.Half>
      <A.Half aria-label="What to block next">
        <ToBlock view={view} />
      </A.Half>
      <AddSheet open={adding} onOpen={setAdding} />
      <ListsSheet open={listing} onOpen={setListing} />
    </A.Halves>
  );
}

function hurting(negatives: View["negatives"]): string {
  const harmful = negatives.filter(({ hurt, sold }) => hurt > 0 || sold.length > 0);
  return harmful.length === 0
    ? "none stops what is kept or has sold."
    : `${plural(harmful.length, "one")} of them stop${harmful.length === 1 ? "s" : ""} what is kept or has sold.`;
}

/** One negative in a sentence: what it stops, and what is lost with it. */
function about(one: View["negatives"][number], currency: string): string {
  const more =
    one.stops > one.texts.length ? ` and ${number(one.stops - one.texts.length)} more` : "";
  const stops =
    one.stops > 0 ? `stops ${one.texts.join(", ")}${more}` : "stops nothing of the sheet";
  const terms = one.terms > 0 ? `, ${plural(one.terms, "past term")}` : "";
  const lost =
    one.hurt > 0
      ? `; ${one.hurts.join(", ")} ${one.hurt === 1 ? "is" : "are"} kept: ${number(one.customers, 2)} customers a month lost, ${money(one.spend)} ${currency} not spent`
      : "";
  const sold = one.sold.length > 0 ? `; has sold: ${one.sold.join(", ")}` : "";
  const note = one.note ? ` “${one.note}”` : "";
  return `${one.text} ${stops}${terms}${lost}${sold}.${note}`;
}
