import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Foot, Sheet } from "../../parts/Sheet";
import { count, delta, money, number, plural } from "../../parts/format";
import * as S from "./Sift.styles";

type Blocking = Required<Schemas["Blocking"]>;
type Props = { word: string | null; onDone: () => void };

const matches = [
  { id: "phrase", name: "as a phrase", about: "wherever it stands as it is" },
  { id: "exact", name: "exactly", about: "only this very search" },
  { id: "broad", name: "broadly", about: "all its words, in any order" },
] as const;

/** What a negative would stop and save, and whom it would hurt, before it is made. */
export function BlockSheet({ word, onDone }: Props) {
  if (word === null) return null;
  return (
    <Sheet title={`Block “${word}”`} open onOpen={onDone} width={560}>
      <Block word={word} onDone={onDone} />
    </Sheet>
  );
}

function Block({ word, onDone }: { word: string; onDone: () => void }) {
  const { id, summary, sheet } = usePlan();
  const send = usePlanChange();
  const [match, setMatch] = useState<Blocking["match"]>("phrase");
  const [where, setWhere] = useState("whole");
  const [over, setOver] = useState(false);
  const body: Blocking = {
    text: word,
    match,
    campaign_id: where.startsWith("c") ? Number(where.slice(1)) : null,
    group_id: where.startsWith("g") ? Number(where.slice(1)) : null,
    reason: "",
    over,
  };
  const path = { params: { path: { plan_id: id } } };
  const query = useQuery({
    queryKey: ["blocking", id, summary.revision, word, match, where],
    queryFn: () => taken(client.POST("/api/plans/{plan_id}/sift/blocking", { ...path, body })),
  });
  const block = async () => {
    const took = await send("post", "/sift/block", body);
    if (took) onDone();
  };
  const worth = query.data;
  return (
    <>
      <S.Sentence>
        A negative,{" "}
        <Choice label="How it matches" inline value={match} options={matches} onChange={setMatch} />{" "}
        for{" "}
        <Choice
          label="Where it acts"
          inline
          value={where}
          options={[
            { id: "whole", name: "the whole plan" },
            ...sheet.campaigns.map((one) => ({
              id: `c${one.id}`,
              name: `the campaign ${one.name}`,
            })),
            ...sheet.groups.map((one) => ({ id: `g${one.id}`, name: `the group ${one.label}` })),
          ]}
          onChange={setWhere}
        />
        .
      </S.Sentence>
      {worth && <Worth worth={worth} currency={summary.brief.values.currency} />}
      {worth && worth.called > 0 && (
        <p>
          <label>
            <input
              type="checkbox"
              checked={over}
              onChange={(event) => setOver(event.currentTarget.checked)}
            />{" "}
            call the {number(worth.called)} that are called already block, too
          </label>
        </p>
      )}
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just asked for it */}
        <MainButton autoFocus isDisabled={!worth} onPress={() => void block()}>
          Block it
        </MainButton>
      </Foot>
    </>
  );
}

type WorthProps = { worth: Schemas["BlockingWorth"]; currency: string };

function Worth({ worth, currency }: WorthProps) {
  const gain = delta(worth.customers_gained, 2);
  return (
    <S.Told>
      <p>
        It stops {plural(worth.stops, "keyword")} of the sheet, {number(worth.uncalled)} of them not
        yet called.
      </p>
      <p>
        At least {number(worth.spill_saved)} searches a month less are paid for in vain,{" "}
        {money(worth.spend_freed)} {currency} freed{gain && `; customers ${gain}`}.
      </p>
      {worth.hurts.length > 0 && (
        <S.Warn>It would stop keywords that are kept: {worth.hurts.join(", ")}.</S.Warn>
      )}
      {worth.hurts.length === 0 && worth.everyday && (
        <S.Warn>It is an everyday word too: it stands in keywords that are kept.</S.Warn>
      )}
      {worth.sold.length > 0 && (
        <S.Warn>Search terms that have sold would be stopped: {worth.sold.join(", ")}.</S.Warn>
      )}
      {worth.stops > 0 && worth.hurts.length === 0 && worth.sold.length === 0 && (
        <S.Soft>It hurts nothing that is kept or has sold, {count(0)} customers lost.</S.Soft>
      )}
    </S.Told>
  );
}
