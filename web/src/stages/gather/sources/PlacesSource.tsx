import { useState } from "react";
import { ToggleButton } from "react-aria-components";
import { client, taken } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Button, MainButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Small } from "../../../parts/Screen";
import { number, plural } from "../../../parts/format";
import type { Brought } from "../tray";
import * as S from "../Gather.styles";
import { useReading, wordsOf } from "../useReading";

type Props = { onTray: Brought };

/** Keywords that name another town, and the same with one's own. */
export function PlacesSource({ onTray }: Props) {
  const { summary, changeBrief } = usePlan();
  const send = usePlanChange();
  const { busy, read, path } = useReading();
  const own = summary.brief.values.places;
  const [mine, setMine] = useState(own[0] ?? "");
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const found = usePlanQuery("/gather/places");
  const body = { others: [...picked], own: mine };
  const swap = () =>
    read(
      "the swap",
      () => taken(client.POST("/api/plans/{plan_id}/gather/places/swap", { ...path, body })),
      (tray) => onTray(tray),
    );
  const block = () => send("post", "/gather/places/block", body);
  if (own.length === 0)
    return (
      <S.Empty>
        <h2>No place of your own is named yet</h2>
        <p>Name your places in the brief; then keywords of other towns are found here.</p>
      </S.Empty>
    );
  return (
    <>
      <h2>Other places</h2>
      <Small>
        These stand where your own places stand in other keywords. A keyword with another
        town&rsquo;s name is often good with yours instead.
      </Small>
      <S.Words role="group" aria-label="Other places">
        {found.data?.map((place) => (
          <ToggleButton
            key={place.name}
            isSelected={picked.has(place.name)}
            onChange={(is) => {
              const next = new Set(picked);
              if (is) next.add(place.name);
              else next.delete(place.name);
              setPicked(next);
            }}
          >
            {place.name} <small>{number(place.keywords)}</small>
          </ToggleButton>
        ))}
      </S.Words>
      {found.data?.length === 0 && <Small>No keyword names another place.</Small>}
      <S.Line>
        <MainButton isDisabled={!picked.size || busy !== null} onPress={() => void swap()}>
          Put them into the tray with {mine} instead
        </MainButton>
        <Choice
          label="Own place"
          value={mine}
          options={own.map((place) => ({ id: place, name: place }))}
          onChange={setMine}
        />
        <Button isDisabled={!picked.size || busy !== null} onPress={() => void block()}>
          Block {plural(picked.size, "place")}
        </Button>
      </S.Line>
      <S.Sentence>
        Further places that are not ours:{" "}
        <Blank
          label="Other places, between commas"
          value={summary.brief.values.other_places.join(", ")}
          placeholder="none named"
          onCommit={(text) => changeBrief({ other_places: wordsOf(text) })}
        />
      </S.Sentence>
    </>
  );
}
