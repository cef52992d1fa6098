import type { Schemas } from "../../data/client";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { dayRead, daySaid } from "../../parts/days";
import { A_NUMBER, number, parsed } from "../../parts/format";
import * as S from "./Arrange.styles";
import { OwnWay } from "./OwnWay";
import type { Campaign } from "./view";

type Props = {
  campaign: Campaign;
  edit: (body: Schemas["CampaignEdit"]) => Promise<boolean>;
};
type Audience = Schemas["AudienceValues"];

/** When a campaign runs, where its ads lead, and what else the platform is told. */
export function CampaignMore({ campaign, edit }: Props) {
  return (
    <>
      <S.Say>
        It runs from{" "}
        <Blank
          label="First day of the campaign"
          value={campaign.first_day && daySaid(campaign.first_day)}
          placeholder="the plan’s first day"
          onCommit={onDay((first_day) => edit({ first_day }))}
        />{" "}
        to{" "}
        <Blank
          label="Last day of the campaign"
          value={campaign.last_day && daySaid(campaign.last_day)}
          placeholder="no last day"
          onCommit={onDay((last_day) => edit({ last_day }))}
        />
        ; its ads lead to{" "}
        <Blank
          label="Landing page of the campaign"
          value={campaign.page}
          placeholder="each group’s page"
          onCommit={(page) => edit({ page })}
        />
        .
      </S.Say>
      <S.Say>
        Bids of its groups are{" "}
        <OwnWay
          of="the campaign"
          policy={campaign.policy}
          otherwise="as the plan’s"
          onPut={(policy) => edit({ policy })}
        />
        .
      </S.Say>
      <S.Say>
        The platform may move its bids{" "}
        <Blank
          label="How the platform may move its bids"
          value={campaign.bid_moves}
          placeholder="not at all"
          onCommit={(bid_moves) => edit({ bid_moves })}
        />
        ; partner sites:{" "}
        <TextButton onPress={() => void edit({ partner_sites: !campaign.partner_sites })}>
          {campaign.partner_sites ? "shown there too" : "not shown there"}
        </TextButton>
      </S.Say>
      <Audiences all={campaign.audience} edit={edit} />
    </>
  );
}

/** Takes a day as it is typed, or none. */
const onDay = (put: (day: string) => Promise<boolean>) => (text: string) => {
  const day = text.trim() === "" ? "" : dayRead(text);
  return day === null ? false : put(day);
};

/** Devices and people in words, with their share of the searches and how well they buy. */
function Audiences({ all, edit }: { all: readonly Audience[]; edit: Props["edit"] }) {
  const put = (at: number, some: Partial<Audience>) =>
    edit({ audience: all.map((one, place) => (place === at ? { ...one, ...some } : one)) });
  const add = (who: string) =>
    who.trim() === "" ||
    edit({ audience: [...all, { who: who.trim(), share: null, sells: null }] });
  const figure = (text: string, over: number) => {
    if (text.trim() === "") return null;
    const value = parsed(text);
    return value === null ? undefined : value / over;
  };
  return (
    <S.Say>
      {all.map((one, at) => (
        <div key={at}>
          <b>{one.who}</b>:{" "}
          <Blank
            label={`Share of searches: ${one.who}`}
            value={one.share == null ? "" : number(one.share * 100, 0)}
            placeholder="?"
            onCommit={(text) => {
              const share = figure(text, 100);
              return share === undefined ? A_NUMBER : put(at, { share });
            }}
          />{" "}
          % of the searches, buying{" "}
          <Blank
            label={`How well they buy: ${one.who}`}
            value={one.sells == null ? "" : number(one.sells, 2)}
            placeholder="?"
            onCommit={(text) => {
              const sells = figure(text, 1);
              return sells === undefined ? A_NUMBER : put(at, { sells });
            }}
          />{" "}
          times as well{" "}
          <TextButton
            aria-label={`leave out ${one.who}`}
            onPress={() => void edit({ audience: all.filter((_, place) => place !== at) })}
          >
            leave out
          </TextButton>
        </div>
      ))}
      Devices and people:{" "}
      <Blank
        key={all.length}
        label="Further device or audience"
        value=""
        placeholder="name one, such as phones"
        onCommit={add}
      />
    </S.Say>
  );
}
