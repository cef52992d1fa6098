import { useState } from "react";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Blank } from "../../parts/Blank";
import { Views } from "../../parts/Views";
import { number } from "../../parts/format";
import { GroupAds } from "./ads/GroupAds";
import * as S from "./Arrange.styles";
import { GroupAbout } from "./GroupAbout";
import { GroupKeywords } from "./GroupKeywords";
import { GroupNegatives } from "./GroupNegatives";
import { GroupPage } from "./pages/GroupPage";
import { GroupThings } from "./things/GroupThings";
import { ReadSheet } from "./pages/ReadSheet";
import type { ArrangeView } from "./view";

export type Leaf = "keywords" | "ads" | "page" | "things" | "negatives";

type Props = {
  view: ArrangeView;
  at: number;
  leaf: Leaf;
  onLeaf: (leaf: Leaf) => void;
  writing: number;
  onWrite: () => void;
};

/** One group in leaves: its keywords, ads, page, things it shows, negatives. */
export function GroupDetail({ view, at, leaf, onLeaf, writing, onWrite }: Props) {
  const { groups } = view;
  const send = usePlanChange();
  const [reading, setReading] = useState(false);
  const negatives = usePlanQuery("/arrange/negatives").data?.negatives;
  const pages = usePlanQuery("/arrange/pages", { enabled: leaf === "page" }).data;
  const group = groups.id[at]!;
  const label = groups.label[at]!;
  const mine = negatives?.filter(({ level, where }) => level === "group" && where === label);
  const leaves = [
    { id: "keywords", name: `Keywords ${number(groups.kept[at])}` },
    { id: "ads", name: `Ads ${number(groups.ads[at])}` },
    { id: "page", name: "Page" },
    { id: "things", name: `Things ${number(groups.things[at])}` },
    { id: "negatives", name: mine ? `Negatives ${number(mine.length)}` : "Negatives" },
  ] as const;
  return (
    <>
      <S.LeafHead>
        <h2>
          <Blank
            label="Name of the group"
            value={groups.name[at]!}
            onCommit={(name) =>
              send("post", "/arrange/groups/{group_id}", { name }, { group_id: group })
            }
          />
        </h2>
        <span>
          {groups.campaign[at]} · {number(groups.kept[at])} kept
        </span>
        <Views label="Leaves of the group" views={leaves} view={leaf} onView={onLeaf} />
      </S.LeafHead>
      {leaf === "keywords" && (
        <>
          <GroupAbout view={view} at={at} />
          <GroupKeywords view={view} at={at} />
        </>
      )}
      {leaf === "ads" && <GroupAds view={view} group={group} writing={writing} onWrite={onWrite} />}
      {leaf === "page" && pages && (
        <GroupPage pages={pages} group={group} onRead={() => setReading(true)} />
      )}
      {leaf === "things" && <GroupThings group={group} />}
      {leaf === "negatives" && mine && (
        <GroupNegatives negatives={mine} group={group} leaves={groups.leaves[at] ?? []} />
      )}
      <ReadSheet
        open={reading}
        onOpen={setReading}
        group={{ id: group, label, address: groups.page[at]! }}
      />
    </>
  );
}
