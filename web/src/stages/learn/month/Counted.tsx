import { useState, type ReactNode } from "react";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Day } from "../../../parts/Day";
import { usePlan } from "../../../data/plan";
import { money } from "../../../parts/format";
import * as S from "../Learn.styles";
import { useTyped } from "../useTyped";
import type { LearnView } from "../view";

type Props = { view: LearnView };

/** What only a person can count: customers by hand or telephone, and what the whole site saw. */
export function Counted({ view }: Props) {
  if (!view.month) return null;
  return (
    <>
      <ByHand month={view.month} />
      <WholeSite month={view.month} />
    </>
  );
}

type Month = NonNullable<LearnView["month"]>;

/** The days a count is of; those of the month that is seen, until others are said. */
function useDays(month: Month, of: string): [{ since: string; until: string }, ReactNode] {
  const [since, setSince] = useState<string | null>(null);
  const [until, setUntil] = useState<string | null>(null);
  const days = { since: since ?? month.first, until: until ?? month.last };
  const blanks = (
    <>
      from{" "}
      <Day
        label={`${of} from`}
        value={days.since}
        onCommit={(day) => Promise.resolve((setSince(day), true))}
      />{" "}
      to{" "}
      <Day
        label={`${of} to`}
        value={days.until}
        onCommit={(day) => Promise.resolve((setUntil(day), true))}
      />
    </>
  );
  return [days, blanks];
}

function ByHand({ month }: { month: Month }) {
  const send = usePlanChange();
  const { currency } = usePlan().summary.brief.values;
  const [campaign, setCampaign] = useState("");
  const [days, dayBlanks] = useDays(month, "Counted");
  const customers = useTyped("Customers counted", "how many");
  const value = useTyped("What they bought for", "a usual sum", money);
  const count = async () => {
    const body = { campaign, ...days, customers: customers.value ?? 0, value: value.value };
    if (!(await send("post", "/learn/counted", body))) return;
    customers.clear();
    value.clear();
  };
  return (
    <S.Sentence aria-label="Customers counted by hand">
      Counted by hand: {customers.blank} customers of{" "}
      <Choice
        label="Campaign they are of"
        inline
        value={campaign}
        options={[
          { id: "", name: "all campaigns" },
          ...month.campaigns.map(({ name }) => ({ id: name, name })),
        ]}
        onChange={setCampaign}
      />{" "}
      who bought for {value.blank} {currency}, {dayBlanks}{" "}
      <Button isDisabled={customers.value === null} onPress={() => void count()}>
        Count them
      </Button>
      <small>
        A later count that holds the same days of the campaign takes its place. Without a sum they
        count as any other customer.
      </small>
    </S.Sentence>
  );
}

function WholeSite({ month }: { month: Month }) {
  const send = usePlanChange();
  const [days, dayBlanks] = useDays(month, "Site counted");
  const visits = useTyped("Visits of the whole site", "how many");
  const unpaid = useTyped("Customers without an ad", "how many");
  const count = async () => {
    const body = { ...days, visits: visits.value, unpaid: unpaid.value };
    if (!(await send("post", "/learn/site", body))) return;
    visits.clear();
    unpaid.clear();
  };
  return (
    <S.Sentence aria-label="The whole site">
      The whole site: {visits.blank} visits of any origin, {unpaid.blank} customers who came without
      an ad, {dayBlanks}{" "}
      <Button
        isDisabled={visits.value === null && unpaid.value === null}
        onPress={() => void count()}
      >
        Note it
      </Button>
    </S.Sentence>
  );
}
