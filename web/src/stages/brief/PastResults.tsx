import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { usePlanChange } from "../../data/usePlanChange";
import { TextButton } from "../../parts/Button";
import { money, number, percent, plural } from "../../parts/format";
import * as S from "./Brief.styles";

type Kind = "account" | "terms";

/** What results of the past say of the conversion rate, how sure, and one press to use it. */
export function PastResults() {
  const { summary } = usePlan();
  const send = usePlanChange();
  const account = usePlanQuery("/past/account").data?.summary;
  const terms = usePlanQuery("/past/terms").data?.summary;
  const kind: Kind = account?.rate ? "account" : "terms";
  const past = { account, terms }[kind];
  if (!past) return null;
  const use = (counts: Schemas["PastApplied"]["counts"]) =>
    void send("post", "/past/{kind}/brief", { counts }, { kind });
  const twoSteps = summary.brief.values.close_likely !== null;
  return (
    <S.Past role="note">
      Your last {number(past.days)} days ({past.name}) say{" "}
      {past.rate ? (
        <>
          <b>{percent(past.rate.likely)}</b>, {plural(past.customers, "customer")} of{" "}
          {plural(past.clicks, "click")}
          {past.cpc !== null && ` at ${money(past.cpc)} each`}: 80 % sure between{" "}
          {percent(past.rate.low)} and {percent(past.rate.high)}
          {past.sale_value !== null && `; a customer brought ${money(past.sale_value)}`}.{" "}
          <TextButton onPress={() => use("customers")}>use it</TextButton>
          {twoSteps && (
            <TextButton onPress={() => use("enquiries")}>these were enquiries</TextButton>
          )}
        </>
      ) : (
        <>too little of the conversion rate: {plural(past.clicks, "click")}.</>
      )}
    </S.Past>
  );
}
