import { useState } from "react";
import { useActions } from "../../../app/actions";
import type { Schemas } from "../../../data/client";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { TextButton } from "../../../parts/Button";
import { Views } from "../../../parts/Views";
import { number, plural } from "../../../parts/format";
import type { ArrangeView } from "../view";
import { AdForm } from "./AdForm";
import { CopySheet } from "./CopySheet";
import * as S from "./ads.styles";

type Props = {
  view: ArrangeView;
  group: number;
  /** Which of its ads is open at first. */
  first?: number;
  /** How often the planner asked to write; 0 once they went elsewhere. */
  writing: number;
  onWrite: () => void;
};

/** The ads of one group, one of them open. */
export function GroupAds(props: Props) {
  const found = usePlanQuery("/arrange/ads").data;
  return found && <Open key={props.group} found={found} {...props} />;
}

function Open(props: Props & { found: Schemas["AdsView"] }) {
  const { found, view, group, first = 0, writing, onWrite } = props;
  const send = usePlanChange();
  const { limits } = found;
  const ads = found.ads.filter(({ group_id }) => group_id === group);
  const [at, setAt] = useState(first);
  const [told, setTold] = useState({ first, writing: 0 });
  const [copying, setCopying] = useState(false);
  if (told.first !== first || told.writing !== writing) {
    if (writing > told.writing) setAt(ads.length);
    else if (told.first !== first) setAt(first);
    setTold({ first, writing });
  }
  const asking = writing > 0 && at === ads.length;
  const open = Math.min(at, ads.length);
  const ad = ads[open];
  const remove = () => ad && void send("post", "/arrange/ads/remove", { ids: [ad.id] });
  const copy = () => ad && setCopying(true);
  const draft = () => void send("post", "/arrange/ads/draft", { group_ids: [group] });
  useActions([{ name: "Copy this ad to other groups", keys: ["y"], run: copy }]);
  if (!limits.written_ads)
    return (
      <S.Leaf>
        <p>
          {limits.platform} has no written ads: the title of the thing sold is the ad, and must say
          the words.
        </p>
      </S.Leaf>
    );
  const views = [
    ...ads.map(({ id }, place) => ({ id: String(place), name: `Ad ${place + 1}`, key: id })),
    { id: String(ads.length), name: ads.length === 0 ? "First ad" : "Another" },
  ];
  return (
    <S.Leaf>
      <S.Ways>
        <Views
          label="Ads of the group"
          views={views}
          view={String(open)}
          onView={(next) => setAt(Number(next))}
        />
        <span>
          {plural(ads.length, "ad")}, {limits.platform} takes {number(limits.ads_per_group)}
        </span>
      </S.Ways>
      <AdForm
        key={`${group} ${open} ${writing}`}
        group={group}
        ad={ad}
        limits={limits}
        focused={asking}
      />
      <S.Ways>
        <span>
          <TextButton onPress={onWrite}>write another</TextButton> <kbd>a</kbd>
        </span>
        {ad && (
          <>
            <span>
              <TextButton onPress={copy}>copy to other groups …</TextButton> <kbd>y</kbd>
            </span>
            <TextButton onPress={remove}>remove this ad</TextButton>
          </>
        )}
        {!ad && <TextButton onPress={draft}>begin with a draft</TextButton>}
      </S.Ways>
      {ad && (
        <CopySheet
          open={copying}
          onOpen={setCopying}
          ad={ad.id}
          from={group}
          groups={view.groups}
        />
      )}
    </S.Leaf>
  );
}
