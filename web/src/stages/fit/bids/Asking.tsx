import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Blank } from "../../../parts/Blank";
import { count, money, number, parsed, plural } from "../../../parts/format";
import { TextButton } from "../../../parts/Button";
import * as S from "./Panels.styles";

type Least = Schemas["LeastView"];
type Goal = Schemas["CurvesView"]["goal"];

type Props = { goal: Goal };

/** The fit asked the other way round: how much money a goal takes. */
export function Asking({ goal }: Props) {
  const { summary } = usePlan();
  const { currency } = summary.brief.values;
  const now = goal === "revenue" ? summary.purse.revenue : summary.purse[goal];
  const isMoney = goal === "profit" || goal === "revenue";
  const [more, setMore] = useState<number>(isMoney ? 100 : 3);
  const [wanted, setWanted] = useState<number | null>(null);
  const [each, setEach] = useState(5);
  const target = wanted ?? Math.ceil(now);
  const said = (value: number) => (isMoney ? money(value) : count(value));
  return (
    <S.Questions aria-label="Asked the other way round">
      <Question
        goal={goal}
        wanted={now + more}
        answer={(found) =>
          found.more === null
            ? `no money would: ${said(found.most ?? 0)} is the most there is`
            : `${money(Math.max(found.more, 0))} ${currency} more a month`
        }
      >
        What would <Figure label="How many more" value={more} onPut={setMore} /> more {goal} cost?
      </Question>
      <Question
        goal={goal}
        wanted={target}
        answer={(found) =>
          found.purse === null
            ? `no money brings them: at ${money(found.saturation)} ${currency} it stays at ${said(found.most ?? 0)}`
            : `${money(found.purse)} ${currency} a month, to the cent`
        }
        usable
      >
        I need <Figure label="How many I need" value={target} onPut={setWanted} /> {goal}: the least
        money that brings them
      </Question>
      <Question
        goal="clicks_each"
        wanted={each}
        answer={(found) =>
          `${money(found.purse)} ${currency} a month for ${plural(found.keywords, "keyword")}` +
          (found.too_few_count > 0
            ? `; ${number(found.too_few_count)} can’t have so many: ${found.too_few.slice(0, 3).join(", ")}${found.too_few_count > 3 ? " …" : ""}`
            : "")
        }
        usable
      >
        The least money for <Figure label="Clicks for each" value={each} onPut={setEach} /> clicks
        for each kept keyword
      </Question>
    </S.Questions>
  );
}

type QuestionProps = {
  goal: Goal | "clicks_each";
  wanted: number;
  answer: (found: Least) => string;
  /** Whether its sum may be taken for the purse. */
  usable?: boolean;
  children: ReactNode;
};

function Question({ goal, wanted, answer, usable, children }: QuestionProps) {
  const { id, summary, changePurse } = usePlan();
  const query = useQuery({
    queryKey: ["/fit/least", id, summary.revision, goal, wanted],
    queryFn: () =>
      taken<Least>(
        client.GET("/api/plans/{plan_id}/fit/least", {
          params: { path: { plan_id: id }, query: { wanted, goal } },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const found = query.data;
  return (
    <p>
      {children}
      <b data-late={query.isPlaceholderData || undefined}>
        {query.error ? query.error.message : found ? answer(found) : "…"}
      </b>
      {usable && found && found.purse !== null && Math.abs(found.more ?? 0) >= 1 && (
        <TextButton onPress={() => void changePurse(found.purse!)}>make it the purse</TextButton>
      )}
    </p>
  );
}

type FigureProps = { label: string; value: number; onPut: (value: number) => void };

function Figure({ label, value, onPut }: FigureProps) {
  return (
    <Blank
      label={label}
      value={number(value, Number.isInteger(value) ? 0 : 1)}
      onCommit={(text) => {
        const typed = parsed(text);
        if (typed === null || typed < 0) return "a number from 0";
        onPut(typed);
        return true;
      }}
    />
  );
}
