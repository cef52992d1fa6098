import { useMemo, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Button } from "../../../parts/Button";
import { NotYet } from "../../../parts/NotYet";
import { ReadGrid } from "../../../parts/ReadGrid";
import type { Column } from "../../../parts/column";
import { daySaid } from "../../../parts/days";
import { count, money, number, percent } from "../../../parts/format";
import * as S from "./Practice.styles";

type View = Schemas["EnvelopeView"];
type Keyword = View["keywords"][number];
type Props = { opened: string | null; onOpened: () => void };

/** The hidden truth beside the plan, once somebody has decided to look. */
export function Envelope({ opened, onOpened }: Props) {
  const { id, summary } = usePlan();
  const [asked, setAsked] = useState(false);
  const wanted = opened !== null || asked;
  const found = useQuery({
    queryKey: ["/practice/envelope", id, summary.revision, opened],
    enabled: wanted,
    queryFn: async () => {
      const view = await taken<View>(
        client.POST("/api/plans/{plan_id}/practice/envelope", {
          params: { path: { plan_id: id } },
        }),
      );
      if (opened === null) onOpened();
      return view;
    },
  });
  if (!wanted)
    return (
      <S.Opening>
        <p>
          In the envelope lies what is true of every keyword, and what the best bids would have
          brought. Once it is open it stays open, and the account says so: what you do from then on
          proves nothing about your judgement.
        </p>
        <div>
          <Button onPress={() => setAsked(true)}>Open the envelope</Button>
        </div>
      </S.Opening>
    );
  if (!found.data)
    return (
      <S.Quiet>
        <NotYet of={found}>Opening the envelope …</NotYet>
      </S.Quiet>
    );
  return <Opened view={found.data} currency={summary.brief.values.currency} />;
}

function Opened({ view, currency }: { view: View; currency: string }) {
  const columns = useMemo(() => truthColumns(view.keywords, currency), [view, currency]);
  const { plan, hindsight } = view;
  return (
    <>
      <S.Summary>
        {plan && hindsight && view.since && view.until ? (
          <>
            {daySaid(view.since)} to {daySaid(view.until)}, luck left aside: the bids as they stand
            bring <b>{money(plan.profit)}</b> {currency} profit ({count(plan.customers)} customers
            for {money(plan.spend)}); the best for the same money and keywords would have been{" "}
            <b>{money(hindsight.profit)}</b> ({count(hindsight.customers)} for{" "}
            {money(hindsight.spend)}).{" "}
          </>
        ) : (
          "No day has passed yet, so nothing can be said of hindsight. "
        )}
        {number(view.unknown)} searches a month are terms nobody knew of;{" "}
        {percent(view.unknown > 0 ? view.useless / view.unknown : 0)} of them never buy.
      </S.Summary>
      <ReadGrid
        label="What is true of each keyword"
        columns={columns}
        count={view.keywords.length}
        empty="No keyword is kept."
      />
    </>
  );
}

function truthColumns(keywords: readonly Keyword[], currency: string): Column[] {
  const figure = (
    id: string,
    name: string,
    of: (keyword: Keyword) => number | null,
    shown: (value: number) => string,
  ): Column => ({
    id,
    head: name,
    label: id,
    width: "minmax(84px, 0.7fr)",
    align: "end",
    cell: (row) => {
      const value = of(keywords[row]!);
      return value === null ? "–" : shown(value);
    },
    leaves: [{ head: id, value: (row) => of(keywords[row]!) }],
  });
  const rate = (value: number) => percent(value, 2);
  return [
    {
      id: "keyword",
      head: "keyword",
      label: "keyword",
      width: "minmax(200px, 2fr)",
      cell: (row) => keywords[row]!.keyword,
    },
    figure(
      "searches",
      "searches, thought",
      (k) => k.searches,
      (v) => number(v),
    ),
    figure(
      "true searches",
      "true",
      (k) => k.true_searches,
      (v) => number(v),
    ),
    figure("price", `price, thought, ${currency}`, (k) => k.price, money),
    figure("true price", "true", (k) => k.true_price, money),
    figure("rate", "rate, thought", (k) => k.rate, rate),
    figure("true rate", "true", (k) => k.true_rate, rate),
    figure("best bid", `best bid, ${currency}`, (k) => k.best_bid, money),
  ];
}
