import { useState } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Choice } from "../../../parts/Choice";
import { NotYet } from "../../../parts/NotYet";
import { Pictured } from "../../../parts/Pictured";
import { Quiet } from "../../../parts/Screen";
import { Views } from "../../../parts/Views";
import {
  A_NUMBER,
  currencyWord,
  money,
  number,
  parsed,
  parsedPer,
  percent,
} from "../../../parts/format";
import { Bids } from "./Bids";
import { Cap } from "./Cap";
import { Curve } from "./Curve";
import * as S from "./Bids.styles";
import { LadderOfPounds } from "./LadderOfPounds";
import { Limits } from "./Limits";
import { MoveBar } from "./MoveBar";
import { Sums } from "./Sums";
import { Ways } from "./Ways";

type Values = Schemas["BriefValues"];

const goals = (["customers", "profit", "clicks", "revenue"] as const).map((id) => ({
  id,
  name: id,
}));

const policies: { id: Values["policy"]; name: string; about?: string }[] = [
  {
    id: "fitted",
    name: "fitted to the purse",
    about: "Follows every change; the most for the money.",
  },
  { id: "low", name: "the low price for all" },
  { id: "middle", name: "the middle price for all" },
  { id: "high", name: "the high price for all" },
  { id: "percentile", name: "a percentile of the price" },
  { id: "high_plus", name: "the high price and more" },
  { id: "flat", name: "one flat bid for all" },
  { id: "flat_or_middle", name: "one bid, or the middle where lower" },
  { id: "last_seen", name: "the price last paid and more" },
];

const plain: ReadonlySet<Values["policy"]> = new Set(["fitted", "low", "middle", "high"]);

const panels = [
  { id: "ladder", name: "Ladder" },
  { id: "curve", name: "Curve" },
  { id: "ways", name: "Ways to bid" },
  { id: "limits", name: "Limits" },
  { id: "cap", name: "One cap" },
] as const;

const sheets = [
  { id: "keyword", name: "keywords" },
  { id: "group", name: "groups" },
  { id: "campaign", name: "campaigns" },
] as const;

/** Bids that make most of the month's money, and what more money would buy. */
export function BidsView() {
  const { summary, changeBrief, changePurse } = usePlan();
  const { values } = summary.brief;
  const { purse } = summary;
  const view = usePlanQuery("/fit");
  const [panel, setPanel] = useState<(typeof panels)[number]["id"]>("ladder");
  const [by, setBy] = useState<(typeof sheets)[number]["id"]>("keyword");
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  // a way that takes a figure is chosen where its figure stands
  const setPolicy = (policy: Values["policy"]) =>
    plain.has(policy) ? void changeBrief({ policy }) : setPanel("ways");
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
              return typed === null ? A_NUMBER : changePurse(typed.value, typed.per);
            }}
          />{" "}
          {values.currency} a month; bids are{" "}
          <Choice
            label="Bid policy"
            value={values.policy}
            options={policies}
            inline
            onChange={setPolicy}
          />
          {values.policy.startsWith("flat") && (
            <>
              {" "}
              of{" "}
              <Blank
                label="Flat bid"
                value={money(values.flat_bid)}
                onCommit={(text) => {
                  const value = parsed(text);
                  return value === null ? A_NUMBER : changeBrief({ flat_bid: value });
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
          {money(purse.purse - purse.spend)} stays unspent: all that your rule, and limits you set,
          let run is at the most it may cost. Keep more keywords, let a customer cost more, or ease
          a limit.
        </S.Why>
      )}
      {values.more_offers.length === 0 &&
      (values.goal === "customers" || values.goal === "revenue") ? (
        <S.Hint>
          With one offer, customers and revenue lead to the same choice; profit differs only where
          the last customer would cost more than your rule allows.
        </S.Hint>
      ) : null}
      <S.Switch>
        <Views label="What stands above the bids" views={panels} view={panel} onView={setPanel} />
        <S.By>
          under it <Choice label="Rows" inline value={by} options={sheets} onChange={setBy} />
        </S.By>
      </S.Switch>
      {panel === "ladder" && view.data && (
        <S.Pictured>
          <Pictured
            label={`Ladder of ${currencyWord(values.currency)}s`}
            items={view.data.blocks}
            columns={{
              group: (block) => view.data.groups[block.group],
              keywords: (block) => block.keywords.join(", "),
              steps: (block) => block.steps,
              "spend so far": (block) => block.start,
              "spend more": (block) => block.spend,
              [`${view.data.goal} each`]: (block) => block.return,
            }}
          >
            <LadderOfPounds view={view.data} />
          </Pictured>
        </S.Pictured>
      )}
      {panel === "ladder" && !view.data && (
        <Quiet>
          <NotYet of={view}>Laying out the ladder …</NotYet>
        </Quiet>
      )}
      {panel === "curve" && <Curve />}
      {panel === "ways" && <Ways />}
      {panel === "limits" && <Limits />}
      {panel === "cap" && <Cap />}
      {chosen.size > 0 && by === "keyword" && (
        <MoveBar chosen={chosen} onDone={() => setChosen(new Set())} />
      )}
      <S.Rows>
        {by === "keyword" ? <Bids selected={chosen} onSelected={setChosen} /> : <Sums by={by} />}
      </S.Rows>
    </>
  );
}
