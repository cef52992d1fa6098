import { type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { Blank } from "../../../parts/Blank";
import { Quiet } from "../../../parts/Screen";
import { A_NUMBER, inHundred, money, number, parsed, plural } from "../../../parts/format";

type Props = { kind: "terms" | "account"; summary: Schemas["PastSummaryView"] };

/** What a window of results adds up to, and how long it was. */
export function PastWindow({ kind, summary }: Props) {
  const { summary: plan } = usePlan();
  const send = usePlanChange();
  const { currency } = plan.brief.values;
  const setDays = (text: string) => {
    const days = parsed(text);
    if (days === null) return A_NUMBER;
    return send("post", "/past/{kind}/days", { days }, { kind });
  };
  return (
    <Quiet>
      {summary.name}, over{" "}
      <Blank label="Days the results cover" value={number(summary.days)} onCommit={setDays} /> days:{" "}
      {plural(summary.clicks, "click")}
      {summary.cpc !== null && ` at ${money(summary.cpc)} ${currency}`},{" "}
      {plural(summary.customers, "customer")}
      {summary.rate && (
        <>
          ; of 100 clicks {inHundred(summary.rate.likely)} bought, 80 % sure between{" "}
          {inHundred(summary.rate.low)} and {inHundred(summary.rate.high)}
        </>
      )}
    </Quiet>
  );
}
