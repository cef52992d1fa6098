import { useState } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Choice } from "../../../parts/Choice";
import { Pictured } from "../../../parts/Pictured";
import { number, percent } from "../../../parts/format";
import { useDrawn } from "../../../parts/useDrawn";
import { Traced } from "../../../parts/Traced";
import { useAsking } from "../../../app/asked";
import { Dots, said } from "./Dots";
import { Doubts } from "./Doubts";
import { MustBe } from "./MustBe";
import * as S from "./Sure.styles";
import { Swings } from "./Swings";
import { Use } from "./Use";

type View = Schemas["HowSureView"];
type Figure = "customers" | "spend" | "clicks" | "profit" | "cost_per_customer";

const figures: { id: Figure; name: string }[] = [
  { id: "customers", name: "customers a month" },
  { id: "spend", name: "money spent a month" },
  { id: "clicks", name: "clicks a month" },
  { id: "profit", name: "profit a month" },
  { id: "cost_per_customer", name: "cost of a customer" },
];

/** The month drawn many times over: how wide it is, what makes it so, what would have to be true. */
export function HowSure() {
  const { id, summary } = usePlan();
  const { ask } = useAsking();
  const [figure, setFigure] = useState<Figure>("customers");
  const { found, late, progress } = useDrawn<View>(["/how-sure", id, summary.revision], (header) =>
    taken<View | null>(
      client.GET("/api/plans/{plan_id}/how-sure", {
        params: { path: { plan_id: id } },
        ...header,
      }),
    ),
  );
  if (!found) return <S.Page>{progress ?? "Drawing the month …"}</S.Page>;
  const drawn = found.figures[figure]!;
  return (
    <S.Page data-late={late || undefined} tabIndex={0} role="region" aria-label="How sure">
      {progress && <S.Progress role="status">{progress}</S.Progress>}
      <S.Split>
        <Pictured
          label={`The month drawn ${number(found.draws)} times`}
          items={drawn.dots.map((value, at) => ({ value, at }))}
          columns={{
            "months, least first": ({ at }) => (at + 1) * found.months_a_dot,
            [figure.replaceAll("_", " ")]: ({ value }) => value,
          }}
          head={
            <>
              <Choice label="Figure" inline value={figure} options={figures} onChange={setFigure} />
              : a dot is {number(found.months_a_dot)} of {number(found.draws)} months.{" "}
              <Traced onPress={() => ask({ kind: "sure", of: "month", name: figure })}>
                8 in 10 between {said(figure, drawn.low)} and {said(figure, drawn.high)}, the middle{" "}
                {said(figure, drawn.middle)}
              </Traced>
            </>
          }
        >
          <Dots figure={figure} drawn={drawn} monthsADot={found.months_a_dot} />
        </Pictured>
        <section aria-label="Chances">
          <h2>What happens how often</h2>
          {found.odds.map((odd) => (
            <S.Odd key={odd.says}>
              <Traced onPress={() => ask({ kind: "sure", of: "odd", name: odd.says })}>
                <b>{oftenSaid(odd.share)}</b> <span>{odd.says}</span>
              </Traced>
            </S.Odd>
          ))}
        </section>
      </S.Split>
      <Use use={found.use} />
      <S.Split>
        <Swings moves={found.moves} />
        <Doubts groups={found.groups} />
      </S.Split>
      <MustBe must={found.must} />
    </S.Page>
  );
}

/** A share as people say it: in 3 of 10 months; rare and nearly sure things in per cent. */
function oftenSaid(share: number): string {
  const tenth = Math.round(share * 10);
  if (share === 0) return "in no month";
  if (share === 1) return "in every month";
  return tenth === 0 || tenth === 10
    ? `in ${percent(share, 1)} of months`
    : `in ${tenth} of 10 months`;
}
