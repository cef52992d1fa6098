import { usePlan } from "../../../data/plan";
import { daySaid } from "../../../parts/days";
import { count, delta, money, number, percent, plural } from "../../../parts/format";
import * as S from "../Learn.styles";
import type { LearnView, OurWord } from "../view";

type Props = { view: LearnView; word: OurWord | undefined };

/** The month in sentences: what came, its pace, whether it is chance, and what moved. */
export function Said({ view, word }: Props) {
  const { summary } = usePlan();
  const { currency } = summary.brief.values;
  const { month } = view;
  if (!month) return null;
  const { pace, moved } = month;
  const newest = word?.months[0];
  const chance = newest?.figures.find((one) => one.figure === "customers");
  return (
    <>
      <p>
        <b>{money(pace.spent)}</b> {currency} spent from {daySaid(month.first)} to{" "}
        {daySaid(month.last)}, where the purse holds {money(pace.by_now)} for these days (
        {delta(pace.spent - pace.by_now, 2) || "as planned"}).{" "}
        {month.last !== month.end &&
          (pace.out
            ? `At this pace it is gone by ${daySaid(pace.out)}.`
            : `At this pace ${money(pace.left)} will be left.`)}
        {month.last === month.end && `The month is over; ${money(pace.left)} were left.`}
      </p>
      {chance && (
        <p>
          <b>{number(chance.actual)} customers</b> reported
          {month.by_hand > 0 &&
            ` (with ${number(month.by_hand)} counted by hand${month.by_hand_value === null ? "" : `, who bought for ${money(month.by_hand_value)}`})`}{" "}
          where {count(chance.low)} to {count(chance.high)} were given for these days, late ones
          left out.{" "}
          {chance.fewer < chance.more
            ? `As few came in ${percent(chance.fewer, 0)} of the draws`
            : `As many came in ${percent(chance.more, 0)} of the draws`}
          {chance.held ? ": that may well be chance." : ": that is hardly chance."} About{" "}
          {count(month.late)} more are still expected to be reported.
        </p>
      )}
      {moved && (
        <p>
          In the last {plural(moved.days, "day")} against as many before:{" "}
          {moved.now.impressions !== undefined &&
            moved.before.impressions !== undefined &&
            `${number(moved.now.impressions)} showings (${changed(moved, "impressions")}), `}
          {money(moved.now.cpc)} a click ({changed(moved, "cpc")}), {number(moved.now.clicks)}{" "}
          clicks ({changed(moved, "clicks")}).
        </p>
      )}
      <p>
        <S.Faint>
          {month.steering.enough
            ? `Enough to steer by: ${count(month.steering.customers)} customers a month are known to within ${percent(month.steering.within, 0)}, so a platform may bid for customers.`
            : `Not enough to steer by: ${count(month.steering.customers)} customers a month${month.steering.within === null ? "" : ` are known to within ${percent(month.steering.within, 0)}`}. A platform that bids for customers wants them known to within a third.`}
        </S.Faint>
      </p>
      {month.site && <p>{siteSaid(month.site, currency)}</p>}
      {month.invalid_clicks !== null && month.invalid_clicks > 0 && (
        <p>
          <S.Faint>
            {plural(month.invalid_clicks, "invalid click")} this month, about{" "}
            {money(month.invalid_cost)} {currency} of money at what a click cost; credit for them is
            taken off.
          </S.Faint>
        </p>
      )}
    </>
  );
}

/** What the whole site saw beside what ads did. */
function siteSaid(site: NonNullable<Month["site"]>, currency: string): string {
  const parts = [
    site.cost_per_visit !== null &&
      `with all ${number(site.visits)} visits of the site, a visit of any origin cost ${money(site.cost_per_visit)} ${currency}`,
    site.without_ad !== null &&
      `${percent(site.without_ad, 0)} of all customers came without an ad`,
  ].filter(Boolean);
  const text = parts.join("; ");
  return text ? `${text[0]!.toUpperCase()}${text.slice(1)}.` : "";
}

type Month = NonNullable<LearnView["month"]>;
type Moved = NonNullable<NonNullable<LearnView["month"]>["moved"]>;

function changed({ before, now }: Moved, figure: string): string {
  const was = before[figure] ?? 0;
  if (was === 0) return "none before";
  return `${delta(((now[figure] ?? 0) / was - 1) * 100, 0) || "+0"} %`;
}
