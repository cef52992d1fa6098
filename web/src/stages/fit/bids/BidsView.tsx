import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Choice } from "../../../parts/Choice";
import { Quiet } from "../../../parts/Screen";
import { money, number, parsed, parsedPer, percent } from "../../../parts/format";
import { Bids } from "./Bids";
import * as S from "../Fit.styles";
import { LadderOfPounds } from "./LadderOfPounds";
import { OtherWays } from "./OtherWays";

type Values = Schemas["BriefValues"];

const goals = (["customers", "profit", "clicks", "revenue"] as const).map((id) => ({
  id,
  name: id,
}));

const policiesOf = (lowWins: number): { id: Values["policy"]; name: string; about: string }[] => [
  {
    id: "fitted",
    name: "fitted to the purse",
    about: "Follows every change; the most for the money.",
  },
  {
    id: "low",
    name: "the low price for all",
    about: `What wins about ${percent(lowWins)} of the clicks.`,
  },
  { id: "middle", name: "the middle price for all", about: "Half way from low to high." },
  { id: "flat", name: "one flat bid for all", about: "The same bid, before match and breadth." },
];

/** Bids that make most of the month's money, and what more money would buy. */
export function BidsView() {
  const { summary, changeBrief, changePurse } = usePlan();
  const { values } = summary.brief;
  const { purse } = summary;
  const view = usePlanQuery("/fit");
  const best = view.data?.other_ways.find((way) => way.name === "flat")?.flat_bid ?? 1;
  const setPolicy = (policy: Values["policy"]) =>
    void changeBrief(
      policy === "flat" ? { policy, flat_bid: values.flat_bid ?? best } : { policy },
    );
  return (
    <>
      <S.Line>
        <span>
          most{" "}
          <Choice
            label="Goal"
            value={values.goal}
            options={goals}
            inline
            onChange={(goal) => void changeBrief({ goal })}
          />{" "}
          for{" "}
          <Blank
            label="Purse"
            value={money(summary.brief.purse)}
            onCommit={(text) => {
              const typed = parsedPer(text);
              return typed !== null && changePurse(typed.value, typed.per);
            }}
          />{" "}
          {values.currency} a month; bids are{" "}
          <Choice
            label="Bid policy"
            value={values.policy}
            options={policiesOf(summary.brief.acting.low_percentile)}
            inline
            onChange={setPolicy}
          />
          {values.policy === "flat" && (
            <>
              {" "}
              of{" "}
              <Blank
                label="Flat bid"
                value={money(values.flat_bid)}
                onCommit={(text) => {
                  const value = parsed(text);
                  return value !== null && changeBrief({ flat_bid: value });
                }}
              />
            </>
          )}
        </span>
        <S.Near>
          {purse.policy === "fitted"
            ? purse.exact
              ? "the best there is, under these assumptions"
              : `within ${percent(Math.max(purse.gap, 0.0001), 2)} of the best, under these assumptions`
            : `fitted bids would bring ${number(view.data?.bound, 1)} ${values.goal}`}
        </S.Near>
      </S.Line>
      {purse.saturated && purse.policy === "fitted" && purse.purse > purse.spend && (
        <S.Why role="note">
          {money(purse.purse - purse.spend)} stays unspent: every kept keyword is at the most it may
          cost under your rule. Keep more keywords, or let a customer cost more.
        </S.Why>
      )}
      {values.more_offers.length === 0 &&
      (values.goal === "customers" || values.goal === "revenue") ? (
        <S.Hint>
          With one offer, customers and revenue lead to the same choice; profit differs only where
          the last customer would cost more than your rule allows.
        </S.Hint>
      ) : null}
      {view.data && <LadderOfPounds view={view.data} />}
      {view.data && view.data.blocks.length > 0 && <OtherWays view={view.data} />}
      {!view.data && <Quiet>Laying out the ladder …</Quiet>}
      <Bids />
    </>
  );
}
