import { usePlan } from "../../../data/plan";
import { count, delta, money, percent } from "../../../parts/format";
import type { FitView } from "../view";
import * as S from "../Fit.styles";

type Props = { view: FitView };

const plain: Record<string, string> = { low: "low price for all", middle: "middle for all" };

/** What the fitted bids gain over other ways to bid, for the same keywords and money. */
export function OtherWays({ view }: Props) {
  const { summary } = usePlan();
  const { goal } = view;
  const name = (way: FitView["other_ways"][number]) =>
    way.name === "flat" ? `flat ${money(way.flat_bid)}` : plain[way.name];
  const said = (value: number) =>
    goal === "profit" || goal === "revenue" ? money(value) : count(value);
  return (
    <S.Ways aria-label="Against other ways to bid, same money">
      <span>
        <i>Same keywords, same money:</i>
      </span>
      {view.other_ways.map((way) => (
        <span key={way.name}>
          {name(way)} <b>{said(way.value)}</b>
          {way.pace < 1 && (
            <small title="These bids would spend more than the purse, so everything is paced">
              {" "}
              paced to {percent(way.pace, 0)}
            </small>
          )}
        </span>
      ))}
      <span data-best>
        {summary.purse.policy === "fitted" ? "fitted" : "fitted, at best"}{" "}
        <b>
          {said(summary.purse.policy === "fitted" ? view.value : view.bound)} {goal}
        </b>
        <em>{gain(view, summary.purse.policy === "fitted" ? view.value : view.bound)}</em>
      </span>
    </S.Ways>
  );
}

function gain(view: FitView, fitted: number): string {
  const best = Math.max(0, ...view.other_ways.map((way) => way.value));
  if (best <= 0) return "";
  const percent = (100 * (fitted - best)) / best;
  if (percent < -0.05)
    return "; the others pay more for their last customers than your rule allows";
  const share = delta(percent, 0);
  return share ? ` ${share} % over the best of these` : " no better than the best of these";
}
