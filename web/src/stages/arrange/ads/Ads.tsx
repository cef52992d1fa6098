import { useMemo, useRef, useState } from "react";
import { useActions } from "../../../app/actions";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSaying } from "../../../data/saying";
import { TextButton } from "../../../parts/Button";
import type { Column } from "../../../parts/column";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { plural } from "../../../parts/format";
import { leaf } from "../../../parts/shownList";
import * as A from "../Arrange.styles";
import type { ArrangeView } from "../view";
import { AdsFileSheet } from "./AdsFileSheet";
import { GroupAds } from "./GroupAds";
import { ReplaceSheet } from "./ReplaceSheet";

type Props = {
  view: ArrangeView;
  ads: Schemas["AdsView"];
  writing: number;
  onWriting: (writing: number) => void;
};

/** All ads of the plan in a list; beside it the one the planner stands on. */
export function Ads({ view, ads: found, writing, onWriting }: Props) {
  const { id } = usePlan();
  const send = usePlanChange();
  const { say } = useSaying();
  const rows = useMemo(() => rowsOf(found, view), [found, view]);
  const columns = useMemo(() => columnsOf(rows), [rows]);
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [replacing, setReplacing] = useState(false);
  const [reading, setReading] = useState(false);
  const grid = useRef<GridHandle>(null);
  // a group's first ad takes the place of the line that said there was none
  const shown =
    rows.find((row) => row.id === active) ??
    rows.find((row) => row.groupId === -(active ?? 0)) ??
    rows[0];
  const missing = found.without.length;
  const draft = () =>
    missing > 0
      ? void send("post", "/arrange/ads/draft", {})
      : say("Every group with kept keywords has an ad.");
  const chosen = rows.filter(({ id: one, ad }) => selected.has(one) && ad).map(({ ad }) => ad!.id);
  const remove = () =>
    chosen.length > 0 && void send("post", "/arrange/ads/remove", { ids: chosen });
  const write = () => onWriting(writing + 1);
  const next = () => {
    const bare = rows.find((row) => !row.ad && row.id !== shown?.id);
    if (bare) setActive(bare.id);
    write();
  };
  useActions([
    { name: "Write another ad of this group", keys: ["a"], run: write },
    { name: "Next group without an ad", keys: ["u"], run: next },
    { name: "Draft an ad for each group without one", keys: ["r"], run: draft },
    { name: "Search and replace in all ads", keys: ["h"], run: () => setReplacing(true) },
    { name: "Read ads from a file", keys: [], run: () => setReading(true) },
    { name: "Remove the selected ads", keys: [], run: () => void remove() },
    { name: "Go to the ads", keys: ["o"], run: () => grid.current?.focus() },
  ]);
  const csv = `/api/plans/${id}/arrange/ads.csv`;
  return (
    <A.Halves>
      <A.Half aria-label="Ads">
        <A.Bar>
          {missing > 0 && (
            <>
              <TextButton onPress={draft}>
                draft {plural(missing, "ad")} for groups without one
              </TextButton>{" "}
              <kbd>r</kbd>{" "}
            </>
          )}
          <TextButton onPress={() => setReplacing(true)}>search and replace …</TextButton>{" "}
          <kbd>h</kbd> <TextButton onPress={() => setReading(true)}>from a file …</TextButton>{" "}
          {found.ads.length > 0 && (
            <>
              <a href={csv}>as written, CSV</a> <a href={`${csv}?form=appearing`}>as they appear</a>
            </>
          )}{" "}
          {chosen.length > 0 && (
            <TextButton onPress={() => void remove()}>
              remove {plural(chosen.length, "ad")}
            </TextButton>
          )}
        </A.Bar>
        <Grid
          label="Ads"
          handle={grid}
          columns={columns}
          rows={rows.map((_, at) => at)}
          idOf={(at) => rows[at]!.id}
          active={shown?.id ?? null}
          onActive={(next) => {
            setActive(next);
            onWriting(0);
          }}
          selected={selected}
          onSelected={setSelected}
          empty="No group holds kept keywords yet: keep some in Sift, then write here what people will read."
        />
      </A.Half>
      <A.Half aria-label="The ad">
        {shown && (
          <>
            <A.About>
              <h2>{shown.group}</h2>
            </A.About>
            <GroupAds
              key={shown.groupId}
              view={view}
              group={shown.groupId}
              first={shown.place}
              writing={writing}
              onWrite={write}
            />
          </>
        )}
      </A.Half>
      <ReplaceSheet open={replacing} onOpen={setReplacing} />
      <AdsFileSheet open={reading} onOpen={setReading} />
    </A.Halves>
  );
}

type Row = {
  /** The ad's id; of a group without one, the group's id below 0. */
  id: number;
  groupId: number;
  group: string;
  /** Which of the group's ads. */
  place: number;
  ad: Schemas["AdItem"] | null;
};

/** Groups without an ad first, then all ads by their groups. */
function rowsOf(found: Schemas["AdsView"], { groups }: ArrangeView): Row[] {
  const label = new Map(groups.id.map((id, at) => [id, groups.label[at]!]));
  const seen = new Map<number, number>();
  const bare = found.without.map((id) => ({
    ...{ id: -id, groupId: id, group: label.get(id) ?? "", place: 0, ad: null },
  }));
  const held = found.ads.map((ad) => {
    const place = seen.get(ad.group_id) ?? 0;
    seen.set(ad.group_id, place + 1);
    return { id: ad.id, groupId: ad.group_id, group: label.get(ad.group_id) ?? "", place, ad };
  });
  held.sort((a, b) => a.group.localeCompare(b.group) || a.place - b.place);
  return [...bare, ...held];
}

function columnsOf(rows: readonly Row[]): Column[] {
  const shown = (at: number) => rows[at]!.ad?.headlines.map((one) => one.shown).join(" · ") ?? "";
  const wrong = (at: number) => faultsInWords(rows[at]!.ad);
  const unsaid = (at: number) =>
    (rows[at]!.ad?.lines ?? []).filter(({ said }) => !said).map(({ says }) => says);
  return [
    {
      id: "group",
      head: "Group",
      label: "group",
      width: "minmax(110px, 1fr)",
      leaves: leaf("group", (at) => rows[at]!.group),
      cell: (at) => <span title={rows[at]!.group}>{rows[at]!.group}</span>,
    },
    {
      id: "ad",
      head: "Ad",
      label: "ad",
      width: "minmax(160px, 2.2fr)",
      leaves: leaf("ad", shown),
      cell: (at) =>
        rows[at]!.ad ? (
          <span dir="auto" title={shown(at)}>
            {shown(at)}
          </span>
        ) : (
          <A.Wrong>no ad</A.Wrong>
        ),
    },
    {
      id: "wrong",
      head: "To mend",
      label: "to mend",
      width: "minmax(90px, 1.1fr)",
      leaves: leaf("to mend", wrong),
      cell: (at) => <A.Wrong title={wrong(at)}>{wrong(at)}</A.Wrong>,
    },
    {
      id: "unsaid",
      head: "Not said",
      label: "not said",
      width: "minmax(90px, 1.3fr)",
      leaves: leaf("not said", (at) => unsaid(at).join("; ")),
      cell: (at) => <A.Straw title={unsaid(at).join("; ")}>{unsaid(at).join("; ")}</A.Straw>,
    },
  ];
}

/** What is wrong with an ad, in a few words. */
function faultsInWords(ad: Schemas["AdItem"] | null): string {
  if (!ad) return "";
  return ad.faults.map(({ field, says }) => (field ? `${field}: ${says}` : says)).join("; ");
}
