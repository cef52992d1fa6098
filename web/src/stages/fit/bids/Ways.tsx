import { useState } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { NotYet } from "../../../parts/NotYet";
import { ItemsAway } from "../../../parts/TakeAway";
import { count, money, number, parsed, percent } from "../../../parts/format";
import * as S from "./Panels.styles";

type Way = Schemas["WaysView"]["ways"][number];
type Name = Way["name"];
type Asked = { percentile?: number; high_plus?: number; last_seen?: number; flat?: number };

const names: Record<Name, string> = {
  fitted: "fitted to the purse",
  low: "the low price",
  middle: "the middle price",
  high: "the high price",
  percentile: "a percentile of the price:",
  high_plus: "the high price and more:",
  flat: "one bid for all:",
  flat_or_middle: "that bid, or the middle where lower",
  last_seen: "the price last paid and more:",
};

/** Every way to bid, for the same keywords and the same money. */
export function Ways() {
  const { summary, changeBrief } = usePlan();
  const [asked, setAsked] = useState<Asked>({});
  const view = usePlanQuery("/fit/ways", { query: asked as Record<string, number> });
  if (!view.data)
    return (
      <S.Panel>
        <NotYet of={view}>Working out every way to bid …</NotYet>
      </S.Panel>
    );
  const { ways, goal } = view.data;
  if (ways.length === 0) return <S.Panel>No kept keyword could run yet.</S.Panel>;
  const best = Math.max(...ways.map((way) => way.value));
  const isMoney = goal === "profit" || goal === "revenue";
  const use = (way: Way) =>
    void changeBrief({ policy: way.name, flat_bid: way.flat_bid, policy_share: way.share });
  return (
    <S.Panel tabIndex={0} role="region" aria-label="Ways to bid">
      <S.Figures>
        <thead>
          <tr>
            <th scope="col">
              <span>Same keywords, same money: bids are</span>
              <ItemsAway
                label="Ways to bid"
                items={ways}
                columns={{
                  way: (way) => way.name,
                  setting: (way) => way.share ?? way.flat_bid,
                  [goal]: (way) => way.value,
                  clicks: (way) => way.clicks,
                  spend: (way) => way.spend,
                  reach: (way) => way.reach,
                  "not run": (way) => way.not_run,
                  paced: (way) => way.pace,
                }}
              />
            </th>
            <th scope="col">{goal}</th>
            <th scope="col">clicks</th>
            <th scope="col">spend</th>
            <th scope="col">reach</th>
            <th scope="col">not run</th>
            <th scope="col">paced to</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr key={way.name} data-best={way.value === best || undefined}>
              <th scope="row">
                {names[way.name]} <Setting way={way} asked={asked} onAsk={setAsked} />
              </th>
              <td>{isMoney ? money(way.value) : count(way.value)}</td>
              <td>{number(way.clicks)}</td>
              <td>{money(way.spend)}</td>
              <td>{percent(way.reach, 0)}</td>
              <td>{number(way.not_run)}</td>
              <td>{way.pace < 1 ? percent(way.pace, 0) : ""}</td>
              <td>
                {summary.brief.values.policy === way.name ? (
                  <i>in use</i>
                ) : (
                  <TextButton aria-label={`Use it: ${names[way.name]}`} onPress={() => use(way)}>
                    use it
                  </TextButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </S.Figures>
    </S.Panel>
  );
}

type SettingProps = { way: Way; asked: Asked; onAsk: (asked: Asked) => void };

/** The figure a way takes; what is typed is shown, and kept only once the way is used. */
function Setting({ way, asked, onAsk }: SettingProps) {
  if (way.name === "flat")
    return (
      <Blank
        label="Flat bid to look at"
        value={money(way.flat_bid)}
        onCommit={(text) => {
          const flat = parsed(text);
          if (flat === null || flat <= 0) return "a price over 0";
          onAsk({ ...asked, flat });
          return true;
        }}
      />
    );
  if (way.name !== "percentile" && way.name !== "high_plus" && way.name !== "last_seen")
    return null;
  const name = way.name;
  return (
    <>
      <Blank
        label={`Per cent to look at: ${names[name]}`}
        value={number((way.share ?? 0) * 100)}
        onCommit={(text) => {
          const share = parsed(text);
          if (share === null || share < 0) return "a number from 0";
          onAsk({ ...asked, [name]: share / 100 });
          return true;
        }}
      />{" "}
      {name === "percentile" ? "in 100" : "%"}
    </>
  );
}
