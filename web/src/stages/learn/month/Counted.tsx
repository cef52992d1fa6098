import { useState } from "react";
import { usePlanChange } from "../../../data/usePlanChange";
import { Blank } from "../../../parts/Blank";
import { Button } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Day } from "../../../parts/Day";
import { number, parsed } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { LearnView } from "../view";

/** Customers that somebody counted by hand or at the telephone, as a sentence to fill in. */
export function Counted({ view }: { view: LearnView }) {
  const send = usePlanChange();
  const { month } = view;
  const [campaign, setCampaign] = useState("");
  const [since, setSince] = useState<string | null>(null);
  const [until, setUntil] = useState<string | null>(null);
  const [customers, setCustomers] = useState<number | null>(null);
  if (!month) return null;
  const body = { campaign, since: since ?? month.first, until: until ?? month.last };
  return (
    <S.Sentence aria-label="Customers counted by hand">
      Counted by hand:{" "}
      <Blank
        label="Customers counted"
        value={customers === null ? "" : number(customers)}
        assumed={customers === null}
        onCommit={(text) => {
          const value = parsed(text);
          if (value === null || value < 0) return false;
          setCustomers(value);
          return true;
        }}
      />{" "}
      customers of{" "}
      <Choice
        label="Campaign they are of"
        inline
        value={campaign}
        options={[
          { id: "", name: "all campaigns" },
          ...month.campaigns.map(({ name }) => ({ id: name, name })),
        ]}
        onChange={setCampaign}
      />{" "}
      from{" "}
      <Day
        label="Counted from"
        value={body.since}
        onCommit={(day) => Promise.resolve((setSince(day), true))}
      />{" "}
      to{" "}
      <Day
        label="Counted to"
        value={body.until}
        onCommit={(day) => Promise.resolve((setUntil(day), true))}
      />{" "}
      <Button
        isDisabled={customers === null}
        onPress={() =>
          void send("post", "/learn/counted", { ...body, customers: customers ?? 0 }).then(
            (took) => took && setCustomers(null),
          )
        }
      >
        Count them
      </Button>
      <small>A later count of the same campaign and days takes its place.</small>
    </S.Sentence>
  );
}
