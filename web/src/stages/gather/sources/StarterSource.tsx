import { useState } from "react";
import { useNavigate } from "react-router";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Blank } from "../../../parts/Blank";
import { Button, MainButton } from "../../../parts/Button";
import { ItemsAway } from "../../../parts/TakeAway";
import { Small } from "../../../parts/Screen";
import { count, money, parsed, plural } from "../../../parts/format";
import * as S from "../Gather.styles";
import { useReading } from "../useReading";

/** For who is in a hurry: the few keywords that together bring most. */
export function StarterSource() {
  const { id, summary, call } = usePlan();
  const { busy, read, path } = useReading();
  const navigate = useNavigate();
  const [most, setMost] = useState(30);
  const [found, setFound] = useState<Schemas["StarterAnswer"] | null>(null);
  const pick = () =>
    read(
      "the set",
      () => taken(client.POST("/api/plans/{plan_id}/gather/starter", { ...path, body: { most } })),
      setFound,
    );
  const keep = async () => {
    if (found && (await call(found.ids, "keep"))) await navigate(`/plan/${id}/sift`);
  };
  const { currency } = summary.brief.values;
  return (
    <>
      <h2>To start with</h2>
      <S.Sentence>
        At most{" "}
        <Blank
          label="Keywords to start with"
          value={String(most)}
          onCommit={(text) => {
            const value = parsed(text);
            if (value === null || value < 1 || value > 1000) return "a number from 1 to 1,000";
            setMost(Math.round(value));
            setFound(null);
            return true;
          }}
        />{" "}
        keywords of all that you have not dropped: those that bring most for{" "}
        {money(summary.purse.purse)} {currency} a month.
      </S.Sentence>
      <S.Line>
        <Button isDisabled={busy !== null} onPress={() => void pick()}>
          Pick them
        </Button>
        {found && (
          <MainButton isDisabled={found.ids.length === 0} onPress={() => void keep()}>
            Keep these {found.ids.length}
          </MainButton>
        )}
      </S.Line>
      {found && (
        <>
          <Small role="status">
            {plural(found.ids.length, "keyword")} would bring {count(found.total_customers)}{" "}
            customers a month for {money(found.total_spend)} {currency}. Each stands here with what
            it brings in that set, at bids fitted to the money.
          </Small>
          <S.Short>
            <thead>
              <tr>
                <th scope="col">Keyword</th>
                <th scope="col">Customers a month</th>
                <th scope="col">Spend, {currency}</th>
                <th scope="col" aria-label="Take away">
                  <ItemsAway
                    label="Keywords to start with"
                    items={found.texts.map((_, at) => at)}
                    columns={{
                      keyword: (at) => found.texts[at],
                      "customers a month": (at) => found.customers[at],
                      [`spend a month, ${currency}`]: (at) => found.spend[at],
                    }}
                  />
                </th>
              </tr>
            </thead>
            <tbody>
              {found.texts.map((text, at) => (
                <tr key={found.ids[at]}>
                  <td>{text}</td>
                  <td>{count(found.customers[at])}</td>
                  <td>{money(found.spend[at])}</td>
                  <td />
                </tr>
              ))}
            </tbody>
          </S.Short>
        </>
      )}
    </>
  );
}
