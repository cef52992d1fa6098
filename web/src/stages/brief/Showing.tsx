import { usePlan } from "../../data/plan";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Hours, always, here, type Times } from "../../parts/Hours";
import * as S from "./Brief.styles";
import { hundredths } from "./fields";
import { A_NUMBER, parsed } from "../../parts/format";

/** Days and hours of showing, with the share of searches that falls in them. */
export function Showing() {
  const { summary, changeBrief } = usePlan();
  const held = summary.brief.values.showing;
  const shown = held ?? always;
  const set = (some: Partial<Times>) =>
    changeBrief({ showing: { ...shown, zone: shown.zone || here, ...some } });
  return (
    <S.Sentence>
      Ads are shown on <Hours shown={shown} assumed={!held} onChange={(some) => void set(some)} />{" "}
      <S.Aside>({shown.zone || here})</S.Aside>, when{" "}
      <Blank
        label="Share of searches shown, per cent"
        value={hundredths(summary.brief.shown_share)}
        assumed={shown.share === null}
        onCommit={(text) => {
          if (text.trim() === "") return set({ share: null });
          const share = parsed(text);
          return share === null ? A_NUMBER : set({ share: share / 100 });
        }}
      />{" "}
      % of a week&rsquo;s searches are made.{" "}
      {held && (
        <S.Aside>
          <TextButton onPress={() => void changeBrief({ showing: null })}>always</TextButton>
        </S.Aside>
      )}
    </S.Sentence>
  );
}
