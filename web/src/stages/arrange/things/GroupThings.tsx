import { useState } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { money, number, percent, plural } from "../../../parts/format";
import * as L from "../ads/ads.styles";
import * as A from "../Arrange.styles";
import { ThingsSheet } from "./ThingsSheet";

type Thing = Schemas["ThingItem"];

/** The things a group shows; what can't be delivered is left out and said. */
export function GroupThings({ group }: { group: number }) {
  const found = usePlanQuery("/arrange/things").data;
  const send = usePlanChange();
  const [reading, setReading] = useState(false);
  if (!found) return null;
  const shown = found.things.filter(({ groups }) => groups.includes(group));
  const others = found.things.filter(({ groups }) => !groups.includes(group));
  const show = (things: readonly Thing[]) =>
    send(
      "post",
      "/arrange/groups/{group_id}/things",
      { ids: things.map(({ id }) => id) },
      { group_id: group },
    );
  const add = (typed: string) => {
    if (typed.trim() === "") return true;
    const wanted = typed.trim().toLocaleLowerCase();
    const one = others.find(
      ({ code, name }) =>
        code.toLocaleLowerCase() === wanted || name.toLocaleLowerCase() === wanted,
    );
    return one !== undefined && show([...shown, one]);
  };
  const out = shown.filter(({ deliverable }) => !deliverable);
  return (
    <L.Leaf>
      <L.Ways>
        <span>
          {plural(found.things.length, "thing")} sold, {number(shown.length)} shown here
        </span>
        <TextButton onPress={() => setReading(true)}>things from a file …</TextButton>
      </L.Ways>
      {out.length > 0 && (
        <A.Wrong>
          {plural(out.length, "thing")} can’t be delivered and {out.length === 1 ? "is" : "are"}{" "}
          left out: {out.map(({ name }) => name).join(", ")}
        </A.Wrong>
      )}
      <A.Plain aria-label="Things shown">
        {shown.map((thing) => (
          <li key={thing.id}>
            <OneThing
              thing={thing}
              unsaid={
                found.written_ads
                  ? []
                  : (found.titles.find((one) => one.group_id === group && one.thing_id === thing.id)
                      ?.unsaid ?? [])
              }
              onHide={() => void show(shown.filter(({ id }) => id !== thing.id))}
            />
          </li>
        ))}
      </A.Plain>
      {others.length > 0 && (
        <A.Say>
          Show too:{" "}
          <Blank
            key={shown.length}
            label="Further thing by its code or name"
            value=""
            placeholder={`a code or name, such as ${others[0]!.code}`}
            onCommit={add}
          />
        </A.Say>
      )}
      <ThingsSheet open={reading} onOpen={setReading} />
    </L.Leaf>
  );
}

type OneProps = { thing: Thing; unsaid: readonly string[]; onHide: () => void };

function OneThing({ thing, unsaid, onHide }: OneProps) {
  const { summary } = usePlan();
  return (
    <>
      <b dir="auto">{thing.name}</b> <A.Soft>{thing.code}</A.Soft>{" "}
      <TextButton aria-label={`hide ${thing.name}`} onPress={onHide}>
        hide
      </TextButton>
      <br />
      <small>
        {thing.price === null
          ? "no price"
          : `${money(thing.price)} ${summary.brief.values.currency}`}
        {thing.margin !== null && `, keeps ${percent(thing.margin, 0)}`}
        {thing.page && `, ${thing.page}`}
        {!thing.deliverable && ", can’t be delivered"}
      </small>
      {unsaid.length > 0 && (
        <>
          {" "}
          <A.Straw>its title doesn’t say {unsaid.join(", ")}</A.Straw>
        </>
      )}
    </>
  );
}
