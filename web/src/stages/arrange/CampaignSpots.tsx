import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { A_NUMBER, count, money, number, parsed } from "../../parts/format";
import * as S from "./Arrange.styles";

type Spot = Schemas["SpotItem"];
type Edit = Schemas["SpotEdit"];

/** Places where a campaign is shown without a keyword, each a sentence with what it brings. */
export function CampaignSpots({ campaign }: { campaign: number }) {
  const send = usePlanChange();
  const spots = usePlanQuery("/arrange/spots").data?.spots;
  const mine = spots?.filter(({ campaign_id }) => campaign_id === campaign) ?? [];
  const add = (name: string) =>
    name.trim() === "" ||
    send("post", "/arrange/spots", {
      ...{ name, campaign_id: campaign, pays: "click" as const, price: 1, clicks: 0 },
      ...{ showings: 0, click_rate: 0 },
    });
  return (
    <S.Say>
      {mine.length > 0 && <h3>Shown without a keyword</h3>}
      {mine.map((spot) => (
        <OneSpot key={spot.id} spot={spot} />
      ))}
      Further spot:{" "}
      <Blank
        key={mine.length}
        label="Further spot"
        value=""
        placeholder="name one, such as a category"
        onCommit={add}
      />
    </S.Say>
  );
}

function OneSpot({ spot }: { spot: Spot }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const { currency } = summary.brief.values;
  const edit = (body: Edit) => send("post", "/arrange/spots/{spot_id}", body, { spot_id: spot.id });
  const byShowings = spot.pays === "showings";
  const figure = (label: string, value: number, digits: number, put: (value: number) => Edit) => (
    <Blank
      label={`${label}: ${spot.name}`}
      value={number(value, digits)}
      onCommit={(text) => {
        const typed = parsed(text);
        return typed === null ? A_NUMBER : edit(put(typed));
      }}
    />
  );
  // what is paid changes the figures that must be there: a rate of clicks to begin with
  const pay = (pays: Spot["pays"]) =>
    void edit(
      pays === "showings"
        ? { pays, showings: spot.showings, click_rate: spot.click_rate || 1 / 100 }
        : { pays },
    );
  return (
    <div>
      <Blank
        label={`Name of the spot ${spot.name}`}
        value={spot.name}
        onCommit={(name) => edit({ name })}
      />
      , paid {figure("Price", spot.price, 2, (price) => ({ price }))} {currency}{" "}
      <Choice
        label={`What is paid: ${spot.name}`}
        value={spot.pays}
        options={[
          { id: "click", name: "a click" },
          { id: "showings", name: "a thousand showings" },
        ]}
        inline
        onChange={pay}
      />
      , at most{" "}
      {byShowings ? (
        <>
          {figure("Showings a month", spot.showings, 0, (showings) => ({ showings }))} showings a
          month, clicked by{" "}
          {figure("Click rate, per cent", spot.click_rate * 100, 2, (rate) => ({
            click_rate: rate / 100,
          }))}{" "}
          %
        </>
      ) : (
        <>{figure("Clicks a month", spot.clicks, 0, (clicks) => ({ clicks }))} clicks a month</>
      )}
      , selling{" "}
      <Blank
        label={`How well it sells: ${spot.name}`}
        value={spot.sells === null ? "" : number(spot.sells, 2)}
        placeholder={number(spot.usual_sells, 2)}
        assumed={spot.sells === null}
        onCommit={(text) => {
          if (text.trim() === "") return edit({ sells: null });
          const sells = parsed(text);
          return sells === null ? A_NUMBER : edit({ sells });
        }}
      />{" "}
      times as well as a search click.{" "}
      <S.Soft>
        A click costs {money(spot.click_price)}, worth up to {money(spot.ceiling)} {currency}:{" "}
        {spot.expected_spend > 0
          ? `takes ${money(spot.expected_spend)} ${currency}, ${number(spot.shown_share * 100)} % of what is to be had, for ${count(spot.expected_customers)} customers.`
          : "takes nothing at this purse."}
      </S.Soft>{" "}
      <TextButton
        aria-label={`Remove the spot ${spot.name}`}
        onPress={() => void send("post", "/arrange/spots/remove", { ids: [spot.id] })}
      >
        remove
      </TextButton>
    </div>
  );
}
