import { useState } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Choice } from "../../../parts/Choice";
import { NotYet } from "../../../parts/NotYet";
import { Sentence } from "../../../parts/Sentence";
import { count, money, number, percent } from "../../../parts/format";
import * as S from "./Panels.styles";

type CapItem = NonNullable<Schemas["CapView"]["bare"]>;

/** For a platform that bids by itself: the one price to give it, and what that brings. */
export function Cap() {
  const { summary } = usePlan();
  const [odd, setOdd] = useState<"no" | "yes">("no");
  const asked = usePlanQuery("/fit/cap", { query: { odd: odd === "yes" ? "true" : "false" } });
  const view = asked.data;
  const { currency } = summary.brief.values;
  if (!view)
    return (
      <S.Panel>
        <NotYet of={asked}>Trying every cap …</NotYet>
      </S.Panel>
    );
  if (!view.bare) return <S.Panel>No kept keyword could run yet: there is nothing to cap.</S.Panel>;
  const isMoney = view.goal === "profit" || view.goal === "revenue";
  const said = (value: number) => `${isMoney ? money(value) : count(value)} ${view.goal}`;
  const brings = (cap: CapItem) =>
    `${said(cap.value)}, ${number(cap.clicks)} clicks for ${money(cap.spend)} ${currency}` +
    (cap.pace < 1 ? `, its ads shown in ${percent(cap.pace, 0)} of the searches it could win` : "");
  return (
    <S.Panel tabIndex={0} role="region" aria-label="The one cap">
      <S.Sentences>
        <Sentence>
          Where the platform bids by itself for most clicks, give it <b>{money(view.bare.cap)}</b>{" "}
          {currency} as the most a click may cost{" "}
          <Choice
            label="Round prices"
            inline
            value={odd}
            options={[
              { id: "no", name: "as it comes" },
              { id: "yes", name: "never on a round price" },
            ]}
            onChange={setOdd}
          />
          .
        </Sentence>
        <p>It brings {brings(view.bare)}.</p>
        {view.own && (
          <p>
            Bid here, with no keyword above its own ceiling, the best single bid is{" "}
            <b>{money(view.own.cap)}</b>: {brings(view.own)}.
          </p>
        )}
        <p>
          Bids fitted keyword by keyword bring <b>{said(view.fitted)}</b> for the same money.
        </p>
        {view.raise_share > 0 && (
          <p>
            The platform may raise a bid by {percent(view.raise_share, 0)} by itself, so every
            ceiling is divided by {number(1 + view.raise_share, 2)}.
          </p>
        )}
      </S.Sentences>
    </S.Panel>
  );
}
