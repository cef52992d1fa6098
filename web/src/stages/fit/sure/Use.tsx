import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Traced } from "../../../parts/Traced";
import { useAsking } from "../../../app/asked";
import { delta, money, number } from "../../../parts/format";
import * as S from "./Sure.styles";

type Props = { use: Schemas["HowSureView"]["use"] };

/** A budget is not a spend: what of the purse will probably go, and why the rest stays. */
export function Use({ use }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const { currency } = summary.brief.values;
  const stays = [
    [use.cut, "wanted on busy days, when a day’s money is out"],
    [use.not_searched, "for searches and clicks that don’t come"],
    [use.not_planned, "no step is worth its price"],
  ] as const;
  const helps = use.remedies.filter((remedy) => remedy.spend > 0);
  if (use.purse <= 0) return null;
  return (
    <S.Used aria-label="What of the purse will go">
      <h2>
        <Traced onPress={() => ask({ kind: "sure", of: "use", name: "" })}>
          Of {money(use.purse)} {currency} about {number(use.middle)} will go
        </Traced>
      </h2>
      <S.Strip aria-hidden>
        <i style={{ width: `${(100 * use.spent) / use.purse}%` }} />
        {stays.map(
          ([sum, why]) =>
            sum > 0 && <u key={why} style={{ width: `${(100 * sum) / use.purse}%` }} />,
        )}
      </S.Strip>
      <p>
        8 months in 10 spend {number(use.low)} to {number(use.high)}. Of what stays, in the mean:{" "}
        {stays
          .filter(([sum]) => Math.abs(sum) >= 1)
          .map(
            ([sum, why]) =>
              `${money(Math.abs(sum))} ${sum < 0 ? "less, since more is " : ""}${sum < 0 ? "searched than expected" : why}`,
          )
          .join("; ") || "nothing to speak of"}
        .{" "}
        {helps.length > 0 && (
          <>
            It would be used by{" "}
            {helps
              .map(
                (remedy) =>
                  `${remedy.name} (${delta(remedy.spend, 2)} ${currency}, ${delta(remedy.customers, 2) || "no more"} customers)`,
              )
              .join("; by ")}
            ; or by fewer and larger campaigns.
          </>
        )}
      </p>
    </S.Used>
  );
}
