import { useState } from "react";
import { Link } from "react-router";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Choice } from "../../../parts/Choice";
import { dayOf, daySaid } from "../../../parts/days";
import { count, money } from "../../../parts/format";
import type { Schemas } from "../../../data/client";
import * as S from "../Learn.styles";
import type { LearnView } from "../view";
import { Campaigns } from "./Campaigns";
import { Counted } from "./Counted";
import { History } from "./History";
import { Lines } from "./Lines";
import { Said } from "./Said";
import { Sum } from "./Sum";
import { Unmatched } from "./Unmatched";
import { Word } from "./Word";

/** The month: what came against what was planned, why it differs, and our word so far. */
export function Month({ view }: { view: LearnView }) {
  const { id, summary } = usePlan();
  const word = usePlanQuery("/learn/word");
  const history = usePlanQuery("/learn/history");
  const { currency } = summary.brief.values;
  return (
    <S.Page>
      <Said view={view} word={word.data} />
      <Page id={id} />
      <S.Pair>
        <Lines
          view={view}
          of="cost"
          title={`Money this month, ${currency}`}
          shown={money}
          soFar={word.data?.so_far ?? null}
        />
        <Lines
          view={view}
          of="customers"
          title="Customers this month"
          shown={count}
          soFar={word.data?.so_far ?? null}
        />
      </S.Pair>
      <Why view={view} currency={currency} />
      <Word asked={word} currency={currency} />
      <History history={history.data} currency={currency} />
      <Campaigns view={view} currency={currency} />
      <Counted view={view} />
      <Unmatched view={view} currency={currency} />
    </S.Page>
  );
}

/** The client's page of the month: looked at, and taken away. */
function Page({ id }: { id: number }) {
  const page = `/api/plans/${id}/learn/page`;
  return (
    <p>
      The client’s page of this month:{" "}
      <a href={`${page}.html`} target="_blank" rel="noreferrer">
        look at it
      </a>
      {(["pdf", "html", "xlsx", "csv"] as const).map((kind) => (
        <span key={kind}>
          {" · "}
          <a href={`${page}/${kind}`} download>
            {kind.toUpperCase()}
          </a>
        </span>
      ))}
    </p>
  );
}

/** What the days are held against: what was handed over and ran, else the plan. */
function HeldAgainst({ sent }: { sent: NonNullable<LearnView["month"]>["sent"] }) {
  if (sent.length === 0)
    return (
      <p>
        Held against the plan as it stands. Say which of{" "}
        <Link to="../hand-over">what was sent</Link> runs, and it is held against that.
      </p>
    );
  const ran = sent.filter(({ read }) => read);
  const lost = sent.filter(({ read }) => !read);
  return (
    <p>
      {ran.length > 0 && `Held against what was sent ${ran.map(whenItRan).join(", ")}. `}
      {lost.length > 0 &&
        `What was sent ${lost.map(whenItRan).join(", ")} can’t be read any more: those days are held against the plan as it stands.`}
    </p>
  );
}

const whenItRan = ({ at, first, last }: Schemas["RanSent"]) =>
  `on ${daySaid(dayOf(at))} (${daySaid(first)} to ${daySaid(last)})`;

const everything = "";

/** Why customers and money differ, of the whole plan or of one campaign. */
function Why({ view, currency }: { view: LearnView; currency: string }) {
  const [of, setOf] = useState(everything);
  const { month } = view;
  const campaigns = month?.campaigns ?? [];
  const days = month ? `${daySaid(month.first)} to ${daySaid(month.last)}` : "";
  const one = campaigns.find((campaign) => campaign.name === of);
  return (
    <>
      {month && <HeldAgainst sent={month.sent} />}
      {campaigns.length > 1 && (
        <S.Line data-flat>
          <Choice
            label="Why it differs, of"
            inline
            value={one ? of : everything}
            options={[
              { id: everything, name: "all campaigns" },
              ...campaigns.map(({ name }) => ({ id: name, name })),
            ]}
            onChange={setOf}
          />
        </S.Line>
      )}
      <S.Pair>
        <Sum
          title="Why the customers differ"
          days={days}
          parts={one?.customer_parts ?? month?.customers ?? {}}
        />
        <Sum
          title={`Why the money differs, ${currency}`}
          days={days}
          parts={one?.spend_parts ?? month?.spend ?? {}}
        />
      </S.Pair>
    </>
  );
}
