import { useEffect, useMemo, useState, type ReactNode } from "react";
import { useActions } from "../../../app/actions";
import { useAsking } from "../../../app/asked";
import { useQuery } from "@tanstack/react-query";
import { client, taken, type CallName } from "../../../data/client";
import { usePace } from "../../../parts/usePace";
import { usePlan } from "../../../data/plan";
import { CallMark } from "../../../parts/CallMark";
import { Choice } from "../../../parts/Choice";
import { Petal } from "../../../parts/Petal";
import { Spark } from "../../../parts/Spark";
import { Whisker } from "../../../parts/Whisker";
import { count, money, number, percent } from "../../../parts/format";
import { priceScale, priceTicks } from "../../../parts/scale";
import { CallBar } from "../CallBar";
import * as S from "./OneByOne.styles";
import { Tinted } from "../Tinted";
import { useCalls, useSift } from "../useSift";
import { noteWords } from "../list/notes";

const orders = [
  { id: "spend", name: "what would take most of the purse first" },
  { id: "customers", name: "what would bring most first" },
  { id: "searches", name: "the most searched first" },
  { id: "cpc_median", name: "the dearest first" },
] as const;
type Order = (typeof orders)[number]["id"];

const whiskerWidth = 320;

/** A card at a time, keys alone: what is not called yet, by what matters most. */
export function OneByOne() {
  const { sheet, summary } = usePlan();
  const { shown, idOf, rowOf, last } = useSift();
  const { callAs } = useCalls();
  const { setActive } = useAsking();
  const [order, setOrder] = useState<Order>("spend");
  const [stand, setStand] = useState<{ queue: number[]; place: number } | null>(null);
  const pace = usePace();
  const queue = useQueue(shown, order, idOf);
  // another queue begins at its first card
  const at = Math.min(stand?.queue === queue ? stand.place : 0, queue.length - 1);
  const id = queue[at];
  const row = id === undefined ? undefined : rowOf.get(id);
  const left = queue.filter((one) => sheet.texts.call[rowOf.get(one) ?? -1] === "none").length;

  const go = (to: number) => {
    setStand({ queue, place: Math.max(0, Math.min(queue.length - 1, to)) });
  };
  const call = (name: CallName) => {
    if (id === undefined) return;
    // the next card comes at once: the next key press must not fall on this one again
    go(at + 1);
    pace.tick();
    void callAs(name, [id]).then((took) => !took && go(at));
  };
  useEffect(() => {
    if (id !== undefined) setActive(id);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the card at hand is what the workings are about
  }, [id]);
  useActions([
    { name: "Keep this keyword", keys: ["1"], run: () => call("keep") },
    { name: "Hold this keyword", keys: ["2"], run: () => call("hold") },
    { name: "Drop this keyword", keys: ["3"], run: () => call("drop") },
    { name: "Block this keyword", keys: ["4"], run: () => call("block") },
    { name: "Take this call back", keys: ["0"], run: () => call("none") },
    { name: "The same call again", keys: ["."], run: () => last && call(last.call) },
    { name: "Next card", keys: ["j", "ArrowDown", "ArrowRight"], run: () => go(at + 1) },
    { name: "Card before", keys: ["k", "ArrowUp", "ArrowLeft"], run: () => go(at - 1) },
  ]);
  const scale = useMemo(() => priceScale(sheet.figures, whiskerWidth), [sheet.figures]);
  if (row === undefined)
    return (
      <S.Done>Nothing that this filter shows is left to call. Every keyword has its call.</S.Done>
    );
  const { texts, figures } = sheet;
  const brings = texts.call[row] === "keep" ? "in this plan" : "it would bring";
  return (
    <S.Cards>
      <S.Card aria-label={texts.text[row]}>
        <Choice label="In which order" value={order} options={orders} onChange={setOrder} />
        <S.Progress role="status">
          {number(at + 1)} of {number(queue.length)} ·{" "}
          {left === 0 ? "all called" : `${number(left)} left`}
          {left > 0 && pace.minutes(left)}
        </S.Progress>
        <S.Keyword>
          <CallMark call={texts.call[row] ?? "none"} />{" "}
          <Tinted text={texts.text[row] ?? ""} kinds={texts.kinds[row]} />
        </S.Keyword>
        <S.Line>
          {texts.match[row]} match · {texts.intent[row]} intent ·{" "}
          <Petal standing={figures.standing[row] ?? "unknown"} />{" "}
          {(figures.standing[row] ?? "").replace("_", " ")}
          {texts.group[row] && ` · ${texts.group[row]}`}
        </S.Line>
        <Whisker
          scale={scale}
          ticks={priceTicks(scale)}
          width={whiskerWidth}
          low={figures.cpc_low[row]}
          median={figures.cpc_median[row]}
          high={figures.cpc_high[row]}
          ceiling={figures.ceiling[row]}
          beyond={figures.standing[row] === "beyond"}
        />
        <S.Facts>
          <Fact name="searches a month" value={number(figures.searches[row])}>
            <Spark months={texts.months[row]} />
          </Fact>
          <Fact
            name={`price a click, ${summary.brief.values.currency}`}
            value={`${money(figures.cpc_low[row])} – ${money(figures.cpc_high[row])}`}
          />
          <Fact name="its ceiling" value={money(figures.ceiling[row])} />
          <Fact name="reach at the ceiling" value={percent(figures.reach[row], 0)} />
          <Fact name={`customers ${brings}`} value={count(figures.customers[row])} />
          <Fact name={`spend ${brings}`} value={money(figures.spend[row])} />
          <Fact name="clicks to a likely first sale" value={number(figures.first_sale[row])} />
        </S.Facts>
        <S.Line>
          {[noteWords(figures.notes[row], true), texts.note[row]].filter(Boolean).join(" · ")}
        </S.Line>
        <CallBar count={1} onCall={call} />
      </S.Card>
      <Beside row={row} />
    </S.Cards>
  );
}

type FactProps = { name: string; value: string; children?: ReactNode };

function Fact({ name, value, children }: FactProps) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>
        {value} {children}
      </dd>
    </div>
  );
}

/** The neighbours in meaning and in price, with the calls they have. */
function Beside({ row }: { row: number }) {
  const { id, sheet } = usePlan();
  const { rowOf } = useSift();
  const keyword = sheet.texts.id[row] ?? 0;
  const near = useQuery({
    // texts and prices, not calls, make neighbours
    queryKey: ["neighbours", id, keyword, sheet.texts.id.length],
    queryFn: () =>
      taken(
        client.GET("/api/plans/{plan_id}/keywords/{keyword_id}/neighbours", {
          params: { path: { plan_id: id, keyword_id: keyword } },
        }),
      ),
    staleTime: 60_000,
  });
  return (
    <S.Beside>
      {(["meaning", "price"] as const).map((name) => (
        <section key={name}>
          <h3>Near in {name}</h3>
          <ul>
            {(near.data?.[name] ?? [])
              .flatMap((one) => rowOf.get(one) ?? [])
              .map((other) => (
                <li key={other}>
                  <CallMark call={sheet.texts.call[other] ?? "none"} />
                  <span>{sheet.texts.text[other]}</span>
                  <small>{money(sheet.figures.cpc_median[other])}</small>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </S.Beside>
  );
}

/** What is not called, in the order asked for; it stays as it is while one calls. */
function useQueue(shown: number[], order: Order, idOf: (row: number) => number): number[] {
  const { sheet } = usePlan();
  return useMemo(() => {
    const value = sheet.figures[order];
    return shown
      .filter((row) => sheet.texts.call[row] === "none")
      .sort((a, b) => (value[b] ?? -1) - (value[a] ?? -1))
      .map(idOf);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a call must not move the cards
  }, [shown, order]);
}
