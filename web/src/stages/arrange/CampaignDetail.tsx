import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { useAsking } from "../../app/asked";
import { Traced } from "../../parts/Traced";
import { Hours, always, here } from "../../parts/Hours";
import { A_NUMBER, count, money, number, parsed, plural } from "../../parts/format";
import * as S from "./Arrange.styles";
import { CampaignMore } from "./CampaignMore";
import { CampaignSpots } from "./CampaignSpots";
import type { ArrangeView, Campaign } from "./view";

type Props = { campaign: Campaign; view: ArrangeView; onBack: () => void };

/** One campaign in sentences: its money, its hours and area, a note. */
export function CampaignDetail({ campaign, view, onBack }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const send = usePlanChange();
  const currency = summary.brief.values.currency;
  const edit = (body: Schemas["CampaignEdit"]) =>
    send("post", "/arrange/campaigns/{campaign_id}", body, { campaign_id: campaign.id });
  const shown = campaign.showing ?? always;
  const own = view.groups.campaign_id.filter((id) => id === campaign.id).length;
  const sum = (
    label: string,
    value: number | null,
    put: (value: number | null) => Schemas["CampaignEdit"],
  ) => (
    <Blank
      label={label}
      value={value === null ? "" : number(value, Number.isInteger(value) ? 0 : 2)}
      placeholder="no limit"
      onCommit={(text) => {
        if (text.trim() === "") return edit(put(null));
        const sum = parsed(text);
        return sum === null ? A_NUMBER : edit(put(sum));
      }}
    />
  );
  return (
    <S.Scrolled>
      <h2>
        <Blank
          label="Name of the campaign"
          value={campaign.name}
          onCommit={(name) => edit({ name })}
        />
      </h2>
      <p>
        <Traced onPress={() => ask({ kind: "campaign", id: campaign.id })}>
          {plural(own, "group")}; {money(campaign.spend)} {currency} a month,{" "}
          {money(campaign.daily_budget)} a day
          {campaign.clicks_lost > 0 &&
            `, which costs ${count(campaign.clicks_lost)} clicks a month on busy days`}
          .
        </Traced>
        {campaign.share_with !== null &&
          campaign.share_gain > 0 &&
          ` Sharing its money with ${campaign.share_with} would bring both ${count(campaign.share_gain)} clicks a month more.`}
      </p>
      <S.Say>
        It spends at least{" "}
        {sum("Least money a month", campaign.least_spend || null, (v) => ({ least_spend: v ?? 0 }))}{" "}
        and at most {sum("Most money a month", campaign.most_spend, (v) => ({ most_spend: v }))}{" "}
        {currency} a month
        {campaign.binds && <S.Straw>: its {campaign.binds} binds</S.Straw>}.
      </S.Say>
      <S.Say>
        Ads are shown on{" "}
        <Hours
          shown={shown}
          assumed={campaign.showing === null}
          onChange={(some) =>
            void edit({ showing: { ...shown, zone: shown.zone || here, ...some } })
          }
        />
        {campaign.showing === null ? (
          ", as the plan says."
        ) : (
          <>
            , when {number((campaign.shown_share ?? 1) * 100)} % of a week’s searches are made.{" "}
            <TextButton onPress={() => void edit({ showing: null })}>as the plan says</TextButton>
          </>
        )}
      </S.Say>
      <S.Say>
        Its volumes count{" "}
        <Blank
          label="Area share of the campaign, per cent"
          value={campaign.area_share === null ? "" : number(campaign.area_share * 100, 0)}
          placeholder="as the plan’s"
          onCommit={(text) => {
            if (text.trim() === "") return edit({ area_share: null });
            const share = parsed(text);
            return share === null ? A_NUMBER : edit({ area_share: share / 100 });
          }}
        />{" "}
        % of the area.
      </S.Say>
      <CampaignMore campaign={campaign} edit={edit} />
      <CampaignSpots campaign={campaign.id} />
      <S.Say>
        Note:{" "}
        <Blank
          label="Note on the campaign"
          value={campaign.note}
          placeholder="none"
          onCommit={(note) => edit({ note })}
        />
      </S.Say>
      <span>
        <TextButton onPress={onBack}>back to the group</TextButton> <kbd>Esc</kbd>
      </span>
    </S.Scrolled>
  );
}
