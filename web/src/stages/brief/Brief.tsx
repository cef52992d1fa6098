import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { parsed } from "../../parts/format";
import { Backward } from "./Backward";
import * as S from "./Brief.styles";
import { Assumptions } from "./Assumptions";
import { Descent } from "./Descent";
import { Day } from "../../parts/Day";
import { Money } from "./Money";
import { AddOffer, MoreOffers } from "./MoreOffers";
import { Platform } from "./Platform";
import { PastResults } from "./PastResults";
import { Season } from "./Season";
import { Showing } from "./Showing";
import {
  bases,
  currencies,
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

/** What is sold, to whom, at what margin, for how much a month: as sentences with blanks. */
export function Brief() {
  const { summary, changeBrief, changeAssumption } = usePlan();
  const { values, unsaid, assumptions, strange } = summary.brief;
  const change = usePlanChange();
  const isUnsaid = (name: keyof Values) => unsaid.includes(name);
  const twoSteps = values.close_likely !== null;

  const share = (name: NumberField, label: string) => (
    <Blank
      label={label}
      value={hundredths(values[name])}
      assumed={isUnsaid(name)}
      onCommit={(text) => send(name, parsed(text), 100)}
    />
  );
  const figure = (name: NumberField, label: string, options: { placeholder?: string } = {}) => (
    <Blank
      label={label}
      value={plain(values[name])}
      assumed={isUnsaid(name)}
      placeholder={options.placeholder}
      onCommit={(text) => {
        if (options.placeholder && text.trim() === "") return changeBrief({ [name]: null });
        return send(name, parsed(text), 1);
      }}
    />
  );
  const send = (name: NumberField, value: number | null, per: number) =>
    value === null ? false : changeBrief({ [name]: value / per });

  const rule = rules.find((r) => r.id === values.ceiling_rule)!;
  const setRule = (ceiling_rule: Values["ceiling_rule"]) => void changeBrief({ ceiling_rule });
  const splitSteps = () => void change("put", "/brief/steps", { steps: twoSteps ? 1 : 2 });

  return (
    <S.Split>
      <S.Letter>
        <h1>What a click is worth</h1>
        <S.Sentence>
          We sell{" "}
          <Blank
            label="What is sold"
            value={values.offer_name}
            assumed={isUnsaid("offer_name")}
            placeholder="what is sold"
            onCommit={(text) => changeBrief({ offer_name: text.trim() })}
          />{" "}
          at about {figure("sale_value", "Sale value")}{" "}
          <Choice
            label="Currency"
            value={values.currency}
            options={currencies}
            inline
            assumed={isUnsaid("currency")}
            onChange={(currency) => void changeBrief({ currency })}
          />{" "}
          each and keep {share("gross_margin", "Gross margin, per cent")} % of it. A customer orders{" "}
          {figure("sales_per_customer", "Sales per customer")} times.
        </S.Sentence>
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
        <PastResults />
        <MoreOffers />
        <S.Sentence>
          We want to{" "}
          <Choice
            label="Ceiling rule"
            value={values.ceiling_rule}
            options={rules}
            inline
            assumed={isUnsaid("ceiling_rule")}
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
        <S.Sentence>
          <Money /> from{" "}
          <Day
            label="First day"
            value={values.start_date}
            assumed={isUnsaid("start_date")}
            onCommit={(start_date) => changeBrief({ start_date })}
          />
          , for the most{" "}
          <Choice
            label="Goal"
            value={values.goal}
            options={goals}
            inline
            assumed={isUnsaid("goal")}
            onChange={(goal) => void changeBrief({ goal })}
          />
          .
        </S.Sentence>
        <S.Sentence>
          Our places are{" "}
          <Blank
            label="Own places, separated by commas"
            value={values.places.join(", ")}
            assumed={isUnsaid("places")}
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
            assumed={isUnsaid("volume_basis")}
            onChange={(volume_basis) => void changeBrief({ volume_basis })}
          />
          .
        </S.Sentence>
        <Showing />
        <Platform />
        {strange.length > 0 && (
          <S.Strange role="note">
            {strange.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </S.Strange>
        )}
        <S.Legend>
          <b>violet</b> was entered; <i>straw, dashed</i> is still assumed
        </S.Legend>
        <S.Beside>
          <Season />
          <Backward />
        </S.Beside>
        <Assumptions />
      </S.Letter>
      <Descent />
    </S.Split>
  );
}
