import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { A_NUMBER, parsed } from "../../parts/format";
import * as S from "./Brief.styles";
import { hundredths, plain } from "./fields";

type Offer = Schemas["OfferValues"];
type Figure = {
  [K in keyof Offer]-?: NonNullable<Offer[K]> extends number ? K : never;
}[keyof Offer];

/** Offers to name something else that is sold. */
export function AddOffer() {
  const { summary, changeBrief } = usePlan();
  const { values, worth } = summary.brief;
  const offers = values.more_offers;
  const add = () =>
    changeBrief({
      more_offers: [
        ...offers,
        {
          name: `another offer ${offers.length + 2}`,
          sale_value: values.sale_value,
          gross_margin: values.gross_margin,
          sales_per_customer: 1,
          rate_low: worth.rate_low,
          rate_likely: worth.rate,
          rate_high: worth.rate_high,
        },
      ],
    });
  return (
    <S.Aside>
      <TextButton isDisabled={!values.offer_name} onPress={() => void add()}>
        we sell something else too
      </TextButton>
    </S.Aside>
  );
}

/** What else is sold, each with its own worth; a keyword points to one offer. */
export function MoreOffers() {
  const { summary, changeBrief } = usePlan();
  const { values } = summary.brief;
  const offers = values.more_offers;
  const put = (at: number, some: Partial<Offer>) =>
    changeBrief({
      more_offers: offers.map((offer, i) => (i === at ? { ...offer, ...some } : offer)),
    });
  return (
    <>
      {offers.map((offer, at) => {
        const figure = (name: Figure, label: string, per = 1) => (
          <Blank
            label={`${label}, ${offer.name}`}
            value={per === 100 ? hundredths(offer[name] ?? 0) : plain(offer[name] ?? 0)}
            onCommit={(text) => {
              const value = parsed(text);
              return value === null ? A_NUMBER : put(at, { [name]: value / per });
            }}
          />
        );
        return (
          <S.Sentence key={at}>
            We also sell{" "}
            <Blank
              label={`Name of offer ${at + 2}`}
              value={offer.name}
              onCommit={(text) => (text.trim() ? put(at, { name: text.trim() }) : false)}
            />{" "}
            at about {figure("sale_value", "Sale value")} {values.currency} and keep{" "}
            {figure("gross_margin", "Gross margin, per cent", 100)} % of it; a customer orders{" "}
            {figure("sales_per_customer", "Sales per customer")} times, and of 100 visitors{" "}
            {figure("rate_low", "Customers of 100 visitors, low", 100)} to{" "}
            {figure("rate_high", "Customers of 100 visitors, high", 100)}, likely{" "}
            {figure("rate_likely", "Customers of 100 visitors, likely", 100)}, buy.{" "}
            <S.Aside>
              <TextButton
                onPress={() => void changeBrief({ more_offers: offers.filter((_, i) => i !== at) })}
              >
                leave it out
              </TextButton>
            </S.Aside>{" "}
            {at === offers.length - 1 && <AddOffer />}
          </S.Sentence>
        );
      })}
    </>
  );
}
