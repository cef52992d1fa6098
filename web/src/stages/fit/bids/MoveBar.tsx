import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useShownPurse } from "../../../data/whatIf";
import { Blank } from "../../../parts/Blank";
import { Button } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { A_NUMBER, count, delta, number, parsed, plural } from "../../../parts/format";
import * as S from "./Panels.styles";

type Way = Schemas["BidMoveChange"]["way"];

const ways: { id: Way; name: string; asks?: string; start?: number; per?: boolean }[] = [
  { id: "low", name: "to the low price" },
  { id: "middle", name: "to the middle price" },
  { id: "high", name: "to the high price" },
  { id: "percentile", name: "to a percentile", asks: "in 100", start: 50, per: true },
  { id: "times", name: "by a share", asks: "%", start: 10, per: true },
  { id: "suggestion", name: "to the suggestion where it is lower" },
  { id: "at_most", name: "not above a price", asks: "", start: 1 },
  { id: "odd", name: "off round prices" },
  { id: "lock", name: "locked as they are" },
  { id: "fitted", name: "to the fitted bid, and locked" },
  { id: "unlock", name: "given back to the policy" },
];

type Props = { chosen: ReadonlySet<number>; onDone: () => void };

/** Moves the bids of the chosen keywords; what that does to the purse is shown before it is made. */
export function MoveBar({ chosen, onDone }: Props) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const [way, setWay] = useState<Way>("times");
  const [typed, setTyped] = useState<Partial<Record<Way, number>>>({});
  const kind = ways.find((one) => one.id === way)!;
  const shown = typed[way] ?? kind.start ?? 0;
  const value =
    kind.asks === undefined
      ? null
      : way === "times"
        ? 1 + shown / 100
        : kind.per
          ? shown / 100
          : shown;
  const body = { ids: [...chosen], way, value };
  const query = useQuery({
    queryKey: ["/bids/try", id, summary.revision, way, value, [...chosen].join(" ")],
    queryFn: () =>
      taken<Schemas["BidMoveTried"]>(
        client.POST("/api/plans/{plan_id}/bids/try", { params: { path: { plan_id: id } }, body }),
      ),
    retry: false,
    gcTime: 10_000,
  });
  const tried = query.data;
  useShownPurse(tried?.purse ?? null);
  const { goal } = summary.brief.values;
  const of = (purse: typeof summary.purse) => (goal === "revenue" ? purse.revenue : purse[goal]);
  return (
    <S.Moves aria-label="Move bids">
      <span>
        <b>{plural(chosen.size, "bid")}</b>{" "}
        <Choice label="How bids move" inline value={way} options={ways} onChange={setWay} />{" "}
        {kind.asks !== undefined && (
          <>
            <Blank
              label="By how much"
              value={number(shown, Number.isInteger(shown) ? 0 : 2)}
              onCommit={(text) => {
                const figure = parsed(text);
                if (figure === null) return A_NUMBER;
                setTyped((now) => ({ ...now, [way]: figure }));
                return true;
              }}
            />{" "}
            {kind.asks}
          </>
        )}
      </span>
      <span data-late={query.isFetching || undefined}>
        {query.error
          ? query.error.message
          : tried
            ? `${plural(tried.changed, "bid")} of the plan would change: ` +
              `spend ${delta(tried.purse.spend - summary.purse.spend, 2) || "as it is"}, ` +
              `${goal} ${count(of(tried.purse))}` +
              (delta(of(tried.purse) - of(summary.purse), 2)
                ? ` (${delta(of(tried.purse) - of(summary.purse), 2)})`
                : "")
            : "…"}
      </span>
      <Button
        onPress={() => void send("post", "/bids/move", body).then((took) => took && onDone())}
      >
        move them
      </Button>
    </S.Moves>
  );
}
