import { useState } from "react";
import { useActions } from "../../app/actions";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { TextButton } from "../../parts/Button";
import { Quiet, Top } from "../../parts/Screen";
import { ItemsAway } from "../../parts/TakeAway";
import { Views } from "../../parts/Views";
import { number, plural } from "../../parts/format";
import * as S from "./Arrange.styles";
import { Conflicts, conflictsLeave } from "./Conflicts";
import { Groups } from "./Groups";
import { NewPlace } from "./NewPlace";
import { Negatives } from "./negatives/Negatives";
import { StructureSheet } from "./StructureSheet";

type View = "groups" | "negatives" | "conflicts";

/** Close keywords together in groups with a landing page each; what gets in each other's way. */
export function Arrange() {
  const { summary } = usePlan();
  const send = usePlanChange();
  const [view, setView] = useState<View>("groups");
  const [choosing, setChoosing] = useState(false);
  const query = usePlanQuery("/arrange");
  const found = query.data;
  const blocked = usePlanQuery("/arrange/negatives").data;
  const empty = found ? found.groups.keywords.filter((held) => held === 0).length : 0;
  const removeEmpty = () => void send("post", "/arrange/groups/remove", {});
  useActions([
    { name: "Arrange: the groups", keys: ["i"], run: () => setView("groups") },
    { name: "Arrange: the negatives", keys: ["e"], run: () => setView("negatives") },
    { name: "Arrange: conflicts", keys: ["c"], run: () => setView("conflicts") },
    { name: "Arrange by a ready structure", keys: ["b"], run: () => setChoosing(true) },
    { name: "Remove empty groups and campaigns", keys: [], run: removeEmpty },
  ]);
  const views = [
    { id: "groups", name: counted("Groups", found?.groups.id.length) },
    { id: "negatives", name: counted("Negatives", blocked?.negatives.length) },
    { id: "conflicts", name: counted("Conflicts", found?.conflicts.length) },
  ] as const;
  return (
    <S.Screen>
      <Top>
        <h1>Arrange</h1>
        <Views label="What is shown" views={views} view={view} onView={setView} />
        {found && found.groups.id.length > 0 && (
          <Quiet>
            {plural(found.groups.kept.filter((kept) => kept > 0).length, "group")} with kept
            keywords, {plural(new Set(found.groups.campaign_id).size, "campaign")}
          </Quiet>
        )}
        <S.Tools>
          {view === "conflicts" && (
            <ItemsAway
              label="Conflicts"
              items={found?.conflicts}
              columns={conflictsLeave(summary.brief.values.currency)}
            />
          )}
          {view === "groups" && (
            <NewPlace
              onMake={(kind, name) =>
                kind === "campaign"
                  ? send("post", "/arrange/campaigns", { name })
                  : send("post", "/arrange/groups", { name })
              }
            />
          )}
          {empty > 0 && (
            <TextButton onPress={removeEmpty}>remove {plural(empty, "empty group")}</TextButton>
          )}
          <TextButton onPress={() => setChoosing(true)}>arrange by …</TextButton>
        </S.Tools>
      </Top>
      {found && view === "groups" && <Groups view={found} />}
      {blocked && view === "negatives" && <Negatives view={blocked} />}
      {found && view === "conflicts" && <Conflicts conflicts={found.conflicts} />}
      <StructureSheet open={choosing} onOpen={setChoosing} />
    </S.Screen>
  );
}

const counted = (name: string, count: number | undefined) =>
  count === undefined ? name : `${name} ${number(count)}`;
