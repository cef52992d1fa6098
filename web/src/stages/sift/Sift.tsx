import { useEffect, useRef, useState } from "react";
import { useActions } from "../../app/actions";
import { useAsked, useAsking } from "../../app/asked";
import type { CallName } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { TextButton } from "../../parts/Button";
import type { GridHandle } from "../../parts/Grid";
import { Top } from "../../parts/Screen";
import { Views } from "../../parts/Views";
import { useSteady } from "../../parts/useSteady";
import { count, money, number, plural } from "../../parts/format";
import { CallBar } from "./CallBar";
import { ColumnSheet } from "./list/ColumnSheet";
import { Compare } from "./Compare";
import { FilterBar } from "./filter/FilterBar";
import { EditSheet, NoteSheet, ReasonSheet } from "./CallSheets";
import { List } from "./list/List";
import { MapView } from "./map/MapView";
import { OneByOne } from "./one/OneByOne";
import { RulesSheet } from "./RulesSheet";
import * as S from "./Sift.styles";
import { Words } from "./words/Words";
import { useCalls, useSift, SiftProvider, views } from "./useSift";

type Over = "reason" | "note" | "edit" | "rules" | "columns" | null;

/** Every keyword judged: as a list, by words, one by one, on a map, side by side. */
export function Sift() {
  return (
    <SiftProvider>
      <Ways />
    </SiftProvider>
  );
}

function Ways() {
  const { setActive } = useAsking();
  const { active } = useAsked();
  const { say } = useSaying();
  const { selected, setSelected, last, view, setView, refresh } = useSift();
  const { targets, callAs } = useCalls();
  const [over, setOver] = useState<Over>(null);
  const grid = useRef<GridHandle>(null);
  const search = useRef<HTMLInputElement>(null);
  const onSheet = view === "list" || view === "map";

  useEffect(() => {
    if (view === "list") grid.current?.focus();
  }, [view]);
  const call = useSteady((name: CallName, reason: string = "") => {
    const back = active;
    const called = callAs(name, undefined, { reason });
    // the next row comes at once: the next key press must not fall on this one again
    if (selected.size === 0) grid.current?.move(1);
    void called.then((took) => {
      if (took && selected.size > 0) setSelected(new Set());
      if (!took && selected.size === 0) setActive(back);
    });
  });
  const sheetFor = (name: Over) => () =>
    targets.length > 0 || name === "rules" || name === "columns"
      ? setOver(name)
      : say("Select a keyword first: arrows move, x selects.");
  useActions([
    ...views.map(({ id, name, key }) => ({
      name: `Sift: ${name}`,
      keys: [key],
      run: () => setView(id),
    })),
    { name: "Filter by words", keys: ["/"], run: () => search.current?.focus() },
    { name: "Filter and order anew", keys: ["f"], run: refresh },
    { name: "Reason of the call", keys: ["r"], run: () => setOver("reason") },
    { name: "Note on the keyword", keys: ["n"], run: sheetFor("note") },
    { name: "Change the selected keywords", keys: ["e"], run: sheetFor("edit") },
    { name: "House rules", keys: ["u"], run: sheetFor("rules") },
    { name: "Columns of the list", run: sheetFor("columns") },
    ...(onSheet
      ? [
          { name: "Keep", keys: ["1"], run: () => call("keep") },
          { name: "Hold", keys: ["2"], run: () => call("hold") },
          { name: "Drop", keys: ["3"], run: () => call("drop") },
          { name: "Block", keys: ["4"], run: () => call("block") },
          { name: "Take the call back", keys: ["0"], run: () => call("none") },
          {
            name: "The same call again",
            keys: ["."],
            run: () => (last ? call(last.call, last.reason) : say("No call yet to repeat.")),
          },
        ]
      : []),
    ...(view === "list"
      ? [
          { name: "Next row", keys: ["j", "ArrowDown"], run: () => grid.current?.move(1) },
          { name: "Row before", keys: ["k", "ArrowUp"], run: () => grid.current?.move(-1) },
        ]
      : []),
  ]);
  return (
    <>
      <Top>
        <h1>Sift</h1>
        <Views label="Way into the sheet" views={views} view={view} onView={setView} />
        {onSheet && <CallBar count={selected.size || (active === null ? 0 : 1)} onCall={call} />}
        <S.Tools>
          <TextButton onPress={sheetFor("rules")}>house rules</TextButton>
          {view === "list" && <TextButton onPress={sheetFor("columns")}>columns</TextButton>}
        </S.Tools>
      </Top>
      <FilterBar search={search} onLeave={() => grid.current?.focus()} />
      {view === "list" && <List handle={grid} grid={grid} />}
      {view === "words" && <Words />}
      {view === "one" && <OneByOne />}
      {view === "map" && <MapView />}
      {view === "compare" && <Compare />}
      {view === "list" && <Tail />}
      <ReasonSheet open={over === "reason"} onOpen={() => setOver(null)} />
      <NoteSheet open={over === "note"} onOpen={() => setOver(null)} />
      <EditSheet open={over === "edit"} onOpen={() => setOver(null)} />
      <RulesSheet open={over === "rules"} onOpen={() => setOver(null)} />
      <ColumnSheet open={over === "columns"} onOpen={() => setOver(null)} />
    </>
  );
}

/** The long tail: thin keywords summed. */
function Tail() {
  const { summary } = usePlan();
  const { filter, setFilter } = useSift();
  const { tail } = summary;
  if (tail.keywords === 0) return null;
  const { currency } = summary.brief.values;
  const said =
    `${plural(tail.keywords, "keyword")} with under a click a month each: the ` +
    `${number(tail.kept)} kept bring ${count(tail.customers)} customers for ` +
    `${money(tail.spend)} ${currency}, the others would add ${count(tail.more_customers)} ` +
    `for ${money(tail.more_spend)}.`;
  return (
    <S.Tail>
      <span title={said}>
        <b>Long tail</b> {said}
      </span>
      <S.Link
        onPress={() => setFilter({ ...filter, flags: [...new Set([...filter.flags, "thin"])] })}
      >
        show them
      </S.Link>
    </S.Tail>
  );
}
