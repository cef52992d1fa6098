import { TextButton } from "../../parts/Button";
import { money } from "../../parts/format";
import { useDropped } from "../../parts/dragging";
import { usePlanChange } from "../../data/usePlanChange";
import { limitsInWords, termsInWords } from "./campaignWords";
import * as S from "./Arrange.styles";
import type { Campaign } from "./view";

type HeadProps = { campaign: Campaign; currency: string; onOpen: () => void };

/** A campaign as a line of the outline: its money, its limits, its hours and area. */
export function CampaignHead({ campaign, currency, onOpen }: HeadProps) {
  const send = usePlanChange();
  const dropped = useDropped({
    groups: (ids) => void send("post", "/arrange/groups/move", { ids, campaign_id: campaign.id }),
  });
  return (
    <S.CampaignLine {...dropped}>
      <TextButton aria-label={`Open the campaign ${campaign.name}`} onPress={onOpen}>
        {campaign.name}
      </TextButton>
      <b>
        {money(campaign.spend)} {currency}
      </b>
      <span>{limitsInWords(campaign)}</span>
      <span>{termsInWords(campaign)}</span>
    </S.CampaignLine>
  );
}
