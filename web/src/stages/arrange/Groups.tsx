import { useEffect, useMemo, useRef, useState } from "react";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import type { Sort } from "../../parts/column";
import { Grid, type GridHandle } from "../../parts/Grid";
import type { ArrangeView } from "./view";
import { useActions } from "../../app/actions";
import { ChosenGroups } from "./ChosenGroups";
import { CampaignDetail } from "./CampaignDetail";
import { CampaignHead } from "./CampaignHead";
import { groupColumns } from "./groupColumns";
import { outlined } from "./outline";
import * as S from "./Arrange.styles";
import { GroupDetail, type Leaf } from "./GroupDetail";

type Props = {
  view: ArrangeView;
  /** How often the planner asked to write an ad since they stand where they do. */
  writing: number;
  onWriting: (writing: number) => void;
  /** Groups selected, by id. */
  chosen: ReadonlySet<number>;
  onChosen: (ids: ReadonlySet<number>) => void;
  /** Asks for a ready structure of the selected groups' keywords. */
  onArrange: () => void;
};

/** An outline: campaigns with their groups under them; beside it the group, or its campaign. */
export function Groups(props: Props) {
  const { view, writing, onWriting, chosen, onChosen, onArrange } = props;
  const { groups, campaigns } = view;
  const { summary } = usePlan();
  const { say } = useSaying();
  const currency = summary.brief.values.currency;
  const [sort, setSort] = useState<Sort>({ by: "spend", down: true });
  const [picked, setPicked] = useState<number | null>(null);
  const [campaign, setCampaign] = useState<number | null>(null);
  const [leaf, setLeaf] = useState<Leaf>("keywords");
  const grid = useRef<GridHandle>(null);
  const outline = useMemo(() => outlined(view, sort), [view, sort]);
  const columns = useMemo(
    () => groupColumns(groups, summary.purse.spend, currency, chosen),
    [groups, summary.purse.spend, currency, chosen],
  );
  useEffect(() => grid.current?.focus(), []);
  const first = outline.rows[0];
  const active = picked !== null && groups.id.includes(picked) ? picked : null;
  const shown = active ?? (first === undefined ? null : groups.id[first]!);
  const at = shown === null ? -1 : groups.id.indexOf(shown);
  const own = campaigns.find(({ id }) => id === (campaign ?? NaN));
  const openCampaign = () => setCampaign(groups.campaign_id[at] ?? campaigns[0]?.id ?? null);
  const pick = (id: number) => {
    setPicked(id);
    setCampaign(null);
    onWriting(0);
  };
  const write = () => {
    setCampaign(null);
    setLeaf("ads");
    onWriting(writing + 1);
  };
  const next = () => {
    const bare = outline.rows.find((row) => groups.without_ad[row] && row !== at);
    if (bare === undefined) return say("Every other group with kept keywords has an ad.");
    setPicked(groups.id[bare]!);
    write();
  };
  useActions([
    { name: "Write another ad of this group", keys: ["a"], run: write },
    { name: "Next group without an ad", keys: ["u"], run: next },
    { name: "The group’s keywords", keys: [], run: () => setLeaf("keywords") },
    { name: "The group’s page", keys: [], run: () => setLeaf("page") },
    { name: "The things the group shows", keys: [], run: () => setLeaf("things") },
    { name: "The group’s negatives", keys: [], run: () => setLeaf("negatives") },
    { name: "Open the campaign of this group", keys: ["p"], run: openCampaign },
    { name: "Back to the group", keys: ["Escape"], run: () => setCampaign(null) },
  ]);
  return (
    <S.Halves>
      <S.Half aria-label="Ad groups">
        {chosen.size > 0 && (
          <ChosenGroups view={view} ids={[...chosen]} onChosen={onChosen} onArrange={onArrange} />
        )}
        <Grid
          label="Ad groups"
          handle={grid}
          columns={columns}
          rows={outline.rows}
          idOf={(row) => groups.id[row]!}
          active={shown}
          onActive={pick}
          selected={chosen}
          onSelected={onChosen}
          sort={sort}
          onSort={setSort}
          dividers={outline.heads.map(({ one, before }) => ({
            id: `campaign-${one.id}`,
            before,
            content: (
              <CampaignHead campaign={one} currency={currency} onOpen={() => setCampaign(one.id)} />
            ),
          }))}
          look={(row) => ({ dim: groups.kept[row] === 0 })}
          empty="No groups yet. Keywords bring the group their file names, or arrange them by a ready structure (b)."
        />
      </S.Half>
      <S.Half aria-label={own ? "The campaign" : "The group"}>
        {own ? (
          <CampaignDetail
            key={own.id}
            campaign={own}
            view={view}
            onBack={() => setCampaign(null)}
          />
        ) : (
          at >= 0 && (
            <GroupDetail
              key={shown}
              view={view}
              at={at}
              leaf={leaf}
              onLeaf={setLeaf}
              writing={writing}
              onWrite={write}
            />
          )
        )}
      </S.Half>
    </S.Halves>
  );
}
