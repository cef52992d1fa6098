import { useState } from "react";
import type { Schemas } from "../../data/client";
import { Blank } from "../../parts/Blank";
import { Choice } from "../../parts/Choice";
import { A_NUMBER, number, parsed } from "../../parts/format";

type Policy = Schemas["PolicyValues"];
type Name = Policy["name"];

const asks: Partial<Record<Name, "share" | "flat_bid">> = {
  percentile: "share",
  high_plus: "share",
  last_seen: "share",
  flat: "flat_bid",
  flat_or_middle: "flat_bid",
};
const names: { id: Name; name: string }[] = [
  { id: "fitted", name: "fitted to the purse" },
  { id: "low", name: "at the low price" },
  { id: "middle", name: "at the middle price" },
  { id: "high", name: "at the high price" },
  { id: "percentile", name: "at a percentile of the price:" },
  { id: "high_plus", name: "at the high price and more, %:" },
  { id: "flat", name: "at one bid:" },
  { id: "flat_or_middle", name: "at the middle, or at most:" },
  { id: "last_seen", name: "at the price last paid and more, %:" },
];

type Props = {
  /** Whose way it is, for the fields' names. */
  of: string;
  policy: Policy | null;
  /** What holds where it has none of its own. */
  otherwise: string;
  onPut: (policy: Policy | null) => Promise<boolean>;
};

/** Where the bids of a group or a campaign come from, if not from where all come. */
export function OwnWay({ of, policy, otherwise, onPut }: Props) {
  const [asked, setAsked] = useState<Name | null>(null);
  const name = asked ?? policy?.name ?? "";
  const figure = name === "" ? undefined : asks[name];
  const held = asked === null && policy && figure ? policy[figure] : null;
  const shown = held == null ? "" : number(figure === "share" ? held * 100 : held, 2);
  return (
    <>
      <Choice<Name | "">
        label={`Where bids of ${of} come from`}
        inline
        value={name}
        options={[{ id: "", name: otherwise }, ...names]}
        onChange={(next) => {
          // a way that takes a figure waits until it has one
          const waits = next !== "" && asks[next] !== undefined;
          setAsked(waits ? next : null);
          if (!waits) void onPut(next === "" ? null : { name: next });
        }}
      />
      {figure !== undefined && name !== "" && (
        <>
          {" "}
          <Blank
            label={`Figure for the bids of ${of}`}
            value={shown}
            placeholder="how much"
            focused={asked !== null}
            onCommit={async (text) => {
              const typed = parsed(text);
              if (typed === null) return A_NUMBER;
              const value = figure === "share" ? typed / 100 : typed;
              const took = await onPut({ name, [figure]: value });
              if (took) setAsked(null);
              return took;
            }}
          />
        </>
      )}
    </>
  );
}
