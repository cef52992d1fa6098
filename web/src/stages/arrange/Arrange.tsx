import { useState } from "react";
import { useActions } from "../../app/actions";
import { useViewKeys } from "../../app/useViewKeys";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { TextButton } from "../../parts/Button";
import { NotYet } from "../../parts/NotYet";
import { Top } from "../../parts/Screen";
import { ItemsAway } from "../../parts/TakeAway";
import { Views } from "../../parts/Views";
import { number, plural } from "../../parts/format";
import { Ads } from "./ads/Ads";
import * as S from "./Arrange.styles";
import { Conflicts, conflictsLeave } from "./Conflicts";
import { Groups } from "./Groups";
import { NewPlace } from "./NewPlace";
import { NameSheet } from "./NameSheet";
import { Negatives } from "./negatives/Negatives";
import { Pages } from "./pages/Pages";
import { ScoutingSheet } from "./ScoutingSheet";
import { StructureSheet } from "./StructureSheet";

type View = "groups" | "negatives" | "ads" | "pages" | "conflicts";

const order: readonly View[] = ["groups", "negatives", "ads", "pages", "conflicts"];

/** Close keywords together in groups with a landing page each; what gets in each other's way. */
export function Arrange() {
  const { summary } = usePlan();
  const send = usePlanChange();
  const [view, setView] = useState<View>("groups");
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [writing, setWriting] = useState(0);
  const go = (next: View) => {
    setView(next);
    setWriting(0);
  };
  const [naming, setNaming] = useState(false);
  const [scouting, setScouting] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const query = usePlanQuery("/arrange");
  const found = query.data;
  const negatives = usePlanQuery("/arrange/negatives");
  const written = usePlanQuery("/arrange/ads", { enabled: view === "ads" });
  const led = usePlanQuery("/arrange/pages", { enabled: view === "pages" });
  const [blocked, ads, pages] = [negatives.data, written.data, led.data];
  const needed = { groups: [query], negatives: [negatives], ads: [query, written] };
  const waits = { ...needed, pages: [led], conflicts: [query] }[view].find((one) => !one.data);
  const empty = found ? found.groups.keywords.filter((held) => held === 0).length : 0;
  const removeEmpty = () => void send("post", "/arrange/groups/remove", {});
  useActions([
    { name: "Arrange: the groups", keys: ["i"], run: () => go("groups") },
    { name: "Arrange: the negatives", keys: ["e"], run: () => go("negatives") },
    { name: "Arrange: the ads (v 3)", keys: [], run: () => go("ads") },
    { name: "Arrange: the pages (v 4)", keys: [], run: () => go("pages") },
    { name: "Arrange: conflicts", keys: ["c"], run: () => go("conflicts") },
    { name: "Arrange by a ready structure", keys: ["b"], run: () => setChoosing(true) },
    { name: "Name groups by a rule", keys: [], run: () => setNaming(true) },
    { name: "Look around: add a scouting campaign", keys: [], run: () => setScouting(true) },
    { name: "Remove empty groups and campaigns", keys: [], run: removeEmpty },
  ]);
  useViewKeys(order.length, (at) => go(order[at]!));
  const views = [
    { id: "groups", name: counted("Groups", found?.groups.id.length) },
    { id: "negatives", name: counted("Negatives", blocked?.negatives.length) },
    { id: "ads", name: counted("Ads", found?.ads) },
    { id: "pages", name: counted("Pages", found?.pages) },
    { id: "conflicts", name: counted("Conflicts", found?.conflicts.length) },
  ] as const;
  return (
    <S.Screen>
      <Top>
        <h1>Arrange</h1>
        <Views label="What is shown" views={views} view={view} onView={go} />
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
          {view === "groups" && (
            <>
              <TextButton onPress={() => setNaming(true)}>names …</TextButton>
              <TextButton onPress={() => setScouting(true)}>look around …</TextButton>
            </>
          )}
          <TextButton onPress={() => setChoosing(true)}>arrange by …</TextButton>
        </S.Tools>
      </Top>
      {waits && (
        <S.Bare>
          <NotYet of={waits}>Opening …</NotYet>
        </S.Bare>
      )}
      {found && view === "groups" && (
        <Groups
          view={found}
          writing={writing}
          onWriting={setWriting}
          chosen={chosen}
          onChosen={setChosen}
          onArrange={() => setChoosing(true)}
        />
      )}
      {blocked && view === "negatives" && <Negatives view={blocked} />}
      {found && ads && view === "ads" && (
        <Ads view={found} ads={ads} writing={writing} onWriting={setWriting} />
      )}
      {pages && view === "pages" && <Pages pages={pages} />}
      {found && view === "conflicts" && <Conflicts conflicts={found.conflicts} />}
      <NameSheet open={naming} onOpen={setNaming} groups={[...chosen]} />
      <ScoutingSheet open={scouting} onOpen={setScouting} />
      <StructureSheet open={choosing} onOpen={setChoosing} groups={[...chosen]} />
    </S.Screen>
  );
}

const counted = (name: string, count: number | undefined) =>
  count === undefined ? name : `${name} ${number(count)}`;
