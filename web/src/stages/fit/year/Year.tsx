import { useState, type ReactNode } from "react";
import { useAsking } from "../../../app/asked";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Button } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { NotYet } from "../../../parts/NotYet";
import { Pictured } from "../../../parts/Pictured";
import { dayRead, daySaid } from "../../../parts/days";
import { count, money, number } from "../../../parts/format";
import { useDrawn } from "../../../parts/useDrawn";
import { Columns } from "./Columns";
import { Days } from "./Days";
import * as S from "./Year.styles";
import { monthName } from "./months";
import type { YearRanges, YearView } from "./view";

const kinds: { id: YearView["kind"]; name: string; about: string }[] = [
  { id: "flat", name: "the same each month", about: "The monthly sum, every month." },
  {
    id: "season",
    name: "with the season",
    about: "The same yearly sum, more where more is searched.",
  },
  { id: "own", name: "as you set it", about: "Drag a column, or type a month's sum." },
];

/** Twelve months ahead: money, customers and profit, how sure, and each month by its days. */
export function Year() {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const { ask } = useAsking();
  const [open, setOpen] = useState<number | null>(null);
  const [keepSum, setKeepSum] = useState<"yes" | "no">("yes");
  const asked = usePlanQuery("/year");
  const view = asked.data;
  const { found: ranges, progress } = useDrawn<YearRanges>(
    ["/year/ranges", id, summary.revision],
    (header) =>
      taken<YearRanges | null>(
        client.GET("/api/plans/{plan_id}/year/ranges", {
          params: { path: { plan_id: id } },
          ...header,
        }),
      ),
  );
  if (!view)
    return (
      <S.Page>
        <NotYet of={asked}>Working out twelve months …</NotYet>
      </S.Page>
    );
  const drawn = ranges?.revision === view.revision ? ranges : null;
  const put = (month: number, sum: number) =>
    send("post", "/year/month", { month, money: sum, keep_sum: keepSum === "yes" });
  const months = view.first.map((first, at) => ({ first, at }));
  return (
    <S.Page tabIndex={0} role="region" aria-label="The year">
      <Sentence view={view} />
      <Sums view={view} drawn={drawn} progress={progress} />
      <Pictured
        label="Twelve months"
        items={months}
        columns={{
          month: ({ first }) => first.slice(0, 7),
          days: ({ at }) => view.days[at]!,
          money: ({ at }) => view.purse[at]!,
          spend: ({ at }) => view.spend[at]!,
          customers: ({ at }) => view.customers[at]!,
          "customers, low": ({ at }) => drawn?.months[at]?.customers?.low ?? null,
          "customers, high": ({ at }) => drawn?.months[at]?.customers?.high ?? null,
          profit: ({ at }) => view.profit[at]!,
          "profit, low": ({ at }) => drawn?.months[at]?.profit?.low ?? null,
          "profit, high": ({ at }) => drawn?.months[at]?.profit?.high ?? null,
          "cost of a customer": ({ at }) => view.cost_per_customer[at] ?? null,
          "with fee and tax": ({ at }) => view.gross[at]!,
        }}
        head={
          <>
            money a month: the column its purse, filled what is spent; drag its top, and{" "}
            <Choice
              label="What dragging does to the year's sum"
              inline
              value={keepSum}
              options={[
                { id: "yes", name: "the year’s sum stays" },
                { id: "no", name: "the year’s sum changes" },
              ]}
              onChange={setKeepSum}
            />
          </>
        }
      >
        <Columns
          view={view}
          ranges={drawn}
          open={open}
          onOpen={(month) => {
            setOpen(month === open ? null : month);
            if (month !== open) ask({ kind: "month", month }, false);
          }}
          onPut={put}
        />
      </Pictured>
      {open !== null && view.days[open]! > 0 && (
        <Days month={open} name={monthName(view.first[open]!)} onClose={() => setOpen(null)} />
      )}
    </S.Page>
  );
}

/** The year in a sentence: its days, its money, how that is spread, and the bids. */
function Sentence({ view }: { view: YearView }) {
  const { summary, changeBrief } = usePlan();
  const send = usePlanChange();
  const { values } = summary.brief;
  const setKind = (year_purse: YearView["kind"]) =>
    void changeBrief(
      year_purse === "own" && values.year_months === null
        ? { year_purse, year_months: view.purse }
        : { year_purse },
    );
  return (
    <S.Say>
      From{" "}
      <Blank
        label="First day of the plan"
        value={daySaid(values.start_date)}
        onCommit={(text) => {
          const start_date = dayRead(text);
          return start_date !== null && changeBrief({ start_date });
        }}
      />{" "}
      to{" "}
      <Blank
        label="Last day of the plan"
        value={values.last_day && daySaid(values.last_day)}
        placeholder="no last day"
        onCommit={(text) => {
          if (text.trim() === "") return changeBrief({ last_day: "" });
          const last_day = dayRead(text);
          return last_day !== null && changeBrief({ last_day });
        }}
      />{" "}
      <b>{money(view.sums.purse)}</b> {values.currency} are spread{" "}
      <Choice
        label="How the year's money is spread"
        inline
        value={view.kind}
        options={kinds}
        onChange={setKind}
      />
      ; bids{" "}
      <S.Kept>
        <Choice
          label="Bids over the year"
          inline
          value={view.refit ? "refit" : "keep"}
          options={[
            { id: "keep", name: "stay as they are" },
            { id: "refit", name: "are fitted anew each month" },
          ]}
          onChange={(to) => void changeBrief({ year_refit: to === "refit" })}
        />
        .
      </S.Kept>{" "}
      <Button
        isDisabled={!view.can_refit}
        onPress={() => void send("post", "/year/best", undefined)}
      >
        best way to spread {number(view.sums.purse)}
      </Button>
    </S.Say>
  );
}

type SumsProps = { view: YearView; drawn: YearRanges | null; progress: ReactNode };

function Sums({ view, drawn, progress }: SumsProps) {
  return (
    <S.Sums>
      <Sum
        label="customers in twelve months"
        value={count(view.sums.customers)}
        range={drawn?.year.customers}
      />
      <Sum label="spent" value={money(view.sums.spend)} range={drawn?.year.spend} />
      <Sum label="profit" value={number(view.sums.profit)} range={drawn?.year.profit} />
      <Sum
        label="a customer"
        value={money(view.sums.cost_per_customer)}
        range={drawn?.year.cost_per_customer}
      />
      {view.sums.gross !== view.sums.purse && (
        <Sum label="the client pays, with fee and tax" value={money(view.sums.gross)} />
      )}
      <small role="status">{progress ?? "small: 8 years in 10"}</small>
    </S.Sums>
  );
}

type SumProps = {
  label: string;
  value: string;
  range?: Schemas["YearRanges"]["year"][string];
};

function Sum({ label, value, range }: SumProps) {
  return (
    <S.Sum>
      <strong>{value}</strong>
      <small>{label}</small>
      {range && (
        <small>
          {number(range.low)} to {range.high === null ? "∞" : number(range.high)}
        </small>
      )}
    </S.Sum>
  );
}
