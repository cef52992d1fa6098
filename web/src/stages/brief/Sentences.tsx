import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { A_NUMBER, parsed } from "../../parts/format";
import * as S from "./Brief.styles";
import { Day } from "../../parts/Day";
import { Money } from "./Money";
import { AddOffer } from "./MoreOffers";
import {
  bases,
  currenciesWith,
  goals,
  hundredths,
  plain,
  rules,
  shareOfArea,
  type Values,
} from "./fields";

type NumberField = {
  [K in keyof Values]: Values[K] extends number | null ? K : never;
}[keyof Values];

/** The brief's figures as blanks in a sentence. */
function useBlanks() {
  const { summary, changeBrief } = usePlan();
  const change = usePlanChange();
  const { values, not_entered } = summary.brief;
  const isAssumed = (name: keyof Values) => not_entered.includes(name);
  const send = (name: NumberField, value: number | null, per: number) =>
    value === null ? A_NUMBER : changeBrief({ [name]: value / per });
  const share = (name: NumberField, label: string) => (
    <Blank
      label={label}
      value={hundredths(values[name])}
      assumed={isAssumed(name)}
      onCommit={(text) => send(name, parsed(text), 100)}
    />
  );
  const figure = (name: NumberField, label: string, options: { placeholder?: string } = {}) => (
    <Blank
      label={label}
      value={plain(values[name])}
      assumed={isAssumed(name)}
      placeholder={options.placeholder}
      onCommit={(text) => {
        if (options.placeholder && text.trim() === "") return changeBrief({ [name]: null });
        return send(name, parsed(text), 1);
      }}
    />
  );
  return { values, changeBrief, change, isAssumed, share, figure };
}

/** What is sold, at what price and margin. */
export function WhatIsSold() {
  const { values, changeBrief, isAssumed, share, figure } = useBlanks();
  return (
    <S.Sentence>
      We sell{" "}
      <Blank
        label="What is sold"
        value={values.offer_name}
        assumed={isAssumed("offer_name")}
        placeholder="what is sold"
        onCommit={(text) => changeBrief({ offer_name: text.trim() })}
      />{" "}
      at about {figure("sale_value", "Sale value")}{" "}
      <Choice
        label="Currency"
        value={values.currency}
        options={currenciesWith(values.currency)}
        inline
        assumed={isAssumed("currency")}
        onChange={(currency) => void changeBrief({ currency })}
      />{" "}
      each and keep {share("gross_margin", "Gross margin, per cent")} % of it. A customer orders{" "}
      {figure("sales_per_customer", "Sales per customer")} times.
    </S.Sentence>
  );
}

/** Of a hundred visitors, how many buy: in one step or in two. */
export function WhoBuys() {
  const { values, share, change } = useBlanks();
  const twoSteps = values.close_likely !== null;
  const splitSteps = () => void change("put", "/brief/steps", { steps: twoSteps ? 1 : 2 });
  return (
    <S.Sentence>
      Of 100 visitors,{" "}
      {share(
        "rate_low",
        twoSteps ? "Enquiries of 100 visitors, low" : "Customers of 100 visitors, low",
      )}{" "}
      to{" "}
      {share(
        "rate_high",
        twoSteps ? "Enquiries of 100 visitors, high" : "Customers of 100 visitors, high",
      )}
      , likely{" "}
      {share(
        "rate_likely",
        twoSteps ? "Enquiries of 100 visitors, likely" : "Customers of 100 visitors, likely",
      )}
      ,{" "}
      {twoSteps ? (
        <>
          enquire; of 100 enquiries, {share("close_low", "Sales of 100 enquiries, low")} to{" "}
          {share("close_high", "Sales of 100 enquiries, high")}, likely{" "}
          {share("close_likely", "Sales of 100 enquiries, likely")}, become customers.
        </>
      ) : (
        "become customers."
      )}{" "}
      <S.Aside>
        <TextButton onPress={splitSteps}>
          {twoSteps ? "count in one step" : "count in two steps: enquiry, then sale"}
        </TextButton>
      </S.Aside>{" "}
      {values.more_offers.length === 0 && <AddOffer />}
    </S.Sentence>
  );
}

/** The rule behind the ceilings. */
export function TheRule() {
  const { values, changeBrief, isAssumed, share, figure } = useBlanks();
  const rule = rules.find((r) => r.id === values.ceiling_rule)!;
  const setRule = (ceiling_rule: Values["ceiling_rule"]) => void changeBrief({ ceiling_rule });
  return (
    <S.Sentence>
      We want to{" "}
      <Choice
        label="Ceiling rule"
        value={values.ceiling_rule}
        options={rules}
        inline
        assumed={isAssumed("ceiling_rule")}
        onChange={setRule}
      />
      {values.ceiling_value !== null && (
        <>
          {" "}
          of{" "}
          {rule.share ? (
            <>{share("ceiling_value", "Ceiling rule, per cent")} %</>
          ) : (
            figure("ceiling_value", "Ceiling rule, figure")
          )}
        </>
      )}
      , and never pay more than{" "}
      {figure("max_cpc", "Highest price of a click", { placeholder: "the ceiling" })} a click.
    </S.Sentence>
  );
}

/** How much a month, from when, for the most of what. */
export function ThePurse() {
  const { values, changeBrief, isAssumed } = useBlanks();
  return (
    <S.Sentence>
      <Money /> from{" "}
      <Day
        label="First day"
        value={values.start_date}
        assumed={isAssumed("start_date")}
        onCommit={(start_date) => changeBrief({ start_date })}
      />
      , for the most{" "}
      <Choice
        label="Goal"
        value={values.goal}
        options={goals}
        inline
        assumed={isAssumed("goal")}
        onChange={(goal) => void changeBrief({ goal })}
      />
      .
    </S.Sentence>
  );
}

/** Where, and what volumes count. */
export function ThePlaces() {
  const { values, changeBrief, isAssumed } = useBlanks();
  const { changeAssumption, summary } = usePlan();
  const { assumptions } = summary.brief;
  return (
    <S.Sentence>
      Our places are{" "}
      <Blank
        label="Own places, separated by commas"
        value={values.places.join(", ")}
        assumed={isAssumed("places")}
        placeholder="none named"
        onCommit={(text) =>
          changeBrief({
            places: text
              .split(",")
              .map((place) => place.trim())
              .filter(Boolean),
          })
        }
      />
      , about{" "}
      <Blank
        label="Area share, per cent"
        value={hundredths(assumptions.area_share ?? 1)}
        assumed={!("area_share" in assumptions)}
        onCommit={(text) => {
          const value = shareOfArea(text);
          return value !== null && changeAssumption("area_share", value);
        }}
      />{" "}
      % of the area that volumes count <S.Aside>(or people here / people there)</S.Aside>, and
      volumes count{" "}
      <Choice
        label="What volumes count"
        value={values.volume_basis}
        options={bases}
        inline
        assumed={isAssumed("volume_basis")}
        onChange={(volume_basis) => void changeBrief({ volume_basis })}
      />
      .
    </S.Sentence>
  );
}
